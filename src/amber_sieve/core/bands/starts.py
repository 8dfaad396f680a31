"""Bands to start from: tonal thirds whose neighbours sum to one, and bands round sampled
colours.
"""

from __future__ import annotations

import numpy as np

#: L* at which shadows give way to midtones: a third of lightness.
SHADOWS_END = 100 / 3
#: L* at which midtones give way to highlights: two thirds of lightness.
HIGHLIGHTS_START = 200 / 3
#: Lower percentile of the sampled pixels that must count fully: not the darkest, which are noise.
#: The margins below were chosen by trial on the yard (docs/formulas.md).
INNER_LOW = 2.0
#: Upper percentile of them.
INNER_HIGH = 98.0

Corners = tuple[float, float, float, float]


def tonal(part: str, softness: float) -> Corners:
    """Luminance corners of shadows, midtones or highlights.

    Parameters
    ----------
    softness : 0 (hard) to 100 (as soft as fits), per cent. With a falloff symmetrical about its
        middle (linear, smooth), the three parts sum to one everywhere.

    Example
    -------
    >>> [round(corner, 1) for corner in tonal("shadows", 50)]
    [0.0, 0.0, 25.0, 41.7]
    """
    half = (HIGHLIGHTS_START - SHADOWS_END) / 2 * softness / 100
    if part == "shadows":
        return (0.0, 0.0, SHADOWS_END - half, SHADOWS_END + half)
    if part == "midtones":
        return (
            SHADOWS_END - half,
            SHADOWS_END + half,
            HIGHLIGHTS_START - half,
            HIGHLIGHTS_START + half,
        )
    if part == "highlights":
        return (HIGHLIGHTS_START - half, HIGHLIGHTS_START + half, 100.0, 100.0)
    raise ValueError(
        f"there is no tonal part called {part!r}; there are shadows, midtones and highlights"
    )


def arc(hues: np.ndarray) -> tuple[float, float]:
    """Start and end (degrees; the end may pass 360) of the arc that holds the middle share of some
    hues.
    """
    middle = np.degrees(np.angle(np.exp(1j * np.radians(hues)).mean())) % 360
    offset = (hues - middle + 180) % 360 - 180
    low, high = np.percentile(offset, [INNER_LOW, INNER_HIGH])
    start = (middle + low) % 360
    return float(start), float(start + high - low)


def around(hue: np.ndarray, saturation: np.ndarray, luminance: np.ndarray) -> dict[str, Corners]:
    """Corners of a hue, a saturation and a luminance band round sampled pixels.

    The core holds the middle 96 per cent of the pixels and a margin; further clicks widen it.
    Luminance gets the widest
    margin: it changes most over one surface (light scales all channels alike), and hue the
        smallest.

    Parameters
    ----------
    hue, saturation, luminance : (N,) of the sampled pixels, in degrees, per cent and L*.
    """
    start, end = arc(hue)
    hue_margin = 6.0
    s_low, s_high = np.percentile(saturation, [INNER_LOW, INNER_HIGH])
    l_low, l_high = np.percentile(luminance, [INNER_LOW, INNER_HIGH])
    s_margin, l_low_margin, l_high_margin = 0.22 * s_high + 2, 0.6 * l_low, 0.35 * (100 - l_high)

    def spread(
        low: float, high: float, below: float, above: float, falloff: float, top: float
    ) -> Corners:
        first, last = max(low - below, 0.0), min(high + above, top)
        return (max(first - falloff, 0.0), first, last, min(last + falloff, top))

    return {
        "hue": (start - hue_margin - 6, start - hue_margin, end + hue_margin, end + hue_margin + 6),
        "saturation": spread(
            float(s_low), float(s_high), float(s_margin), float(s_margin), 5.0, 150.0
        ),
        "luminance": spread(
            float(l_low), float(l_high), float(l_low_margin), float(l_high_margin), 5.0, 100.0
        ),
    }
