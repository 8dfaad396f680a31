"""A 3D lookup table over sRGB-coded values, as an adjustment."""

from __future__ import annotations

from typing import Any

import numpy as np

from ..colour.lookup import tetrahedral
from ..colour.powers import power_of
from ..colour.transfer import CODED_BREAK, LINEAR_BREAK, OFFSET, SLOPE
from ..parallel import carray, row_step
from .chain import Step, bounded

#: Of the sRGB curve (IEC 61966-2-1).
POWER = np.float32(2.4)


@row_step
def _look_up(row: Any, width: int, numbers: Any) -> None:
    planes, size = carray(row, (3, width)), np.int64(carray(numbers, 1)[0])
    table = carray(numbers, 1 + size * size * size * 3)[1:]
    zero, one = np.float32(0), np.float32(1)
    coded = np.empty((3, width), np.float32)
    for k in range(3):
        values, target = planes[k], coded[k]
        for x in range(width):
            light = min(max(values[x], zero), one)
            curved = np.float32(1.055) * power_of(max(light, LINEAR_BREAK), one / POWER) - OFFSET
            target[x] = min(curved if light > LINEAR_BREAK else SLOPE * light, one)
            values[x] -= light  # what is beyond white, or below nothing, is added again
    r, g, b = coded[0], coded[1], coded[2]
    for x in range(width):
        r[x], g[x], b[x] = tetrahedral(table, size, r[x], g[x], b[x])
    for k in range(3):
        values, target = planes[k], coded[k]
        for x in range(width):
            code = target[x]
            size_of = abs(code)
            curved = power_of((max(size_of, CODED_BREAK) + OFFSET) / np.float32(1.055), POWER)
            light = curved if size_of > CODED_BREAK else size_of / SLOPE
            values[x] = bounded(values[x] + (light if code >= zero else -light))


def steps(table: np.ndarray | None = None) -> list[Step]:
    """A table (N, N, N, 3) of coded values, indexed by red, green, blue, as a step of a chain; none without one."""
    if table is None:
        return []
    return [Step(_look_up.address, np.concatenate([[table.shape[0]], np.asarray(table, np.float32).reshape(-1)]).astype(np.float32))]
