"""The picture's own colours by hue and saturation, with the sieve's region on it, and luminance as
a strip beside it.
"""

from __future__ import annotations

import numpy as np
from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import (
    QColor,
    QImage,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPainterPath,
    QPen,
)
from PyQt6.QtWidgets import QSizePolicy, QWidget

from ...core.bands.interval import moved_corners
from ...core.colour.measures import one_hue_saturation_luminance
from ...core.statistics import RIM, Statistics
from ...language import translator
from ...live.preview import Rendered
from ...names import MEASURES
from ...project.model import Band
from ...workspace.viewing.readout import Pointed
from ...workspace.workspace import Workspace
from ..style import AMBER, DIM, WELL
from ..widgets.drawing import Backdrop, image_of
from ..widgets.nudging import steps_of
from ..widgets.painting import paints
from .field_drawing import histogram_image, ring

translate = translator("panels")


#: Height of the strip of luminance, pixels.
STRIP = 16
#: Screen pixels within which a bound is grabbed.
GRIP = 7.0
HUE, SATURATION, LUMINANCE = "hue", "saturation", "luminance"


#: What its tooltip says.
HELP = translate(
    "Drag the region's middle, its edges (full lines) or its falloff (dotted lines); drag outside "
    "it to light a spot up on the picture.\nDouble-click shows it large in the second "
    "pane.\nKeys: Left and Right turn the hue band, Up and Down move the saturation band (Shift "
    "×10, Alt ÷10); Delete switches both off.",
)


