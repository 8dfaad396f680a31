"""The colour field as pixels: how often each colour occurs, and the line between keep and drop
samples.
"""

from __future__ import annotations

import cv2
import numpy as np

from ..core.colour.oklab import from_oklab
from ..core.colour.screen import to_screen
from ..core.statistics import Statistics


def field_image(counted: Statistics) -> np.ndarray:
    """The density of colours in their own colours, log-scaled, (CELLS, CELLS) screen pixels."""
    density = np.log1p(counted.field.astype(np.float32))
    density /= max(float(density.max()), 1e-6)
    lab = counted.colours.copy()
    lab[0] = np.where(counted.field > 0, 0.30 + 0.55 * density, 0)
    lab[1:] *= np.where(counted.field > 0, lab[0] / np.maximum(counted.colours[0], 0.05), 0)
    planes = from_oklab(np.ascontiguousarray(lab, np.float32))
    return to_screen(np.maximum(planes, 0.016))


def line_of(divided: np.ndarray) -> np.ndarray:
    """The dividing line between keep and drop (CELLS, CELLS) as pixels with alpha: the outermost
    cells that are nearer to drop.
    """
    line = divided & (
        cv2.erode(
            divided.astype(np.uint8), np.ones((3, 3), np.uint8), borderType=cv2.BORDER_REPLICATE
        )
        == 0
    )
    return np.where(line, np.uint32(0xC0F0F0F0), np.uint32(0))
