"""White balance: the picture as light of another colour would show it, or as it would be without
such light, by chromatic adaptation.

Whites: CIE daylight (CIE 015:2018, 4.1.2) from 6504 K to 4000 K; below, where that ends, the black
body (M. Krystek, "An algorithm to calculate correlated colour temperature", 1985) moved by the
distance between both at 4000 K. Adaptation: the von Kries transform with the CAT16 matrix (C. Li et
al., "Comprehensive color solutions: CAM16, CAT16, and CAM16-UCS", 2017), complete.
"""

from __future__ import annotations

from typing import Any

import numpy as np

from ..colour.difference import RGB_TO_XYZ
from ..jit.parallel import carray, row_step
from .chain import Step, bounded

CAT16 = np.array(
    [
        [0.401288, 0.650173, -0.051461],
        [-0.250268, 1.204414, 0.045854],
        [-0.002079, 0.048952, 0.953127],
    ]
)
#: Linear light to the sharpened responses in which adaptation scales.
TO_RESPONSES = CAT16 @ RGB_TO_XYZ
#: D65 in mired: a million by its correlated colour temperature, 6504 K.
D65_MIRED = 1e6 / 6504
#: Kelvin below which the formula of daylight does not hold (CIE 15).
WARMEST_DAYLIGHT = 4000.0
#: Kelvin above which it does not hold (CIE 15).
COLDEST_DAYLIGHT = 25000.0
#: A tint of one is so far from the locus of daylight in CIE 1960 u, v.
TINT = 1e-3
#: Largest temperature and tint.
LARGEST = (250.0, 100.0)


def daylight(kelvin: float) -> np.ndarray:
    """Chromaticity x, y (2,) of CIE daylight of 4000 to 25000 K."""
    t = 1e3 / kelvin
    near = (
        (0.244063, 0.09911, 2.9678, -4.6070)
        if kelvin <= 7000
        else (0.237040, 0.24748, 1.9018, -2.0064)
    )
    x = near[0] + t * (near[1] + t * (near[2] + t * near[3]))
    return np.array([x, -3.0 * x * x + 2.870 * x - 0.275])


def _to_uv(xy: np.ndarray) -> np.ndarray:
    """CIE 1960 u, v of chromaticities x, y."""
    x, y = xy
    return np.array([4 * x, 6 * y]) / (12 * y - 2 * x + 3)


def _to_xy(uv: np.ndarray) -> np.ndarray:
    """The inverse of `_to_uv`."""
    u, v = uv
    return np.array([3 * u, 2 * v]) / (2 * u - 8 * v + 4)


def black_body(kelvin: float) -> np.ndarray:
    """CIE 1960 u, v (2,) of a black body of 1000 to 15000 K (Krystek 1985)."""
    t = kelvin
    u = (0.860117757 + 1.54118254e-4 * t + 1.28641212e-7 * t**2) / (
        1 + 8.42420235e-4 * t + 7.08145163e-7 * t**2
    )
    v = (0.317398726 + 4.22806245e-5 * t + 4.20481691e-8 * t**2) / (
        1 - 2.89741816e-5 * t + 1.61456053e-7 * t**2
    )
    return np.array([u, v])


def _locus(mired: float) -> np.ndarray:
    """CIE 1960 u, v of natural light."""
    kelvin = min(1e6 / mired, COLDEST_DAYLIGHT)
    if kelvin >= WARMEST_DAYLIGHT:
        return _to_uv(daylight(kelvin))
    return black_body(kelvin) + _to_uv(daylight(WARMEST_DAYLIGHT)) - black_body(WARMEST_DAYLIGHT)


def _across(mired: float) -> np.ndarray:
    """The direction across the locus towards magenta, of length 1."""
    along = _locus(mired + 0.5) - _locus(mired - 0.5)
    away = np.array([along[1], -along[0]]) / np.hypot(*along)
    return away if away[1] < 0 else -away


def white_of(temperature: float, tint: float = 0.0) -> np.ndarray:
    """Chromaticity x, y (2,) of light that is some mired warmer than D65, and lies some way
    towards magenta; both from 0.
    """
    mired = D65_MIRED + temperature
    return _to_xy(_locus(mired) + tint * TINT * _across(mired))


def _responses(xy: np.ndarray) -> np.ndarray:
    x, y = xy
    out: np.ndarray = CAT16 @ (np.array([x, y, 1 - x - y]) / y)
    return out


def _gains(temperature: float, tint: float) -> np.ndarray:
    """Return the gains of the sharpened responses (3,). A temperature below 0 takes away what the
    same above 0 gives, and a tint too.
    """
    out = np.ones(3)
    for amount, white in (
        (temperature, white_of(abs(temperature))),
        (tint, white_of(0, abs(tint))),
    ):
        gains = _responses(white) / _responses(white_of(0))
        out = out * (gains if amount > 0 else 1 / gains)
    return out


def adaptation(temperature: float, tint: float) -> np.ndarray:
    """Return the matrix that takes linear light (3,) of D65 to that of another white, or back from
    it, (3, 3).
    """
    out: np.ndarray = (
        np.linalg.inv(TO_RESPONSES) @ np.diag(_gains(temperature, tint)) @ TO_RESPONSES
    )
    return out


def neutral(light: np.ndarray) -> tuple[float, float]:
    """Temperature and tint that make a colour grey.

    Parameters
    ----------
    light : (3,) linear light.

    Raises
    ------
    ValueError: the colour has no light, or is too strong to be a grey in any light.
    """
    from scipy.optimize import least_squares  # a slow import, needed here alone

    responses = TO_RESPONSES @ np.asarray(light, np.float64)
    if not (responses > 1e-6).all():
        raise ValueError("no grey can have this colour")
    wanted = np.log(_responses(white_of(0)) / responses)

    def missed(given: np.ndarray) -> np.ndarray:
        gains = np.log(_gains(*given)) - wanted
        return np.array([gains[0] - gains[1], gains[2] - gains[1]])

    found = least_squares(
        missed, np.zeros(2), bounds=([-LARGEST[0], -LARGEST[1]], LARGEST), x_scale=LARGEST
    )
    if np.abs(found.fun).max() > 0.01:
        raise ValueError("no grey can have this colour")
    return float(found.x[0]), float(found.x[1])


@row_step
def _matrix(row: Any, width: int, numbers: Any) -> None:
    planes, given = carray(row, (3, width)), carray(numbers, 9)
    r, g, b = planes[0], planes[1], planes[2]
    m00, m01, m02 = np.float32(given[0]), np.float32(given[1]), np.float32(given[2])
    m10, m11, m12 = np.float32(given[3]), np.float32(given[4]), np.float32(given[5])
    m20, m21, m22 = np.float32(given[6]), np.float32(given[7]), np.float32(given[8])
    for x in range(width):
        red, green, blue = r[x], g[x], b[x]
        r[x] = bounded(m00 * red + m01 * green + m02 * blue)
        g[x] = bounded(m10 * red + m11 * green + m12 * blue)
        b[x] = bounded(m20 * red + m21 * green + m22 * blue)


def steps(temperature: float = 0.0, tint: float = 0.0) -> list[Step]:
    """White balance as steps of a chain; none when nothing is to be changed.

    Parameters
    ----------
    temperature : mired; above 0 the picture is shown in warmer light, as by an amber filter
        of that shift, below 0 it is freed of it.
    tint : thousandths in CIE 1960 u, v; above 0 towards magenta, below towards green.
    """
    if not (temperature or tint):
        return []
    return [Step(_matrix.address, tuple(float(v) for v in adaptation(temperature, tint).ravel()))]
