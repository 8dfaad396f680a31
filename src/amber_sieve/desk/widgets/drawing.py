"""Pixels as images, and lines that show on anything."""

from __future__ import annotations

import math
from collections.abc import Callable

import cv2
import numpy as np
from PyQt6.QtCore import QPointF, QRect, QRectF, Qt
from PyQt6.QtGui import QColor, QImage, QPainter, QPen, QPixmap, QPolygonF
from PyQt6.QtWidgets import QWidget

from ..style import AMBER
from .painting import painting

#: How dark the wider line is that lies under every line on the picture, 0 to 255.
SHADE = 170
#: How far a line that is drawn may stray from the one that is meant, in pixels: nobody sees a
#: twentieth.
STRAY = 0.05
#: How long a piece of a line may be, pixels.
PIECE = 24.0


def image_of(pixels: np.ndarray, see_through: bool = False) -> QImage:
    """Screen pixels (H, W) uint32, 0xAARRGGBB, or grey levels uint8, as an image that shares their
    memory; what is at A counts when it is ``see_through``.
    """
    kind = QImage.Format.Format_ARGB32 if see_through else QImage.Format.Format_RGB32
    kind = QImage.Format.Format_Grayscale8 if pixels.dtype == np.uint8 else kind
    return QImage(pixels.data, pixels.shape[1], pixels.shape[0], pixels.strides[0], kind)  # type: ignore[call-overload]


def pixmap_of(pixels: np.ndarray) -> QPixmap:
    """Screen pixels (H, W) uint32, or grey levels uint8, as a picture that keeps nothing of their
    memory.
    """
    return QPixmap.fromImage(image_of(pixels).copy())


class Backdrop:
    """A widget's drawing under all that moves, kept as pixels while it stays the same."""

    def __init__(self) -> None:
        self._of: object = None
        self._pixels: QPixmap | None = None

    def draw(
        self, painter: QPainter, widget: QWidget, of: object, make: Callable[[QPainter], object]
    ) -> None:
        """Draw it over a whole widget; ``make`` draws it when its value or size has changed. It is
        cached from the second request on: a value that changes at every step of a drag is not drawn
        twice.
        """
        ratio = widget.devicePixelRatioF()
        same = (of, widget.size(), ratio) == self._of
        if not same:
            self._of, self._pixels = (of, widget.size(), ratio), None
            painter.save()
            make(painter)
            painter.restore()
            return
        if self._pixels is None:
            self._pixels = QPixmap(widget.size() * ratio)
            self._pixels.setDevicePixelRatio(ratio)
            self._pixels.fill(Qt.GlobalColor.transparent)
            with painting(self._pixels) as below:
                make(below)
        painter.drawPixmap(0, 0, self._pixels)


def line_through(xs: np.ndarray, ys: np.ndarray, closed: bool = False) -> QPolygonF:
    """A line through some points (N,) each, of as few pieces as it takes (Douglas and Peucker),
    none of them long: the painter is several times as slow with one long piece as with ten short
    ones, and each costs something.
    """
    points = np.stack([xs, ys], axis=1).astype(np.float32)[:, None]
    corners = cv2.approxPolyDP(points, STRAY, closed)[:, 0].astype(np.float64)
    corners = np.concatenate([corners, corners[:1]]) if closed else corners
    steps = np.diff(corners, axis=0)
    pieces = np.maximum(1, np.ceil(np.hypot(*steps.T) / PIECE)).astype(int)
    number = np.arange(pieces.sum()) - np.repeat(np.cumsum(pieces) - pieces, pieces)
    on_the_way = np.repeat(steps / pieces[:, None], pieces, axis=0) * number[:, None]
    between = np.concatenate([np.repeat(corners[:-1], pieces, axis=0) + on_the_way, corners[-1:]])
    return QPolygonF([QPointF(x, y) for x, y in between.tolist()])


def fill_around(painter: QPainter, room: QRect, picture: QRectF, colour: QColor) -> None:
    """Fill what an opaque picture that is drawn next leaves of a room, and a pixel under its
    rim.
    """
    left, top = math.ceil(picture.left()) + 1, math.ceil(picture.top()) + 1
    inner = (
        QRect(left, top, int(picture.right()) - 1 - left, int(picture.bottom()) - 1 - top) & room
    )
    if inner.isEmpty():
        painter.fillRect(room, colour)
        return
    painter.fillRect(QRect(room.left(), room.top(), room.width(), inner.top() - room.top()), colour)
    painter.fillRect(
        QRect(room.left(), inner.bottom() + 1, room.width(), room.bottom() - inner.bottom()), colour
    )
    painter.fillRect(
        QRect(room.left(), inner.top(), inner.left() - room.left(), inner.height()), colour
    )
    painter.fillRect(
        QRect(inner.right() + 1, inner.top(), room.right() - inner.right(), inner.height()), colour
    )


def draw_edged(
    painter: QPainter,
    draw: Callable[[], object],
    colour: QColor = AMBER,
    width: float = 1.8,
    style: Qt.PenStyle = Qt.PenStyle.SolidLine,
) -> None:
    """Draw something twice: dark and wider, then in its colour, so that it shows on light and on
    dark.
    """
    painter.setPen(QPen(QColor(0, 0, 0, SHADE), width + 2))
    draw()
    painter.setPen(QPen(colour, width, style))
    draw()
