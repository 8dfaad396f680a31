"""Waveform, parade, vectorscope and histogram of the visible part, live."""

from __future__ import annotations

import math

import numpy as np
from PyQt6.QtCore import QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import QHideEvent, QPainter, QPen, QShowEvent
from PyQt6.QtWidgets import QComboBox, QSizePolicy, QVBoxLayout, QWidget

from ...core.scopes import HIGHEST, LOWEST, RIM, differences
from ...language import translator
from ...live.preview import Rendered
from ...live.scoping import SCOPE_KINDS, SCOPES_OF, Scope
from ...workspace.workspace import Workspace
from ..pages.page import row_of
from ..style import DIM, LINE
from ..widgets.drawing import image_of
from ..widgets.painting import paints

translate = translator("panels")


#: What each scope and what it is of is called.
KINDS = {
    "waveform": translate("Waveform"),
    "parade": translate("RGB parade"),
    "vectorscope": translate("Vectorscope"),
    "histogram": translate("Histogram"),
}
OF = {
    "result": translate("Of the result"),
    "original": translate("Of the original"),
    "masked": translate("Inside the mask"),
}
#: Lines of the graticule, per cent of coded white; those of black and white are stronger.
LINES = (0, 25, 50, 75, 100)
#: Direction of skin tones on a Rec. 709 vectorscope, degrees from the axis to blue (common
#: practice, no source; from memory).
SKIN = 123.0
#: The 75 % bars of SMPTE RP 219 by their first letters, as coded red, green and blue.
BARS = {
    "R": (0.75, 0, 0),
    "Y": (0.75, 0.75, 0),
    "G": (0, 0.75, 0),
    "C": (0, 0.75, 0.75),
    "B": (0, 0, 0.75),
    "M": (0.75, 0, 0.75),
}
#: Room round a scope for its words, pixels.
ROOM = 26


class ScopeView(QWidget):
    """Draws a scope that was made elsewhere, with lines to read it by."""

    def __init__(self) -> None:
        super().__init__()
        self.kind = "waveform"
        self.pixels: np.ndarray | None = None
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setMinimumSize(120, 110)

    def sizeHint(self) -> QSize:
        return QSize(260, 170)

    def _box(self) -> QRectF:
        if self.kind != "vectorscope":
            return QRectF(self.rect()).adjusted(ROOM, 6, -6, -6)
        whole = QRectF(self.rect())
        side = min(whole.width(), whole.height())
        return QRectF(whole.center().x() - side / 2, whole.center().y() - side / 2, side, side)

    @paints
    def paintEvent(self, painter: QPainter) -> None:
        painter.fillRect(self.rect(), Qt.GlobalColor.black)
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        box = self._box()
        if self.pixels is not None:
            painter.drawImage(box, image_of(self.pixels))
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        if self.kind == "vectorscope":
            self._graticule(painter, box)
        else:
            self._lines(painter, box)

    def _lines(self, painter: QPainter, box: QRectF) -> None:
        """Per cent of white: from the bottom up, or from left to right under a histogram."""
        for level in LINES:
            share = (level / 100 - LOWEST) / (HIGHEST - LOWEST)
            painter.setPen(QPen(DIM if level in (0, 100) else LINE, 1))
            if self.kind == "histogram":
                x = box.left() + share * box.width()
                painter.drawLine(QPointF(x, box.top()), QPointF(x, box.bottom()))
                continue
            y = box.bottom() - share * box.height()
            painter.drawLine(QPointF(box.left(), y), QPointF(box.right(), y))
            painter.setPen(DIM)
            painter.drawText(
                QRectF(0, y - 8, ROOM - 4, 16),
                Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter,
                str(level),
            )

    def _graticule(self, painter: QPainter, box: QRectF) -> None:
        """The circle, where the bars lie, and the line of skin tones."""

        def at(blue: float, red: float) -> QPointF:
            return box.center() + QPointF(blue, -red) / RIM * box.width() / 2

        painter.setPen(QPen(LINE, 1))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawEllipse(box.center(), box.width() / 2 * 0.5 / RIM, box.width() / 2 * 0.5 / RIM)
        painter.drawLine(at(-0.5, 0), at(0.5, 0))
        painter.drawLine(at(0, -0.5), at(0, 0.5))
        painter.setPen(QPen(DIM, 1, Qt.PenStyle.DashLine))
        painter.drawLine(
            at(0, 0), at(0.5 * math.cos(math.radians(SKIN)), 0.5 * math.sin(math.radians(SKIN)))
        )
        painter.setPen(DIM)
        for letter, bar in BARS.items():
            blue, red = (
                float(value[0]) for value in differences(np.array(bar, np.float32)[:, None])
            )
            place = at(blue, red)
            painter.drawRect(QRectF(place - QPointF(4, 4), place + QPointF(4, 4)))
            painter.drawText(place + QPointF(6, -4), letter)


class ScopesPanel(QWidget):
    """Choosers of a scope and its source, and the scope; nothing is counted while it is not
    seen.
    """

    def __init__(self, workspace: Workspace) -> None:
        super().__init__()
        self.setObjectName("panel")
        self._viewing = workspace.viewing
        self.kind, self.of, self.view = QComboBox(), QComboBox(), ScopeView()
        for box, words, name, tip in (
            (
                self.kind,
                KINDS,
                translate("Scope"),
                translate(
                    "Values are sRGB-coded, Rec. 709 luma; the dashed line of the vectorscope is "
                    "where skin tones lie",
                ),
            ),
            (self.of, OF, translate("Scope of"), translate("What is counted")),
        ):
            for key, label in words.items():
                box.addItem(label, key)
            box.setAccessibleName(name)
            box.setToolTip(tip)
            box.currentIndexChanged.connect(lambda _: self._ask())
        column = QVBoxLayout(self)
        column.setContentsMargins(8, 2, 8, 6)
        column.setSpacing(4)
        column.addWidget(row_of(self.kind, self.of))
        column.addWidget(self.view, 1)
        for signal in (workspace.viewing.rendered, workspace.viewing.glimpsed):
            signal.connect(self._take)

    def _ask(self) -> None:
        kind, of = SCOPE_KINDS[self.kind.currentIndex()], SCOPES_OF[self.of.currentIndex()]
        self._viewing.show_scope(Scope(kind, of) if self.isVisible() else None)

    def showEvent(self, event: QShowEvent | None) -> None:
        super().showEvent(event)
        self._ask()

    def hideEvent(self, event: QHideEvent | None) -> None:
        super().hideEvent(event)
        self._ask()

    def _take(self, result: Rendered) -> None:
        if result.scope is not None and self.isVisible():
            # What was asked for meanwhile is drawn with its own lines when it comes.
            self.view.kind = (
                result.wanted.scope.kind if result.wanted.scope is not None else self.view.kind
            )
            self.view.pixels = result.scope
            self.view.update()
