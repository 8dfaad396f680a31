"""CDL: slope, offset, power and saturation of the ASC Color Decision List, version 1.2, on linear
light.
"""

from __future__ import annotations

from typing import Any

import numpy as np

from ..colour.powers import power_of
from ..frame import BRIGHTEST
from ..jit.parallel import carray, row_step
from .chain import Step, bounded

#: Weights of red, green and blue in the luma, which saturation keeps: ASC CDL 1.2, after
#: Rec. 709.
LUMA = (0.2126, 0.7152, 0.0722)


@row_step
def _cdl(row: Any, width: int, numbers: Any) -> None:
    planes, given = carray(row, (3, width)), carray(numbers, 10)
    zero, one, top = np.float32(0), np.float32(1), np.float32(BRIGHTEST)
    for k in range(3):
        slope, offset, power, values = (
            np.float32(given[k]),
            np.float32(given[3 + k]),
            np.float32(given[6 + k]),
            planes[k],
        )
        if power == one:
            for x in range(width):
                values[x] = bounded(values[x] * slope + offset)
        else:
            for x in range(width):
                # Light is not cut off at 1, nor below 0: there the power has nothing to work on.
                value = bounded(values[x] * slope + offset)
                values[x] = min(power_of(value, power), top) if value > zero else value
    saturation = np.float32(given[9])
    if saturation != one:
        r, g, b = planes[0], planes[1], planes[2]
        for x in range(width):
            luma = (
                np.float32(LUMA[0]) * r[x] + np.float32(LUMA[1]) * g[x] + np.float32(LUMA[2]) * b[x]
            )
            r[x] = bounded(luma + saturation * (r[x] - luma))
            g[x] = bounded(luma + saturation * (g[x] - luma))
            b[x] = bounded(luma + saturation * (b[x] - luma))


def steps(
    slope_red: float = 1.0,
    slope_green: float = 1.0,
    slope_blue: float = 1.0,
    offset_red: float = 0.0,
    offset_green: float = 0.0,
    offset_blue: float = 0.0,
    power_red: float = 1.0,
    power_green: float = 1.0,
    power_blue: float = 1.0,
    cdl_saturation: float = 1.0,
) -> list[Step]:
    """A CDL as steps of a chain; none when nothing is to be changed.

    Parameters
    ----------
    slope, offset, power : out = (in · slope + offset)^power, channel by channel; the unclamped form
        of ASC CDL 1.2.
    cdl_saturation : distance from the luma of Rec. 709, as a factor; applied last.
    """
    given = (
        slope_red,
        slope_green,
        slope_blue,
        offset_red,
        offset_green,
        offset_blue,
        power_red,
        power_green,
        power_blue,
        cdl_saturation,
    )
    return [] if given == (1, 1, 1, 0, 0, 0, 1, 1, 1, 1) else [Step(_cdl.address, given)]
