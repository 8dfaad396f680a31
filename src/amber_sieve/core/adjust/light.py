"""Light: exposure, and contrast round a pivot."""

from __future__ import annotations

from typing import Any

import numpy as np
from numba import carray

from ..mix import Step
from ..parallel import row_step

#: Reflectance of a mid grey card, linear light (common practice, no source).
MID_GREY = 0.18


@row_step
def _times(row: Any, width: int, numbers: Any) -> None:
    values, factor = carray(row, 3 * width), np.float32(carray(numbers, 1)[0])
    for x in range(3 * width):
        values[x] *= factor


@row_step
def _contrast(row: Any, width: int, numbers: Any) -> None:
    values, given = carray(row, 3 * width), carray(numbers, 2)
    power, scale = np.float32(given[0]), np.float32(given[1])
    for x in range(3 * width):
        if values[x] > 0:
            values[x] = scale * values[x] ** power


def steps(exposure: float = 0.0, contrast: float = 0.0, pivot: float = 0.0) -> list[Step]:
    """Light as steps of a chain; none when nothing is to be changed.

    Parameters
    ----------
    exposure : stops: linear light is multiplied by two to this power, as opening the lens would.
    contrast : per cent: equal ratios of light become equal ratios to the power 2^(contrast / 100), so 100 doubles and -100 halves
        every distance in stops from the pivot. What is not above nothing stays.
    pivot : stops from mid grey: light that contrast leaves as it is.
    """
    made = [Step(_times.address, (2.0**exposure,))] if exposure else []
    if contrast:
        power, still = 2.0 ** (contrast / 100), MID_GREY * 2.0**pivot
        made.append(Step(_contrast.address, (power, still ** (1 - power))))
    return made
