"""Screen pixels at another size, some runs of them alone: what lies between two pixels is mixed of
them in straight lines.
"""

from __future__ import annotations

import functools
from typing import Any

import numpy as np

from .changed import RUN, in_memory
from .jit.parallel import inner, kernel, lerp_rgba4, prange

#: Shares of two pixels are counted in this many parts.
PARTS = 2048
#: Pixels of a row that are mixed at once.
FOUR = 4


@inner
def _mixed(one: Any, other: Any, lower: Any) -> Any:
    """Two bytes, mixed to a 128th of a level."""
    return np.int16(
        np.int32(np.int32(one) * (np.int32(PARTS) - lower) + np.int32(other) * lower + np.int32(8))
        >> np.int32(4)
    )


@inner
def _mix_pixels(row: Any, firsts: Any, parts: Any, target: Any) -> None:
    """Mix pixels of a row (4 · W,) into as many as stand in ``target`` (n,) uint32, as `lerp_rgba4`
    does it.
    """
    fours = target.size // FOUR
    for k in range(fours):
        lerp_rgba4(row, firsts, parts, FOUR * k, target)
    for x in range(FOUR * fours, target.size):
        pixel, first, second = np.uint32(0), parts[x] & 0xFFFF, parts[x] >> 16
        for k in range(4):
            held = row[4 * firsts[x] + k] * first + row[4 * firsts[x] + 4 + k] * second + (1 << 20)
            pixel |= np.uint32(held >> 21) << np.uint32(8 * k)
        target[x] = pixel


@inner
def _next(runs: Any, first: Any, last: Any, run: Any) -> Any:
    """The first run, from one on, that is set in any row from ``first`` to ``last``, and the first
    after that that is in none.
    """
    start, begun = run, False
    while run < runs.shape[1]:
        some = False
        for row in range(first, last + 1):
            some |= runs[row, run]
        if some == begun:
            run += 1
        elif begun:
            break
        else:
            start, begun, run = run, True, run + 1
    return (start if begun else run), run


@kernel
def _scale(
    memory: np.ndarray,
    start: int,
    stride: int,
    size: tuple[int, int],
    runs: np.ndarray,
    ends: np.ndarray,
    rows: np.ndarray,
    low: np.ndarray,
    columns: np.ndarray,
    shares: np.ndarray,
    out: np.ndarray,
) -> None:
    """The first three are as in `changed.in_memory`, in bytes; ``ends`` says which columns of the
    outcome a run concerns; the last four before that are as `_between` and `_shares` give them.
    """
    height, width = size
    for y in prange(out.shape[0]):
        one_row, other_row = rows[y], min(rows[y] + 1, height - 1)
        row = np.empty(
            4 * width + 4, np.int16
        )  # of a picture of one column, what is beside it is read too, and no part of it taken
        first, last = _next(runs, one_row, other_row, 0)
        while first < last:
            left, right = ends[first, 0], ends[last - 1, 1]
            if left < right:
                begin, end = 4 * columns[left], 4 * min(columns[right - 1] + 2, width)
                above, below, lower = (
                    start + one_row * stride,
                    start + other_row * stride,
                    np.int32(low[y]),
                )
                one, other, mixed = (
                    memory[above + begin : above + end],
                    memory[below + begin : below + end],
                    row[begin:end],
                )
                for k in range(mixed.size):
                    mixed[k] = _mixed(one[k], other[k], lower)
                _mix_pixels(row, columns[left:right], shares[left:right], out[y, left:right])
            first, last = _next(runs, one_row, other_row, last)


