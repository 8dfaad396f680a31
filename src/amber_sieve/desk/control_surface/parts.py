"""The parts of the simulated surface: endless dials, and a disc to push."""

from __future__ import annotations

import math

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QColor, QKeyEvent, QMouseEvent, QPainter, QPen, QWheelEvent
from PyQt6.QtWidgets import QWidget

from ...language import translator
from ..style import AMBER, INK, WELL
from ..widgets.painting import paints

translate = translator("control surface")


#: Screen pixels of a drag that make one step.
A_STEP = 4.0
#: Steps of a whole turn that the mark on a dial shows.
A_TURN = 40


class Dial(QWidget):
    """An endless dial: drag up or right, roll the wheel, or arrow keys. Double-click, or Backspace,
    resets.
    """

    turned = pyqtSignal(int)
    touched = pyqtSignal(bool)
    reset = pyqtSignal()

    def __init__(self, name: str) -> None:
        super().__init__()
        self._steps, self._held, self._left = 0, QPointF(), 0.0
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(name)
        self.setFixedSize(72, 72)

    def turn(self, steps: int) -> None:
        """Turn it by some steps."""
        if steps:
            self._steps += steps
            self.turned.emit(steps)
            self.update()

    @paints
    def paintEvent(self, painter: QPainter) -> None:
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        box = QRectF(self.rect()).adjusted(4, 4, -4, -4)
        painter.setPen(QPen(AMBER if self.hasFocus() else QColor(110, 110, 110), 2))
        painter.setBrush(WELL)
        painter.drawEllipse(box)
        angle = 2 * math.pi * self._steps / A_TURN - math.pi / 2
        middle, far = box.center(), box.width() / 2
        across, down = math.cos(angle), math.sin(angle)
        painter.setPen(QPen(INK, 3))
        painter.drawLine(
            QPointF(middle.x() + 0.55 * far * across, middle.y() + 0.55 * far * down),
            QPointF(middle.x() + 0.85 * far * across, middle.y() + 0.85 * far * down),
        )

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is not None:
            self._held, self._left = event.position(), 0.0
            self.touched.emit(True)

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is not None:
            by = event.position() - self._held
            self._held = event.position()
            self._left += (by.x() - by.y()) / A_STEP
            whole = math.trunc(self._left)
            self._left -= whole
            self.turn(whole)

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        self.touched.emit(False)

    def mouseDoubleClickEvent(self, event: QMouseEvent | None) -> None:
        self.reset.emit()

    def wheelEvent(self, event: QWheelEvent | None) -> None:
        if event is not None:
            self.turn(1 if event.angleDelta().y() > 0 else -1)
            self.touched.emit(False)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None:
            return
        steps = {Qt.Key.Key_Up: 1, Qt.Key.Key_Right: 1, Qt.Key.Key_Down: -1, Qt.Key.Key_Left: -1}
        times = 10 if event.modifiers() & Qt.KeyboardModifier.ShiftModifier else 1
        if event.key() == Qt.Key.Key_Backspace:
            self.reset.emit()
        elif event.key() in steps:
            self.turn(times * steps[Qt.Key(event.key())])
            self.touched.emit(False)
        else:
            event.ignore()


class Disc(QWidget):
    """A disc to push: sideways and up or down at once; it comes back by itself when it is let
    go.
    """

    pushed = pyqtSignal(int, int)
    touched = pyqtSignal(bool)

    def __init__(self) -> None:
        super().__init__()
        self._at, self._held = QPointF(), QPointF()
        self._left = [0.0, 0.0]
        self.setAccessibleName(
            translate("Disc: sideways turns the first dial, up and down the second")
        )
        self.setToolTip(self.accessibleName())
        self.setFixedSize(QSize(150, 150))

    @paints
    def paintEvent(self, painter: QPainter) -> None:
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        box = QRectF(self.rect()).adjusted(4, 4, -4, -4)
        painter.setPen(QPen(QColor(90, 90, 90), 2))
        painter.setBrush(WELL)
        painter.drawRoundedRect(box, 22, 22)
        middle = box.center() + self._at
        painter.setPen(QPen(AMBER, 2))
        painter.setBrush(QColor(70, 70, 70))
        painter.drawEllipse(middle, 36, 36)

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is not None:
            self._held, self._left = event.position(), [0.0, 0.0]
            self.touched.emit(True)

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is None:
            return
        by = event.position() - self._held
        self._held = event.position()
        self._at = QPointF(
            *(
                min(max(value, -32.0), 32.0)
                for value in (self._at.x() + by.x(), self._at.y() + by.y())
            )
        )
        steps = []
        for axis, value in enumerate((by.x(), -by.y())):
            self._left[axis] += value / A_STEP
            steps.append(math.trunc(self._left[axis]))
            self._left[axis] -= steps[axis]
        if any(steps):
            self.pushed.emit(*steps)
        self.update()

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        self._at = QPointF()
        self.touched.emit(False)
        self.update()
