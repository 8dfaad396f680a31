"""Curves over hue: turn, saturation and lightness of one hue among others, in Oklab. The curves
close: 360 degrees is 0.
"""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

import numpy as np

from ..jit.parallel import carray, row_step, weighed_corners
from .chain import Step

#: Entries of a table over the circle of hues.
ENTRIES = 512
#: Chroma by lightness from which on a hue is sure; greys have none and stay.
SURE = 0.04
Points = Sequence[tuple[float, float]]


def closed_curve(points: Points, at: np.ndarray) -> np.ndarray:
    """The closed monotone cubic through some points over hue; 0 everywhere with none.

    Parameters
    ----------
    points : hues (0 to 360, rising) and values.
    at : (N,) degrees.
    """
    from scipy.interpolate import PchipInterpolator  # a slow import, needed here alone

    if not points:
        return np.zeros(len(at))
    turns = [(hue + turn, value) for turn in (-720, -360, 0, 360, 720) for hue, value in points]
    hues, values = np.array(turns, np.float64).T
    out: np.ndarray = PchipInterpolator(hues, values)(at)
    return out


def _hue_of(turn: np.ndarray) -> np.ndarray:
    """Degrees of a turn along the square |a| + |b| = 1, 4 for all of it: it grows as hue does, and
    costs one division.
    """
    corner = np.mod(turn, 4)
    a = np.where(corner <= 2, 1 - corner, corner - 3)
    b = np.where(corner <= 1, corner, np.where(corner <= 3, 2 - corner, corner - 4))
    return np.degrees(np.arctan2(b, a)) % 360


@row_step
def _hues(row: Any, width: int, numbers: Any) -> None:
    planes, table = carray(row, (3, width)), carray(numbers, 4 * (ENTRIES + 2))
    lightness, a, b = planes[0], planes[1], planes[2]
    zero, one, two, tiny = np.float32(0), np.float32(1), np.float32(2), np.float32(1e-6)
    per_turn, over, four = np.float32(ENTRIES / 4), np.float32(1 / SURE**2), np.float32(4)
    found, entries = np.empty((3, width), np.float32), np.empty(width, np.int32)
    cos, sin, lift = found[0], found[1], found[2]
    # The places are worked out first: that loop vectorises, looking up does not.
    for x in range(width):
        across = b[x] / max(abs(a[x]) + abs(b[x]), tiny)
        turn = across if a[x] >= zero else two - across
        place = (turn if turn >= zero else turn + four) * per_turn
        index = min(max(np.int32(place), np.int32(0)), np.int32(ENTRIES))
        cos[x] = place - np.float32(index)
        entries[x] = np.int32(4) * index
    for x in range(width):
        part, begin = cos[x], np.uintp(entries[x])
        end = begin + np.uintp(4)
        cos[x], sin[x], lift[x] = weighed_corners(
            table, begin, end, end, end, one - part, part, zero, zero
        )
    for x in range(width):
        green_red, blue_yellow = a[x], b[x]
        light = max(lightness[x] * lightness[x], tiny)
        t = min((green_red * green_red + blue_yellow * blue_yellow) / light * over, one)
        sure = t * (two - t)
        scale = max(one + sure * lift[x], zero)
        along, across = (one + sure * (cos[x] - one)) * scale, sure * sin[x] * scale
        a[x] = green_red * along - blue_yellow * across
        b[x] = green_red * across + blue_yellow * along
        lightness[x] *= scale


def steps(
    turn_by_hue: Points = (), saturation_by_hue: Points = (), lightness_by_hue: Points = ()
) -> list[Step]:
    """Curves over hue as steps of a chain; none when nothing is to be changed.

    Parameters
    ----------
    turn_by_hue : hues and the degrees that they are turned by.
    saturation_by_hue : hues and -100 (grey) to 100 (twice the chroma).
    lightness_by_hue : hues and -100 (black) to 100; Oklab lightness is scaled by up to a half above
        1, with its chroma.
    """
    if not any(
        value
        for points in (turn_by_hue, saturation_by_hue, lightness_by_hue)
        for _, value in points
    ):
        return []
    at = _hue_of(np.arange(ENTRIES + 2) * 4 / ENTRIES)
    turn = np.radians(closed_curve(turn_by_hue, at))
    chroma = np.maximum(1 + closed_curve(saturation_by_hue, at) / 100, 0)
    lift = closed_curve(lightness_by_hue, at) / 100
    lift = np.where(lift > 0, lift / 2, lift)
    table = np.stack(
        [chroma * np.cos(turn), chroma * np.sin(turn), lift, np.zeros_like(lift)], axis=1
    )
    return [Step(_hues.address, tuple(float(v) for v in table.ravel()), lab=True)]
