"""Y'CbCr samples of footage as linear light and back, exactly as the standards have it.

Matrices, ranges and quantisation: ITU-R BT.601, BT.709, BT.2020, by the numbers of ITU-T H.273.
Chroma with fewer samples lies at the even columns and, where rows share it, in the middle between
two of them (H.273, chroma sample location type 0), as most footage has it; it is read by linear
interpolation.
"""

from __future__ import annotations

import functools
from dataclasses import dataclass
from typing import Any

import numpy as np

from ..jit.parallel import inner, kernel, prange
from .encodings import as_shown, light_of

#: Weights of red and blue in luma, by the numbers of ITU-T H.273 for matrices.
LUMA_WEIGHTS = {
    1: (0.2126, 0.0722),
    4: (0.30, 0.11),
    5: (0.299, 0.114),
    6: (0.299, 0.114),
    7: (0.212, 0.087),
    9: (0.2627, 0.0593),
    10: (0.2627, 0.0593),
}
#: Least code that the table of a curve holds: limited range has room for what is blacker than
#: black.
LOWEST = -0.25
#: Largest code of it: limited range has room for what is whiter than white.
HIGHEST = 1.25
#: Entries of it: one for each 16-bit code.
STEPS = 65536
#: By how much red, green and blue may come out otherwise before samples other than the nearest are
#: taken.
NEAR_ENOUGH = 1.2 / 255


@dataclass(frozen=True)
class Samples:
    """A way to code light in planes of integers.

    Attributes
    ----------
    matrix : a number of ``LUMA_WEIGHTS``; bits : 8 to 16, of each sample.
    full : whether all codes are used, instead of those from 16 to 235 (of 8 bits).
    across, down : how many columns and rows share a sample of chroma, 1 or 2.
    used : how many bits were used before samples were moved up to ``bits``; 0 for all.
    """

    matrix: int
    bits: int
    full: bool = False
    across: int = 1
    down: int = 1
    used: int = 0

    @property
    def _all(self) -> float:
        """The largest sample there is."""
        used = self.used or self.bits
        return float((2**used - 1) << (self.bits - used))

    @property
    def luma(self) -> tuple[float, float]:
        """The sample of black, and how many samples lie between it and white."""
        return (
            (0.0, self._all)
            if self.full
            else (16.0 * 2 ** (self.bits - 8), 219.0 * 2 ** (self.bits - 8))
        )

    @property
    def chroma(self) -> tuple[float, float]:
        """The sample of grey, and how many samples lie between the two farthest from it."""
        return 2.0 ** (self.bits - 1), self._all if self.full else 224.0 * 2 ** (self.bits - 8)