@kernel
def _scale_levels(
    memory: np.ndarray,
    start: int,
    stride: int,
    size: tuple[int, int],
    runs: np.ndarray,
    ends: np.ndarray,
    rows: np.ndarray,
    low: np.ndarray,
    columns: np.ndarray,
    shares: np.ndarray,
    out: np.ndarray,
) -> None:
    """The same for a byte to a pixel: four rows at once, which stand for the four channels."""
    height, width = size
    bottom = out.shape[0] - 1
    for four in prange((out.shape[0] + FOUR - 1) // FOUR):
        y0, parted, row = (
            FOUR * four,
            np.empty((FOUR, width), np.int16),
            np.empty(4 * width + 4, np.int16),
        )
        pixels, one_row, other_row = (
            np.empty(out.shape[1], np.uint32),
            rows[y0],
            min(rows[min(y0 + 3, bottom)] + 1, height - 1),
        )
        first, last = _next(runs, one_row, other_row, 0)
        while first < last:
            left, right = ends[first, 0], ends[last - 1, 1]
            if left < right:
                begin, end = columns[left], min(columns[right - 1] + 2, width)
                for k in range(FOUR):
                    y = min(y0 + k, bottom)
                    above, below, lower = (
                        start + rows[y] * stride,
                        start + min(rows[y] + 1, height - 1) * stride,
                        np.int32(low[y]),
                    )
                    one, other, mixed = (
                        memory[above + begin : above + end],
                        memory[below + begin : below + end],
                        parted[k, begin:end],
                    )
                    for x in range(mixed.size):
                        mixed[x] = _mixed(one[x], other[x], lower)
                together = row[4 * begin : 4 * end]
                one, two, three, fourth = (
                    parted[0, begin:end],
                    parted[1, begin:end],
                    parted[2, begin:end],
                    parted[3, begin:end],
                )
                for x in range(end - begin):  # written out, so that the compiler takes many at once
                    together[4 * x], together[4 * x + 1] = one[x], two[x]
                    together[4 * x + 2], together[4 * x + 3] = three[x], fourth[x]
                held = pixels[left:right]
                _mix_pixels(row, columns[left:right], shares[left:right], held)
                for k in range(FOUR):
                    target, shift = out[min(y0 + k, bottom), left:right], np.uint32(8 * k)
                    for x in range(target.size):
                        target[x] = np.uint8(held[x] >> shift)
            first, last = _next(runs, one_row, other_row, last)


@functools.lru_cache(maxsize=16)
def _between(size: int, count: int) -> tuple[np.ndarray, np.ndarray]:
    """The first of the two pixels of ``size`` that the middle of each of ``count`` lies between,
    and how many parts it is from it: (count,) int32 each, not to be written to.
    """
    places = np.clip((np.arange(count) + 0.5) * (size / count) - 0.5, 0, size - 1)
    first = np.minimum(places.astype(np.int32), max(size - 2, 0))
    return first, np.rint((places - first) * PARTS).astype(np.int32)


@functools.lru_cache(maxsize=16)
def _shares(size: int, count: int) -> tuple[np.ndarray, np.ndarray]:
    """As `_between`, but with the parts of both pixels as `lerp_rgba4` takes them."""
    first, far = _between(size, count)
    return first, (PARTS - far) * 8 | far * 8 << 16


@functools.lru_cache(maxsize=16)
def _ends(size: int, count: int, runs: int, before: int) -> np.ndarray:
    """The first of ``count`` pixels that something of each run is mixed into, and the first after
    all of those, (runs, 2) int64; not to be written to.
    """
    first, places = _between(size, count)[0], np.arange(runs + 1) * RUN - before
    return np.stack(
        [np.searchsorted(first, places[:-1] - 1), np.searchsorted(first, places[1:])], axis=1
    )


def scale_runs(pixels: np.ndarray, runs: np.ndarray, out: np.ndarray, before: int = 0) -> None:
    """Write some runs (h, R), see `changed`, of a picture (h, w) of screen pixels uint32, or of
    levels uint8, at the size of another (H, W), over what stands in that.

    Within a level of the exact mixture of the four pixels around. What else stands in ``out`` must
    be of the same picture. ``before``: how many pixels of the first run are left of the picture.
    """
    (height, width), (down, across), each = pixels.shape, out.shape, pixels.itemsize
    memory, start, stride = in_memory(pixels)
    of_bytes, scale = (
        (memory.view(np.uint8), each * start, each * stride),
        _scale if each == 4 else _scale_levels,
    )
    ends = _ends(width, across, runs.shape[1], before)
    scale(
        *of_bytes,
        (height, width),
        runs,
        ends,
        *_between(height, down),
        *_shares(width, across),
        out,
    )
