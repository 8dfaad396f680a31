"""What a sieve measures: the picture as opened, as it arrives at the sieve, or another picture.

Previews, sampling, Fit, Fine, haze, islands and bounds all ask here, so that they look at the same thing.
"""

from __future__ import annotations

from collections.abc import Hashable
from dataclasses import replace

from ..core.frame import Frame
from ..project.model import Pick, Project, Sieve
from .adjust import adjusted
from .cache import Cache
from .layers import Layers, no_layers
from .mask import Masked, masked


def working(project: Project) -> list[Sieve]:
    """The sieves that change the picture."""
    return [sieve for sieve in project.stack if sieve.on and not sieve.adjust.neutral and sieve.strength > 0]


def _value(sieve: Sieve) -> Sieve:
    """A sieve as a cache key: what it is called does not matter."""
    return sieve.but(id="", name="")


def _chosen(pick: Pick, original: Frame, below: Frame, layers: Layers) -> Frame:
    """Of the original, what arrives at a sieve, and a layer, the one its pick names."""
    if pick.measure == "layer" and pick.layer:
        return layers.at(pick.layer, original)
    return below if pick.measure == "result" else original


def fallen(frame: Frame, sieves: list[Sieve], cache: Cache, layers: Layers) -> Frame:
    """The frame after some sieves; the frame itself where nothing changes.

    Every stage is kept under its inputs by value: what arrives, the sieve, and what it measures.
    """
    below = frame
    for sieve in sieves:
        seen = _chosen(sieve.pick, frame, below, layers)
        path = sieve.adjust.fill.fill_picture if sieve.adjust.fill.fill == "picture" else ""
        filling = layers.whole(path) if path and not sieve.adjust.fill.neutral else None
        key: Hashable = ("result", below.key, _value(sieve), seen.key, filling.key if filling else None)
        planes, alpha = cache.get(key, lambda: adjusted(below, masked(seen, sieve, cache), sieve, filling))  # noqa: B023  (called at once)
        if planes is not below.planes or alpha is not below.alpha:
            below = replace(below, planes=planes, alpha=alpha, key=key)
    return below


def arriving(frame: Frame, project: Project, sieve_id: str, cache: Cache, layers: Layers = no_layers) -> Frame:
    """The frame as it arrives at a sieve, after those above it."""
    at = next(place for place, sieve in enumerate(project.stack) if sieve.id == sieve_id)
    above = project.but(stack=project.stack[:at]) if at else None
    return fallen(frame, working(above), cache, layers) if above else frame


def measured(frame: Frame, project: Project, sieve_id: str, cache: Cache, layers: Layers = no_layers) -> Frame:
    """The frame that a sieve of the stack measures, at the place and scale of ``frame``."""
    sieve = project.sieve(sieve_id)
    below = arriving(frame, project, sieve_id, cache, layers) if sieve.pick.measure == "result" else frame
    return _chosen(sieve.pick, frame, below, layers)


def sieve_masked(frame: Frame, project: Project, sieve_id: str, cache: Cache, layers: Layers = no_layers) -> Masked:
    """The finished mask of one sieve of the stack, before strength, with what its outline was unmixed into."""
    return masked(measured(frame, project, sieve_id, cache, layers), project.sieve(sieve_id), cache)
