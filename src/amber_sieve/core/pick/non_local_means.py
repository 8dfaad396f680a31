"""Grain removed by non-local means: each pixel becomes the mean of the pixels around whose patches
look alike.

A. Buades, B. Coll, J.-M. Morel, "A non-local algorithm for image denoising" (CVPR 2005). Patches of
5 x 5 are compared; a distance that noise alone explains costs nothing, as in their "Non-local means
denoising" (Image Processing On Line, 2011; from memory). Shot noise grows with the square root of
light, so patches are compared after a transform that makes it even, after F. J. Anscombe, "The
transformation of Poisson, binomial and negative-binomial data" (1948): in Oklab its deviation falls
with the root of L.
"""

from __future__ import annotations

import cv2
import numpy as np

from ..jit.parallel import kernel, prange

#: Alike pixels are looked for up to this many pixels away.
RADIUS = 5
#: Half the side of a patch.
HALF = 2
#: Pixels looked at to every side: of the farthest patch, and of the blur of L.
SUPPORT = RADIUS + HALF + 2
#: Noise of L as a multiple of that of a and b.
LIGHTNESS_NOISE = 1.5
#: L below which noise grows no more.
DARKEST = 0.05
#: Pixels that are worked at once: their patches stay in the core's cache.
ROWS, COLUMNS = 24, 256
#: Rows that are made ready at once, so that large pictures take little memory besides.
BAND = 480
#: Median of the absolute of a normal variable of deviation 1.
MEDIAN_OF_NORMAL = 0.6745
#: The second difference of J. Immerkaer, "Fast noise variance estimation" (1996), of deviation 1 on
#: white noise of deviation 1.
IMMERKAER = np.array([[1, -2, 1], [-2, 4, -2], [1, -2, 1]], np.float32) / 6
#: The places in the window, a disc; row and column.
OFFSETS = np.array(
    [
        (y, x)
        for y in range(-RADIUS, RADIUS + 1)
        for x in range(-RADIUS, RADIUS + 1)
        if y * y + x * x <= (RADIUS + 0.5) ** 2
    ],
    np.int64,
)


def grain_of(lab: np.ndarray) -> float:
    """Return the deviation of the noise of a and b at L = 1 in a picture (3, H, W) Oklab; 0 where
    more than half of the pixels have none.
    """
    if min(lab.shape[1:]) < 3:
        return 0.0
    root = _root_of_lightness(lab[0])[1:-1, 1:-1]
    responses = [np.abs(cv2.filter2D(plane, -1, IMMERKAER))[1:-1, 1:-1] for plane in lab[1:]]
    return max(float(np.median(one * root)) for one in responses) / MEDIAN_OF_NORMAL


def _root_of_lightness(lightness: np.ndarray) -> np.ndarray:
    out: np.ndarray = np.sqrt(np.maximum(cv2.blur(lightness, (5, 5)), DARKEST))
    return out


