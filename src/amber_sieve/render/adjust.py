"""What one sieve does to the picture that reaches it."""

from __future__ import annotations

import numpy as np

from ..core.adjust.recolour import recolour
from ..project.model import Sieve


def adjusted(planes: np.ndarray, mask: np.ndarray, sieve: Sieve, out: np.ndarray | None = None) -> np.ndarray:
    """The picture after this sieve; ``planes`` itself when the sieve changes nothing."""
    if sieve.adjust.neutral or sieve.strength == 0:
        return planes
    weights = mask if sieve.strength == 100 else mask * np.float32(sieve.strength / 100)
    return recolour(planes, weights, sieve.adjust.hue, sieve.adjust.saturation, sieve.adjust.lightness, out)
