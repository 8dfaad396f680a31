"""Colours carried from where they are sure to everywhere else: normalised convolution at coarse
scales.

H. Knutsson, C.-F. Westin, "Normalized and differential convolution" (1993): colours and their
weights are blurred alike, and one is divided by the other. Wider blurs serve where a narrow one
finds nothing; each is worked at a scale at which it is a few pixels.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any

import cv2
import numpy as np

from ..jit.parallel import kernel, prange, serial_kernel
from .feather import blurred
from .grid import Grid, between, coarser, grid_over, place_in

#: Standard deviations of the blurs, as multiples of the narrowest.
WIDER = (1.0, 3.0, 9.0)
#: Least weight that counts as having found something.
FOUND = 2e-3
#: A blur is worked at a scale at which its standard deviation is about this many pixels.
CELLS_A_DEVIATION = 2.0
#: It is never narrower than this, pixels of that scale.
NARROWEST = 0.5
#: A blur ends after this many standard deviations: what lies farther has less weight than counts as
#: having found something.
ENDS = 3.0

#: Of cells with this many pixels on a side every second row tells enough.
MANY = 6


@serial_kernel
def _add(
    planes: np.ndarray, y: int, columns_from: int, start: int, end: int, sums: np.ndarray
) -> None:
    """Add one, and the light of a row of some planes, to the sums (4, W) of some columns."""
    for k in range(4):
        total = sums[k, start:end]
        if k == 0:
            for x in range(total.size):
                total[x] += np.float32(1)
        else:
            light = planes[k - 1, y, columns_from + start : columns_from + end]
            for x in range(total.size):
                total[x] += light[x]


@serial_kernel
def _add_beyond(
    planes: np.ndarray,
    y: int,
    columns_from: int,
    distance: np.ndarray,
    across: int,
    beyond: float,
    start: int,
    end: int,
    sums: np.ndarray,
) -> None:
    """The same of those pixels whose distance lies beyond a value."""
    away = distance[start - across : end - across]
    for k in range(4):
        total = sums[k, start:end]
        if k == 0:
            for x in range(total.size):
                total[x] += np.float32(away[x] > beyond)
        else:
            light = planes[k - 1, y, columns_from + start : columns_from + end]
            for x in range(total.size):
                total[x] += light[x] if away[x] > beyond else np.float32(0)


@kernel
def _gathered(
    planes: np.ndarray,
    rows_from: int,
    columns_from: int,
    height: int,
    width: int,
    distance: np.ndarray,
    down: int,
    across: int,
    counts: bool,
    beyond: float,
    side: int,
    top: int,
    left: int,
    useful: np.ndarray,
    out: np.ndarray,
) -> None:
    """Weight and weighted colour (h, w, 4), by the useful cells of a grid over a box of some
    planes, of the pixels whose distance lies beyond one value. The distances are known in a part of
    the box, its rows ``down`` and columns ``across``; ``counts`` says whether what lies round
    it counts.
    """
    rows, columns = out.shape[0], out.shape[1]
    step = np.int64(2) if side >= MANY else np.int64(1)
    share = np.float32(1) / np.float32(side * ((side + step - 1) // step))
    known_to = across + distance.shape[1]
    for row in prange(rows):
        first: Any = np.int64(row) * side - top  # unsigned, it could not lie before the box
        low, high = max(first, 0), min(first + side, height)
        sums, cells, stop = np.empty((4, width), np.float32), useful[row], 0
        while stop < columns:
            begin = stop
            while begin < columns and not cells[begin]:
                begin += 1
            stop = begin
            while stop < columns and cells[stop]:
                stop += 1
            # Rows are summed before columns: that vectorises, however few pixels a cell has.
            start, end = max(begin * side - left, 0), min(stop * side - left, width)
            sums[:, start:end] = 0
            for y in range(
                low + (low - first) % step, high, step
            ):  # the same rows of a cell in every part of a picture
                # Of every row the stretch inside the part, whose distances are known; all of the
                # row lies beside it above and below the part.
                from_x, to_x = min(max(start, across), end), max(min(end, known_to), start)
                if y < down or y >= down + distance.shape[0]:
                    from_x, to_x = end, end
                if from_x < to_x:
                    _add_beyond(
                        planes,
                        rows_from + y,
                        columns_from,
                        distance[y - down],
                        across,
                        beyond,
                        from_x,
                        to_x,
                        sums,
                    )
                if counts:
                    _add(planes, rows_from + y, columns_from, start, min(from_x, end), sums)
                    _add(planes, rows_from + y, columns_from, max(to_x, start), end, sums)
            counted, reds, greens, blues, x = sums[0], sums[1], sums[2], sums[3], start
            for column in range(begin, stop):
                count, red, green, blue = np.float32(0), np.float32(0), np.float32(0), np.float32(0)
                last = min((column + 1) * side - left, end)
                while x < last:
                    count, red, green, blue = (
                        count + counted[x],
                        red + reds[x],
                        green + greens[x],
                        blue + blues[x],
                    )
                    x += 1
                cell = out[row, column]
                cell[0], cell[1], cell[2], cell[3] = (
                    count * share,
                    red * share,
                    green * share,
                    blue * share,
                )


@kernel
def _lay_under(
    blur: np.ndarray,
    factor: int,
    above: int,
    beside: int,
    widest: bool,
    left: np.ndarray,
    out: np.ndarray,
    known: np.ndarray,
) -> None:
    """Lay the colours of one blur (h', w', 4) under those of a narrower one, with a soft seam, so
    that colours do not jump.

    ``left`` (h, w) says how much of every place is still open. The blur's cells are ``factor``
    times coarser, with places of the first ``above`` and ``beside``.
    """
    rows, columns = known.shape
    for y in prange(rows):
        y0, y1, ty = place_in(y + 0.5, above, factor, blur.shape[0])
        for x in range(columns):
            if left[y, x] <= np.float32(0):
                continue
            x0, x1, tx = place_in(x + 0.5, beside, factor, blur.shape[1])
            weight = between(blur[:, :, 0], y0, y1, ty, x0, x1, tx)
            trust = min(max(weight / np.float32(FOUND) - 1, np.float32(0)), np.float32(1))
            known[y, x] = max(known[y, x], trust)
            if widest:
                trust = np.float32(1)
            if trust > 0:
                share = left[y, x] * trust / max(weight, np.float32(1e-7))
                left[y, x] *= np.float32(1) - trust
                for k in range(3):
                    out[k, y, x] += share * between(blur[:, :, k + 1], y0, y1, ty, x0, x1, tx)


def _within(needed: np.ndarray, sigma: float) -> np.ndarray:
    """Return which cells the widest spread to those that are needed can reach, bool; ``sigma`` is
    its standard deviation, in cells.
    """
    widest = max(sigma, NARROWEST)
    lower = max(1, int(widest / CELLS_A_DEVIATION))
    side = 2 * (int(ENDS * widest / lower + 0.5) + 2) * lower + 1
    # A mean over the window is not nothing: as quick for a wide window as for a narrow one.
    near: np.ndarray = (
        cv2.boxFilter(
            needed.astype(np.float32),
            cv2.CV_32F,
            (side, side),
            normalize=False,
            borderType=cv2.BORDER_CONSTANT,
        )
        > 0.5
    )
    return near


@dataclass(frozen=True)
class PaddedBox:
    """A box of a picture from which colours are learnt, and the part of it whose outline is looked
    at.

    Attributes
    ----------
    rows, columns : of the box in the planes at hand.
    part : how many rows and columns of the box lie before the part.
    grid : cells over the box. corner : row and column of the box's first pixel in the whole
        picture.
    """

    rows: slice
    columns: slice
    part: tuple[int, int]
    grid: Grid
    corner: tuple[int, int]

    @property
    def from_part(self) -> Grid:
        """The grid as seen from the part's first pixel."""
        return replace(
            self.grid, top=self.grid.top + self.part[0], left=self.grid.left + self.part[1]
        )


