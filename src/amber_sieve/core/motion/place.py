"""Find a place of one frame on another frame of the same clip.

A small patch round the place is looked for by normalised cross-correlation (J. P. Lewis, "Fast
normalized cross-correlation", 1995, through OpenCV), which light that grows or fades over the whole
patch does not disturb.
"""

from __future__ import annotations

from dataclasses import dataclass

import cv2
import numpy as np

#: Half the side of a patch, pixels of the frames given.
HALF = 20
#: How far it is looked for on the next frame, pixels.
NEAR = 24
#: How much farther with every further frame, pixels.
A_FRAME = 3
#: Below this correlation the place is lost.
SURE = 0.75
#: What a place at the far end of the search loses against one that has not moved, in correlation.
FARNESS = 0.15
#: Standard deviation of the blur that takes the noise away, pixels.
CALM = 1.5
#: A patch whose levels vary less than this has nothing to be known by, and is taken to stay where
#: it is.
FLAT = 0.015


@dataclass(frozen=True)
class Patch:
    """The surroundings that a place is known by: its surroundings (h, w, 3) float32, and the place
    in them.
    """

    levels: np.ndarray
    x: float
    y: float


def _levels(planes: np.ndarray) -> np.ndarray:
    """Red, green and blue (H, W, 3) in which equal steps look about equal, without their noise."""
    levels = np.moveaxis(np.sqrt(np.clip(planes, 0, 4)), 0, -1)
    return cv2.GaussianBlur(np.ascontiguousarray(levels), (0, 0), CALM)


def patch_at(planes: np.ndarray, x: float, y: float) -> Patch:
    """The patch round a place of a frame (3, H, W) linear light; smaller at the border, and nothing
    where the place lies beside the frame.
    """
    if not (0 <= x < planes.shape[2] and 0 <= y < planes.shape[1]):
        return Patch(np.zeros((0, 0, 3), np.float32), 0.0, 0.0)
    left, top = max(0, int(x) - HALF), max(0, int(y) - HALF)
    return Patch(
        _levels(planes[:, top : int(y) + HALF + 1, left : int(x) + HALF + 1]), x - left, y - top
    )


def followed(
    patch: Patch, planes: np.ndarray, x: float, y: float, frames: int
) -> tuple[float, float] | None:
    """Return where the place lies on another frame.

    Parameters
    ----------
    planes : (3, H, W) the other frame; x, y : where the place was; frames : how many frames lie
        between.

    Returns
    -------
    x, y in pixels, or None when the place is lost.
    """
    if patch.levels.size == 0 or patch.levels.std(axis=(0, 1)).max() < FLAT:
        return x, y
    reach = NEAR + A_FRAME * frames
    height, width = patch.levels.shape[:2]
    left, top = max(0, int(x - patch.x) - reach), max(0, int(y - patch.y) - reach)
    right, bottom = int(x - patch.x) + width + reach, int(y - patch.y) + height + reach
    there = planes[:, top : max(bottom, 0), left : max(right, 0)]
    if there.shape[1] < height or there.shape[2] < width:
        return None
    seen = _levels(there)
    score = np.nan_to_num(cv2.matchTemplate(seen, patch.levels, cv2.TM_CCOEFF_NORMED), nan=-1.0)
    down, across = np.ogrid[0 : score.shape[0], 0 : score.shape[1]]
    # Along an edge, and in what repeats, many places look alike: the nearer one is meant.
    away = ((left + across + patch.x - x) ** 2 + (top + down + patch.y - y) ** 2) / (2.0 * reach**2)
    row, column = np.unravel_index(
        int((score - FARNESS * np.minimum(away, 1)).argmax()), score.shape
    )
    return (
        (left + float(column) + patch.x, top + float(row) + patch.y)
        if score[row, column] >= SURE
        else None
    )
