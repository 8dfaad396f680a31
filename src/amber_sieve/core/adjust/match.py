"""Match a target: the mean of the masked colours lands on a colour, while light, shade and texture stay.

Light scales Oklab lightness and chroma alike (`docs/formulas.md`), so a surface is known by a/L and b/L however it is lit. Its colour is
changed by adding to these, and its lightness by a factor: L' = k·L, a' = k·(a + d·L). Ratios of lightness, which are shade and texture,
stay exactly.
"""

from __future__ import annotations

from typing import Any

import numpy as np
from numba import carray

from ..colour.oklab import from_oklab, one_to_oklab, to_oklab
from ..frame import BRIGHTEST
from ..parallel import row_step
from .chain import Step

#: Least lightness that a target is worked with: that of black has no ratio to others.
LEAST = 0.02
#: Farthest in Oklab that is aimed at: half as far again as the lightness of the brightest light, so that nothing leaves float32.
FARTHEST = 60.0
ROUNDS = 60
#: Oklab distance at which a mean has landed: a hundredth of one that is just noticeable.
NEAR = 2e-4
#: Believable is a match that takes at most this share of what is masked out of gamut, and scales lightness by no less and no more.
OUT_OF_GAMUT, SCALES = 0.01, (0.55, 1.8)


@row_step
def _match(row: Any, width: int, numbers: Any) -> None:
    planes, given = carray(row, (3, width)), carray(numbers, 3)
    lightness, a, b = planes[0], planes[1], planes[2]
    scale, more_a, more_b = np.float32(given[0]), np.float32(given[1]), np.float32(given[2])
    for x in range(width):
        light = lightness[x]
        a[x] = scale * (a[x] + more_a * light)
        b[x] = scale * (b[x] + more_b * light)
        lightness[x] = scale * light


def steps(found: tuple[float, float, float] | None = None) -> list[Step]:
    """A match as steps of a chain; none while it has not been found (`found_match`)."""
    return [] if found is None else [Step(_match.address, found, lab=True)]


def _applied(lab: np.ndarray, found: np.ndarray) -> np.ndarray:
    """Oklab colours (3, 1, N) after a match."""
    scale, more_a, more_b = found.astype(np.float32)
    return np.stack([scale * lab[0], scale * (lab[1] + more_a * lab[0]), scale * (lab[2] + more_b * lab[0])])


def _outside(light: np.ndarray, weights: np.ndarray) -> float:
    """Share of some light (3, 1, N) that sRGB does not have."""
    out: np.ndarray = np.any((light[:, 0] < -1e-3) | (light[:, 0] > 1 + 1e-3), axis=0)
    return float((out * weights).sum() / weights.sum())


def found_match(
    planes: np.ndarray, weights: np.ndarray, target: tuple[float, float, float], believable: bool = False
) -> tuple[float, float, float]:
    """What makes the mean light of some masked pixels a target.

    Parameters
    ----------
    planes : (3, 1, N) float32 linear light; weights : (N,) how far each pixel is masked, not all 0.
    target : linear light.
    believable : go only so far towards it that little leaves the gamut, and that light and shade are neither crushed nor blown up.

    Returns
    -------
    k, d_a, d_b of the formula above.
    """
    lab = to_oklab(np.ascontiguousarray(planes, np.float32))
    share = weights / weights.sum()
    wanted, start = one_to_oklab(np.clip(target, -BRIGHTEST, BRIGHTEST)), one_to_oklab((planes[:, 0] * share).sum(axis=1))
    mean = (lab[:, 0] * share).sum(axis=1)
    mean[0] = max(mean[0], LEAST)

    def to(goal: np.ndarray) -> np.ndarray:
        """The match whose mean light is the goal: the mean in Oklab is not that of light, so it is aimed at until it lands."""
        aim = goal.copy()
        for _ in range(ROUNDS):
            aim = np.clip(aim, -FARTHEST, FARTHEST)
            aim[0] = max(aim[0], LEAST)
            found = np.array([aim[0] / mean[0], *(aim[1:] / aim[0] - mean[1:] / mean[0])])
            landed = one_to_oklab((from_oklab(_applied(lab, found))[:, 0] * share).sum(axis=1))
            if np.abs(goal - landed).max() < NEAR:
                break
            aim += goal - landed
        return found

    best = to(wanted)
    if believable:
        before = _outside(planes, weights)

        def fits(found: np.ndarray) -> bool:
            more = _outside(from_oklab(_applied(lab, found)), weights) - before
            return SCALES[0] <= found[0] <= SCALES[1] and more <= OUT_OF_GAMUT

        low, high = 0.0, 1.0
        if not fits(best):
            for _ in range(12):
                middle = (low + high) / 2
                low, high = (middle, high) if fits(to(start + middle * (wanted - start))) else (low, middle)
            best = to(start + low * (wanted - start))
    return float(best[0]), float(best[1]), float(best[2])
