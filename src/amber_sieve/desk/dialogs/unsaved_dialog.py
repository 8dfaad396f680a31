"""Offers work that was not saved when the program ended in a way it should not have: all of it,
ticked.
"""

from __future__ import annotations

import time
from collections.abc import Callable

import numpy as np
from PyQt6.QtCore import QSize, Qt
from PyQt6.QtGui import QIcon, QPixmap
from PyQt6.QtWidgets import (
    QDialog,
    QHBoxLayout,
    QLabel,
    QListWidget,
    QListWidgetItem,
    QMessageBox,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from ...language import translator
from ...media.stills.thumbnails import SIDE
from ...project.recovery import Left
from ...workspace.workspace import Workspace
from ..widgets.drawing import pixmap_of

translate = translator("dialogs")


_LEFT = Qt.ItemDataRole.UserRole


def _words(left: Left) -> str:
    """Return what a person reads of a piece of work: name, time, where it was saved."""
    when = time.strftime("%Y-%m-%d %H:%M", time.localtime(left.when))
    where = left.path or translate("never saved")
    return "\n".join(line for line in (left.title, f"{when}   {where}", left.words) if line)


class UnsavedDialog(QDialog):
    """Ticked pieces are restored or discarded together; the rest stays on the File menu."""

    def __init__(self, parent: QWidget, workspace: Workspace) -> None:
        super().__init__(parent)
        self.setWindowTitle(translate("Unsaved work"))
        self.resize(560, 420)
        self._unsaved, self._thumbnails = workspace.unsaved, workspace.pictures.thumbnails
        column = QVBoxLayout(self)
        words = QLabel(
            translate(
                "The program ended before this work was saved. What you leave here stays on the "
                "menu File > Unsaved work…",
            )
        )
        words.setWordWrap(True)
        column.addWidget(words)
        self.list = QListWidget()
        self.list.setAccessibleName(translate("Unsaved work"))
        self.list.setIconSize(QSize(SIDE * 2 // 3, SIDE * 4 // 9))
        self.list.setSpacing(2)
        self.list.setWordWrap(True)
        self.list.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.list.itemChanged.connect(lambda _: self._follow())
        column.addWidget(self.list)
        row = QHBoxLayout()
        self.restore, self.discard, self.later = (
            QPushButton(),
            QPushButton(),
            QPushButton(translate("Later")),
        )
        self.restore.setDefault(True)
        self.restore.clicked.connect(lambda: self._do(self._unsaved.restore))
        self.discard.clicked.connect(self._ask_discard)
        self.later.clicked.connect(self.reject)
        for button in (self.discard, self.later, self.restore):
            row.addWidget(button)
        row.insertStretch(1, 1)
        column.addLayout(row)
        self._thumbnails.made.connect(self._draw)
        for left in self._unsaved.found:
            self._add(left)
        self._follow()

    def _add(self, left: Left) -> None:
        empty = QPixmap(self.list.iconSize())
        empty.fill(Qt.GlobalColor.black)
        item = QListWidgetItem(QIcon(empty), _words(left))
        item.setFlags(item.flags() | Qt.ItemFlag.ItemIsUserCheckable)
        item.setCheckState(Qt.CheckState.Checked)
        item.setData(_LEFT, left)
        self.list.addItem(item)
        self._thumbnails.ask(left, left.project)

    def _items(self) -> list[QListWidgetItem]:
        return [item for item in map(self.list.item, range(self.list.count())) if item is not None]

    @property
    def ticked(self) -> list[Left]:
        """The pieces of work that are ticked."""
        return [
            item.data(_LEFT) for item in self._items() if item.checkState() == Qt.CheckState.Checked
        ]

    def _follow(self) -> None:
        count = len(self.ticked)
        self.restore.setText(translate("Restore the ticked ones ({count})", count=count))
        self.discard.setText(translate("Discard the ticked ones…"))
        for button in (self.restore, self.discard):
            button.setEnabled(count > 0)

    def _draw(self, about: object, pixels: np.ndarray | None) -> None:
        for item in self._items():
            if pixels is not None and item.data(_LEFT) is about:
                item.setIcon(QIcon(pixmap_of(pixels)))

    def _ask_discard(self) -> None:
        words = translate(
            "Discard {count} pieces of unsaved work? They cannot be brought back.",
            count=len(self.ticked),
        )
        if QMessageBox.question(self, "Amber Sieve", words) == QMessageBox.StandardButton.Yes:
            self._do(self._unsaved.discard)

    def _do(self, act: Callable[[list[Left]], object]) -> None:
        """Do something with the ticked ones, and go when nothing is left or something was
        restored.
        """
        chosen = self.ticked
        act(chosen)
        for item in self._items():
            if item.data(_LEFT) in chosen:
                self.list.takeItem(self.list.row(item))
        self._follow()
        if not self.list.count() or act == self._unsaved.restore:
            self.accept()
