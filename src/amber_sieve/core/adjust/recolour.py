"""Turning hue, saturation and lightness in Oklab, mixed in by a mask."""

from __future__ import annotations

import numpy as np
from numba import prange

from ..colour.oklab import lab_of, rgb_of
from ..parallel import kernel


@kernel
def _recolour(planes: np.ndarray, mask: np.ndarray, cos: float, sin: float, lift: float, out: np.ndarray) -> None:
    one = np.float32(1)
    turn_cos, turn_sin, lift32 = np.float32(cos), np.float32(sin), np.float32(lift)
    for y in prange(planes.shape[1]):
        r, g, b, m = planes[0, y], planes[1, y], planes[2, y], mask[y]
        to_r, to_g, to_b = out[0, y], out[1, y], out[2, y]
        for x in range(planes.shape[2]):
            light, a, b_ = lab_of(r[x], g[x], b[x])
            a, b_ = a * turn_cos - b_ * turn_sin, a * turn_sin + b_ * turn_cos
            goal = max(light, one) if lift32 > 0 else np.float32(0)
            light = light + (goal - light) * abs(lift32)
            new_r, new_g, new_b = rgb_of(light, a, b_)
            to_r[x] = r[x] + m[x] * (new_r - r[x])
            to_g[x] = g[x] + m[x] * (new_g - g[x])
            to_b[x] = b[x] + m[x] * (new_b - b[x])


def recolour(
    planes: np.ndarray, mask: np.ndarray, hue: float = 0.0, saturation: float = 0.0, lightness: float = 0.0, out: np.ndarray | None = None
) -> np.ndarray:
    """Recolour a picture inside a mask: in + mask * (recoloured - in).

    Parameters
    ----------
    planes : (3, H, W) float32, linear light.
    mask : (H, W) float32, 0 to 1.
    hue : degrees to turn the Oklab hue by.
    saturation : -100 (grey) to 100 (twice the chroma), per cent.
    lightness : -100 (black) to 100 (white), per cent of the way there, in Oklab; chroma goes the same way to nothing,
        so darkening keeps hue and saturation as less light would.
    out : (3, H, W) float32, optional; may be ``planes`` itself.

    Returns
    -------
    (3, H, W) float32, unbounded. Where the mask is 0 the picture is returned bit by bit.
    """
    result = np.empty_like(planes) if out is None else out
    lift = float(np.clip(lightness, -100, 100)) / 100
    chroma = max(0.0, 1 + saturation / 100) * (1 - abs(lift))
    angle = np.radians(hue)
    _recolour(planes, mask, float(np.cos(angle) * chroma), float(np.sin(angle) * chroma), lift, result)
    return result
