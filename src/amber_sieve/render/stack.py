"""The picture falling through the stack."""

from __future__ import annotations

import numpy as np

from ..core.frame import Frame
from ..project.model import Project, Sieve
from .adjust import adjusted
from .cache import Cache
from .mask import mask_of


def working(project: Project) -> list[Sieve]:
    """The sieves that change the picture."""
    return [sieve for sieve in project.stack if sieve.on and not sieve.adjust.neutral and sieve.strength > 0]


def _after(frame: Frame, path: tuple[Sieve, ...], sieve: Sieve, below: np.ndarray, cache: Cache) -> np.ndarray:
    """The picture after one more sieve; ``path`` is what it fell through, this sieve last."""
    return cache.get(("result", frame.key, path), lambda: adjusted(below, mask_of(frame, sieve, cache), sieve))


def render(frame: Frame, project: Project, cache: Cache) -> np.ndarray:
    """The picture after all sieves, linear light (3, H, W). Read only: it is the frame's own planes when nothing changes.

    Every stage is held in ``cache`` under its inputs, so a change to one sieve starts at that sieve.
    """
    planes = frame.planes
    path: tuple[Sieve, ...] = ()
    for sieve in working(project):
        path = (*path, sieve.but(id="", name=""))
        planes = _after(frame, path, sieve, planes, cache)
    return planes
