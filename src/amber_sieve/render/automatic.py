"""Amounts that are found on the picture. They are found once, on the whole of it at full resolution, and stand as numbers from
there on: so a preview of a part and an export use the same."""

from __future__ import annotations

import numpy as np

from ..core.colour.oklab import to_oklab
from ..core.edge.clean import fitting_amount
from ..core.frame import Frame
from ..project.model import Project, Sieve
from .cache import Cache

#: Noise is measured on neighbouring pixels of the middle of the picture, a square of this side.
BLOCK = 900


def found_clean(frame: Frame, cache: Cache) -> int:
    """Passes of chroma smoothing that the noise of a whole picture asks for."""

    def find() -> int:
        top, left = max(0, (frame.height - BLOCK) // 2), max(0, (frame.width - BLOCK) // 2)
        return fitting_amount(to_oklab(np.ascontiguousarray(frame.planes[:, top : top + BLOCK, left : left + BLOCK])))

    return cache.get(("noise", frame.key), find)


def with_found_amounts(project: Project, whole: Frame, cache: Cache) -> Project:
    """The project with every "auto" replaced by what was found on the whole frame at full resolution."""

    def found(sieve: Sieve) -> Sieve:
        if sieve.edge.clean != "auto":
            return sieve
        return sieve.but(edge=sieve.edge.but(clean=float(found_clean(whole, cache))))

    stack = tuple(found(sieve) for sieve in project.stack)
    return project if stack == project.stack else project.but(stack=stack)
