"""Undo a plausible log curve in a flat picture, so that its colours differ more.

Footage recorded with a log curve and read as sRGB shows a scene of some stops between two codes
that never come near 0 and 1. Code v then stands for light 2^(S·(v − high)/(high − low)) less what
makes the darkest black: log curves are straight in stops but for their foot (as published for
every camera log; S is ours, `docs/formulas.md`).
"""

from __future__ import annotations

import numpy as np

from ..colour.transfer import decode, encode

#: The darkest and brightest pixels are those beyond this share of all, per cent.
ENDS = 0.5
#: A picture whose codes stay between these is flat, when its light has less contrast than the last.
LOW, HIGH, CONTRAST = 0.05, 0.72, 60.0
#: The two codes lie at least this far apart.
LEAST_WIDE = 0.05
#: Stops between the darkest and the brightest, and the light that the brightest is brought to.
STOPS, BRIGHTEST = 5.0, 0.9
#: No pixel is brought to more stops above the brightest.
MOST_STOPS = 16.0
#: Pixels on which the ends are looked for.
COUNTED = 500_000
#: The light that the darkest code would have without its foot.
FOOT = np.float32(2.0**-STOPS)
#: The lowest and highest code of a flat picture.
Range = tuple[float, float]


def flat_range(planes: np.ndarray) -> Range | None:
    """Return the range of sRGB codes of a picture (3, H, W) of linear light that is flat; None for
    one that is not.
    """
    every = max(1, int(np.sqrt(planes[0].size / COUNTED)))
    seen = np.ascontiguousarray(planes[:, ::every, ::every])
    if not seen.size:
        return None
    black = float(np.percentile(seen.min(axis=0), ENDS))
    bright = float(np.percentile(seen.max(axis=0), 100 - ENDS))
    if not 0 < bright < CONTRAST * black:
        return None
    if np.array_equal(seen.max(axis=0), seen.min(axis=0)):  # grey: there is no colour to tell apart
        return None
    low, high = (float(v) for v in encode(np.array([black, bright], np.float32)))
    return (
        (round(low, 3), round(high, 3)) if LOW < low < high - LEAST_WIDE and high < HIGH else None
    )


def _ends(codes: Range) -> tuple[np.float32, np.float32]:
    """The higher code, and how far the lower one lies below it; codes by hand may lie together."""
    low, high = min(codes), max(codes)
    return np.float32(high), np.float32(max(high - low, LEAST_WIDE))


def undone(planes: np.ndarray, codes: Range) -> np.ndarray:
    """Return linear light (…) without the log curve that a range of codes suggests."""
    high, wide = _ends(codes)
    coded = encode(np.ascontiguousarray(planes, np.float32))
    stops = np.minimum(np.float32(STOPS) * (coded - high) / wide, np.float32(MOST_STOPS))
    light = np.exp2(stops) - FOOT
    light *= np.float32(BRIGHTEST) / (1 - FOOT)
    return light


def redone(light: np.ndarray, codes: Range) -> np.ndarray:
    """Return linear light (…) from which the curve was undone as it was before."""
    high, wide = _ends(codes)
    root = np.maximum(light * ((1 - FOOT) / np.float32(BRIGHTEST)) + FOOT, np.float32(1e-9))
    coded = np.log2(root) * (wide / np.float32(STOPS)) + high
    return decode(coded).astype(np.float32)
