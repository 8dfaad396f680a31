"""Masks that are steady over time: what is measured is the mean of a frame and its neighbours, brought here along the motion.

A neighbour counts where what it shows there looks as it does here.
"""

from __future__ import annotations

from collections.abc import Sequence

import cv2
import numpy as np

from ..motion import flow_between, levels_of

#: Difference of levels (0 to 255, blurred) at which a neighbour counts for e⁻¹, and the blur's standard deviation in pixels.
ALIKE, CALM = 12.0, 2.0


def steadied(planes: np.ndarray, others: Sequence[np.ndarray], strength: float) -> np.ndarray:
    """A frame steadied by its neighbours: their noise averages out, so that a mask made from it flickers less.

    Parameters
    ----------
    planes : (3, H, W) float32 linear light; others : those of the neighbours.
    strength : 0 (as it is) to 1 (each neighbour weighs as much as the frame itself, where it looks alike).
    """
    levels = levels_of(planes)
    total, weights = planes.copy(), np.ones(planes.shape[1:], np.float32)
    rows, columns = np.mgrid[0 : planes.shape[1], 0 : planes.shape[2]].astype(np.float32)
    here = cv2.GaussianBlur(levels, (0, 0), CALM).astype(np.float32)
    for other in others:
        seen = levels_of(other)
        flow = flow_between(levels, seen)
        across, down = columns + flow[..., 0], rows + flow[..., 1]
        there = cv2.remap(cv2.GaussianBlur(seen, (0, 0), CALM), across, down, cv2.INTER_LINEAR, borderMode=cv2.BORDER_REPLICATE)
        alike = np.exp(-(((there - here) / ALIKE) ** 2)) * np.float32(strength)
        for k in range(3):
            total[k] += alike * cv2.remap(other[k], across, down, cv2.INTER_LINEAR, borderMode=cv2.BORDER_REPLICATE)
        weights += alike
    total /= weights
    return total
