"""The median of 5 x 5 pixels, by orders that neighbours share.

Ours. Where every column of a square is put in order, and then every row, both stay in order. How
many pixels are no larger than one of
them, and how many no smaller, is then known from where it stands, which leaves three diagonals. Of
the lower one only the largest can be
the median, of the middle one only its own median, of the upper one only the smallest: it is the
median of these three. Columns are put in order once for all the squares that they are part of.
"""

from __future__ import annotations

import numpy as np

from ..jit.parallel import inner, kernel, prange

#: Pixels to either side of the middle.
ROUND = 2


@inner
def _in_order(
    a: np.float32, b: np.float32, c: np.float32, d: np.float32, e: np.float32
) -> tuple[np.float32, np.float32, np.float32, np.float32, np.float32]:
    """Five numbers from the least to the largest, by nine comparisons; what nobody asks for of it
    is not worked out.
    """
    a, b = min(a, b), max(a, b)
    d, e = min(d, e), max(d, e)
    c, e = min(c, e), max(c, e)
    c, d = min(c, d), max(c, d)
    a, d = min(a, d), max(a, d)
    a, c = min(a, c), max(a, c)
    b, e = min(b, e), max(b, e)
    b, d = min(b, d), max(b, d)
    b, c = min(b, c), max(b, c)
    return a, b, c, d, e


@kernel
def _median_within(planes: np.ndarray, most: float, out: np.ndarray) -> None:
    height, width, limit = planes.shape[1], planes.shape[2], np.float32(most)
    for line in prange(planes.shape[0] * height):
        plane, y = planes[line // height], line % height
        first, second, third = plane[max(y - 2, 0)], plane[max(y - 1, 0)], plane[y]
        fourth, fifth, target = (
            plane[min(y + 1, height - 1)],
            plane[min(y + 2, height - 1)],
            out[line // height, y],
        )
        ordered = np.empty((5, width + 2 * ROUND), np.float32)
        a, b, c, d, e = ordered[0], ordered[1], ordered[2], ordered[3], ordered[4]
        for x in range(width):
            a[x + 2], b[x + 2], c[x + 2], d[x + 2], e[x + 2] = _in_order(
                first[x], second[x], third[x], fourth[x], fifth[x]
            )
        for row in range(5):
            ordered[row, :ROUND], ordered[row, width + ROUND :] = (
                ordered[row, ROUND],
                ordered[row, width + 1],
            )
        for x in range(width):
            _, _, _, a3, a4 = _in_order(a[x], a[x + 1], a[x + 2], a[x + 3], a[x + 4])
            _, _, b2, b3, b4 = _in_order(b[x], b[x + 1], b[x + 2], b[x + 3], b[x + 4])
            _, c1, c2, c3, _ = _in_order(c[x], c[x + 1], c[x + 2], c[x + 3], c[x + 4])
            d0, d1, d2, _, _ = _in_order(d[x], d[x + 1], d[x + 2], d[x + 3], d[x + 4])
            e0, e1, _, _, _ = _in_order(e[x], e[x + 1], e[x + 2], e[x + 3], e[x + 4])
            low, high = max(max(a3, b2), max(c1, d0)), min(min(b4, c3), min(d2, e1))
            _, _, middle, _, _ = _in_order(a4, b3, c2, d1, e0)
            median = max(min(low, middle), min(max(low, middle), high))
            target[x] = median if abs(median - third[x]) <= limit else third[x]


def median_within(planes: np.ndarray, most: float, out: np.ndarray) -> None:
    """The median of 5 x 5 pixels where it lies no farther off than ``most``, elsewhere the pixel
    itself. Beyond the border lie the pixels of the border.

    Parameters
    ----------
    planes : (N, H, W) float32, finite.
    out : the same, written to; not the planes themselves.
    """
    _median_within(planes, most, out)
