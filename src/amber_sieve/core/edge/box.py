"""The part of a picture in which a mask has anything: most masks are small, and nothing need be
worked outside it.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np

from ..jit.parallel import inner, kernel, prange

#: Pixels of a row that are tested as one.
CHUNK = 128
#: Least mask that is anything.
NOTHING = 1e-30


@inner
def _holds(chunk: Any, some: Any) -> Any:
    most = chunk[0]
    for k in range(chunk.size):
        most = max(most, chunk[k])
    return most >= some


@kernel
def _find_ends(mask: np.ndarray, some: int, ends: np.ndarray) -> None:
    """The first and the last pixel of every row (H, 2) with at least this value, of integers: the
    row's size and -1 where there is none.
    """
    for y in prange(mask.shape[0]):
        row, first, last = mask[y], 0, mask.shape[1] - 1
        while first + CHUNK <= row.size and not _holds(row[first : first + CHUNK], some):
            first += CHUNK
        while first < row.size and row[first] < some:
            first += 1
        while last - CHUNK >= first and not _holds(row[last + 1 - CHUNK : last + 1], some):
            last -= CHUNK
        while last >= first and row[last] < some:
            last -= 1
        ends[y, 0], ends[y, 1] = first, last if first < row.size else -1


def box_of(mask: np.ndarray, least: float, room: float) -> tuple[slice, slice] | None:
    """Rows and columns that hold every pixel of a mask (H, W), float32 or uint8, of at least
    ``least`` (above 0), with ``room`` pixels round them; None for none.
    """
    ends, mask = np.empty((mask.shape[0], 2), np.int64), np.ascontiguousarray(mask)
    if mask.dtype == np.float32:
        # The bits of numbers above 0 are ordered as they are, and the largest integer is found in
        # half of the time.
        _find_ends(mask.view(np.int32), int(np.float32(least).view(np.int32)), ends)
    else:
        _find_ends(mask, int(least), ends)
    rows = np.flatnonzero(ends[:, 1] >= 0)
    if not rows.size:
        return None
    wide = int(np.ceil(room)) + 2
    left, right = int(ends[rows, 0].min()), int(ends[rows, 1].max())
    return slice(max(0, int(rows[0]) - wide), int(rows[-1]) + wide + 1), slice(
        max(0, left - wide), right + wide + 1
    )


def around(boxes: list[tuple[slice, slice]]) -> tuple[slice, slice] | None:
    """Rows and columns that hold some boxes; None for none."""
    if not boxes:
        return None
    rows, columns = (
        slice(min(box[k].start for box in boxes), max(box[k].stop for box in boxes)) for k in (0, 1)
    )
    return rows, columns


@kernel
def _copy(mask: np.ndarray, top: int, bottom: int, left: int, right: int, out: np.ndarray) -> None:
    for y in prange(out.shape[0]):
        source, row, inside = mask[y], out[y], top <= y < bottom
        for x in range(row.size):
            row[x] = source[x] if inside and left <= x < right else np.float32(0)


def copied(mask: np.ndarray, box: tuple[slice, slice] = (slice(None), slice(None))) -> np.ndarray:
    """A mask (H, W) float32 with 0 outside a box of it, as a copy: on all threads, as most of the
    time goes into getting the memory.
    """
    (top, bottom, _), (left, right, _) = (
        one.indices(size) for one, size in zip(box, mask.shape, strict=True)
    )
    out = np.empty(mask.shape, np.float32)
    _copy(np.ascontiguousarray(mask), top, bottom, left, right, out)
    return out


@dataclass(frozen=True)
class CroppedMask:
    """A mask of which only the part is held that has anything.

    Attributes
    ----------
    mask : (h, w) float32. corner : row and column of its top left. shape : of the whole mask, rows
        and columns.
    """

    mask: np.ndarray
    corner: tuple[int, int]
    shape: tuple[int, int]

    @staticmethod
    def of(mask: np.ndarray) -> CroppedMask:
        """Return the box of a whole mask (H, W) that holds anything, as a copy unless that is
        nearly all of it.
        """
        box = box_of(mask, NOTHING, 0)
        if box is None:
            return CroppedMask(mask[:0, :0].copy(), (0, 0), mask.shape)
        held = mask[box]
        return CroppedMask(
            held.copy() if held.size < mask.size // 2 else held,
            (box[0].start, box[1].start),
            mask.shape,
        )

    def part(self, top: int, left: int, height: int, width: int) -> np.ndarray:
        """The mask of a part of the picture, (height, width)."""
        out = np.zeros((height, width), np.float32)
        first, last = (
            max(top, self.corner[0]),
            min(top + height, self.corner[0] + self.mask.shape[0]),
        )
        start, stop = (
            max(left, self.corner[1]),
            min(left + width, self.corner[1] + self.mask.shape[1]),
        )
        if first < last and start < stop:
            inner = self.mask[
                first - self.corner[0] : last - self.corner[0],
                start - self.corner[1] : stop - self.corner[1],
            ]
            out[first - top : last - top, start - left : stop - left] = inner
        return out
