"""A 3D lookup table over sRGB-coded values, as an adjustment."""

from __future__ import annotations

from typing import Any

import numpy as np

from ..colour.lookup import padded, through_table
from ..colour.powers import srgb_decoded, srgb_decoded_within, srgb_encoded_within
from ..jit.parallel import carray, row_step
from .chain import Step, bounded


@row_step
def _look_up(row: Any, width: int, numbers: Any) -> None:
    planes, size = carray(row, (3, width)), np.int64(carray(numbers, 2)[0])
    within, table = carray(numbers, 2)[1] > 0, carray(numbers, 2 + size * size * size * 4)[2:]
    zero, one = np.float32(0), np.float32(1)
    coded = np.empty((3, width), np.float32)
    for k in range(3):
        values, target = planes[k], coded[k]
        for x in range(width):
            light = min(max(values[x], zero), one)
            target[x] = srgb_encoded_within(light)
            values[x] -= light  # what is beyond white, or below nothing, is added again
    through_table(table, size, coded, np.empty((3, width), np.int32))
    for k in range(3):
        values, target = planes[k], coded[k]
        if within:
            for x in range(width):
                values[x] = bounded(values[x] + srgb_decoded_within(min(max(target[x], zero), one)))
        else:
            for x in range(width):
                values[x] = bounded(values[x] + srgb_decoded(target[x]))


def steps(table: np.ndarray | None = None) -> list[Step]:
    """A table (N, N, N, 3) of coded values, indexed by red, green, blue, as a step of a chain; none
    without one.
    """
    if table is None:
        return []
    within = table.min() >= 0 and table.max() <= 1
    return [
        Step(
            _look_up.address,
            np.concatenate([np.array([table.shape[0], within], np.float32), padded(table)]),
        )
    ]
