"""Counts over a picture: histograms of the measures, the colour field, coverage, the histogram of a
mask.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from .changed import RUN
from .colour.measures import (
    HUE_STEPS,
    STEPS_PER_DEGREE,
    WEIGHT_B,
    WEIGHT_G,
    WEIGHT_R,
    lightness_of,
    one_over_reachable,
)
from .colour.oklab import lab_of
from .colour.roots import hue_degrees
from .colour.transfer import BYTES, STEPS
from .jit.parallel import index_in, kernel, prange

#: Cells on a side of the colour field: a square, hue round its middle, saturation outwards.
CELLS = 160
#: Saturation at its rim, per cent.
RIM = 110.0
#: Bins of a histogram: one for each 8-bit level.
BINS = 256
#: Parts that are counted side by side and then added.
PARTS = 8
#: Pixels counted of a large picture: a field of 25,600 cells is filled by far fewer.
COUNTED_ON = 300_000


@kernel
def _count(
    planes: np.ndarray,
    every: int,
    within: np.ndarray,
    reachable: np.ndarray,
    to_level: np.ndarray,
    hue: np.ndarray,
    saturation: np.ndarray,
    luminance: np.ndarray,
    levels: np.ndarray,
    field: np.ndarray,
    sums: np.ndarray,
) -> None:
    rows, columns = (planes.shape[1] + every - 1) // every, (planes.shape[2] + every - 1) // every
    half, top = np.float32(CELLS / 2), np.float32(BINS - 1)
    zero, one = np.float32(0), np.float32(1)
    for part in prange(PARTS):
        for row in range(part * rows // PARTS, (part + 1) * rows // PARTS):
            y = row * every
            for column in range(columns):
                x = column * every
                if within.size > 0 and not within[y, x]:
                    continue
                r, g, b = planes[0, y, x], planes[1, y, x], planes[2, y, x]
                lightness, green_red, blue_yellow = lab_of(r, g, b)
                h = hue_degrees(green_red, blue_yellow)
                chroma = np.sqrt(green_red * green_red + blue_yellow * blue_yellow)
                s = (
                    chroma
                    / max(lightness, np.float32(1e-4))
                    * reachable[index_in(h * STEPS_PER_DEGREE + np.float32(0.5), HUE_STEPS)]
                )
                v = lightness_of(WEIGHT_R * r + WEIGHT_G * g + WEIGHT_B * b)
                hue[part, index_in(h * np.float32(BINS / 360), BINS - 1)] += s > 2
                saturation[part, index_in(min(s * np.float32(BINS / 125), top), BINS - 1)] += 1
                luminance[
                    part, index_in(min(max(v * np.float32(BINS / 100), zero), top), BINS - 1)
                ] += 1
                # Hue and saturation as a place: a and b already point that way, only their length
                # changes.
                out = (
                    min(max(s, zero), np.float32(RIM - 0.1))
                    * np.float32(1 / RIM)
                    * half
                    / max(chroma, np.float32(1e-9))
                )
                across, down = (
                    index_in(half + out * green_red, CELLS - 1),
                    index_in(half - out * blue_yellow, CELLS - 1),
                )
                field[part, down, across] += 1
                sums[part, 0, down, across] += lightness
                sums[part, 1, down, across] += green_red
                sums[part, 2, down, across] += blue_yellow
                for k in range(3):
                    light = min(max(planes[k, y, x], zero), one)
                    levels[
                        part,
                        k,
                        to_level[
                            index_in(np.sqrt(light) * np.float32(STEPS) + np.float32(0.5), STEPS)
                        ],
                    ] += 1


@dataclass(frozen=True)
class Statistics:
    """Counts over a picture.

    Attributes
    ----------
    hue, saturation, luminance : (256,) counts over 0-360 degrees, 0-125 per cent, 0-100 L*; greys
        have no hue.
    field : (CELLS, CELLS) counts, hue counter-clockwise from the right, saturation ``RIM`` at the
        rim.
    colours : (3, CELLS, CELLS) float32, mean Oklab colour of each cell.
    levels : (3, 256) counts of red, green and blue levels.
    """

    hue: np.ndarray
    saturation: np.ndarray
    luminance: np.ndarray
    field: np.ndarray
    colours: np.ndarray
    levels: np.ndarray


def statistics_of(planes: np.ndarray, within: np.ndarray | None = None) -> Statistics:
    """Count over a picture, (3, H, W) linear light; over every n-th pixel of every n-th row of a
    large one (about ``COUNTED_ON``).

    ``within`` (H, W) bool leaves out the pixels where it is False.
    """
    every = max(1, round(np.sqrt(planes.shape[1] * planes.shape[2] / COUNTED_ON)))
    hue, saturation, luminance = (np.zeros((PARTS, BINS), np.int64) for _ in range(3))
    levels = np.zeros((PARTS, 3, BINS), np.int64)
    field, sums = (
        np.zeros((PARTS, CELLS, CELLS), np.int64),
        np.zeros((PARTS, 3, CELLS, CELLS), np.float32),
    )
    bounds = np.zeros((0, 0), np.bool_) if within is None else within
    _count(
        planes,
        every,
        bounds,
        one_over_reachable(),
        BYTES,
        hue,
        saturation,
        luminance,
        levels,
        field,
        sums,
    )
    counts = field.sum(0)
    colours = sums.sum(0) / np.maximum(counts, 1).astype(np.float32)
    return Statistics(
        hue.sum(0), saturation.sum(0), luminance.sum(0), counts, colours, levels.sum(0)
    )


@kernel
def _cover(
    mask: np.ndarray,
    top: int,
    bottom: int,
    left: int,
    right: int,
    every: int,
    histogram: np.ndarray,
    sums: np.ndarray,
) -> None:
    rows = (bottom - top + every - 1) // every
    for part in prange(PARTS):
        total, nothing = 0.0, 0
        for y in range(part * rows // PARTS, (part + 1) * rows // PARTS):
            row = mask[top + every * y, left:right]
            # Most pixels are all in or all out: counting those vectorises, and only runs with
            # others are looked through for them.
            for start in range(0, row.size, RUN):
                run, some = row[start : start + RUN], 0
                for x in range(run.size):
                    value = run[x]
                    total += value
                    nothing += value <= np.float32(0)
                    some += (value > np.float32(0)) & (value < np.float32(1))
                if some > 0:
                    for x in range(run.size):
                        if run[x] > np.float32(0) and run[x] < np.float32(1):
                            histogram[part, index_in(run[x] * np.float32(63.99), 63)] += 1
                histogram[part, 63] += run.size - some
        histogram[part, 0] += nothing
        histogram[part, 63] -= nothing
        sums[part] = total


@dataclass(frozen=True)
class Coverage:
    """The share of a picture that a mask holds, 0 to 1, and the histogram of the mask."""

    whole: float
    histogram: np.ndarray


def coverage_of(
    mask: np.ndarray, within: tuple[slice, slice] = (slice(None), slice(None)), every: int = 1
) -> Coverage:
    """Coverage and the (64,) histogram of a mask (H, W), or of some of its rows and columns; of
    every ``every``-th row only.

    Example
    -------
    >>> coverage_of(np.array([[0, 0.5, 1, 1]], np.float32)).whole
    0.625
    """
    histogram, sums = np.zeros((PARTS, 64), np.int64), np.zeros(PARTS)
    (top, bottom, _), (left, right, _) = (
        one.indices(size) for one, size in zip(within, mask.shape, strict=True)
    )
    _cover(mask, top, bottom, left, right, every, histogram, sums)
    counted = max(-(-(bottom - top) // every) * (right - left), 1)
    return Coverage(float(sums.sum() / counted), histogram.sum(0))


def field_colours(lightness: float) -> np.ndarray:
    """Return the colours of one Oklab lightness that lie in the cells of the colour field, Oklab
    (3, CELLS, CELLS).
    """
    down, across = np.mgrid[0:CELLS, 0:CELLS] + 0.5 - CELLS / 2
    hue = np.degrees(np.arctan2(-down, across)) % 360
    saturation = np.hypot(down, across) / (CELLS / 2) * RIM
    chroma = (
        saturation * lightness / one_over_reachable()[(hue * STEPS_PER_DEGREE + 0.5).astype(int)]
    )
    return np.stack(
        [
            np.full_like(hue, lightness),
            chroma * np.cos(np.radians(hue)),
            chroma * np.sin(np.radians(hue)),
        ]
    ).astype(np.float32)
