"""The tray under the canvas: a thumbnail for each picture that is open."""

from __future__ import annotations

import functools
from typing import cast

import numpy as np
from PyQt6.QtCore import QItemSelectionModel, QModelIndex, QPoint, QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import QColor, QGuiApplication, QIcon, QPainter, QPen, QPixmap, QPolygonF
from PyQt6.QtWidgets import (
    QAbstractItemView,
    QListView,
    QListWidget,
    QListWidgetItem,
    QMenu,
    QMessageBox,
    QStyle,
    QStyledItemDelegate,
    QStyleOptionViewItem,
)

from ...language import translator
from ...media.stills.thumbnails import SIDE
from ...project import clippings, sieve_presets
from ...workspace.document.tray import Entry
from ...workspace.workspace import Workspace
from ..style import AMBER, INK
from ..widgets.drawing import image_of

translate = translator("panels")


#: Height of the tray: a small picture, its name and a bar to scroll by, pixels.
HEIGHT = 104
_ENTRY = Qt.ItemDataRole.UserRole


def _untinted(picture: QPixmap) -> QIcon:
    """An icon that keeps its colours when it is chosen."""
    icon = QIcon(picture)
    icon.addPixmap(picture, QIcon.Mode.Selected)
    return icon


def _icon(pixels: np.ndarray | None) -> QIcon:
    if pixels is None:
        empty = QPixmap(SIDE, SIDE * 2 // 3)
        empty.fill(Qt.GlobalColor.black)
        return _untinted(empty)
    image = image_of(pixels)
    return _untinted(QPixmap.fromImage(image.copy()))


class _Chip(QStyledItemDelegate):
    """A thumbnail with its name; the one in the window has an amber bar and a pointer, those that
    are chosen a tick.
    """

    def __init__(self, strip: TrayStrip) -> None:
        super().__init__(strip)
        self._strip = strip

    def paint(
        self, painter: QPainter | None, option: QStyleOptionViewItem, index: QModelIndex
    ) -> None:
        super().paint(painter, option, index)
        if painter is None:
            return
        box = QRectF(option.rect)
        painter.save()
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(Qt.PenStyle.NoPen)
        if index.data(_ENTRY) is self._strip._tray.current:
            painter.setBrush(AMBER)
            painter.drawRect(QRectF(box.left() + 3, box.top() + 1, box.width() - 6, 3))
            middle = box.center().x()
            painter.drawPolygon(
                QPolygonF(
                    [
                        QPointF(middle - 6, box.top() + 4),
                        QPointF(middle + 6, box.top() + 4),
                        QPointF(middle, box.top() + 11),
                    ]
                )
            )
        if option.state & QStyle.StateFlag.State_Selected and len(self._strip.selectedItems()) > 1:
            spot = QPointF(box.left() + 14, box.top() + 15)
            painter.setBrush(QColor(20, 20, 20))
            painter.drawEllipse(spot, 9, 9)
            painter.setPen(QPen(INK, 2))
            painter.drawPolyline(
                QPolygonF([spot + QPointF(-4, 0), spot + QPointF(-1, 4), spot + QPointF(5, -4)])
            )
        painter.restore()


class TrayStrip(QListWidget):
    """A click shows a picture; Ctrl and Shift choose several for what the menu does. Hidden while
    only one is open.
    """

    def __init__(self, workspace: Workspace) -> None:
        super().__init__()
        self._pictures, self._saving, self._sharing, self._tray = (
            workspace.pictures,
            workspace.saving,
            workspace.sharing,
            workspace.tray,
        )
        self.setObjectName("tray")
        self.setAccessibleName(translate("Tray"))
        self.setViewMode(QListView.ViewMode.IconMode)
        self.setFlow(QListView.Flow.LeftToRight)
        self.setWrapping(False)
        self.setMovement(QListView.Movement.Static)
        self.setUniformItemSizes(True)
        self.setIconSize(QSize(SIDE, SIDE * 2 // 3 - 10))
        self.setGridSize(QSize(SIDE + 8, HEIGHT - 16))
        self.setFixedHeight(HEIGHT)
        self.setWordWrap(False)
        self.setTextElideMode(Qt.TextElideMode.ElideMiddle)
        self.setSelectionMode(QAbstractItemView.SelectionMode.ExtendedSelection)
        self.setVerticalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.setHorizontalScrollMode(QAbstractItemView.ScrollMode.ScrollPerPixel)
        self.setContextMenuPolicy(Qt.ContextMenuPolicy.CustomContextMenu)
        self.setFocusPolicy(Qt.FocusPolicy.ClickFocus)
        self.customContextMenuRequested.connect(self._menu)
        self.itemClicked.connect(self._clicked)
        self.itemActivated.connect(lambda item: workspace.pictures.go_to(item.data(_ENTRY)))
        self.setItemDelegate(_Chip(self))
        #: What each row shows: its entry, the thumbnail and the words.
        self._shown: list[tuple[Entry, np.ndarray | None, str]] = []
        workspace.tray.changed.connect(self.follow)
        workspace.tray.redrawn.connect(self._redraw)
        workspace.work.changed.connect(lambda: self._redraw(self._tray.current))
        self.follow()

    def follow(self) -> None:
        """Show the open entries; unchanged ones are not redrawn."""
        entries = self._tray.entries
        self.setVisible(len(entries) > 1)
        if len(entries) <= 1:
            if self._shown:  # nothing holds on to what was closed
                self._shown = []
                self.clear()
            return
        while self.count() > len(entries):
            self.takeItem(self.count() - 1)
        del self._shown[len(entries) :]
        for row, entry in enumerate(entries):
            self._show(row, entry)
            if entry is self._tray.current and self.currentRow() != row:
                self.setCurrentRow(row, QItemSelectionModel.SelectionFlag.ClearAndSelect)
        viewport = self.viewport()
        if viewport is not None:
            viewport.update()

    def _redraw(self, entry: Entry) -> None:
        """Show one entry as it looks now; thousands may come one after another."""
        row = next((row for row, shown in enumerate(self._shown) if shown[0] is entry), None)
        if row is not None:
            self._show(row, entry)

    def _show(self, row: int, entry: Entry) -> None:
        before = self._shown[row] if row < len(self._shown) else None
        item, wanted = self.item(row), (entry, entry.thumbnail, self._words(entry))
        if item is None:
            item = QListWidgetItem()
            self.addItem(item)
        if before is None or before[0] is not entry or before[1] is not entry.thumbnail:
            item.setIcon(_icon(entry.thumbnail))
            item.setData(_ENTRY, entry)
        if before is None or before[2] != wanted[2]:
            item.setText(wanted[2])
            item.setToolTip(
                translate(
                    "{source}{shared}\nA click shows it, Ctrl+click chooses several",
                    source=entry.source,
                    shared=chr(10) + translate("↔ has the shared stack") if entry.shared else "",
                )
            )
        self._shown[row : row + 1] = [wanted]

    def _words(self, entry: Entry) -> str:
        shared = "↔ " if entry.shared else ""
        changed = "• " if entry.document.history.changed else ""
        return f"{shared}{changed}{entry.name}"

    @property
    def chosen(self) -> list[Entry]:
        """The entries that are chosen, the one in the window at least."""
        found = [cast(Entry, item.data(_ENTRY)) for item in self.selectedItems()]
        return found or [self._tray.current]

    def _clicked(self, item: QListWidgetItem) -> None:
        if not QGuiApplication.keyboardModifiers() & (
            Qt.KeyboardModifier.ControlModifier | Qt.KeyboardModifier.ShiftModifier
        ):
            self._pictures.go_to(item.data(_ENTRY))

    def _menu(self, at: QPoint) -> None:
        menu = QMenu(self)
        self.fill_menu(menu)
        menu.popup(self.mapToGlobal(at))

    def fill_menu(self, menu: QMenu) -> None:
        """Fill the menu of commands for the chosen pictures."""
        chosen = self.chosen
        board = QGuiApplication.clipboard()
        text = board.text() if board is not None else ""
        shared = all(entry.shared for entry in chosen)
        for title, act in (
            (
                translate("Paste sieve to the chosen"),
                functools.partial(self._sharing.paste, chosen, text),
            ),
            (
                translate("Paste sieve, fit tolerances to each"),
                functools.partial(self._sharing.paste, chosen, text, True),
            ),
            (
                translate("Own stack for each")
                if shared
                else translate("One stack shared by the chosen"),
                functools.partial(self._sharing.share, chosen, not shared),
            ),
            (translate("Choose all"), self.selectAll),
            (translate("Close the chosen"), self.close_chosen),
        ):
            action = menu.addAction(title)
            assert action is not None
            action.triggered.connect(lambda _, act=act: act())
        self._fill_presets(menu, chosen)

    def _fill_presets(self, menu: QMenu, chosen: list[Entry]) -> None:
        """A part of the menu that gives the chosen pictures a stored sieve."""
        part = menu.addMenu(translate("Add a sieve preset to the chosen"))
        assert part is not None
        presets = sieve_presets.STORE.all()
        part.setEnabled(bool(presets))
        for preset in presets:
            action = part.addAction(preset.name)
            assert action is not None
            text = clippings.text_of((preset.sieve,))
            action.triggered.connect(lambda _, text=text: self._sharing.paste(chosen, text))

    def close_chosen(self) -> None:
        """Take the chosen pictures off the tray; unsaved work is asked about."""
        unsaved = [entry for entry in self.chosen if entry.document.history.changed]
        if unsaved:
            names = ", ".join(entry.name for entry in unsaved[:5]) + (
                " …" if len(unsaved) > 5 else ""
            )
            choice = QMessageBox.question(
                self,
                "Amber Sieve",
                translate("{names}: changes are not saved.", names=names),
                QMessageBox.StandardButton.SaveAll
                | QMessageBox.StandardButton.Discard
                | QMessageBox.StandardButton.Cancel,
            )
            if choice == QMessageBox.StandardButton.Cancel:
                return
            if choice == QMessageBox.StandardButton.SaveAll and not self._saving.save_all():
                return
        self._pictures.close(self.chosen)
