"""Fast float32 roots and angles that vectorise, for use inside kernels."""

from __future__ import annotations

import numpy as np

from ..jit.parallel import bits_of, float_of, inner

ONE = np.float32(1)
TINY = np.float32(1e-30)
#: Four thirds of the exponent bias, less what makes the error of the first guess of 1 over a cube
#: root smallest.
ROOT_SEED = np.int32(0x548C2B4A)
#: (1 - e) to the power of -1/3 is 1 + e/3 + 2/9 e² + 14/81 e³ and less.
THIRD, R2, R3 = np.float32(1 / 3), np.float32(2 / 9), np.float32(14 / 81)


@inner
def cube_root(x: np.float32) -> np.float32:
    """Signed cube root, 1e-6 accurate: 1 over it is guessed from a third of the exponent, and
    corrected twice, without a division.
    """
    size = max(abs(x), TINY)
    # The division by three runs in float32: it vectorises, and the guess does not need the low
    # bits.
    t = float_of(ROOT_SEED - np.int32(np.float32(bits_of(size)) * THIRD))
    e = ONE - size * t * t * t
    t = t + t * e * (THIRD + e * (R2 + e * R3))
    e = ONE - size * t * t * t
    t = t + t * e * (THIRD + e * R2)
    root = size * t * t
    return -root if x < 0 else root


def _fit_arc_tangent() -> tuple[np.float32, ...]:
    """Least-squares odd polynomial of degree 17 at Chebyshev nodes, in degrees."""
    x = (1 + np.cos(np.pi * (np.arange(400) + 0.5) / 400)) / 2
    basis = np.stack([x ** (2 * k + 1) for k in range(9)], 1)
    solution, *_ = np.linalg.lstsq(basis, np.degrees(np.arctan(x)), rcond=None)
    return tuple(np.float32(c) for c in solution)


A0, A1, A2, A3, A4, A5, A6, A7, A8 = _fit_arc_tangent()
RIGHT, STRAIGHT, FULL = np.float32(90), np.float32(180), np.float32(360)


@inner
def hue_degrees(a: np.float32, b: np.float32) -> np.float32:
    """Angle of (a, b) in degrees, 0 to 360, within 1e-3; 0 for (0, 0)."""
    aa, bb = abs(a), abs(b)
    large, small = max(aa, bb), min(aa, bb)
    t = small / max(large, TINY)
    t2 = t * t
    angle = t * (
        A0
        + t2
        * (A1 + t2 * (A2 + t2 * (A3 + t2 * (A4 + t2 * (A5 + t2 * (A6 + t2 * (A7 + t2 * A8)))))))
    )
    angle = RIGHT - angle if bb > aa else angle
    angle = STRAIGHT - angle if a < 0 else angle
    angle = FULL - angle if b < 0 else angle
    return np.float32(angle)
