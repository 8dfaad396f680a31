"""Clean source: chroma noise smoothed in what is measured, never in the picture."""

from __future__ import annotations

import cv2
import numpy as np

#: Chroma noise (standard deviation in Oklab) that one pass of the median takes care of.
NOISE_PER_PASS = 0.004
MOST = 8
#: Pixels that one pass looks at on every side: half of its 5 x 5 median.
LOOKS_PER_PASS = 2


def noise_of(plane: np.ndarray) -> float:
    """Standard deviation of the noise in a plane (H, W): J. Immerkaer, "Fast noise variance estimation" (1996)."""
    if min(plane.shape) < 3:
        return 0.0
    response = cv2.filter2D(plane, cv2.CV_32F, np.array([[1, -2, 1], [-2, 4, -2], [1, -2, 1]], np.float32))[1:-1, 1:-1]
    return float(np.abs(response).mean() * np.sqrt(np.pi / 2) / 6)


def fitting_amount(lab: np.ndarray) -> int:
    """How many passes the measured chroma noise of a picture (3, H, W) Oklab asks for, 0 to 8."""
    noise = max(noise_of(lab[1]), noise_of(lab[2]))
    return int(np.clip(np.ceil(noise / NOISE_PER_PASS - 0.5), 0, MOST))


def cleaned(lab: np.ndarray, passes: int) -> np.ndarray:
    """Oklab with a and b smoothed by ``passes`` of a 5 x 5 median, which keeps edges; L is untouched."""
    out = lab.copy()
    for _ in range(passes):
        for k in (1, 2):
            out[k] = cv2.medianBlur(out[k], 5)
    return out