class ColourField(QWidget):
    """The picture's own colours as a density map, with the sieve's region on it to be dragged."""

    enlarged = pyqtSignal()

    def __init__(self, workspace: Workspace) -> None:
        super().__init__()
        self._viewing, self._work = workspace.viewing, workspace.work
        self._density: np.ndarray | None = None
        self._image: QImage | None = None
        self._counted: Statistics | None = None
        #: The histogram of luminance, light at the top.
        self._hill: QImage | None = None
        #: The colours that are counted, with the rim; and how often they have been others.
        self._backdrop, self._drawn_anew = Backdrop(), 0
        self._solo: np.ndarray | None = None
        self._divided: np.ndarray | None = None
        self._line: np.ndarray | None = None
        self._pointer: dict[str, float] | None = None
        self._drag: tuple[str, int, float, float, Band, Band] | None = None
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setMinimumSize(120, 120)
        self.setAccessibleName(translate("Colour field"))
        self.setToolTip(HELP)
        workspace.viewing.rendered.connect(self._take)
        workspace.work.changed.connect(self._project_changed)
        workspace.work.selection_changed.connect(self._project_changed)
        self._drawn: tuple[object, ...] = ()
        workspace.readout.pointed.connect(self._point)
        if workspace.viewing.last is not None:
            self._take(workspace.viewing.last)

    def sizeHint(self) -> QSize:
        return QSize(190, 170)

    def _take(self, result: Rendered) -> None:
        solo = result.field
        if (solo is None) != (self._solo is None) or solo is not None:
            self._solo = solo
            self._draw_anew()
        if result.divided is not None or self._divided is not None:
            self._divided = result.divided
            self._line = result.dividing_line
            self._draw_anew()
        if result.statistics is not self._counted:
            self._counted = result.statistics
            self._hill = histogram_image(self._counted.luminance)
            self._density = result.density
            self._image = image_of(self._density)
            self._draw_anew()

    def _draw_anew(self) -> None:
        self._drawn_anew += 1
        self.update()

    def _project_changed(self) -> None:
        sieve = self._work.sieve
        drawn = (
            sieve.bands,
            tuple((sample.colour, sample.role, sample.reach) for sample in sieve.pick.samples),
        )
        if drawn != self._drawn:
            self._drawn = drawn
            self.update()

    def _point(self, pointed: Pointed | None) -> None:
        self._pointer = pointed.measures if pointed is not None else None
        self.update()

    # Where things are

    def _radius(self) -> float:
        return max(20.0, min((self.width() - STRIP - 14) / 2, self.height() / 2 - 3))

    def _middle(self) -> QPointF:
        return QPointF(4 + self._radius(), self.height() / 2)

    def at(self, hue: float, saturation: float) -> QPointF:
        """Return where a colour lies on the field."""
        r = min(max(saturation, 0), RIM) / RIM * self._radius()
        return self._middle() + QPointF(r * np.cos(np.radians(hue)), -r * np.sin(np.radians(hue)))

    def colour_at(self, point: QPointF) -> tuple[float, float]:
        """Hue and saturation of a point on the field."""
        away = point - self._middle()
        return float(np.degrees(np.arctan2(-away.y(), away.x())) % 360), float(
            np.hypot(away.x(), away.y()) / self._radius() * RIM
        )

    def _strip(self) -> QRectF:
        return QRectF(self.width() - STRIP - 4, 4, STRIP, self.height() - 8)

    def y_of(self, luminance: float) -> float:
        return self._strip().bottom() - luminance / 100 * self._strip().height()

    def _bands(self) -> tuple[Band, Band, Band]:
        bands = self._work.sieve.bands
        full = (
            Band(corners=MEASURES[HUE].full),
            Band(corners=(0, 0, RIM, RIM)),
            Band(corners=MEASURES[LUMINANCE].full),
        )
        return tuple(
            getattr(bands, name) if getattr(bands, name).on else whole
            for name, whole in zip((HUE, SATURATION, LUMINANCE), full, strict=True)
        )  # type: ignore[return-value]

    # Painting

    def _draw_backdrop(self, painter: QPainter) -> None:
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        radius, middle = self._radius(), self._middle()
        circle = QPainterPath()
        circle.addEllipse(middle, radius, radius)
        painter.fillPath(circle, WELL)
        if self._image is not None:
            painter.save()
            painter.setClipPath(circle)
            painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
            room = QRectF(middle - QPointF(radius, radius), middle + QPointF(radius, radius))
            painter.drawImage(room, self._image)
            if self._solo is not None:
                pixels = np.where(self._solo > 0.5, np.uint32(0xC8FFFFFF), np.uint32(0))
                painter.drawImage(room, image_of(pixels, see_through=True))
            if self._line is not None:
                painter.drawImage(room, image_of(self._line, see_through=True))
            painter.restore()
        painter.setPen(QPen(QColor(96, 96, 96), 1))
        painter.drawEllipse(middle, radius, radius)
        painter.drawEllipse(middle, radius * 100 / RIM, radius * 100 / RIM)

    @paints
    def paintEvent(self, painter: QPainter) -> None:
        self._backdrop.draw(painter, self, (self._drawn_anew, WELL.rgb()), self._draw_backdrop)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        hue, saturation, luminance = self._bands()
        bands = self._work.sieve.bands
        painter.setBrush(Qt.BrushStyle.NoBrush)
        if bands.hue.on or bands.saturation.on:
            for (a, b), (c, d), pen in (
                (
                    (hue.corners[0], hue.corners[3]),
                    (saturation.corners[0], saturation.corners[3]),
                    QPen(AMBER, 1, Qt.PenStyle.DotLine),
                ),
                (
                    (hue.corners[1], hue.corners[2]),
                    (saturation.corners[1], saturation.corners[2]),
                    QPen(AMBER, 1.6),
                ),
            ):
                piece = ring(self._middle(), self._radius(), a, b, max(c, 0), min(d, RIM))
                painter.setPen(QPen(QColor(20, 20, 20), pen.widthF() + 1.5))
                painter.drawPolygon(piece)
                painter.setPen(pen)
                painter.drawPolygon(piece)
        for sample in self._work.sieve.pick.samples:
            h, s, _ = one_hue_saturation_luminance(np.array(sample.colour))
            painter.setPen(QPen(QColor(0, 0, 0), 1))
            colour = AMBER if sample.role == "keep" else QColor(240, 240, 240)
            # A sample that reaches only here is hollow: it stands for its place, not for its
            # colour.
            painter.setBrush(Qt.BrushStyle.NoBrush if sample.reach == "here" else colour)
            if sample.reach == "here":
                painter.setPen(QPen(colour, 1.5))
            painter.drawEllipse(self.at(h, s), 3, 3)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        strip = self._strip()
        painter.fillRect(strip, WELL)
        if self._hill is not None:
            painter.drawImage(strip, self._hill)
        if bands.luminance.on:
            for k, corner in enumerate(luminance.corners):
                painter.setPen(
                    QPen(
                        AMBER,
                        1.6 if k in (1, 2) else 1,
                        Qt.PenStyle.SolidLine if k in (1, 2) else Qt.PenStyle.DotLine,
                    )
                )
                painter.drawLine(
                    QPointF(strip.left() - 3, self.y_of(corner)),
                    QPointF(strip.right() + 3, self.y_of(corner)),
                )
        if self._pointer:
            painter.setPen(QPen(QColor(0, 0, 0), 3))
            painter.drawEllipse(self.at(self._pointer[HUE], self._pointer[SATURATION]), 4, 4)
            painter.setPen(QPen(QColor(255, 255, 255), 1.4))
            painter.drawEllipse(self.at(self._pointer[HUE], self._pointer[SATURATION]), 4, 4)
            painter.drawLine(
                QPointF(strip.left(), self.y_of(self._pointer[LUMINANCE])),
                QPointF(strip.right(), self.y_of(self._pointer[LUMINANCE])),
            )
        if self.hasFocus():
            painter.setPen(DIM)
            painter.drawRect(self.rect().adjusted(0, 0, -1, -1))

    # Changing

    def _edit(self, **bands: Band) -> None:
        what = translate("Colour field")
        self._work.edit_sieve(lambda s: s.but(bands=s.bands.but(**bands)), what, group=what)

    def _hue_gap(self, hue: float, corner: float, saturation: float) -> float:
        """Distance on screen, along the circle, from a hue to a corner."""
        apart = abs((hue - corner + 180) % 360 - 180)
        return float(np.radians(apart) * saturation / RIM * self._radius())

    def _grab(self, point: QPointF) -> tuple[str, int] | None:
        """Return which part of the region is at a point: (measure, corner), ("region", 4), or None
        for outside it.
        """
        bands = self._work.sieve.bands
        if self._strip().adjusted(-4, -4, 4, 4).contains(point):
            far = [abs(self.y_of(corner) - point.y()) for corner in self._bands()[2].corners]
            nearest = int(np.argmin(far))
            return (LUMINANCE, nearest if far[nearest] <= GRIP else 4)
        if not (bands.hue.on or bands.saturation.on):
            return None
        hue, saturation = self.colour_at(point)
        hues, saturations, _ = self._bands()
        offers: list[tuple[float, str, int]] = []
        if bands.hue.on:
            offers += [
                (self._hue_gap(hue, corner, saturation), HUE, k)
                for k, corner in enumerate(hues.corners)
            ]
        if bands.saturation.on:
            offers += [
                (abs(saturation - corner) / RIM * self._radius(), SATURATION, k)
                for k, corner in enumerate(saturations.corners)
            ]
        gap, measure, corner = min(offers)
        inside_hue = any(
            hues.corners[0] <= hue + turn <= hues.corners[3] for turn in (-360, 0, 360)
        )
        inside = inside_hue and saturations.corners[0] <= saturation <= saturations.corners[3]
        if gap <= GRIP and (inside or gap <= 4):
            return (measure, corner)
        return ("region", 4) if inside else None

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is None or event.button() != Qt.MouseButton.LeftButton:
            return
        grabbed = self._grab(event.position())
        hue, saturation = self.colour_at(event.position())
        if grabbed is None:
            self._drag = None
            self._viewing.look(spot=(hue, saturation))
            return
        measure, corner = grabbed
        hues, saturations, luminances = self._bands()
        if measure == LUMINANCE:
            start = 100 * (self._strip().bottom() - event.position().y()) / self._strip().height()
            self._drag = (measure, corner, start, 0.0, luminances, luminances)
        else:
            self._drag = (measure, corner, hue, saturation, hues, saturations)

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        assert event is not None
        if self._drag is None:
            if self._viewing.looking.spot is not None:
                self._viewing.look(spot=self.colour_at(event.position()))
            return
        measure, corner, hue, saturation, first, second = self._drag
        mirror = bool(event.modifiers() & Qt.KeyboardModifier.ShiftModifier)
        together = bool(event.modifiers() & Qt.KeyboardModifier.ControlModifier)
        if measure == LUMINANCE:
            now = 100 * (self._strip().bottom() - event.position().y()) / self._strip().height()
            self._edit(
                luminance=first.but(
                    on=True,
                    corners=moved_corners(
                        first.corners, corner, now - hue, LUMINANCE, mirror, together
                    ),
                )
            )
            return
        new_hue, new_saturation = self.colour_at(event.position())
        turn, out = (new_hue - hue + 180) % 360 - 180, new_saturation - saturation
        changes = {}
        if measure in (HUE, "region") and (measure == HUE or self._work.sieve.bands.hue.on):
            changes[HUE] = first.but(
                on=True, corners=moved_corners(first.corners, corner, turn, HUE, mirror, together)
            )
        if measure in (SATURATION, "region") and (
            measure == SATURATION or self._work.sieve.bands.saturation.on
        ):
            changes[SATURATION] = second.but(
                on=True,
                corners=moved_corners(second.corners, corner, out, SATURATION, mirror, together),
            )
        self._edit(**changes)

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        self._drag = None
        self._viewing.look(spot=None)
        self._work.end_drag()

    def mouseDoubleClickEvent(self, event: QMouseEvent | None) -> None:
        self._viewing.look(spot=None)
        self.enlarged.emit()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        assert event is not None
        key, held = event.key(), event.modifiers()
        step = steps_of(held)
        hues, saturations, _ = self._bands()
        if key in (Qt.Key.Key_Left, Qt.Key.Key_Right):
            by = step if key == Qt.Key.Key_Left else -step
            self._edit(hue=hues.but(on=True, corners=moved_corners(hues.corners, 4, by, HUE)))
        elif key in (Qt.Key.Key_Up, Qt.Key.Key_Down):
            by = step if key == Qt.Key.Key_Up else -step
            self._edit(
                saturation=saturations.but(
                    on=True, corners=moved_corners(saturations.corners, 4, by, SATURATION)
                )
            )
        elif key == Qt.Key.Key_Delete:
            self._edit(
                hue=self._work.sieve.bands.hue.but(on=False),
                saturation=self._work.sieve.bands.saturation.but(on=False),
            )
        else:
            super().keyPressEvent(event)
            return
        self._work.end_drag()
