"""Rows of the stack: a small mask, a name, notes, and a box that switches the sieve; narrow, as
chips on the rail.
"""

from __future__ import annotations

from PyQt6.QtCore import (
    QAbstractItemModel,
    QEvent,
    QModelIndex,
    QRect,
    QSize,
    Qt,
)
from PyQt6.QtGui import QMouseEvent, QPainter
from PyQt6.QtWidgets import (
    QLineEdit,
    QListWidget,
    QStyle,
    QStyledItemDelegate,
    QStyleOptionButton,
    QStyleOptionViewItem,
    QWidget,
)

from ...language import translator
from ...project.model import Project, Sieve
from ..style import DIM, INK

translate = translator("panels")


#: Width of the strip of kept colours, pixels.
CHIP = 6


#: Size of the small picture of a mask in a row of the list.
LISTED = QSize(42, 30)


#: Size of it on the rail.
RAILED = QSize(52, 38)


#: Room round it, pixels.
ROOM = 4


#: Between the name of a sieve and what is noted of it.
GAP = "\n"


#: Between its notes, of which the rail shows the first.
BETWEEN = " · "


#: Side of the box that switches a sieve on the rail, pixels.
BOX = 15


class SieveDelegate(QStyledItemDelegate):
    """Draws a sieve as a chip on the rail: its picture with the switch in a corner, its name and
    coverage below. Renaming shows the name alone, without what is noted under it.
    """

    def __init__(self, rows: QListWidget) -> None:
        super().__init__(rows)
        self._rows = rows
        self.railed = True

    def setEditorData(self, editor: QWidget | None, index: QModelIndex) -> None:
        if isinstance(editor, QLineEdit):
            editor.setText(str(index.data()).split(GAP)[0])

    def sizeHint(self, option: QStyleOptionViewItem, index: QModelIndex) -> QSize:
        if not self.railed:
            return super().sizeHint(option, index)
        return QSize(
            CHIP + RAILED.width(), RAILED.height() + 2 * option.fontMetrics.height() + 3 * ROOM
        )

    def _box(self, rect: QRect) -> QRect:
        return QRect(rect.left() + ROOM, rect.top() + ROOM, BOX, BOX)

    def paint(
        self, painter: QPainter | None, option: QStyleOptionViewItem, index: QModelIndex
    ) -> None:
        if not self.railed or painter is None:
            super().paint(painter, option, index)
            return
        style, rect = self._rows.style(), option.rect
        assert style is not None
        chosen = QStyleOptionViewItem(option)
        style.drawPrimitive(
            QStyle.PrimitiveElement.PE_PanelItemViewItem, chosen, painter, self._rows
        )
        on = Qt.CheckState(index.data(Qt.ItemDataRole.CheckStateRole)) == Qt.CheckState.Checked
        picture = index.data(Qt.ItemDataRole.DecorationRole)
        place = QRect(
            rect.left() + (rect.width() - CHIP - RAILED.width()) // 2,
            rect.top() + ROOM,
            CHIP + RAILED.width(),
            RAILED.height(),
        )
        painter.setOpacity(1.0 if on else 0.4)
        picture.paint(painter, place)
        painter.setOpacity(1.0)
        box = QStyleOptionButton()
        box.rect = self._box(rect)
        box.state = QStyle.StateFlag.State_Enabled | (
            QStyle.StateFlag.State_On if on else QStyle.StateFlag.State_Off
        )
        style.drawPrimitive(
            QStyle.PrimitiveElement.PE_IndicatorItemViewItemCheck, box, painter, self._rows
        )
        name, _, notes = str(index.data()).partition(GAP)
        line = option.fontMetrics.height()
        for number, (words, colour) in enumerate(((name, INK), (notes.partition(BETWEEN)[0], DIM))):
            room = QRect(
                rect.left() + 2, place.bottom() + ROOM + number * line, rect.width() - 4, line
            )
            painter.setPen(colour)
            painter.drawText(
                room,
                Qt.AlignmentFlag.AlignCenter,
                option.fontMetrics.elidedText(words, Qt.TextElideMode.ElideRight, room.width()),
            )

    def editorEvent(
        self,
        event: QEvent | None,
        model: QAbstractItemModel | None,
        option: QStyleOptionViewItem,
        index: QModelIndex,
    ) -> bool:
        if not self.railed or model is None or not isinstance(event, QMouseEvent):
            return super().editorEvent(event, model, option, index)
        if event.type() == QEvent.Type.MouseButtonRelease and self._box(option.rect).contains(
            event.pos()
        ):
            on = Qt.CheckState(index.data(Qt.ItemDataRole.CheckStateRole)) == Qt.CheckState.Checked
            return model.setData(
                index,
                Qt.CheckState.Unchecked if on else Qt.CheckState.Checked,
                Qt.ItemDataRole.CheckStateRole,
            )
        return False


def mask_words(project: Project, sieve: Sieve) -> str:
    """Return where the mask of a sieve comes from, when it is not its own."""
    names = (
        ", ".join(project.sieve(other).name for other in sieve.of)
        if sieve.mask_from != "own"
        else ""
    )
    if sieve.mask_from == "own":
        return translate("opposite") if sieve.opposite else ""
    if sieve.mask_from == "left":
        return translate("the rest of {names}", names=names)
    return (
        translate("opposite of {names}", names=names)
        if sieve.opposite
        else translate("same as {names}", names=names)
    )
