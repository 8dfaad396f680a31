"""Asking about a single pixel."""

from __future__ import annotations

import numpy as np

from ..core.colour.measures import hue_saturation_luminance
from ..core.colour.oklab import to_oklab
from ..core.colour.transfer import to_levels
from ..core.pick.pieces import HALF
from ..core.pick.samples import Probe, distance_to, membership
from ..project.model import Sample, Sieve
from .mask import tones_of


def deciding_sample(light: tuple[float, float, float] | np.ndarray, sieve: Sieve, masked: float | None = None) -> str:
    """Name of the sample that decides about a pixel.

    A keep sample that holds it most; a drop sample that takes it out, by its tolerance or because it is nearer; and where the mask is
    not what those that reach everywhere make of it, the nearest sample that reaches only here.

    Parameters
    ----------
    light : (3,) linear light.
    masked : the mask at the pixel, 0 to 1, when it is known.

    Returns
    -------
    Its name, or its role and number; "" when no sample decides.
    """
    planes = np.asarray(light, np.float32).reshape(3, 1, 1)
    lab = to_oklab(planes)
    extra = np.concatenate([hue_saturation_luminance(planes, lab), to_levels(planes)])

    def distance(probes: list[Probe]) -> float:
        return float(distance_to(lab, probes, extra)[0, 0])

    def holds(probes: list[Probe]) -> float:
        return float(membership(lab, [Probe(**{**vars(p), "keep": True}) for p in probes], extra)[0, 0])

    working = [(sample, tones_of(sample, sieve.pick), number) for number, sample in enumerate(sieve.pick.samples, 1) if sample.on]
    everywhere = [row for row in working if row[0].reach == "everywhere"]
    keeps = [(holds(probes), sample, number) for sample, probes, number in everywhere if sample.role == "keep"]
    held = max(keeps, key=lambda row: row[0], default=(0.0, None, 0))
    decided: tuple[Sample | None, int] = (held[1], held[2]) if held[0] > 0 else (None, 0)
    inside = held[0] > HALF
    for sample, probes, number in everywhere:
        if sample.role == "drop":
            rivals = [p for s, tones, _ in everywhere if s.role == "keep" and s.compare == sample.compare for p in tones]
            nearer = sample.rule == "nearer" and bool(rivals) and held[0] > 0 and distance(probes) < distance(rivals)
            if nearer or (holds(probes) > HALF and (sample.rule == "tolerance" or not held[0])):
                decided, inside = (sample, number), False
    if masked is not None and (masked > HALF) != inside:
        role = "keep" if masked > HALF else "drop"
        here = [(distance(probes), sample, number) for sample, probes, number in working if sample.reach == "here" and sample.role == role]
        near = min(here, key=lambda row: row[0], default=None)
        if near is not None and near[0] <= near[1].tolerance + near[1].falloff:
            decided = (near[1], near[2])
    chosen, place = decided
    return "" if chosen is None else chosen.name or f"{chosen.role} {place}"
