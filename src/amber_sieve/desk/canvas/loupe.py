"""The loupe: the pixels round the pointer enlarged, and the colour that a click would take."""

from __future__ import annotations

import numpy as np
from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QColor, QPainter, QPen

from ...core.colour.transfer import one_encoded
from ...core.frame import Frame
from ..style import AMBER
from ..widgets.drawing import image_of
from ..widgets.swatch import screen_colour
from .viewport import Viewport

#: Pixels to every side of the pointer, and how large each is drawn.
HALF, SQUARE = 7, 7.0


def draw_loupe(
    painter: QPainter,
    viewport: Viewport,
    room: tuple[int, int],
    frame: Frame,
    at: QPointF,
    sample_size: int,
    promised: tuple[int, int, tuple[float, float, float]],
) -> None:
    """Draw the loupe beside the pointer at a place of the picture.

    ``room``: width and height of the pane. ``promised``: a pixel, and the colour that a click there
    would take; it is drawn once it is found for the pixel at the pointer.
    """
    width, height, x, y = frame.width, frame.height, int(at.x()), int(at.y())
    if not (0 <= x < width and 0 <= y < height):
        return
    rows = np.clip(np.arange(y - HALF, y + HALF + 1), 0, height - 1)
    columns = np.clip(np.arange(x - HALF, x + HALF + 1), 0, width - 1)
    encoded = one_encoded(frame.planes[:, rows][:, :, columns])
    levels = np.rint(np.clip(encoded, 0, 1) * 255).astype(np.uint32)
    pixels = np.uint32(0xFF000000) | (levels[0] << 16) | (levels[1] << 8) | levels[2]
    side = SQUARE * (2 * HALF + 1)
    hand = viewport.to_pane(at)
    corner = QPointF(
        hand.x() + 22 if hand.x() + 30 + side < room[0] else hand.x() - 22 - side,
        min(max(hand.y() - side / 2, 4), room[1] - side - 22),
    )
    box = QRectF(corner, corner + QPointF(side, side))
    painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform, False)
    painter.drawImage(box, image_of(np.ascontiguousarray(pixels)))
    if promised[:2] == (x, y):
        painter.fillRect(QRectF(box.left(), box.bottom(), side, 16), screen_colour(promised[2]))
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.setPen(QPen(QColor(20, 20, 20), 1))
    painter.drawRect(box.adjusted(0, 0, 0, 16))
    reach = SQUARE * (min(sample_size // 2, HALF) + 0.5)
    painter.setPen(QPen(AMBER, 1.5))
    painter.drawRect(
        QRectF(box.center() - QPointF(reach, reach), box.center() + QPointF(reach, reach))
    )
