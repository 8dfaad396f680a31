"""The one driver of finished pixels: every exporter of pictures, masks and frames asks here, so
that all of them are alike.
"""

from __future__ import annotations

from collections.abc import Callable, Collection, Hashable, Iterator
from dataclasses import dataclass

import numpy as np

from ..core.frame import Frame
from ..core.mix import Mixture
from ..media.source import Source
from ..progress import Progress, part_of
from ..project.model import Project
from ..render.cache import Cache
from ..render.context import RenderContext
from ..render.evaluate import last_of_all
from ..render.keys import JoinedMaskKey, MaskKey
from ..render.stack import rendered, sieve_mask
from ..render.strips import Strips, in_strips
from ..resolve.layers import layers_in
from ..resolve.resolver import Resolver

#: Rows coded and written at a time.
ROWS = 256


@dataclass(frozen=True)
class Finished:
    """The finished pixels of one frame.

    Attributes
    ----------
    frame : as it was read. stands : the project as it stands on it.
    result : the picture after all sieves; the frame itself where that was not asked for.
    masks : (H, W) float32 by the ids of their sieves.
    """

    frame: Frame
    stands: Project
    result: Frame
    masks: dict[str, np.ndarray]


def _keeps(project: Project, counted: Collection[str]) -> Callable[[Hashable], bool] | None:
    """Return which stages are kept while nothing else is: masks that are asked for more than once.
    None where there are none.
    """
    leant_on = {other for sieve in project.stack for other in sieve.leans_on} | set(counted)
    if not leant_on:
        return None
    areas = {
        (sieve.pick, sieve.bands, sieve.invert, sieve.areas)
        for sieve in project.stack
        if sieve.id in leant_on
    }

    def keeps(key: Hashable) -> bool:
        if isinstance(key, MaskKey):
            return (key.picked.pick, key.picked.bands, key.picked.invert, key.areas) in areas
        return isinstance(key, JoinedMaskKey)

    return keeps


def finished(
    source: Source,
    project: Project,
    number: int = 0,
    *,
    frame: Frame | None = None,
    resolver: Resolver | None = None,
    result: bool = True,
    masks: Collection[str] = (),
    step: Callable[[float], None] | None = None,
) -> Finished:
    """One frame of a source by a project; of the stages nothing is kept.

    Parameters
    ----------
    frame : the whole frame, where it has been read already.
    resolver : finds what is automatic; give the same one for all frames of a clip.
    result : whether the picture is asked for. masks : ids of the sieves whose masks are.
    step : told how far a long stage is, 0 to 1; may raise to stop it.

    Raises
    ------
    Trouble: the frame, or a picture or table that the project names, cannot be read.
    """
    frame = source.frame(number) if frame is None else frame
    resolver = resolver or Resolver(source)
    first = resolver.resolve_frame(project, frame, number, RenderContext())
    context = RenderContext(
        Cache(0, _keeps(first, masks if result else ())), step=step, frames=resolver.across
    )
    layers = layers_in(context)
    to_masks, to_rows = (
        (part_of(step, 0, 2), part_of(step, 1, 2)) if step is not None else (None, None)
    )
    strips = in_strips(
        frame, first, layers, result, masks, _keeps(first, masks if result else ()), to_masks
    )
    if strips is not None:
        planes = np.empty_like(frame.planes) if result else None
        held = {one: np.empty(frame.planes.shape[1:], np.float32) for one in masks}
        strips.fill(planes, held, to_rows)
        return Finished(
            frame, first, Frame(planes, frame.alpha) if planes is not None else frame, held
        )
    found = rendered(frame, first, context, layers) if result else frame
    return Finished(
        frame, first, found, {one: sieve_mask(frame, first, one, context, layers) for one in masks}
    )


@dataclass(frozen=True)
class Leaving:
    """A finished picture on its way into a file: what its last sieve does is worked out as its rows
    are asked for.

    Attributes
    ----------
    frame : as it was read. result : (3, H, W) linear light, or what makes it. alpha : (H, W) or
        None.
    """

    frame: Frame
    result: np.ndarray | Mixture | Strips
    alpha: np.ndarray | None


def leaving(
    source: Source,
    project: Project,
    number: int = 0,
    *,
    frame: Frame | None = None,
    resolver: Resolver | None = None,
    step: Callable[[float], None] | None = None,
) -> Leaving:
    """One frame of a source by a project, of which only the picture is asked for, and only row by
    row; all else is as for `finished`.
    """
    frame, resolver = source.frame(number) if frame is None else frame, resolver or Resolver(source)
    first = resolver.resolve_frame(project, frame, number, RenderContext())
    context = RenderContext(Cache(0, _keeps(first, ())), step=step, frames=resolver.across)
    layers = layers_in(context)
    strips = in_strips(frame, first, layers, keeps=_keeps(first, ()), step=step)
    if strips is not None:
        return Leaving(frame, strips, frame.alpha)
    return Leaving(frame, *last_of_all(frame, first, context, layers))


def strips_of(
    planes: np.ndarray | Mixture | Strips, progress: Progress | None = None, start: float = 0.0
) -> Iterator[tuple[int, np.ndarray]]:
    """A picture as (top row, planes) from top to bottom; progress runs from ``start`` to 1."""
    height = planes.shape[1] if isinstance(planes, np.ndarray) else planes.height
    for top in range(0, height, ROWS):
        bottom = min(top + ROWS, height)
        yield (
            top,
            planes[:, top:bottom] if isinstance(planes, np.ndarray) else planes.rows(top, bottom),
        )
        if progress:
            progress.step(start + (1 - start) * bottom / height)
