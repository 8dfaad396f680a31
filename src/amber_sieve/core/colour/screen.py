"""Light as the pixels that a screen takes."""

from __future__ import annotations

from typing import Any

import numpy as np

from ..changed import next_stretch
from ..jit.parallel import bits_of, float_of, inner, kernel, prange, serial_kernel
from .gamut import lower_row, row_fits
from .transfer import LINEAR_BREAK, ONE, SLOPE

#: Levels of light above the straight part of the sRGB curve, as a polynomial in the fourth root of
#: it, where it is nearly straight too: fitted by ourselves (the largest error made least), within
#: 0.002 of a level.
P0, P1, P2, P3, P4, P5 = (
    np.float32(number)
    for number in (-15.64176, 41.31677, 320.12786, -147.25761, 73.83050, -17.37743)
)
#: One and a quarter times the exponent bias, less what makes the first guess of 1 over a fourth
#: root best: within 3 %.
GUESS = np.int32(0x4F581800)
#: (1 - e) to the power of -1/4 for e of at most 0.1236, that the guess leaves, within 3e-6.
R0, R1, R2, R3 = (np.float32(number) for number in (0.9999972, 0.249996, 0.1577172, 0.1185820))


@inner
def _level_of(light: Any) -> Any:
    """The level 0 to 255 of light, at most 0.505 from what IEC 61966-2-1 says.

    A table would be looked up one by one; this vectorises. It does without square roots, which the
    compiler works out otherwise in a vector
    than alone: so a pixel is the same wherever it lies in what is drawn.
    """
    clipped = min(max(light, np.float32(0)), ONE)
    bent = max(clipped, LINEAR_BREAK)
    guess = float_of(GUESS - np.int32(bits_of(bent) >> np.int32(2)))
    square = guess * guess
    e = ONE - bent * square * square
    over = guess * (R0 + e * (R1 + e * (R2 + e * R3)))
    root = bent * over * over * over
    half = root * root
    power = P0 + P1 * root + half * (P2 + P3 * root + half * (P4 + P5 * root))
    straight = np.float32(255) * SLOPE * clipped
    return np.uint32(np.int32((straight if clipped <= LINEAR_BREAK else power) + np.float32(0.5)))


@serial_kernel
def _encode_row(r: np.ndarray, g: np.ndarray, b: np.ndarray, row: np.ndarray) -> None:
    for x in range(row.size):
        red, green, blue = _level_of(r[x]), _level_of(g[x]), _level_of(b[x])
        row[x] = np.uint32(0xFF000000) | red << np.uint32(16) | green << np.uint32(8) | blue


@serial_kernel
def row_to_screen(
    r: np.ndarray, g: np.ndarray, b: np.ndarray, lowers: bool, row: np.ndarray
) -> None:
    """A row of light (n,) as pixels of the screen, as `to_screen`; for kernels."""
    if lowers and not row_fits(r, g, b):
        lowered = np.empty((3, row.size), np.float32)
        lower_row(r, g, b, lowered[0], lowered[1], lowered[2])
        _encode_row(lowered[0], lowered[1], lowered[2], row)
    else:
        _encode_row(r, g, b, row)


@kernel
def _to_screen(planes: np.ndarray, top: int, left: int, lowers: bool, out: np.ndarray) -> None:
    """As many rows and columns as ``out`` has, from ``top`` and ``left`` of the planes on."""
    width = out.shape[1]
    for y in prange(out.shape[0]):
        held = top + y
        r, g, b = (
            planes[0, held, left : left + width],
            planes[1, held, left : left + width],
            planes[2, held, left : left + width],
        )
        row_to_screen(r, g, b, lowers, out[y])


@kernel
def _runs_to_screen(planes: np.ndarray, runs: np.ndarray, lowers: bool, out: np.ndarray) -> None:
    for y in prange(out.shape[0]):
        stop = 0
        while stop < out.shape[1]:
            start, stop = next_stretch(runs[y], stop, out.shape[1])
            row_to_screen(
                planes[0, y, start:stop],
                planes[1, y, start:stop],
                planes[2, y, start:stop],
                lowers,
                out[y, start:stop],
            )


def runs_to_screen(
    planes: np.ndarray, runs: np.ndarray, pixels: np.ndarray, lowers: bool = False
) -> None:
    """Write what lies in some runs (H, R), see `changed`, over pixels (H, W) of which the rest
    stands already; else as `to_screen`.
    """
    _runs_to_screen(planes, runs, lowers, pixels)


def codes_to_pixels(codes: np.ndarray) -> np.ndarray:
    """Return codes (3, H, W) from 0 to 1, clipped, as 0xFFRRGGBB pixels (H, W) uint32."""
    red, green, blue = np.rint(np.clip(codes, 0, 1) * np.float32(255)).astype(np.uint32)
    pixels: np.ndarray = np.uint32(0xFF000000) | red << np.uint32(16) | green << np.uint32(8) | blue
    return pixels


def to_screen(
    planes: np.ndarray, lowers: bool = False, box: tuple[slice, slice] | None = None
) -> np.ndarray:
    """Linear light (3, H, W), clipped, as the 0xFFRRGGBB pixels (H, W) uint32 that a screen takes.

    ``lowers``: chroma is lowered first where a colour does not fit (`gamut.lower_chroma`). ``box``:
        of these rows and columns only.
    """
    rows, columns = box or (slice(None), slice(None))
    (top, bottom, _), (left, right, _) = (
        rows.indices(planes.shape[1]),
        columns.indices(planes.shape[2]),
    )
    out = np.empty((bottom - top, right - left), np.uint32)
    _to_screen(planes, top, left, lowers, out)
    return out
