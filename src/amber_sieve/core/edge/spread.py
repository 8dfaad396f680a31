"""Colours carried from where they are sure to everywhere else: normalised convolution at coarse scales.

H. Knutsson, C.-F. Westin, "Normalized and differential convolution" (1993): colours and their weights are blurred alike, and one is
divided by the other. Wider blurs serve where a narrow one finds nothing; each is worked at a scale at which it is a few pixels.
"""

from __future__ import annotations

from typing import Any

import numpy as np
from numba import prange

from ..parallel import kernel
from .feather import blurred
from .grid import Grid, between, coarser, place_in

#: Standard deviations of the blurs, as multiples of the narrowest.
WIDER = (1.0, 3.0, 9.0)
#: Least weight that counts as having found something.
FOUND = 2e-3
#: A blur is worked at a scale at which its standard deviation is about so many pixels, and is never narrower than the other.
PIXELS, NARROWEST = 2.0, 0.5
#: A blur ends after so many standard deviations: what lies farther has less weight than counts as having found something.
ENDS = 3.0


@kernel
def _gathered(planes: np.ndarray, distance: np.ndarray, beyond: float, side: int, top: int, left: int, out: np.ndarray) -> None:
    """Weight and weighted colour (h, w, 4), by cells of a grid, of the pixels whose distance lies beyond one value."""
    height, width = distance.shape
    rows, columns = out.shape[0], out.shape[1]
    share = np.float32(1) / np.float32(side * side)
    for row in prange(rows):
        first: Any = np.int64(row) * side - top  # unsigned, it could not lie before the part
        for y in range(max(first, 0), min(first + side, height)):
            for x in range(width):
                if distance[y, x] > beyond:
                    cell = out[row, (x + left) // side]
                    cell[0] += np.float32(1)
                    cell[1] += planes[0, y, x]
                    cell[2] += planes[1, y, x]
                    cell[3] += planes[2, y, x]
        for x in range(columns):
            for k in range(4):
                out[row, x, k] *= share


@kernel
def _lay_under(
    blur: np.ndarray, factor: int, above: int, beside: int, widest: bool, left: np.ndarray, out: np.ndarray, known: np.ndarray
) -> None:
    """Lay the colours of one blur (h', w', 4) under those of a narrower one, with a soft seam, so that colours do not jump.

    ``left`` (h, w) says how much of every place is still open. The blur's cells are ``factor`` times coarser, so many places of the first
    lie ``above`` and ``beside``."""
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


def spread(
    planes: np.ndarray,
    distance: np.ndarray,
    beyond: float,
    sigma: float,
    needed: np.ndarray,
    grid: Grid,
    corner: tuple[int, int],
) -> tuple[np.ndarray, np.ndarray]:
    """Colours carried from where a distance lies beyond one value to where they are needed.

    Parameters
    ----------
    planes : (3, H, W) float32; distance : (H, W) float32.
    sigma : standard deviation of the narrowest blur, pixels of the planes.
    needed : (h, w) bool, by cells of a grid over the planes, whose first pixel lies at a row and column (``corner``) of the whole picture.

    Returns
    -------
    (3, h, w) float32, and how far they are to be trusted, (h, w) in 0 to 1: far from anything sure nothing is known.
    """
    gathered = np.zeros((*needed.shape, 4), np.float32)
    _gathered(planes, distance, beyond, grid.cell, grid.top, grid.left, gathered)
    out = np.zeros((3, *needed.shape), np.float32)
    known = np.zeros(needed.shape, np.float32)
    left = needed.astype(np.float32)
    for wider in WIDER:
        near = max(sigma * wider / grid.cell, NARROWEST)
        lower = max(1, int(near / PIXELS))
        means, above, beside = coarser(gathered, grid, corner, lower)
        _lay_under(blurred(means, near / lower, ENDS), lower, above, beside, wider == WIDER[-1], left, out, known)
    return out, known
