"""The picture or clip of a project, opened as the project says it is to be read."""

from __future__ import annotations

import pathlib

from ..media.opening import open_source
from ..media.source import Source
from ..project.model import Project


def source_of(project: Project, path: pathlib.Path | None = None) -> Source:
    """The source of a project, or another one in its place read alike; raises `Trouble` when it
    cannot be opened.
    """
    return open_source(path or pathlib.Path(project.source), project.reading)
