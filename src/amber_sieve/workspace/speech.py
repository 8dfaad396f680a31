"""The one way in which controllers speak to the person."""

from __future__ import annotations

from PyQt6.QtCore import QObject, pyqtSignal


class Speech(QObject):
    """`said` is a remark, `wrote` one about a file that was written, with its path, `trouble` says
    what a person can mend, `mishap` tells of a mistake of ours: a sentence, and the details.
    """

    said = pyqtSignal(str)
    wrote = pyqtSignal(str, object)
    trouble = pyqtSignal(str)
    mishap = pyqtSignal(str, str)

    def failed(self, message: str, details: str) -> None:
        """Tell of work that failed: ``details`` are empty where the person can mend it."""
        if details:
            self.mishap.emit(message, details)
        else:
            self.trouble.emit(message)
