"""The picture as samples and masks measure it: a dark picture brightened, its noise removed. The
picture that is adjusted stays as it is.
"""

from __future__ import annotations

from typing import NamedTuple

import cv2
import numpy as np

from ..edge.clean import SUPPORT_PER_PASS, cleaned, fitting_amount
from .flat import Range, redone, undone
from .grain_at_half import SUPPORT_AT_HALF, without_grain_at_half
from .non_local_means import grain_of

#: Amounts of cleaning below this smooth chroma alone, by that many passes of a median; from it on
#: grain is removed from lightness too.
FROM_GRAIN = 3
#: Deviation of the noise, in Oklab, for each 1 of such an amount.
GRAIN_EACH = 0.001
#: Largest amount.
MOST = 12
#: Grain below this is left to the median.
GRAIN = 0.0025
#: The brightest pixels are those above this share of all, per cent.
BRIGHT = 99.5
#: A picture is dark as a whole when its brightest pixels are below this light; they are brought to
#: the second.
DARK, BRIGHTENED = 0.45, 0.9
#: A picture with less contrast than this between its darkest and its brightest pixels is not dark
#: but flat: brightening would not tell its colours apart.
CONTRAST = 60.0
#: Most stops that a picture is brightened by.
MOST_STOPS = 6.0
#: Pixels on which the brightest are looked for.
BRIGHT_FROM = 500_000


#: The gains of the light a picture was picked in.
SAME_LIGHT = (1.0, 1.0, 1.0)


class Measuring(NamedTuple):
    """The measuring of a frame: passes of the chroma median, or grain to be removed (deviation in
    Oklab, 0 for none), after its light was multiplied by a gain. Before that, linear red, green and
    blue are divided by ``light``, the light of this picture over that of the one picked on, and
    where it is ``flat``, with its codes in that range, a log curve is undone.
    """

    passes: int = 0
    grain: float = 0.0
    gain: float = 1.0
    light: tuple[float, float, float] = SAME_LIGHT
    flat: Range | None = None

    @property
    def support_radius(self) -> int:
        """Return how many pixels it looks at to every side."""
        return SUPPORT_AT_HALF if self.grain else SUPPORT_PER_PASS * self.passes


#: Nothing is changed.
AS_IT_IS = Measuring()


def measuring_of(
    clean: float,
    stops: float,
    scale: float = 1.0,
    light: tuple[float, float, float] = SAME_LIGHT,
    flat: Range | None = None,
) -> Measuring:
    """Return how a frame is measured by its amounts; a reduced one has less noise left.

    >>> measuring_of(2, 0).passes, measuring_of(4, 1, 0.5)[1:3]
    (2, (0.002, 2.0))
    """
    scale, gain = min(scale, 1.0), 2.0**stops
    if clean < FROM_GRAIN:
        return Measuring(round(clean * scale), 0.0, gain, light, flat)
    return Measuring(0, clean * GRAIN_EACH * scale, gain, light, flat)


def in_light(planes: np.ndarray, how: Measuring) -> np.ndarray:
    """Return linear light (3, H, W) as the light picked in would show it; the same array where that
    is the same.
    """
    if how.light == SAME_LIGHT:
        return planes
    return planes / np.array(how.light, np.float32)[:, None, None]


def as_lit(planes: np.ndarray, how: Measuring) -> np.ndarray:
    """Return linear light (3, H, W) in the light picked in and without a log curve; the same array
    where nothing is done.
    """
    planes = in_light(planes, how)
    return undone(planes, how.flat) if how.flat is not None else planes


def as_taken(light: np.ndarray, how: Measuring) -> np.ndarray:
    """Return measured linear light (3, …) as samples are kept: in the light picked in alone."""
    if how.gain != 1:
        light = light / np.float32(how.gain)
    return redone(light, how.flat) if how.flat is not None else light


def measured(lab: np.ndarray, how: Measuring, corner: tuple[int, int] = (0, 0)) -> np.ndarray:
    """Return the measured frame, (3, H, W) Oklab float32, of one in the light picked in; the same
    array where nothing is done. ``corner`` : row and column of its first pixel in the whole.
    """
    if how.gain != 1:
        # Light times k is Oklab times the cube root of k.
        lab = lab * np.float32(np.cbrt(how.gain))
    if how.grain:
        return without_grain_at_half(lab, how.grain, corner)
    return cleaned(lab, how.passes) if how.passes else lab


def stops_for(planes: np.ndarray) -> float:
    """Return by how many stops a picture (3, H, W) of linear light is brightened: 0 unless it is
    dark as a whole, and not flat.
    """
    every = max(1, int(np.sqrt(planes[0].size / BRIGHT_FROM)))
    seen = np.ascontiguousarray(planes[:, ::every, ::every])
    bright = float(np.percentile(cv2.max(cv2.max(seen[0], seen[1]), seen[2]), BRIGHT))
    black = float(np.percentile(cv2.min(cv2.min(seen[0], seen[1]), seen[2]), 100 - BRIGHT))
    if not max(0.0, CONTRAST * black) < bright < DARK:
        return 0.0
    return round(min(float(np.log2(BRIGHTENED / bright)), MOST_STOPS), 2)


def cleaning_for(lab: np.ndarray) -> float:
    """Return the amount of cleaning that a picture (3, H, W) Oklab, brightened if it is dark, asks
    for; it begins on a block of JPEG.
    """
    grain = grain_of(lab)
    if grain > GRAIN:
        return float(np.clip(round(grain / GRAIN_EACH), FROM_GRAIN, MOST))
    return float(min(fitting_amount(lab), FROM_GRAIN - 1))
