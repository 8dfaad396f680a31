"""Scopes of what is seen, as pixels that are only to be drawn."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal, get_args

import numpy as np

from ..core import scopes
from ..core.frame import Frame
from ..project.model import Project
from ..render.cache import Cache
from ..render.layers import Layers
from ..render.stack import rendered, sieve_mask

#: The scopes, and what they are of.
ScopeKind = Literal["waveform", "parade", "vectorscope", "histogram"]
SCOPE_KINDS: tuple[ScopeKind, ...] = get_args(ScopeKind)
ScopeOf = Literal["result", "original", "masked"]
SCOPES_OF: tuple[ScopeOf, ...] = get_args(ScopeOf)
#: Colours of traces, 0 to 1: luma, and the three channels so light that blue shows as well as green.
GREY, CHANNELS = (0.86, 0.86, 0.86), ((1.0, 0.36, 0.32), (0.38, 0.9, 0.42), (0.42, 0.6, 1.0))


@dataclass(frozen=True)
class Scope:
    """A scope that is wanted: which, and of what."""

    kind: ScopeKind = "waveform"
    of: ScopeOf = "result"


def _traced(counts: np.ndarray, colour: tuple[float, float, float]) -> np.ndarray:
    """Counts (H, W) as light of one colour, (H, W, 3) in 0 to 1: lifted, so that a single pixel shows."""
    lit = np.sqrt(np.log1p(counts) / max(np.log1p(counts.max()), 1e-9))
    return lit[..., None] * np.asarray(colour)


def _pixels(light: np.ndarray) -> np.ndarray:
    """Light (H, W, 3) in 0 to 1 as screen pixels (H, W) uint32."""
    levels = np.rint(np.clip(light, 0, 1) * 255).astype(np.uint32)
    return np.ascontiguousarray(np.uint32(0xFF000000) | levels[..., 0] << 16 | levels[..., 1] << 8 | levels[..., 2])


def _hills(counts: np.ndarray) -> np.ndarray:
    """Histograms (3, N) over each other, (N, N, 3) in 0 to 1."""
    heights = np.sqrt(counts / max(counts.max(), 1e-9)) * scopes.CELLS
    rows = np.arange(scopes.CELLS)[::-1, None]
    return sum(
        (rows < high[None]).astype(float)[..., None] * np.asarray(colour) * 0.55 for high, colour in zip(heights, CHANNELS, strict=True)
    )


def scope_pixels(kind: ScopeKind, planes: np.ndarray, mask: np.ndarray | None = None) -> np.ndarray:
    """A scope of a picture (3, H, W), weighed by a mask (H, W) where there is one: screen pixels, the parade three times as wide."""
    values, across, weights = scopes.coded(planes, mask)
    if kind == "waveform":
        return _pixels(_traced(scopes.waveform(scopes.luma(values), across, weights), GREY))
    if kind == "parade":
        traces = [_traced(scopes.waveform(channel, across, weights), colour) for channel, colour in zip(values, CHANNELS, strict=True)]
        return _pixels(np.concatenate(traces, axis=1))
    if kind == "vectorscope":
        return _pixels(_traced(scopes.vectorscope(values, weights), GREY))
    return _pixels(_hills(scopes.histogram(values, weights)))


def scoped(scope: Scope, frame: Frame, project: Project, sieve_id: str, cache: Cache, layers: Layers) -> np.ndarray:
    """The scope that is wanted of a frame under a resolved project, as screen pixels."""
    planes = frame.planes if scope.of == "original" else rendered(frame, project, cache, layers).planes
    mask = sieve_mask(frame, project, sieve_id, cache, layers) if scope.of == "masked" else None
    return scope_pixels(scope.kind, planes, mask)
