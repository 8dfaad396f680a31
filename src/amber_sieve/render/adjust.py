"""Adjust the picture that reaches a sieve."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

import numpy as np

from ..core.adjust import blending, detail, fill
from ..core.adjust.surroundings import of_surroundings, whole
from ..core.frame import Frame
from ..core.mix import NO_FILLING, Begun, Filling, Mixture, before_backdrop
from ..core.mix import adjusted as done_everywhere
from ..project.model import Fill, Sieve
from .masked import Masked
from .stages.every import DETAIL, steps_of


def weights_of(mask: np.ndarray, sieve: Sieve) -> np.ndarray:
    """Return how much of the adjustment every pixel gets: the mask, the outside level, the
    strength.
    """
    if sieve.outside == 0 and sieve.strength == 100:
        return mask
    outside, strength = np.float32(sieve.outside / 100), np.float32(sieve.strength / 100)
    return (outside + (1 - outside) * mask) * strength


def filling_of(
    settings: Fill, frame: Frame, mask: np.ndarray, picture: Frame | None
) -> Filling | None:
    """Return the filling of a frame where it is masked; None for nothing of its own."""
    behind = settings.fill_where == "behind"
    if settings.neutral:
        return None
    if settings.fill == "colour":
        return fill.of_colour(settings.fill_colour, behind)
    if settings.fill == "surroundings":
        return of_surroundings(frame.planes, mask, frame.scale)
    if settings.fill == "gradient":
        return fill.of_gradient(
            settings.fill_colour,
            settings.fill_to,
            settings.fill_angle,
            frame.whole_size,
            frame,
            behind,
        )
    if settings.fill == "picture" and picture is not None:
        moved = (settings.fill_across, settings.fill_down, settings.fill_scale)
        return fill.of_picture(picture, *moved, frame.whole_size, frame, behind)
    return Filling(NO_FILLING.layers, behind)


def adjusted(
    below: Frame, masked: Masked, sieve: Sieve, picture: Frame | None = None
) -> tuple[np.ndarray, np.ndarray | None]:
    """Planes and alpha of the picture after this sieve; those that came when it changes nothing.

    ``picture`` is the one that fills, where the sieve names one.
    """
    made, alpha = adjusting(below, masked, sieve, picture)
    return made.whole() if isinstance(made, Mixture) else made, alpha


def adjusting(
    below: Frame,
    masked: Masked,
    sieve: Sieve,
    picture: Frame | None = None,
    begin: Callable[[Mixture], np.ndarray] = Mixture.whole,
) -> tuple[np.ndarray | Mixture, np.ndarray | None]:
    """As `adjusted`, but what can be worked out some rows at a time is left to be. ``begin`` works
    out all of what detail starts from.
    """
    planes, alpha, adjust = below.planes, below.alpha, sieve.adjust
    if adjust.neutral or sieve.strength == 0:
        return planes, alpha
    if not adjust.fill.neutral and adjust.fill.fill == "surroundings":
        masked = Masked(whole(masked.mask), None)
    weights, steps, begun = weights_of(masked.mask, sieve), steps_of(sieve), None
    laid_over = blending.steps(sieve.blend)
    filling, opacity = (
        filling_of(adjust.fill, below, masked.mask, picture),
        np.float32(adjust.fill.fill_opacity / 100),
    )
    if not adjust.detail.neutral:
        start = begin(Mixture(planes, (weights > 0).astype(np.float32), steps)) if steps else planes
        worked = detail.with_detail(
            start, weights, **DETAIL.told(sieve), scale=below.scale, origin=below.origin
        )
        begun = Begun(steps, start, worked)
        last = laid_over
    else:
        last = [*steps, *laid_over] if steps or filling else []
    if filling and filling.behind:
        backdrop = Filling(
            filling.layers * np.array([1, 1, 1, opacity], np.float32)[:, None, None], True
        )
        return before_backdrop(
            planes, masked.mask, last, backdrop, sieve.strength / 100, masked.unmixed, begun
        )
    if filling and adjust.fill.fill != "nothing":
        mode = "normal" if adjust.fill.fill == "surroundings" else adjust.fill.fill_blend
        front = blending.filling(mode, float(opacity))
        last = [*(steps if begun is None else []), front, *laid_over]
    if adjust.fill.fill == "nothing" and filling:
        alpha = (1 if alpha is None else alpha) * (1 - weights * opacity)
    if not last and begun is None:
        return planes, alpha
    made = Mixture(planes, weights, last, masked.unmixed, begun, filling or NO_FILLING)
    if masked.colour is not None and sieve.outside == 0:
        made = replace(made, colour=masked.colour, strength=sieve.strength / 100)
    return made, alpha


def shown_adjustment(planes: np.ndarray, sieve: Sieve) -> np.ndarray:
    """The pointwise blocks of a sieve over some colours (3, H, W), everywhere."""
    steps = steps_of(sieve)
    return done_everywhere(planes, steps) if steps else planes
