"""Pixels as images, and lines that show on anything."""

from __future__ import annotations

import math
from collections.abc import Callable

import cv2
import numpy as np
from PyQt6.QtCore import QPointF, QRect, QRectF, QSize, Qt
from PyQt6.QtGui import QColor, QImage, QPainter, QPen, QPixmap

from ..style import AMBER

#: How dark the wider line is that lies under every line on the picture, 0 to 255.
SHADE = 170
#: From so many screen pixels to a pixel on, pixels are shown as squares.
SMOOTH_TO = 2.0


def image_of(pixels: np.ndarray, see_through: bool = False) -> QImage:
    """Screen pixels (H, W) uint32, 0xAARRGGBB, as an image that shares their memory; what is at A counts when it is ``see_through``."""
    kind = QImage.Format.Format_ARGB32 if see_through else QImage.Format.Format_RGB32
    return QImage(pixels.data, pixels.shape[1], pixels.shape[0], pixels.strides[0], kind)  # type: ignore[call-overload]


def pixmap_of(pixels: np.ndarray) -> QPixmap:
    """Screen pixels (H, W) uint32 as a picture that keeps nothing of their memory."""
    return QPixmap.fromImage(image_of(pixels).copy())


class Scaled:
    """Screen pixels as they are seen at some zoom, in as many pixels as the screen has; made anew when something of that is another.

    Painted from this, an image is only copied: the painter's own scaling would take several times as long, at every paint.
    """

    def __init__(self) -> None:
        self._of: tuple[object, ...] = ()
        self._pixels: np.ndarray | None = None
        self._image, self._at = QImage(), QPointF()
        self._scaled = np.empty((0, 0, 4), np.uint8)

    def draw(self, painter: QPainter, pixels: np.ndarray, corner: QPointF, zoom: float, room: QSize, ratio: float) -> None:
        """Draw pixels (H, W) uint32 so that their corner lies there, ``zoom`` points of the painter to a pixel, within a widget's room."""
        height, width = pixels.shape
        scale, left, top = zoom * ratio, corner.x() * ratio, corner.y() * ratio
        box = (
            max(0, round(left)), max(0, round(top)),
            min(round(room.width() * ratio), round(left + width * scale)), min(round(room.height() * ratio), round(top + height * scale)),
        )  # fmt: skip
        size = (box[2] - box[0], box[3] - box[1])
        if min(size) <= 0:
            return
        of = (box, left, top, scale)
        if pixels is not self._pixels or of != self._of:
            # The pixels that are seen, all of them whole, and where the first of them lies.
            x0, y0 = (
                min(max(0, int((start - edge) / scale)), size - 1) for start, edge, size in ((box[0], left, width), (box[1], top, height))
            )
            x1 = min(width, max(x0 + 1, math.ceil((box[2] - left) / scale)))
            y1 = min(height, max(y0 + 1, math.ceil((box[3] - top) / scale)))
            shown = pixels.view(np.uint8).reshape(height, width, 4)[y0:y1, x0:x1]
            whole = (max(1, round((x1 - x0) * scale)), max(1, round((y1 - y0) * scale)))
            if self._scaled.shape[:2] != whole[::-1]:  # else the memory is used again: fresh memory takes as long as the scaling
                self._scaled = np.empty((whole[1], whole[0], 4), np.uint8)
            cv2.resize(shown, whole, self._scaled, interpolation=cv2.INTER_LINEAR if scale < SMOOTH_TO else cv2.INTER_NEAREST)
            self._of, self._pixels = of, pixels
            # The image shares the memory of what was scaled; it is made anew, or the painter might use what it keeps of the last one.
            self._image = image_of(self._scaled.view(np.uint32).reshape(whole[1], whole[0]))
            self._image.setDevicePixelRatio(ratio)
            self._at = QPointF(round(left + x0 * scale) / ratio, round(top + y0 * scale) / ratio)
        painter.drawImage(self._at, self._image)


def fill_around(painter: QPainter, room: QRect, picture: QRectF, colour: QColor) -> None:
    """Fill what an opaque picture that is drawn next leaves of a room, and a pixel under its rim."""
    left, top = math.ceil(picture.left()) + 1, math.ceil(picture.top()) + 1
    inner = QRect(left, top, int(picture.right()) - 1 - left, int(picture.bottom()) - 1 - top) & room
    if inner.isEmpty():
        painter.fillRect(room, colour)
        return
    painter.fillRect(QRect(room.left(), room.top(), room.width(), inner.top() - room.top()), colour)
    painter.fillRect(QRect(room.left(), inner.bottom() + 1, room.width(), room.bottom() - inner.bottom()), colour)
    painter.fillRect(QRect(room.left(), inner.top(), inner.left() - room.left(), inner.height()), colour)
    painter.fillRect(QRect(inner.right() + 1, inner.top(), room.right() - inner.right(), inner.height()), colour)


def draw_edged(
    painter: QPainter, draw: Callable[[], object], colour: QColor = AMBER, width: float = 1.8, style: Qt.PenStyle = Qt.PenStyle.SolidLine
) -> None:
    """Draw something twice: dark and wider, then in its colour, so that it shows on light and on dark."""
    painter.setPen(QPen(QColor(0, 0, 0, SHADE), width + 2))
    draw()
    painter.setPen(QPen(colour, width, style))
    draw()
