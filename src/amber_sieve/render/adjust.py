"""What one sieve does to the picture that reaches it."""

from __future__ import annotations

import numpy as np

from ..core.adjust.recolour import recolour
from ..core.edge.follow import surface_colours
from ..project.model import Adjust, Sieve
from .mask import Masked


def _applied(planes: np.ndarray, weights: np.ndarray, adjust: Adjust) -> np.ndarray:
    """The adjustments, mixed in by ``weights``."""
    return recolour(planes, weights, adjust.hue, adjust.saturation, adjust.lightness)


def weights_of(mask: np.ndarray, sieve: Sieve) -> np.ndarray:
    """How much of the adjustment every pixel gets: the mask, the outside level, the strength."""
    if sieve.outside == 0 and sieve.strength == 100:
        return mask
    outside, strength = np.float32(sieve.outside / 100), np.float32(sieve.strength / 100)
    return (outside + (1 - outside) * mask) * strength


def adjusted(planes: np.ndarray, masked: Masked, sieve: Sieve) -> np.ndarray:
    """The picture after this sieve; ``planes`` itself when the sieve changes nothing.

    Where the outline was unmixed, the surface's own colour is adjusted and mixed anew, so that no haze of the old colour stays.
    """
    if sieve.adjust.neutral or sieve.strength == 0:
        return planes
    weights = weights_of(masked.mask, sieve)
    out = _applied(planes, weights, sieve.adjust)
    if masked.unmixed is not None:
        rows, columns, front = surface_colours(planes, masked.unmixed)
        change = _applied(front, np.ones(front.shape[1:], np.float32), sieve.adjust) - front
        out[:, rows, columns] = planes[:, rows, columns] + weights[rows, columns] * change[:, 0]
    return out
