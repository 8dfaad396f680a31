"""The tray of the last time, looked up on the disk: what is there still, and what has gone."""

from __future__ import annotations

import pathlib
from dataclasses import dataclass

from PyQt6.QtCore import QObject, pyqtSignal

from ...errors import Trouble
from ...media.footage.sequences import is_pattern
from ...project import open_tray, storage
from ...project.finding import found_near
from ...project.model import Project
from ..background.guard import guarded
from ..background.workers import Workers
from ..speech import Speech
from .pictures import Pictures
from .tray import Entry, Tray


@dataclass(frozen=True)
class Found:
    """A row of the last tray, looked up: its project, the file that has gone ("" for none), and the
    error.
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


@guarded
class LastTray(QObject):
    """Puts on the tray what was open when the program ended last."""

    #: This number of pictures are open again as they were left.
    restored = pyqtSignal(int)
    #: Entries that were open last, by the names of what is not where it was.
    gone = pyqtSignal(object)

    def __init__(self, pictures: Pictures, tray: Tray, workers: Workers, speech: Speech) -> None:
        super().__init__()
        self._pictures, self._tray, self._workers = pictures, tray, workers
        self._speech = speech

    def restore(self) -> bool:
        """Put it on the tray, and show the same of it; not True when nothing was open."""
        try:
            left = open_tray.take_over(self._speech.trouble.emit)
        except (Trouble, OSError):  # the folder cannot be used: nothing can be restored or noted
            return False
        if left.rows:
            self._workers.questions.ask(
                lambda: lambda: [Found.of(row) for row in left.rows],
                lambda found: self._put_back(found, left.rows[left.current]),
            )
        return bool(left.rows)

    def _put_back(self, found: list[Found], shown: open_tray.Row) -> None:
        entries: list[Entry] = []
        gone: dict[str, Entry] = {}
        current: Entry | None = None
        with self._tray.all_at_once():
            for one in found:
                row = one.row
                if one.trouble:
                    self._speech.trouble.emit(one.trouble)
                if one.trouble or self._pictures.entry_of(row.project or row.source) is not None:
                    continue  # or it was opened meanwhile
                path = pathlib.Path(row.project) if one.project is not None else None
                entry = self._pictures.add_unread(row.source, one.project, path)
                entry.number = row.frame
                if one.gone:
                    gone[one.gone] = entry
                else:
                    entries.append(entry)
                    current = entry if row is shown else current
                if row.shared:
                    self._tray.share(entry, True)
        if entries and self._tray.current.blank:
            self._pictures.go_to(current or entries[-1])
            self.restored.emit(len(entries))
        if gone:
            self.gone.emit(gone)
        self._pictures.note_tray()
