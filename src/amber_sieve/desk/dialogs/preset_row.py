"""The presets of an export: chosen, saved and removed."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QInputDialog, QPushButton, QWidget

from ...export import presets as export_presets
from ...export.presets import ExportChoice
from ...language import translator
from .fields import combo_of

translate = translator("dialogs")

#: Shown first among the presets.
NO_PRESET = translate("Custom")


class PresetRow(QWidget):
    """`chosen` comes with the preset that a person takes."""

    chosen = pyqtSignal(object)

    def __init__(self, present: Callable[[], ExportChoice]) -> None:
        """``present`` gives all choices of the dialog."""
        super().__init__()
        self._present = present
        self._all: tuple[ExportChoice, ...] = ()
        self.box = combo_of(translate("Preset"), [])
        self.store, self.remove = (
            QPushButton(translate("Save…")),
            QPushButton(translate("Remove")),
        )
        self.store.setToolTip(translate("Save all of this as a preset"))
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(4)
        for widget in (self.box, self.store, self.remove):
            row.addWidget(widget)
        self.box.activated.connect(self._take)
        self.store.clicked.connect(self._store)
        self.remove.clicked.connect(self._remove)
        self.fill()

    def fill(self, chosen: str = "") -> None:
        """List those there are, with one chosen by its name."""
        self._all = (*export_presets.SHIPPED, *export_presets.STORE.all())
        self.box.clear()
        self.box.addItems([NO_PRESET, *(preset.name for preset in self._all)])
        self.box.setCurrentIndex(max(0, self.box.findText(chosen)))
        self._follow()

    def _follow(self) -> None:
        self.remove.setEnabled(self.box.currentIndex() > len(export_presets.SHIPPED))

    def _take(self, index: int) -> None:
        self._follow()
        if index > 0:
            self.chosen.emit(self._all[index - 1])

    def _store(self) -> None:
        name, sure = QInputDialog.getText(self, translate("Save preset"), translate("Name"))
        if sure:
            export_presets.STORE.keep(self._present().but(name=name.strip()[:60]))
            self.fill(name.strip()[:60])

    def _remove(self) -> None:
        export_presets.STORE.remove(self._all[self.box.currentIndex() - 1].name)
        self.fill()
