"""The sRGB transfer functions (IEC 61966-2-1), exact, and as a table for what is only shown.

"Levels" are sRGB-coded values times 255.
"""

from __future__ import annotations

from typing import Any

import numpy as np

from ..jit.parallel import index_in, inner, kernel, prange
from .roots import cube_root

#: Slope of the straight part of the sRGB curve (IEC 61966-2-1).
SLOPE = np.float32(12.92)
#: Offset of its power (IEC 61966-2-1).
OFFSET = np.float32(0.055)
#: Coded value up to which it is straight (IEC 61966-2-1).
CODED_BREAK = np.float32(0.04045)
#: Light up to which it is straight (IEC 61966-2-1).
LINEAR_BREAK = np.float32(0.0031308)
ONE = np.float32(1)


def decode(coded: np.ndarray) -> np.ndarray:
    """sRGB-coded values (0 to 1) as linear light, float32; odd about zero, so that values outside 0
    to 1 survive.

    Example
    -------
    >>> f"{decode(np.array([0.5]))[0]:.3f}"
    '0.214'
    """
    size = np.abs(np.asarray(coded, np.float64))
    linear = np.where(size <= CODED_BREAK, size / 12.92, ((size + 0.055) / 1.055) ** 2.4)
    result: np.ndarray = np.copysign(linear, coded).astype(np.float32)
    return result


def encode(linear: np.ndarray) -> np.ndarray:
    """Linear light as sRGB-coded values, float32: the inverse of `decode`.

    Example
    -------
    >>> f"{encode(np.array([0.18]))[0]:.3f}"
    '0.461'
    """
    flat = np.ascontiguousarray(linear, np.float32).reshape(1, -1)
    out = np.empty_like(flat)
    _encode(flat, out)
    return out.reshape(np.shape(linear))


def one_encoded(light: tuple[float, float, float] | np.ndarray) -> np.ndarray:
    """sRGB-coded values (3,) of a single linear colour: without a kernel, so that the interface can
    ask before any is loaded.
    """
    value = np.asarray(light, np.float64)
    size = np.abs(value)
    coded: np.ndarray = np.copysign(
        np.where(size <= 0.0031308, 12.92 * size, 1.055 * size ** (1 / 2.4) - 0.055), value
    )
    return coded


def decode_integers(codes: np.ndarray) -> np.ndarray:
    """8- or 16-bit sRGB codes as linear float32, through a table of every code."""
    top = np.iinfo(codes.dtype).max
    table = decode(np.arange(top + 1, dtype=np.float64) / top)
    result: np.ndarray = np.take(table, codes)
    return result


@inner
def code_of_light(value: Any) -> Any:
    """`encode` of one value, float32."""
    size = abs(value)
    root = cube_root(size)
    power = root * np.sqrt(np.sqrt(root))  # 1 / 2.4 is 5 / 12: this way it vectorises
    coded = SLOPE * size if size <= LINEAR_BREAK else np.float32(1.055) * power - OFFSET
    return coded if value >= 0 else -coded


@inner
def light_of_code(code: Any) -> Any:
    """`decode` of one value, float32."""
    size = abs(code)
    light = (
        size / SLOPE
        if size <= CODED_BREAK
        else ((size + OFFSET) / np.float32(1.055)) ** np.float32(2.4)
    )
    return light if code >= 0 else -light


@kernel
def _encode(linear: np.ndarray, out: np.ndarray) -> None:
    parts = 64
    length = (linear.shape[1] + parts - 1) // parts
    for part in prange(parts):
        for x in range(part * length, min((part + 1) * length, linear.shape[1])):
            out[0, x] = code_of_light(linear[0, x])


#: Entries of the display table; it is indexed by the square root of light, in which sRGB is nearly
#: straight.
STEPS = 4096
# In numpy: calling a kernel here would load the compiler whenever the program starts.
_LEVELS = (255 * one_encoded((np.arange(STEPS + 2, dtype=np.float64) / STEPS) ** 2)).astype(
    np.float32
)


@kernel
def _to_levels(planes: np.ndarray, table: np.ndarray, out: np.ndarray) -> None:
    for y in prange(planes.shape[1]):
        for channel in range(planes.shape[0]):
            source, target = planes[channel, y], out[channel, y]
            for x in range(planes.shape[2]):
                place = np.sqrt(min(max(source[x], np.float32(0)), ONE)) * np.float32(STEPS)
                index = index_in(place, STEPS)
                below = table[index]
                target[x] = below + (table[index + np.uintp(1)] - below) * (
                    place - np.float32(index)
                )


def to_levels(planes: np.ndarray) -> np.ndarray:
    """Levels (0 to 255, float32) of linear light (C, H, W) clipped to 0 to 1; within 0.01 of the
    exact value.
    """
    out = np.empty(planes.shape, np.float32)
    _to_levels(planes, _LEVELS, out)
    return out


#: The same as whole numbers.
BYTES = np.rint(np.clip(_LEVELS, 0, 255)).astype(np.uint8)
