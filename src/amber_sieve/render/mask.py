"""The mask of one sieve: qualify (samples times bands), connected only, invert, edge, areas."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ..core.areas.shapes import combined
from ..core.bands.apply import bands_mask
from ..core.bands.interval import Interval, luminance_ramp
from ..core.colour.measures import hue_saturation_luminance
from ..core.colour.oklab import to_oklab
from ..core.colour.transfer import to_levels
from ..core.edge.clean import cleaned
from ..core.edge.follow import Unmixed
from ..core.frame import Frame
from ..core.pick.connected import connected_only
from ..core.pick.samples import Probe, membership, needs_planes
from ..names import BANDS, CHANNEL_BANDS
from ..project.model import Bands, Edge, Pick, Sample, Sieve
from .areas import area_coverage
from .cache import Cache
from .edge import Step, edge_of, fine_key

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
    pairs = [(name, getattr(bands, name)) for name in BANDS]
    intervals = [
        Interval(name, band.corners, band.inverted, band.shape, band.bend)
        for name, band in pairs
        if band.on and not (name == "luminance" and bands.ramp.on)
    ]
    if bands.ramp.on:
        intervals.append(luminance_ramp(bands.ramp.black, bands.ramp.white, bands.ramp.inverse))
    return intervals


def oklab_of(frame: Frame, cache: Cache, passes: int = 0) -> np.ndarray:
    """The frame in Oklab, (3, H, W), its chroma smoothed by so many passes."""
    lab = cache.get(("oklab", frame.key), lambda: to_oklab(frame.planes))
    return cache.get(("clean", frame.key, passes), lambda: cleaned(lab, passes)) if passes else lab


def measures_of(frame: Frame, cache: Cache, levels: bool = True, passes: int = 0) -> np.ndarray:
    """Hue, saturation, luminance and, when asked for, red, green, blue levels of the frame, (3 or 6, H, W)."""

    def measure() -> np.ndarray:
        out = np.empty((6 if levels else 3, *frame.planes.shape[1:]), np.float32)
        hue_saturation_luminance(frame.planes, oklab_of(frame, cache, passes), out[:3])
        if levels:
            out[3:] = to_levels(frame.planes)
        return out

    return cache.get(("measures", frame.key, levels, passes), measure)


def _qualify(frame: Frame, probes: list[Probe], intervals: list[Interval], cache: Cache, out: np.ndarray, passes: int = 0) -> None:
    """Samples times bands into ``out``; with neither, nothing is masked."""
    extra = measures_of(frame, cache, passes=passes) if needs_planes(probes) else None
    if not intervals:
        membership(oklab_of(frame, cache, passes), probes, extra, out)
        return
    channels = any(interval.measure in CHANNEL_BANDS for interval in intervals)
    measures = extra if extra is not None else measures_of(frame, cache, channels, passes)
    bands_mask(measures, intervals, out)
    if any(probe.keep for probe in probes):
        out *= membership(oklab_of(frame, cache, passes), probes, extra)


def qualified(frame: Frame, pick: Pick, bands: Bands, cache: Cache, passes: int = 0) -> np.ndarray:
    """What samples and bands of a sieve take, (H, W), measured with so many passes of chroma smoothing."""
    probes, intervals = probes_of(pick), intervals_of(bands)
    out = np.empty(frame.planes.shape[1:], np.float32)
    if out.size <= LARGE:
        _qualify(frame, probes, intervals, cache, out, passes)
    else:
        lap = 2 * passes  # what the smoothing of a strip looks at beyond it
        for top in range(0, frame.height, ROWS):
            bottom = min(top + ROWS, frame.height)
            first, last = max(0, top - lap), min(frame.height, bottom + lap)
            strip = np.empty((last - first, frame.width), np.float32) if lap else out[top:bottom]
            _qualify(frame.part(0, first, frame.width, last), probes, intervals, Cache(0), strip, passes)
            if lap:
                out[top:bottom] = strip[top - first : bottom - first]
    if not pick.transparent and frame.alpha is not None:
        out *= frame.alpha > 0
    return out


def seeds_of(pick: Pick, frame: Frame) -> list[tuple[float, float]]:
    """The kept places in pixels of this frame."""
    kept = [sample for sample in pick.samples if sample.on and sample.role == "keep"]
    # A stroke lies on the thing all along its way; a box only surely in its middle, its corners may lie beside it.
    places = [point for sample in kept for point in (sample.points if sample.place == "stroke" else ((sample.x, sample.y),))]
    return [((x - frame.origin[0]) * frame.scale, (y - frame.origin[1]) * frame.scale) for x, y in places]


def passes_of(frame: Frame, edge: Edge) -> int:
    """Passes of chroma smoothing for a frame; fewer when it is reduced, which smooths by itself. "auto" must have been found."""
    return 0 if edge.clean == "auto" else round(edge.clean * min(1.0, frame.scale))


@dataclass(frozen=True)
class Masked:
    """A finished mask (H, W), and the colours its outline was unmixed into (None without Follow or Fine)."""

    mask: np.ndarray
    unmixed: Unmixed | None


def picked(frame: Frame, sieve: Sieve, cache: Cache) -> np.ndarray:
    """Qualified, connected only, inverted: the mask before its edge is worked on. Read only."""

    def make() -> np.ndarray:
        passes = passes_of(frame, sieve.edge)
        mask = cache.get(
            ("qualified", frame.key, sieve.pick, sieve.bands, passes), lambda: qualified(frame, sieve.pick, sieve.bands, cache, passes)
        )
        if sieve.pick.connected and sieve.pick.samples:
            mask = connected_only(mask, seeds_of(sieve.pick, frame), sieve.pick.bridge * frame.scale)
        return np.subtract(1, mask) if sieve.invert else mask

    return cache.get(("picked", frame.key, picked_key(sieve)), make)


def masked(frame: Frame, sieve: Sieve, cache: Cache) -> Masked:
    """The finished mask of a sieve over a frame, before outside level and strength.

    ``frame`` is what the sieve measures. Connected only, islands and holes need all of the frame to be there.
    """

    def make() -> Masked:
        edged = cache.get(
            ("edged", frame.key, picked_key(sieve), sieve.edge),
            lambda: edge_of(frame, picked(frame, sieve, cache), sieve.edge, cache, picked_key(sieve)),
        )
        return Masked(with_areas(frame, edged.mask, sieve, cache), edged.unmixed)

    return cache.get(("mask", frame.key, picked_key(sieve), sieve.edge, sieve.areas), make)


def picked_key(sieve: Sieve) -> tuple[object, ...]:
    """What the mask before the edge depends on."""
    return (sieve.pick, sieve.bands, sieve.invert, sieve.edge.clean)


def waits_for_fine(frame: Frame, sieve: Sieve, cache: Cache) -> bool:
    """Whether the mask of a sieve needs a matting that has not been made yet."""
    return sieve.edge.fine > 0 and not cache.holds(fine_key(frame, picked_key(sieve), sieve.edge))


def make_fine(frame: Frame, sieve: Sieve, cache: Cache, step: Step) -> None:
    """Make the matting that the mask of a sieve waits for, and keep it."""
    edge_of(frame, picked(frame, sieve, cache), sieve.edge, cache, picked_key(sieve), step)


def with_areas(frame: Frame, mask: np.ndarray, sieve: Sieve, cache: Cache) -> np.ndarray:
    """The mask with its areas; an area on a sieve that picks nothing starts from an empty mask, or a full one to cut from."""
    working = [area for area in sieve.areas if area.on]
    if not working:
        return mask
    nothing_picked = not any(sample.on for sample in sieve.pick.samples) and not sieve.bands.active and not sieve.invert
    if nothing_picked and working[0].mode != "add":
        mask = np.ones_like(mask)
    for area in working:
        covered = area_coverage(frame, area, cache)
        mask = combined(mask, 1 - covered if area.inverted else covered, area.mode)
    return mask


def bounds_of(frame: Frame, sieve: Sieve, cache: Cache) -> np.ndarray | None:
    """Where the areas of a sieve let anything be, (H, W) bool: colours are learnt from there alone. None without areas."""
    if not any(area.on and area.mode != "add" for area in sieve.areas):
        return None
    return cache.get(
        ("bounds", frame.key, sieve.areas), lambda: with_areas(frame, np.ones((frame.height, frame.width), np.float32), sieve, cache) > 0.5
    )


def mask_of(frame: Frame, sieve: Sieve, cache: Cache) -> np.ndarray:
    """The finished mask alone, (H, W) float32 in 0 to 1. Read only."""
    return masked(frame, sieve, cache).mask
