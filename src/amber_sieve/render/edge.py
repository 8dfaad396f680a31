"""The edge of the model, worked on a mask at the scale of a frame."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace

import numpy as np

from ..core.edge.box import box_of
from ..core.edge.feather import feathered, hardened, smoothed
from ..core.edge.fine import fine
from ..core.edge.follow import Unmixed, follow
from ..core.edge.islands import without_islands
from ..core.edge.levels import mask_levels
from ..core.edge.morphology import grown, without_holes, without_specks
from ..core.frame import Frame
from ..project.model import Edge, Place
from .cache import Cache

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


def before_fine(frame: Frame, mask: np.ndarray, edge: Edge) -> np.ndarray:
    """All of the edge that is quick, up to and with the hard edge, worked where the mask has anything."""
    if edge.white == 0:
        return np.ones_like(mask)
    room = (max(edge.grow, 0) + 4 * edge.feather + 4 * edge.smooth) * frame.scale
    box = box_of(mask, 1e-6, room)
    if box is None:
        return mask
    out = np.zeros_like(mask)
    out[box] = _worked(frame, np.ascontiguousarray(mask[box]), edge, (box[0].start, box[1].start))
    return out


def _worked(frame: Frame, mask: np.ndarray, edge: Edge, corner: tuple[int, int]) -> np.ndarray:
    """The quick part of the edge on a part of a frame that holds the whole mask."""
    scale = frame.scale
    if (edge.black, edge.white, edge.gamma) != (0, 100, 1):
        mask = mask_levels(mask, edge.black / 100, edge.white / 100, edge.gamma)
    if edge.specks * scale**2 >= 1:
        mask = without_specks(mask, edge.specks * scale**2)
    if edge.all_holes or edge.holes * scale**2 >= 1:
        mask = without_holes(mask, edge.holes * scale**2, edge.all_holes)
    if edge.islands_out or edge.islands_only:
        mask = without_islands(mask, _places(edge.islands_out, frame, corner), _places(edge.islands_only, frame, corner))
    mask = grown(mask, edge.grow * scale)
    mask = feathered(mask, edge.feather * scale, edge.way)
    mask = smoothed(mask, edge.smooth * scale)
    return hardened(mask) if edge.hard else mask


def fine_key(frame: Frame, key: object, edge: Edge) -> tuple[object, ...]:
    """Under what the matting of a frame is kept: everything it depends on, and nothing else. ``key`` stands for the picked mask."""
    return ("fine", frame.key, key, edge.but(no_haze=True))


def fine_of(frame: Frame, mask: np.ndarray, edge: Edge, cache: Cache, key: object, step: Step | None = None) -> np.ndarray:
    """The matting of a mask that has been through everything else; kept under `fine_key`."""
    return cache.get(fine_key(frame, key, edge), lambda: fine(frame.planes, mask, max(1.0, edge.fine * frame.scale), step))


def edge_of(frame: Frame, mask: np.ndarray, edge: Edge, cache: Cache, key: object, step: Step | None = None) -> Edged:
    """A mask with its edge worked on. Lengths scale with the frame, so a preview shows what the export will be.

    ``key`` stands for the mask in caches; ``step`` is told how far Fine is, and may raise to stop it.
    """
    if edge == Edge(clean=edge.clean, no_haze=edge.no_haze, sensitivity=edge.sensitivity, way=edge.way):
        return Edged(mask, None)
    mask = before_fine(frame, mask, edge)
    unmixed = None
    if edge.follow > 0:
        mask, unmixed = follow(frame.planes, mask, max(1.0, edge.follow * frame.scale), edge.sensitivity / 100)
    if edge.fine > 0:
        if unmixed is None:
            _, unmixed = follow(frame.planes, mask, max(1.0, edge.fine * frame.scale), 1.0)
        mask = fine_of(frame, mask, edge, cache, key, step or cache.step)
        unmixed = replace(unmixed, share=mask) if unmixed is not None else None
    return Edged(mask, unmixed if edge.no_haze else None)
