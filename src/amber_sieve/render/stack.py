"""The picture falling through the stack."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np

from ..core.frame import Frame
from ..project.model import Project, Sieve
from .adjust import adjusted
from .cache import Cache
from .mask import Masked, masked

#: Gives the frame that shows another picture at the place and scale of a frame.
Layers = Callable[[str, Frame], Frame]


def no_layers(path: str, like: Frame) -> Frame:
    """Where no other pictures are at hand, the frame itself is measured."""
    return like


def working(project: Project) -> list[Sieve]:
    """The sieves that change the picture."""
    return [sieve for sieve in project.stack if sieve.on and not sieve.adjust.neutral and sieve.strength > 0]


def _value(sieve: Sieve) -> Sieve:
    """A sieve as a cache key: what it is called does not matter."""
    return sieve.but(id="", name="")


def _fall(frame: Frame, sieves: list[Sieve], cache: Cache, layers: Layers) -> tuple[np.ndarray, str]:
    """The planes after some sieves, and a key for them."""
    planes, key = frame.planes, frame.key
    for sieve in sieves:
        below, key_below = planes, key
        mask = _measured(frame, sieve, below, key_below, cache, layers)
        key = f"{key_below}>{hash(_value(sieve)):x}"
        planes = _after(key, below, mask, sieve, cache)
    return planes, key


def _after(key: str, below: np.ndarray, mask: Masked, sieve: Sieve, cache: Cache) -> np.ndarray:
    return cache.get(("result", key), lambda: adjusted(below, mask, sieve))


def _measured(frame: Frame, sieve: Sieve, below: np.ndarray, key: str, cache: Cache, layers: Layers) -> Masked:
    """The mask of a sieve from what it is told to measure."""
    if sieve.pick.measure == "result" and below is not frame.planes:
        return masked(Frame(below, frame.alpha, key, frame.scale, frame.origin), sieve, cache)
    if sieve.pick.measure == "layer" and sieve.pick.layer:
        return masked(layers(sieve.pick.layer, frame), sieve, cache)
    return masked(frame, sieve, cache)


def sieve_mask(frame: Frame, project: Project, sieve_id: str, cache: Cache, layers: Layers = no_layers) -> np.ndarray:
    """The mask of one sieve of the stack, (H, W), before strength. Read only."""
    sieve = project.sieve(sieve_id)
    below, key = frame.planes, frame.key
    if sieve.pick.measure == "result":
        at = project.stack.index(sieve)
        above = [other for other in working(project) if project.stack.index(other) < at]
        below, key = _fall(frame, above, cache, layers)
    return _measured(frame, sieve, below, key, cache, layers).mask


def measured_frame(frame: Frame, project: Project, sieve_id: str, cache: Cache, layers: Layers = no_layers) -> Frame:
    """What a sieve measures: the frame itself, the result of the sieves above it, or a layer. Samples are taken from this."""
    sieve = project.sieve(sieve_id)
    if sieve.pick.measure == "layer" and sieve.pick.layer:
        return layers(sieve.pick.layer, frame)
    if sieve.pick.measure == "result":
        at = project.stack.index(sieve)
        planes, key = _fall(frame, [other for other in working(project) if project.stack.index(other) < at], cache, layers)
        return frame if planes is frame.planes else Frame(planes, frame.alpha, key, frame.scale, frame.origin)
    return frame


def render(frame: Frame, project: Project, cache: Cache, layers: Layers = no_layers) -> np.ndarray:
    """The picture after all sieves, linear light (3, H, W). Read only: it is the frame's own planes when nothing changes.

    Every stage is held in ``cache`` under its inputs, so a change to one sieve starts at that sieve.
    """
    return _fall(frame, working(project), cache, layers)[0]
