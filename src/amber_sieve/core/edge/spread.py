"""Colours carried from where they are sure to everywhere else: normalised convolution at coarse scales.

H. Knutsson, C.-F. Westin, "Normalized and differential convolution" (1993): colours and their weights are blurred alike, and one is
divided by the other. Wider blurs serve where a narrow one finds nothing; each is worked at a scale at which it is a few pixels.
"""

from __future__ import annotations

import cv2
import numpy as np
from numba import prange

from ..parallel import inner, kernel
from .feather import blurred

#: Standard deviations of the blurs, as multiples of the narrowest.
WIDER = (1.0, 3.0, 9.0)
#: Least weight that counts as having found something.
FOUND = 2e-3
#: A blur is worked at a scale at which its standard deviation is about so many pixels, and is never narrower than the other.
PIXELS, NARROWEST = 2.0, 0.5


@inner
def place_in(at: int, size: int, cells: int) -> tuple[int, int, np.float32]:
    """Between which two cells of a coarse line a pixel of a line of ``size`` lies, and how far from the first."""
    place = min(max((at + 0.5) * cells / size - 0.5, 0.0), cells - 1.0)
    first = int(place)
    return first, min(first + 1, cells - 1), np.float32(place - first)


@inner
def between(coarse: np.ndarray, y0: int, y1: int, ty: np.float32, x0: int, x1: int, tx: np.float32) -> np.float32:
    """A coarse plane between four of its pixels, bilinear."""
    value: np.float32 = (coarse[y0, x0] * (1 - tx) + coarse[y0, x1] * tx) * (1 - ty) + (
        coarse[y1, x0] * (1 - tx) + coarse[y1, x1] * tx
    ) * ty
    return value


@kernel
def _gathered(planes: np.ndarray, distance: np.ndarray, beyond: float, until: float, out: np.ndarray) -> None:
    """Weight and weighted colour (h, w, 4) of the pixels whose distance lies beyond one value and no farther than another."""
    height, width = distance.shape
    rows, columns = out.shape[0], out.shape[1]
    for row in prange(rows):
        first, last = -(-row * height // rows), -(-(row + 1) * height // rows)
        for y in range(first, last):
            for x in range(width):
                if distance[y, x] > beyond and distance[y, x] <= until:
                    cell = out[row, x * columns // width]
                    cell[0] += np.float32(1)
                    cell[1] += planes[0, y, x]
                    cell[2] += planes[1, y, x]
                    cell[3] += planes[2, y, x]
        share = np.float32(rows * columns) / np.float32(height * width)
        for x in range(columns):
            for k in range(4):
                out[row, x, k] *= share


@kernel
def _lay_under(blur: np.ndarray, widest: bool, left: np.ndarray, out: np.ndarray, known: np.ndarray) -> None:
    """Lay the colours of one blur (h', w', 4) under those of a narrower one, with a soft seam, so that colours do not jump.

    ``left`` (h, w) says how much of every place is still open."""
    rows, columns = known.shape
    for y in prange(rows):
        y0, y1, ty = place_in(y, rows, blur.shape[0])
        for x in range(columns):
            if left[y, x] <= np.float32(0):
                continue
            x0, x1, tx = place_in(x, columns, blur.shape[1])
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


def _reduced(values: np.ndarray, factor: int) -> np.ndarray:
    """Values (h, w, 4) a whole factor coarser."""
    size = (max(1, round(values.shape[1] / factor)), max(1, round(values.shape[0] / factor)))
    return cv2.resize(values, size, interpolation=cv2.INTER_AREA) if factor > 1 else values


def grid_of(shape: tuple[int, ...], factor: int) -> tuple[int, int]:
    """Rows and columns of a plane about ``factor`` times coarser than one (H, W)."""
    return max(1, round(shape[0] / factor)), max(1, round(shape[1] / factor))


def spread(
    planes: np.ndarray, distance: np.ndarray, beyond: float, until: float, sigma: float, needed: np.ndarray
) -> tuple[np.ndarray, np.ndarray]:
    """Colours carried from where a distance lies beyond one value, and no farther than another, to where they are needed.

    Parameters
    ----------
    planes : (3, H, W) float32; distance : (H, W) float32.
    sigma : standard deviation of the narrowest blur, pixels of the planes.
    needed : (h, w) bool, on a coarser grid, see `grid_of`.

    Returns
    -------
    (3, h, w) float32, and how far they are to be trusted, (h, w) in 0 to 1: far from anything sure nothing is known.
    """
    gathered = np.zeros((*needed.shape, 4), np.float32)
    _gathered(planes, distance, beyond, until, gathered)
    out = np.zeros((3, *needed.shape), np.float32)
    known = np.zeros(needed.shape, np.float32)
    left = needed.astype(np.float32)
    for wider in WIDER:
        near = max(sigma * wider * needed.shape[0] / distance.shape[0], NARROWEST)
        lower = max(1, int(near / PIXELS))
        _lay_under(blurred(_reduced(gathered, lower), near / lower), wider == WIDER[-1], left, out, known)
    return out, known
