"""The tray of the last time, looked up on the disk: what is there still, and what has gone."""

from __future__ import annotations

import pathlib
from dataclasses import dataclass

from ...errors import Trouble
from ...media.footage.sequences import is_pattern
from ...project import open_tray, storage
from ...project.finding import found_near
from ...project.model import Project


@dataclass(frozen=True)
class Found:
    """A row of the last tray, as it is found again: its project, what has gone ("" for nothing),
    and what is wrong with it.
    """

    row: open_tray.Row
    project: Project | None = None
    gone: str = ""
    trouble: str = ""

    @classmethod
    def of(cls, row: open_tray.Row) -> Found:
        """Look a row up on the disk."""
        project, path = None, pathlib.Path(row.project)
        if row.project and not path.exists():
            return cls(row, gone=path.name)
        try:
            project = storage.load(path) if row.project else None
        except Trouble as trouble:
            return cls(row, trouble=str(trouble))
        source = pathlib.Path(project.source if project is not None else row.source)
        there = (
            source.exists()
            or is_pattern(source)
            or (project is not None and found_near(source, path) is not None)
        )
        return cls(row, project, "" if there else source.name)