def padded_box(
    box: tuple[slice, slice],
    room: float,
    cell: int,
    shape: tuple[int, ...],
    origin: tuple[int, int],
) -> PaddedBox:
    """The box of planes (…, H, W) that reaches ``room`` pixels round a part of them; their first
    pixel lies at ``origin`` of the picture.
    """
    wide = int(np.ceil(room))
    rows, columns = (
        slice(max(0, one.start - wide), min(length, one.stop + wide))
        for one, length in zip(box, shape[-2:], strict=True)
    )
    corner = (origin[0] + rows.start, origin[1] + columns.start)
    size = (rows.stop - rows.start, columns.stop - columns.start)
    return PaddedBox(
        rows,
        columns,
        (box[0].start - rows.start, box[1].start - columns.start),
        grid_over(size, cell, corner),
        corner,
    )


def normalized_convolution(
    planes: np.ndarray,
    there: PaddedBox,
    distance: np.ndarray,
    beyond: float,
    counts: bool,
    sigma: float,
    needed: np.ndarray,
    wider: tuple[float, ...] = WIDER,
) -> tuple[np.ndarray, np.ndarray]:
    """Colours carried from where a distance lies beyond one value to where they are needed.

    Parameters
    ----------
    planes : (3, H, W) float32; distance : (h', w') float32, of the part; counts : whether what lies
        round the part is far enough.
    sigma : standard deviation of the narrowest blur, pixels of the planes.
    needed : (h, w) bool, by the cells of the box.
    wider : standard deviations of the blurs, as multiples of the narrowest.

    Returns
    -------
    (3, h, w) float32, and how far they are to be trusted, (h, w) in 0 to 1: far from anything sure
    nothing is known.
    """
    grid = there.grid
    gathered = np.zeros((*grid.shape, 4), np.float32)
    size = (there.rows.stop - there.rows.start, there.columns.stop - there.columns.start)
    _gathered(
        planes,
        there.rows.start,
        there.columns.start,
        *size,
        distance,
        *there.part,
        counts,
        beyond,
        grid.cell,
        grid.top,
        grid.left,
        _within(needed, sigma / grid.cell * wider[-1]),
        gathered,
    )
    out = np.zeros((3, *grid.shape), np.float32)
    known = np.zeros(grid.shape, np.float32)
    left = needed.astype(np.float32)
    for times in wider:
        near = max(sigma * times / grid.cell, NARROWEST)
        lower = max(1, int(near / CELLS_A_DEVIATION))
        means, above, beside = coarser(gathered, grid, there.corner, lower)
        _lay_under(
            blurred(means, near / lower, ENDS),
            lower,
            above,
            beside,
            times == wider[-1],
            left,
            out,
            known,
        )
    return out, known
