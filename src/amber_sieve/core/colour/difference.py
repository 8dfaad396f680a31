"""Colour differences between single colours."""

from __future__ import annotations

import numpy as np

from .oklab import one_to_oklab


def delta_e_ok(one: np.ndarray, other: np.ndarray) -> float:
    """Euclidean distance in Oklab of two linear colours (3,); 0.02 is one just noticeable
    difference (CSS Color 4).
    """
    return float(np.linalg.norm(one_to_oklab(one) - one_to_oklab(other)))


#: XYZ (D65) of linear Rec. 709 light, and its white (ITU-R BT.709; the rows sum to the white of the
#: primaries).
RGB_TO_XYZ = np.array(
    [
        [0.4123908, 0.3575843, 0.1804808],
        [0.2126390, 0.7151687, 0.0721923],
        [0.0193308, 0.1191948, 0.9505322],
    ]
)
#: Where the cube root of L* gives way to a straight line (CIE 15:2018).
EPSILON = 216 / 24389
#: Slope of that line (CIE 15:2018).
KAPPA = 24389 / 27


def to_cielab(light: np.ndarray) -> np.ndarray:
    """CIE 1976 L*a*b* (D65) of linear light, (N, 3) float64 (ISO/CIE 11664-4)."""
    ratio = np.asarray(light, np.float64) @ RGB_TO_XYZ.T / RGB_TO_XYZ.sum(1)
    f = np.where(ratio > EPSILON, np.cbrt(ratio), (KAPPA * ratio + 16) / 116)
    return np.stack(
        [116 * f[:, 1] - 16, 500 * (f[:, 0] - f[:, 1]), 200 * (f[:, 1] - f[:, 2])], axis=1
    )


def delta_e_2000(one: np.ndarray, other: np.ndarray) -> np.ndarray:
    """CIEDE2000 difference (ISO/CIE 11664-6) of CIELAB colours (N, 3), (N,).

    Written after G. Sharma, W. Wu, E. N. Dalal, "The CIEDE2000 color-difference formula:
    implementation notes" (2005).

    Example
    -------
    >>> f"{delta_e_2000(np.array([[50, 2.6772, -79.7751]]), np.array([[50, 0, -82.7485]]))[0]:.4f}"
    '2.0425'
    """
    light_1, a_1, b_1 = np.asarray(one, np.float64).T
    light_2, a_2, b_2 = np.asarray(other, np.float64).T
    mean_c7 = ((np.hypot(a_1, b_1) + np.hypot(a_2, b_2)) / 2) ** 7
    g = 0.5 * (1 - np.sqrt(mean_c7 / (mean_c7 + 25.0**7)))
    a_1, a_2 = (1 + g) * a_1, (1 + g) * a_2
    c_1, c_2 = np.hypot(a_1, b_1), np.hypot(a_2, b_2)
    h_1, h_2 = np.degrees(np.arctan2(b_1, a_1)) % 360, np.degrees(np.arctan2(b_2, a_2)) % 360
    grey = c_1 * c_2 == 0
    turn = np.where(grey, 0.0, (h_2 - h_1 + 180) % 360 - 180)
    d_light, d_chroma = light_2 - light_1, c_2 - c_1
    d_hue = 2 * np.sqrt(c_1 * c_2) * np.sin(np.radians(turn / 2))
    light, chroma = (light_1 + light_2) / 2, (c_1 + c_2) / 2
    far = np.abs(h_1 - h_2) > 180
    hue = np.where(
        grey,
        h_1 + h_2,
        np.where(far, (h_1 + h_2 + np.where(h_1 + h_2 < 360, 360, -360)) / 2, (h_1 + h_2) / 2),
    )
    t = (
        1
        - 0.17 * np.cos(np.radians(hue - 30))
        + 0.24 * np.cos(np.radians(2 * hue))
        + 0.32 * np.cos(np.radians(3 * hue + 6))
        - 0.20 * np.cos(np.radians(4 * hue - 63))
    )
    turned = 30 * np.exp(-(((hue - 275) / 25) ** 2))
    r_c = 2 * np.sqrt(chroma**7 / (chroma**7 + 25.0**7))
    s_l = 1 + 0.015 * (light - 50) ** 2 / np.sqrt(20 + (light - 50) ** 2)
    s_c, s_h = 1 + 0.045 * chroma, 1 + 0.015 * chroma * t
    terms = (d_light / s_l) ** 2 + (d_chroma / s_c) ** 2 + (d_hue / s_h) ** 2
    terms -= np.sin(np.radians(2 * turned)) * r_c * (d_chroma / s_c) * (d_hue / s_h)
    result: np.ndarray = np.sqrt(np.maximum(terms, 0))
    return result
