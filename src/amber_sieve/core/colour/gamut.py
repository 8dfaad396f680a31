"""Bringing colours back into the output gamut.

CSS Color 4, "Sample pseudocode for gamut mapping": chroma is lowered at constant Oklab lightness and hue until the colour
fits. Without the local clip of that text, which saves chroma at the cost of a hue shift.
"""

from __future__ import annotations

import numpy as np
from numba import prange

from ..parallel import kernel
from .oklab import lab_of, rgb_of

#: How far outside 0 to 1 still counts as inside: a quarter of a 16-bit step.
SLACK = np.float32(4e-6)
HALVINGS = 18


@kernel
def _lower_chroma(planes: np.ndarray, out: np.ndarray) -> None:
    top = np.float32(1) + SLACK
    for y in prange(planes.shape[1]):
        for x in range(planes.shape[2]):
            r, g, b = planes[0, y, x], planes[1, y, x], planes[2, y, x]
            if min(r, g, b) < -SLACK or max(r, g, b) > top:
                lightness, a, b_ = lab_of(r, g, b)
                if lightness >= 1:
                    r = g = b = np.float32(1)
                elif lightness <= 0:
                    r = g = b = np.float32(0)
                else:
                    low, high = np.float32(0), np.float32(1)
                    for _ in range(HALVINGS):
                        middle = (low + high) * np.float32(0.5)
                        r, g, b = rgb_of(lightness, a * middle, b_ * middle)
                        if min(r, g, b) < 0 or max(r, g, b) > 1:
                            high = middle
                        else:
                            low = middle
                    r, g, b = rgb_of(lightness, a * low, b_ * low)
            out[0, y, x], out[1, y, x], out[2, y, x] = r, g, b


def lower_chroma(planes: np.ndarray) -> np.ndarray:
    """Linear light (3, H, W) with every colour inside 0 to 1 (within 4e-6); what was inside is returned unchanged."""
    out = np.empty_like(planes)
    _lower_chroma(planes, out)
    return out
