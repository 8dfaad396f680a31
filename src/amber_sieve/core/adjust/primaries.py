"""Light in other primaries, and back: what works channel by channel depends on what the channels
are.
"""

from __future__ import annotations

from typing import Any

import numpy as np

from ..jit.parallel import carray, row_step
from .chain import Step, bounded


@row_step
def _turn(row: Any, width: int, numbers: Any) -> None:
    planes, m = carray(row, (3, width)), carray(numbers, (3, 3))
    r, g, b = planes[0], planes[1], planes[2]
    for x in range(width):
        red = m[0, 0] * r[x] + m[0, 1] * g[x] + m[0, 2] * b[x]
        green = m[1, 0] * r[x] + m[1, 1] * g[x] + m[1, 2] * b[x]
        blue = m[2, 0] * r[x] + m[2, 1] * g[x] + m[2, 2] * b[x]
        r[x], g[x], b[x] = bounded(red), bounded(green), bounded(blue)


def within(steps: list[Step], to_rec_709: tuple[float, ...]) -> list[Step]:
    """Steps that work in other primaries: the nine numbers are the matrix from them to Rec. 709,
    row by row.
    """
    if not steps:
        return steps
    back = np.array(to_rec_709, np.float64).reshape(3, 3)
    return [
        Step(_turn.address, tuple(np.linalg.inv(back).ravel().tolist())),
        *steps,
        Step(_turn.address, tuple(back.ravel().tolist())),
    ]
