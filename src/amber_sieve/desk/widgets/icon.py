"""Icons of the one set that ships, drawn in the theme's colours, sharp at every scale of the
screen.
"""

from __future__ import annotations

import functools

from PyQt6.QtCore import QByteArray, QPointF, QRect, QRectF, QSize, Qt
from PyQt6.QtGui import QColor, QCursor, QIcon, QIconEngine, QPainter, QPixmap
from PyQt6.QtSvg import QSvgRenderer
from PyQt6.QtWidgets import QAbstractButton

from ..style import AMBER, DIM, HERE, INK
from .painting import painting

#: Side of an icon on a button, screen pixels.
SIDE = 16
#: Side of a tool's cursor, screen pixels.
CURSOR = 28


@functools.cache
def _drawing(name: str, colour: str) -> QSvgRenderer:
    text = (HERE / "icons" / "lucide" / f"{name}.svg").read_text(encoding="utf-8")
    return QSvgRenderer(QByteArray(text.replace("currentColor", colour).encode()))


class _Engine(QIconEngine):
    """Draws an icon anew at the size that is asked for."""

    def __init__(self, name: str) -> None:
        super().__init__()
        self.name = name

    def paint(
        self, painter: QPainter | None, rect: QRect, mode: QIcon.Mode, state: QIcon.State
    ) -> None:
        if painter is not None:
            colour = (
                DIM if mode == QIcon.Mode.Disabled else AMBER if state == QIcon.State.On else INK
            )
            painter.setOpacity(0.55 if mode == QIcon.Mode.Disabled else 1.0)
            _drawing(self.name, colour.name()).render(painter, QRectF(rect))

    def pixmap(self, size: QSize, mode: QIcon.Mode, state: QIcon.State) -> QPixmap:
        pixmap = QPixmap(size)
        pixmap.fill(Qt.GlobalColor.transparent)
        with painting(pixmap) as painter:
            self.paint(painter, QRect(0, 0, size.width(), size.height()), mode, state)
        return pixmap

    def clone(self) -> QIconEngine:
        return _Engine(self.name)


def icon(name: str) -> QIcon:
    """An icon by its name in the set; amber while what it stands for is on."""
    return QIcon(_Engine(name))


def with_icon(button: QAbstractButton, name: str, tip: str = "", words: str = "") -> None:
    """Give a button an icon, a tooltip, and words only where the icon does not explain itself."""
    button.setIcon(icon(name))
    button.setIconSize(QSize(SIDE, SIDE))
    button.setText(words)
    if tip:
        button.setToolTip(tip)
        button.setAccessibleName(words or tip)
        button.setAccessibleDescription(tip if words else "")


def tool_cursor(name: str) -> QCursor:
    """A cross with a tool's icon beside it, dark-edged to show on anything; its hot spot is the
    middle of the cross.
    """
    pixmap = QPixmap(CURSOR + 12, CURSOR + 12)
    pixmap.fill(Qt.GlobalColor.transparent)
    with painting(pixmap) as painter:
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        middle = QPointF(9.5, 9.5)
        for colour, width in ((QColor(0, 0, 0, 190), 3), (QColor(245, 245, 245), 1)):
            painter.setPen(colour if width == 1 else QColor(colour))
            pen = painter.pen()
            pen.setWidth(width)
            painter.setPen(pen)
            for dx, dy in ((1, 0), (-1, 0), (0, 1), (0, -1)):
                painter.drawLine(middle + QPointF(3 * dx, 3 * dy), middle + QPointF(9 * dx, 9 * dy))
        for colour, shift in ((QColor(0, 0, 0), 1), (QColor(245, 245, 245), 0)):
            _drawing(name, colour.name()).render(painter, QRectF(20 + shift, 20 + shift, 17, 17))
    return QCursor(pixmap, 9, 9)
