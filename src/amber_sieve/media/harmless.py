"""The one place where numbers from a file that no kernel could stand are made harmless."""

from __future__ import annotations

import numpy as np

from ..core.frame import BRIGHTEST

#: Alpha below this says nothing of the colour it was multiplied into: an 8-bit step is 60 times as
#: much.
FAINT = 1 / 65535


def divided_by_alpha(planes: np.ndarray, alpha: np.ndarray) -> None:
    """Take associated alpha out of the colours (3, H, W), in place; where there is next to none
    they stay.
    """
    np.divide(planes, alpha, out=planes, where=alpha >= FAINT)


def harmless_alpha(alpha: np.ndarray) -> np.ndarray:
    """Alpha (H, W) in 0 to 1; what is no number is nothing."""
    return np.clip(np.nan_to_num(alpha, nan=0.0, posinf=1.0, neginf=0.0), 0, 1).astype(np.float32)


def made_harmless(planes: np.ndarray) -> int:
    """Bring light (3, H, W) float32 within what kernels can stand, in place: NaN is 0, all within
    ±``BRIGHTEST``.

    Returns
    -------
    How many values were changed.
    """
    changed = 0
    for plane in planes:
        # NaN compares as False, so that one test finds it, infinity and what is too large.
        bad = ~(np.abs(plane) <= BRIGHTEST)
        count = int(np.count_nonzero(bad))
        if count:
            changed += count
            plane[bad] = np.clip(
                np.nan_to_num(plane[bad], nan=0.0, posinf=BRIGHTEST, neginf=-BRIGHTEST),
                -BRIGHTEST,
                BRIGHTEST,
            )
    return changed
