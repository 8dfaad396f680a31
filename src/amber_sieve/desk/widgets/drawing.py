"""Pixels as images, and lines that show on anything."""

from __future__ import annotations

import math
from collections.abc import Callable

import cv2
import numpy as np
from PyQt6.QtCore import QPointF, QRect, QRectF, QSize, QSizeF, Qt
from PyQt6.QtGui import QColor, QImage, QPainter, QPen, QPixmap, QPolygonF, QRegion
from PyQt6.QtWidgets import QWidget

from ...core.changed import changed_boxes
from ...core.scaling import scale_boxes
from ...render.patched import Step
from ..style import AMBER
from .painting import painting

#: How dark the wider line is that lies under every line on the picture, 0 to 255.
SHADE = 170
#: How far a line that is drawn may stray from the one that is meant, in pixels: nobody sees a twentieth.
STRAY = 0.05
#: How long a piece of a line may be, pixels.
PIECE = 24.0
#: From so many screen pixels to a pixel on, pixels are shown as squares.
SMOOTH_TO = 2.0
#: From this share of what is seen on, all of it is scaled: the library takes about 0.6 of the time of our own kernel, but knows no boxes.
NEARLY_ALL = 0.6


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
        #: Which step of a drag they are of.
        self._step: Step | None = None
        #: Pixels of the screen to one.
        self._scale = 1.0
        #: The first and the last row and column that are seen.
        self._first, self._last = (0, 0), (0, 0)
        self._image, self._at = QImage(), QPointF()
        self._memory = np.empty(0, np.uint32)
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
            whole = (max(1, round((x1 - x0) * scale)), max(1, round((y1 - y0) * scale)))
            count = whole[0] * whole[1]
            if not count <= self._memory.size <= 2 * count:  # else it is used again: fresh memory takes as long as the scaling
                self._memory = np.empty(count + count // 32, np.uint32)
            self._scaled = self._memory[:count].view(np.uint8).reshape(whole[1], whole[0], 4)
            self._of, self._pixels, self._step = of, pixels, None
            self._scale, self._first, self._last = scale, (y0, x0), (y1, x1)
            self._scale_all()
            self._hold_image(ratio)
            self._at = QPointF(round(left + x0 * scale) / ratio, round(top + y0 * scale) / ratio)
        painter.drawImage(self._at, self._image)

    def _scale_all(self) -> None:
        """Scale all that is seen of the pixels."""
        assert self._pixels is not None
        (y0, x0), (y1, x1), (height, width) = self._first, self._last, self._scaled.shape[:2]
        shown = self._pixels.view(np.uint8).reshape(*self._pixels.shape, 4)[y0:y1, x0:x1]
        cv2.resize(shown, (width, height), self._scaled, interpolation=cv2.INTER_LINEAR if self._scale < SMOOTH_TO else cv2.INTER_NEAREST)

    def _hold_image(self, ratio: float) -> None:
        """The image shares the memory of what was scaled; it is made anew, or the painter might use what it keeps of the last one."""
        self._image = image_of(self._scaled.view(np.uint32).reshape(self._scaled.shape[:2]))
        self._image.setDevicePixelRatio(ratio)

    def exchange(self, pixels: np.ndarray, step: Step | None = None) -> QRegion | None:
        """Take others (H, W) in the place of the pixels that were drawn last: only what differs is scaled, and is to be painted anew; None for
        all of it, where nothing is known of it or nearly all differs. ``step`` says what may differ from the pixels of the step before, where it is known."""
        before, before_it, self._step = self._pixels, self._step, step
        if before is None or before.shape != pixels.shape or self._scale >= SMOOTH_TO or not self._of:
            return None
        (y0, x0), (y1, x1), ratio = self._first, self._last, self._image.devicePixelRatio()
        boxes = step.boxes() if step is not None and step.follows(before_it) else changed_boxes(before, pixels)
        height, width = self._scaled.shape[:2]
        down, across = (y1 - y0) / height, (x1 - x0) / width  # pixels to one of the screen's
        region, anew, count = QRegion(), [], 0
        for top, left, bottom, right in boxes:
            top, left, bottom, right = top - y0, left - x0, bottom - y0, right - x0  # counted from the first that is seen
            # Each pixel of the screen lies between two, so it may change where one of them does.
            rows = max(0, math.floor((top - 0.5) / down - 0.5)), min(height, math.ceil((bottom + 0.5) / down - 0.5) + 1)
            columns = max(0, math.floor((left - 0.5) / across - 0.5)), min(width, math.ceil((right + 0.5) / across - 0.5) + 1)
            if rows[1] <= rows[0] or columns[1] <= columns[0]:
                continue
            anew.append((rows[0], columns[0], rows[1], columns[1]))
            count += (rows[1] - rows[0]) * (columns[1] - columns[0])
            corner = self._at + QPointF(columns[0], rows[0]) / ratio
            region += QRectF(corner, QSizeF(columns[1] - columns[0], rows[1] - rows[0]) / ratio).toAlignedRect()
        self._pixels = pixels
        if count < NEARLY_ALL * height * width:
            scale_boxes(pixels[y0:y1, x0:x1], anew, self._scaled.view(np.uint32).reshape(height, width))
        else:
            self._scale_all()
        self._hold_image(ratio)
        return region if count < NEARLY_ALL * height * width else None


class Backdrop:
    """What a widget draws under all that moves, kept as pixels while it stays the same."""

    def __init__(self) -> None:
        self._of: object = None
        self._pixels: QPixmap | None = None

    def draw(self, painter: QPainter, widget: QWidget, of: object, make: Callable[[QPainter], object]) -> None:
        """Draw it over a whole widget; ``make`` draws it anew where it is of something else, compared by value, or of another size. It is kept
        when it is asked for a second time: what is another at every step of a drag is not drawn twice."""
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
    """A line through some points (N,) each, of as few pieces as it takes (Douglas and Peucker), none of them long: the painter is several times
    as slow with one long piece as with ten short ones, and each costs something."""
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
