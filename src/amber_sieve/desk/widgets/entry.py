"""The field in which a number is typed."""

from __future__ import annotations

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QLineEdit


class Entry(QLineEdit):
    """Field in which a number is typed; Escape gives it up. Return ends with it: handed on to the
    number, it would begin the next entry.
    """

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None:
            return
        if event.key() == Qt.Key.Key_Escape:
            self.hide()
        else:
            super().keyPressEvent(event)
        event.accept()
