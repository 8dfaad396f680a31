"""Light: exposure."""

from __future__ import annotations

from typing import Any

import numpy as np
from numba import carray

from ..mix import Step
from ..parallel import row_step


@row_step
def _times(row: Any, width: int, numbers: Any) -> None:
    values, factor = carray(row, 3 * width), np.float32(carray(numbers, 1)[0])
    for x in range(3 * width):
        values[x] *= factor


def steps(exposure: float = 0.0) -> list[Step]:
    """Light as steps of a chain; none when nothing is to be changed.

    Parameters
    ----------
    exposure : stops: linear light is multiplied by two to this power, as opening the lens would.
    """
    return [Step(_times.address, (2.0**exposure,))] if exposure else []
