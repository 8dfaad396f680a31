"""Lay one picture over another: the blend modes of W3C "Compositing and Blending Level 1" (2015),
sections 9.1 and 10.

Its formulas work on sRGB-coded values of 0 to 1, and so they do here; how much of the outcome is
taken, by opacity and alpha, is mixed in linear light like all masks. Normal, multiply, darken and
lighten also hold for light beyond white; what the others get is cut off there.
"""

from __future__ import annotations

from typing import Any

import numpy as np

from ...names import BLENDS
from ..colour.powers import srgb_decoded, srgb_encoded
from ..jit.parallel import carray, inner, row_step
from .chain import Step, bounded

ZERO, ONE, TWO, HALF, QUARTER = (
    np.float32(0),
    np.float32(1),
    np.float32(2),
    np.float32(0.5),
    np.float32(0.25),
)
TINY = np.float32(1e-7)
#: Places of the modes in the list, for the kernel.
MODES: dict[str, int] = {mode: number for number, mode in enumerate(BLENDS)}
LAST_UNBOUNDED, FIRST_WHOLE = MODES["lighten"], MODES["hue"]
#: Weights of red, green and blue in the Lum of section 10.3.
LUM_R, LUM_G, LUM_B = np.float32(0.3), np.float32(0.59), np.float32(0.11)


@inner
def _separable(mode: int, back: np.ndarray, front: np.ndarray) -> None:
    """B(cb, cs) of the modes that look at one channel, section 9.1, into ``front``: one loop a
    mode, so that each vectorises.
    """
    size = back.size
    if mode == 1:
        for x in range(size):
            front[x] = back[x] * front[x]
    elif mode == 2:
        for x in range(size):
            front[x] = min(back[x], front[x])
    elif mode == 3:
        for x in range(size):
            front[x] = max(back[x], front[x])
    elif mode == 4:
        for x in range(size):
            front[x] = back[x] + front[x] - back[x] * front[x]
    elif mode in (5, 8):  # overlay is hard light with the layers swapped
        for x in range(size):
            cb, cs = (front[x], back[x]) if mode == 5 else (back[x], front[x])
            multiplied, screened = TWO * cb * cs, cb + (TWO * cs - ONE) - cb * (TWO * cs - ONE)
            front[x] = multiplied if cs <= HALF else screened
    elif mode == 6:
        for x in range(size):
            dodged = min(ONE, back[x] / max(ONE - front[x], TINY))
            front[x] = ZERO if back[x] <= ZERO else dodged
    elif mode == 7:
        for x in range(size):
            burnt = ONE - min(ONE, (ONE - back[x]) / max(front[x], TINY))
            front[x] = ONE if back[x] >= ONE else burnt
    elif mode == 9:
        for x in range(size):
            cb, cs = back[x], front[x]
            curve = ((np.float32(16) * cb - np.float32(12)) * cb + np.float32(4)) * cb
            root = curve if cb <= QUARTER else np.sqrt(max(cb, ZERO))
            darker, lighter = (
                cb - (ONE - TWO * cs) * cb * (ONE - cb),
                cb + (TWO * cs - ONE) * (root - cb),
            )
            front[x] = darker if cs <= HALF else lighter
    elif mode == 10:
        for x in range(size):
            front[x] = abs(back[x] - front[x])
    elif mode == 11:
        for x in range(size):
            front[x] = back[x] + front[x] - TWO * back[x] * front[x]


@inner
def _lum(r: np.float32, g: np.float32, b: np.float32) -> np.float32:
    return LUM_R * r + LUM_G * g + LUM_B * b


@inner
def _with_lum(
    r: np.float32, g: np.float32, b: np.float32, wanted: np.float32
) -> tuple[np.float32, np.float32, np.float32]:
    """SetLum and ClipColor of section 10.3."""
    more = wanted - _lum(r, g, b)
    r, g, b = r + more, g + more, b + more
    low, high, lum = min(r, g, b), max(r, g, b), wanted
    below = lum / max(lum - low, TINY) if low < ZERO else ONE
    r, g, b = lum + (r - lum) * below, lum + (g - lum) * below, lum + (b - lum) * below
    above = (ONE - lum) / max(high - lum, TINY) if high > ONE else ONE
    return lum + (r - lum) * above, lum + (g - lum) * above, lum + (b - lum) * above


