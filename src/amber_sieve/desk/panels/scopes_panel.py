"""Waveform, parade, vectorscope and histogram of the visible part, live."""

from __future__ import annotations

import math
from collections.abc import Mapping

import numpy as np
from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QHideEvent, QPainter, QPen, QResizeEvent, QShowEvent
from PyQt6.QtWidgets import (
    QComboBox,
    QDockWidget,
    QGridLayout,
    QPushButton,
    QScrollArea,
    QSizePolicy,
    QToolButton,
    QVBoxLayout,
    QWidget,
)

from ...core.scopes import HIGHEST, LOWEST, RIM, differences
from ...language import translator
from ...live.preview import Rendered
from ...live.scoping import Scope
from ...names import SCOPE_KINDS, SCOPES_OF
from ...workspace.workspace import Workspace
from ..pages.page import narrow, row_of
from ..style import DIM, LINE
from ..widgets.drawing import image_of
from ..widgets.icon import with_icon
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
#: Codes of black and white in 10 bits (ITU-R BT.709).
BLACK, WHITE = 64, 940
#: Most scopes at once.
MOST = 4
#: Width that a scope asks for before another stands beside it, pixels.
WIDTH = 230
#: Least height of what is seen of them, pixels.
LEAST_HEIGHT = 150
#: Width and height of the window of their own, pixels.
OWN_WINDOW = (900, 560)
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
ROOM = 30


class ScopeView(QWidget):
    """Draws a scope that was made elsewhere, with lines to read it by."""

    def __init__(self) -> None:
        super().__init__()
        self.kind = "waveform"
        self.pixels: np.ndarray | None = None
        #: Lines are named by codes of 10 bits, and not by per cent.
        self.in_codes = False
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
                str(round(BLACK + (WHITE - BLACK) * level / 100)) if self.in_codes else str(level),
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


class ScopeTile(QWidget):
    """One scope, with choosers of it and of its source above. `changed` when another is chosen,
    `closed` when it is put away.
    """

    changed = pyqtSignal()
    closed = pyqtSignal()

    def __init__(self, scope: Scope) -> None:
        super().__init__()
        self.kind, self.of, self.view = QComboBox(), QComboBox(), ScopeView()
        self.away = QToolButton()
        for box, words, chosen, name, tip in (
            (
                self.kind,
                KINDS,
                scope.kind,
                translate("Scope"),
                translate(
                    "Values are sRGB-coded, Rec. 709 luma; the dashed line of the vectorscope is "
                    "where skin tones lie",
                ),
            ),
            (self.of, OF, scope.of, translate("Scope of"), translate("What is counted")),
        ):
            for key, label in words.items():
                box.addItem(label, key)
            box.setCurrentIndex(box.findData(chosen))
            box.setAccessibleName(name)
            box.setToolTip(tip)
            narrow(box)
            box.currentIndexChanged.connect(lambda _: self.changed.emit())
        with_icon(self.away, "x", translate("Put this scope away"))
        self.away.setAutoRaise(True)
        self.away.setObjectName("bare")
        self.away.clicked.connect(self.closed)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(4)
        column.addWidget(row_of(self.kind, self.of, self.away))
        column.addWidget(self.view, 1)

    @property
    def scope(self) -> Scope:
        """The scope that is chosen."""
        return Scope(SCOPE_KINDS[self.kind.currentIndex()], SCOPES_OF[self.of.currentIndex()])

    def show_pixels(self, made: Mapping[Scope, np.ndarray]) -> None:
        """Draw it, if it was made: what was asked for meanwhile comes later."""
        pixels = made.get(self.scope)
        if pixels is not None:
            self.view.kind, self.view.pixels = self.scope.kind, pixels
            self.view.update()


