"""The edge of the model, worked on a mask at the scale of a frame."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace

import numpy as np

from ..core.edge.box import box_of
from ..core.edge.feather import feathered, hardened, smoothed
from ..core.edge.fine import fine, told_by
from ..core.edge.follow import Unmixed, follow
from ..core.edge.follow_reach import REACHES, follow_found
from ..core.edge.islands import without_islands
from ..core.edge.levels import mask_levels
from ..core.edge.morphology import grown, without_crumbs, without_holes, without_specks
from ..core.frame import Frame
from ..project.model import Edge, Place, amount
from .cache import Cache

#: Pieces of at most so many full-resolution pixels that Follow leaves by themselves are noise, where specks go at all.
CRUMBS = 16.0
#: How Fine tells its progress, and is stopped; set by whoever runs it in the background.
Step = Callable[[float], None]


@dataclass(frozen=True)
class Edged:
    """A mask with its edge worked on, and what its outline was unmixed into."""

    mask: np.ndarray
    unmixed: Unmixed | None


def _places(places: tuple[Place, ...], frame: Frame, corner: tuple[int, int]) -> list[tuple[float, float, float]]:
    """Places in pixels of a part of a frame whose top left is at a row and column."""
    top, left = corner
    return [
        ((p.x - frame.origin[0]) * frame.scale - left, (p.y - frame.origin[1]) * frame.scale - top, p.radius * frame.scale) for p in places
    ]


@dataclass(frozen=True)
class Clicked:
    """Where samples lie, x and y in pixels of a frame: pieces that hold a kept place stay, holes that hold a dropped one too."""

    kept: tuple[tuple[float, float], ...] = ()
    dropped: tuple[tuple[float, float], ...] = ()

    def seen_from(self, corner: tuple[int, int]) -> Clicked:
        """The same places in pixels of a part whose top left is at a row and column."""
        top, left = corner
        return Clicked(*(tuple((x - left, y - top) for x, y in places) for places in (self.kept, self.dropped)))


NO_CLICKS = Clicked()


def before_fine(frame: Frame, mask: np.ndarray, edge: Edge, clicked: Clicked) -> np.ndarray:
    """All of the edge that is quick, up to unmixing it, worked where the mask has anything."""
    if edge.white == 0:
        return np.ones_like(mask)
    room = (max(edge.grow, 0) + 4 * edge.feather + 4 * edge.smooth) * frame.scale
    box = box_of(mask, 1e-6, room)
    if box is None:
        return mask
    out = np.zeros_like(mask)
    corner = (box[0].start, box[1].start)
    out[box] = _worked(frame, np.ascontiguousarray(mask[box]), edge, corner, clicked.seen_from(corner))
    return out


def _worked(frame: Frame, mask: np.ndarray, edge: Edge, corner: tuple[int, int], clicked: Clicked) -> np.ndarray:
    """The quick part of the edge on a part of a frame that holds the whole mask."""
    scale = frame.scale
    if (edge.black, edge.white, edge.gamma) != (0, 100, 1):
        mask = mask_levels(mask, edge.black / 100, edge.white / 100, edge.gamma)
    specks, holes = amount(edge.specks) * scale**2, amount(edge.holes) * scale**2
    if specks >= 1:
        reach = REACHES[-1] if edge.follow == "auto" else edge.follow
        mask = without_specks(mask, specks, clicked.kept, reach * scale)
    if edge.all_holes or holes >= 1:
        mask = without_holes(mask, holes, edge.all_holes, clicked.dropped)
    if edge.islands_out or edge.islands_only:
        mask = without_islands(mask, _places(edge.islands_out, frame, corner), _places(edge.islands_only, frame, corner))
    mask = grown(mask, edge.grow * scale)
    mask = feathered(mask, edge.feather * scale, edge.way)
    return smoothed(mask, edge.smooth * scale)


def fine_key(frame: Frame, key: object, edge: Edge) -> tuple[object, ...]:
    """Under what the matting of a frame is kept: everything it depends on, and nothing else. ``key`` stands for the picked mask."""
    return ("fine", frame.key, key, edge.but(no_haze=True, steady=0.0))


def fine_of(
    frame: Frame, mask: np.ndarray, edge: Edge, cache: Cache, key: object, unmixed: Unmixed | None, step: Step | None = None
) -> np.ndarray:
    """The matting of a mask that has been through everything else; kept under `fine_key`. Where Follow has unmixed, its word counts."""

    def make() -> np.ndarray:
        told = None if unmixed is None else told_by(unmixed, mask.shape)
        return fine(frame.planes, mask, max(1.0, edge.fine * frame.scale), step, told)

    return cache.get(fine_key(frame, key, edge), make)


def _idle(edge: Edge) -> bool:
    """Whether nothing is done to the edge."""
    nothing = Edge(specks=0, holes=0, follow=0)
    return edge.but(clean=nothing.clean, no_haze=nothing.no_haze, sensitivity=nothing.sensitivity, way=nothing.way) == nothing


def _followed(frame: Frame, mask: np.ndarray, edge: Edge) -> tuple[np.ndarray, Unmixed | None]:
    """The outline unmixed, with the reach that is set or with the one found place by place."""
    if edge.follow == "auto":
        return follow_found(frame.planes, mask, frame.scale, edge.sensitivity / 100, frame.corner)
    if edge.follow > 0:
        return follow(frame.planes, mask, max(1.0, edge.follow * frame.scale), edge.sensitivity / 100, frame.corner)
    return mask, None


def edge_of(
    frame: Frame, mask: np.ndarray, edge: Edge, cache: Cache, key: object, step: Step | None = None, clicked: Clicked = NO_CLICKS
) -> Edged:
    """A mask with its edge worked on. Lengths scale with the frame, so a preview shows what the export will be.

    ``key`` stands for the mask in caches; ``step`` is told how far Fine is, and may raise to stop it.
    """
    if _idle(edge):
        return Edged(mask, None)
    mask, unmixed = _followed(frame, before_fine(frame, mask, edge, clicked), edge)
    crumbs = min(amount(edge.specks), CRUMBS) * frame.scale**2
    if unmixed is not None and crumbs >= 1:  # what noise has left of the background, alone in its band
        mask = without_crumbs(mask, crumbs, clicked.kept)
        unmixed = replace(unmixed, share=mask)
    if edge.fine > 0:
        mask = fine_of(frame, mask, edge, cache, key, unmixed, step or cache.step)
        if unmixed is None:
            _, unmixed = follow(frame.planes, mask, max(1.0, edge.fine * frame.scale), 1.0, frame.corner)
        unmixed = replace(unmixed, share=mask) if unmixed is not None else None
    if edge.hard:  # the last word: no partial pixel, and so nothing that would have to be unmixed
        return Edged(hardened(mask), None)
    return Edged(mask, unmixed if edge.no_haze else None)
