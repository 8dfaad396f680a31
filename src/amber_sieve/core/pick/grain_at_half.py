"""Remove grain at half size, where it is half as strong and pixels are a quarter as many; then lay
detail that is far stronger than the grain over it again.
"""

from __future__ import annotations

import cv2
import numpy as np

from ..jit.parallel import kernel, prange
from .non_local_means import DARKEST, LIGHTNESS_NOISE, SUPPORT, without_grain

#: Detail of less than this many deviations counts as grain; from twice that on all of it is kept.
STANDS_OUT = 6.0
#: Pixels looked at to every side.
SUPPORT_AT_HALF = 2 * SUPPORT + 3
_DARKEST, _LIGHTNESS_NOISE = np.float32(DARKEST), np.float32(LIGHTNESS_NOISE)


@kernel
def _fill_in(
    lab: np.ndarray,
    half: np.ndarray,
    clean: np.ndarray,
    top: int,
    left: int,
    limit: float,
    out: np.ndarray,
) -> None:
    """Write what a picture at half size was cleaned to, between its pixels, and the detail over it;
    ``top`` and ``left`` are 1 where the first row or column is the second of its pair.
    """
    height, width = lab.shape[1:]
    rows, columns = half.shape[1:]
    near, far = np.float32(0.75), np.float32(0.25)
    one, least = np.float32(1), np.float32(limit)
    for y in prange(height):
        row = (y + top) // 2
        other_row = min(max(row - 1 + 2 * ((y + top) % 2), 0), rows - 1)
        rough, smooth = np.empty(3, np.float32), np.empty(3, np.float32)
        for x in range(width):
            column = (x + left) // 2
            other = min(max(column - 1 + 2 * ((x + left) % 2), 0), columns - 1)
            for k in range(3):
                for kind in range(2):
                    plane = half[k] if kind == 0 else clean[k]
                    above = near * plane[row, column] + far * plane[row, other]
                    below = near * plane[other_row, column] + far * plane[other_row, other]
                    between = near * above + far * below
                    if kind == 0:
                        rough[k] = between
                    else:
                        smooth[k] = between
            light = (lab[0, y, x] - rough[0]) / _LIGHTNESS_NOISE
            a, b = lab[1, y, x] - rough[1], lab[2, y, x] - rough[2]
            size = np.sqrt((light * light + a * a + b * b) * max(rough[0], _DARKEST))
            kept = min(max(size / least - one, np.float32(0)), one)
            for k in range(3):
                out[k, y, x] = smooth[k] + kept * (lab[k, y, x] - rough[k])


def without_grain_at_half(
    lab: np.ndarray, deviation: float, corner: tuple[int, int] = (0, 0)
) -> np.ndarray:
    """Return a picture (3, H, W) Oklab float32 without its grain.

    ``deviation`` : of the noise of a and b at L = 1; above 0. ``corner`` : row and column of its
    first pixel in the whole picture, so that a part pairs the pixels that the whole pairs.
    """
    top, left = (place % 2 for place in corner)
    height, width = lab.shape[1:]
    bottom, right = (height + top) % 2, (width + left) % 2
    half = np.empty((3, (height + top + 1) // 2, (width + left + 1) // 2), np.float32)
    for plane, small in zip(lab, half, strict=True):
        padded = cv2.copyMakeBorder(plane, top, bottom, left, right, cv2.BORDER_REPLICATE)
        cv2.resize(padded, small.shape[::-1], dst=small, interpolation=cv2.INTER_AREA)
    out = np.empty_like(lab)
    clean = without_grain(half, deviation / 2)
    _fill_in(lab, half, clean, top, left, STANDS_OUT * deviation, out)
    return out
