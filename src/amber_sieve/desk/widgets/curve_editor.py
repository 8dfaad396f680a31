"""A curve drawn over a histogram, with points to be dragged, typed and deleted; open from end to
end, or closed over the circle of hues.
"""

from __future__ import annotations

from collections.abc import Callable

import numpy as np
from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import (
    QBrush,
    QColor,
    QFocusEvent,
    QKeyEvent,
    QLinearGradient,
    QMouseEvent,
    QPainter,
    QPen,
    QPolygonF,
)
from PyQt6.QtWidgets import QSizePolicy, QWidget

from ...language import decimals, translator
from ..style import AMBER, DIM, WELL
from .drawing import Backdrop, line_through
from .nudging import steps_of
from .painting import paints

translate = translator("widgets")


Points = tuple[tuple[float, float], ...]
#: Screen pixels within which a point is grabbed.
GRIP = 8.0
#: A point that is put on a curve over hue gets neighbours so far away, which keep the other hues as
#: they are.
APART = 35.0
#: More points than this cannot be told apart on a curve of this size.
MOST_POINTS = 32


#: What its tooltip says.
HELP = translate(
    "Press on the curve to put a point there, and drag it; right-click or double-click takes a "
    "point off."
    " Keys: Left and Right choose a point, Up and Down move it (Shift ×10, Alt ÷10), Ctrl with "
    "Left and "
    "Right moves it sideways; Insert puts one where most room is, Delete takes the chosen one "
    "off, Home "
    "straightens the curve.",
)


