"""Measure frames: in Oklab without noise, and brighter where they are dark."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from ..core.colour.measures import hue_saturation_luminance
from ..core.colour.oklab import to_oklab
from ..core.colour.transfer import to_levels
from ..core.frame import Frame
from ..core.pick.flat import undone
from ..core.pick.measured import AS_IT_IS, SAME_LIGHT, Measuring, as_lit, in_light, measuring_of
from ..core.pick.measured import measured as as_measured
from ..core.pick.samples import SampleParams
from ..project.model import Sieve, amount
from .context import RenderContext


def oklab_of(frame: Frame, context: RenderContext, measuring: Measuring = AS_IT_IS) -> np.ndarray:
    """Return the measured frame in Oklab, (3, H, W)."""

    def raw() -> np.ndarray:
        return to_oklab(as_lit(frame.planes, measuring))

    def make() -> np.ndarray:
        return as_measured(lab, measuring, frame.corner)

    if measuring != AS_IT_IS and context.keeps_nothing:  # nobody else will see the raw one
        return as_measured(raw(), measuring, frame.corner)
    lab = context.get(("oklab", frame.key, measuring.light, measuring.flat), raw)
    if measuring == Measuring(light=measuring.light, flat=measuring.flat):
        return lab
    return context.get(("measured", frame.key, measuring), make)


def in_its_light(probe: SampleParams, measuring: Measuring) -> SampleParams:
    """A sample for a frame that is measured brighter or without its log curve, where its comparison
    looks at that.
    """
    if measuring.gain == 1 and measuring.flat is None:
        return probe
    if probe.compare not in ("surface", "colour"):
        return probe
    colour = np.array(probe.colour, np.float32)
    colour = undone(colour, measuring.flat) if measuring.flat is not None else colour
    red, green, blue = (float(measuring.gain * value) for value in colour)
    return replace(probe, colour=(red, green, blue))


def measures_of(
    frame: Frame, context: RenderContext, levels: bool = True, measuring: Measuring = AS_IT_IS
) -> np.ndarray:
    """Hue, saturation, luminance and, when asked for, red, green, blue levels of the frame, (3 or
    6, H, W). They are those of a flat picture as it is.
    """
    measuring = measuring._replace(flat=None)
    return context.get(
        ("measures", frame.key, levels, measuring),
        lambda: measures_from(
            in_light(frame.planes, measuring), oklab_of(frame, context, measuring), levels
        ),
    )


def measures_from(planes: np.ndarray, lab: np.ndarray, levels: bool) -> np.ndarray:
    """Return the measures of light (3, H, W) that is also given in Oklab; see `measures_of`."""
    out = np.empty((6 if levels else 3, *planes.shape[1:]), np.float32)
    hue_saturation_luminance(planes, lab, out[:3])
    if levels:
        out[3:] = to_levels(planes)
    return out


def measuring_for(frame: Frame, sieve: Sieve) -> Measuring:
    """Return how a sieve measures a frame; "auto" must have been found."""
    edge, light, flat = sieve.edge, sieve.pick.light, sieve.pick.flat
    gains = SAME_LIGHT if isinstance(light, str) else light
    codes = None if isinstance(flat, str) else flat
    return measuring_of(amount(edge.clean), amount(edge.level), frame.scale, gains, codes)
