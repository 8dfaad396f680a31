"""Follow the piece at a place as the tolerance grows: one flood from the place out tells it for all
tolerances.
"""

from __future__ import annotations

import numpy as np

from ..jit.parallel import inner, serial_kernel

#: Level of a pixel that belongs to the piece at no tolerance.
NEVER = np.uint8(255)


@inner
def _wait(
    y: int,
    x: int,
    least: int,
    distance: np.ndarray,
    tolerances: np.ndarray,
    levels: np.ndarray,
    firsts: np.ndarray,
    following: np.ndarray,
) -> None:
    """Put a pixel into the list of the first level, from ``least`` on, whose tolerance reaches it;
    into none where none does.
    """
    level = least
    while level < tolerances.size and distance[y, x] > tolerances[level]:
        level += 1
    if level < tolerances.size:
        at = y * distance.shape[1] + x
        levels[y, x], following[at], firsts[level] = level, firsts[level], at


@serial_kernel
def _flood(
    distance: np.ndarray,
    domain: np.ndarray,
    rows: tuple[int, int],
    columns: tuple[int, int],
    tolerances: np.ndarray,
    levels: np.ndarray,
) -> None:
    """Pixels wait in a list for each level. One is reached first by the way whose largest distance
    is least: the levels are gone through in order, and what lies behind a pixel of a level is of no
    lower one.
    """
    height, width = distance.shape
    firsts, following = np.full(tolerances.size, -1, np.int64), np.empty(height * width, np.int32)
    for y in range(rows[0], rows[1]):
        for x in range(columns[0], columns[1]):
            if domain[y, x]:
                _wait(y, x, 0, distance, tolerances, levels, firsts, following)
    for here in range(tolerances.size):
        while firsts[here] >= 0:
            at = firsts[here]
            firsts[here] = following[at]
            for side in range(4):
                y, x = (
                    at // width + (side == 0) - (side == 1),
                    at % width + (side == 2) - (side == 3),
                )
                if 0 <= y < height and 0 <= x < width and levels[y, x] == NEVER and domain[y, x]:
                    _wait(y, x, here, distance, tolerances, levels, firsts, following)


def flood_thresholds(
    distance: np.ndarray, domain: np.ndarray, rows: range, columns: range, tolerances: np.ndarray
) -> np.ndarray:
    """From which of some tolerances on each pixel belongs to the pieces (4-neighbours) that reach
    into a window, (H, W) uint8; `NEVER` where none is large enough.

    Parameters
    ----------
    distance : (H, W) float32; domain : (H, W) bool, where pieces may lie.
    rows, columns : the window, which may lie beyond the picture.
    tolerances : (N,) rising, at most 254 of them: a piece holds distances up to its tolerance.

    Example
    -------
    >>> distances, everywhere = np.float32([[0, 2, 1, 9]]), np.ones((1, 4), bool)
    >>> flood_thresholds(distances, everywhere, range(1), range(1), np.array([1.0, 2.0])).tolist()
    [[0, 1, 1, 255]]
    """
    height, width = distance.shape
    levels = np.full((height, width), NEVER, np.uint8)
    inside = [
        (max(0, span.start), min(size, span.stop))
        for span, size in ((rows, height), (columns, width))
    ]
    _flood(distance, domain, inside[0], inside[1], np.asarray(tolerances, np.float64), levels)
    return levels
