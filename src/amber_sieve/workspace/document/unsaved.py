"""Work that was not saved when a program ended in a way it should not have: offered until it is
restored or discarded.
"""

from __future__ import annotations

from collections.abc import Sequence

from PyQt6.QtCore import QObject, pyqtSignal

from ...project.recovery import Left, discard, left_behind
from ..background.guard import guarded
from ..speech import Speech
from .pictures import Pictures


@guarded
class Unsaved(QObject):
    """`changed` when there is more or less of it."""

    changed = pyqtSignal()

    def __init__(self, pictures: Pictures, speech: Speech) -> None:
        super().__init__()
        self.speech = speech
        self._pictures = pictures
        #: What was left behind and neither restored nor discarded, the newest first.
        self.found: tuple[Left, ...] = ()

    def look(self) -> None:
        """Look for work whose program no longer runs."""
        self.found = tuple(left_behind(self.speech.trouble.emit))
        self.changed.emit()

    def restore(self, lefts: Sequence[Left]) -> None:
        """Put work on the tray again, each in place of the same picture without it."""
        self._pictures.take_left(lefts)
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