class CurveEditor(QWidget):
    """A curve through points that can be put, dragged and taken off; ``edited`` tells them."""

    edited = pyqtSignal(object)
    settled = pyqtSignal()
    chosen_changed = pyqtSignal()

    def __init__(
        self,
        name: str,
        x_range: tuple[float, float],
        y_range: tuple[float, float],
        closed: bool = False,
    ) -> None:
        super().__init__()
        self.name, self.x_range, self.y_range, self.closed = name, x_range, y_range, closed
        self.points: Points = ()
        self.chosen = -1
        self.colour = AMBER
        #: Colours along the bottom, and what the curve is at some places.
        self.ground: list[QColor] = []
        self.through: Callable[[Points, np.ndarray], np.ndarray] = lambda points, at: at
        self._histogram = np.zeros(0)
        #: How often something else was counted.
        self._counted = 0
        self._backdrop = Backdrop()
        self._held = False
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.setAccessibleName(name)
        self.setToolTip(HELP)

    def sizeHint(self) -> QSize:
        return QSize(260, 130 if self.closed else 180)

    def show_points(self, points: Points) -> None:
        """Show a curve that came from elsewhere."""
        if points != self.points:
            self.points = points
            self.chosen = min(self.chosen, len(points) - 1)
            self.setAccessibleDescription(
                "; ".join(decimals(f"{x:.2f}: {y:.2f}") for x, y in points)
            )
            self.chosen_changed.emit()
            self.update()

    def show_as(self, colour: QColor, y_range: tuple[float, float]) -> None:
        """In which colour the curve is drawn, and from which value to which."""
        if (colour, y_range) != (self.colour, self.y_range):
            self.colour, self.y_range = colour, y_range
            self.update()

    def show_histogram(self, counts: np.ndarray) -> None:
        """Show counts under the curve, from one end to the other."""
        histogram = np.sqrt(np.asarray(counts, np.float64))
        if not np.array_equal(histogram, self._histogram):
            self._histogram = histogram
            self._counted += 1
            self.update()

    # Where things are

    def _area(self) -> QRectF:
        return QRectF(self.rect()).adjusted(6, 6, -6, -10)

    def at(self, x: float, y: float) -> QPointF:
        """Return where a point of the curve lies."""
        area, (left, right), (low, high) = self._area(), self.x_range, self.y_range
        return QPointF(
            area.left() + (x - left) / (right - left) * area.width(),
            area.bottom() - (y - low) / (high - low) * area.height(),
        )

    def _value(self, place: QPointF) -> tuple[float, float]:
        area, (left, right), (low, high) = self._area(), self.x_range, self.y_range
        x = left + (place.x() - area.left()) / area.width() * (right - left)
        y = low + (area.bottom() - place.y()) / area.height() * (high - low)
        top = right - 0.01 if self.closed else right
        return min(max(x, left), top), min(max(y, low), high)

    def _near(self, place: QPointF) -> int:
        far = [(self.at(*point) - place).manhattanLength() for point in self.points]
        return int(np.argmin(far)) if far and min(far) <= 1.5 * GRIP else -1

    # Painting

    def _draw_backdrop(self, painter: QPainter) -> None:
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        area = self._area()
        painter.fillRect(area, WELL)
        if self._histogram.size and self._histogram.max() > 0:
            counts = self._histogram / self._histogram.max()
            places = area.left() + (np.arange(counts.size) + 0.5) / counts.size * area.width()
            outline = zip(
                places.tolist(),
                (area.bottom() - counts * area.height() * 0.92).tolist(),
                strict=True,
            )
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(QBrush(self._fade(area)) if self.closed else QColor(72, 72, 72))
            painter.drawPolygon(
                QPolygonF(
                    [area.bottomLeft(), *(QPointF(x, y) for x, y in outline), area.bottomRight()]
                )
            )
        if self.ground:
            painter.fillRect(
                QRectF(area.left(), area.bottom() + 2, area.width(), 4), self._fade(area)
            )
        painter.setPen(QPen(QColor(58, 58, 58), 1))
        for share in (0.25, 0.5, 0.75):
            x, y = area.left() + share * area.width(), area.top() + share * area.height()
            painter.drawLine(QPointF(x, area.top()), QPointF(x, area.bottom()))
            painter.drawLine(QPointF(area.left(), y), QPointF(area.right(), y))

    @paints
    def paintEvent(self, painter: QPainter) -> None:
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        area, (left, right) = self._area(), self.x_range
        self._backdrop.draw(
            painter,
            self,
            (self._counted, tuple(colour.rgb() for colour in self.ground), WELL.rgb()),
            self._draw_backdrop,
        )
        places = np.linspace(left, right, int(area.width() / 2) + 1)
        low, high = self.y_range
        shares = (np.clip(self.through(self.points, places), low, high) - low) / (high - low)
        line = line_through(
            np.linspace(area.left(), area.right(), places.size),
            area.bottom() - shares * area.height(),
        )
        for pen in (QPen(QColor(20, 20, 20), 3.2), QPen(self.colour if self.points else DIM, 1.6)):
            painter.setPen(pen)
            painter.drawPolyline(line)
        for k, point in enumerate(self.points):
            painter.setPen(QPen(QColor(20, 20, 20), 1))
            painter.setBrush(QColor(255, 255, 255) if k == self.chosen else self.colour)
            painter.drawRect(
                QRectF(self.at(*point) - QPointF(3.5, 3.5), self.at(*point) + QPointF(3.5, 3.5))
            )
        if self.hasFocus():
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.setPen(QColor(192, 138, 44))
            painter.drawRect(area.adjusted(-1, -1, 1, 1))

    def _fade(self, area: QRectF) -> QLinearGradient:
        fade = QLinearGradient(area.topLeft(), area.topRight())
        for k, colour in enumerate(self.ground):
            fade.setColorAt(k / max(len(self.ground) - 1, 1), colour)
        return fade

    # Changing

    def _put(self, points: list[tuple[float, float]], chosen: int) -> None:
        self.points, self.chosen = tuple(points), chosen
        self.edited.emit(self.points)
        self.chosen_changed.emit()
        self.update()

    def add(self, x: float, y: float) -> None:
        """Put a point on the curve; on one over hue, the first ones come with neighbours that keep
        the other hues.
        """
        if len(self.points) >= MOST_POINTS:
            return
        rows = {round(px, 4): py for px, py in self.points}
        if self.closed and all(min(abs(px - x), 360 - abs(px - x)) > 1.5 * APART for px in rows):
            for side in (x - APART, x + APART):
                place = round(side % 360, 4)
                rows[place] = (
                    float(self.through(self.points, np.array([place]))[0]) if self.points else 0.0
                )
        rows[round(x, 4)] = y
        ordered = sorted(rows.items())
        self._put(ordered, [px for px, _ in ordered].index(round(x, 4)))

    def remove(self, index: int) -> None:
        """Take a point off."""
        rows = [point for k, point in enumerate(self.points) if k != index]
        self._put(rows, min(index, len(rows) - 1))
        self.settled.emit()

    def move_to(self, index: int, x: float, y: float) -> None:
        """Move a point; it stays between its neighbours."""
        gap = (self.x_range[1] - self.x_range[0]) / 400
        low = self.points[index - 1][0] + gap if index > 0 else self.x_range[0]
        high = (
            self.points[index + 1][0] - gap
            if index + 1 < len(self.points)
            else self.x_range[1] - (0.01 if self.closed else 0)
        )
        rows = list(self.points)
        rows[index] = (
            round(min(max(x, low), max(low, high)), 4),
            round(min(max(y, self.y_range[0]), self.y_range[1]), 4),
        )
        self._put(rows, index)

    def straighten(self) -> None:
        """Take all points off."""
        self._put([], -1)
        self.settled.emit()

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is None:
            return
        near = self._near(event.position())
        if event.button() == Qt.MouseButton.RightButton:
            if near >= 0:
                self.remove(near)
        elif event.button() == Qt.MouseButton.LeftButton:
            self._held = True
            if near >= 0:
                self.chosen = near
                self.chosen_changed.emit()
                self.update()
            else:
                self.add(*self._value(event.position()))

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is not None and self._held and 0 <= self.chosen < len(self.points):
            self.move_to(self.chosen, *self._value(event.position()))

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        if self._held:
            self._held = False
            self.settled.emit()

    def mouseDoubleClickEvent(self, event: QMouseEvent | None) -> None:
        near = self._near(event.position()) if event is not None else -1
        if near >= 0:
            self.remove(near)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None:
            return
        key, held, count = event.key(), event.modifiers(), len(self.points)
        times = steps_of(held)
        steps = [(high - low) / 200 * times for low, high in (self.x_range, self.y_range)]
        there = 0 <= self.chosen < count
        sideways = {Qt.Key.Key_Left: -1, Qt.Key.Key_Right: 1}.get(Qt.Key(key), 0)
        upwards = {Qt.Key.Key_Down: -1, Qt.Key.Key_Up: 1}.get(Qt.Key(key), 0)
        if key == Qt.Key.Key_Insert:
            self._add_where_room_is()
        elif key == Qt.Key.Key_Home:
            self.straighten()
        elif key in (Qt.Key.Key_Delete, Qt.Key.Key_Backspace) and there:
            self.remove(self.chosen)
        elif sideways and held & Qt.KeyboardModifier.ControlModifier and there:
            x, y = self.points[self.chosen]
            self.move_to(self.chosen, x + sideways * steps[0], y)
            self.settled.emit()
        elif sideways and count:
            self.chosen = (self.chosen + sideways) % count
            self.chosen_changed.emit()
            self.update()
        elif upwards and there:
            x, y = self.points[self.chosen]
            self.move_to(self.chosen, x, y + upwards * steps[1])
            self.settled.emit()
        else:
            super().keyPressEvent(event)

    def _add_where_room_is(self) -> None:
        places = [self.x_range[0], *(x for x, _ in self.points), self.x_range[1]]
        widest = int(np.argmax(np.diff(places)))
        x = (places[widest] + places[widest + 1]) / 2
        self.add(x, float(self.through(self.points, np.array([x]))[0]))
        self.settled.emit()

    def focusInEvent(self, event: QFocusEvent | None) -> None:
        self.update()

    def focusOutEvent(self, event: QFocusEvent | None) -> None:
        self.update()
