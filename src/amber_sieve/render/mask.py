"""The mask of one sieve: qualify (samples times bands), connected only, invert."""

from __future__ import annotations

import numpy as np

from ..core.bands.apply import bands_mask
from ..core.bands.interval import Interval, luminance_ramp
from ..core.colour.measures import hue_saturation_luminance
from ..core.colour.oklab import to_oklab
from ..core.colour.transfer import to_levels
from ..core.frame import Frame
from ..core.pick.connected import connected_only
from ..core.pick.samples import Probe, membership, needs_planes
from ..project.model import BAND_NAMES, Bands, Pick, Sample, Sieve
from .cache import Cache

#: Frames with more pixels than this are measured strip by strip, so that memory stays small.
LARGE = 3_000_000
ROWS = 256


def probe_of(sample: Sample, pick: Pick) -> Probe:
    """A sample of the model as the kernels take it."""
    return Probe(
        colour=sample.colour, keep=sample.role == "keep", compare=sample.compare, tolerance=sample.tolerance, falloff=sample.falloff,
        shading=pick.shading / 100, gloss=pick.gloss / 100, shape=sample.shape, bend=sample.bend,
    )  # fmt: skip


def probes_of(pick: Pick) -> list[Probe]:
    """All working samples; one that was scribbled or boxed stands there once for each of its tones."""
    working = [sample for sample in pick.samples if sample.on]
    return [probe_of(sample.but(colour=tone), pick) for sample in working for tone in (sample.tones or (sample.colour,))]


def intervals_of(bands: Bands) -> list[Interval]:
    """The bands that are on, as the kernels take them."""
    pairs = [(name, getattr(bands, name)) for name in BAND_NAMES]
    intervals = [
        Interval(name, band.corners, band.inverted, band.shape, band.bend)
        for name, band in pairs
        if band.on and not (name == "luminance" and bands.ramp.on)
    ]
    if bands.ramp.on:
        intervals.append(luminance_ramp(bands.ramp.black, bands.ramp.white, bands.ramp.inverse))
    return intervals


def oklab_of(frame: Frame, cache: Cache) -> np.ndarray:
    """The frame in Oklab, (3, H, W)."""
    return cache.get(("oklab", frame.key), lambda: to_oklab(frame.planes))


def measures_of(frame: Frame, cache: Cache, levels: bool = True) -> np.ndarray:
    """Hue, saturation, luminance and, when asked for, red, green, blue levels of the frame, (3 or 6, H, W)."""

    def measure() -> np.ndarray:
        out = np.empty((6 if levels else 3, *frame.planes.shape[1:]), np.float32)
        hue_saturation_luminance(frame.planes, oklab_of(frame, cache), out[:3])
        if levels:
            out[3:] = to_levels(frame.planes)
        return out

    return cache.get(("measures", frame.key, levels), measure)


def _qualify(frame: Frame, probes: list[Probe], intervals: list[Interval], cache: Cache, out: np.ndarray) -> None:
    """Samples times bands into ``out``; with neither, nothing is masked."""
    extra = measures_of(frame, cache) if needs_planes(probes) else None
    if not intervals:
        membership(oklab_of(frame, cache), probes, extra, out)
        return
    channels = any(interval.measure in BAND_NAMES[3:] for interval in intervals)
    measures = extra if extra is not None else measures_of(frame, cache, levels=channels)
    bands_mask(measures, intervals, out)
    if any(probe.keep for probe in probes):
        out *= membership(oklab_of(frame, cache), probes, extra)


def qualified(frame: Frame, pick: Pick, bands: Bands, cache: Cache) -> np.ndarray:
    """What samples and bands of a sieve take, (H, W)."""
    probes, intervals = probes_of(pick), intervals_of(bands)
    out = np.empty(frame.planes.shape[1:], np.float32)
    if out.size <= LARGE:
        _qualify(frame, probes, intervals, cache, out)
    else:
        for top in range(0, frame.height, ROWS):
            bottom = min(top + ROWS, frame.height)
            _qualify(frame.part(0, top, frame.width, bottom), probes, intervals, Cache(0), out[top:bottom])
    if not pick.transparent and frame.alpha is not None:
        out *= frame.alpha > 0
    return out


def seeds_of(pick: Pick, frame: Frame) -> list[tuple[float, float]]:
    """The kept places in pixels of this frame."""
    places = [
        point for sample in pick.samples if sample.on and sample.role == "keep" for point in (sample.points or ((sample.x, sample.y),))
    ]
    return [((x - frame.origin[0]) * frame.scale, (y - frame.origin[1]) * frame.scale) for x, y in places]


def mask_of(frame: Frame, sieve: Sieve, cache: Cache) -> np.ndarray:
    """The mask of a sieve over a frame, (H, W) float32 in 0 to 1, before strength. Read only.

    ``frame`` is what the sieve measures. Connected only needs all of the frame to be there.
    """

    def make() -> np.ndarray:
        mask = cache.get(("qualified", frame.key, sieve.pick, sieve.bands), lambda: qualified(frame, sieve.pick, sieve.bands, cache))
        if sieve.pick.connected and sieve.pick.samples:
            mask = connected_only(mask, seeds_of(sieve.pick, frame), sieve.pick.bridge * frame.scale)
        return np.subtract(1, mask) if sieve.invert else mask

    return cache.get(("mask", frame.key, sieve.pick, sieve.bands, sieve.invert), make)
