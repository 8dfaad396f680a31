"""One still, from a project to a file."""

from __future__ import annotations

import pathlib

import numpy as np

from ..media import stills
from ..media.formats import depth_for, mask_depth_for
from ..media.source import Source
from ..progress import Progress
from ..project.model import Project
from .frame import finished, leaving, strips_of
from .targets import inputs_of, spare_inputs


def export_still(
    source: Source,
    project: Project,
    path: pathlib.Path,
    number: int = 0,
    depth: str = "",
    progress: Progress | None = None,
    overwrite: bool = False,
) -> None:
    """Render one frame of a source and write it as a picture; its kind follows from the ending.

    Raises
    ------
    Trouble: the frame cannot be read or the picture not be written, or it would be written over
        what is read.
    Cancelled: the person stopped it; nothing is left behind.
    """
    spare_inputs([path], inputs_of(source, project), overwrite)
    depth_for(path, depth or "uint8")
    progress = progress or Progress()
    made = leaving(source, project, number, step=lambda share: progress.step(0.1 + 0.4 * share))
    progress.step(0.5)
    stills.write(
        path,
        source.about_frame(number),
        lambda: strips_of(made.result, progress, 0.5),
        stills.StillForm(depth, project.gamut, display=project.display),
        made.alpha,
        original=made.frame if source.about.kind != "clip" else None,
    )


def export_mask(
    source: Source,
    project: Project,
    sieve_id: str,
    path: pathlib.Path,
    number: int = 0,
    progress: Progress | None = None,
    overwrite: bool = False,
) -> float:
    """Write the mask of a sieve as a grey picture; returns its mean, 0 to 1. Raises what
    `export_still` does.
    """
    spare_inputs([path], inputs_of(source, project), overwrite)
    mask_depth_for(path)
    progress = progress or Progress()
    made = finished(
        source,
        project,
        number,
        result=False,
        masks=[sieve_id],
        step=lambda share: progress.step(0.2 + 0.6 * share),
    )
    progress.step(0.8)
    mask = made.masks[sieve_id]
    stills.write_mask(path, mask)
    return float(mask.mean(dtype=np.float64))
