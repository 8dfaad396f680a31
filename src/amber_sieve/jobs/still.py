"""One still, from a project to a file."""

from __future__ import annotations

import pathlib
from collections.abc import Callable, Hashable, Iterator

import numpy as np

from ..core.frame import Frame
from ..media import stills
from ..media.formats import depth_for
from ..media.source import Source
from ..project.model import Project
from ..render.automatic import with_found_amounts
from ..render.cache import Cache
from ..render.stack import rendered, sieve_mask
from .layers import layers_in
from .progress import Progress
from .resolved import Resolver

#: Rows coded and written at a time.
ROWS = 256


def keeps_of(project: Project) -> Callable[[Hashable], bool] | None:
    """Which stages are kept while nothing else is: the masks that other sieves lean on. None where there are none."""
    leant_on = {other for sieve in project.stack for other in sieve.leans_on}
    if not leant_on:
        return None
    areas = {(sieve.pick, sieve.bands, sieve.invert, sieve.areas) for sieve in project.stack if sieve.id in leant_on}

    def keeps(key: Hashable) -> bool:
        if not isinstance(key, tuple) or key[0] not in ("mask", "joined mask"):
            return False
        return key[0] == "joined mask" or (*key[2][:3], key[4]) in areas

    return keeps


def finished(
    frame: Frame, project: Project, step: Callable[[float], None] | None = None, resolver: Resolver | None = None, number: int = 0
) -> Frame:
    """The whole picture after all sieves; nothing is kept of the stages. ``step`` is told how far a long stage is.

    ``resolver`` finds what is automatic for frame ``number`` of a clip; without one the frame stands for itself.
    """
    # A mask that others lean on is worked out once.
    cache = Cache(0, step, keeps_of(project), across=resolver.across if resolver else None)
    layers = layers_in(cache)
    found = resolver.project_on(project, frame, number, cache) if resolver else with_found_amounts(project, frame, cache, layers=layers)
    return rendered(frame, found, cache, layers)


def strips_of(planes: np.ndarray, progress: Progress | None = None, start: float = 0.0) -> Iterator[tuple[int, np.ndarray]]:
    """A picture as (top row, planes) from top to bottom; progress runs from ``start`` to 1."""
    for top in range(0, planes.shape[1], ROWS):
        yield top, planes[:, top : top + ROWS]
        if progress:
            progress.step(start + (1 - start) * min(1.0, (top + ROWS) / planes.shape[1]))


def export_still(
    source: Source, project: Project, path: pathlib.Path, number: int = 0, depth: str = "", progress: Progress | None = None
) -> None:
    """Render one frame of a source and write it as a picture; its kind follows from the ending.

    Raises
    ------
    Trouble: the frame cannot be read or the picture not be written.
    Cancelled: the person stopped it; nothing is left behind.
    """
    depth_for(path, depth or "uint8")
    progress = progress or Progress()
    frame = source.frame(number)
    progress.step(0.1)
    result = finished(frame, project, lambda share: progress.step(0.1 + 0.4 * share), Resolver(source), number)
    progress.step(0.5)
    about = source.about_frame(number)
    original = frame if source.about.kind != "clip" else None
    stills.write(
        path,
        about,
        lambda: strips_of(result.planes, progress, 0.5),
        result.alpha,
        depth,
        project.gamut,
        original=original,
        display=project.display,
    )


def export_mask(
    source: Source, project: Project, sieve_id: str, path: pathlib.Path, number: int = 0, progress: Progress | None = None
) -> float:
    """Write the mask of a sieve as a grey picture; returns its mean, 0 to 1."""
    progress = progress or Progress()
    frame = source.frame(number)
    progress.step(0.2)
    cache = Cache(0, lambda share: progress.step(0.2 + 0.6 * share))
    mask = sieve_mask(frame, Resolver(source).project_on(project, frame, number, cache), sieve_id, cache, layers_in(cache))
    progress.step(0.8)
    stills.write_mask(path, mask)
    return float(mask.mean(dtype=np.float64))
