"""A number that can be dragged, typed, nudged and reset."""

from __future__ import annotations

import math

from PyQt6.QtCore import QPointF, QRectF, QRegularExpression, QSize, Qt, pyqtSignal
from PyQt6.QtGui import (
    QColor,
    QContextMenuEvent,
    QFocusEvent,
    QKeyEvent,
    QLinearGradient,
    QMouseEvent,
    QPainter,
    QPen,
    QPolygonF,
    QRegularExpressionValidator,
    QWheelEvent,
)
from PyQt6.QtWidgets import QAbstractSpinBox, QDoubleSpinBox, QSizePolicy

from ...language import decimals, translator
from ...project.fields import Spec
from ..style import AMBER, DIM, INK, WELL
from .entry import Entry
from .hill import Hill
from .nudging import steps_of
from .painting import paints

translate = translator("widgets")


#: A typed number, with a decimal point or a decimal comma.
TYPED = QRegularExpression(r"[+-]?[0-9]*[.,]?[0-9]*([eE][+-]?[0-9]*)?")


class Number(QDoubleSpinBox):
    """A named value on a track; to those who do not see it, a spin button.

    Drag sideways; type digits (or press Enter); arrow keys nudge, with Shift ten times and with Alt
    a tenth; double-click or Backspace resets. ``moved`` comes with every change, ``settled`` when a
    drag or an entry ends. A number that can be found on the picture goes back to that with A;
    ``automatic`` comes then.
    """

    automatic = pyqtSignal()

    moved = pyqtSignal(float)
    settled = pyqtSignal()

    def __init__(self, spec: Spec, label: str = "") -> None:
        super().__init__()
        self.setButtonSymbols(QAbstractSpinBox.ButtonSymbols.NoButtons)
        field = self.lineEdit()
        assert field is not None
        field.hide()  # the value is drawn, and what is typed has an entry of its own
        self.name, self.unit, self.places, self.step, self.start = (
            label or spec.label,
            spec.unit,
            spec.decimals,
            spec.step,
            spec.start,
        )
        #: What may be typed, and what the track covers.
        self.low, self.high = spec.low, spec.high
        self.soft_low, self.soft_high = spec.soft_low, spec.soft_high
        self._value, self._telling = spec.start, False
        self.can_be_auto, self.starts_auto, self.auto = spec.auto, spec.from_auto, False
        self._found, self.keyed = "", False
        #: What `set_range` was given last.
        self._given: tuple[float, float, float, str | None] | None = None
        self.curve: tuple[float, ...] = ()
        self._hill = Hill()
        #: Values that are marked on the track.
        self.marks: tuple[float, ...] = ()
        start, name = spec.start, self.name
        tip = "" if spec.help == spec.label else spec.help.rstrip(".") + ". "
        self._grip: tuple[float, float] | None = None
        #: Colours along the track, from one end to the other, for numbers that stand for a colour.
        self.colours: tuple[QColor, ...] = ()
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.setMinimumWidth(76)
        self.setCursor(Qt.CursorShape.SizeHorCursor)
        self.setAccessibleName(name)
        back = "auto" if spec.from_auto else self.text_of(start)
        auto = translate("; A finds it on the picture") if spec.auto else ""
        self.setToolTip(
            translate(
                "{tip}Drag, type, or arrow keys (Shift ×10, Alt ÷10){auto}; double-click resets "
                "to {back}",
                tip=tip,
                auto=auto,
                back=back,
            )
        )
        self._entry: Entry | None = None
        self.setDecimals(6)
        self.setSingleStep(self.step)
        self.setRange(self.low, self.high)
        self._tell()
        self.valueChanged.connect(self._told)

    def set_keyed(self, on: bool) -> None:
        """Set whether the number changes from frame to frame: a small diamond says so."""
        self._draw_with("keyed", on)

    def set_colours(self, colours: tuple[QColor, ...]) -> None:
        """Set the colours of the track: the colours that its values stand for."""
        self._draw_with("colours", colours)

    def mark(self, values: tuple[float, ...]) -> None:
        """Mark values on the track."""
        self._draw_with("marks", values)

    def set_curve(self, curve: tuple[float, ...]) -> None:
        """Show behind the track how much each value would take, 0 to 1; () for nothing."""
        self._draw_with("curve", curve)

    def _draw_with(self, name: str, value: object) -> None:
        if value != getattr(self, name):
            setattr(self, name, value)
            self.update()

    def value(self) -> float:
        return self._value

    def _tell(self) -> None:
        """Let the spin button say the value."""
        self._telling = True
        self.setValue(self._value)
        self._telling = False
        self.update()

    def _told(self, value: float) -> None:
        """Somebody else has set the spin button, as a screen reader does."""
        if not self._telling:
            self.set(value)
            self.settled.emit()

    def set_range(self, low: float, high: float, start: float, unit: str | None = None) -> None:
        """Another range, for a number whose meaning has changed."""
        if (low, high, start, unit) == self._given:
            return
        self._given = (low, high, start, unit)
        self.low, self.high, self.soft_low, self.soft_high, self.start = low, high, low, high, start
        self.unit = self.unit if unit is None else unit
        self._telling = True
        self.setRange(low, high)
        self._tell()

    def show_value(self, value: float) -> None:
        """Show a value that came from elsewhere; no signal."""
        if value != self._value or self.auto:
            self._value, self.auto = value, False
            self._tell()

    def show_auto(self, value: float | None = None, words: str = "") -> None:
        """Show that it is found on the picture: as ``value``, or as some ``words`` when it is not
        one number.
        """
        value = self.start if value is None else value
        if (True, words, value) != (self.auto, self._found, self._value):
            self.auto, self._found, self._value = True, words, value
            self._tell()

    def set(self, value: float) -> None:
        """Change the value as a person would: bounded, with signals."""
        if not math.isfinite(value):
            return
        value = round(min(max(value, self.low), self.high), 6)
        if value != self._value or self.auto:
            self._value, self.auto = value, False
            self._tell()
            self.moved.emit(value)

    def reset(self) -> None:
        if self.starts_auto:
            self.automatic.emit()
        else:
            self.set(self.start)
        self.settled.emit()

    def shown(self) -> str:
        """Return the value as it stands at the right."""
        if not self.auto:
            return self.text_of(self._value)
        return (
            translate("auto  {found}", found=self._found or self.text_of(self._value))
            if self._found or self._value != self.start
            else "auto"
        )

    def text_of(self, value: float) -> str:
        return decimals(f"{value:.{self.places}f}{' ' + self.unit if self.unit else ''}")

    def sizeHint(self) -> QSize:
        return QSize(220, self.fontMetrics().height() + 11)

    def minimumSizeHint(self) -> QSize:
        return QSize(76, self.sizeHint().height())

    def contextMenuEvent(self, event: QContextMenuEvent | None) -> None:
        if event is not None:
            event.ignore()  # a spin button's own menu steps up and down

    def wheelEvent(self, event: QWheelEvent | None) -> None:
        if event is not None:
            event.ignore()  # it scrolls the page

    def _share(self, value: float) -> float:
        return (value - self.soft_low) / max(self.soft_high - self.soft_low, 1e-9)

    @paints
    def paintEvent(self, painter: QPainter) -> None:
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        box = QRectF(self.rect()).adjusted(0.5, 0.5, -0.5, -0.5)
        enabled = self.isEnabled()
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(WELL)
        painter.drawRoundedRect(box, 3, 3)
        track = QRectF(box.left() + 6, box.bottom() - 5, box.width() - 12, 2)
        if len(self.curve) > 1:
            ratio = self.devicePixelRatioF()
            drawn = self._hill.drawn(self.curve, self.size(), track, box.top() + 2, ratio)
            painter.drawPixmap(0, 0, drawn)
        if self.colours:
            track = track.adjusted(0, -1.5, 0, 1.5)
            fade = QLinearGradient(track.topLeft(), track.topRight())
            for k, colour in enumerate(self.colours):
                fade.setColorAt(k / max(len(self.colours) - 1, 1), colour)
            painter.setBrush(fade)
        else:
            painter.setBrush(QColor(78, 78, 78))
        painter.drawRect(track)
        zero = self._share(min(max(0.0, self.soft_low), self.soft_high))
        here = self._share(min(max(self._value, self.soft_low), self.soft_high))
        changed = not self.auto if self.starts_auto else self._value != self.start
        painter.setBrush(AMBER if enabled and changed else QColor(140, 140, 140))
        left, right = sorted((zero, here))
        if self.colours:
            painter.setPen(QPen(QColor(20, 20, 20), 1))
        else:
            painter.drawRect(
                QRectF(
                    track.left() + left * track.width(),
                    track.top(),
                    max(1.0, (right - left) * track.width()),
                    2,
                )
            )
        painter.drawEllipse(
            QPointF(track.left() + here * track.width(), track.center().y()), 3.5, 3.5
        )
        painter.setPen(QPen(INK if enabled else DIM, 1))
        for mark in self.marks:
            if self.soft_low <= mark <= self.soft_high:
                x = track.left() + self._share(mark) * track.width()
                painter.drawLine(QPointF(x, track.top() - 2), QPointF(x, track.bottom() + 2))
        if self.keyed:
            x, y = box.left() + 3.5, box.center().y() - 2
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(AMBER)
            painter.drawPolygon(
                QPolygonF(
                    [QPointF(x, y - 3), QPointF(x + 3, y), QPointF(x, y + 3), QPointF(x - 3, y)]
                )
            )
        painter.setPen(INK if enabled else DIM)
        text = box.adjusted(9 if self.keyed else 7, 0, -7, -5)
        shown, metrics = self.shown(), self.fontMetrics()
        room = round(text.width()) - metrics.horizontalAdvance(shown) - 8
        name = metrics.elidedText(self.name, Qt.TextElideMode.ElideRight, room)
        painter.drawText(text, Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter, name)
        painter.drawText(text, Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter, shown)
        if self.hasFocus():
            painter.setPen(QColor(192, 138, 44))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRoundedRect(box, 3, 3)

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is not None and event.button() == Qt.MouseButton.LeftButton:
            self._grip = (event.position().x(), self._value)

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is None or self._grip is None:
            return
        fine = 0.1 if event.modifiers() & Qt.KeyboardModifier.AltModifier else 1.0
        travel = (
            (event.position().x() - self._grip[0])
            / max(self.width() - 12, 1)
            * (self.soft_high - self.soft_low)
            * fine
        )
        # A drag ends where the track does, unless the number already lay beyond it.
        low, high = min(self.soft_low, self._grip[1]), max(self.soft_high, self._grip[1])
        wanted = min(max(self._grip[1] + travel, low), high)
        self.set(round(wanted / (self.step * 0.1)) * self.step * 0.1)

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        if self._grip is not None:
            self._grip = None
            self.settled.emit()

    def mouseDoubleClickEvent(self, event: QMouseEvent | None) -> None:
        self._grip = None
        self.reset()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        assert event is not None
        key, held = event.key(), event.modifiers()
        times = steps_of(held)
        if key in (Qt.Key.Key_Left, Qt.Key.Key_Down):
            self.set(self._value - self.step * times)
            self.settled.emit()
        elif key in (Qt.Key.Key_Right, Qt.Key.Key_Up):
            self.set(self._value + self.step * times)
            self.settled.emit()
        elif key in (Qt.Key.Key_Backspace, Qt.Key.Key_Delete):
            self.reset()
        elif key == Qt.Key.Key_A and self.can_be_auto:
            self.automatic.emit()
        elif key in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self._type(decimals(f"{self._value:g}"))
        elif event.text() and event.text() in "0123456789.,-":
            self._type(event.text(), select=False)
        else:
            event.ignore()  # it is the window's

    def _type(self, text: str, select: bool = True) -> None:
        if self._entry is None:
            self._entry = Entry(self)
            self._entry.setAlignment(Qt.AlignmentFlag.AlignRight)
            self._entry.setValidator(QRegularExpressionValidator(TYPED, self))
            self._entry.returnPressed.connect(self._typed)
            self._entry.editingFinished.connect(self._typed)
        self._entry.setGeometry(self.width() // 2, 1, self.width() // 2 - 1, self.height() - 2)
        self._entry.setText(text)
        self._entry.show()
        self._entry.setFocus()
        if select:
            self._entry.selectAll()

    def _typed(self) -> None:
        if self._entry is None or not self._entry.isVisible():
            return
        self._entry.hide()
        self.setFocus()
        try:
            self.set(float(self._entry.text().replace(",", ".")))
        except ValueError:
            return
        self.settled.emit()

    def focusInEvent(self, event: QFocusEvent | None) -> None:
        self.update()

    def focusOutEvent(self, event: QFocusEvent | None) -> None:
        self.update()
