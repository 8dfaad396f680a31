"""3D lookup tables, by tetrahedral interpolation.

J. M. Kasson, S. I. Nin, W. Plouffe, J. L. Hafner, "Performing color space conversions with three-dimensional linear interpolation" (1995).
"""

from __future__ import annotations

import numpy as np

from ..parallel import index_in, inner, kernel, prange


@inner
def tetrahedral(table: np.ndarray, size: int, r: float, g: float, b: float) -> tuple[float, float, float]:
    """One colour, 0 to 1 each, through a table (size · size · size · 3,) indexed by red, green, blue."""
    top = np.float32(size - 1)
    x, y, z = r * top, g * top, b * top
    most = np.int64(size - 2)
    i, j, k = np.int64(index_in(x, most)), np.int64(index_in(y, most)), np.int64(index_in(z, most))
    x, y, z = x - np.float32(i), y - np.float32(j), z - np.float32(k)
    over, down, deep = 3 * size * size, 3 * size, 3
    start = i * over + j * down + k * deep
    end = start + over + down + deep
    # From the near corner to the far one along the three edges that the largest parts name, in that order.
    if x >= y:
        if y >= z:
            one, two, high, middle, low = start + over, start + over + down, x, y, z
        elif x >= z:
            one, two, high, middle, low = start + over, start + over + deep, x, z, y
        else:
            one, two, high, middle, low = start + deep, start + deep + over, z, x, y
    elif z >= y:
        one, two, high, middle, low = start + deep, start + deep + down, z, y, x
    elif z >= x:
        one, two, high, middle, low = start + down, start + down + deep, y, z, x
    else:
        one, two, high, middle, low = start + down, start + down + over, y, x, z
    first, second, third, last = np.float32(1) - high, high - middle, middle - low, low
    return (
        first * table[start] + second * table[one] + third * table[two] + last * table[end],
        first * table[start + 1] + second * table[one + 1] + third * table[two + 1] + last * table[end + 1],
        first * table[start + 2] + second * table[one + 2] + third * table[two + 2] + last * table[end + 2],
    )


@kernel
def _looked_up(planes: np.ndarray, table: np.ndarray, size: int, out: np.ndarray) -> None:
    zero, one = np.float32(0), np.float32(1)
    for y in prange(planes.shape[1]):
        for x in range(planes.shape[2]):
            r, g, b = min(max(planes[0, y, x], zero), one), min(max(planes[1, y, x], zero), one), min(max(planes[2, y, x], zero), one)
            out[0, y, x], out[1, y, x], out[2, y, x] = tetrahedral(table, size, r, g, b)


def looked_up(planes: np.ndarray, table: np.ndarray) -> np.ndarray:
    """Values (3, H, W) float32, clipped to 0 to 1, through a table (N, N, N, 3) float32 indexed by red, green, blue."""
    out = np.empty_like(planes)
    _looked_up(planes, np.ascontiguousarray(table, np.float32).reshape(-1), table.shape[0], out)
    return out


@kernel
def _display(planes: np.ndarray, table: np.ndarray, size: int, dark: float, scale: float, out: np.ndarray) -> None:
    zero, one, full, half, low, by = np.float32(0), np.float32(1), np.float32(255), np.float32(0.5), np.float32(dark), np.float32(scale)
    for y in prange(planes.shape[1]):
        for x in range(planes.shape[2]):
            r = min(np.log(max(planes[0, y, x], zero) / low + one) * by, one)
            g = min(np.log(max(planes[1, y, x], zero) / low + one) * by, one)
            b = min(np.log(max(planes[2, y, x], zero) / low + one) * by, one)
            red, green, blue = tetrahedral(table, size, r, g, b)
            high = np.uint32(red * full + half) << np.uint32(16)
            out[y, x] = np.uint32(0xFF000000) | high | (np.uint32(green * full + half) << np.uint32(8)) | np.uint32(blue * full + half)


def to_display_pixels(planes: np.ndarray, table: np.ndarray, dark: float, bright: float) -> np.ndarray:
    """Linear light (3, H, W) as pixels 0xFFRRGGBB (H, W) through a table (N, N, N, 3) of codes.

    Its nodes stand for light from 0 to ``bright``, with equal factors of light + ``dark`` between them.
    """
    out = np.empty(planes.shape[1:], np.uint32)
    scale = 1 / np.log((bright + dark) / dark)
    _display(planes, np.ascontiguousarray(table, np.float32).reshape(-1), table.shape[0], dark, scale, out)
    return out


@kernel
def _through(pixels: np.ndarray, table: np.ndarray, far: np.ndarray, size: int, limit: float, mark: int, out: np.ndarray) -> None:
    full, half, most = np.float32(255), np.float32(0.5), np.float32(limit)
    share = np.float32(1) / full
    for y in prange(pixels.shape[0]):
        for x in range(pixels.shape[1]):
            pixel = pixels[y, x]
            r = np.float32((pixel >> np.uint32(16)) & np.uint32(255)) * share
            g = np.float32((pixel >> np.uint32(8)) & np.uint32(255)) * share
            b = np.float32(pixel & np.uint32(255)) * share
            if far.size > 1 and tetrahedral(far, size, r, g, b)[0] > most:
                out[y, x] = np.uint32(mark)
                continue
            red, green, blue = tetrahedral(table, size, r, g, b)
            high = np.uint32(red * full + half) << np.uint32(16)
            out[y, x] = np.uint32(0xFF000000) | high | (np.uint32(green * full + half) << np.uint32(8)) | np.uint32(blue * full + half)


#: ΔE2000 from which on a colour counts as outside a gamut: the least that is surely seen side by side.
OUTSIDE = 3.0
#: What marks it, 0xAARRGGBB: a magenta that no surface of a photograph has.
MARK = 0xFFFF00C8


def pixels_through(pixels: np.ndarray, table: np.ndarray, far: np.ndarray | None = None) -> np.ndarray:
    """Words 0xFFRRGGBB (H, W) through a table (N, N, N, 3) of codes; with ``far``, a table of distances, what is far off is marked."""
    out = np.empty_like(pixels)
    distances = np.zeros(1, np.float32) if far is None else np.ascontiguousarray(far, np.float32).reshape(-1)
    _through(pixels, np.ascontiguousarray(table, np.float32).reshape(-1), distances, table.shape[0], OUTSIDE, MARK, out)
    return out
