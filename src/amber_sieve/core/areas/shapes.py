"""Coverage of shapes: rectangle, ellipse, polygon, linear and radial gradient.

Points are in pixels of the mask, pixel centres at .5. Rectangle, ellipse and radial gradient are
three points: the middle, the end of one half-axis and the end of the other; so they may be moved,
scaled, turned and skewed freely.
"""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from ...names import AREA_KINDS
from ..edge.feather import feathered
from ..jit.parallel import kernel, prange

Points = Sequence[tuple[float, float]]
#: Lines a row of pixels is cut into when a polygon is filled.
SCANS = 8
#: Half-axes are at least so long, pixels.
THINNEST = 1e-3


def _own_axes(
    points: Points, shape: tuple[int, int]
) -> tuple[np.ndarray, np.ndarray, float, float]:
    """Every pixel in the shape's own axes (u, v, both 1 at the half-axis), and how many pixels one
    unit is on either.
    """
    middle, one, other = (np.array(p, float) for p in points)
    u, v = one - middle, other - middle
    # A shape without width has half-axes that name no plane: it is taken to be a little wide
    # (singular values at least ``THINNEST``).
    turned, lengths, back = np.linalg.svd(np.array([u, v]).T)
    inverse = back.T @ np.diag(1 / np.maximum(lengths, THINNEST)) @ turned.T
    y, x = np.mgrid[0 : shape[0], 0 : shape[1]].astype(np.float32) + np.float32(0.5)
    x, y = x - np.float32(middle[0]), y - np.float32(middle[1])
    inverse = inverse.astype(np.float32)
    units = (max(float(np.hypot(*axis)), THINNEST) for axis in (u, v))
    return inverse[0, 0] * x + inverse[0, 1] * y, inverse[1, 0] * x + inverse[1, 1] * y, *units


@kernel
def _even_odd(xs: np.ndarray, ys: np.ndarray, out: np.ndarray) -> None:
    height, width = out.shape
    corners = xs.size
    for row in prange(height):
        crossings = np.empty(corners, np.float64)
        for sub in range(SCANS):
            y = row + (sub + 0.5) / SCANS
            found = 0
            for k in range(corners):
                j = k + 1 if k + 1 < corners else 0
                if (ys[k] <= y) != (ys[j] <= y):
                    crossings[found] = xs[k] + (y - ys[k]) / (ys[j] - ys[k]) * (xs[j] - xs[k])
                    found += 1
            if found == 0:
                continue
            crossings[:found] = np.sort(crossings[:found])
            for n in range(0, found - 1, 2):
                left, right = max(crossings[n], 0.0), min(crossings[n + 1], float(width))
                if right <= left:
                    continue
                first, last = int(left), min(int(right), width - 1)
                if first == last:
                    out[row, first] += np.float32((right - left) / SCANS)
                else:
                    out[row, first] += np.float32((first + 1 - left) / SCANS)
                    for x in range(first + 1, last):
                        out[row, x] += np.float32(1.0 / SCANS)
                    out[row, last] += np.float32((right - last) / SCANS)


def polygon(points: Points, shape: tuple[int, int]) -> np.ndarray:
    """Coverage (H, W) float32 of a polygon: exact along rows, in eight lines a row; where it
    crosses itself, by the even-odd rule.
    """
    out = np.zeros(shape, np.float32)
    if len(points) >= 3:
        places = np.array(points, np.float64)
        _even_odd(np.ascontiguousarray(places[:, 0]), np.ascontiguousarray(places[:, 1]), out)
    return np.minimum(out, 1, out=out)


def ring_of(kind: str, points: np.ndarray, corners: int = 48) -> np.ndarray:
    """The outline (N, 2) of a rectangle, or of an ellipse as corners, of its middle and the
    ends of two half-axes, (3, 2).

    Example
    -------
    >>> ring_of("rect", np.array([[5, 5], [9, 5], [5, 7]])).tolist()
    [[9, 7], [9, 3], [1, 3], [1, 7]]
    """
    middle, one, other = points
    across, down = one - middle, other - middle
    if kind == "rect":
        return np.array(
            [
                middle + across + down,
                middle + across - down,
                middle - across - down,
                middle - across + down,
            ]
        )
    turn = np.linspace(0, 2 * np.pi, corners, endpoint=False)[:, None]
    ring: np.ndarray = middle + np.cos(turn) * across + np.sin(turn) * down
    return ring


def coverage(
    kind: str, points: Points, shape: tuple[int, int], feather: float = 0.0, way: str = "both"
) -> np.ndarray:
    """Coverage of a shape, (H, W) float32 in 0 to 1.

    Parameters
    ----------
    kind : rect, ellipse, polygon, gradient (full at the first point, nothing at the second), radial
        (full in the middle, nothing at the rim).
    feather : standard deviation of the softening, pixels; way : see `feathered`.
    """
    if kind == "polygon":
        covered = polygon(points, shape)
    elif kind == "gradient":
        (x0, y0), (x1, y1) = points[:2]
        y, x = np.mgrid[0 : shape[0], 0 : shape[1]].astype(np.float32) + np.float32(0.5)
        length = max((x1 - x0) ** 2 + (y1 - y0) ** 2, 1e-6)
        along = ((x - x0) * (x1 - x0) + (y - y0) * (y1 - y0)) / length
        return np.clip(1 - along, 0, 1).astype(np.float32)
    else:
        u, v, unit_u, unit_v = _own_axes(points, shape)
        if kind == "radial":
            t = np.clip(1 - np.sqrt(u * u + v * v), 0, 1)
            return t * t * (3 - 2 * t)
        if kind == "rect":
            covered = np.clip((1 - np.abs(u)) * unit_u + 0.5, 0, 1) * np.clip(
                (1 - np.abs(v)) * unit_v + 0.5, 0, 1
            )
        elif kind == "ellipse":
            # Distance to the rim from the implicit function over its gradient (Taubin 1991).
            value = u * u + v * v - 1
            slope = 2 * np.sqrt((u / unit_u) ** 2 + (v / unit_v) ** 2)
            covered = np.clip(0.5 - value / np.maximum(slope, 1e-6), 0, 1)
        else:
            raise ValueError(
                f"there is no shape called {kind!r}; there are {', '.join(AREA_KINDS)}"
            )
    return feathered(np.ascontiguousarray(covered, np.float32), feather, way)


def combined(mask: np.ndarray, covered: np.ndarray, mode: str) -> np.ndarray:
    """A mask with an area added, subtracted, or intersected.

    Example
    -------
    >>> combined(np.array([[1.0, 0.5]]), np.array([[0.5, 1.0]]), "subtract").tolist()
    [[0.5, 0.0]]
    """
    if mode == "add":
        return np.maximum(mask, covered)
    if mode == "subtract":
        return mask * (1 - covered)
    if mode == "intersect":
        return mask * covered
    raise ValueError(f"areas add, subtract or intersect, they cannot {mode!r}")
