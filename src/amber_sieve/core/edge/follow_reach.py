"""Follow with the reach found place by place. Ours.

Thin strands want a short reach, a loose fringe a long one. For every reach, the mask m and the colours F and B it spreads explain
the picture as m·F + (1 - m)·B. What they leave unexplained, as a share of |F - B|, is averaged over a band as wide as the widest
reach; outside its own band a reach leaves the mask as it came, so strands that it missed count against it, and so does the mask
that came, as one more candidate. Every place takes the mixture of the candidates in which the one that explains most rules.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numba import prange

from ..parallel import inner, kernel
from .box import box_of
from .feather import blurred
from .follow import (
    LOOKS_PER_REACH,
    NOT,
    ROOM,
    SPREAD,
    Unmixed,
    colours_of,
    depth_of,
    distances_of,
    least_of,
    near_outline,
    share_of,
    told_apart,
)
from .spread import between, place_in

#: Reaches tried, full-resolution pixels; and how far into the surface the band goes in which they are compared.
REACHES, INSIDE = (2.0, 7.0, 24.0), 3.0
#: What is left unexplained is averaged with this standard deviation, full-resolution pixels, at a scale so many times coarser.
SMOOTH, COARSE = 25.0, 6
#: Difference in what is left unexplained at which one candidate rules over another.
RULES = 0.005
#: A longer reach must explain so much more than the next shorter one: texture is explained by anything that is long enough.
LONGER = 0.01
#: A pixel of which more than this was mixed anew lies in the band.
HALF = 0.5
#: What a pixel leaves unexplained counts up to here; and what is added to |F - B|, so that noise does not rule where they are alike.
WORST, STEADY = 1.5, 0.02
#: How far the mask of a pixel looks, full-resolution pixels.
FOUND_LOOKS = LOOKS_PER_REACH * REACHES[-1] + 4 * SMOOTH


@dataclass(frozen=True)
class _Tried:
    """A reach, pixels, and the colours it spread (3, h, w) to where they are needed (h, w)."""

    reach: float
    front: np.ndarray
    behind: np.ndarray
    needed: np.ndarray


@inner
def _rest(along: np.float32, across: np.float32, off: np.float32, share: np.float32) -> np.float32:
    """|I - share·F - (1 - share)·B| as a share of |F - B|."""
    left = max(off - share * (along + along - share * across), np.float32(0))
    return min(np.sqrt(left) / (np.sqrt(across) + np.float32(STEADY)), np.float32(WORST))


@kernel
def _unexplained(
    planes: np.ndarray, mask: np.ndarray, away: np.ndarray, deep: np.ndarray, front: np.ndarray, behind: np.ndarray, least: float,
    reach: float, depth: float, wide: float, inside: float, cell: int, sums: np.ndarray,
) -> None:  # fmt: skip
    """Sums over cells of a grid (3, h, w) of what one reach leaves unexplained in the wide band, what the mask that came does with its
    colours, and the pixels counted."""
    height, width = mask.shape
    for row in prange(sums.shape[1]):
        for y in range(row * cell, min((row + 1) * cell, height)):
            y0, y1, ty = place_in(y, height, front.shape[1])
            for x in range(width):
                if away[y, x] > wide or deep[y, x] > inside:
                    continue
                x0, x1, tx = place_in(x, width, front.shape[2])
                along, across, off = told_apart(planes, y, x, front, behind, y0, y1, ty, x0, x1, tx)
                came = mask[y, x]
                share = share_of(along, across, came, least) if away[y, x] <= reach and deep[y, x] <= depth else came
                sums[0, row, x // cell] += _rest(along, across, off, share)
                sums[1, row, x // cell] += _rest(along, across, off, came)
                sums[2, row, x // cell] += np.float32(1)


@kernel
def _mix_in(
    planes: np.ndarray, mask: np.ndarray, away: np.ndarray, deep: np.ndarray, front: np.ndarray, behind: np.ndarray, least: float,
    reach: float, depth: float, weights: np.ndarray, top: int, left: int, out: np.ndarray, banded: np.ndarray,
) -> None:  # fmt: skip
    """Add what one reach changes of the mask, times its weights (coarse), to ``out``, in which the part lies at a row and column;
    ``banded`` gets the weights where it does."""
    height, width = mask.shape
    for y in prange(height):
        y0, y1, ty = place_in(y, height, front.shape[1])
        w0, w1, tw = place_in(y, height, weights.shape[0])
        for x in range(width):
            if away[y, x] > reach or deep[y, x] > depth:
                continue
            v0, v1, tv = place_in(x, width, weights.shape[1])
            weight = between(weights, w0, w1, tw, v0, v1, tv)
            if weight <= np.float32(0):
                continue
            x0, x1, tx = place_in(x, width, front.shape[2])
            along, across, _ = told_apart(planes, y, x, front, behind, y0, y1, ty, x0, x1, tx)
            out[top + y, left + x] += weight * (share_of(along, across, mask[y, x], least) - mask[y, x])
            banded[y, x] += weight


def follow_found(planes: np.ndarray, mask: np.ndarray, scale: float = 1.0, sensitivity: float = 0.5) -> tuple[np.ndarray, Unmixed | None]:
    """Unmix the outline of a mask with the reach that explains each place best.

    Parameters
    ----------
    planes : (3, H, W) float32 linear light; mask : (H, W) float32.
    scale : size of the planes relative to full resolution, in whose pixels the reaches are.
    sensitivity : as in `follow`.

    Returns
    -------
    The mask (the one that came where nothing is to be done), and what was spread, or None where there is no outline.
    """
    reaches = [reach * scale for reach in REACHES if reach * scale >= 1] or [1.0]
    box = box_of(mask, NOT, ROOM * reaches[-1])
    if box is None:
        return mask, None
    here, part = np.ascontiguousarray(planes[:, box[0], box[1]]), np.ascontiguousarray(mask[box])
    away, deep = distances_of(part)
    inside = max(INSIDE * scale, depth_of(reaches[-1]))
    tried = []
    for reach in reaches:
        needed = near_outline(away, deep, reaches[-1], inside, max(2, int(SPREAD * reach)))
        colours = colours_of(here, away, deep, reach, needed)
        if colours is not None:
            tried.append(_Tried(reach, *colours, needed))
    if not tried:
        return mask, None
    least = least_of(sensitivity)
    weights = _weights(here, part, away, deep, tried, scale, (reaches[-1], inside), least)
    out, banded, corner = mask.copy(), np.zeros_like(part), (box[0].start, box[1].start)
    for one, weight in zip(tried, weights, strict=True):
        _mix_in(here, part, away, deep, one.front, one.behind, least, one.reach, depth_of(one.reach), weight, *corner, out, banded)
    return out, Unmixed(*_together(tried, weights), banded > HALF, out, corner)


def _weights(
    planes: np.ndarray, mask: np.ndarray, away: np.ndarray, deep: np.ndarray, tried: list[_Tried], scale: float,
    wide: tuple[float, float], least: float,
) -> list[np.ndarray]:  # fmt: skip
    """How much each reach counts, on a coarse grid; what is missing to 1 is the mask as it came.

    ``wide`` is how far out and how deep in the band goes in which they are compared.
    """
    cell = max(1, round(COARSE * scale))
    grid = (-(-mask.shape[0] // cell), -(-mask.shape[1] // cell))
    sigma = SMOOTH * scale / cell
    costs: list[np.ndarray] = []
    for one in tried:
        sums = np.zeros((3, *grid), np.float32)
        _unexplained(planes, mask, away, deep, one.front, one.behind, least, one.reach, depth_of(one.reach), *wide, cell, sums)
        own, came, count = (blurred(plane, sigma) for plane in sums)
        if not costs:  # the mask as it came is one more candidate, told by the colours of the shortest reach
            costs.append(came / np.maximum(count, 1e-4))
        costs.append(own / np.maximum(count, 1e-4) + LONGER * len(costs))
    rules = [np.exp(-(cost - np.minimum.reduce(costs)) / np.float32(RULES)) for cost in costs]
    total = np.add.reduce(rules)
    return [rule / total for rule in rules[1:]]


@kernel
def _colours_in(
    front: np.ndarray, behind: np.ndarray, weights: np.ndarray, needed: np.ndarray, to_front: np.ndarray, to_behind: np.ndarray
) -> None:
    """Add colours (3, h', w') times their weights (h'', w'') to others (3, h, w), where they are needed (h, w)."""
    rows, columns = needed.shape
    for y in prange(rows):
        y0, y1, ty = place_in(y, rows, front.shape[1])
        w0, w1, tw = place_in(y, rows, weights.shape[0])
        for x in range(columns):
            if needed[y, x]:
                v0, v1, tv = place_in(x, columns, weights.shape[1])
                x0, x1, tx = place_in(x, columns, front.shape[2])
                weight = between(weights, w0, w1, tw, v0, v1, tv)
                for k in range(3):
                    to_front[k, y, x] += weight * between(front[k], y0, y1, ty, x0, x1, tx)
                    to_behind[k, y, x] += weight * between(behind[k], y0, y1, ty, x0, x1, tx)


def _together(tried: list[_Tried], weights: list[np.ndarray]) -> tuple[np.ndarray, np.ndarray]:
    """The colours of all reaches, mixed by their weights, at the finest of their scales."""
    total = np.maximum(np.add.reduce(weights), np.float32(1e-6))
    front, behind = np.zeros_like(tried[0].front), np.zeros_like(tried[0].behind)
    for one, weight in zip(tried, weights, strict=True):
        _colours_in(one.front, one.behind, weight / total, tried[0].needed, front, behind)
    return front, behind
