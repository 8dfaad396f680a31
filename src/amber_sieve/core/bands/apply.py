"""The product of some bands over a picture."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from ...names import BANDS
from ..falloff import POINTS, shape_table
from ..jit.parallel import index_in, kernel, one_thread, prange
from .interval import (
    CENTRE,
    FALL,
    FULL_FROM,
    FULL_TO,
    INVERTED,
    PLANE,
    RISE,
    WRAPS,
    Interval,
    numbers_of,
)

#: Below this saturation (per cent) a hue is noise and does not count.
GREY = 1.5
#: From this saturation (per cent) on a hue counts fully.
CHROMATIC = 5.0
LINEAR, SMOOTH, OTHER = 0, 1, 2


@kernel
def _times(
    measures: np.ndarray,
    numbers: np.ndarray,
    kinds: np.ndarray,
    tables: np.ndarray,
    out: np.ndarray,
) -> None:
    zero, one, two, three = np.float32(0), np.float32(1), np.float32(2), np.float32(3)
    turn, per_turn, last = np.float32(360), np.float32(1 / 360), np.float32(POINTS - 1)
    chroma_start, chroma_slope = np.float32(GREY), np.float32(1 / (CHROMATIC - GREY))
    width = measures.shape[2]
    for y in prange(measures.shape[1]):
        row = out[y]
        share = np.empty(width, np.float32)
        for x in range(width):
            row[x] = one
        for k in range(numbers.shape[0]):
            n = numbers[k]
            values, saturation = measures[int(n[PLANE]), y], measures[1, y]
            wraps, centre, inverted = n[WRAPS], n[CENTRE], n[INVERTED]
            full_from, rise, full_to, fall = n[FULL_FROM], n[RISE], n[FULL_TO], n[FALL]
            if wraps > zero:
                for x in range(width):
                    apart = values[x] - centre
                    apart = apart - turn * np.floor(apart * per_turn + np.float32(0.5))
                    share[x] = max(
                        min(
                            min((apart - full_from) * rise + one, (full_to - apart) * fall + one),
                            one,
                        ),
                        zero,
                    )
            else:
                for x in range(width):
                    apart = values[x]
                    share[x] = max(
                        min(
                            min((apart - full_from) * rise + one, (full_to - apart) * fall + one),
                            one,
                        ),
                        zero,
                    )
            if kinds[k] == SMOOTH:
                for x in range(width):
                    share[x] = share[x] * share[x] * (three - two * share[x])
            elif kinds[k] == OTHER:
                table = tables[k]
                for x in range(width):
                    place = share[x] * last
                    index = index_in(place, POINTS - 1)
                    below = table[index]
                    share[x] = below + (table[index + np.uintp(1)] - below) * (
                        place - np.float32(index)
                    )
            if wraps > zero:
                for x in range(width):
                    chroma = max(min((saturation[x] - chroma_start) * chroma_slope, one), zero)
                    share[x] *= chroma * chroma * (three - two * chroma)
            if inverted > zero:
                for x in range(width):
                    row[x] *= one - share[x]
            else:
                for x in range(width):
                    row[x] *= share[x]


def bands_mask(
    measures: np.ndarray, intervals: Sequence[Interval], out: np.ndarray | None = None
) -> np.ndarray:
    """The product of some bands. A hue band fades out towards grey, whose hue is noise; one that
    holds every hue does not.

    Parameters
    ----------
    measures : (3 or 6, H, W) float32: hue, saturation, luminance, and levels when a channel has a
        band.
    intervals : the bands; with none, everything counts.
    out : (H, W) float32, optional.

    Returns
    -------
    (H, W) float32 in 0 to 1.
    """
    result = np.empty(measures.shape[1:], np.float32) if out is None else out
    working = [interval for interval in intervals if not interval.full]
    if not working:
        result[...] = 1
        return result
    numbers = np.array([numbers_of(interval) for interval in working], np.float32)
    kinds = np.array(
        [{"linear": LINEAR, "smooth": SMOOTH}.get(interval.shape, OTHER) for interval in working]
    )
    tables = np.stack(
        [
            np.append(shape_table(interval.shape, interval.bend), np.float32(1))
            for interval in working
        ]
    )
    _times(measures, numbers, kinds, tables, result)
    return result


def band_curve(interval: Interval, values: np.ndarray) -> np.ndarray:
    """Return how much values (N,) of a band's measure count, at full saturation; for drawing."""
    measures = np.full((6, 1, len(values)), 100, np.float32)
    measures[BANDS.index(interval.measure), 0] = values
    if interval.measure == "saturation":
        measures[1, 0] = values
    with one_thread():
        return bands_mask(measures, [interval])[0]
