"""The shapes by which a mask fades from full to nothing.

A shape maps 1 (at the tolerance) to 1 and 0 (where the falloff ends) to 0 and never rises on the
way out.
"""

from __future__ import annotations

from collections.abc import Callable

import numpy as np

from ..names import Shape

#: Points of a shape table; kernels interpolate between them.
POINTS = 257
#: Slope of a falloff that is none: the steepest whose products stay in float32.
STEEPEST = 1e12
#: Every shape over steps from 0 to 1, with the bend, -1 to 1.
FORMULAS: dict[Shape, Callable[[np.ndarray, float], np.ndarray]] = {
    "linear": lambda t, bend: t,
    "smooth": lambda t, bend: t * t * (3 - 2 * t),
    "steep": lambda t, bend: t**2.5,
    "gentle": lambda t, bend: 1 - (1 - t) ** 2.5,
    "hard": lambda t, bend: np.where(t < 1, 0.0, 1.0),
    "bend": lambda t, bend: t ** (6.0**-bend),
}


def shape_table(shape: Shape, bend: float = 0.0) -> np.ndarray:
    """A falloff shape at ``POINTS`` even steps from 0 to 1, float32.

    Parameters
    ----------
    shape : linear; smooth (level at both ends); steep (drops at once, then trails); gentle (holds
        on, then drops); hard (nothing partial); bend (free, by ``bend``).
    bend : -1 (steepest) to 1 (gentlest), 0 is linear; only used by the shape "bend".

    Example
    -------
    >>> shape_table("smooth", 0)[[0, 128, -1]].tolist()
    [0.0, 0.5, 1.0]
    """
    if shape not in FORMULAS:
        raise ValueError(
            f"there is no falloff shape called {shape!r}; there are {', '.join(FORMULAS)}"
        )
    values: np.ndarray = FORMULAS[shape](np.linspace(0, 1, POINTS), float(np.clip(bend, -1, 1)))
    return values.astype(np.float32)
