"""The export dialog: what leaves, as what, how large; with a picture of it and a live example of its name."""

from __future__ import annotations

import pathlib

import numpy as np
from PyQt6 import sip
from PyQt6.QtCore import Qt
from PyQt6.QtGui import QImage, QPixmap
from PyQt6.QtWidgets import (
    QCheckBox,
    QComboBox,
    QDialog,
    QDialogButtonBox,
    QFileDialog,
    QFormLayout,
    QHBoxLayout,
    QLabel,
    QLineEdit,
    QMessageBox,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from ..errors import Trouble
from ..jobs.export import WHATS, Export, name_from
from ..media import formats
from ..project.fields import Spec
from .number import Number
from .session import Session

DEPTHS = {"uint8": "8 bit", "uint16": "16 bit", "half": "Half float", "float": "Float"}
#: What each choice looks like in a pane.
VIEWS = {"result": "Result", "mask": "Mask", "cut-out": "Cut-out", "every mask": "Mask"}
PICTURE = 360


def _number(name: str, label: str, start: float, low: float, high: float, unit: str) -> Number:
    return Number(Spec(name, label, start, low, high, unit, 1, 0, label, low, min(high, 200), False))


class ExportDialog(QDialog):
    """Everything about one picture that leaves; the button writes it and goes on working."""

    def __init__(self, parent: QWidget, session: Session) -> None:
        super().__init__(parent)
        self.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        self.setWindowTitle("Export")
        self.session = session
        assert session.opened is not None
        about = session.opened.source.about
        self.folder = about.path.parent
        self.what, self.format_choice, self.depth_choice = QComboBox(), QComboBox(), QComboBox()
        self.what.addItems([word.capitalize() for word in WHATS])
        self.what.setAccessibleName("What")
        self.format_choice.setAccessibleName("Format")
        self.depth_choice.setAccessibleName("Depth")
        self.quality, self.size_number = _number("quality", "Quality", 95, 1, 100, ""), _number("size", "Size", 100, 1, 400, "%")
        self.metadata = QCheckBox("Keep what the picture says of itself")
        self.metadata.setChecked(True)
        self.pattern = QLineEdit("{name}-sieved")
        self.pattern.setObjectName("search")
        self.pattern.setAccessibleName("Name")
        self.pattern.setToolTip("{name} of the picture, {sieve}, {date}, {frame}")
        self.example, self.picture, self.place = QLabel(), QLabel(), QPushButton(str(self.folder))
        self.example.setObjectName("dim")
        self.example.setWordWrap(True)
        self.place.clicked.connect(self._choose_folder)
        form = QFormLayout()
        for label, widget in (("What", self.what), ("Format", self.format_choice), ("Depth", self.depth_choice), ("", self.quality), ("", self.size_number),
                              ("", self.metadata), ("Folder", self.place), ("Name", self.pattern), ("", self.example)):  # fmt: skip
            form.addRow(label, widget)
        buttons = QDialogButtonBox(QDialogButtonBox.StandardButton.Cancel)
        self.export = QPushButton("Export")
        buttons.addButton(self.export, QDialogButtonBox.ButtonRole.AcceptRole)
        buttons.accepted.connect(self._export)
        buttons.rejected.connect(self.reject)
        self.picture.setFixedWidth(PICTURE)
        self.picture.setAlignment(Qt.AlignmentFlag.AlignTop)
        row, column = QHBoxLayout(), QVBoxLayout(self)
        row.addWidget(self.picture)
        row.addLayout(form, 1)
        column.addLayout(row)
        column.addWidget(buttons)
        self.resize(820, 420)
        self.what.currentIndexChanged.connect(lambda _: self._formats())
        self.format_choice.currentIndexChanged.connect(lambda _: self._depths())
        self.depth_choice.currentIndexChanged.connect(lambda _: self._follow())
        self.pattern.textChanged.connect(lambda _: self._follow())
        self.size_number.moved.connect(lambda _: self._follow())
        session.project_changed.connect(self._ask_picture)
        self._formats(about.path.suffix.lower())

    # What is chosen

    @property
    def how(self) -> Export:
        """The export as it is chosen."""
        depth = next((kind for kind, word in DEPTHS.items() if word == self.depth_choice.currentText()), "")
        what = WHATS[self.what.currentIndex()]
        return Export(what, depth, round(self.quality.value), self.size_number.value, self.metadata.isChecked())

    @property
    def path(self) -> pathlib.Path:
        """Where it will be written; raises `Trouble` when the pattern makes no name."""
        assert self.session.opened is not None
        name = name_from(self.pattern.text(), self.session.opened.source.about.path, self.session.sieve.name, self.session.number)
        return self.folder / f"{name}{self.format_choice.currentText().split()[-1]}"

    def _formats(self, wanted: str = "") -> None:
        what = WHATS[self.what.currentIndex()]
        wanted = wanted or self.format_choice.currentText().split()[-1:][0] if self.format_choice.count() else wanted
        known = [
            f
            for f in formats.FORMATS
            if f.kind == "still" and f.writes and (f.mask or what in ("result", "cut-out")) and (f.alpha or what != "cut-out")
        ]
        self.format_choice.blockSignals(True)
        self.format_choice.clear()
        self.format_choice.addItems([f"{f.name}  {f.endings[0]}" for f in known])
        at = next((k for k, f in enumerate(known) if wanted in f.endings), 0)
        self.format_choice.setCurrentIndex(at)
        self.format_choice.blockSignals(False)
        self._depths()
        self._ask_picture()

    def _depths(self) -> None:
        known = formats.format_of(pathlib.Path(f"a{self.format_choice.currentText().split()[-1]}"))
        assert known is not None
        what, before = WHATS[self.what.currentIndex()], self.depth_choice.currentText()
        grey = what in ("mask", "every mask")
        self.depth_choice.blockSignals(True)
        self.depth_choice.clear()
        self.depth_choice.addItems([DEPTHS[kind] for kind in known.writes])
        if self.depth_choice.findText(before) >= 0:
            self.depth_choice.setCurrentText(before)
        self.depth_choice.blockSignals(False)
        self.depth_choice.setEnabled(not grey and len(known.writes) > 1)
        self.quality.setEnabled(known.name == "JPEG")
        self._follow()

    def _choose_folder(self) -> None:
        name = QFileDialog.getExistingDirectory(self, "Export into", str(self.folder))
        if name:
            self.folder = pathlib.Path(name)
            self.place.setText(name)
            self._follow()

    def _follow(self) -> None:
        width, height = self.how.pixels(self.session.size)
        try:
            there = ", is there already" if self.path.exists() else ""
            self.example.setText(f"{self.path.name}{there}\n{width} × {height} pixels")
            self.export.setEnabled(True)
        except Trouble as trouble:
            self.example.setText(str(trouble))
            self.export.setEnabled(False)

    def _ask_picture(self) -> None:
        """Ask for what will be written, all of it."""
        self.session.picture_of(VIEWS[self.how.what], PICTURE, self._paint)

    def _paint(self, words: np.ndarray) -> None:
        if not sip.isdeleted(self.picture):  # the dialog may have been closed meanwhile
            image = QImage(words.data, words.shape[1], words.shape[0], words.shape[1] * 4, QImage.Format.Format_RGB32)  # type: ignore[call-overload]
            self.picture.setPixmap(QPixmap.fromImage(image.copy()))  # the words go, the picture stays

    def _export(self) -> None:
        path = self.path
        if path.exists():
            words = f"{path.name} is there already. Write over it?"
            if QMessageBox.question(self, "Amber Sieve", words) != QMessageBox.StandardButton.Yes:
                return
        self.session.export_as(path, self.how)
        self.accept()
