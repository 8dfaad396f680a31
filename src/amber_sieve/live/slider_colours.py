"""Colours for the track of a number: a reference colour as each value of the number makes it."""

from __future__ import annotations

import functools

import numpy as np

from ..core.colour.oklab import one_from_oklab, one_to_oklab
from ..core.colour.transfer import encode, one_encoded
from ..project.edits import with_field
from ..project.fields import spec_at
from ..project.model import Colour, Sieve
from ..render.adjust import shown_adjustment

#: Colours along a slider: between two of them a straight line cannot be told from the truth.
STOPS = 25
#: Numbers that are a hue themselves, and those whose doing is shown on the reference.
HUES = ("shadows_hue", "midtones_hue", "highlights_hue", "one_hue_at")
SHOWN = ("temperature", "tint", "hue", "saturation", "vibrance", "lightness")
#: What stands in for a colour while none has been sampled: terracotta; white balance is shown on a
#: grey.
REFERENCE: Colour = (0.35, 0.13, 0.06)
#: The colour that is shown where nothing is picked yet, linear light.
GREY: Colour = (0.4, 0.4, 0.4)
#: Oklab lightness to which dark references are lifted.
LIGHTEST = 0.6


def hue_ring(stops: int = STOPS) -> np.ndarray:
    """sRGB-coded colours (N, 3) of all hues, alike in lightness and chroma."""
    angles = np.radians(np.linspace(0, 360, stops))
    lights = [
        one_from_oklab((0.70, 0.12 * np.cos(angle), 0.12 * np.sin(angle))) for angle in angles
    ]
    # Without a kernel: the first one to run loads the compiler, and a start need not wait for that.
    return np.clip(np.array([one_encoded(light) for light in lights]), 0, 1)


def visible(light: Colour) -> Colour:
    """A colour in as much light as it needs to be told on a track."""
    lightness = float(one_to_oklab(light)[0])
    lift = (LIGHTEST / max(lightness, 0.05)) ** 3 if lightness < LIGHTEST else 1.0
    red, green, blue = (float(value) * lift for value in light)
    return red, green, blue


@functools.lru_cache(maxsize=256)
def track_of(path: str, reference: Colour = REFERENCE) -> np.ndarray | None:
    """sRGB-coded colours (N, 3) along the track of a number of an adjustment, named by its way;
    None for one without colours.
    """
    name = path.rpartition(".")[2]
    if name in HUES:
        return hue_ring()
    if name not in SHOWN:
        return None
    spec, light = spec_at(Sieve, path), GREY if name in ("temperature", "tint") else reference
    plain, planes = Sieve(), np.array(light, np.float32)[:, None, None]
    values = np.linspace(spec.soft_low, spec.soft_high, STOPS)
    lights = [
        shown_adjustment(planes, with_field(plain, path, float(value)))[:, 0, 0] for value in values
    ]
    return np.clip(encode(np.array(lights)), 0, 1)
