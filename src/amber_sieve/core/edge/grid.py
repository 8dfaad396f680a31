"""Coarse grids whose cells lie where those of the whole picture lie, so that a part of it finds
what the whole does.
"""

from __future__ import annotations

from dataclasses import dataclass

import cv2
import numpy as np

from ..jit.parallel import inner


@dataclass(frozen=True)
class Grid:
    """Square cells over a part of a picture.

    Attributes
    ----------
    cell : side of a cell, pixels.
    top, left : how many pixels of the first cell lie before the part's first row and column: 0 to
        cell - 1.
    rows, columns : how many cells touch the part.
    """

    cell: int
    top: int
    left: int
    rows: int
    columns: int

    @property
    def shape(self) -> tuple[int, int]:
        return self.rows, self.columns


def grid_over(shape: tuple[int, ...], cell: int, corner: tuple[int, int]) -> Grid:
    """The grid of cells over a part (H, W) whose first pixel lies at a row and column of the whole
    picture.
    """
    top, left = corner[0] % cell, corner[1] % cell
    return Grid(cell, top, left, -(-(top + shape[0]) // cell), -(-(left + shape[1]) // cell))


def _every(plane: np.ndarray, grid: Grid) -> np.ndarray:
    """The rows of a plane in the middles of the cells; those beside the plane are its first and
    last.
    """
    start = grid.cell // 2 - grid.top
    held = plane[start % grid.cell if start < 0 else start :: grid.cell]
    missing = grid.rows - len(held) - (start < 0)
    ends = [*([plane[:1]] if start < 0 else []), held, *([plane[-1:]] if missing > 0 else [])]
    return np.concatenate(ends) if len(ends) > 1 else held


def sampled(plane: np.ndarray, grid: Grid) -> np.ndarray:
    """The values of a plane (H, W) in the middles of the cells, (rows, columns)."""
    across = Grid(grid.cell, grid.left, grid.top, grid.columns, grid.rows)
    return _every(_every(plane, grid).T, across).T


def enlarged(coarse: np.ndarray, grid: Grid, shape: tuple[int, int]) -> np.ndarray:
    """A coarse plane (rows, columns) at every pixel of the part (H, W), bilinear."""
    matrix = np.array(
        [
            [1 / grid.cell, 0, (grid.left + 0.5) / grid.cell - 0.5],
            [0, 1 / grid.cell, (grid.top + 0.5) / grid.cell - 0.5],
        ],
        np.float64,
    )
    flags = cv2.INTER_LINEAR | cv2.WARP_INVERSE_MAP
    return cv2.warpAffine(coarse, matrix, shape[::-1], flags=flags, borderMode=cv2.BORDER_REPLICATE)


def coarser(
    values: np.ndarray, grid: Grid, corner: tuple[int, int], factor: int
) -> tuple[np.ndarray, int, int]:
    """Means of the cells of a grid (rows, columns, C) over squares of ``factor`` cells of the whole
    picture's grid.

    Returns
    -------
    The means, and how many cells of the first square lie before the first row and column.
    """
    if factor == 1:
        return values, 0, 0
    top, left = (
        ((corner[0] - grid.top) // grid.cell) % factor,
        ((corner[1] - grid.left) // grid.cell) % factor,
    )
    below, right = -(top + grid.rows) % factor, -(left + grid.columns) % factor
    padded = cv2.copyMakeBorder(values, top, below, left, right, cv2.BORDER_CONSTANT, value=0)
    size = (padded.shape[1] // factor, padded.shape[0] // factor)
    return cv2.resize(padded, size, interpolation=cv2.INTER_AREA), top, left


@inner
def place_in(centre: float, before: int, cell: int, cells: int) -> tuple[int, int, np.float32]:
    """Between which two cells of a line a place lies, and how far from the first.

    ``centre`` is in pixels of the part, a pixel's middle at a half; ``before`` pixels of
    the first cell lie before it.
    """
    place = min(max((centre + before) / cell - 0.5, 0.0), cells - 1.0)
    first = min(max(int(place), 0), cells - 1)
    return first, min(first + 1, cells - 1), np.float32(place - first)


@inner
def between(
    coarse: np.ndarray, y0: int, y1: int, ty: np.float32, x0: int, x1: int, tx: np.float32
) -> np.float32:
    """A coarse plane between four of its cells, bilinear."""
    value: np.float32 = (coarse[y0, x0] * (1 - tx) + coarse[y0, x1] * tx) * (1 - ty) + (
        coarse[y1, x0] * (1 - tx) + coarse[y1, x1] * tx
    ) * ty
    return value
