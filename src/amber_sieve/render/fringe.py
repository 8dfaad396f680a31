"""Find where a rim of the old colour would stay."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ..core.colour.difference import delta_e_2000, to_cielab
from ..core.edge.follow import follow
from ..core.frame import Frame
from ..core.mix import mixed
from ..project.model import Project
from .adjust import weights_of
from .context import RenderContext
from .evaluate import arriving, made_by, measured, sieve_masked
from .layers import Layers, no_layers
from .mask import final_mask
from .stages.every import steps_of

#: Chosen by trial on the yard, see docs/formulas.md. A partial pixel is hazy when it is farther
#: than this (ΔE2000) from all that its two neighbours can mix to; less is hidden by noise.
VISIBLE = 4.0
#: Reach with which the mixture is looked for where neither Follow nor Fine is on.
REACH = 8.0


@dataclass(frozen=True)
class Fringe:
    """Hazy pixels (H, W) bool as the sieve is set, and their number with and without haze
    handling.
    """

    pixels: np.ndarray
    handled: int
    unhandled: int


def _fringed(out: np.ndarray, foreground: np.ndarray, background: np.ndarray) -> np.ndarray:
    """Return which colours (3, N) are farther than ``VISIBLE`` from every mixture of the new
    surface colour and the one behind it.
    """
    way = foreground - background
    alpha = np.clip(((out - background) * way).sum(0) / np.maximum((way * way).sum(0), 1e-9), 0, 1)
    nearest = background + alpha * way
    return (
        delta_e_2000(to_cielab(np.clip(out, 0, 1).T), to_cielab(np.clip(nearest, 0, 1).T)) > VISIBLE
    )


def fringe_of(
    frame: Frame,
    project: Project,
    sieve_id: str,
    context: RenderContext,
    layers: Layers = no_layers,
) -> Fringe:
    """Look for a rim of old colour in the partial pixels of a sieve's mask.

    A partial pixel should become a mixture of its two neighbours: A(F), the surface's colour
    adjusted, and B, what lies behind. A rim of the old colour lies off the line between them. Noise
    does too, so the count never is nothing.
    """

    sieve = project.sieve(sieve_id)
    seen, below = (
        measured(frame, project, sieve_id, context, layers),
        arriving(frame, project, sieve_id, context, layers),
    )

    def make() -> Fringe:
        unhazed = sieve.but(edge=sieve.edge.but(no_haze=True))
        own = not (sieve.leans_on or sieve.opposite)
        found = (
            final_mask(seen, unhazed, context)
            if own
            else sieve_masked(frame, project, sieve_id, context, layers)
        )
        unmixed = (
            found.unmixed
            or follow(seen.planes, found.mask, max(1.0, REACH * frame.scale), 1.0, seen.corner)[1]
        )
        nothing = Fringe(np.zeros(found.mask.shape, bool), 0, 0)
        if unmixed is None or sieve.adjust.neutral:
            return nothing
        partial = (found.mask > 0.02) & (found.mask < 0.98)
        if not partial.any():
            return nothing
        top, left = unmixed.corner
        height, width = unmixed.band.shape
        box = np.s_[top : top + height, left : left + width]
        outside = partial.copy()
        outside[box] = False
        partial &= ~outside  # what lies beyond the unmixed box has no neighbours to compare with
        foreground = np.stack(
            [unmixed.at_pixels(plane)[partial[box]] for plane in unmixed.foreground]
        )
        background = np.stack(
            [unmixed.at_pixels(plane)[partial[box]] for plane in unmixed.background]
        )
        steps, weights = steps_of(sieve), weights_of(found.mask, sieve)
        strength = np.full((1, foreground.shape[1]), sieve.strength / 100, np.float32)
        after = mixed(np.ascontiguousarray(foreground[:, None]), strength, steps)[:, 0]
        plain = _fringed(mixed(below.planes, weights, steps)[:, partial], after, background)
        handled = _fringed(
            mixed(below.planes, weights, steps, found.unmixed)[:, partial], after, background
        )
        pixels = np.zeros_like(partial)
        pixels[partial] = handled if sieve.edge.no_haze else plain
        return Fringe(pixels, int(handled.sum()), int(plain.sum()))

    return context.get(("haze", frame.key, made_by(project, sieve_id)), make)