@kernel
def _means(
    guide: np.ndarray, lab: np.ndarray, offsets: np.ndarray, across: int, down: int, out: np.ndarray
) -> None:
    """``guide`` has RADIUS + HALF pixels more to every side than ``out``, ``lab`` has RADIUS;
    ``across`` and ``down`` count the tiles.
    """
    for tile in prange(across * down):
        top, left = tile // across * ROWS, tile % across * COLUMNS
        rows, width = min(out.shape[1] - top, ROWS), min(out.shape[2] - left, COLUMNS)
        wide = width + 4
        sums = np.zeros((4, rows, width), np.float32)
        apart, column = np.empty((rows + 4, wide), np.float32), np.empty(wide, np.float32)
        for k in range(offsets.shape[0]):
            y_there, x_here = top + RADIUS + offsets[k, 0], left + RADIUS
            x_there = x_here + offsets[k, 1]
            for y in range(rows + 4):
                here, there, row = top + RADIUS + y, y_there + y, apart[y]
                a0, b0 = guide[0, here, x_here:], guide[0, there, x_there:]
                a1, b1 = guide[1, here, x_here:], guide[1, there, x_there:]
                a2, b2 = guide[2, here, x_here:], guide[2, there, x_there:]
                for x in range(wide):
                    d0, d1, d2 = a0[x] - b0[x], a1[x] - b1[x], a2[x] - b2[x]
                    row[x] = d0 * d0 + d1 * d1 + d2 * d2
            for y in range(rows):
                r0, r1, r2 = apart[y], apart[y + 1], apart[y + 2]
                r3, r4 = apart[y + 3], apart[y + 4]
                for x in range(wide):
                    column[x] = r0[x] + r1[x] + r2[x] + r3[x] + r4[x]
                v0, v1 = lab[0, y_there + y, x_there:], lab[1, y_there + y, x_there:]
                v2 = lab[2, y_there + y, x_there:]
                s0, s1, s2, weights = sums[0, y], sums[1, y], sums[2, y], sums[3, y]
                for x in range(width):
                    patch = column[x] + column[x + 1] + column[x + 2] + column[x + 3]
                    patch += column[x + 4]
                    # Two noisy patches of one colour are 2 apart: three channels, 25 pixels.
                    more = max(patch * np.float32(1 / 75) - np.float32(2), np.float32(0))
                    rest = np.float32(0.5) + more * np.float32(1 / 6)
                    # exp(-more), near enough.
                    weight = np.float32(1) / (np.float32(1) + more * (np.float32(1) + more * rest))
                    s0[x] += weight * v0[x]
                    s1[x] += weight * v1[x]
                    s2[x] += weight * v2[x]
                    weights[x] += weight
        for y in range(rows):
            for x in range(width):
                share = np.float32(1) / sums[3, y, x]
                for channel in range(3):
                    out[channel, top + y, left + x] = sums[channel, y, x] * share


def _padded(planes: np.ndarray, rows: range, room: int) -> np.ndarray:
    """Rows of some planes with ``room`` pixels more to every side; beyond the border lie the pixels
    of the border.
    """
    first, last = max(0, rows.start - room), min(planes.shape[1], rows.stop + room)
    beyond = (first - rows.start + room, rows.stop + room - last)
    return np.pad(planes[:, first:last], ((0, 0), beyond, (room, room)), mode="edge")


def without_grain(lab: np.ndarray, deviation: float) -> np.ndarray:
    """Return a picture (3, H, W) Oklab float32 without its grain.

    ``deviation`` : of the noise of a and b at L = 1, as `grain_of` finds it; above 0. Beyond the
    border lie the pixels of the border.
    """
    out = np.empty_like(lab)
    height, width = lab.shape[1:]
    for top in range(0, height, BAND):
        rows = range(top, min(top + BAND, height))
        first, last = max(0, top - SUPPORT), min(height, rows.stop + SUPPORT)
        guide = _even(lab[:, first:last], deviation)
        inner = range(top - first, rows.stop - first)
        band = np.empty((3, len(rows), width), np.float32)
        _means(
            _padded(guide, inner, RADIUS + HALF),
            _padded(lab, rows, RADIUS),
            OFFSETS,
            -(-width // COLUMNS),
            -(-len(rows) // ROWS),
            band,
        )
        out[:, top : rows.stop] = band
    return out


def _even(lab: np.ndarray, deviation: float) -> np.ndarray:
    """A picture (3, H, W) in units of its noise, which is the same everywhere then."""
    guide = np.empty_like(lab)
    # The integral of 1 / noise over L, so that equal steps are equally likely.
    light = np.maximum(lab[0], 0)
    np.multiply(light, np.sqrt(light), out=guide[0])
    guide[0] *= np.float32(1 / (1.5 * LIGHTNESS_NOISE * deviation))
    np.multiply(lab[1:], _root_of_lightness(lab[0]) / np.float32(deviation), out=guide[1:])
    return guide
