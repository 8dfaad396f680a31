"""One disc for the balance of shadows, midtones and highlights, over the colours that the mask
holds.
"""

from __future__ import annotations

import numpy as np
from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import (
    QColor,
    QFocusEvent,
    QImage,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPainterPath,
    QPen,
)
from PyQt6.QtWidgets import QSizePolicy, QWidget

from ...core.adjust.balance import RANGES
from ...language import decimals, named, translator
from ..style import AMBER, WELL
from .drawing import image_of
from .painting import paints

translate = translator("widgets")


#: The handles differ by their fill, as the ranges do.
FILLS = {
    "shadows": QColor(20, 20, 20),
    "midtones": QColor(128, 128, 128),
    "highlights": QColor(245, 245, 245),
}
#: Radius of the mark on the disc, screen pixels.
SIZE = 6.0


#: What its tooltip says.
HELP = translate(
    "Drag the dark, grey or light handle towards a hue; the farther from the middle, the more. "
    "Double-"
    "click puts it back. Keys: Tab through the page as ever; Up and Down choose a handle, Left "
    "and Right "
    "turn it, + and - move it out and in (Shift ×10), Home puts it back.",
)


class BalanceDisc(QWidget):
    """A disc with a handle each for shadows, midtones and highlights; ``edited`` tells range, hue
    and how much of it.
    """

    edited = pyqtSignal(str, float, float)
    settled = pyqtSignal()

    def __init__(self) -> None:
        super().__init__()
        self.handles: dict[str, tuple[float, float]] = dict.fromkeys(RANGES, (0.0, 0.0))
        self.chosen = "midtones"
        self._image: QImage | None = None
        self._density: np.ndarray | None = None
        self._held = False
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.setAccessibleName(translate("Balance of shadows, midtones and highlights"))
        self.setToolTip(HELP)

    def sizeHint(self) -> QSize:
        return QSize(260, 170)

    def show_handles(self, handles: dict[str, tuple[float, float]]) -> None:
        """Hue (degrees) and colour (per cent) of every range."""
        if handles != self.handles:
            self.handles = dict(handles)
            words = [
                decimals(f"{named(name)} {hue:.0f}°, {colour:.0f} %")
                for name, (hue, colour) in handles.items()
            ]
            self.setAccessibleDescription("; ".join(words))
            self.update()

    def show_colours(self, density: np.ndarray) -> None:
        """The colours that the mask holds, as the pixels of a colour field."""
        if density is not self._density:
            self._density, self._image = density, image_of(density)
            self.update()

    # Where things are

    def _radius(self) -> float:
        return min(self.width(), self.height()) / 2 - 8

    def _middle(self) -> QPointF:
        return QPointF(self.width() / 2, self.height() / 2)

    def at(self, name: str) -> QPointF:
        """Return where a handle lies."""
        hue, colour = self.handles[name]
        r, angle = colour / 100 * self._radius(), np.radians(hue)
        return self._middle() + QPointF(r * np.cos(angle), -r * np.sin(angle))

    # Painting

    @paints
    def paintEvent(self, painter: QPainter) -> None:
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        middle, radius = self._middle(), self._radius()
        box = QRectF(middle.x() - radius, middle.y() - radius, 2 * radius, 2 * radius)
        disc = QPainterPath()
        disc.addEllipse(box)
        painter.fillPath(disc, WELL)
        if self._image is not None:
            painter.save()
            painter.setClipPath(disc)
            painter.setOpacity(0.8)
            painter.drawImage(box, self._image)
            painter.restore()
        painter.setPen(QPen(QColor(96, 96, 96), 1))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawEllipse(box)
        painter.drawLine(middle - QPointF(4, 0), middle + QPointF(4, 0))
        painter.drawLine(middle - QPointF(0, 4), middle + QPointF(0, 4))
        for name in RANGES:
            place = self.at(name)
            painter.setPen(QPen(QColor(190, 190, 190, 150), 1))
            painter.drawLine(middle, place)
        for name in sorted(RANGES, key=lambda name: name == self.chosen):
            place = self.at(name)
            painter.setBrush(FILLS[name])
            painter.setPen(QPen(AMBER if name == self.chosen else QColor(160, 160, 160), 2))
            painter.drawEllipse(place, SIZE, SIZE)
        painter.setPen(QColor(200, 200, 200))
        painter.drawText(
            QRectF(4, 2, self.width() - 8, 16), Qt.AlignmentFlag.AlignLeft, named(self.chosen)
        )
        hue, colour = self.handles[self.chosen]
        painter.drawText(
            QRectF(4, 2, self.width() - 8, 16),
            Qt.AlignmentFlag.AlignRight,
            decimals(f"{hue:.0f}°  {colour:.0f} %") if colour else "",
        )
        if self.hasFocus():
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.setPen(QColor(192, 138, 44))
            painter.drawRect(QRectF(self.rect()).adjusted(0.5, 0.5, -0.5, -0.5))

    # Changing

    def _set(self, hue: float, colour: float) -> None:
        hue, colour = round(hue % 360, 2), round(min(max(colour, 0), 100), 2)
        self.handles[self.chosen] = (hue, colour)
        self.edited.emit(self.chosen, hue, colour)
        self.update()

    def _drag_to(self, place: QPointF) -> None:
        away = place - self._middle()
        self._set(
            float(np.degrees(np.arctan2(-away.y(), away.x()))),
            float(np.hypot(away.x(), away.y())) / self._radius() * 100,
        )

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is None or event.button() != Qt.MouseButton.LeftButton:
            return
        far = {name: (self.at(name) - event.position()).manhattanLength() for name in RANGES}
        nearest = min(RANGES, key=lambda name: (far[name], name != self.chosen))
        # Where handles lie on each other, the chosen one is taken; away from all of them, it comes
        # to the pointer.
        if far[nearest] <= 2 * SIZE:
            self.chosen = self.chosen if far[self.chosen] <= 2 * SIZE else nearest
        self._held = True
        if far[self.chosen] > 2 * SIZE:
            self._drag_to(event.position())
        self.update()

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is not None and self._held:
            self._drag_to(event.position())

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        if self._held:
            self._held = False
            self.settled.emit()

    def mouseDoubleClickEvent(self, event: QMouseEvent | None) -> None:
        self._held = False
        self._set(0, 0)
        self.settled.emit()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None:
            return
        key, (hue, colour) = event.key(), self.handles[self.chosen]
        times = 10 if event.modifiers() & Qt.KeyboardModifier.ShiftModifier else 1
        turns, moves = (
            {Qt.Key.Key_Left: 1, Qt.Key.Key_Right: -1},
            {Qt.Key.Key_Plus: 1, Qt.Key.Key_Minus: -1},
        )
        if key in (Qt.Key.Key_Up, Qt.Key.Key_Down):
            self.chosen = RANGES[
                (RANGES.index(self.chosen) + (1 if key == Qt.Key.Key_Up else -1)) % 3
            ]
            self.update()
        elif key in turns or key in moves or key == Qt.Key.Key_Home:
            home = key == Qt.Key.Key_Home
            self._set(
                0 if home else hue + times * turns.get(Qt.Key(key), 0),
                0 if home else colour + times * moves.get(Qt.Key(key), 0),
            )
            self.settled.emit()
        else:
            super().keyPressEvent(event)

    def focusInEvent(self, event: QFocusEvent | None) -> None:
        self.update()

    def focusOutEvent(self, event: QFocusEvent | None) -> None:
        self.update()
