"""One view of the picture, with the marks on it."""

from __future__ import annotations

import math
from collections.abc import Callable

import numpy as np
from PyQt6.QtCore import QEvent, QPointF, QRectF, QSizeF, Qt, pyqtSignal
from PyQt6.QtGui import (
    QCursor,
    QEnterEvent,
    QMouseEvent,
    QPainter,
    QPixmap,
    QRegion,
    QResizeEvent,
    QTabletEvent,
    QWheelEvent,
)
from PyQt6.QtWidgets import QSizePolicy, QWidget

from ...language import translator
from ...live.difference import Difference
from ...live.preview import Rendered
from ...render.views import VIEWS
from ...workspace.workspace import Workspace
from ..style import DIM, SURROUNDS
from ..widgets.drawing import fill_around, pixmap_of
from ..widgets.painting import paints
from .flash import Flash
from .loupe import draw_loupe
from .marks import (
    draw_gesture,
    draw_grid,
    draw_island,
    draw_key_cursor,
    draw_offer,
    draw_outline,
    draw_sample,
    draw_wipe_line,
    painter_inside,
)
from .scaled import Scaled
from .viewport import GRID_FROM, Viewport

translate = translator("canvas")


INVITATION = translate("Open a picture or a clip (Ctrl+O), or drop one here")


#: What stands in a mask before anything is picked.
UNPICKED = translate("Nothing is picked yet.\nClick what you want to change in either view.")


