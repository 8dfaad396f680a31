"""A large picture after all sieves, worked out some rows at a time.

What must see all of a mask (what hangs together, specks, holes, islands) is done once, on the
whole, and of the outcome one float a pixel is kept where it has anything. All that comes after
looks only so far, and is done for the rows that are asked for, with as many round them.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Collection, Hashable, Iterator, Mapping
from dataclasses import dataclass

import numpy as np

from ..core.edge.box import CroppedMask
from ..core.frame import Frame
from ..progress import part_of
from ..project.model import Project, Sieve
from .cache import Cache
from .context import RenderContext
from .evaluate import working
from .layers import Layers
from .mask import refined_key, refined_mask
from .stack import rendered, sieve_mask
from .stages.every import support_radius_after_outline

#: Pictures of fewer pixels are worked whole: that is quicker, and 8K footage is among them.
LARGE = 40_000_000
#: Rows of a strip, and columns of a part of it, without what lies round them.
ROWS, COLUMNS = 1024, 3072
#: What a sieve may fill with in strips: the rest looks at the whole picture, or changes its alpha.
FILLS = ("colour", "gradient", "picture")


@dataclass
class Strips:
    """A picture after all sieves of a project, and their masks, a strip at a time.

    Attributes
    ----------
    frame : the whole picture. project : as it stands on it. layers : gives the other pictures that
        it names.
    refined : the masks of its sieves with their outline worked, on the whole.
    keeps : which stages several sieves ask for. halo : how far what is left to do looks, rows.
    """

    frame: Frame
    project: Project
    layers: Layers
    refined: dict[Hashable, CroppedMask]
    keeps: Callable[[Hashable], bool] | None
    halo: int
    _held: tuple[int, np.ndarray] | None = None

    @property
    def height(self) -> int:
        return self.frame.height

    def _parts(
        self, top: int, bottom: int
    ) -> Iterator[tuple[Frame, RenderContext, slice, tuple[slice, slice]]]:
        """Parts of the rows from ``top`` to before ``bottom``, each with what lies round it: the
        part, what its stages are held in, which columns of the picture it is for, and which of its
        own rows and columns those are.
        """
        first, last = max(0, top - self.halo), min(self.height, bottom + self.halo)
        for left in range(0, self.frame.width, COLUMNS):
            right = min(left + COLUMNS, self.frame.width)
            start, stop = max(0, left - self.halo), min(self.frame.width, right + self.halo)
            inner = slice(top - first, bottom - first), slice(left - start, right - start)
            yield (
                self.frame.part(start, first, stop, last),
                RenderContext(Cache(0, self.keeps), refined=self.refined),
                slice(left, right),
                inner,
            )

    def rows(self, top: int, bottom: int) -> np.ndarray:
        """Linear light (3, rows, W) of the rows from ``top`` to before ``bottom``; quick where they
        are asked for from top to bottom.
        """
        held = self._held
        if held is None or not held[0] <= top <= bottom <= held[0] + held[1].shape[1]:
            self._held = held = None  # before the next is made
            end = min(max(bottom, top + ROWS), self.height)
            planes = np.empty((3, end - top, self.frame.width), np.float32)
            for part, context, columns, inner in self._parts(top, end):
                planes[:, :, columns] = rendered(part, self.project, context, self.layers).planes[
                    :, *inner
                ]
            self._held = held = (top, planes)
        return held[1][:, top - held[0] : bottom - held[0]]

    def whole(self) -> np.ndarray:
        """All of the picture, (3, H, W)."""
        out = np.empty_like(self.frame.planes)
        self.fill(out, {})
        return out

    def fill(
        self,
        planes: np.ndarray | None,
        masks: Mapping[str, np.ndarray],
        step: Callable[[float], None] | None = None,
    ) -> None:
        """Fill the light (3, H, W) of the picture, where it is asked for, and masks (H, W) by the
        ids of their sieves; ``step`` is told the share that is done, and may raise to stop.
        """
        for top in range(0, self.height, ROWS):
            if step is not None:
                step(top / self.height)
            rows = slice(top, min(top + ROWS, self.height))
            for part, context, columns, inner in self._parts(rows.start, rows.stop):
                if planes is not None:
                    planes[:, rows, columns] = rendered(
                        part, self.project, context, self.layers
                    ).planes[:, *inner]
                for sieve_id, mask in masks.items():
                    mask[rows, columns] = sieve_mask(
                        part, self.project, sieve_id, context, self.layers
                    )[inner]


def _asked(project: Project, result: bool, masks: Collection[str]) -> list[Sieve]:
    """The sieves that change the picture, where that is asked for, those whose masks are, and those
    that they lean on.
    """
    ids = {*(sieve.id for sieve in working(project) if result), *masks}
    more = ids
    while more:
        more = {other for one in more for other in project.sieve(one).leans_on} - ids
        ids |= more
    return [sieve for sieve in project.stack if sieve.id in ids]


def _goes(sieve: Sieve) -> bool:
    """Return whether a sieve can be worked in strips: it measures the picture as it was opened, and
    fills pixel by pixel.
    """
    fill = sieve.adjust.fill
    filled = fill.neutral or (fill.fill in FILLS and fill.fill_where != "behind")
    return sieve.pick.measure == "original" and filled


def in_strips(
    frame: Frame,
    project: Project,
    layers: Layers,
    result: bool = True,
    masks: Collection[str] = (),
    keeps: Callable[[Hashable], bool] | None = None,
    step: Callable[[float], None] | None = None,
) -> Strips | None:
    """A whole picture at full resolution, to be worked out strip by strip; None where it is not
    large, or has to be seen whole.

    ``result`` says whether the picture is asked for, ``masks`` are the ids of sieves whose masks
    are; ``step`` is told how far the masks are, 0 to 1.
    """
    asked = _asked(project, result, masks)
    if frame.width * frame.height < LARGE or not asked or not all(_goes(sieve) for sieve in asked):
        return None
    halo = support_radius_after_outline(project.but(stack=tuple(asked)))
    if math.isinf(halo):
        return None
    held: dict[Hashable, CroppedMask] = {}
    own = [sieve for sieve in asked if sieve.mask_from == "own"]
    for number, sieve in enumerate(own):
        key, told = (
            refined_key(sieve),
            part_of(step, number, len(own)) if step is not None else None,
        )
        if key not in held:
            held[key] = CroppedMask.of(refined_mask(frame, sieve, RenderContext(step=told)))
        if told is not None:
            told(1.0)
    return Strips(frame, project, layers, held, keeps, math.ceil(halo))
