"""Find where two pictures differ."""

from __future__ import annotations

from typing import Any

import numpy as np

from .jit.parallel import inner, kernel, prange, serial_kernel


@kernel
def _differ(one: np.ndarray, other: np.ndarray, top: int, out: np.ndarray) -> None:
    for y in prange(one.shape[1]):
        there = top + y
        for x in range(one.shape[2]):
            differ = (one[0, y, x] != other[0, there, x]) | (one[1, y, x] != other[1, there, x])
            out[y, x] = differ | (one[2, y, x] != other[2, there, x])


def changed_pixels(one: np.ndarray, other: np.ndarray, top: int = 0) -> np.ndarray:
    """Return which pixels of some rows (3, h, W) differ at all from those of a picture (3, H, W)
    from a row ``top`` on, (h, W) bool.
    """
    out = np.empty(one.shape[1:], bool)
    _differ(one, other, top, out)
    return out


@kernel
def _take(
    target: np.ndarray, source: np.ndarray, changed: np.ndarray, down: int, across: int
) -> None:
    height, width = changed.shape
    for y in prange(target.shape[0]):
        bottom = min((y + 1) * down, height)
        for x in range(target.shape[1]):
            right = min((x + 1) * across, width)
            found = False
            for row in range(y * down, bottom):
                for column in range(x * across, right):
                    found |= changed[row, column]
            if found:
                target[y, x] = source[y, x]


