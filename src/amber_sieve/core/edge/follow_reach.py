"""Follow with the reach found place by place. Ours.

Thin strands want a short reach, a loose fringe a long one. For every reach, the mask m and the
colours F and B it spreads explain the picture as m·F + (1 - m)·B. What they leave unexplained, as a
share of |F - B|, is averaged over a band as wide as the widest reach; outside its own band a reach
leaves the mask as it came, so strands that it missed count against it, and so does the mask that
came, as one more candidate. Every place takes the mixture of the candidates in which the one that
explains most rules.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

import numpy as np

from ..jit.parallel import inner, kernel, prange
from .feather import blurred
from .follow import (
    HALO,
    SPREAD,
    SUPPORT_PER_REACH,
    EdgeMatte,
    alpha_of,
    colours_of,
    depth_of,
    distances_of,
    min_distance_squared,
    near_outline,
    outline_box,
    projections,
)
from .grid import Grid, between, grid_over, place_in
from .normalized_convolution import padded_box

#: Reaches tried, full-resolution pixels: a sharp edge, one out of focus, a fringe.
REACHES = (2.0, 7.0, 24.0)
#: How far into the surface the band goes in which they are compared, full-resolution pixels.
INSIDE = 3.0
#: What is left unexplained is averaged with this standard deviation, full-resolution pixels.
SMOOTH = 22.0
#: At a scale this many times coarser: nothing finer than the blur is lost.
COARSE = 6
#: Difference of residuals at which one candidate rules over another.
RULES = 0.005
#: A longer reach must explain this much more than the next shorter one: texture is explained by
#: anything that is long enough.
LONGER = 0.014
#: A pixel of which more than this was mixed anew lies in the band.
HALF = 0.5
#: What a pixel leaves unexplained counts up to here, so that one stray does not decide.
WORST = 1.5
#: What is added to |F - B|, so that noise does not rule where they are alike.
STEADY = 0.02
#: Share of the pixels compared whose colours a reach must know to be a candidate.
LEAST_KNOWN = 0.05
#: How far the mask of a pixel looks, full-resolution pixels.
FOUND_SUPPORT = SUPPORT_PER_REACH * REACHES[-1] + 4 * SMOOTH + 2 * COARSE


@dataclass(frozen=True)
class _Tried:
    """A reach, pixels, which of the reaches it is from 1 on, and the colours it spread (3, h, w),
    by the cells of a grid, to where they are needed (h, w).
    """

    reach: float
    longer: int
    foreground: np.ndarray
    background: np.ndarray
    needed: np.ndarray
    grid: Grid


@inner
def _rest(along: np.float32, across: np.float32, off: np.float32, alpha: np.float32) -> np.float32:
    """|I - share·F - (1 - share)·B| as a share of |F - B|."""
    left = max(off - alpha * (along + along - alpha * across), np.float32(0))
    return min(np.sqrt(left) / (np.sqrt(across) + np.float32(STEADY)), np.float32(WORST))


@kernel
def _unexplained(
    planes: np.ndarray,
    rows_from: int,
    columns_from: int,
    mask: np.ndarray,
    away: np.ndarray,
    deep: np.ndarray,
    foreground: np.ndarray,
    background: np.ndarray,
    side: int,
    above: int,
    beside: int,
    least: float,
    reach: float,
    depth: float,
    wide: float,
    inside: float,
    cell: int,
    top: int,
    left: int,
    sums: np.ndarray,
) -> None:
    """Sums over cells of a grid (4, h, w) of what one reach leaves unexplained in the wide band,
    what the mask that came does with its colours, the pixels counted, and those of them whose
    colours are known. The part lies in the planes from a row and column on; ``side``, ``above`` and
    ``beside`` are of the colours' grid.
    """
    height, width = mask.shape
    for row in prange(sums.shape[1]):
        start: Any = np.int64(row) * cell - top  # unsigned, it could not lie before the part
        for y in range(max(start, 0), min(start + cell, height)):
            y0, y1, ty = place_in(y + 0.5, above, side, foreground.shape[1])
            for x in range(width):
                if away[y, x] > wide or deep[y, x] > inside:
                    continue
                x0, x1, tx = place_in(x + 0.5, beside, side, foreground.shape[2])
                along, across, off = projections(
                    planes,
                    rows_from + y,
                    columns_from + x,
                    foreground,
                    background,
                    y0,
                    y1,
                    ty,
                    x0,
                    x1,
                    tx,
                )
                came = mask[y, x]
                alpha = (
                    alpha_of(along, across, came, least)
                    if away[y, x] <= reach and deep[y, x] <= depth
                    else came
                )
                column = (x + left) // cell
                sums[0, row, column] += _rest(along, across, off, alpha)
                sums[1, row, column] += _rest(along, across, off, came)
                sums[2, row, column] += np.float32(1)
                sums[3, row, column] += np.float32(1) if across > 0 else np.float32(0)


@kernel
def _mix_in(
    planes: np.ndarray,
    mask: np.ndarray,
    away: np.ndarray,
    deep: np.ndarray,
    foreground: np.ndarray,
    background: np.ndarray,
    side: int,
    above: int,
    beside: int,
    least: float,
    reach: float,
    depth: float,
    weights: np.ndarray,
    cell: int,
    before: int,
    aside: int,
    top: int,
    left: int,
    out: np.ndarray,
    banded: np.ndarray,
) -> None:
    """Add what one reach changes of the mask, times its weights (coarse), to ``out``, in which, as
    in the planes, the part lies at a row and column; ``banded`` gets the weights where it does.
    ``side``, ``above``, ``beside`` are of the colours' grid, ``cell``, ``before``, ``aside`` of the
    weights'.
    """
    height, width = mask.shape
    for y in prange(height):
        y0, y1, ty = place_in(y + 0.5, above, side, foreground.shape[1])
        w0, w1, tw = place_in(y + 0.5, before, cell, weights.shape[0])
        for x in range(width):
            if away[y, x] > reach or deep[y, x] > depth:
                continue
            v0, v1, tv = place_in(x + 0.5, aside, cell, weights.shape[1])
            weight = between(weights, w0, w1, tw, v0, v1, tv)
            if weight <= np.float32(0):
                continue
            x0, x1, tx = place_in(x + 0.5, beside, side, foreground.shape[2])
            along, across, _ = projections(
                planes, top + y, left + x, foreground, background, y0, y1, ty, x0, x1, tx
            )
            out[top + y, left + x] += weight * (
                alpha_of(along, across, mask[y, x], least) - mask[y, x]
            )
            banded[y, x] += weight


def follow_found(
    planes: np.ndarray,
    mask: np.ndarray,
    scale: float = 1.0,
    sensitivity: float = 0.5,
    origin: tuple[int, int] = (0, 0),
    check: Callable[[], None] = lambda: None,
) -> tuple[np.ndarray, EdgeMatte | None]:
    """Unmix the outline of a mask with the reach that explains each place best.

    Parameters
    ----------
    planes : (3, H, W) float32 linear light; mask : (H, W) float32.
    scale : size of the planes relative to full resolution, in whose pixels the reaches are.
    sensitivity, origin : as in `follow`.
    check : is called between its parts, and may raise to stop.

    Returns
    -------
    The mask (the one that came where nothing is to be done), and what was spread, or None where
    there is no outline.
    """
    reaches = [reach * scale for reach in REACHES if reach * scale >= 1] or [1.0]
    cells = [max(2, int(SPREAD * reach)) for reach in reaches]
    box = outline_box(mask, reaches[-1], cells[-1])
    if box is None:
        return mask, None
    part = np.ascontiguousarray(mask[box])
    away, deep = distances_of(part)
    inside = max(INSIDE * scale, depth_of(reaches[-1]))
    place = (box[0].start, box[1].start)
    corner = (origin[0] + place[0], origin[1] + place[1])
    tried = []
    for longer, (reach, cell) in enumerate(zip(reaches, cells, strict=True), 1):
        check()
        there = padded_box(box, HALO * reach, cell, planes.shape, origin)
        needed = near_outline(away, deep, reaches[-1], inside, there)
        colours = colours_of(planes, away, deep, reach, needed, there)
        if colours is not None:  # where it is None it would be no candidate anywhere
            tried.append(_Tried(reach, longer, *colours, needed, there.from_part))
    if not tried:
        return mask, None
    check()
    least, coarse = (
        min_distance_squared(sensitivity),
        grid_over(part.shape, max(1, round(COARSE * scale)), corner),
    )
    weights = _weights(
        planes, place, part, away, deep, tried, scale, (reaches[-1], inside), least, coarse
    )
    check()
    out, banded = mask.copy(), np.zeros_like(part)
    for one, weight in zip(tried, weights, strict=True):
        _mix_in(
            planes,
            part,
            away,
            deep,
            one.foreground,
            one.background,
            one.grid.cell,
            one.grid.top,
            one.grid.left,
            least,
            one.reach,
            depth_of(one.reach),
            weight,
            coarse.cell,
            coarse.top,
            coarse.left,
            *place,
            out,
            banded,
        )
    return out, EdgeMatte(
        *_together(tried, weights, coarse), tried[0].grid, banded > HALF, out, place
    )


def _weights(
    planes: np.ndarray,
    place: tuple[int, int],
    mask: np.ndarray,
    away: np.ndarray,
    deep: np.ndarray,
    tried: list[_Tried],
    scale: float,
    wide: tuple[float, float],
    least: float,
    grid: Grid,
) -> list[np.ndarray]:
    """Return how much each reach counts, by the cells of a coarse grid; what is missing to 1 is the
    mask as it came.

    ``place`` is the row and column of the planes in which the mask starts, ``wide`` how far out and
    how deep in the band goes in which they are compared.
    """
    sigma = SMOOTH * scale / grid.cell
    costs: list[np.ndarray] = []
    came, trusted = np.zeros(grid.shape, np.float32), np.zeros(grid.shape, np.float32)
    for one in tried:
        sums, own_grid = np.zeros((4, *grid.shape), np.float32), one.grid
        _unexplained(
            planes,
            *place,
            mask,
            away,
            deep,
            one.foreground,
            one.background,
            own_grid.cell,
            own_grid.top,
            own_grid.left,
            least,
            one.reach,
            depth_of(one.reach),
            *wide,
            grid.cell,
            grid.top,
            grid.left,
            sums,
        )
        own, left, count, known = (blurred(plane, sigma) for plane in sums)
        over = 1 / np.maximum(count, 1e-4)
        # Where hardly any colours are known a reach is no candidate.
        trust = np.clip(known * over / LEAST_KNOWN, 0, 1)
        # The mask as it came is one more candidate, told by the colours of the shortest reach that
        # has some there.
        came += (1 - trusted) * trust * (left * over)
        trusted += (1 - trusted) * trust
        costs.append(own * over + LONGER * one.longer + WORST * (1 - trust))
    costs.insert(0, came)
    rules = [np.exp(-(cost - np.minimum.reduce(costs)) / np.float32(RULES)) for cost in costs]
    total = np.add.reduce(rules)
    return [rule / total for rule in rules[1:]]


@kernel
def _colours_in(
    foreground: np.ndarray,
    background: np.ndarray,
    theirs: np.ndarray,
    weights: np.ndarray,
    coarse: np.ndarray,
    needed: np.ndarray,
    grid: np.ndarray,
    to_foreground: np.ndarray,
    to_background: np.ndarray,
) -> None:
    """Add colours (3, h', w') times their weights (h'', w'') to others (3, h, w), where they are
    needed (h, w). The three grids are given as side of a cell, top and left.
    """
    rows, columns = needed.shape
    for y in prange(rows):
        down = (y + 0.5) * grid[0] - grid[1]
        y0, y1, ty = place_in(down, theirs[1], theirs[0], foreground.shape[1])
        w0, w1, tw = place_in(down, coarse[1], coarse[0], weights.shape[0])
        for x in range(columns):
            if needed[y, x]:
                across = (x + 0.5) * grid[0] - grid[2]
                v0, v1, tv = place_in(across, coarse[2], coarse[0], weights.shape[1])
                x0, x1, tx = place_in(across, theirs[2], theirs[0], foreground.shape[2])
                weight = between(weights, w0, w1, tw, v0, v1, tv)
                for k in range(3):
                    to_foreground[k, y, x] += weight * between(
                        foreground[k], y0, y1, ty, x0, x1, tx
                    )
                    to_background[k, y, x] += weight * between(
                        background[k], y0, y1, ty, x0, x1, tx
                    )


def _together(
    tried: list[_Tried], weights: list[np.ndarray], coarse: Grid
) -> tuple[np.ndarray, np.ndarray]:
    """The colours of all reaches, mixed by their weights, which lie on a coarse grid, at the finest
    of their scales.
    """

    def numbers(grid: Grid) -> np.ndarray:
        return np.array([grid.cell, grid.top, grid.left], np.int64)

    total = np.maximum(np.add.reduce(weights), np.float32(1e-6))
    foreground, background = np.zeros_like(tried[0].foreground), np.zeros_like(tried[0].background)
    for one, weight in zip(tried, weights, strict=True):
        theirs, finest = numbers(one.grid), numbers(tried[0].grid)
        _colours_in(
            one.foreground,
            one.background,
            theirs,
            weight / total,
            numbers(coarse),
            tried[0].needed,
            finest,
            foreground,
            background,
        )
    return foreground, background
