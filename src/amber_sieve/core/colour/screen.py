"""Light as the pixels that a screen takes."""

from __future__ import annotations

import numpy as np

from ..changed import next_stretch
from ..parallel import index_in, kernel, prange, serial_kernel
from .gamut import lower_row
from .transfer import BYTES, ONE, STEPS


@serial_kernel
def _encode_row(r: np.ndarray, g: np.ndarray, b: np.ndarray, table: np.ndarray, row: np.ndarray) -> None:
    zero, steps, half, width = np.float32(0), np.float32(STEPS), np.float32(0.5), row.size
    places = np.empty((3, width), np.int32)
    red, green, blue = places[0], places[1], places[2]
    # The places are worked out first: that loop vectorises, looking up does not.
    for x in range(width):
        red[x] = np.int32(np.sqrt(min(max(r[x], zero), ONE)) * steps + half)
        green[x] = np.int32(np.sqrt(min(max(g[x], zero), ONE)) * steps + half)
        blue[x] = np.int32(np.sqrt(min(max(b[x], zero), ONE)) * steps + half)
    for x in range(width):
        high = np.uint32(table[index_in(red[x], STEPS)]) << np.uint32(16)
        row[x] = (
            np.uint32(0xFF000000)
            | high
            | (np.uint32(table[index_in(green[x], STEPS)]) << np.uint32(8))
            | np.uint32(table[index_in(blue[x], STEPS)])
        )


@kernel
def _to_screen(planes: np.ndarray, top: int, left: int, lowers: bool, table: np.ndarray, out: np.ndarray) -> None:
    """As many rows and columns as ``out`` has, from ``top`` and ``left`` of the planes on."""
    width = out.shape[1]
    for y in prange(out.shape[0]):
        held = top + y
        r, g, b = planes[0, held, left : left + width], planes[1, held, left : left + width], planes[2, held, left : left + width]
        if lowers:
            lowered = np.empty((3, width), np.float32)
            lower_row(r, g, b, lowered[0], lowered[1], lowered[2])
            _encode_row(lowered[0], lowered[1], lowered[2], table, out[y])
        else:
            _encode_row(r, g, b, table, out[y])


@kernel
def _runs_to_screen(planes: np.ndarray, runs: np.ndarray, lowers: bool, table: np.ndarray, out: np.ndarray) -> None:
    for y in prange(out.shape[0]):
        stop = 0
        while stop < out.shape[1]:
            start, stop = next_stretch(runs[y], stop, out.shape[1])
            r, g, b = planes[0, y, start:stop], planes[1, y, start:stop], planes[2, y, start:stop]
            if lowers:
                lowered = np.empty((3, stop - start), np.float32)
                lower_row(r, g, b, lowered[0], lowered[1], lowered[2])
                _encode_row(lowered[0], lowered[1], lowered[2], table, out[y, start:stop])
            else:
                _encode_row(r, g, b, table, out[y, start:stop])


def runs_to_screen(planes: np.ndarray, runs: np.ndarray, pixels: np.ndarray, lowers: bool = False) -> None:
    """Write what lies in some runs (H, R), see `changed`, over pixels (H, W) of which the rest stands already; else as `to_screen`."""
    _runs_to_screen(planes, runs, lowers, BYTES, pixels)


def to_screen(planes: np.ndarray, lowers: bool = False, box: tuple[slice, slice] | None = None) -> np.ndarray:
    """Linear light (3, H, W), clipped, as the 0xFFRRGGBB pixels (H, W) uint32 that a screen takes.

    ``lowers``: chroma is lowered first where a colour does not fit (`gamut.lower_chroma`). ``box``: of these rows and columns only.
    """
    rows, columns = box or (slice(None), slice(None))
    (top, bottom, _), (left, right, _) = rows.indices(planes.shape[1]), columns.indices(planes.shape[2])
    out = np.empty((bottom - top, right - left), np.uint32)
    _to_screen(planes, top, left, lowers, BYTES, out)
    return out
