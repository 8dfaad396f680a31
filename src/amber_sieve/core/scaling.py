"""Screen pixels at another size, some boxes of them alone: what lies between two pixels is mixed of them in straight lines."""

from __future__ import annotations

import functools
from collections.abc import Sequence

import numpy as np

from .changed import in_memory
from .parallel import inner, kernel, prange

#: Top, left, bottom, right.
Box = tuple[int, int, int, int]
#: Shares of two pixels are counted in so many parts.
PARTS = 2048
#: Red, green and blue of a pixel stand apart in 64 bits, 21 each, so that one multiplication weighs all three: 4 · 255 · 2048 has 21.
ALL = np.uint64(1 << 42 | 1 << 21 | 1)
LEVEL, QUARTERS = np.uint64(255), np.uint64(1023)


@inner
def _apart(pixel: np.uint32) -> np.uint64:
    """A pixel 0xAARRGGBB with its channels apart."""
    word = np.uint64(pixel)
    return (word & np.uint64(0xFF0000)) << np.uint64(26) | (word & np.uint64(0xFF00)) << np.uint64(13) | word & LEVEL


@kernel
def _scale(
    memory: np.ndarray, start: int, stride: int, size: tuple[int, int], boxes: np.ndarray,
    rows: np.ndarray, low: np.ndarray, columns: np.ndarray, far: np.ndarray, out: np.ndarray,
) -> None:  # fmt: skip
    """See `changed.in_memory` for the first three; ``rows`` and ``low``, ``columns`` and ``far`` as `_between` gives them."""
    height, width = size
    whole, next_one = np.uint64(PARTS), np.uintp(width > 1)
    for y in prange(out.shape[0]):
        above, below, share = start + rows[y] * stride, start + min(rows[y] + 1, height - 1) * stride, np.uint64(low[y])
        row = np.empty(width, np.uint64)
        for n in range(boxes.shape[0]):
            top, left, bottom, right = boxes[n]
            if top <= y < bottom:
                begin, end = columns[left], min(columns[right - 1] + 2, width)
                one, other, mixed = memory[above + begin : above + end], memory[below + begin : below + end], row[begin:end]
                # Between two rows first, to quarters of a level: that loop vectorises, what lies between two columns does not.
                for x in range(mixed.size):
                    both = _apart(one[x]) * (whole - share) + _apart(other[x]) * share + ALL * np.uint64(256)
                    mixed[x] = both >> np.uint64(9) & ALL * QUARTERS
                firsts, parts, target = columns[left:right], far[left:right], out[y, left:right]
                for x in range(target.size):
                    first, part = np.uintp(firsts[x]), np.uint64(parts[x])
                    both = row[first] * (whole - part) + row[first + next_one] * part + ALL * np.uint64(4096)
                    red, green, blue = both >> np.uint64(55) & LEVEL, both >> np.uint64(34) & LEVEL, both >> np.uint64(13) & LEVEL
                    target[x] = np.uint32(np.uint64(0xFF000000) | red << np.uint64(16) | green << np.uint64(8) | blue)


@functools.lru_cache(maxsize=16)
def _between(size: int, count: int) -> tuple[np.ndarray, np.ndarray]:
    """The first of the two pixels of ``size`` that the middle of each of ``count`` lies between, and how many parts it is from it: (count,)
    int32 each, not to be written to."""
    places = np.clip((np.arange(count) + 0.5) * (size / count) - 0.5, 0, size - 1)
    first = np.minimum(places.astype(np.int32), max(size - 2, 0))
    return first, np.rint((places - first) * PARTS).astype(np.int32)


def scale_boxes(pixels: np.ndarray, boxes: Sequence[Box], out: np.ndarray) -> None:
    """Write some boxes of a picture (h, w) of opaque screen pixels uint32, at the size of another (H, W), over what stands in that.

    Within a level of the exact mixture of the four pixels around.
    """
    if boxes:
        (height, width), (down, across) = pixels.shape, out.shape
        _scale(*in_memory(pixels), (height, width), np.array(boxes, np.int64), *_between(height, down), *_between(width, across), out)
