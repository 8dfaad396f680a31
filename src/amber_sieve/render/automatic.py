"""Amounts that are found on the picture. They are found once, on the whole of it at full resolution, and stand as numbers from
there on: so a preview of a part and an export use the same."""

from __future__ import annotations

import numpy as np

from ..core.colour.oklab import to_oklab
from ..core.edge.clean import BLOCK, fitting_amount
from ..core.frame import Frame
from ..project.model import Project, Sieve
from .cache import Cache

#: Noise is measured on neighbouring pixels of the middle of the picture, a square of this side.
SEEN = 904
#: Share of a picture under which a piece or hole is a speck: found by search with a clicking robot, see docs/sums.md.
SMALL = 3e-4


def found_clean(frame: Frame, cache: Cache) -> int:
    """Passes of chroma smoothing that the noise of a whole picture asks for."""

    def find() -> int:
        top, left = (max(0, (size - SEEN) // 2) // BLOCK * BLOCK for size in (frame.height, frame.width))
        return fitting_amount(to_oklab(np.ascontiguousarray(frame.planes[:, top : top + SEEN, left : left + SEEN])))

    return cache.get(("noise", frame.key), find)


def small_pieces(frame: Frame) -> int:
    """Full-resolution pixels up to which a piece or hole of a whole picture is a speck."""
    return round(SMALL * frame.width * frame.height / frame.scale**2)


def found_amounts(sieve: Sieve, whole: Frame, cache: Cache, clean: int | None = None) -> Sieve:
    """The sieve with every amount of its edge that is "auto" and one number for the whole picture found. Follow finds its own, place by
    place. ``clean`` is the passes of cleaning when they are known already, as for all frames of a clip."""
    edge = sieve.edge
    found: dict[str, float] = {name: float(small_pieces(whole)) for name in ("specks", "holes") if getattr(edge, name) == "auto"}
    if edge.clean == "auto":
        found["clean"] = float(found_clean(whole, cache) if clean is None else clean)
    return sieve.but(edge=edge.but(**found)) if found else sieve


def with_found_amounts(project: Project, whole: Frame, cache: Cache, clean: int | None = None) -> Project:
    """The project with the amounts of its sieves found on the whole frame at full resolution."""
    stack = tuple(found_amounts(sieve, whole, cache, clean) for sieve in project.stack)
    return project if stack == project.stack else project.but(stack=stack)
