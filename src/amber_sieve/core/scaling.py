"""Screen pixels at another size, some boxes of them alone: what lies between two pixels is mixed of them in straight lines."""

from __future__ import annotations

import functools
from collections.abc import Sequence

import numpy as np

from .changed import in_memory
from .parallel import kernel, mix_four, prange

#: Top, left, bottom, right.
Box = tuple[int, int, int, int]
#: Shares of two pixels are counted in so many parts.
PARTS = 2048
#: So many pixels of a row are mixed at once.
FOUR = 4


@kernel
def _scale(
    memory: np.ndarray, start: int, stride: int, size: tuple[int, int], boxes: np.ndarray,
    rows: np.ndarray, low: np.ndarray, columns: np.ndarray, shares: np.ndarray, out: np.ndarray,
) -> None:  # fmt: skip
    """The first three are as in `changed.in_memory`, in bytes; the next four as `_between` and `_shares` give them."""
    height, width = size
    for y in prange(out.shape[0]):
        above, below = start + rows[y] * stride, start + min(rows[y] + 1, height - 1) * stride
        lower, upper = np.int32(low[y]), np.int32(PARTS) - np.int32(low[y])
        row = np.empty(4 * width + 4, np.int16)  # of a picture of one column, what is beside it is read too, and no part of it taken
        for n in range(boxes.shape[0]):
            top, left, bottom, right = boxes[n]
            if top <= y < bottom:
                begin, end = 4 * columns[left], 4 * min(columns[right - 1] + 2, width)
                one, other, mixed = memory[above + begin : above + end], memory[below + begin : below + end], row[begin:end]
                for k in range(mixed.size):  # between two rows first, to a 128th of a level
                    both = np.int32(np.int32(one[k]) * upper + np.int32(other[k]) * lower + np.int32(8))
                    mixed[k] = np.int16(both >> np.int32(4))
                firsts, parts, target = columns[left:right], shares[left:right], out[y, left:right]
                fours = target.size // FOUR
                for k in range(fours):
                    mix_four(row, firsts, parts, FOUR * k, target)
                for x in range(FOUR * fours, target.size):  # what is left, as `mix_four` does it
                    pixel, first, second = np.uint32(0), parts[x] & 0xFFFF, parts[x] >> 16
                    for k in range(4):
                        held = row[4 * firsts[x] + k] * first + row[4 * firsts[x] + 4 + k] * second + (1 << 20)
                        pixel |= np.uint32(held >> 21) << np.uint32(8 * k)
                    target[x] = pixel


@functools.lru_cache(maxsize=16)
def _between(size: int, count: int) -> tuple[np.ndarray, np.ndarray]:
    """The first of the two pixels of ``size`` that the middle of each of ``count`` lies between, and how many parts it is from it: (count,)
    int32 each, not to be written to."""
    places = np.clip((np.arange(count) + 0.5) * (size / count) - 0.5, 0, size - 1)
    first = np.minimum(places.astype(np.int32), max(size - 2, 0))
    return first, np.rint((places - first) * PARTS).astype(np.int32)


@functools.lru_cache(maxsize=16)
def _shares(size: int, count: int) -> tuple[np.ndarray, np.ndarray]:
    """As `_between`, but with the parts of both pixels as `mix_four` takes them."""
    first, far = _between(size, count)
    return first, (PARTS - far) * 8 | far * 8 << 16


def scale_boxes(pixels: np.ndarray, boxes: Sequence[Box], out: np.ndarray) -> None:
    """Write some boxes of a picture (h, w) of screen pixels uint32, at the size of another (H, W), over what stands in that.

    Within a level of the exact mixture of the four pixels around.
    """
    if boxes:
        (height, width), (down, across) = pixels.shape, out.shape
        memory, start, stride = in_memory(pixels)
        of_bytes = memory.view(np.uint8), 4 * start, 4 * stride
        _scale(*of_bytes, (height, width), np.array(boxes, np.int64), *_between(height, down), *_shares(width, across), out)
