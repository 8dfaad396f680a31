"""3D lookup tables, by tetrahedral interpolation.

J. M. Kasson, S. I. Nin, W. Plouffe, J. L. Hafner, "Performing color space conversions with
three-dimensional linear interpolation" (1995).
"""

from __future__ import annotations

import numpy as np

from ..jit.parallel import inner, kernel, prange, weighed_corners
from .powers import log2_of


def padded(table: np.ndarray) -> np.ndarray:
    """A table (N, N, N, 3) as `through_table` takes it: (N · N · N · 4,) float32, every colour with
    a number more that fills it up.
    """
    out = np.zeros((*table.shape[:3], 4), np.float32)
    out[..., :3] = table
    return out.reshape(-1)


@inner
def through_table(table: np.ndarray, size: int, row: np.ndarray, places: np.ndarray) -> None:
    """A row of colours (3, W), 0 to 1 each, through a table of ``size`` a side (`padded`), in
    place; ``places`` is room: (3, W) int32.
    """
    r, g, b = row[0], row[1], row[2]
    near, second, third = places[0], places[1], places[2]
    top, most, one = np.float32(size - 1), np.int32(size - 2), np.float32(1)
    over, down, deep = np.int32(4 * size * size), np.int32(4 * size), np.int32(4)
    far = over + down + deep
    # From the near corner of a cell to the far one, along the three edges that the largest parts
    # name, in that order. Where the four corners lie, and how much each counts, is worked out
    # first: that loop vectorises, looking up does not.
    for n in range(r.size):
        x, y, z = r[n] * top, g[n] * top, b[n] * top
        i = min(max(np.int32(x), np.int32(0)), most)
        j = min(max(np.int32(y), np.int32(0)), most)
        k = min(max(np.int32(z), np.int32(0)), most)
        x, y, z = x - np.float32(i), y - np.float32(j), z - np.float32(k)
        largest = over if x >= max(y, z) else (down if y >= z else deep)
        smallest = deep if z <= min(x, y) else (down if y <= x else over)
        near[n] = i * over + j * down + k * deep
        second[n] = near[n] + largest
        third[n] = near[n] + far - smallest
        r[n], g[n], b[n] = max(x, max(y, z)), max(min(x, y), min(max(x, y), z)), min(x, min(y, z))
    for n in range(r.size):
        high, middle, low = r[n], g[n], b[n]
        begin = np.uintp(near[n])
        r[n], g[n], b[n] = weighed_corners(
            table,
            begin,
            np.uintp(second[n]),
            np.uintp(third[n]),
            begin + np.uintp(far),
            one - high,
            high - middle,
            middle - low,
            low,
        )


@kernel
def _looked_up(planes: np.ndarray, table: np.ndarray, size: int, out: np.ndarray) -> None:
    zero, one, width = np.float32(0), np.float32(1), planes.shape[2]
    for y in prange(planes.shape[1]):
        row, places = np.empty((3, width), np.float32), np.empty((3, width), np.int32)
        for k in range(3):
            for x in range(width):
                row[k, x] = min(max(planes[k, y, x], zero), one)
        through_table(table, size, row, places)
        for k in range(3):
            for x in range(width):
                out[k, y, x] = row[k, x]


def looked_up(planes: np.ndarray, table: np.ndarray) -> np.ndarray:
    """Values (3, H, W) float32, clipped to 0 to 1, through a table (N, N, N, 3) float32 indexed by
    red, green, blue.
    """
    out = np.empty_like(planes)
    _looked_up(planes, padded(table), table.shape[0], out)
    return out


@inner
def _from_words(words: np.ndarray, row: np.ndarray) -> None:
    """Pixels 0xFFRRGGBB (W,) as codes (3, W), 0 to 1."""
    share = np.float32(1 / 255)
    for x in range(words.size):
        word = words[x]
        row[0, x] = np.float32(np.int32((word >> np.uint32(16)) & np.uint32(255))) * share
        row[1, x] = np.float32(np.int32((word >> np.uint32(8)) & np.uint32(255))) * share
        row[2, x] = np.float32(np.int32(word & np.uint32(255))) * share


@inner
def _to_words(row: np.ndarray, words: np.ndarray) -> None:
    """Codes (3, W), 0 to 1, as pixels 0xFFRRGGBB (W,)."""
    full, half = np.float32(255), np.float32(0.5)
    for x in range(words.size):
        red, green, blue = (
            np.int32(row[0, x] * full + half),
            np.int32(row[1, x] * full + half),
            np.int32(row[2, x] * full + half),
        )
        words[x] = (
            np.uint32(0xFF000000)
            | (np.uint32(red) << np.uint32(16))
            | (np.uint32(green) << np.uint32(8))
            | np.uint32(blue)
        )


@kernel
def _display(
    planes: np.ndarray, table: np.ndarray, size: int, dark: float, scale: float, out: np.ndarray
) -> None:
    zero, one, low, by, width = (
        np.float32(0),
        np.float32(1),
        np.float32(dark),
        np.float32(scale),
        planes.shape[2],
    )
    for y in prange(planes.shape[1]):
        row, places = np.empty((3, width), np.float32), np.empty((3, width), np.int32)
        for k in range(3):
            for x in range(width):
                row[k, x] = min(log2_of(max(planes[k, y, x], zero) / low + one) * by, one)
        through_table(table, size, row, places)
        _to_words(row, out[y])


def to_display_pixels(
    planes: np.ndarray, table: np.ndarray, dark: float, bright: float
) -> np.ndarray:
    """Linear light (3, H, W) as pixels 0xFFRRGGBB (H, W) through a table (N, N, N, 3) of codes.

    Its nodes stand for light from 0 to ``bright``, with equal factors of light + ``dark`` between
    them.
    """
    out = np.empty(planes.shape[1:], np.uint32)
    _display(planes, padded(table), table.shape[0], dark, 1 / np.log2((bright + dark) / dark), out)
    return out


@kernel
def _through(
    pixels: np.ndarray,
    table: np.ndarray,
    far: np.ndarray,
    size: int,
    limit: float,
    mark: int,
    out: np.ndarray,
) -> None:
    most, width = np.float32(limit), pixels.shape[1]
    for y in prange(pixels.shape[0]):
        row, places = np.empty((3, width), np.float32), np.empty((3, width), np.int32)
        _from_words(pixels[y], row)
        through_table(table, size, row, places)
        _to_words(row, out[y])
        if far.size > 1:
            _from_words(pixels[y], row)
            through_table(far, size, row, places)
            for x in range(width):
                if row[0, x] > most:
                    out[y, x] = np.uint32(mark)


#: ΔE2000 from which on a colour counts as outside a gamut: the least that is surely seen side by
#: side.
OUTSIDE = 3.0
#: What marks it, 0xAARRGGBB: a magenta that no surface of a photograph has.
MARK = 0xFFFF00C8


def pixels_through(
    pixels: np.ndarray, table: np.ndarray, far: np.ndarray | None = None
) -> np.ndarray:
    """Words 0xFFRRGGBB (H, W) through a table (N, N, N, 3) of codes; with ``far``, a table of
    distances, what is far off is marked.
    """
    out = np.empty_like(pixels)
    distances = np.zeros(1, np.float32) if far is None else padded(far)
    _through(pixels, padded(table), distances, table.shape[0], OUTSIDE, MARK, out)
    return out
