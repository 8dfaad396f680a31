"""The field in which a number is typed."""

from __future__ import annotations

from PyQt6.QtCore import QEvent, QObject, Qt
from PyQt6.QtGui import QHideEvent, QKeyEvent, QShowEvent
from PyQt6.QtWidgets import QApplication, QLineEdit, QWidget


class Entry(QLineEdit):
    """Field in which a number is typed; Escape gives it up. Return ends with it: handed on to the
    number, it would begin the next entry. A press of the mouse elsewhere ends it too, on widgets
    that take no focus as well.
    """

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None:
            return
        if event.key() == Qt.Key.Key_Escape:
            self.hide()
        else:
            super().keyPressEvent(event)
        event.accept()

    def showEvent(self, event: QShowEvent | None) -> None:
        running = QApplication.instance()
        assert running is not None
        running.installEventFilter(self)
        super().showEvent(event)

    def hideEvent(self, event: QHideEvent | None) -> None:
        running = QApplication.instance()
        assert running is not None
        running.removeEventFilter(self)
        super().hideEvent(event)

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        if (
            event is not None
            and event.type() == QEvent.Type.MouseButtonPress
            and isinstance(watched, QWidget)
            and watched is not self
        ):
            self.editingFinished.emit()
        return False
