"""Counts over a picture: histograms of the measures, the colour field, coverage, the histogram of a mask."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numba import prange

from .colour.measures import hue_saturation_luminance
from .colour.oklab import to_oklab
from .colour.transfer import to_levels
from .parallel import kernel

#: Cells of the colour field (a square, hue round its middle, saturation outwards) and the saturation at its rim, per cent.
CELLS, RIM = 160, 110.0
BINS = 256
PARTS = 8
#: Pixels counted of a large picture.
PIXELS = 1_500_000
RADIANS = np.float32(np.pi / 180)


@kernel
def _count(
    measures: np.ndarray,
    lab: np.ndarray,
    within: np.ndarray,
    hue: np.ndarray,
    saturation: np.ndarray,
    luminance: np.ndarray,
    levels: np.ndarray,
    field: np.ndarray,
    sums: np.ndarray,
) -> None:
    rows = measures.shape[1]
    half = np.float32(CELLS / 2)
    for part in prange(PARTS):
        for y in range(part * rows // PARTS, (part + 1) * rows // PARTS):
            for x in range(measures.shape[2]):
                if not within[y, x]:
                    continue
                h, s, v = measures[0, y, x], measures[1, y, x], measures[2, y, x]
                hue[part, min(max(int(h * np.float32(BINS / 360)), 0), BINS - 1)] += s > 2
                saturation[part, min(max(int(s * np.float32(BINS / 125)), 0), BINS - 1)] += 1
                luminance[part, min(max(int(v * np.float32(BINS / 100)), 0), BINS - 1)] += 1
                r = min(max(s, np.float32(0)), np.float32(RIM - 0.1)) * np.float32(1 / RIM) * half
                column = int(half + r * np.cos(h * RADIANS))
                row = int(half - r * np.sin(h * RADIANS))
                field[part, row, column] += 1
                for k in range(3):
                    levels[part, k, min(max(int(measures[3 + k, y, x] + np.float32(0.5)), 0), BINS - 1)] += 1
                    sums[part, k, row, column] += lab[k, y, x]


@dataclass(frozen=True)
class Statistics:
    """What is counted over a picture.

    Attributes
    ----------
    hue, saturation, luminance : (256,) counts over 0-360 degrees, 0-125 per cent, 0-100 L*; greys have no hue.
    field : (CELLS, CELLS) counts, hue counter-clockwise from the right, saturation ``RIM`` at the rim.
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
    """Count over a picture, (3, H, W) linear light; over every n-th pixel of every n-th row of a large one (about ``PIXELS``).

    ``within`` (H, W) bool leaves out the pixels where it is False.
    """
    every = max(1, round(np.sqrt(planes.shape[1] * planes.shape[2] / PIXELS)))
    seen = np.ascontiguousarray(planes[:, ::every, ::every])
    lab = to_oklab(seen)
    counts_here = np.ones(seen.shape[1:], bool) if within is None else np.ascontiguousarray(within[::every, ::every])
    measures = np.concatenate([hue_saturation_luminance(seen, lab), to_levels(seen)])
    hue, saturation, luminance = (np.zeros((PARTS, BINS), np.int64) for _ in range(3))
    levels = np.zeros((PARTS, 3, BINS), np.int64)
    field, sums = np.zeros((PARTS, CELLS, CELLS), np.int64), np.zeros((PARTS, 3, CELLS, CELLS), np.float32)
    _count(measures, lab, counts_here, hue, saturation, luminance, levels, field, sums)
    counts = field.sum(0)
    colours = sums.sum(0) / np.maximum(counts, 1).astype(np.float32)
    return Statistics(hue.sum(0), saturation.sum(0), luminance.sum(0), counts, colours, levels.sum(0))


@kernel
def _cover(mask: np.ndarray, histogram: np.ndarray, sums: np.ndarray) -> None:
    rows = mask.shape[0]
    for part in prange(PARTS):
        total, partial = 0.0, 0
        for y in range(part * rows // PARTS, (part + 1) * rows // PARTS):
            row = mask[y]
            for x in range(mask.shape[1]):
                value = row[x]
                total += value
                partial += (value > np.float32(0.002)) & (value < np.float32(0.998))
                histogram[part, np.uintp(np.int32(min(max(value, np.float32(0)), np.float32(1)) * np.float32(63.99)))] += 1
        sums[part, 0], sums[part, 1] = total, partial


@dataclass(frozen=True)
class Coverage:
    """How much of the picture a mask holds, 0 to 1: on the whole, and by pixels that are only partly in."""

    whole: float
    partial: float
    histogram: np.ndarray


def coverage_of(mask: np.ndarray) -> Coverage:
    """Coverage and the (64,) histogram of a mask (H, W)."""
    histogram, sums = np.zeros((PARTS, 64), np.int64), np.zeros((PARTS, 2))
    _cover(mask, histogram, sums)
    whole, partial = sums.sum(0) / max(mask.size, 1)
    return Coverage(float(whole), float(partial), histogram.sum(0))
