"""Match a target: the mean light of the masked pixels lands on a colour, as if the thing had been
dyed (`dye.py`).
"""

from __future__ import annotations

import numpy as np

from ..colour.oklab import to_oklab
from .body import Thing
from .chain import Step
from .dye import Dye
from .dye import steps as dyed

#: Believable is a match that takes at most this share of the masked pixels out of gamut (by eye).
OUT_OF_GAMUT = 0.01
#: And one that scales lightness by no less and no more: beyond, texture is lost or made up (by
#: eye).
SCALES = (0.55, 1.8)
#: Halvings of the way to the target, after which a believable match is near enough.
HALVINGS = 12


def steps(found: Dye | None = None) -> list[Step]:
    """A match as steps of a chain; none while it has not been found (`found_match`)."""
    return dyed(found)


def _outside(light: np.ndarray, weights: np.ndarray) -> float:
    """Share of some light (3, N) that sRGB does not have."""
    out: np.ndarray = np.any((light < -1e-3) | (light > 1 + 1e-3), axis=0)
    return float((out * weights).sum() / weights.sum())


def _lightness(light: np.ndarray, weights: np.ndarray) -> float:
    """Mean Oklab lightness of some light (3, N)."""
    return float(
        (to_oklab(np.ascontiguousarray(light[:, None], np.float32))[0, 0] * weights).sum()
        / weights.sum()
    )


def found_match(
    planes: np.ndarray,
    weights: np.ndarray,
    target: tuple[float, float, float],
    believable: bool = False,
) -> Dye:
    """The dye that makes the mean light of some masked pixels a target.

    Parameters
    ----------
    planes : (3, 1, N) float32 linear light; weights : (N,) how far each pixel is masked, not all 0.
    target : linear light.
    believable : go only so far towards it that little leaves the gamut, and that light and shade
        are neither crushed nor blown up.
    """
    light, wanted = planes[:, 0], np.array(target, np.float64)
    thing = Thing(light, weights)
    best = thing.towards(wanted)
    if not believable:
        return best
    before, lightness = _outside(light, weights), max(_lightness(light, weights), 1e-3)
    start = (light.astype(np.float64) * weights).sum(axis=1) / weights.sum()

    def fits(dye: Dye) -> bool:
        out = thing.in_colour(dye)
        return (
            SCALES[0] <= _lightness(out, weights) / lightness <= SCALES[1]
            and _outside(out, weights) - before <= OUT_OF_GAMUT
        )

    if fits(best):
        return best
    low, high = 0.0, 1.0
    for _ in range(HALVINGS):
        middle = (low + high) / 2
        low, high = (
            (middle, high)
            if fits(thing.towards(start + middle * (wanted - start)))
            else (low, middle)
        )
    return thing.towards(start + low * (wanted - start))
