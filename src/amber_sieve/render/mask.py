"""The mask of one sieve: qualify, then invert, then strength."""

from __future__ import annotations

import numpy as np

from ..core.colour.measures import hue_saturation_luminance
from ..core.colour.oklab import to_oklab
from ..core.colour.transfer import to_levels
from ..core.frame import Frame
from ..core.pick.samples import Probe, membership, needs_planes
from ..project.model import Pick, Sample, Sieve
from .cache import Cache


def probe_of(sample: Sample, pick: Pick) -> Probe:
    """A sample of the model as the kernels take it."""
    return Probe(
        colour=sample.colour, keep=sample.role == "keep", compare=sample.compare, tolerance=sample.tolerance, falloff=sample.falloff,
        shading=pick.shading / 100, gloss=pick.gloss / 100, shape=sample.shape, bend=sample.bend,
    )  # fmt: skip


def oklab_of(frame: Frame, cache: Cache) -> np.ndarray:
    """The frame in Oklab, (3, H, W)."""
    return cache.get(("oklab", frame.key), lambda: to_oklab(frame.planes))


def measures_of(frame: Frame, cache: Cache) -> np.ndarray:
    """Hue, saturation, luminance and red, green, blue levels of the frame, (6, H, W)."""

    def measure() -> np.ndarray:
        out = np.empty((6, *frame.planes.shape[1:]), np.float32)
        hue_saturation_luminance(frame.planes, oklab_of(frame, cache), out[:3])
        out[3:] = to_levels(frame.planes)
        return out

    return cache.get(("measures", frame.key), measure)


def qualified(frame: Frame, pick: Pick, cache: Cache) -> np.ndarray:
    """What the samples of a sieve take, (H, W)."""
    probes = [probe_of(sample, pick) for sample in pick.samples if sample.on]
    extra = measures_of(frame, cache) if needs_planes(probes) else None
    return membership(oklab_of(frame, cache), probes, extra)


def mask_of(frame: Frame, sieve: Sieve, cache: Cache) -> np.ndarray:
    """The mask of a sieve, (H, W) float32 in 0 to 1, before strength. Read only."""

    def make() -> np.ndarray:
        mask = qualified(frame, sieve.pick, cache)
        return np.subtract(1, mask, out=mask) if sieve.invert else mask

    return cache.get(("mask", frame.key, sieve.pick, sieve.invert), make)
