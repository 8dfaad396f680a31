"""Oklab, both ways.

Björn Ottosson, "A perceptual color space for image processing" (2020). The matrices below take
linear Rec. 709 light to the cone-like responses and back; they are those of CSS Color 4 (with the
XYZ step multiplied in), which agree with the publication to its printed precision and, unlike it,
give exact greys.
"""

from __future__ import annotations

import numpy as np

from ..jit.parallel import inner, kernel, prange
from .roots import cube_root

#: CSS Color 4: linear sRGB to XYZ (D65), XYZ to LMS, LMS' to Oklab.
_RGB_TO_XYZ = np.array(
    [
        [506752 / 1228815, 87881 / 245763, 12673 / 70218],
        [87098 / 409605, 175762 / 245763, 12673 / 175545],
        [7918 / 409605, 87881 / 737289, 1001167 / 1053270],
    ]
)
_XYZ_TO_LMS = np.array(
    [
        [0.8190224379967030, 0.3619062600528904, -0.1288737815209879],
        [0.0329836539323885, 0.9292868615863434, 0.0361446663506424],
        [0.0481771893596242, 0.2642395317527308, 0.6335478284694309],
    ]
)
_LMS_TO_LAB = np.array(
    [
        [0.2104542683093140, 0.7936177747023054, -0.0040720430116193],
        [1.9779985324311684, -2.4285922420485799, 0.4505937096174110],
        [0.0259040424655478, 0.7827717124575296, -0.8086757549230774],
    ]
)

#: Linear Rec. 709 to the cone-like responses, the two matrices of Oklab's definition in one.
RGB_TO_LMS = _XYZ_TO_LMS @ _RGB_TO_XYZ
LMS_TO_LAB = _LMS_TO_LAB
LMS_TO_RGB = np.linalg.inv(RGB_TO_LMS)
LAB_TO_LMS = np.linalg.inv(LMS_TO_LAB)

(M00, M01, M02), (M10, M11, M12), (M20, M21, M22) = RGB_TO_LMS.astype(np.float32)
(N00, N01, N02), (N10, N11, N12), (N20, N21, N22) = LMS_TO_LAB.astype(np.float32)
(P00, P01, P02), (P10, P11, P12), (P20, P21, P22) = LMS_TO_RGB.astype(np.float32)
(Q00, Q01, Q02), (Q10, Q11, Q12), (Q20, Q21, Q22) = LAB_TO_LMS.astype(np.float32)


@inner
def lab_of(
    r: np.float32, g: np.float32, b: np.float32
) -> tuple[np.float32, np.float32, np.float32]:
    """Oklab of one linear Rec. 709 colour, for use inside kernels."""
    l = cube_root(M00 * r + M01 * g + M02 * b)  # noqa: E741  (the cone response's usual letter)
    m = cube_root(M10 * r + M11 * g + M12 * b)
    s = cube_root(M20 * r + M21 * g + M22 * b)
    return N00 * l + N01 * m + N02 * s, N10 * l + N11 * m + N12 * s, N20 * l + N21 * m + N22 * s


@inner
def rgb_of(
    lightness: np.float32, a: np.float32, b: np.float32
) -> tuple[np.float32, np.float32, np.float32]:
    """Linear Rec. 709 light of one Oklab colour, for use inside kernels."""
    l = Q00 * lightness + Q01 * a + Q02 * b  # noqa: E741
    m = Q10 * lightness + Q11 * a + Q12 * b
    s = Q20 * lightness + Q21 * a + Q22 * b
    l, m, s = l * l * l, m * m * m, s * s * s  # noqa: E741
    return P00 * l + P01 * m + P02 * s, P10 * l + P11 * m + P12 * s, P20 * l + P21 * m + P22 * s


@kernel
def _to_oklab(planes: np.ndarray, out: np.ndarray) -> None:
    for y in prange(planes.shape[1]):
        r, g, b = planes[0, y], planes[1, y], planes[2, y]
        lightness, green_red, blue_yellow = out[0, y], out[1, y], out[2, y]
        for x in range(planes.shape[2]):
            lightness[x], green_red[x], blue_yellow[x] = lab_of(r[x], g[x], b[x])


@kernel
def _to_rgb(lab: np.ndarray, out: np.ndarray) -> None:
    for y in prange(lab.shape[1]):
        lightness, green_red, blue_yellow = lab[0, y], lab[1, y], lab[2, y]
        r, g, b = out[0, y], out[1, y], out[2, y]
        for x in range(lab.shape[2]):
            r[x], g[x], b[x] = rgb_of(lightness[x], green_red[x], blue_yellow[x])


def to_oklab(planes: np.ndarray, out: np.ndarray | None = None) -> np.ndarray:
    """Oklab L, a, b of linear Rec. 709 light.

    Parameters
    ----------
    planes : (3, H, W) float32, linear light, D65; white is 1, any finite value is allowed.
    out : (3, H, W) float32, optional, written to and returned.

    Returns
    -------
    (3, H, W) float32: L (white = 1), a, b.
    """
    result = np.empty(planes.shape, np.float32) if out is None else out
    _to_oklab(planes, result)
    return result


def from_oklab(lab: np.ndarray, out: np.ndarray | None = None) -> np.ndarray:
    """Linear Rec. 709 light of Oklab colours: the inverse of `to_oklab`, same shapes."""
    result = np.empty(lab.shape, np.float32) if out is None else out
    _to_rgb(lab, result)
    return result


def one_to_oklab(rgb: tuple[float, float, float] | np.ndarray) -> np.ndarray:
    """Oklab of a single linear colour, (3,) float64; exact rather than fast.

    Example
    -------
    >>> [abs(round(float(value), 3)) for value in one_to_oklab((1.0, 1.0, 1.0))]
    [1.0, 0.0, 0.0]
    """
    lab: np.ndarray = LMS_TO_LAB @ np.cbrt(RGB_TO_LMS @ np.asarray(rgb, np.float64))
    return lab


def one_from_oklab(lab: tuple[float, float, float] | np.ndarray) -> np.ndarray:
    """Linear light of a single Oklab colour, (3,) float64."""
    rgb: np.ndarray = LMS_TO_RGB @ (LAB_TO_LMS @ np.asarray(lab, np.float64)) ** 3
    return rgb
