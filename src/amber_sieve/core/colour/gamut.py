"""Bringing colours back into the output gamut.

CSS Color 4, "Sample pseudocode for gamut mapping": chroma is lowered at constant Oklab lightness
and hue until the colour fits. Without the local clip of that text, which saves chroma at the cost
of a hue shift.
"""

from __future__ import annotations

import numpy as np

from ..jit.parallel import kernel, prange, serial_kernel
from .oklab import lab_of, rgb_of
from .transfer import ONE

#: How far outside 0 to 1 still counts as inside: a quarter of a 16-bit step.
SLACK = np.float32(4e-6)
#: Halvings of chroma: far finer than one code of 16 bits.
HALVINGS = 18


@serial_kernel
def row_fits(r: np.ndarray, g: np.ndarray, b: np.ndarray) -> bool:
    """Return whether a row of red, green and blue is inside 0 to 1 already, for use inside
    kernels.
    """
    top, some = ONE + SLACK, 0
    for x in range(r.size):
        some |= (min(r[x], g[x], b[x]) < -SLACK) | (max(r[x], g[x], b[x]) > top)
    return some == 0


@serial_kernel
def lower_row(
    r: np.ndarray,
    g: np.ndarray,
    b: np.ndarray,
    to_r: np.ndarray,
    to_g: np.ndarray,
    to_b: np.ndarray,
) -> None:
    """One row of red, green and blue, brought inside 0 to 1, for use inside kernels."""
    top, half, width = ONE + SLACK, np.float32(0.5), r.size
    for x in range(width):
        to_r[x], to_g[x], to_b[x] = r[x], g[x], b[x]
    if row_fits(r, g, b):
        return
    # Those outside are put side by side, so that their halvings vectorise. There is room for the
    # whole row: how many there are is counted where they are put, never by a comparison of its own
    # that might come out otherwise.
    places, held = np.empty(width, np.int32), np.empty((5, width), np.float32)
    lightness, a, b_, low, high = held[0], held[1], held[2], held[3], held[4]
    outside = 0
    for x in range(width):
        if min(r[x], g[x], b[x]) < -SLACK or max(r[x], g[x], b[x]) > top:
            places[outside] = x
            lightness[outside], a[outside], b_[outside] = r[x], g[x], b[x]
            outside += 1
    for k in range(outside):
        lightness[k], a[k], b_[k] = lab_of(lightness[k], a[k], b_[k])
        low[k], high[k] = np.float32(0), np.float32(1)
    for _ in range(HALVINGS):
        for k in range(outside):
            middle = (low[k] + high[k]) * half
            red, green, blue = rgb_of(lightness[k], a[k] * middle, b_[k] * middle)
            fits = (min(red, green, blue) >= 0) & (max(red, green, blue) <= 1)
            low[k], high[k] = middle if fits else low[k], high[k] if fits else middle
    for k in range(outside):
        red, green, blue = rgb_of(lightness[k], a[k] * low[k], b_[k] * low[k])
        white, black = lightness[k] >= 1, lightness[k] <= 0
        x = places[k]
        to_r[x] = np.float32(1) if white else np.float32(0) if black else red
        to_g[x] = np.float32(1) if white else np.float32(0) if black else green
        to_b[x] = np.float32(1) if white else np.float32(0) if black else blue


@kernel
def _lower_chroma(planes: np.ndarray, out: np.ndarray) -> None:
    for y in prange(planes.shape[1]):
        lower_row(planes[0, y], planes[1, y], planes[2, y], out[0, y], out[1, y], out[2, y])


def lower_chroma(planes: np.ndarray) -> np.ndarray:
    """Linear light (3, H, W) with every colour inside 0 to 1 (within 4e-6); what was inside is
    returned unchanged.

    Example
    -------
    >>> bool(lower_chroma(np.array([[[1.2]], [[0.1]], [[0.1]]], np.float32)).max() <= 1)
    True
    """
    out = np.empty_like(planes)
    _lower_chroma(planes, out)
    return out
