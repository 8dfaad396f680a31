"""Rows of adjustments that are read from files: a CDL, a lookup table."""

from __future__ import annotations

import pathlib
from collections.abc import Callable

from PyQt6.QtWidgets import QFileDialog, QHBoxLayout, QInputDialog, QPushButton, QWidget

from ...language import translator
from ...media.colour.cdl_files import FORMATS
from ...media.colour.lookup_files import ENDINGS
from ...workspace.adjust import AdjustController
from ..widgets.icon import with_icon

translate = translator("pages")

CDLS = translate("CDL ({endings})", endings=" ".join("*" + ending for ending in FORMATS))
TABLES = translate(
    "Lookup tables ({endings})", endings=" ".join("*" + ending for ending in ENDINGS)
)
NO_TABLE = translate("Choose a table…")


def _in_a_row(row: QWidget, *buttons: QPushButton) -> None:
    beside = QHBoxLayout(row)
    beside.setContentsMargins(0, 0, 0, 0)
    for button in buttons:
        beside.addWidget(button)


class CdlRow(QWidget):
    """Reads a CDL into the adjustments, and writes them as one."""

    def __init__(self, adjust: AdjustController, name: Callable[[], str]) -> None:
        """``name``: of the file that is proposed for writing."""
        super().__init__()
        self._adjust, self._name = adjust, name
        read, write = QPushButton(translate("Read…")), QPushButton(translate("Write…"))
        read.setToolTip(
            translate("Take slope, offset, power and saturation from a .cdl, .ccc or .cc file")
        )
        write.setToolTip(translate("Write them as a .cdl, .ccc or .cc file"))
        read.clicked.connect(self._read)
        write.clicked.connect(self._write)
        _in_a_row(self, read, write)

    def _read(self) -> None:
        name, _ = QFileDialog.getOpenFileName(self, translate("Read a CDL"), "", CDLS)
        if name:
            self._adjust.read_cdl(pathlib.Path(name), self._which)

    def _which(self, names: list[str]) -> int:
        title, question = translate("Read a CDL"), translate("Which of them?")
        chosen, sure = QInputDialog.getItem(self, title, question, names, 0, False)
        return names.index(chosen) if sure else -1

    def _write(self) -> None:
        proposed = f"{self._name()}.cdl"
        name, _ = QFileDialog.getSaveFileName(self, translate("Write the CDL"), proposed, CDLS)
        if name:
            path = pathlib.Path(name)
            self._adjust.write_cdl(path if path.suffix else path.with_suffix(".cdl"))


class LookupRow(QWidget):
    """Names the lookup table, reads another, and takes it off."""

    def __init__(
        self, read: Callable[[pathlib.Path], object], remove: Callable[[], object]
    ) -> None:
        super().__init__()
        self._read = read
        self.table, self.none = QPushButton(), QPushButton()
        tip = translate("A lookup table (.cube, .clf) over sRGB-coded values")
        with_icon(self.table, "image", tip, NO_TABLE)
        with_icon(self.none, "circle-minus", translate("No table"))
        self.none.setFixedWidth(36)
        self.table.clicked.connect(self._choose)
        self.none.clicked.connect(lambda: remove())
        _in_a_row(self, self.table, self.none)

    def show_table(self, path: str) -> None:
        """Name the table in use; "" for none."""
        self.table.setText(pathlib.Path(path).name if path else NO_TABLE)
        self.none.setEnabled(bool(path))

    def _choose(self) -> None:
        title = translate("Look up in a table")
        name, _ = QFileDialog.getOpenFileName(self, title, "", TABLES)
        if name:
            self._read(pathlib.Path(name))
