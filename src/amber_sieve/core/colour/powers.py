"""Logarithms and powers for inner loops: bit tricks and polynomials, which vectorise where the
library's do not.
"""

from __future__ import annotations

import numpy as np

from ..jit.parallel import bits_of, float_of, inner
from .transfer import CODED_BREAK, LINEAR_BREAK

ONE, HALF = np.float32(1), np.float32(0.5)
#: Smallest normal float32; what is not above it has no logarithm here.
SMALLEST = np.float32(1.1754944e-38)
#: Bits of the root of a half: parts of a number are taken from there to the root of two.
ROOT_OF_HALF = np.int32(0x3F3504F3)
#: The bits of the exponent and the sign, and what one in the exponent counts there.
EXPONENT, ONE_OF_EXPONENT = np.int32(-(1 << 23)), np.float32(2.0**-23)
#: Exponents beyond this would leave float32.
FARTHEST = np.float32(126)
#: What the exponent of a float32 is stored with.
BIAS = np.float32(127)


def _fit_logarithm() -> tuple[np.float32, ...]:
    """log2(1 + f) = f · P(f) for 1 + f from √½ to √2, least squares at Chebyshev nodes; a ratio
    would need fewer terms, but a division.
    """
    f = (
        (2**0.5 + 2**-0.5) / 2
        - 1
        + (2**0.5 - 2**-0.5) / 2 * np.cos(np.pi * (np.arange(800) + 0.5) / 800)
    )
    solution, *_ = np.linalg.lstsq(
        np.stack([f ** (k + 1) for k in range(8)], 1), np.log2(1 + f), rcond=None
    )
    return tuple(np.float32(c) for c in solution)


def _fit_exponential() -> tuple[np.float32, ...]:
    """2^x for x from -½ to ½: least squares of the share, at Chebyshev nodes."""
    x = np.cos(np.pi * (np.arange(400) + 0.5) / 400) / 2
    solution, *_ = np.linalg.lstsq(
        np.stack([x**k for k in range(6)], 1) / 2 ** x[:, None], np.ones(x.size), rcond=None
    )
    return tuple(np.float32(c) for c in solution)


#: Middles of the fourth root of light, and of the square root of what is raised, over the bent part
#: of the sRGB curve.
MIDDLE_ROOT = np.float32((float(LINEAR_BREAK) ** 0.25 + 1) / 2)
MIDDLE_BASE = np.float32((((float(CODED_BREAK) + 0.055) / 1.055) ** 0.5 + 1) / 2)


def _fit_bent(
    middle: np.float32, power: float, scale: float, offset: float
) -> tuple[np.float32, ...]:
    """scale · (x + middle)^power + offset, from x = -(1 - middle) to 1 - middle: least squares of
    the share, at Chebyshev nodes.
    """
    x = (1 - float(middle)) * np.cos(np.pi * (np.arange(400) + 0.5) / 400)
    value = scale * (x + float(middle)) ** power + offset
    solution, *_ = np.linalg.lstsq(
        np.stack([x**k for k in range(8)], 1) / value[:, None] ** 0.5, value**0.5, rcond=None
    )
    return tuple(np.float32(c) for c in solution)


L0, L1, L2, L3, L4, L5, L6, L7 = _fit_logarithm()
E0, E1, E2, E3, E4, E5 = _fit_exponential()
C0, C1, C2, C3, C4, C5, C6, C7 = _fit_bent(MIDDLE_ROOT, 5 / 3, 1.055, -0.055)
D0, D1, D2, D3, D4, D5, D6, D7 = _fit_bent(MIDDLE_BASE, 4.8, 1.0, 0.0)


@inner
def log2_of(x: np.float32) -> np.float32:
    """Logarithm to base 2 of a positive float32, within 3e-7 or one part in 8 million; of what is
    not positive, -126.
    """
    bits = bits_of(max(x, SMALLEST))
    exponent = np.int32(
        np.int32(bits - ROOT_OF_HALF) & EXPONENT
    )  # where it stands in the bits: 2²³ times what it is
    f = float_of(np.int32(bits - exponent)) - ONE
    f2 = f * f
    near, far = (L0 + f * L1) + f2 * (L2 + f * L3), (L4 + f * L5) + f2 * (L6 + f * L7)
    return np.float32(np.float32(exponent) * ONE_OF_EXPONENT + f * (near + f2 * f2 * far))


@inner
def exp2_of(x: np.float32) -> np.float32:
    """Two to a power, one part in 5 million; powers beyond ±126 are taken as that."""
    x = min(max(x, -FARTHEST), FARTHEST)
    exponent = np.int32(x + BIAS + HALF)  # cut off above 0: the nearest whole number
    f = x - np.float32(np.int32(exponent - np.int32(BIAS)))
    f2 = f * f
    value = (E0 + f * E1) + f2 * ((E2 + f * E3) + f2 * (E4 + f * E5))
    return np.float32(value * float_of(np.int32(exponent << np.int32(23))))


@inner
def power_of(x: np.float32, exponent: np.float32) -> np.float32:
    """A positive float32 to a power; see `log2_of` and `exp2_of`."""
    return exp2_of(exponent * log2_of(x))


@inner
def srgb_encoded(light: np.float32) -> np.float32:
    """sRGB-coded value of linear light (IEC 61966-2-1), odd about zero; the fast form of
    `transfer.encode`.
    """
    size = abs(light)
    curved = np.float32(1.055) * power_of(size, np.float32(1 / 2.4)) - np.float32(0.055)
    coded = np.float32(12.92) * size if size <= LINEAR_BREAK else curved
    return coded if light >= 0 else -coded


@inner
def srgb_decoded(coded: np.float32) -> np.float32:
    """Linear light of an sRGB-coded value, odd about zero; the inverse of `srgb_encoded`."""
    size = abs(coded)
    curved = power_of((size + np.float32(0.055)) * np.float32(1 / 1.055), np.float32(2.4))
    light = size * np.float32(1 / 12.92) if size <= CODED_BREAK else curved
    return light if coded >= 0 else -light


@inner
def srgb_encoded_within(light: np.float32) -> np.float32:
    """`srgb_encoded` of light from 0 to 1, to which alone it is true, at half the cost: within
    1e-6.
    """
    x = np.sqrt(np.sqrt(max(light, LINEAR_BREAK))) - MIDDLE_ROOT
    curved = C0 + x * (C1 + x * (C2 + x * (C3 + x * (C4 + x * (C5 + x * (C6 + x * C7))))))
    return min(curved, ONE) if light > LINEAR_BREAK else np.float32(12.92) * light


@inner
def srgb_decoded_within(coded: np.float32) -> np.float32:
    """`srgb_decoded` of values from 0 to 1, to which alone it is true, at half the cost: within
    1e-6.
    """
    x = np.sqrt((max(coded, CODED_BREAK) + np.float32(0.055)) * np.float32(1 / 1.055)) - MIDDLE_BASE
    curved = D0 + x * (D1 + x * (D2 + x * (D3 + x * (D4 + x * (D5 + x * (D6 + x * D7))))))
    return min(curved, ONE) if coded > CODED_BREAK else coded * np.float32(1 / 12.92)
