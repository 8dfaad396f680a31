"""Measure frames: in Oklab without noise, and brighter where they are dark."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from ..core.colour.measures import hue_saturation_luminance
from ..core.colour.oklab import to_oklab
from ..core.colour.transfer import to_levels
from ..core.frame import Frame
from ..core.pick.measured import AS_IT_IS, SAME_LIGHT, Measuring, in_light, measuring_of
from ..core.pick.measured import measured as as_measured
from ..core.pick.samples import SampleParams
from ..project.model import Sieve, amount
from .context import RenderContext


def oklab_of(frame: Frame, context: RenderContext, measuring: Measuring = AS_IT_IS) -> np.ndarray:
    """Return the measured frame in Oklab, (3, H, W)."""
    planes = in_light(frame.planes, measuring)
    if measuring != AS_IT_IS and context.keeps_nothing:  # nobody else will see the raw one
        return as_measured(to_oklab(planes), measuring)
    lab = context.get(("oklab", frame.key, measuring.light), lambda: to_oklab(planes))
    if measuring == Measuring(light=measuring.light):
        return lab
    return context.get(("measured", frame.key, measuring), lambda: as_measured(lab, measuring))


def in_its_light(probe: SampleParams, measuring: Measuring) -> SampleParams:
    """A sample for a frame that is measured brighter, where its comparison looks at that."""
    if measuring.gain == 1 or probe.compare not in ("surface", "colour"):
        return probe
    red, green, blue = (measuring.gain * value for value in probe.colour)
    return replace(probe, colour=(red, green, blue))


def measures_of(
    frame: Frame, context: RenderContext, levels: bool = True, measuring: Measuring = AS_IT_IS
) -> np.ndarray:
    """Hue, saturation, luminance and, when asked for, red, green, blue levels of the frame, (3 or
    6, H, W).
    """

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
    edge, light = sieve.edge, sieve.pick.light
    gains = SAME_LIGHT if isinstance(light, str) else light
    return measuring_of(amount(edge.clean), amount(edge.level), frame.scale, gains)
