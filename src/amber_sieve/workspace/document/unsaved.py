"""Work that was not saved when a program ended in a way it should not have: offered until it is
restored or discarded.
"""

from __future__ import annotations

import pathlib
from collections.abc import Sequence

from PyQt6.QtCore import QObject, pyqtSignal

from ...project.recovery import Left, discard, left_behind
from ..background.guard import guarded
from ..speech import Speech
from .pictures import Pictures
from .tray import Entry, Tray


@guarded
class Unsaved(QObject):
    """`changed` when there is more or less of it."""

    changed = pyqtSignal()

    def __init__(self, pictures: Pictures, tray: Tray, speech: Speech) -> None:
        super().__init__()
        self.speech = speech
        self._pictures, self._tray = pictures, tray
        #: What was left behind and neither restored nor discarded, the newest first.
        self.found: tuple[Left, ...] = ()

    def look(self) -> None:
        """Look for work whose program no longer runs."""
        self.found = tuple(left_behind(self.speech.trouble.emit))
        self.changed.emit()

    def restore(self, lefts: Sequence[Left]) -> None:
        """Put work on the tray again, each in place of the same picture without it."""
        self._put_back(lefts)
        self._forget(lefts)

    def discard(self, lefts: Sequence[Left]) -> None:
        """Delete work that is not wanted any more."""
        for left in lefts:
            discard(left)
        self._forget(lefts)

    def _forget(self, lefts: Sequence[Left]) -> None:
        gone = {left.file for left in lefts}
        self.found = tuple(left for left in self.found if left.file not in gone)
        self.changed.emit()

    def _put_back(self, lefts: Sequence[Left]) -> None:
        """Put work that was left behind on the tray, each in place of the same picture without it;
        the first is shown.
        """
        made: list[Entry] = []
        replaced: list[Entry] = []
        with self._tray.all_at_once():
            for left in lefts:
                path, project = pathlib.Path(left.path) if left.path else None, left.offered
                clean = (
                    self._pictures.entry_of(str(path.absolute()))
                    if path is not None
                    else self._tray.find(project.source)
                )
                entry = self._pictures.add_unread("", project, path)
                entry.document.start(project, path, left.title, unsaved=True)
                entry.document.fell(left.falls)
                entry.document.keep_now()
                discard(left)
                made.append(entry)
                if clean is not None and not clean.document.history.changed:
                    entry.number = clean.number
                    replaced.append(clean)
                if left.words:
                    self.speech.said.emit(left.words)
        if made:
            self._pictures.go_to(made[0])
            self._pictures.close(replaced)
