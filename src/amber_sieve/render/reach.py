"""How far the stages of a sieve look beyond a pixel, so that the mask of a part of a picture is the mask of the whole there.

Each stage says how far it looks in full-resolution pixels, or that it needs the whole; a part is widened by their sum.
"""

from __future__ import annotations

import math

from ..core.adjust.detail import looks as detail_looks
from ..core.edge.clean import LOOKS_PER_PASS
from ..core.edge.follow import LOOKS_PER_REACH
from ..core.edge.follow_reach import FOUND_LOOKS, REACHES
from ..core.edge.morphology import longest_of
from ..project.model import Area, Edge, Pick, Project, Sieve, amount
from .edge import CRUMBS

#: The stage must see the whole picture.
WHOLE = math.inf
#: A Gaussian is cut off at so many standard deviations (`core.edge.feather.blurred`).
DEVIATIONS = 4


def pick_looks(pick: Pick) -> float:
    """Samples look at their own pixel; what hangs together may lie anywhere."""
    pieces = any(sample.on and sample.reach == "here" for sample in pick.samples)
    return WHOLE if pieces or (pick.connected and pick.samples) else 0.0


def edge_looks(edge: Edge) -> float:
    """The sum of the edge's stages, in the order in which they are applied."""
    clean = LOOKS_PER_PASS * (8 if edge.clean == "auto" else edge.clean)
    whole = edge.all_holes or edge.islands_out or edge.islands_only or "auto" in (edge.specks, edge.holes)
    # A speck stays when it lies within Follow's reach of a larger piece.
    near = REACHES[-1] if edge.follow == "auto" else edge.follow
    pieces = WHOLE if whole else 2 * longest_of(amount(edge.specks)) + near + longest_of(amount(edge.holes)) + 2
    soft = abs(edge.grow) + 1 + DEVIATIONS * (edge.feather + edge.smooth) + 2
    follow = (FOUND_LOOKS if edge.follow == "auto" else LOOKS_PER_REACH * edge.follow) + longest_of(CRUMBS) + 3
    # Fine is solved in tiles that start at the picture's corner; motion is found on the whole picture.
    return clean + pieces + soft + follow + (WHOLE if edge.fine or edge.steady else 0.0)


def areas_look(areas: tuple[Area, ...]) -> float:
    """Shapes are drawn where they are; only their softening looks around."""
    return max((DEVIATIONS * area.feather + 1 for area in areas if area.on), default=0.0)


def sieve_looks(sieve: Sieve) -> float:
    """How far the mask of a sieve looks."""
    return pick_looks(sieve.pick) + edge_looks(sieve.edge) + areas_look(sieve.areas)


def stack_looks(project: Project) -> float:
    """How far the picture after all sieves looks: detail looks at what the sieves above have made, one that measures the result at what
    those above it saw."""
    farthest = before = 0.0
    for sieve in project.stack:
        detail = 0.0 if sieve.adjust.detail.neutral else detail_looks(**sieve.adjust.detail.given)
        own = sieve_looks(sieve) + detail
        farthest = max(farthest, own + before if sieve.pick.measure == "result" else own, before + detail)
        before = max(before, farthest) if sieve.on else before
    return farthest
