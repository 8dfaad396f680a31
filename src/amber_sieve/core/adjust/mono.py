"""Mono: grey by channel weights, in linear light."""

from __future__ import annotations

from typing import Any

import numpy as np

from ..jit.parallel import carray, row_step
from .chain import Step, bounded


@row_step
def _mono(row: Any, width: int, numbers: Any) -> None:
    planes, given = carray(row, (3, width)), carray(numbers, 4)
    r, g, b = planes[0], planes[1], planes[2]
    amount = np.float32(given[0])
    red, green, blue = np.float32(given[1]), np.float32(given[2]), np.float32(given[3])
    for x in range(width):
        grey = red * r[x] + green * g[x] + blue * b[x]
        r[x] = bounded(r[x] + amount * (grey - r[x]))
        g[x] = bounded(g[x] + amount * (grey - g[x]))
        b[x] = bounded(b[x] + amount * (grey - b[x]))


def steps(
    mono: float = 0.0, mono_red: float = 21.0, mono_green: float = 72.0, mono_blue: float = 7.0
) -> list[Step]:
    """Mono as steps of a chain; none when nothing is to be changed.

    Parameters
    ----------
    mono : per cent of the way to grey.
    mono_red, mono_green, mono_blue : how much each channel counts, per cent; they start near the
        luminance of Rec. 709. Their sum is taken as the whole, so that a grey stays as light as it
        is; where they cancel out, they are taken as they are.
    """
    if not mono:
        return []
    whole = mono_red + mono_green + mono_blue
    whole = whole if abs(whole) > 1e-3 else 100.0
    return [
        Step(_mono.address, (mono / 100, mono_red / whole, mono_green / whole, mono_blue / whole))
    ]
