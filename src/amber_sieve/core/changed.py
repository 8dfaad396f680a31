"""Where two pictures differ."""

from __future__ import annotations

import numpy as np

from .parallel import kernel, prange


@kernel
def _differ(one: np.ndarray, other: np.ndarray, out: np.ndarray) -> None:
    for y in prange(one.shape[1]):
        for x in range(one.shape[2]):
            out[y, x] = (one[0, y, x] != other[0, y, x]) | (one[1, y, x] != other[1, y, x]) | (one[2, y, x] != other[2, y, x])


def changed_pixels(one: np.ndarray, other: np.ndarray) -> np.ndarray:
    """Which pixels of two pictures (3, H, W) differ at all, (H, W) bool."""
    out = np.empty(one.shape[1:], bool)
    _differ(one, other, out)
    return out


@kernel
def _take(target: np.ndarray, source: np.ndarray, changed: np.ndarray, down: int, across: int) -> None:
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
    """Write samples (h, w) of integers over others wherever one of the pixels (H, W) that a sample stands for has changed."""
    down, across = -(-changed.shape[0] // target.shape[0]), -(-changed.shape[1] // target.shape[1])
    _take(target, source, np.ascontiguousarray(changed), down, across)
