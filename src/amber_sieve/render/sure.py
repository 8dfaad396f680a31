"""Confident pixels of a mask: everything that is learnt inside a mask is learnt from it, for mixed
pixels and strays would tint it.
"""

from __future__ import annotations

import cv2
import numpy as np

#: What is masked less does not count.
FAINT = 0.02
#: Confident pixels reach this share of the maximum of the mask, a pixel away from all others.
SURE = 0.98
#: The sure pixels alone count, where they hold this share of the whole mask.
MOSTLY_SURE = 0.3


def sure_weights(mask: np.ndarray) -> np.ndarray:
    """Return how much each pixel of a mask (H, W) counts for what is learnt inside it, (H, W): 1
    where it is sure, or, of a mask that hardly is anywhere, as much as it is masked.
    """
    weights: np.ndarray = np.where(mask > FAINT, mask, np.float32(0))
    sure = cv2.erode((mask >= SURE * mask.max()).astype(np.uint8), np.ones((3, 3), np.uint8)) * (
        mask > FAINT
    )
    return (
        sure.astype(np.float32)
        if sure.sum() >= MOSTLY_SURE * weights.sum(dtype=np.float64) > 0
        else weights
    )
