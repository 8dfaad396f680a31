"""Scopes of the visible part, as pixels that are only to be drawn."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from ..core import scopes
from ..core.frame import Frame
from ..names import ScopeKind, ScopeOf
from ..project.model import Project
from ..render.context import RenderContext
from ..render.layers import Layers
from ..render.stack import rendered, sieve_mask

#: Colour of the trace of luma, 0 to 1.
GREY = (0.86, 0.86, 0.86)
#: Colours of the traces of the three channels, so light that blue shows as well as green.
CHANNELS = ((1.0, 0.36, 0.32), (0.38, 0.9, 0.42), (0.42, 0.6, 1.0))

#: Colours of histograms over each other: where all three are, it is white.
HILLS = tuple((0.55 * red, 0.55 * green, 0.55 * blue) for red, green, blue in CHANNELS)


@dataclass(frozen=True)
class Scope:
    """A scope that is wanted: which, and of what."""

    kind: ScopeKind = "waveform"
    of: ScopeOf = "result"


def scope_pixels(kind: ScopeKind, planes: np.ndarray, mask: np.ndarray | None = None) -> np.ndarray:
    """A scope of a picture (3, H, W), weighed by a mask (H, W) where there is one: screen pixels,
    the parade three times as wide.
    """
    values, across, weights = scopes.coded(planes, mask)
    if kind == "waveform":
        return scopes.traced(scopes.waveform(scopes.luma(values), across, weights), GREY)
    if kind == "parade":
        counts = scopes.parade(values, across, weights)
        return np.concatenate(
            [scopes.traced(one, colour) for one, colour in zip(counts, CHANNELS, strict=True)],
            axis=1,
        )
    if kind == "vectorscope":
        return scopes.traced(scopes.vectorscope(values, weights), GREY)
    return scopes.hills(scopes.histogram(values, weights), HILLS)


def scoped(
    wanted: Sequence[Scope],
    frame: Frame,
    project: Project,
    sieve_id: str,
    context: RenderContext,
    layers: Layers,
) -> dict[Scope, np.ndarray]:
    """The scopes that are wanted of a frame under a resolved project, as screen pixels."""

    def made(scope: Scope) -> np.ndarray:
        if scope.of == "original":
            return scope_pixels(scope.kind, frame.planes)
        planes = rendered(frame, project, context, layers).planes
        masked = scope.of == "masked"
        mask = sieve_mask(frame, project, sieve_id, context, layers) if masked else None
        return scope_pixels(scope.kind, planes, mask)

    return {scope: made(scope) for scope in wanted}
