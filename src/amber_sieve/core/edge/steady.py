"""Masks that are steady over time: what is measured is the mean of a frame and its neighbours, brought here along the motion.

The motion is dense optical flow by inverse search (T. Kroeger, R. Timofte, D. Dai, L. Van Gool, "Fast optical flow using dense inverse search",
2016, through OpenCV). A neighbour counts where what it shows there looks as it does here.
"""

from __future__ import annotations

from collections.abc import Sequence

import cv2
import numpy as np

#: Flow is found on frames reduced to about so many pixels.
PIXELS = 250_000
#: Difference of levels (0 to 255, blurred) at which a neighbour counts for e⁻¹, and the blur's standard deviation in pixels.
ALIKE, CALM = 12.0, 2.0


def levels_of(planes: np.ndarray) -> np.ndarray:
    """Levels (H, W) uint8 of a frame, in which equal steps look about equal."""
    return np.rint(255 * np.sqrt(np.clip(planes.mean(axis=0), 0, 1))).astype(np.uint8)


def flow_between(one: np.ndarray, other: np.ndarray) -> np.ndarray:
    """Where each pixel of a frame lies in another one, as steps (H, W, 2)."""
    height, width = one.shape
    share = min(1.0, (PIXELS / (height * width)) ** 0.5)
    size = (max(16, round(width * share)), max(16, round(height * share)))
    small = [cv2.resize(levels, size, interpolation=cv2.INTER_AREA) for levels in (one, other)]
    found = cv2.DISOpticalFlow.create(cv2.DISOPTICAL_FLOW_PRESET_FAST).calc(small[0], small[1], None)
    return cv2.resize(found, (width, height), interpolation=cv2.INTER_LINEAR) * np.array([width / size[0], height / size[1]], np.float32)


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


def along(mask: np.ndarray, flow: np.ndarray) -> np.ndarray:
    """A mask of another frame brought to the one that ``flow`` starts from."""
    rows, columns = np.mgrid[0 : mask.shape[0], 0 : mask.shape[1]].astype(np.float32)
    return cv2.remap(mask, columns + flow[..., 0], rows + flow[..., 1], cv2.INTER_LINEAR, borderMode=cv2.BORDER_REPLICATE)
