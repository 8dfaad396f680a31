"""Levels and curves, on sRGB-coded values; the curves are monotone cubics.

F. N. Fritsch, J. Butland, "A method for constructing local monotone piecewise cubic interpolants"
(1984), as SciPy has it.
"""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

import numpy as np

from ..colour.measures import WEIGHT_B, WEIGHT_G, WEIGHT_R
from ..colour.transfer import decode, one_encoded
from ..jit.parallel import carray, inner, row_step
from .chain import Step, bounded

#: Entries of a table over 0 to 1; it is indexed by the square root of light, in which sRGB is
#: nearly straight.
ENTRIES = 512
#: Most that a curve of luminance multiplies light by; what is lifted more, black above all, gets
#: grey instead.
MOST = 16.0

Points = Sequence[tuple[float, float]]


def curve_through(points: Points, at: np.ndarray) -> np.ndarray:
    """The monotone cubic through some points, and through (0, 0) and (1, 1) where nothing else is
    said of the ends.

    Parameters
    ----------
    points : places and values, 0 to 1, the places rising.
    at : (N,) places.
    """
    from scipy.interpolate import PchipInterpolator  # a slow import, needed here alone

    rows = [
        *([] if points and points[0][0] <= 0 else [(0.0, 0.0)]),
        *points,
        *([] if points and points[-1][0] >= 1 else [(1.0, 1.0)]),
    ]
    places, values = np.array(rows, np.float64).T
    out: np.ndarray = PchipInterpolator(places, values)(at)
    return out


def levelled(
    at: np.ndarray,
    in_black: float = 0.0,
    in_white: float = 255.0,
    middle: float = 1.0,
    out_black: float = 0.0,
    out_white: float = 255.0,
) -> np.ndarray:
    """Coded values (N,), 0 to 1, with levels from in_black to in_white spread from out_black to
    out_white, bent by a gamma ``middle``.
    """
    share = np.clip((at * 255 - in_black) / max(in_white - in_black, 1.0), 0, 1) ** (1 / middle)
    out: np.ndarray = (out_black + share * (out_white - out_black)) / 255
    return out


@inner
def _looked_up(
    values: np.ndarray,
    table: np.ndarray,
    places: np.ndarray,
    entries: np.ndarray,
    found: np.ndarray,
) -> None:
    """Light through a table, in place. Looking up does not vectorise, so nothing else is done
    meanwhile: an entry and how far it is to the next are fetched as one, and what comes before and
    after has loops of its own.
    """
    zero, one, last, top = np.float32(0), np.float32(1), np.int32(ENTRIES), table[ENTRIES, 0]
    for x in range(values.size):
        value = values[x]
        place = np.sqrt(min(max(value, zero), one)) * np.float32(ENTRIES)
        entries[x] = min(max(np.int32(place), np.int32(0)), last)
        places[x] = place - np.float32(entries[x])
        # Light beyond white is scaled as white is, light below nothing is moved as nothing is.
        values[x] = max(value - one, zero) * top + min(value, zero)
    pairs = table.view(np.uint64)
    for x in range(values.size):
        found[x] = pairs[np.uintp(entries[x]), 0]
    both = found.view(np.float32)
    for x in range(values.size):
        values[x] = bounded(values[x] + both[2 * x] + both[2 * x + 1] * places[x])


@row_step
def _channels(row: Any, width: int, numbers: Any) -> None:
    planes, tables = carray(row, (3, width)), carray(numbers, (3, ENTRIES + 1, 2))
    places, entries, found = (
        np.empty(width, np.float32),
        np.empty(width, np.int32),
        np.empty(width, np.uint64),
    )
    for k in range(3):
        _looked_up(planes[k], tables[k], places, entries, found)


@row_step
def _luminance(row: Any, width: int, numbers: Any) -> None:
    planes, table = carray(row, (3, width)), carray(numbers, (ENTRIES + 1, 2))
    r, g, b = planes[0], planes[1], planes[2]
    zero, most, tiny = np.float32(0), np.float32(MOST), np.float32(1e-9)
    goal, places = np.empty(width, np.float32), np.empty(width, np.float32)
    entries, found = np.empty(width, np.int32), np.empty(width, np.uint64)
    for x in range(width):
        goal[x] = max(WEIGHT_R * r[x] + WEIGHT_G * g[x] + WEIGHT_B * b[x], zero)
    _looked_up(goal, table, places, entries, found)
    for x in range(width):
        y = max(WEIGHT_R * r[x] + WEIGHT_G * g[x] + WEIGHT_B * b[x], zero)
        factor = min(goal[x] / max(y, tiny), most)
        lift = goal[x] - factor * y
        r[x] = bounded(factor * r[x] + lift)
        g[x] = bounded(factor * g[x] + lift)
        b[x] = bounded(factor * b[x] + lift)


def _table(coded: np.ndarray) -> tuple[float, ...]:
    """Light of coded values, each with how far it is to the next."""
    light = np.asarray(decode(coded), np.float64)
    return tuple(
        float(v) for v in np.stack([light, np.diff(light, append=light[-1])], axis=1).ravel()
    )


def steps(
    in_black: float = 0.0,
    in_white: float = 255.0,
    middle: float = 1.0,
    out_black: float = 0.0,
    out_white: float = 255.0,
    curve: Points = (),
    curve_red: Points = (),
    curve_green: Points = (),
    curve_blue: Points = (),
) -> list[Step]:
    """Levels and curves as steps of a chain; none when nothing is to be changed.

    Parameters
    ----------
    in_black, in_white, middle, out_black, out_white : levels of each channel, see `levelled`.
    curve : points of the curve of luminance, whose three channels are scaled alike so that hue
        stays; coded 0 to 1.
    curve_red, curve_green, curve_blue : points of the curves of the channels, which come after the
        levels.
    """
    light = (np.arange(ENTRIES + 1) / ENTRIES) ** 2
    coded = one_encoded(light)
    made = []
    levels = (in_black, in_white, middle, out_black, out_white)
    if levels != (0, 255, 1, 0, 255) or curve_red or curve_green or curve_blue:
        flat = levelled(coded, *levels) if levels != (0, 255, 1, 0, 255) else coded
        plain = _table(flat)
        curves = (curve_red, curve_green, curve_blue)
        tables = [
            _table(curve_through(points, np.clip(flat, 0, 1))) if points else plain
            for points in curves
        ]
        made.append(Step(_channels.address, (*tables[0], *tables[1], *tables[2])))
    if curve:
        made.append(Step(_luminance.address, _table(curve_through(curve, coded))))
    return made
