"""The bar of a clip's frames: play head, in and out point, frames that are ready, keyframes, and
coverage over time.
"""

from __future__ import annotations

import numpy as np
from PyQt6.QtCore import QPointF, QRect, QRectF, QSize, Qt
from PyQt6.QtGui import QColor, QMouseEvent, QPainter, QPen, QPixmap, QPolygonF
from PyQt6.QtWidgets import QSizePolicy, QWidget

from ...language import translator
from ...live.watching import Course
from ...workspace.workspace import Workspace
from ..style import AMBER, DIM, WELL
from ..widgets.painting import painting, paints

translate = translator("clip")


#: Height of the bar alone, pixels.
BAR = 20
#: Height of the graph above it.
GRAPH = 40
#: Room at either end.
MARGIN = 8
#: Height of the names of its lines.
LEGEND = 12
#: Flicker without Steady.
UNSTEADY = QColor(70, 92, 122)
#: Line of the coverage.
COVERAGE = QColor(214, 214, 214)
#: Line of the flicker.
FLICKER = QColor(120, 170, 230)
#: Line of the drift.
DRIFT = QColor(230, 140, 200)
#: Frames with trouble.
TROUBLE = QColor(235, 96, 70)
#: Flicker that fills the graph from bottom to top, per cent of the mask.
MOST_FLICKER = 25.0
#: Drift that fills it, ΔEok times 100.
MOST_DRIFT = 10.0


