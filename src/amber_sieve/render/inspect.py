"""Asking about a single pixel."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

import numpy as np

from ..core.colour.measures import hue_saturation_luminance
from ..core.colour.oklab import to_oklab
from ..core.colour.transfer import to_levels
from ..core.pick.pieces import HALF
from ..core.pick.samples import SampleParams, distance_to, membership
from ..project.model import Sample, Sieve
from .mask import tones_of


def deciding_sample(light: tuple[float, float, float] | np.ndarray, sieve: Sieve, masked: float | None = None) -> str:
    """Name of the sample that decides about a pixel.

    The keep sample that holds it most; the drop sample that takes most of that, when it takes more than half; and where the mask is not what
    those that reach everywhere make of it, the nearest sample that reaches only here.

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

    def mask_of(probes: Sequence[SampleParams]) -> float:
        return float(membership(lab, probes, extra)[0, 0])

    working = [(sample, tones_of(sample, sieve.pick), number) for number, sample in enumerate(sieve.pick.samples, 1) if sample.on]
    keeps, drops = ([row for row in working if row[0].reach == "everywhere" and row[0].role == role] for role in ("keep", "drop"))
    kept = [probe for _, probes, _ in keeps for probe in probes]
    held = mask_of(kept)
    decided: Sample | None = None
    if held > 0:
        decided = max(keeps, key=lambda row: mask_of(row[1]))[0]
    left = {number: mask_of([*kept, *probes]) for _, probes, number in drops}
    for sample, probes, number in drops:
        alone = [replace(probe, keep=True) for probe in probes]  # how far it covers a pixel that none keeps
        if (left[number] == min(left.values()) and left[number] < HALF * held) or (not held and mask_of(alone) > HALF):
            decided = sample
    inside = held > HALF and min(left.values(), default=held) >= HALF * held
    if masked is not None and (masked > HALF) != inside:
        role = "keep" if masked > HALF else "drop"
        here = [
            (float(distance_to(lab, probes, extra)[0, 0]), sample)
            for sample, probes, _ in working
            if sample.reach == "here" and sample.role == role
        ]
        near = min(here, key=lambda row: row[0], default=None)
        if near is not None and near[0] <= near[1].tolerance + near[1].falloff:
            decided = near[1]
    return "" if decided is None else sieve.pick.name_of(decided.id)
