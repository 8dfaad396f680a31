"""Planes at a smaller size, each pixel the mean of those it covers."""

from __future__ import annotations

import functools

import numpy as np

from .jit.parallel import kernel, prange

#: Left, top, right, bottom.
Box = tuple[int, int, int, int]


@kernel
def _shrink(
    plane: np.ndarray,
    top: int,
    left: int,
    first_row: np.ndarray,
    row_shares: np.ndarray,
    first_column: np.ndarray,
    shares: np.ndarray,
    out: np.ndarray,
) -> None:
    """The shares (h, n) and (w, m) say how much each outcome has of the rows and columns of the box
    from the first of its own on.
    """
    width, count = out.shape[1], shares.shape[1]
    wide = first_column[width - 1] + count
    for y in prange(out.shape[0]):
        total, target = np.zeros(wide, np.float32), out[y]
        for n in range(row_shares.shape[1]):
            share = row_shares[y, n]
            if share > np.float32(0):
                source = plane[top + first_row[y] + n, left : left + wide]
                for x in range(source.size):
                    total[x] += share * source[x]
        for x in range(width):
            first = np.uintp(first_column[x])
            value = shares[x, 0] * total[first]
            if count == 2:  # written out, as most are reduced by little
                value += shares[x, 1] * total[first + np.uintp(1)]
            elif count > 2:
                value += (
                    shares[x, 1] * total[first + np.uintp(1)]
                    + shares[x, 2] * total[first + np.uintp(2)]
                )
                for n in range(3, count):
                    value += shares[x, n] * total[first + np.uintp(n)]
            target[x] = value


@functools.lru_cache(maxsize=16)
def _covered(size: int, count: int) -> tuple[np.ndarray, np.ndarray]:
    """The first of ``size`` pixels that each of ``count`` covers, (count,) int64, and how much of
    it is of each from there on, (count, n) float32; not to be written to.
    """
    ends = np.arange(count + 1) * (size / count)
    most = min(
        size, -(-size // count) + (size % count != 0)
    )  # one between whole pixels lies on one more
    first = np.minimum(ends[:-1].astype(np.int64), size - most)
    places = first[:, None] + np.arange(most)
    held = np.clip(
        np.minimum(places + 1, ends[1:, None]) - np.maximum(places, ends[:-1, None]), 0, 1
    )
    return first, (held / held.sum(axis=1, keepdims=True)).astype(np.float32)


def shrink(plane: np.ndarray, box: Box, out: np.ndarray) -> None:
    """Write a box of a plane (H, W) float32 at another size, as large or smaller, to ``out`` (h,
    w).
    """
    left, top, right, bottom = box
    (height, width), rows, columns = out.shape, bottom - top, right - left
    _shrink(plane, top, left, *_covered(rows, height), *_covered(columns, width), out)