def take_changed(target: np.ndarray, source: np.ndarray, changed: np.ndarray) -> None:
    """Write samples (h, w) of integers over others wherever one of the pixels (H, W) that a sample
    stands for has changed.
    """
    down, across = -(-changed.shape[0] // target.shape[0]), -(-changed.shape[1] // target.shape[1])
    _take(target, source, np.ascontiguousarray(changed), down, across)


#: Pixels of a row that are compared as one.
RUN = 64
#: And this many rows of screen pixels.
STRIP = 64
#: Runs of screen pixels with at most this many others between them are one box: each box costs
#: something.
APART = 4
#: Stands for all runs of all rows.
ALL_RUNS = np.zeros((0, 0), bool)


@serial_kernel
def _changed_strips(
    one: np.ndarray,
    first: int,
    stride: int,
    other: np.ndarray,
    first_other: int,
    stride_other: int,
    height: int,
    width: int,
    strips: np.ndarray,
) -> None:
    """Pixels in a row of memory each, the first of a picture, and how far apart its rows are: so
    the compiler knows that a row is one piece.
    """
    for y in range(height):
        strip, here, there = strips[y // STRIP], first + y * stride, first_other + y * stride_other
        for run in range(strip.size):
            if not strip[run]:
                start, stop, differ = run * RUN, min((run + 1) * RUN, width), np.uint32(0)
                new, old = one[here + start : here + stop], other[there + start : there + stop]
                for x in range(new.size):
                    differ |= new[x] ^ old[x]
                strip[run] = differ != 0


def in_memory(pixels: np.ndarray) -> tuple[np.ndarray, int, int]:
    """The memory (N,) that some pixels (H, W) lie in, where they begin there, and how far apart
    their rows are.
    """
    whole = pixels
    while not whole.flags.c_contiguous:
        assert isinstance(whole.base, np.ndarray)
        whole = whole.base
    first = (pixels.ctypes.data - whole.ctypes.data) // pixels.itemsize
    return whole.reshape(-1).view(pixels.dtype), first, pixels.strides[0] // pixels.itemsize


def changed_boxes(one: np.ndarray, other: np.ndarray) -> list[tuple[int, int, int, int]]:
    """Some boxes (top, left, bottom, right) outside which two pictures of screen pixels (H, W)
    uint32, or of levels uint8, are the same.
    """
    height, width = one.shape
    strips = no_runs(-(-height // STRIP), width)
    _changed_strips(*in_memory(one), *in_memory(other), height, width, strips)
    return _boxes_in(strips, height, 0, width)


def boxes_of_runs(runs: np.ndarray, within: tuple[slice, slice]) -> list[tuple[int, int, int, int]]:
    """Some boxes (top, left, bottom, right) that hold all set runs (H, R) of some rows and columns,
    counted from the first of these.
    """
    rows, columns = within
    runs = runs[rows]
    strips = (
        np.logical_or.reduceat(runs, np.arange(0, max(1, runs.shape[0]), STRIP), axis=0)
        if runs.size
        else runs
    )
    left = columns.start or 0
    right = runs.shape[1] * RUN if columns.stop is None else columns.stop
    return _boxes_in(strips, runs.shape[0], left, right)


@serial_kernel
def _find_boxes(strips: np.ndarray, boxes: np.ndarray) -> int:
    count = 0
    for number in range(strips.shape[0]):
        last = -1
        for run in range(strips.shape[1]):
            if strips[number, run]:
                if last < 0 or run - last > APART:
                    boxes[count, 0], boxes[count, 1] = number, run
                    count += 1
                boxes[count - 1, 2] = run + 1
                last = run
    return count


def _boxes_in(
    strips: np.ndarray, bottom: int, left: int, right: int
) -> list[tuple[int, int, int, int]]:
    found = np.empty((strips.size, 3), np.int64)
    boxes = []
    for number, first, end in found[: _find_boxes(strips, found)].tolist():
        start, stop = max(first * RUN, left) - left, min(end * RUN, right) - left
        if stop > start:
            boxes.append((number * STRIP, start, min((number + 1) * STRIP, bottom), stop))
    return boxes


def no_runs(height: int, width: int) -> np.ndarray:
    """Runs of `RUN` pixels in every row of a picture, (H, R) bool, none of them set."""
    return np.zeros((height, -(-width // RUN)), bool)


def runs_of_boxes(boxes: list[tuple[int, int, int, int]], height: int, width: int) -> np.ndarray:
    """The runs (H, R) that some boxes (top, left, bottom, right) of a picture reach into."""
    runs = no_runs(height, width)
    for top, left, bottom, right in boxes:
        runs[top:bottom, left // RUN : -(-right // RUN)] = True
    return runs


@kernel
def _differing(one: np.ndarray, other: np.ndarray, runs: np.ndarray) -> None:
    for y in prange(runs.shape[0]):
        for run in range(runs.shape[1]):
            here, there, differ = (
                one[y, run * RUN : (run + 1) * RUN],
                other[y, run * RUN : (run + 1) * RUN],
                False,
            )
            for x in range(here.size):
                differ |= here[x] != there[x]
            runs[y, run] |= differ


def set_differing(runs: np.ndarray, one: np.ndarray, other: np.ndarray) -> None:
    """Set the runs (H, R) in which two masks (H, W) float32 differ."""
    _differing(one, other, runs)


@kernel
def _held(mask: np.ndarray, runs: np.ndarray) -> None:
    for y in prange(runs.shape[0]):
        for run in range(runs.shape[1]):
            here, some = mask[y, run * RUN : (run + 1) * RUN], False
            for x in range(here.size):
                some |= here[x] != np.float32(0)
            runs[y, run] |= some


def set_held(runs: np.ndarray, mask: np.ndarray) -> None:
    """Set the runs (H, R) in which a mask (H, W) float32 holds anything."""
    _held(mask, runs)


@kernel
def _copy_runs(source: np.ndarray, runs: np.ndarray, out: np.ndarray) -> None:
    for y in prange(out.shape[0]):
        stop = 0
        while stop < out.shape[1]:
            start, stop = next_stretch(runs[y], stop, out.shape[1])
            out[y, start:stop] = source[y, start:stop]


def copy_runs(source: np.ndarray, runs: np.ndarray, out: np.ndarray) -> None:
    """Copy some runs (H, R) of pixels (H, W) over others."""
    _copy_runs(source, runs, out)


@inner
def next_stretch(row: Any, start: Any, width: Any) -> Any:
    """The first stretch of a row's pixels, from ``start`` on, that lies in set runs (R,): its two
    ends, both ``width`` for none.
    """
    run = start // RUN
    while run < row.size and not row[run]:
        run += 1
    first = run
    while run < row.size and row[run]:
        run += 1
    return min(first * RUN, width), min(run * RUN, width)
