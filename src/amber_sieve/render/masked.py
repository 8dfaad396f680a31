"""A finished mask, with what is known of its outline."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ..core.edge.box import NOTHING, around, box_of
from ..core.edge.colour_share import ColourShare
from ..core.edge.follow import EdgeMatte


@dataclass(frozen=True)
class Masked:
    """A finished mask (H, W), and the colours its outline was unmixed into and the share of them
    in the pixels along it (None without Follow or Fine).
    """

    mask: np.ndarray
    unmixed: EdgeMatte | None
    colour: ColourShare | None = None

    @property
    def box(self) -> tuple[slice, slice] | None:
        """Rows and columns outside which it changes nothing; None where it changes nothing."""
        boxes = [box_of(self.mask, NOTHING, 0), None if self.colour is None else self.colour.box]
        return around([box for box in boxes if box is not None])

    @property
    def changed_pixels(self) -> np.ndarray:
        """The pixels that it may change, as flat indices in ascending order."""
        masked = np.flatnonzero(self.mask)
        if self.colour is None:
            return masked
        pixels = self.colour.rows * self.mask.shape[1] + self.colour.columns
        return np.union1d(masked, pixels)
