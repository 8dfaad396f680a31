"""Draw marks over the picture: samples, the next click that is offered, the cursor of the keyboard,
a loose outline, a grid.
"""

from __future__ import annotations

import contextlib
from collections.abc import Iterator, Sequence

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QColor, QPainter, QPen

from ...project.model import Sample
from ..style import AMBER
from ..widgets.drawing import draw_edged
from .viewport import Viewport


def draw_sample(painter: QPainter, viewport: Viewport, sample: Sample) -> None:
    """A keep sample is a ring round a dot, a drop sample a crossed-out lozenge; one that reaches
    only here stands on a point.
    """
    at = viewport.to_pane(QPointF(sample.x + 0.5, sample.y + 0.5))
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    painter.setBrush(Qt.BrushStyle.NoBrush)
    middle = at + QPointF(0, -17) if sample.reach == "here" else at

    def draw() -> None:
        if sample.role == "keep":
            painter.drawEllipse(middle, 7, 7)
            painter.drawPoint(middle)
        else:
            painter.drawPolygon(
                middle + QPointF(0, -8),
                middle + QPointF(8, 0),
                middle + QPointF(0, 8),
                middle + QPointF(-8, 0),
            )
            painter.drawLine(middle + QPointF(-5, 5), middle + QPointF(5, -5))
        if sample.reach == "here":
            painter.drawLine(middle + QPointF(0, 8), at)
            painter.drawPoint(at)

    draw_edged(painter, draw, AMBER if sample.role == "keep" else QColor(245, 245, 245))


def draw_offer(painter: QPainter, at: QPointF) -> None:
    """A small dotted ring, quieter than a sample."""
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    painter.setBrush(Qt.BrushStyle.NoBrush)
    draw_edged(
        painter,
        lambda: painter.drawEllipse(at, 6, 6),
        QColor(235, 235, 235),
        width=1.1,
        style=Qt.PenStyle.DotLine,
    )


def draw_key_cursor(painter: QPainter, at: QPointF) -> None:
    """A cross with a gap, so that what lies under it is seen."""

    def draw() -> None:
        for x, y in ((1, 0), (-1, 0), (0, 1), (0, -1)):
            painter.drawLine(at + QPointF(4 * x, 4 * y), at + QPointF(14 * x, 14 * y))

    draw_edged(painter, draw, QColor(245, 245, 245))


def draw_grid(painter: QPainter, viewport: Viewport) -> None:
    """Lines between the pixels."""
    left, top, right, bottom = viewport.visible()
    painter.setPen(QPen(QColor(128, 128, 128, 90), 1))
    for x in range(int(left), int(right) + 2):
        at = viewport.to_pane(QPointF(x, top))
        painter.drawLine(
            QPointF(at.x(), at.y()), QPointF(at.x(), viewport.to_pane(QPointF(x, bottom)).y())
        )
    for y in range(int(top), int(bottom) + 2):
        at = viewport.to_pane(QPointF(left, y))
        painter.drawLine(at, QPointF(viewport.to_pane(QPointF(right, y)).x(), at.y()))


def draw_outline(
    painter: QPainter, viewport: Viewport, outline: Sequence[tuple[float, float]]
) -> None:
    """The loose outline that Fit takes as a label: dashed, for it is no edge of the mask."""
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    painter.setBrush(Qt.BrushStyle.NoBrush)
    points = [viewport.to_pane(QPointF(x, y)) for x, y in outline]
    draw_edged(painter, lambda: painter.drawPolygon(*points), width=1.2, style=Qt.PenStyle.DashLine)


def draw_island(painter: QPainter, viewport: Viewport, box: tuple[int, int, int, int]) -> None:
    """Draw the box (left, top, width, height) round the island that is pointed at in the list."""
    left, top, width, height = box
    corner = viewport.to_pane(QPointF(left, top))
    size = QPointF(width, height) * viewport.zoom
    shown = QRectF(corner, corner + size).adjusted(-4, -4, 4, 4)
    painter.setBrush(Qt.BrushStyle.NoBrush)
    draw_edged(painter, lambda: painter.drawRoundedRect(shown, 4, 4))


def draw_gesture(
    painter: QPainter, viewport: Viewport, drawn: Sequence[QPointF], boxed: bool
) -> None:
    """Draw the box or stroke that is being drawn."""
    points = [viewport.to_pane(point) for point in drawn]
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    painter.setBrush(Qt.BrushStyle.NoBrush)
    if boxed:
        box = QRectF(points[0], points[-1]).normalized()
        draw_edged(painter, lambda: painter.drawRect(box))
    else:
        draw_edged(painter, lambda: painter.drawPolyline(*points))


@contextlib.contextmanager
def painter_inside(painter: QPainter, box: QRectF) -> Iterator[None]:
    """Let a painter paint inside a box alone."""
    painter.save()
    painter.setClipRect(box)
    try:
        yield
    finally:
        painter.restore()


def draw_wipe_line(painter: QPainter, x: float, height: float) -> None:
    """Draw the line between before and after."""
    light = QColor(240, 240, 240)
    draw_edged(painter, lambda: painter.drawLine(QPointF(x, 0), QPointF(x, height)), light, 1)
