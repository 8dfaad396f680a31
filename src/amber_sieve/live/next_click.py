"""The next click: where on a picture one is likely to change most."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np

from ..core.frame import Frame
from ..core.pick.colour_groups import grouped
from ..core.pick.measured import Measuring, in_light
from ..core.pick.pieces import HALF
from ..core.pick.samples import SampleParams, distance_to
from ..core.pick.unsure import evenness, most_uncertain_pixel
from ..project.model import Pick, Sample, Sieve
from ..render.clicked import place_of
from ..render.context import RenderContext
from ..render.mask import bounds_of, mask_of, probe_of
from ..render.measuring import in_its_light, measuring_for, oklab_of

#: What is so near to a place that was clicked, hundredths of Oklab, and masked alike needs no other
#: click.
SETTLED = 4.5
#: Half the side of the square round a place whose mean is its colour, pixels.
AROUND = 2


def _margin(lab: np.ndarray, pick: Pick, measuring: Measuring) -> np.ndarray:
    """Return how far each pixel lies within the tolerance of the samples that reach everywhere, (H,
    W) float32.
    """
    keeps, drops = (
        [
            s
            for s in pick.samples
            if s.on and s.role == role and s.reach == "everywhere" and s.compare == "surface"
        ]
        for role in ("keep", "drop")
    )

    def distance(sample: Sample) -> np.ndarray:
        return distance_to(lab, [in_its_light(probe_of(sample, pick), measuring)])

    away = [distance(sample) for sample in keeps]
    if not away:
        return np.full(lab.shape[1:], -np.inf, np.float32)
    margin: np.ndarray = np.max(
        [s.tolerance + s.falloff / 2 - d for s, d in zip(keeps, away, strict=True)], axis=0
    )
    nearest = np.min(away, axis=0)
    for sample in drops:
        margin = np.minimum(margin, distance(sample) - nearest)
    return margin.astype(np.float32)


def offered(
    sieve: Sieve,
    frame: Frame,
    context: RenderContext,
    passed: tuple[tuple[float, float], ...] = (),
    step: Callable[[float], None] = lambda share: None,
) -> tuple[float, float] | None:
    """The place, full-resolution pixels, at which a click is likely to change the mask most; None
    where none is, or nothing is picked by surface.

    Parameters
    ----------
    sieve : as it stands on the frame. frame : the whole of what it measures, reduced by about
        `clicking.looked_at`.
    passed : places that were looked at and are right as they are.
    step : hears the share that is done, and may raise to stop.
    """
    keeps = [
        sample
        for sample in sieve.pick.samples
        if sample.on and sample.role == "keep" and sample.compare == "surface"
    ]
    if not keeps or sieve.mask_from != "own":
        return None
    mask = mask_of(frame, sieve, context) > HALF
    measuring = measuring_for(frame, sieve)
    lab = oklab_of(frame, context, measuring)
    step(0.2)
    bounds = bounds_of(frame, sieve, context)
    settled = ~bounds if bounds is not None else np.zeros(mask.shape, bool)
    height, width = mask.shape

    def pixel(place: tuple[float, float]) -> tuple[int, int]:
        return int(np.clip(place[0], 0, width - 1)), int(np.clip(place[1], 0, height - 1))

    places = [pixel(place_of(sample, frame)) for sample in sieve.pick.samples if sample.on]
    places += [
        pixel(((x - frame.origin[0]) * frame.scale, (y - frame.origin[1]) * frame.scale))
        for x, y in passed
    ]
    for number, (x, y) in enumerate(places):
        step(0.2 + 0.2 * number / len(places))
        near = np.s_[max(0, y - AROUND) : y + AROUND + 1, max(0, x - AROUND) : x + AROUND + 1]
        patch = in_light(frame.planes[:, *near], measuring).reshape(3, -1).mean(axis=1)
        red, green, blue = (float(value) for value in patch)
        there = in_its_light(SampleParams((red, green, blue)), measuring)
        settled = settled | ((distance_to(lab, [there]) < SETTLED) & (mask == mask[y, x]))
    step(0.4)
    kept = [pixel(place_of(sample, frame)) for sample in keeps]
    groups = context.get(
        ("colour groups", frame.key, measuring), lambda: grouped(lab, lambda: step(0.4))
    )
    step(0.5)
    even = context.get(("evenness", frame.key, measuring), lambda: evenness(lab))
    margin = _margin(lab, sieve.pick, measuring)
    step(0.6)
    found = most_uncertain_pixel(margin, mask, kept, settled, groups, even, lambda: step(0.6))
    if found is None:
        return None
    return (found[0] + 0.5) / frame.scale + frame.origin[0], (
        found[1] + 0.5
    ) / frame.scale + frame.origin[1]