class TimeBar(QWidget):
    """Press and drag to scrub; the picture follows."""

    def __init__(self, workspace: Workspace) -> None:
        super().__init__()
        self._clip, self._playback, self._work = workspace.clip, workspace.playback, workspace.work
        self.course: Course | None = None
        #: The graph as it was drawn last.
        self._graph: QPixmap | None = None
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(translate("Frames"))
        self.setMouseTracking(True)
        workspace.work.frame_changed.connect(self.update)
        workspace.playback.changed.connect(self.update)
        workspace.work.changed.connect(self.update)

    def sizeHint(self) -> QSize:
        return QSize(200, BAR + (GRAPH if self.course is not None else 0))

    def show_course(self, course: Course | None) -> None:
        """Draw what was watched of the current sieve's mask."""
        grows = (course is None) != (self.course is None)
        self.course, self._graph = course, None
        if grows:
            self.updateGeometry()
        self.update()

    # Places

    def place_of(self, number: float) -> float:
        """Return where a frame lies, in pixels from the left."""
        return MARGIN + (self.width() - 2 * MARGIN) * number / max(self._work.frames - 1, 1)

    def frame_at(self, x: float) -> int:
        """The frame at a place."""
        share = (x - MARGIN) / max(self.width() - 2 * MARGIN, 1)
        return round(min(max(share, 0.0), 1.0) * (self._work.frames - 1))

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is not None and event.button() == Qt.MouseButton.LeftButton:
            self._playback.stop()
            self._clip.go_to(self.frame_at(event.position().x()))

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is None:
            return
        number = self.frame_at(event.position().x())
        if event.buttons() & Qt.MouseButton.LeftButton:
            self._clip.go_to(number)
        course = self.course
        if course is not None and number in course.seen:
            seen = course.seen[number]
            self.setToolTip(
                translate(
                    "Frame {number}: covers {coverage:.1f} %, flicker {flicker:.1f} %",
                    number=number,
                    coverage=100 * seen.coverage,
                    flicker=course.flicker(number),
                )
                + (
                    translate(
                        " ({unsteady:.1f} % without Steady)",
                        unsteady=course.unsteady[number],
                    )
                    if number in course.unsteady
                    else ""
                )
                + translate(", drift {drift:.1f}", drift=seen.drift)
            )
        else:
            self.setToolTip(translate("Frame {number}", number=number))

    # Drawing

    @paints
    def paintEvent(self, painter: QPainter) -> None:
        painter.fillRect(self.rect(), WELL)
        frames = self._work.frames
        if frames <= 1:
            return
        top = self.height() - BAR
        if self.course is not None:
            self._show_graph(painter, self.course, top)
        between = self._work.between
        if between is not None:
            for left, right in (
                (0.0, self.place_of(between[0])),
                (self.place_of(between[1]), float(self.width())),
            ):
                painter.fillRect(QRectF(left, 0, right - left, self.height()), QColor(0, 0, 0, 130))
            painter.setPen(QPen(AMBER, 1.5))
            for number in between:
                painter.drawLine(
                    QPointF(self.place_of(number), top),
                    QPointF(self.place_of(number), self.height()),
                )
        self._draw_ready(painter, top + BAR - 5)
        self._draw_ticks(painter, top)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(AMBER)
        by_hand, tracked = self._keyframes()
        for first, last in _runs(sorted(tracked)):
            left, right = self.place_of(first), self.place_of(last)
            painter.drawRect(QRectF(left, top + 6.0, max(right - left, 2.0), 2.0))
        for number in by_hand:
            x, y = self.place_of(number), top + 7.0
            painter.drawPolygon(
                QPolygonF(
                    [QPointF(x, y - 4), QPointF(x + 4, y), QPointF(x, y + 4), QPointF(x - 4, y)]
                )
            )
        head = self.place_of(self._work.number)
        painter.setPen(QPen(QColor(255, 255, 255), 1.6))
        painter.drawLine(QPointF(head, 0), QPointF(head, self.height()))

    def _keyframes(self) -> tuple[set[int], set[int]]:
        """Frames at which something of the current sieve was keyed by hand, and those that tracking
        has keyed.
        """
        keys = [key for track in self._work.document.sieve.tracks for key in track.keys]
        return {key.frame for key in keys if key.confidence is None}, {
            key.frame for key in keys if key.confidence is not None
        }

    def _draw_ready(self, painter: QPainter, y: float) -> None:
        for first, last in _runs(sorted(self._playback.ready)):
            left, right = self.place_of(first - 0.5), self.place_of(last + 0.5)
            painter.fillRect(QRectF(left, y, max(right - left, 1.0), 3), QColor(150, 150, 150))

    def _draw_ticks(self, painter: QPainter, top: float) -> None:
        rate = round(float(self._work.opened.source.about.rate)) if self._work.opened else 24
        step = max(rate, 1)
        while (self.width() - 2 * MARGIN) * step / max(self._work.frames - 1, 1) < 46:
            step *= 2
        painter.setPen(QPen(DIM, 1))
        for number in range(0, self._work.frames, step):
            painter.drawLine(
                QPointF(self.place_of(number), top), QPointF(self.place_of(number), top + 4)
            )

    def _show_graph(self, painter: QPainter, course: Course, height: int) -> None:
        """Paint the graph from a pixmap, which is drawn again only for another course or size: a
        long clip has ten thousand frames.
        """
        ratio = self.devicePixelRatioF()
        size = QSize(round(self.width() * ratio), round(height * ratio))
        if size.isEmpty():  # the panel was pulled so small
            return
        if self._graph is None or self._graph.size() != size:
            self._graph = QPixmap(size)
            self._graph.setDevicePixelRatio(ratio)
            self._graph.fill(WELL)
            with painting(self._graph) as inner:
                self._draw_course(inner, course, height)
        painter.drawPixmap(0, 0, self._graph)

    def _draw_course(self, painter: QPainter, course: Course, height: float) -> None:
        most = max([seen.coverage for seen in course.seen.values()], default=0.0) * 1.15 or 1.0
        numbers = sorted(course.seen)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        flicker, seen = course.flicker, course.seen
        unsteady = [course.unsteady.get(number, 0.0) / MOST_FLICKER for number in numbers]
        rows: list[tuple[QColor, str, list[float]]] = [
            (DRIFT, translate("Drift"), [seen[number].drift / MOST_DRIFT for number in numbers]),
            (FLICKER, translate("Flicker"), [flicker(number) / MOST_FLICKER for number in numbers]),
            (COVERAGE, translate("Coverage"), [seen[number].coverage / most for number in numbers]),
        ]
        if course.unsteady:
            rows.insert(1, (UNSTEADY, translate("Flicker without Steady"), unsteady))
        for colour, _, values in rows:
            painter.setPen(QPen(colour, 1.3))
            line = [
                QPointF(self.place_of(n), height - 2 - (height - 6) * float(np.clip(v, 0, 1)))
                for n, v in zip(numbers, values, strict=False)
            ]
            painter.drawPolyline(QPolygonF(line))
        painter.setPen(QPen(TROUBLE, 1.5))
        for number in course.troubles:
            painter.drawLine(
                QPointF(self.place_of(number), 0), QPointF(self.place_of(number), height)
            )
        legend = [(colour, name) for colour, name, _ in reversed(rows)]
        self._draw_legend(
            painter, [*legend, (TROUBLE, translate("Jump"))] if course.troubles else legend
        )

    def _draw_legend(self, painter: QPainter, rows: list[tuple[QColor, str]]) -> None:
        """Names of the lines, each in its colour, from the left."""
        x = MARGIN
        for colour, name in rows:
            box = QRect(x, 1, painter.fontMetrics().horizontalAdvance(name), LEGEND)
            painter.fillRect(box.adjusted(-3, 0, 3, 0), QColor(0, 0, 0, 120))
            painter.setPen(colour.lighter(150) if colour is UNSTEADY else colour)
            painter.drawText(box, Qt.AlignmentFlag.AlignVCenter, name)
            x = box.right() + 12


def _runs(numbers: list[int]) -> list[tuple[int, int]]:
    """Stretches of numbers that follow each other."""
    out: list[tuple[int, int]] = []
    for number in numbers:
        if out and number == out[-1][1] + 1:
            out[-1] = (out[-1][0], number)
        else:
            out.append((number, number))
    return out
