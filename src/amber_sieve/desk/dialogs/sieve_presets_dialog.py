"""Presets of whole sieves: a small picture and a name for each."""

from __future__ import annotations

import pathlib

from PyQt6.QtCore import QBuffer, QByteArray, QIODevice, QSize, Qt
from PyQt6.QtGui import QIcon, QPixmap
from PyQt6.QtWidgets import (
    QDialog,
    QFileDialog,
    QHBoxLayout,
    QInputDialog,
    QListView,
    QListWidget,
    QListWidgetItem,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from ...language import translator
from ...project import sieve_presets
from ...project.sieve_presets import SievePreset
from ...workspace.workspace import Workspace

translate = translator("dialogs")


#: Side of the small picture of a preset, pixels.
SIDE = 120
FILES = translate("Sieve presets (*.json)")


def small_picture(view: QPixmap | None) -> bytes:
    """Return a picture of the current sieve, as the bytes of a small PNG."""
    if view is None or view.isNull():
        return b""
    data = QByteArray()
    buffer = QBuffer(data)
    buffer.open(QIODevice.OpenModeFlag.WriteOnly)
    view.scaled(
        SIDE, SIDE, Qt.AspectRatioMode.KeepAspectRatio, Qt.TransformationMode.SmoothTransformation
    ).save(buffer, "PNG")
    return data.data()


class SievePresetsDialog(QDialog):
    """Double-click, or Use, puts one on the stack."""

    def __init__(self, parent: QWidget, workspace: Workspace, view: QPixmap | None) -> None:
        super().__init__(parent)
        self.setWindowTitle(translate("Sieve presets"))
        self._shelf, self._stack, self._work = workspace.presets, workspace.stack, workspace.work
        self._view = view
        self.list = QListWidget()
        self.list.setViewMode(QListView.ViewMode.IconMode)
        self.list.setMovement(QListView.Movement.Static)
        self.list.setResizeMode(QListView.ResizeMode.Adjust)
        self.list.setIconSize(QSize(SIDE, SIDE * 2 // 3))
        self.list.setGridSize(QSize(SIDE + 16, SIDE * 2 // 3 + 28))
        self.list.setAccessibleName(translate("Presets"))
        self.use, self.store, self.remove = (
            QPushButton(translate("Use")),
            QPushButton(translate("Save this sieve…")),
            QPushButton(translate("Remove")),
        )
        self.bring, self.give = (
            QPushButton(translate("Import…")),
            QPushButton(translate("Export…")),
        )
        column, row = QVBoxLayout(self), QHBoxLayout()
        column.addWidget(self.list, 1)
        column.addLayout(row)
        for button, act in (
            (self.use, self._use),
            (self.store, self._store),
            (self.remove, self._remove),
            (self.bring, self._import),
            (self.give, self._export),
        ):
            button.clicked.connect(lambda _, act=act: act())
            row.addWidget(button)
        self.list.itemDoubleClicked.connect(lambda _: self._use())
        self.list.currentRowChanged.connect(lambda _: self._allow())
        self.resize(620, 400)
        self.follow()

    def follow(self) -> None:
        """Show what is stored."""
        self._presets = sieve_presets.STORE.all()
        self.list.clear()
        for preset in self._presets:
            picture = QPixmap()
            picture.loadFromData(preset.png)
            if picture.isNull():
                picture = QPixmap(SIDE, SIDE * 2 // 3)
                picture.fill(Qt.GlobalColor.darkGray)
            icon = QIcon(picture)
            icon.addPixmap(picture, QIcon.Mode.Selected)  # not tinted: it shows colours
            self.list.addItem(QListWidgetItem(icon, preset.name))
        self._allow()

    @property
    def chosen(self) -> SievePreset | None:
        """The preset that is chosen."""
        return (
            self._presets[self.list.currentRow()]
            if 0 <= self.list.currentRow() < len(self._presets)
            else None
        )

    def _allow(self) -> None:
        for button in (self.use, self.remove, self.give):
            button.setEnabled(self.chosen is not None)

    def _use(self) -> None:
        if self.chosen is not None:
            self._stack.add_copies(
                (self.chosen.sieve,), translate("Preset {name}", name=self.chosen.name)
            )

    def _store(self) -> None:
        name, sure = QInputDialog.getText(
            self,
            translate("Save sieve preset"),
            translate("Name:"),
            text=self._work.sieve.name,
        )
        if sure:
            self._shelf.keep_sieve(name, small_picture(self._view))
            self.follow()

    def _remove(self) -> None:
        if self.chosen is not None:
            sieve_presets.STORE.remove(self.chosen.name)
            self.follow()

    def _import(self) -> None:
        name, _ = QFileDialog.getOpenFileName(
            self, translate("Import a preset of a sieve"), "", FILES
        )
        if name:
            self._shelf.read_sieve(pathlib.Path(name))
            self.follow()

    def _export(self) -> None:
        if self.chosen is None:
            return
        name, _ = QFileDialog.getSaveFileName(
            self, translate("Export the preset"), f"{self.chosen.name}.json", FILES
        )
        if name:
            self._shelf.write_sieve(self.chosen, pathlib.Path(name))
