"""Masks that are steady over time: a mask is the mean of its own and those of the frames around,
brought here along the motion.

A neighbour counts where what it shows there looks as it does here.
"""

from __future__ import annotations

from collections.abc import Iterable

import cv2
import numpy as np

from ..motion.movement import flow_between

#: Difference of levels (0 to 255, blurred) at which a neighbour counts for e⁻¹.
ALIKE = 12.0
#: Standard deviation of that blur, pixels.
CALM = 2.0


def temporal_average(
    levels: np.ndarray,
    mask: np.ndarray,
    others: Iterable[tuple[np.ndarray, np.ndarray]],
    strength: float,
) -> np.ndarray:
    """A mask temporal_average by those of the frames around: what noise has added to one or taken
    from it averages out.

    Parameters
    ----------
    levels : (H, W) uint8 of the frame, as of `core.motion.movement.to_grey8`; mask : (H, W)
        float32.
    others : levels and mask of each neighbour.
    strength : 0 (as it is) to 1 (each neighbour weighs as much as the frame itself, where it looks
        alike).
    """
    total, weights = mask.copy(), np.ones(mask.shape, np.float32)
    rows, columns = np.mgrid[0 : mask.shape[0], 0 : mask.shape[1]].astype(np.float32)
    here = cv2.GaussianBlur(levels, (0, 0), CALM).astype(np.float32)
    for seen, other in others:
        flow = flow_between(levels, seen)
        across, down = columns + flow[..., 0], rows + flow[..., 1]
        there = cv2.remap(
            cv2.GaussianBlur(seen, (0, 0), CALM),
            across,
            down,
            cv2.INTER_LINEAR,
            borderMode=cv2.BORDER_REPLICATE,
        )
        alike = np.exp(-(((there - here) / ALIKE) ** 2)) * np.float32(strength)
        total += alike * cv2.remap(
            other, across, down, cv2.INTER_LINEAR, borderMode=cv2.BORDER_REPLICATE
        )
        weights += alike
    total /= weights
    return total
