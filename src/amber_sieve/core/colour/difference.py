"""Colour differences between single colours."""

from __future__ import annotations

import numpy as np

from .oklab import one_to_oklab


def delta_e_ok(one: np.ndarray, other: np.ndarray) -> float:
    """Euclidean distance in Oklab of two linear colours (3,); 0.02 is one just noticeable difference (CSS Color 4)."""
    return float(np.linalg.norm(one_to_oklab(one) - one_to_oklab(other)))
