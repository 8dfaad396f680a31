"""Amber Sieve from Python: pictures, sieves from clicks, masks, finished pictures, batches and
projects.

These names are kept by semantic versioning; all others of the package may change with any release.
Arrays are float32, linear light with Rec. 709 primaries and D65 white, planes first: (3, H, W);
masks are (H, W) in 0 to 1. Everything raises `Trouble` with one sentence when something is wrong.

Example
-------
>>> from amber_sieve import api
>>> with api.open("demo/yard.png") as picture:
...     jar = api.sieve(picture, keep=[(742, 790), (735, 830)])
...     covered = api.mask(picture, jar).mean()
>>> f"{100 * covered:.1f} %"
'2.0 %'
"""

from __future__ import annotations

import pathlib
from collections.abc import Iterable, Iterator, Sequence
from typing import Any, Self

import numpy as np

from .errors import Trouble
from .export import batch as _batch
from .export.clip import ClipExport, export_clip
from .export.frame import finished
from .export.still import export_mask, export_still
from .live.by_clicks import with_clicks
from .media.footage.sequences import is_pattern
from .media.formats import is_picture
from .media.opening import open_source
from .project import edits, storage
from .project.model import Project, Sieve
from .resolve.sources import source_of

__all__ = [
    "Picture",
    "Project",
    "Sieve",
    "Trouble",
    "adjusted",
    "batch",
    "coverage",
    "mask",
    "open",
    "project",
    "read",
    "render",
    "sieve",
    "save",
    "write",
    "write_mask",
]
Place = tuple[float, float]


class Picture:
    """A picture or a clip that is open; use it in a ``with`` statement, or `close` it."""

    def __init__(self, path: str | pathlib.Path, project: Project | None = None) -> None:
        self.path = pathlib.Path(path)
        self._source = open_source(self.path) if project is None else source_of(project, self.path)

    @property
    def size(self) -> tuple[int, int]:
        """Width and height in pixels."""
        return self._source.about.size

    @property
    def frames(self) -> int:
        """Return how many frames there are; 1 for a still."""
        return self._source.about.frames

    def pixels(self, number: int = 0) -> np.ndarray:
        """A frame as it was read, (3, H, W)."""
        return self._source.frame(number).planes

    def close(self) -> None:
        """Let go of the file."""
        self._source.close()

    def __enter__(self) -> Self:
        return self

    def __exit__(self, *_: object) -> None:
        self.close()


def open(path: str | pathlib.Path) -> Picture:
    """Open a picture, a clip, or numbered pictures (``name.####.png``)."""
    return Picture(path)


def sieve(
    picture: Picture,
    keep: Iterable[Place] = (),
    drop: Iterable[Place] = (),
    number: int = 0,
    start: Sieve | None = None,
    **settings: Any,
) -> Sieve:
    """A sieve from clicks, each as a click in the window: tolerance and reach are found.

    Parameters
    ----------
    keep, drop : places in full-resolution pixels; those to keep are clicked first.
    number : the frame that is clicked. start : a sieve to go on with.
    settings : any setting of a sieve by its path with two underscores for each dot, as in
        ``edge__grow=1.5``.
    """
    begun = start or Sieve(name="Sieve 1")
    for path, value in settings.items():
        begun = edits.with_field(begun, path.replace("__", "."), value)
    clicks = [*(("keep", x, y, None) for x, y in keep), *(("drop", x, y, None) for x, y in drop)]
    return with_clicks(project(picture, begun), picture._source, clicks, number).stack[0]


def adjusted(held: Sieve, **settings: Any) -> Sieve:
    """A sieve with adjustments set, by block and number: ``recolour__hue=120,
    light__exposure=-1``.
    """
    for path, value in settings.items():
        held = edits.with_field(held, f"adjust.{path.replace('__', '.')}", value)
    return held


def project(picture: Picture, *stack: Sieve) -> Project:
    """A project of a picture with sieves from top to bottom."""
    return Project(source=str(picture.path.absolute()), stack=stack or (Sieve(),))


def mask(picture: Picture, held: Sieve, number: int = 0) -> np.ndarray:
    """The mask of a sieve on a frame, (H, W) in 0 to 1."""
    return finished(
        picture._source, project(picture, held), number, result=False, masks=(held.id,)
    ).masks[held.id]


def render(picture: Picture, held: Project, number: int = 0) -> np.ndarray:
    """A frame after all sieves of a project, (3, H, W)."""
    return finished(picture._source, held, number).result.planes


def coverage(
    picture: Picture, held: Sieve, numbers: Sequence[int] | None = None
) -> Iterator[tuple[int, float]]:
    """Return how much of each frame a sieve covers, 0 to 1: all frames, or those that are named."""
    for number in range(picture.frames) if numbers is None else numbers:
        yield number, float(mask(picture, held, number).mean())


def write(
    picture: Picture,
    held: Project,
    path: str | pathlib.Path,
    number: int = 0,
    overwrite: bool = False,
) -> None:
    """Write the result: a picture (of frame ``number``), a clip or numbered pictures, by the ending
    of the name.
    """
    target = pathlib.Path(path)
    if picture.frames > 1 and (is_pattern(target) or not is_picture(target)):
        export_clip(picture._source, held, target, how=ClipExport(overwrite=overwrite))
    else:
        export_still(picture._source, held, target, number, overwrite=overwrite)


def write_mask(
    picture: Picture,
    held: Sieve,
    path: str | pathlib.Path,
    number: int = 0,
    overwrite: bool = False,
) -> None:
    """Write the mask of a sieve as a grey picture of 16 bits, or float as OpenEXR."""
    export_mask(
        picture._source,
        project(picture, held),
        held.id,
        pathlib.Path(path),
        number,
        overwrite=overwrite,
    )


def batch(
    held: Project, pictures: Iterable[str | pathlib.Path], folder: str | pathlib.Path
) -> list[_batch.Outcome]:
    """Render many pictures by one project into a folder, each of the kind as it came; one broken
    file does not stop it.
    """
    paths = _batch.pictures_in([pathlib.Path(path) for path in pictures])
    return _batch.run_batch(held, paths, pathlib.Path(folder))


def read(path: str | pathlib.Path) -> Project:
    """A project from its file."""
    return storage.load(pathlib.Path(path))


def save(held: Project, path: str | pathlib.Path) -> None:
    """Write a project into its file, whose name ends in ``.sieve``."""
    storage.save(held, storage.checked_name(pathlib.Path(path)))
