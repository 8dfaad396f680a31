"""Where a place of one frame lies on another frame of the same clip.

A small patch round the place is looked for by normalised cross-correlation (J. P. Lewis, "Fast normalized cross-correlation", 1995,
through OpenCV), which light that grows or fades over the whole patch does not disturb.
"""

from __future__ import annotations

from dataclasses import dataclass

import cv2
import numpy as np

#: Half the side of a patch, and how far it is looked for on the next frame and with every further one, in pixels of the frames given.
HALF, NEAR, A_FRAME = 12, 24, 4
#: Below this correlation the place is lost.
SURE = 0.6
#: A patch whose levels vary less than this has nothing to be known by, and is taken to stay where it is.
FLAT = 0.004


@dataclass(frozen=True)
class Patch:
    """What a place is known by: its surroundings (h, w) float32, and the place in them."""

    levels: np.ndarray
    x: float
    y: float


def _levels(planes: np.ndarray) -> np.ndarray:
    """A plane of brightness in which equal steps look about equal."""
    return np.sqrt(np.clip(planes.mean(axis=0), 0, 4)).astype(np.float32)


def patch_at(planes: np.ndarray, x: float, y: float) -> Patch:
    """The patch round a place of a frame (3, H, W) linear light; smaller at the border."""
    left, top = max(0, int(x) - HALF), max(0, int(y) - HALF)
    return Patch(_levels(planes[:, top : int(y) + HALF + 1, left : int(x) + HALF + 1]), x - left, y - top)


def followed(patch: Patch, planes: np.ndarray, x: float, y: float, frames: int) -> tuple[float, float] | None:
    """Where the place lies on another frame.

    Parameters
    ----------
    planes : (3, H, W) the other frame; x, y : where the place was; frames : how many frames lie between.

    Returns
    -------
    x, y in pixels, or None when the place is lost.
    """
    if patch.levels.size == 0 or patch.levels.std() < FLAT:
        return x, y
    reach = NEAR + A_FRAME * frames
    height, width = patch.levels.shape
    left, top = max(0, int(x - patch.x) - reach), max(0, int(y - patch.y) - reach)
    right, bottom = int(x - patch.x) + width + reach, int(y - patch.y) + height + reach
    seen = _levels(planes[:, top:bottom, left:right])
    if seen.shape[0] < height or seen.shape[1] < width:
        return None
    score = cv2.matchTemplate(seen, patch.levels, cv2.TM_CCOEFF_NORMED)
    _, best, _, (column, row) = cv2.minMaxLoc(np.nan_to_num(score, nan=-1.0))
    return (left + column + patch.x, top + row + patch.y) if best >= SURE else None