@kernel
def _to_light(
    luma: np.ndarray,
    blue: np.ndarray,
    red: np.ndarray,
    across: int,
    down: int,
    numbers: np.ndarray,
    table: np.ndarray,
    out: np.ndarray,
) -> None:
    height, width = out.shape[1], out.shape[2]
    rows, columns = blue.shape[0], (width + across - 1) // across
    black, per_luma, red_cr, green_cb, green_cr, blue_cb, grey = numbers
    zero, last, pairs = np.float32(0), np.float32(STEPS - 1), table.view(np.uint64)
    to_place, place_of_zero = (
        np.float32((STEPS - 1) / (HIGHEST - LOWEST)),
        np.float32(-LOWEST * (STEPS - 1) / (HIGHEST - LOWEST)),
    )
    for y in prange(height):
        line: Any = np.int64(y)  # unsigned, it could not be counted down from
        near, far = line, line
        if down > 1:
            near = min(line // 2, rows - 1)
            far = min(max(near + (line % 2) * 2 - 1, 0), rows - 1)
        held, spread = (
            np.empty((2, columns + 1), np.float32),
            np.empty((2, columns * across), np.float32),
        )
        for x in range(columns):
            held[0, x] = (
                np.float32(blue[near, x]) * np.float32(0.75)
                + np.float32(blue[far, x]) * np.float32(0.25)
                - grey
            )
            held[1, x] = (
                np.float32(red[near, x]) * np.float32(0.75)
                + np.float32(red[far, x]) * np.float32(0.25)
                - grey
            )
        held[0, columns], held[1, columns] = held[0, columns - 1], held[1, columns - 1]
        for k in range(2):
            one, wide = held[k], spread[k]
            if across > 1:
                for x in range(columns):
                    wide[2 * x] = one[x]
                    wide[2 * x + 1] = np.float32(0.5) * (one[x] + one[x + 1])
            else:
                wide[:] = one[:columns]
        places, level, cb, cr = np.empty((3, width), np.float32), luma[y], spread[0], spread[1]
        for x in range(width):
            grey_of = (np.float32(level[x]) - black) * per_luma
            places[0, x] = min(
                max((grey_of + red_cr * cr[x]) * to_place + place_of_zero, zero), last
            )
            places[1, x] = min(
                max(
                    (grey_of + green_cb * cb[x] + green_cr * cr[x]) * to_place + place_of_zero, zero
                ),
                last,
            )
            places[2, x] = min(
                max((grey_of + blue_cb * cb[x]) * to_place + place_of_zero, zero), last
            )
        # Looking up does not vectorise, so nothing else is done meanwhile: an entry and how far it
        # is to the next are fetched as one.
        entries, found = np.empty(width, np.int32), np.empty(width, np.uint64)
        both = found.view(np.float32)
        for k in range(3):
            row, place = out[k, y], places[k]
            for x in range(width):
                entries[x] = min(max(np.int32(place[x]), np.int32(0)), np.int32(STEPS - 1))
                place[x] -= np.float32(entries[x])
            for x in range(width):
                found[x] = pairs[np.uintp(entries[x]), 0]
            for x in range(width):
                row[x] = both[2 * x] + both[2 * x + 1] * place[x]


@functools.lru_cache(maxsize=8)
def _table_of(curve: int) -> np.ndarray:
    """Light of the codes from ``LOWEST`` to ``HIGHEST``, each with how far it is to the next,
    (STEPS, 2) float32.
    """
    step = (HIGHEST - LOWEST) / (STEPS - 1)
    light = light_of(LOWEST + np.arange(STEPS + 1) * step, curve).astype(np.float32)
    zero = round(-LOWEST / step)  # black is exactly nothing
    light[zero] = 0
    return np.stack([light[:-1], np.diff(light)], axis=1)


def to_light(
    luma: np.ndarray,
    blue: np.ndarray,
    red: np.ndarray,
    width: int,
    samples: Samples,
    curve: int,
    primaries: int,
) -> np.ndarray:
    """Linear light (3, H, W) of Y', Cb and Cr.

    Parameters
    ----------
    luma : (H, at least W) integers; blue, red : (h, at least w), the samples of chroma.
    width : W. curve, primaries : numbers of H.273, see `encodings`.
    """
    of_red, of_blue = LUMA_WEIGHTS[samples.matrix]
    of_green = 1 - of_red - of_blue
    black, white = samples.luma
    grey, wide = samples.chroma
    to_red, to_blue = 2 * (1 - of_red) / wide, 2 * (1 - of_blue) / wide
    numbers = (
        black,
        1 / white,
        to_red,
        -of_blue * to_blue / of_green,
        -of_red * to_red / of_green,
        to_blue,
        grey,
    )
    out = np.empty((3, luma.shape[0], width), np.float32)
    given = np.array(numbers, np.float32)
    _to_light(luma, blue, red, samples.across, samples.down, given, _table_of(curve), out)
    return as_shown(out, curve, primaries)


@inner
def _ends(blue_off: float, red_off: float, back: np.ndarray) -> tuple[float, float]:
    """By how much red, green and blue come out least and most, when samples of chroma are off by
    that; in samples of luma.
    """
    red, green, blue = back[0] * red_off, back[1] * blue_off + back[2] * red_off, back[3] * blue_off
    return min(red, green, blue), max(red, green, blue)


@kernel
def _to_samples(
    codes: np.ndarray,
    across: int,
    down: int,
    numbers: np.ndarray,
    back: np.ndarray,
    luma: np.ndarray,
    blue: np.ndarray,
    red: np.ndarray,
) -> None:
    height, width = codes.shape[1], codes.shape[2]
    of_red, of_green, of_blue, black, white, grey, to_cb, to_cr, top, most = numbers
    zero, half, one = np.float32(0), np.float32(0.5), np.float32(1)
    for part in prange(blue.shape[0]):
        row = np.int64(part)
        sums, levels, ends = (
            np.zeros((2, width), np.float32),
            np.empty((down, width), np.float32),
            np.empty((2, width + 1), np.float32),
        )
        lines = min(down, height - row * down)
        for line in range(lines):
            y = row * down + line
            for x in range(width):
                r = min(max(codes[0, y, x], zero), one)
                g = min(max(codes[1, y, x], zero), one)
                b = min(max(codes[2, y, x], zero), one)
                level = of_red * r + of_green * g + of_blue * b
                levels[line, x] = black + white * level
                sums[0, x] += b - level
                sums[1, x] += r - level
        for x in range(blue.shape[1]):
            middle = x * across
            cb, cr = sums[0, middle], sums[1, middle]
            if across > 1:
                left, right = max(middle - 1, 0), min(middle + 1, width - 1)
                cb = half * cb + np.float32(0.25) * (sums[0, left] + sums[0, right])
                cr = half * cr + np.float32(0.25) * (sums[1, left] + sums[1, right])
            cb, cr = grey + to_cb * cb / np.float32(lines), grey + to_cr * cr / np.float32(lines)
            near_cb, near_cr = (
                np.floor(min(max(cb, zero), top - half) + half),
                np.floor(min(max(cr, zero), top - half) + half),
            )
            lowest, highest = _ends(near_cb - cb, near_cr - cr, back)
            # Where no luma brings all three near enough, blue's chroma is taken from its other
            # side.
            other = min(max(near_cb + (one if near_cb < cb else -one), zero), top)
            low, high = _ends(other - cb, near_cr - cr, back)
            turned = (highest - lowest + one > most + most) & (high - low < highest - lowest)
            blue[row, x], red[row, x] = np.int32(other if turned else near_cb), np.int32(near_cr)
            lowest, highest = low if turned else lowest, high if turned else highest
            for column in range(middle, middle + across):
                ends[0, column], ends[1, column] = lowest, highest
        for line in range(lines):
            level, target = levels[line], luma[row * down + line]
            for x in range(width):
                exact, lowest, highest = level[x], ends[0, x], ends[1, x]
                near = np.floor(exact + half)
                between = np.floor(exact - half * (lowest + highest) + half)
                near = (
                    between if max(near - exact + highest, exact - near - lowest) > most else near
                )
                target[x] = np.int32(min(max(near, black), black + white))


def to_samples(codes: np.ndarray, samples: Samples) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    """Y' (H, W), Cb and Cr (h, w) of codes (3, H, W) float32, which are clipped to 0 to 1; integers
    of 8 or 16 bits.

    They are the nearest samples, but where these would come out more than ``NEAR_ENOUGH`` off in
    red, green or blue: the nearest 8-bit samples of Rec. 709 can be 1.64 levels of blue off.
    """
    of_red, of_blue = LUMA_WEIGHTS[samples.matrix]
    kind = np.uint8 if samples.bits == 8 else np.uint16
    height, width = codes.shape[1:]
    small = (-(-height // samples.down), -(-width // samples.across))
    luma, blue, red = np.empty((height, width), kind), np.empty(small, kind), np.empty(small, kind)
    grey, wide = samples.chroma
    ways = (0.5 * wide / (1 - of_blue), 0.5 * wide / (1 - of_red))
    black, white = samples.luma
    of_green = 1 - of_red - of_blue
    numbers = (
        of_red,
        of_green,
        of_blue,
        black,
        white,
        grey,
        *ways,
        2**samples.bits - 1,
        NEAR_ENOUGH * white,
    )
    back = (
        white / ways[1],
        -of_blue / of_green * white / ways[0],
        -of_red / of_green * white / ways[1],
        white / ways[0],
    )
    given, given_back = np.array(numbers, np.float32), np.array(back, np.float32)
    _to_samples(
        np.ascontiguousarray(codes, np.float32),
        samples.across,
        samples.down,
        given,
        given_back,
        luma,
        blue,
        red,
    )
    return luma, blue, red