class ScopesPanel(QWidget):
    """Up to ``MOST`` scopes, as many beside each other as there is room for; nothing is counted
    while they are not seen.
    """

    def __init__(self, workspace: Workspace) -> None:
        super().__init__()
        self.setObjectName("panel")
        self._viewing, self._preferences = workspace.viewing, workspace.preferences
        self.tiles: list[ScopeTile] = []
        self.add, self.codes, self.float = QPushButton(), QComboBox(), QPushButton()
        self.add.setText(translate("Add a scope"))
        self.add.clicked.connect(lambda: self._add(self._next()))
        self.float.setText(translate("Own window"))
        self.float.setToolTip(translate("A window that can be as large as wanted, on any screen"))
        self.float.clicked.connect(self._float)
        self.codes.addItems([translate("Per cent"), translate("10 bit codes")])
        self.codes.setAccessibleName(translate("Lines of the scopes"))
        self.codes.setToolTip(
            translate("What the lines are named by: per cent of white, or codes of 64 to 940")
        )
        narrow(self.codes)
        self.codes.currentIndexChanged.connect(self._name_lines)
        inner = QWidget()
        inner.setObjectName("panel")
        self.grid = QGridLayout(inner)
        self.grid.setContentsMargins(0, 0, 0, 0)
        self.grid.setSpacing(6)
        area = QScrollArea()  # or four below each other would make the window taller
        area.setWidgetResizable(True)
        area.setWidget(inner)
        area.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        area.setMinimumHeight(LEAST_HEIGHT)
        column = QVBoxLayout(self)
        column.setContentsMargins(8, 2, 8, 6)
        column.setSpacing(4)
        column.addWidget(area, 1)
        column.addWidget(row_of(self.add, self.codes, self.float))
        for kind, of in self._preferences.values.scopes or (("waveform", "result"),):
            self._add(Scope(kind, of))
        for signal in (workspace.viewing.rendered, workspace.viewing.glimpsed):
            signal.connect(self._take)

    def _next(self) -> Scope:
        """The first kind that is not shown yet."""
        shown = {tile.scope.kind for tile in self.tiles}
        return Scope(next((kind for kind in SCOPE_KINDS if kind not in shown), "waveform"))

    def _add(self, scope: Scope) -> None:
        if len(self.tiles) < MOST:
            tile = ScopeTile(scope)
            tile.changed.connect(self._ask)
            tile.closed.connect(lambda: self._put_away(tile))
            self.tiles.append(tile)
            self._name_lines()
            self._arrange()
            self._ask()

    def _put_away(self, tile: ScopeTile) -> None:
        self.tiles.remove(tile)
        tile.deleteLater()
        self._arrange()
        self._ask()

    def _arrange(self) -> None:
        """As many beside each other as have room."""
        count = len(self.tiles)
        rows = -(-count // max(1, min(count, self.width() // WIDTH)))
        across = -(-count // rows)  # as even as they go
        for number, tile in enumerate(self.tiles):
            self.grid.addWidget(tile, number // across, number % across)
        self.add.setEnabled(count < MOST)
        for tile in self.tiles:
            tile.away.setEnabled(count > 1)

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        super().resizeEvent(event)
        self._arrange()

    def _name_lines(self) -> None:
        for tile in self.tiles:
            tile.view.in_codes = self.codes.currentIndex() == 1
            tile.view.update()

    def _float(self) -> None:
        dock = self.parentWidget()
        if isinstance(dock, QDockWidget):
            dock.setFloating(not dock.isFloating())
            if dock.isFloating():
                dock.resize(*OWN_WINDOW)

    def _ask(self) -> None:
        scopes = tuple(dict.fromkeys(tile.scope for tile in self.tiles))
        self._viewing.show_scopes(scopes if self.isVisible() else ())
        chosen = tuple((tile.scope.kind, tile.scope.of) for tile in self.tiles)
        if self.isVisible() and chosen != self._preferences.values.scopes:
            self._preferences.change(scopes=chosen)

    def showEvent(self, event: QShowEvent | None) -> None:
        super().showEvent(event)
        self._ask()

    def hideEvent(self, event: QHideEvent | None) -> None:
        super().hideEvent(event)
        self._ask()

    def _take(self, result: Rendered) -> None:
        for tile in self.tiles if self.isVisible() else ():
            tile.show_pixels(result.scopes)
