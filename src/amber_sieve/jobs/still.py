"""One still, from a project to a file, a strip at a time so that memory stays small."""

from __future__ import annotations

import pathlib
from collections.abc import Iterator

import numpy as np

from ..core.frame import Frame
from ..media import stills
from ..media.source import About, Source
from ..project.model import Project, Sieve
from ..render.cache import Cache
from ..render.mask import mask_of
from ..render.stack import render
from .progress import Progress

#: Rows worked on at a time.
ROWS = 256


def whole_mask(frame: Frame, sieve: Sieve, progress: Progress | None = None) -> np.ndarray:
    """The mask of a sieve over a whole full-resolution frame, (H, W) float32."""
    out = np.empty(frame.planes.shape[1:], np.float32)
    for top in range(0, frame.height, ROWS):
        bottom = min(top + ROWS, frame.height)
        out[top:bottom] = mask_of(frame.part(0, top, frame.width, bottom), sieve, Cache(0))
        if progress:
            progress.step(bottom / frame.height)
    return out


def rendered_strips(frame: Frame, project: Project, progress: Progress | None = None) -> Iterator[tuple[int, np.ndarray]]:
    """The finished picture as (top row, planes) from top to bottom."""
    for top in range(0, frame.height, ROWS):
        bottom = min(top + ROWS, frame.height)
        yield top, render(frame.part(0, top, frame.width, bottom), project, Cache(0))
        if progress:
            progress.step(bottom / frame.height)


def export_still(
    source: Source, project: Project, path: pathlib.Path, number: int = 0, depth: str = "", progress: Progress | None = None
) -> None:
    """Render one frame of a source and write it as a picture; its kind follows from the ending.

    Raises
    ------
    Trouble: the frame cannot be read or the picture not be written.
    Cancelled: the person stopped it; nothing is left behind.
    """
    stills.depth_for(path.suffix, depth or "uint8")
    frame = source.frame(number)
    about = source.about if source.about.kind != "clip" else stills_about(source)
    stills.write(
        path,
        about,
        lambda: rendered_strips(frame, project, progress),
        frame.alpha,
        depth,
        project.gamut,
        original=frame if about is source.about else None,
    )


def stills_about(source: Source) -> About:
    """What a picture taken from a clip says of itself: 8 bits, no profile."""
    return About(source.about.path, "still", source.about.size, "uint8")


def export_mask(source: Source, sieve: Sieve, path: pathlib.Path, number: int = 0, progress: Progress | None = None) -> float:
    """Write the mask of a sieve as a grey picture; returns its mean, 0 to 1."""
    mask = whole_mask(source.frame(number), sieve, progress)
    stills.write_mask(path, mask)
    return float(mask.mean())
