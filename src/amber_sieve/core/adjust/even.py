"""Even out: perceived lightness, or hue, of the masked pixels drawn together."""

from __future__ import annotations

from typing import Any

import numpy as np

from ..colour.measures import (
    STRAIGHT_SLOPE,
    WEIGHT_B,
    WEIGHT_G,
    WEIGHT_R,
    hue_saturation_luminance,
    lightness_of,
)
from ..colour.oklab import to_oklab
from ..jit.parallel import carray, row_step
from .chain import Step, bounded
from .recolour import drawn_to_hue

#: Most that light is multiplied by; what is lifted more, black above all, gets grey instead.
MOST = 16.0


@row_step
def _even(row: Any, width: int, numbers: Any) -> None:
    """L* of CIE 1976 moved a share of the way to a goal; the three channels are scaled alike, so
    that hue stays.
    """
    planes, given = carray(row, (3, width)), carray(numbers, 2)
    r, g, b = planes[0], planes[1], planes[2]
    goal, share, most, tiny, zero = (
        np.float32(given[0]),
        np.float32(given[1]),
        np.float32(MOST),
        np.float32(1e-9),
        np.float32(0),
    )
    for x in range(width):
        y = max(WEIGHT_R * r[x] + WEIGHT_G * g[x] + WEIGHT_B * b[x], zero)
        lightness = lightness_of(y)
        lightness += share * (goal - lightness)
        f = (lightness + np.float32(16)) * np.float32(1 / 116)
        wanted = f * f * f if lightness > np.float32(8) else lightness / STRAIGHT_SLOPE
        factor = min(wanted / max(y, tiny), most)
        lift = wanted - factor * y
        r[x] = bounded(factor * r[x] + lift)
        g[x] = bounded(factor * g[x] + lift)
        b[x] = bounded(factor * b[x] + lift)


def steps(
    even_lightness: float = 0.0, even_hue: float = 0.0, mean: tuple[float, float] | None = None
) -> list[Step]:
    """Evening out as steps of a chain; none when nothing is to be changed, or while the means have
    not been found (`found_means`).

    Parameters
    ----------
    even_lightness, even_hue : per cent of the way that L* and hue are moved to their means.
    mean : the mean L* and hue (degrees) of the masked pixels.
    """
    if mean is None:
        return []
    made = [drawn_to_hue(mean[1], even_hue)] if even_hue else []
    return [*made, Step(_even.address, (mean[0], even_lightness / 100))] if even_lightness else made


def found_means(planes: np.ndarray, weights: np.ndarray) -> tuple[float, float]:
    """Mean L* of some masked pixels (3, 1, N) linear light, weights (N,), and the hue of their mean
    colour, degrees.
    """
    share = weights / weights.sum()
    lab = to_oklab(np.ascontiguousarray(planes, np.float32))
    # Light below nothing is as dark as nothing, here as in the step.
    lightness = float((np.maximum(hue_saturation_luminance(planes, lab)[2, 0], 0) * share).sum())
    a, b = ((lab[k, 0] * share).sum() for k in (1, 2))
    return lightness, float(np.degrees(np.arctan2(b, a)) % 360)