@inner
def _with_saturation(
    r: np.float32, g: np.float32, b: np.float32, wanted: np.float32
) -> tuple[np.float32, np.float32, np.float32]:
    """SetSat of section 10.3: the smallest becomes 0, the largest what is wanted, the one between
    stays in proportion.
    """
    low, high = min(r, g, b), max(r, g, b)
    scale = wanted / max(high - low, TINY) if high > low else ZERO
    return (r - low) * scale, (g - low) * scale, (b - low) * scale


@inner
def _together(
    mode: int,
    br: np.float32,
    bg: np.float32,
    bb: np.float32,
    sr: np.float32,
    sg: np.float32,
    sb: np.float32,
) -> tuple[np.float32, np.float32, np.float32]:
    """B(cb, cs) of the modes that look at all three channels, section 10.3: hue, saturation, color,
    luminosity.
    """
    if mode == 12:
        r, g, b = _with_saturation(sr, sg, sb, max(br, bg, bb) - min(br, bg, bb))
        return _with_lum(r, g, b, _lum(br, bg, bb))
    if mode == 13:
        r, g, b = _with_saturation(br, bg, bb, max(sr, sg, sb) - min(sr, sg, sb))
        return _with_lum(r, g, b, _lum(br, bg, bb))
    if mode == 14:
        return _with_lum(sr, sg, sb, _lum(br, bg, bb))
    return _with_lum(br, bg, bb, _lum(sr, sg, sb))


@row_step
def _blend(row: Any, width: int, numbers: Any) -> None:
    """Lays rows 0 to 2 over rows 3 to 5 (what was done over the picture as it came), or rows 6 to 8
    over rows 0 to 2 (a filling).
    """
    flat, given = carray(row, 10 * width), carray(numbers, 3)
    mode, opacity, fills = int(given[0]), np.float32(given[1]), given[2] != 0
    size = 3 * width
    result = flat[:size]
    back, front = (
        (flat[:size], flat[2 * size : 3 * size]) if fills else (flat[size : 2 * size], flat[:size])
    )
    if mode > 0:
        before = np.empty(size, np.float32)  # as light, to mix with
        coded = np.empty(size, np.float32)
        for x in range(size):
            before[x] = back[x]
            coded[x] = srgb_encoded(back[x])
            front[x] = srgb_encoded(front[x])
        if mode > LAST_UNBOUNDED:
            for x in range(size):
                coded[x] = min(max(coded[x], ZERO), ONE)
                front[x] = min(max(front[x], ZERO), ONE)
        if mode >= FIRST_WHOLE:
            for x in range(width):
                x1, x2 = x + width, x + 2 * width
                front[x], front[x1], front[x2] = _together(
                    mode, coded[x], coded[x1], coded[x2], front[x], front[x1], front[x2]
                )
        else:
            _separable(mode, coded, front)
        for x in range(size):
            front[x] = bounded(srgb_decoded(front[x]))
            back[x] = before[x]
    alpha = flat[9 * width : 10 * width]
    for k in range(3):
        for x in range(width):
            share, at = opacity * alpha[x] if fills else opacity, k * width + x
            laid = front[at]
            result[at] = back[at] + share * (laid - back[at]) if share != ONE else laid


def steps(blend: str = "normal") -> list[Step]:
    """Return the steps that lay the adjusted picture over the one that came; none for normal.

    Parameters
    ----------
    blend : one of ``names.BLENDS``.
    """
    return (
        []
        if blend == "normal"
        else [Step(_blend.address, (MODES[blend], 1.0, 0.0), looks_back=True)]
    )


def filling(blend: str, opacity: float) -> Step:
    """Return the steps that lay a filling over the adjusted picture.

    Parameters
    ----------
    opacity : 0 to 1, multiplied with the filling's own alpha.
    """
    return Step(_blend.address, (MODES[blend], opacity, 1.0), fills=True)
