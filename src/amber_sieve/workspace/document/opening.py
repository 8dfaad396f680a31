"""Opening what a project or a person names: its source, found again where it was moved along with
its folder.
"""

from __future__ import annotations

import pathlib

from ...errors import Trouble
from ...language import translator
from ...media.footage.sequences import is_pattern
from ...media.formats import PROJECT
from ...media.opening import open_source
from ...media.source import Source
from ...project import storage
from ...project.finding import found_near
from ...project.model import Project
from ...resolve.sources import source_of

translate = translator("workspace")


class MissingSource(Trouble):
    """The picture of a project is not where it was; the person may point to it."""

    def __init__(self, message: str, path: pathlib.Path, project: Project) -> None:
        super().__init__(message)
        self.path, self.project = path, project


def opened_source(path: pathlib.Path, project: Project | None) -> tuple[Source, Project | None]:
    """The source to work on, its first frame read once, and its project; one that was moved along
    with its folder is found.
    """
    wanted = pathlib.Path(project.source) if project else path
    if project and not wanted.exists() and not is_pattern(wanted):
        near = found_near(wanted, path) if path.suffix.lower() == PROJECT else None
        if near is None:
            raise MissingSource(
                translate(
                    "{wanted} is not there any more: show where the picture is now.",
                    wanted=wanted,
                ),
                path,
                project,
            )
        wanted, project = near, project.but(source=str(near))
    source = source_of(project, wanted) if project else open_source(wanted)
    try:
        source.frame(0)
    except Exception:
        source.close()
        raise
    return source, project


def work_beside(picture: pathlib.Path) -> tuple[pathlib.Path, Project] | None:
    """The project that lies beside a picture under its name and is of that picture, and where; None
    where there is none.
    """
    project = picture.with_suffix(PROJECT)
    if picture == project or not project.is_file():
        return None
    try:
        held = storage.load(project)
    except Trouble:
        return None
    return (project, held) if pathlib.Path(held.source).absolute() == picture.absolute() else None
