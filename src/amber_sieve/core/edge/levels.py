"""Black point, white point and gamma of a mask."""

from __future__ import annotations

import numpy as np


def mask_levels(mask: np.ndarray, black: float, white: float, gamma: float) -> np.ndarray:
    """Stretch a mask: ``black`` becomes 0, ``white`` 1, and between them the power 1/gamma.

    Parameters
    ----------
    mask : (H, W) float32, 0 to 1; black, white : 0 to 1; with white not above black it becomes a
        step at white.
    gamma : above 1 lifts partial pixels, below 1 lowers them.

    Example
    -------
    >>> mask_levels(np.array([[0, 0.25, 0.5, 0.75, 1]], np.float32), 0.25, 0.75, 1).tolist()
    [[0.0, 0.0, 0.5, 1.0, 1.0]]
    """
    if white - black < 1e-6:
        return (mask >= white).astype(np.float32)
    out = np.clip((mask - np.float32(black)) * np.float32(1 / (white - black)), 0, 1)
    return out if gamma == 1 else np.power(out, np.float32(1 / gamma), out=out)
