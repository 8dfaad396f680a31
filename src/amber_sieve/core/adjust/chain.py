"""Steps of a chain: pointwise adjustments that run one after another over a row that stays in the
core's cache.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np

from ..colour.oklab import lab_of, rgb_of
from ..frame import BRIGHTEST
from ..jit.parallel import carray, inner, row_step

#: The same for kernels.
TOP = np.float32(BRIGHTEST)


@inner
def bounded(light: np.float32) -> np.float32:
    """Light within ±``BRIGHTEST``, which no step ever leaves.

    Steps are given such light, or Oklab of it, and are worked out so that nothing on the way
        overflows: no step can therefore make an
    infinity, nor a NaN of two of them, which compiled with ``fastmath`` nothing could find any
    more.
    """
    return min(max(light, -TOP), TOP)


@dataclass(frozen=True)
class Step:
    """One pointwise adjustment.

    Attributes
    ----------
    address : of its compiled row function (`parallel.row_step`).
    numbers : its own numbers; many of them as an array (N,) float32.
    lab : it works on Oklab in place of linear light.
    looks_back : it also looks at the picture as it came, rows 3 to 5.
    fills : it also looks at a filling and its alpha, rows 6 to 9.
    """

    address: int
    numbers: tuple[float, ...] | np.ndarray = (0.0,)
    lab: bool = False
    looks_back: bool = False
    fills: bool = False


@row_step
def _to_lab(row: Any, width: int, numbers: Any) -> None:
    planes = carray(row, (3, width))
    r, g, b = planes[0], planes[1], planes[2]
    for x in range(width):
        r[x], g[x], b[x] = lab_of(r[x], g[x], b[x])


@row_step
def _to_light(row: Any, width: int, numbers: Any) -> None:
    planes = carray(row, (3, width))
    lightness, a, b = planes[0], planes[1], planes[2]
    for x in range(width):
        red, green, blue = rgb_of(lightness[x], a[x], b[x])
        lightness[x], a[x], b[x] = bounded(red), bounded(green), bounded(blue)


def chained(steps: Sequence[Step]) -> list[Step]:
    """The steps with the ways into Oklab and back between them: those that follow each other there
    share one.
    """
    out: list[Step] = []
    inside = False
    for step in steps:
        if step.lab != inside:
            out.append(Step((_to_lab if step.lab else _to_light).address))
            inside = step.lab
        out.append(step)
    return [*out, Step(_to_light.address)] if inside else out
