"""The live mask small in a corner of the picture; it can be dragged about and sized by its
corner.
"""

from __future__ import annotations

import numpy as np
from PyQt6.QtCore import QPointF, QRect, Qt
from PyQt6.QtGui import QColor, QMouseEvent, QPainter
from PyQt6.QtWidgets import QWidget

from ...language import translator
from ...live.preview import Rendered
from ...workspace.workspace import Workspace
from ..style import AMBER, WELL
from ..widgets.drawing import draw_edged
from ..widgets.painting import paints
from .scaled import Scaled
from .viewport import Viewport

translate = translator("canvas")


#: Room to the pane's border, screen pixels.
MARGIN = 10
#: Side of the corner by which it is sized, screen pixels.
GRIP = 14


class Inset(QWidget):
    """Shows the part of a view that its pane shows, small. Drag it to move it, its upper left
    corner to size it.
    """

    def __init__(self, workspace: Workspace, viewport: Viewport, pane: QWidget) -> None:
        super().__init__(pane)
        self._preferences = workspace.preferences
        self.viewport, self.pane = viewport, pane
        self.view = "mask"
        self._pixels: np.ndarray | None = None
        self._result: Rendered | None = None
        self._scaled = Scaled()
        self._drag: tuple[str, QPointF, QRect] | None = None
        self.setAccessibleName(translate("Inset mask"))
        self.setToolTip(
            translate(
                "The mask of what is seen: drag to move, drag the upper left corner to size",
            )
        )
        self.setCursor(Qt.CursorShape.SizeAllCursor)
        self.setAttribute(Qt.WidgetAttribute.WA_OpaquePaintEvent)
        viewport.changed.connect(self._follow)
        self.hide()

    def _follow(self) -> None:
        """The pane may have another size now."""
        if self._drag is None and self.isVisible():
            self.place()
        self.update()

    def take(self, result: Rendered | None) -> None:
        """A render has finished."""
        pixels = result.pictures.get(self.view) if result else None
        if result is None or pixels is None:
            return
        before, same = self._result, pixels is self._pixels
        self._result, self._pixels = result, pixels
        if (
            same
            and before is not None
            and (before.scale, before.origin) == (result.scale, result.origin)
        ):
            return
        self.update()

    def place(self) -> None:
        """Lie where the preferences say."""
        held, pane = self._preferences.values, self.pane
        width = max(60, round(pane.width() * held.inset_share / 100))
        height = max(40, round(width * pane.height() / max(pane.width(), 1)))
        free = (
            max(pane.width() - width - 2 * MARGIN, 0),
            max(pane.height() - height - 2 * MARGIN, 0),
        )
        self.setGeometry(
            MARGIN + round(free[0] * held.inset_x / 100),
            MARGIN + round(free[1] * held.inset_y / 100),
            width,
            height,
        )

    def _keep(self) -> None:
        """Remember where it lies."""
        pane = self.pane
        free = (
            max(pane.width() - self.width() - 2 * MARGIN, 1),
            max(pane.height() - self.height() - 2 * MARGIN, 1),
        )
        self._preferences.change(
            inset_share=min(max(100 * self.width() / max(pane.width(), 1), 12), 60),
            inset_x=min(max(100 * (self.x() - MARGIN) / free[0], 0), 100),
            inset_y=min(max(100 * (self.y() - MARGIN) / free[1], 0), 100),
        )
        self.place()

    @paints
    def paintEvent(self, painter: QPainter) -> None:
        painter.fillRect(self.rect(), WELL)
        if self._pixels is not None and self._result is not None:
            # The pane at this size: a picture point lies where it lies there, only smaller.
            share = self.width() / max(self.pane.width(), 1)
            corner = self.viewport.to_pane(QPointF(*self._result.origin)) * share
            per_pixel = self.viewport.zoom * share / self._result.scale
            self._scaled.draw(
                painter, self._pixels, corner, per_pixel, self.size(), self.devicePixelRatioF()
            )
        draw_edged(
            painter,
            lambda: painter.drawRect(self.rect().adjusted(1, 1, -2, -2)),
            AMBER if self._drag else QColor(150, 150, 150),
            1,
        )
        for k in (4, 8):
            painter.drawLine(2, 2 + k, 2 + k, 2)

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is not None and event.button() == Qt.MouseButton.LeftButton:
            kind = "size" if event.position().x() < GRIP and event.position().y() < GRIP else "move"
            self._drag = (kind, event.globalPosition(), self.geometry())

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is None or self._drag is None:
            return
        kind, start, box = self._drag
        by = (event.globalPosition() - start).toPoint()
        if kind == "move":
            x = min(
                max(box.x() + by.x(), MARGIN), max(self.pane.width() - box.width() - MARGIN, MARGIN)
            )
            y = min(
                max(box.y() + by.y(), MARGIN),
                max(self.pane.height() - box.height() - MARGIN, MARGIN),
            )
            self.move(x, y)
        else:
            width = min(max(box.width() - by.x(), 60), round(self.pane.width() * 0.6))
            height = round(width * self.pane.height() / max(self.pane.width(), 1))
            self.setGeometry(box.right() - width + 1, box.bottom() - height + 1, width, height)
        self.update()

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        if self._drag is not None:
            self._drag = None
            self._keep()
            self.update()
