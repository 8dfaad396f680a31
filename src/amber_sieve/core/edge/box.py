"""The part of a picture in which a mask has anything: most masks are small, and nothing need be worked outside it."""

from __future__ import annotations

import numpy as np


def box_of(mask: np.ndarray, least: float, room: float) -> tuple[slice, slice] | None:
    """Rows and columns that hold every pixel of a mask (H, W) of at least ``least``, with ``room`` pixels round them; None for none."""
    inside = mask >= least
    rows, columns = np.flatnonzero(inside.any(axis=1)), np.flatnonzero(inside.any(axis=0))
    if not rows.size:
        return None
    wide = int(np.ceil(room)) + 2
    return slice(max(0, int(rows[0]) - wide), int(rows[-1]) + wide + 1), slice(max(0, int(columns[0]) - wide), int(columns[-1]) + wide + 1)
