"""A band drawn over the picture's own histogram, with its core and falloffs to be dragged."""

from __future__ import annotations

import numpy as np
from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import (
    QColor,
    QFocusEvent,
    QKeyEvent,
    QLinearGradient,
    QMouseEvent,
    QPainter,
    QPen,
    QPolygonF,
)
from PyQt6.QtWidgets import QSizePolicy, QWidget

from ...core.bands.apply import band_curve
from ...core.bands.interval import Corners, Interval, moved_corners
from ...core.colour.oklab import one_from_oklab
from ...core.colour.transfer import one_encoded
from ...language import decimals, named, translator
from ...names import MEASURES
from ...project.model import Band
from ..style import AMBER, DIM, WELL
from .drawing import Backdrop, line_through
from .nudging import steps_of
from .painting import paints

translate = translator("widgets")


#: Screen pixels within which a corner is grabbed.
GRIP = 7.0


#: What its tooltip says.
HELP = translate(
    "Drag a corner, or between them the whole; Shift moves the other side the opposite way, Ctrl "
    "moves "
    "core and falloff of one side together. Keys: Left and Right nudge (Shift ×10, Alt ÷10), Up "
    "and Down "
    "choose what is nudged, Home is the full range, Space switches on and off, I inverts.",
)


class BandEditor(QWidget):
    """One band over a histogram; ``edited`` tells its corners and what was dragged."""

    edited = pyqtSignal(object, str)
    settled = pyqtSignal()
    chosen = pyqtSignal()

    def __init__(self, measure: str) -> None:
        super().__init__()
        self.measure = measure
        self.known = MEASURES[measure]
        self.low, self.high, self.wraps = self.known.low, self.known.high, self.known.wraps
        self.band: Band | None = None
        self.histogram = np.zeros(256)
        #: What it was made of, and how often that has been something else.
        self._counts, self._counted = np.zeros(0), 0
        #: The histogram on its ground, and all of it but the pointer.
        self._ground, self._standing = Backdrop(), Backdrop()
        self.pointer: float | None = None
        self.grip = 4
        self._held: tuple[float, Corners] | None = None
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setMinimumHeight(58)
        self.setMouseTracking(True)
        self.setAccessibleName(translate("{measure} band", measure=named(measure)))
        self.setToolTip(HELP)

    def sizeHint(self) -> QSize:
        return QSize(230, 66)

    @property
    def held(self) -> bool:
        """Return whether the hand is at it."""
        return self._held is not None or self.hasFocus()

    def show_band(self, band: Band) -> None:
        if band != self.band:
            self.band = band
            corners = [decimals(f"{corner:g}") for corner in band.corners]
            state = "" if band.on else translate(", off")
            words = translate("Fades in from {}, full from {} to {}, fades out to {}").format(
                *corners
            )
            self.setAccessibleDescription(
                words + (translate(" (inverted)") if band.inverted else "") + state
            )
            self.update()

    def show_histogram(self, counts: np.ndarray) -> None:
        if not np.array_equal(counts, self._counts):
            self._counts = counts
            self.histogram = np.log1p(counts.astype(float))
            self._counted += 1
            self.update()

    def show_pointer(self, value: float | None) -> None:
        """Mark the value under the pointer."""
        if value != self.pointer:
            self.pointer = value
            self.update()

    # Where things are

    def _area(self) -> QRectF:
        return QRectF(self.rect()).adjusted(4, 17, -4, -8)

    def x_of(self, value: float) -> float:
        area = self._area()
        return area.left() + (value - self.low) / (self.high - self.low) * area.width()

    def value_at(self, x: float) -> float:
        area = self._area()
        return self.low + (x - area.left()) / area.width() * (self.high - self.low)

    def _images(self, value: float) -> list[float]:
        """The places on the track where a value shows: a hue may show a turn away."""
        return (
            [v for v in (value - 360, value, value + 360) if self.low <= v <= self.high]
            if self.wraps
            else [value]
        )

    def _grip_at(self, x: float) -> tuple[int, float]:
        """Return which corner is at x (4: the band itself), and its distance."""
        assert self.band is not None
        far = [
            (min(abs(self.x_of(v) - x) for v in self._images(corner) or [1e6]), k)
            for k, corner in enumerate(self.band.corners)
        ]
        # Where corners lie on each other, the outer ones are taken from outside, the inner ones
        # from inside.
        distance, grip = min(
            far,
            key=lambda pair: (
                round(pair[0] / 3),
                abs(pair[1] - 1.5) if self._inside(x) else -abs(pair[1] - 1.5),
            ),
        )
        return (grip, distance) if distance <= GRIP else (4, distance)

    def _inside(self, x: float) -> bool:
        assert self.band is not None
        value = self.value_at(x)
        return any(
            self.band.corners[1] <= value + turn <= self.band.corners[2] for turn in (0, 360)
        )

    # Painting

    def _colour(self, share: float) -> QColor:
        """The colour of the track at a share of the range."""
        if self.measure == "hue":
            angle = np.radians(share * 360)
            lab = (0.70, 0.12 * np.cos(angle), 0.12 * np.sin(angle))
            r, g, b = np.clip(np.rint(one_encoded(one_from_oklab(lab)) * 255), 0, 255)
            return QColor(int(r), int(g), int(b))
        if self.measure == "luminance":
            level = int(20 + 225 * share)
            return QColor(level, level, level)
        if self.measure == "saturation":
            return QColor(int(128 + 90 * share), int(128 - 10 * share), int(128 - 90 * share))
        level = int(255 * share)
        return QColor(*(level if self.measure == name else 0 for name in ("red", "green", "blue")))

    @paints
    def paintEvent(self, painter: QPainter) -> None:
        if self.band is None:
            return
        look = (AMBER.rgb(), DIM.rgb(), WELL.rgb(), self._label())
        self._standing.draw(
            painter,
            self,
            (self._counted, self.band, self.grip, self.hasFocus(), look),
            self._draw_standing,
        )
        if self.pointer is not None:
            area, x = self._area(), self.x_of(self.pointer)
            painter.setPen(QPen(QColor(255, 255, 255, 170), 1, Qt.PenStyle.DotLine))
            painter.drawLine(QPointF(x, area.top()), QPointF(x, area.bottom()))

    def _label(self) -> str:
        assert self.band is not None
        return named(self.measure) + (translate(" (inverted)") if self.band.inverted else "")

    def _draw_ground(self, painter: QPainter) -> None:
        assert self.band is not None
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        area = self._area()
        painter.fillRect(area, WELL)
        xs = (
            area.left()
            + (np.arange(self.histogram.size) + 0.5) / self.histogram.size * area.width()
        )
        ys = area.bottom() - self.histogram / max(self.histogram.max(), 1e-9) * area.height() * 0.95
        hill = [
            area.bottomLeft(),
            *(QPointF(x, y) for x, y in zip(xs.tolist(), ys.tolist(), strict=True)),
            area.bottomRight(),
        ]
        fade = QLinearGradient(area.topLeft(), area.topRight())
        for share in np.linspace(0, 1, 13):
            fade.setColorAt(float(share), self._colour(float(share)))
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setOpacity(0.85 if self.band.on else 0.35)
        painter.setBrush(fade)
        painter.drawPolygon(QPolygonF(hill))
        painter.drawRect(QRectF(area.left(), area.bottom() + 2, area.width(), 4))

    def _draw_standing(self, painter: QPainter) -> None:
        assert self.band is not None
        area = self._area()
        self._ground.draw(
            painter, self, (self._counted, self.band.on, WELL.rgb()), self._draw_ground
        )
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        values = np.linspace(self.low, self.high, 180)
        counts = band_curve(
            Interval(
                self.measure, self.band.corners, self.band.inverted, self.band.shape, self.band.bend
            ),
            values,
        )
        xs = area.left() + (values - self.low) / (self.high - self.low) * area.width()
        ys = area.bottom() - counts.astype(float) * (area.height() - 2)
        line = line_through(xs, ys)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.setPen(QPen(QColor(20, 20, 20), 3))
        painter.drawPolyline(line)
        painter.setPen(QPen(AMBER if self.band.on else DIM, 1.6))
        painter.drawPolyline(line)
        for k, corner in enumerate(self.band.corners):
            for value in self._images(corner):
                y = area.bottom() if k in (0, 3) else area.top() + 1
                painter.setBrush(
                    QColor(255, 255, 255)
                    if k == self.grip and self.hasFocus()
                    else (AMBER if self.band.on else DIM)
                )
                painter.setPen(QPen(QColor(20, 20, 20), 1))
                painter.drawRect(QRectF(self.x_of(value) - 3, y - 3, 6, 6))
        painter.setPen(QColor(230, 230, 230) if self.band.on else DIM)
        painter.drawText(
            QRectF(4, 0, self.width() - 8, 16),
            Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter,
            self._label(),
        )
        unit = {"°": "°", "%": " %"}.get(self.known.unit, "")
        words = (
            decimals(f"{self.band.corners[1]:.0f} – {self.band.corners[2]:.0f}{unit}")
            if self.band.on
            else translate("off")
        )
        painter.drawText(
            QRectF(4, 0, self.width() - 8, 16),
            Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter,
            words,
        )
        if self.hasFocus():
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.setPen(QColor(192, 138, 44))
            painter.drawRect(area.adjusted(-1, -1, 1, 1))

    # Changing

    def _move(
        self, corners: Corners, by: float, held: Qt.KeyboardModifier, from_keys: bool = False
    ) -> None:
        assert self.band is not None
        mirror = bool(held & Qt.KeyboardModifier.ShiftModifier) and not from_keys
        together = bool(held & Qt.KeyboardModifier.ControlModifier)
        moved = moved_corners(corners, self.grip, by, self.measure, mirror, together)
        self.edited.emit(
            self.band.but(on=True, corners=moved),
            translate("{measure} band", measure=named(self.measure)),
        )

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if (
            event is not None
            and event.button() == Qt.MouseButton.LeftButton
            and self.band is not None
        ):
            self.chosen.emit()
            self.grip, _ = self._grip_at(event.position().x())
            self._held = (event.position().x(), self.band.corners)
            self.update()

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is not None and self._held is not None:
            travel = (
                (event.position().x() - self._held[0])
                / self._area().width()
                * (self.high - self.low)
            )
            self._move(self._held[1], travel, event.modifiers())

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        if self._held is not None:
            self._held = None
            self.settled.emit()

    def mouseDoubleClickEvent(self, event: QMouseEvent | None) -> None:
        self.reset()

    def reset(self) -> None:
        """Put the band back to its full range, not inverted."""
        if self.band is not None:
            self.edited.emit(
                self.band.but(corners=self.known.full, inverted=False),
                translate("{measure} band", measure=named(self.measure)),
            )
            self.settled.emit()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None or self.band is None:
            return
        key, held = event.key(), event.modifiers()
        step = steps_of(held)
        if key in (Qt.Key.Key_Left, Qt.Key.Key_Right):
            self._move(
                self.band.corners, step if key == Qt.Key.Key_Right else -step, held, from_keys=True
            )
            self.settled.emit()
        elif key in (Qt.Key.Key_Up, Qt.Key.Key_Down):
            self.grip = (self.grip + (1 if key == Qt.Key.Key_Up else -1)) % 5
            self.update()
        elif key == Qt.Key.Key_Home:
            self.reset()
        elif key == Qt.Key.Key_Space:
            self.edited.emit(
                self.band.but(on=not self.band.on),
                translate("{measure} band on or off", measure=named(self.measure)),
            )
            self.settled.emit()
        elif key == Qt.Key.Key_I:
            self.edited.emit(
                self.band.but(on=True, inverted=not self.band.inverted),
                translate("Invert {measure} band", measure=self.measure),
            )
            self.settled.emit()
        else:
            super().keyPressEvent(event)

    def focusInEvent(self, event: QFocusEvent | None) -> None:
        self.chosen.emit()
        self.update()

    def focusOutEvent(self, event: QFocusEvent | None) -> None:
        self.update()
