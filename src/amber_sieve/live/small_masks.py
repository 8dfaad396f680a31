"""Small masks of sieves, as they are shown in the stack."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ..core.overlays import mask_to_levels


@dataclass(frozen=True)
class SmallMask:
    """The mask of a sieve in the stack: levels of grey (h, w) uint8, and how much of the picture it
    covers, 0 to 1.
    """

    pixels: np.ndarray
    coverage: float


def small_mask(mask: np.ndarray) -> SmallMask:
    """Make the small picture of a mask (h, w) for the stack, and count its coverage."""
    return SmallMask(mask_to_levels(mask), float(mask.mean()))
