"""Pixels as images, and lines that show on anything."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np
from PyQt6.QtCore import Qt
from PyQt6.QtGui import QColor, QImage, QPainter, QPen

from ..style import AMBER

#: How dark the wider line is that lies under every line on the picture, 0 to 255.
SHADE = 170


def image_of(pixels: np.ndarray, see_through: bool = False) -> QImage:
    """Screen pixels (H, W) uint32, 0xAARRGGBB, as an image that shares their memory; what is at A counts when it is ``see_through``."""
    kind = QImage.Format.Format_ARGB32 if see_through else QImage.Format.Format_RGB32
    return QImage(pixels.data, pixels.shape[1], pixels.shape[0], pixels.strides[0], kind)  # type: ignore[call-overload]


def draw_edged(
    painter: QPainter, draw: Callable[[], object], colour: QColor = AMBER, width: float = 1.8, style: Qt.PenStyle = Qt.PenStyle.SolidLine
) -> None:
    """Draw something twice: dark and wider, then in its colour, so that it shows on light and on dark."""
    painter.setPen(QPen(QColor(0, 0, 0, SHADE), width + 2))
    draw()
    painter.setPen(QPen(colour, width, style))
    draw()
