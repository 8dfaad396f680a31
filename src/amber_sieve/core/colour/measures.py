"""Measures of a pixel: hue, saturation and luminance, besides Oklab.

Hue is the Oklab angle in degrees. Saturation is C / L divided by the largest C / L that sRGB has at
that hue, in per cent (after Björn Ottosson, "Okhsv and Okhsl", 2021, whose gamut boundary at a hue
is used): multiplying light by any factor changes neither. Luminance is CIE 1976 L* of the Rec. 709
relative luminance, 0 to 100 (ISO/CIE 11664-4).
"""

from __future__ import annotations

import functools

import numpy as np

from ..jit.parallel import index_in, inner, kernel, prange
from .oklab import LMS_TO_LAB, RGB_TO_LMS, one_to_oklab
from .roots import cube_root, hue_degrees

#: Rec. 709 luminance weights (ITU-R BT.709).
WEIGHT_R, WEIGHT_G, WEIGHT_B = np.float32(0.2126), np.float32(0.7152), np.float32(0.0722)
#: CIE L* below this relative luminance is a straight line (CIE 15:2018).
STRAIGHT_BELOW = np.float32(216 / 24389)
#: The slope of that line (CIE 15:2018).
STRAIGHT_SLOPE = np.float32(24389 / 27)
STEPS_PER_DEGREE = np.float32(10)
#: Steps of the whole circle, and one to spare.
HUE_STEPS = 3601


@functools.cache
def reachable_saturation() -> np.ndarray:
    """Largest C / L of an sRGB colour at every tenth of a degree of hue (3601 values and one to
    spare).

    C / L does not change with brightness and falls when grey is added, so it is largest where one
    channel is zero: on the way round from red over yellow, green, cyan, blue and magenta. That way
    is walked in small steps. Near blue it turns back in hue; the larger value counts.
    """
    rise = np.linspace(0, 1, 8_000)
    one, none = np.ones_like(rise), np.zeros_like(rise)
    corners = [
        (one, rise, none),
        (1 - rise, one, none),
        (none, one, rise),
        (none, 1 - rise, one),
        (rise, none, one),
        (one, none, 1 - rise),
    ]
    light, a, b = LMS_TO_LAB @ np.cbrt(
        RGB_TO_LMS @ np.concatenate([np.stack(edge) for edge in corners], 1)
    )
    tenth = np.rint(np.degrees(np.arctan2(b, a)) % 360 * 10).astype(int)
    largest = np.zeros(3602)
    np.maximum.at(largest, tenth, np.hypot(a, b) / light)
    largest[0] = largest[3600] = max(largest[0], largest[3600])
    largest[3601] = largest[1]
    return largest


@functools.cache
def one_over_reachable() -> np.ndarray:
    """Return the factor of C / L for saturation in per cent, by tenths of a degree of hue (3602,)
    float32.
    """
    return (100 / reachable_saturation()).astype(np.float32)


@inner
def lightness_of(luminance: np.float32) -> np.float32:
    """CIE L* (0 to 100) of a relative luminance, for use inside kernels; negative light gives
    negative L*.
    """
    root = np.float32(116) * cube_root(luminance) - np.float32(16)
    return root if luminance > STRAIGHT_BELOW else STRAIGHT_SLOPE * luminance


@kernel
def _measure(planes: np.ndarray, lab: np.ndarray, table: np.ndarray, out: np.ndarray) -> None:
    for y in prange(planes.shape[1]):
        r, g, b = planes[0, y], planes[1, y], planes[2, y]
        lightness, a, b_ = lab[0, y], lab[1, y], lab[2, y]
        hue, saturation, luminance = out[0, y], out[1, y], out[2, y]
        for x in range(planes.shape[2]):
            hue[x] = hue_degrees(a[x], b_[x])
        for x in range(planes.shape[2]):
            # C / L of black is 0 / 0: below an L of 1e-4 (a light of 1e-12) everything counts as
            # grey.
            ratio = np.sqrt(a[x] * a[x] + b_[x] * b_[x]) / max(lightness[x], np.float32(1e-4))
            saturation[x] = (
                ratio * table[index_in(hue[x] * STEPS_PER_DEGREE + np.float32(0.5), HUE_STEPS)]
            )
        for x in range(planes.shape[2]):
            luminance[x] = lightness_of(WEIGHT_R * r[x] + WEIGHT_G * g[x] + WEIGHT_B * b[x])


def hue_saturation_luminance(
    planes: np.ndarray, lab: np.ndarray, out: np.ndarray | None = None
) -> np.ndarray:
    """Hue (degrees, 0 to 360), saturation (per cent) and luminance (L*) of a picture.

    Parameters
    ----------
    planes : (3, H, W) float32, linear light.
    lab : (3, H, W) float32, the same picture in Oklab (`to_oklab`).

    Returns
    -------
    (3, H, W) float32
    """
    result = np.empty(planes.shape, np.float32) if out is None else out
    _measure(planes, lab, one_over_reachable(), result)
    return result


def one_hue_saturation_luminance(rgb: np.ndarray) -> tuple[float, float, float]:
    """The same of a single linear colour (3,).

    Example
    -------
    >>> [round(float(value)) for value in one_hue_saturation_luminance(np.array([1.0, 0.0, 0.0]))]
    [29, 100, 53]
    """
    light, a, b = one_to_oklab(rgb)
    hue = float(np.degrees(np.arctan2(b, a)) % 360)
    saturation = (
        100
        * float(np.hypot(a, b))
        / max(float(light), 1e-4)
        / float(np.interp(hue, np.arange(3602) / 10, reachable_saturation()))
    )
    luminance = float(0.2126 * rgb[0] + 0.7152 * rgb[1] + 0.0722 * rgb[2])
    return (
        hue,
        saturation,
        116 * float(np.cbrt(luminance)) - 16 if luminance > 216 / 24389 else luminance * 24389 / 27,
    )
