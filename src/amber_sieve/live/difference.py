"""Find what a click has changed of the mask: two previews compared."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from .preview import Rendered


@dataclass(frozen=True)
class Difference:
    """The change of a mask between two previews: added above 0, removed below, (H, W), at the scale
    and place of the later one.
    """

    change: np.ndarray
    scale: float
    origin: tuple[float, float]


def difference_of(before: Rendered, after: Rendered) -> Difference | None:
    """Return how the mask of the later preview differs; None when they do not show the same
    place.
    """
    same = (before.scale, before.origin, before.mask.shape) == (
        after.scale,
        after.origin,
        after.mask.shape,
    )
    if not same or before.whole.key != after.whole.key:
        return None
    return Difference(after.mask - before.mask, after.scale, after.origin)
