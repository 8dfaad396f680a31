"""Recolour: hue, saturation and lightness turned in Oklab."""

from __future__ import annotations

from typing import Any

import numpy as np
from numba import carray

from ..colour.oklab import lab_of, rgb_of
from ..mix import Step
from ..parallel import row_step


@row_step
def _recolour(row: Any, width: int, numbers: Any) -> None:
    planes, given = carray(row, (3, width)), carray(numbers, 3)
    r, g, b = planes[0], planes[1], planes[2]
    one, zero = np.float32(1), np.float32(0)
    cos, sin, lift = np.float32(given[0]), np.float32(given[1]), np.float32(given[2])
    for x in range(width):
        light, a, b_ = lab_of(r[x], g[x], b[x])
        a, b_ = a * cos - b_ * sin, a * sin + b_ * cos
        goal = max(light, one) if lift > zero else zero
        light = light + (goal - light) * abs(lift)
        r[x], g[x], b[x] = rgb_of(light, a, b_)


def steps(hue: float = 0.0, saturation: float = 0.0, lightness: float = 0.0) -> list[Step]:
    """Recolouring as steps of a chain; none when nothing is to be changed.

    Parameters
    ----------
    hue : degrees to turn the Oklab hue by.
    saturation : -100 (grey) to 100 (twice the chroma), per cent.
    lightness : -100 (black) to 100 (white), per cent of the way there, in Oklab; chroma goes the same way to nothing,
        so darkening keeps hue and saturation as less light would.
    """
    if not (hue or saturation or lightness):
        return []
    lift = float(np.clip(lightness, -100, 100)) / 100
    chroma = max(0.0, 1 + saturation / 100) * (1 - abs(lift))
    angle = np.radians(hue)
    return [Step(_recolour.address, (float(np.cos(angle) * chroma), float(np.sin(angle) * chroma), lift))]
