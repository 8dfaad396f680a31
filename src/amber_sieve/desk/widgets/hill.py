"""A quiet hill behind the track of a number: the share that each value would take."""

from __future__ import annotations

import math

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import QColor, QPainter, QPixmap, QPolygonF

from ..style import INK
from .painting import painting


class Hill:
    """Draws it once for each size: that takes longer than all the rest of a number."""

    def __init__(self) -> None:
        self._made_of: tuple[object, ...] = ()
        self._pixels = QPixmap()

    def drawn(
        self, curve: tuple[float, ...], size: QSize, track: QRectF, top: float, ratio: float
    ) -> QPixmap:
        """Return it as large as the number; ``curve``: shares along the track, 0 to 1."""
        if self._made_of != (curve, size, ratio):
            self._made_of, self._pixels = (curve, size, ratio), QPixmap(size * ratio)
            self._pixels.setDevicePixelRatio(ratio)
            self._pixels.fill(Qt.GlobalColor.transparent)
            with painting(self._pixels) as painter:
                _draw(painter, curve, track, track.top() - top)
        return self._pixels


def _draw(painter: QPainter, curve: tuple[float, ...], track: QRectF, high: float) -> None:
    """Over the root of each share, so that small ones show."""
    step = track.width() / (len(curve) - 1)
    points = [
        QPointF(track.left() + k * step, track.top() - high * math.sqrt(share))
        for k, share in enumerate(curve)
    ]
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    painter.setPen(Qt.PenStyle.NoPen)
    painter.setBrush(QColor(INK.red(), INK.green(), INK.blue(), 34))
    painter.drawPolygon(QPolygonF([track.bottomLeft(), *points, track.bottomRight()]))