class Pane(QWidget):
    """Shows one of the views; tells where the pointer is and where it clicks."""

    hovered = pyqtSignal(object)
    pressed = pyqtSignal(object, object)
    dragged = pyqtSignal(object, object)
    released = pyqtSignal(object, object)
    doubled = pyqtSignal()
    tablet = pyqtSignal(str, object, object, float)
    sized = pyqtSignal(float)
    painted = pyqtSignal()

    def __init__(self, workspace: Workspace, viewport: Viewport, view: str) -> None:
        super().__init__()
        self._areas, self._readout, self._tools, self._work = (
            workspace.areas,
            workspace.readout,
            workspace.tools,
            workspace.work,
        )
        self.viewport, self.view = viewport, view
        self.override: str | None = None
        self.wipe: float | None = None
        self.loupe = False
        #: What stands in place of a picture while one is being opened.
        self.message = ""
        self.drawn: list[QPointF] = []
        self.overlay: Callable[[QPainter], None] = lambda painter: None
        self.takes_pen: Callable[[], bool] = lambda: False
        self.has_tool: Callable[[], bool] = lambda: False
        self._sizing: float | None = None
        #: What lies left of the line of the wipe.
        self.wipe_view = "original"
        self._other_pixels: np.ndarray | None = None
        self._at: QPointF | None = None
        #: A pixel, and the colour that a click there would take.
        self._promised: tuple[int, int, tuple[float, float, float]] = (-1, -1, (0.0, 0.0, 0.0))
        workspace.readout.promised.connect(self._take_promise)
        #: Where the cursor of the keyboard is, None while it is off.
        self.key_cursor: QPointF | None = None
        #: A place that is offered for the next click.
        self._offered: QPointF | None = None
        workspace.offers.offered.connect(self._take_offer)
        self.surround, self.marks = "dark", True
        self.tool_cursor = QCursor(Qt.CursorShape.CrossCursor)
        self._result: Rendered | None = None
        self._pixels: np.ndarray | None = None
        #: Scaled to the screen: the picture, the other side of the wipe, and the first step of a
        #: drag.
        self._scaled, self._scaled_other, self._ready = Scaled(), Scaled(), Scaled()
        self._hand: QPointF | None = None
        self._flash: Flash | None = None
        self._inside = False
        #: Without its marks when it was painted last.
        self._painted_bare = False
        self.setAttribute(
            Qt.WidgetAttribute.WA_OpaquePaintEvent
        )  # else what lies behind is painted first, which takes as long
        self.setMouseTracking(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setMinimumSize(160, 120)
        self.setCursor(self.tool_cursor)
        viewport.changed.connect(self.update)
        workspace.drag_ready.made.connect(self._hold)

    @property
    def showing(self) -> str:
        """The view on show now: the chosen one, or the one held over it."""
        return self.override or self.view

    def set_tool_cursor(self, cursor: QCursor) -> None:
        """The cursor of the tool in hand."""
        self.tool_cursor = cursor
        if self._hand is None:
            self.setCursor(cursor)

    def _describe(self, result: Rendered | None) -> None:
        """Say what the pane shows to those who do not see it."""
        self.setAccessibleName(translate("View: {view}", view=VIEWS[self.showing].label))
        zoom = 100 * self.viewport.zoom * self.devicePixelRatioF()
        covered = (
            translate(", the mask covers {share:.1f} %", share=100 * result.covered)
            if result
            else ""
        )
        self.setAccessibleDescription(translate("Zoom {zoom:.0f} %", zoom=zoom) + covered)

    def take(self, result: Rendered | None) -> None:
        """A render has finished (None: nothing is open)."""
        before, self._result = self._result, result
        self._describe(result)
        pixels = result.pictures.get(self.showing) if result is not None else None
        if result is None or pixels is None:
            self._pixels = None if result is None else self._pixels
            self.update()
            return
        still = before is not None and (before.scale, before.origin) == (
            result.scale,
            result.origin,
        )
        if pixels is self._pixels and self.wipe is None:
            if not still:
                self.update()
            return
        self._pixels = pixels
        self._other_pixels = result.pictures.get(self.wipe_view) if self.wipe is not None else None
        # Only differing pixels are repainted, unless marks change too: most drags change a part.
        alone = (
            self.wipe is None
            and self._flash is None
            and not self.loupe
            and self._painted_bare == self._bare
        )
        step = result.steps.get(self.showing)
        region = self._scaled.exchange(pixels, step) if still and alone else None
        if not still and self._ready.leads_to(pixels, step):
            self._scaled, self._ready = self._ready, self._scaled
            self._scaled.exchange(pixels, step)
        # Where nothing differs a spot is painted all the same: who waits for the paint is told of
        # it.
        self.update(QRegion(self.rect()) if region is None else region | QRegion(0, 0, 1, 1))

    def _hold(self, result: Rendered) -> None:
        """Have ready what a drag would begin with."""
        pixels = result.pictures.get(self.showing)
        if pixels is not None and self.isVisible() and not self._work.dragging:
            corner, per_pixel, ratio = self._placed(result)
            self._ready.fit(
                pixels, corner, per_pixel, self.size(), ratio, result.steps.get(self.showing)
            )

    def _placed(self, result: Rendered) -> tuple[QPointF, float, float]:
        """Return where the corner of a picture lies, how many points a pixel of it takes, and how
        many pixels the screen has to a point.
        """
        return (
            self.viewport.to_pane(QPointF(*result.origin)),
            self.viewport.zoom / result.scale,
            self.devicePixelRatioF(),
        )

    @property
    def _bare(self) -> bool:
        """Return whether the picture is shown without its marks."""
        return (
            not self.marks
            or self._work.dragging
            or self.override is not None
            or self.wipe is not None
        )

    def picture(self) -> QPixmap | None:
        """Return the picture that is shown, without marks; None for nothing."""
        return pixmap_of(np.ascontiguousarray(self._pixels)) if self._pixels is not None else None

    def set_flash(self, difference: Difference | None) -> None:
        """Show over the picture what the last click added and removed; None ends it."""
        self._flash = Flash(difference) if difference is not None else None
        self.update()

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        self.viewport.set_pane(self.width(), self.height())

    def _take_promise(self, promised: tuple[int, int, tuple[float, float, float]]) -> None:
        self._promised = promised
        if self.loupe:
            self.update()

    @paints
    def paintEvent(self, painter: QPainter) -> None:
        if self._pixels is None or self._result is None:
            painter.fillRect(self.rect(), SURROUNDS[self.surround])
            painter.setPen(DIM)
            painter.drawText(self.rect(), Qt.AlignmentFlag.AlignCenter, self.message or INVITATION)
            return
        result, zoom = self._result, self.viewport.zoom
        corner, per_pixel, ratio = self._placed(result)
        height, width = self._pixels.shape
        fill_around(
            painter,
            self.rect(),
            QRectF(corner, QSizeF(width * per_pixel, height * per_pixel)),
            SURROUNDS[self.surround],
        )
        self._scaled.draw(painter, self._pixels, corner, per_pixel, self.size(), ratio)
        other = self._other_pixels
        if self.wipe is not None and other is not None:
            place = (corner, per_pixel, self.size(), ratio)
            x = self.wipe_x()
            with painter_inside(painter, QRectF(0, 0, x, self.height())):
                self._scaled_other.draw(painter, other, *place)
            draw_wipe_line(painter, x, self.height())
        if self._flash is not None:
            self._flash.draw(painter, self.viewport)
        if zoom >= GRID_FROM and result.scale == 1:
            draw_grid(painter, self.viewport)
        bare = self._painted_bare = self._bare
        if not bare and (self._inside or not self.isActiveWindow()):
            if self._work.sieve.pick.outline and self._tools.place == "outline":
                draw_outline(painter, self.viewport, self._work.sieve.pick.outline)
            for sample in self._work.sieve.pick.samples:
                draw_sample(painter, self.viewport, sample)
            if self._offered is not None:
                draw_offer(painter, self.viewport.to_pane(self._offered))
        if self.has_tool() or not bare:
            self.overlay(painter)
        # Without a pick something may be looked ahead at.
        if VIEWS[self.showing].of == "mask" and not (
            self._work.sieve.picks or (self._result is not None and self._result.covered)
        ):
            painter.setPen(DIM)
            painter.drawText(self.rect(), Qt.AlignmentFlag.AlignCenter, UNPICKED)
        if self._areas.outlined is not None:
            draw_island(painter, self.viewport, self._areas.outlined.box)
        if self.key_cursor is not None:
            draw_key_cursor(painter, self.viewport.to_pane(self.key_cursor))
        if self.drawn:
            draw_gesture(painter, self.viewport, self.drawn, self._tools.place == "box")
        if self.loupe and self._inside and self._at is not None:
            self._draw_loupe(painter)
        self.painted.emit()

    def wipe_x(self) -> float:
        """Return where the line between before and after stands, in pixels of this pane."""
        return (self.wipe or 0.0) * self.width()

    def _draw_loupe(self, painter: QPainter) -> None:
        frame = self._work.opened.cached(self._work.number) if self._work.opened else None
        if frame is not None and self._at is not None:
            draw_loupe(
                painter,
                self.viewport,
                (self.width(), self.height()),
                frame,
                self._at,
                self._tools.sample_size,
                self._promised,
            )

    def _take_offer(self, place: tuple[float, float] | None) -> None:
        self._offered = QPointF(*place) if place is not None else None
        self.update()

    def enterEvent(self, event: QEnterEvent | None) -> None:
        self._inside = True
        self.update()

    def leaveEvent(self, event: QEvent | None) -> None:
        self._inside = False
        self.hovered.emit(None)
        self.update()

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        assert event is not None
        self.setFocus()
        if event.button() == Qt.MouseButton.MiddleButton:
            self._hand = event.position()
            self.setCursor(Qt.CursorShape.ClosedHandCursor)
        elif event.button() == Qt.MouseButton.RightButton and self.takes_pen():
            self._sizing = event.position().x()
        elif event.button() == Qt.MouseButton.LeftButton:
            self.pressed.emit(self.viewport.to_picture(event.position()), event.modifiers())

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        assert event is not None
        if self._hand is not None:
            self.viewport.pan(event.position() - self._hand)
            self._hand = event.position()
        elif self._sizing is not None:
            self.sized.emit(event.position().x() - self._sizing)
            self._sizing = event.position().x()
        else:
            self._hover(event)

    def _hover(self, event: QMouseEvent) -> None:
        at = self.viewport.to_picture(event.position())
        self._at = at
        if self.loupe:
            self._readout.promise(math.floor(at.x()), math.floor(at.y()))
            self.update()
        self.hovered.emit(at)
        if event.buttons() & Qt.MouseButton.LeftButton:
            self.dragged.emit(at, event.modifiers())

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        assert event is not None
        if self._hand is not None:
            self._hand = None
            self.setCursor(self.tool_cursor)
        elif event.button() == Qt.MouseButton.RightButton:
            self._sizing = None
        elif event.button() == Qt.MouseButton.LeftButton:
            self.released.emit(self.viewport.to_picture(event.position()), event.modifiers())

    def mouseDoubleClickEvent(self, event: QMouseEvent | None) -> None:
        assert event is not None
        if event.button() == Qt.MouseButton.LeftButton:
            self.doubled.emit()

    def tabletEvent(self, event: QTabletEvent | None) -> None:
        """A pen: only the brush asks for its pressure, everything else goes on as mouse events."""
        assert event is not None
        if not self.takes_pen():
            event.ignore()
            return
        at = self.viewport.to_picture(event.position())
        kind = {QEvent.Type.TabletPress: "press", QEvent.Type.TabletRelease: "release"}
        self.tablet.emit(kind.get(event.type(), "move"), at, event.modifiers(), event.pressure())
        self.hovered.emit(at)
        event.accept()

    def wheelEvent(self, event: QWheelEvent | None) -> None:
        if event is not None and event.angleDelta().y():
            self.viewport.zoom_to(
                self.viewport.zoom * 2 ** (event.angleDelta().y() / 240),
                event.position() - QPointF(self.width() / 2, self.height() / 2),
            )
