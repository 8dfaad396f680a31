"""Balance of shadows, midtones and highlights: each of them towards a hue, and lighter or darker,
in Oklab.
"""

from __future__ import annotations

from typing import Any

import numpy as np

from ..jit.parallel import carray, row_step
from .chain import Step

#: Chroma by lightness that all of a colour adds: about half of what sRGB has.
MOST_COLOUR = 0.2
#: Share by which all of a lightness scales Oklab lightness.
MOST_LIGHTNESS = 0.5
#: How far on either side of a border one range fades into the next, Oklab lightness.
SOFTNESS = 0.2
RANGES = ("shadows", "midtones", "highlights")


def shares_of(
    lightness: np.ndarray, shadows_to: float = 35.0, highlights_from: float = 70.0
) -> np.ndarray:
    """Return how much shadows, midtones and highlights each count at some Oklab lightnesses (N,),
    (3, N): they sum to 1.

    Parameters
    ----------
    shadows_to, highlights_from : Oklab lightness, per cent, where one range has faded into the next
        by half.
    """

    def risen(middle: float) -> np.ndarray:
        t = np.clip((lightness - middle / 100) / (2 * SOFTNESS) + 0.5, 0, 1)
        return t * t * (3 - 2 * t)

    high = risen(highlights_from)
    low = (1 - risen(shadows_to)) * (1 - high)
    return np.stack([low, 1 - low - high, high])


@row_step
def _balance(row: Any, width: int, numbers: Any) -> None:
    planes, given = carray(row, (3, width)), carray(numbers, 11)
    lightness, a, b = planes[0], planes[1], planes[2]
    zero, one, two, three, half = (
        np.float32(0),
        np.float32(1),
        np.float32(2),
        np.float32(3),
        np.float32(0.5),
    )
    low_at, high_at, over = np.float32(given[0]), np.float32(given[1]), np.float32(0.5 / SOFTNESS)
    low_a, low_b, low_l = np.float32(given[2]), np.float32(given[3]), np.float32(given[4])
    mid_a, mid_b, mid_l = np.float32(given[5]), np.float32(given[6]), np.float32(given[7])
    high_a, high_b, high_l = np.float32(given[8]), np.float32(given[9]), np.float32(given[10])
    for x in range(width):
        light = lightness[x]
        t = min(max((light - high_at) * over + half, zero), one)
        high = t * t * (three - two * t)
        t = min(max((light - low_at) * over + half, zero), one)
        low = (one - t * t * (three - two * t)) * (one - high)
        mid = one - low - high
        scale = one + low * low_l + mid * mid_l + high * high_l
        # A tint grows with the light it lies in: black stays black.
        a[x] = scale * (a[x] + light * (low * low_a + mid * mid_a + high * high_a))
        b[x] = scale * (b[x] + light * (low * low_b + mid * mid_b + high * high_b))
        lightness[x] = scale * light


def steps(
    shadows_hue: float = 0.0, shadows_colour: float = 0.0, shadows_lightness: float = 0.0,
    midtones_hue: float = 0.0, midtones_colour: float = 0.0, midtones_lightness: float = 0.0,
    highlights_hue: float = 0.0, highlights_colour: float = 0.0, highlights_lightness: float = 0.0,
    shadows_to: float = 35.0, highlights_from: float = 70.0,
) -> list[Step]:  # fmt: skip
    """Balance as steps of a chain; none when nothing is to be changed.

    Parameters
    ----------
    *_hue : degrees in Oklab; *_colour : per cent of the most that is added of it; *_lightness :
        -100 to 100.
    shadows_to, highlights_from : the borders of the ranges, see `shares_of`.
    """
    ranges = (
        (shadows_hue, shadows_colour, shadows_lightness),
        (midtones_hue, midtones_colour, midtones_lightness),
        (highlights_hue, highlights_colour, highlights_lightness),
    )
    if not any(colour or light for _, colour, light in ranges):
        return []
    given = [shadows_to / 100, highlights_from / 100]
    for hue, colour, light in ranges:
        size, angle = colour / 100 * MOST_COLOUR, np.radians(hue)
        given += [
            float(size * np.cos(angle)),
            float(size * np.sin(angle)),
            light / 100 * MOST_LIGHTNESS,
        ]
    return [Step(_balance.address, tuple(given), lab=True)]
