"""Light: exposure, black and white point, highlights and shadows, gamma, and contrast round a
pivot.
"""

from __future__ import annotations

from typing import Any

import numpy as np

from ..colour.measures import WEIGHT_B, WEIGHT_G, WEIGHT_R
from ..colour.powers import exp2_of, log2_of, power_of
from ..frame import BRIGHTEST
from ..jit.parallel import carray, row_step
from .chain import Step, bounded

#: Reflectance of a mid grey card, linear light (common practice, no source).
MID_GREY = 0.18
#: Stops from mid grey where highlights begin and are fully meant. By eye, with the rate of change
#: kept under one stop a stop, so that no setting turns light and dark round.
HIGHLIGHTS = (-0.5, 2.5)
#: Most stops that highlights are moved by, chosen with the bounds above.
MOST_HIGHLIGHTS = 1.5
#: The same of shadows: they begin half a stop above mid grey.
SHADOWS = (0.5, -3.5)
#: Most stops that shadows are moved by.
MOST_SHADOWS = 2.0
#: Most stops that light is lifted by: from the darkest light there is to the brightest.
MOST_GAIN = 40.0
#: Stops under white below which light is not lifted any more: there is nothing but noise.
DARKEST = -12.0


@row_step
def _times(row: Any, width: int, numbers: Any) -> None:
    values, factor = carray(row, 3 * width), np.float32(carray(numbers, 1)[0])
    for x in range(3 * width):
        values[x] = bounded(values[x] * factor)


@row_step
def _tone(row: Any, width: int, numbers: Any) -> None:
    """All three channels by one factor, so that hue and saturation of the light stay."""
    planes, given = carray(row, (3, width)), carray(numbers, 5)
    r, g, b = planes[0], planes[1], planes[2]
    zero, one, two, three = np.float32(0), np.float32(1), np.float32(2), np.float32(3)
    black, scale, bent = np.float32(given[0]), np.float32(given[1]), np.float32(given[4])
    bright, dark = np.float32(given[2] * MOST_HIGHLIGHTS), np.float32(given[3] * MOST_SHADOWS)
    bright_from, bright_over = (
        np.float32(HIGHLIGHTS[0]),
        np.float32(1 / (HIGHLIGHTS[1] - HIGHLIGHTS[0])),
    )
    dark_from, dark_over = np.float32(SHADOWS[0]), np.float32(1 / (SHADOWS[1] - SHADOWS[0]))
    grey, tiny, darkest, most = (
        np.float32(np.log2(MID_GREY)),
        np.float32(1e-12),
        np.float32(DARKEST),
        np.float32(MOST_GAIN),
    )
    for x in range(width):
        y = WEIGHT_R * r[x] + WEIGHT_G * g[x] + WEIGHT_B * b[x]
        factor = max(scale * (one - black / max(y, tiny)), zero)
        level = max(log2_of(max(y, zero) * factor), darkest)
        up = min(max((level - grey - bright_from) * bright_over, zero), one)
        down = min(max((level - grey - dark_from) * dark_over, zero), one)
        gain = (
            bright * up * up * (three - two * up)
            + dark * down * down * (three - two * down)
            + level * bent
        )
        factor *= exp2_of(min(gain, most))
        r[x] = bounded(r[x] * factor)
        g[x] = bounded(g[x] * factor)
        b[x] = bounded(b[x] * factor)


@row_step
def _contrast(row: Any, width: int, numbers: Any) -> None:
    values, given = carray(row, 3 * width), carray(numbers, 2)
    power, scale, top = np.float32(given[0]), np.float32(given[1]), np.float32(BRIGHTEST)
    for x in range(3 * width):
        value = values[x]
        values[x] = min(scale * power_of(value, power), top) if value > 0 else value


def steps(
    exposure: float = 0.0,
    black_point: float = 0.0,
    white_point: float = 100.0,
    highlights: float = 0.0,
    shadows: float = 0.0,
    gamma: float = 1.0,
    contrast: float = 0.0,
    pivot: float = 0.0,
) -> list[Step]:
    """Light as steps of a chain; none when nothing is to be changed.

    Parameters
    ----------
    exposure : stops: linear light is multiplied by two to this power, as opening the lens would.
    black_point, white_point : per cent of white: luminance that becomes nothing, and white.
    highlights, shadows : -100 to 100, per cent of the most that luminance above or below mid grey
        is moved by.
    gamma : luminance to the power of one by this; above 1 is lighter, black and white stay.
    contrast : per cent: equal ratios of light become equal ratios to the power 2^(contrast / 100),
        so 100 doubles and -100 halves every distance in stops from the pivot. What is not above
        nothing stays.
    pivot : stops from mid grey: light that contrast leaves as it is.
    """
    made = [Step(_times.address, (2.0**exposure,))] if exposure else []
    if highlights or shadows or black_point or white_point != 100 or gamma != 1:
        black = black_point / 100
        scale = 1 / max(white_point / 100 - black, 0.01)
        made.append(
            Step(_tone.address, (black, scale, highlights / 100, shadows / 100, 1 / gamma - 1))
        )
    if contrast:
        power, still = 2.0 ** (contrast / 100), MID_GREY * 2.0**pivot
        made.append(Step(_contrast.address, (power, still ** (1 - power))))
    return made
