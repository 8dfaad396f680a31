"""Many pictures at once: which, by which stack, where, with their number and the first result as a
picture.
"""

from __future__ import annotations

import pathlib

import numpy as np
from PyQt6 import sip
from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import (
    QCheckBox,
    QComboBox,
    QDialog,
    QDialogButtonBox,
    QFileDialog,
    QFormLayout,
    QHBoxLayout,
    QLabel,
    QListWidget,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from ...errors import Trouble
from ...export import presets as export_presets
from ...export.batch import BatchHow, pictures_in
from ...export.presets import ExportChoice
from ...export.still_options import name_from
from ...language import translator
from ...media import formats
from ...media.formats import is_clip
from ...workspace.workspace import Workspace
from ..widgets.drawing import pixmap_of
from .fields import combo_of, refill
from .form_fields import FormFields
from .format_finder import DEPTHS

translate = translator("dialogs")


READABLE = formats.filter_words(translate("Pictures"), formats.endings("still"))
#: Which pictures, and by which stack.
WHICH = {
    "tray": translate("Those on the tray, each by its own stack"),
    "files": translate("Files, by this stack"),
    "folder": translate("A folder, by this stack"),
}
#: Longer side of the first result, pixels.
PICTURE = 320


class BatchDialog(QDialog):
    """Everything about a batch; the button begins it, and the window goes on working."""

    def __init__(self, parent: QWidget, workspace: Workspace) -> None:
        super().__init__(parent)
        self.setWindowTitle(translate("Batch"))
        self._exports, self._tray = workspace.exports, workspace.tray
        self._preferences = workspace.preferences
        #: The pictures that were named, and where they are written to.
        self._named: list[pathlib.Path] = []
        last = pathlib.Path(workspace.preferences.values.batch_folder or "/nowhere")
        self._into: pathlib.Path | None = last if last.is_dir() else None
        self.which = QComboBox()
        for name, words in WHICH.items():
            self.which.addItem(words, name)
        self.which.setAccessibleName(translate("Which pictures"))
        self.choose, self.into = (
            QPushButton(translate("Choose pictures…")),
            QPushButton(translate("Choose a folder…")),
        )
        self.list, self.picture, self.said = QListWidget(), QLabel(), QLabel("")
        self.list.setAccessibleName(translate("Pictures of the batch"))
        self.picture.setFixedSize(PICTURE, PICTURE * 2 // 3)
        self.picture.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self.said.setObjectName("dim")
        self.said.setWordWrap(True)
        rows = [
            (translate("As it came"), ""),
            *((f"{one.name}  {one.endings[0]}", one.endings[0]) for one in formats.written()),
        ]
        self.format_choice = combo_of(translate("Format"), [])
        refill(self.format_choice, rows, "")
        self.depth_choice = combo_of(translate("Depth"), [])
        self.presets = combo_of(translate("Preset"), [translate("Custom")])
        self._presets = [
            one
            for one in (*export_presets.SHIPPED, *export_presets.STORE.all())
            if one.what == "result" and one.ending in formats.endings("still")
        ]
        self.presets.addItems([one.name for one in self._presets])
        self.fields = FormFields(
            "{name}", translate("{name} of the picture, {sieve}, {date}, {frame} for its number")
        )
        self.look = QCheckBox(translate("Look first: write the report alone"))
        self.look.setToolTip(
            translate(
                "A page with each picture's mask, its coverage and its light, what stands out "
                "first; no picture is written",
            )
        )
        form = QFormLayout()
        for label, widget in (
            (translate("Pictures"), self.which),
            ("", self.choose),
            ("", self.list),
            (translate("Preset"), self.presets),
            (translate("Format"), self.format_choice),
            (translate("Depth"), self.depth_choice),
            ("", self.fields.quality),
            ("", self.fields.size_number),
            (translate("Resampling"), self.fields.filter),
            (translate("Profile"), self.fields.profile),
            ("", self.fields.metadata),
            (translate("Name"), self.fields.pattern),
            (translate("Write into"), self.into),
            ("", self.look),
            ("", self.said),
        ):
            form.addRow(label, widget)
        beside, row, column = QVBoxLayout(), QHBoxLayout(), QVBoxLayout(self)
        beside.addWidget(QLabel(translate("The first result")))
        beside.addWidget(self.picture)
        beside.addStretch(1)
        row.addLayout(beside)
        row.addLayout(form, 1)
        buttons = QDialogButtonBox(QDialogButtonBox.StandardButton.Cancel)
        self.begin = QPushButton(translate("Render"))
        buttons.addButton(self.begin, QDialogButtonBox.ButtonRole.AcceptRole)
        buttons.accepted.connect(self._begin)
        buttons.rejected.connect(self.reject)
        column.addLayout(row)
        column.addWidget(buttons)
        self.which.currentIndexChanged.connect(lambda _: self._forget_named())
        self.choose.clicked.connect(self._choose)
        self.format_choice.currentIndexChanged.connect(lambda _: self._depths())
        self.into.clicked.connect(self._choose_into)
        self.presets.activated.connect(lambda at: self.use(self._presets[at - 1]) if at else None)
        self.fields.pattern.textChanged.connect(lambda _: self._follow())
        self.which.setCurrentIndex(0 if len(workspace.tray.entries) > 1 else 1)
        self.resize(820, 640)
        self._depths()
        kept = export_presets.parsed(workspace.preferences.values.last_export.get("batch", ""))
        if kept is not None:
            self.use(kept)

    @property
    def kind(self) -> str:
        """Return which pictures: "tray", "files" or "folder"."""
        return str(self.which.currentData())

    def paths(self) -> list[pathlib.Path]:
        """The pictures that will be rendered."""
        if self.kind != "tray":
            return self._named
        sources = [pathlib.Path(entry.source) for entry in self._tray.entries if entry.source]
        return [path for path in sources if not is_clip(path)]

    @property
    def how(self) -> BatchHow:
        """As what they are written."""
        form = self.fields.export(depth=str(self.depth_choice.currentData() or ""))
        return BatchHow(
            str(self.format_choice.currentData() or ""),
            form,
            self.fields.pattern.text(),
            preview=self.look.isChecked(),
        )

    def use(self, choice: ExportChoice) -> None:
        """Choose everything as it was stored, as far as a batch has it."""
        for combo, wanted in (
            (self.format_choice, choice.ending),
            (self.depth_choice, choice.depth),
        ):
            combo.setCurrentIndex(max(0, combo.findData(wanted)))
        self.fields.use(choice)

    def _depths(self) -> None:
        known = formats.format_of(pathlib.Path(f"a{self.how.ending}")) if self.how.ending else None
        kinds = known.writes if known is not None else ()
        refill(
            self.depth_choice,
            [(translate("As it came"), ""), *((DEPTHS[kind], kind) for kind in kinds)],
            self.how.form.depth,
        )
        self.depth_choice.setEnabled(len(kinds) > 1)
        ending = self.how.ending
        self.fields.quality.setEnabled(not ending or formats.has_quality(ending, ""))
        self._follow()

    def _forget_named(self) -> None:
        self._named = []
        self._follow()

    def _choose(self) -> None:
        if self.kind == "folder":
            name = QFileDialog.getExistingDirectory(self, translate("Folder of pictures"))
            self._named = pictures_in([pathlib.Path(name)]) if name else self._named
        else:
            names, _ = QFileDialog.getOpenFileNames(
                self,
                translate("Pictures"),
                "",
                translate("{readable};;All files (*)", readable=READABLE),
            )
            self._named = [pathlib.Path(name) for name in names] or self._named
        self._follow()

    def _choose_into(self) -> None:
        name = QFileDialog.getExistingDirectory(self, translate("Folder to write into"))
        if name:
            self._into = pathlib.Path(name)
        self._follow()

    def _follow(self) -> None:
        paths = self.paths()
        self.choose.setVisible(self.kind != "tray")
        self.choose.setText(
            translate("Choose a folder…")
            if self.kind == "folder"
            else translate("Choose pictures…")
        )
        self.list.clear()
        self.list.addItems([path.name for path in paths])
        self.into.setText(
            str(self._into) if self._into is not None else translate("Choose a folder…")
        )
        count = (
            translate(
                "{n} pictures, each written as it came",
                "{n} picture, written as it came",
                len(paths),
            )
            if not self.how.ending
            else translate(
                "{n} pictures, written as {ending}",
                "{n} picture, written as {ending}",
                len(paths),
                ending=self.how.ending,
            )
        )
        left = len(self._tray.entries) - len(paths) if self.kind == "tray" else 0
        self.said.setText(
            translate("{count}; clips on the tray are exported by themselves.", count=count)
            if left
            else f"{count}."
            if paths
            else translate("Choose pictures first.")
        )
        named = True
        try:
            if paths:
                name_from(self.fields.pattern.text(), paths[0], "", 1)
        except Trouble as trouble:
            self.said.setText(str(trouble))
            named = False
        self.begin.setEnabled(bool(paths) and self._into is not None and named)
        self.picture.clear()
        if paths:
            self._exports.first_of_batch(paths[0], self.kind == "tray", PICTURE, self._paint)

    def _paint(self, pixels: np.ndarray | None) -> None:
        if pixels is not None and not sip.isdeleted(
            self.picture
        ):  # the dialog may have been closed meanwhile
            whole = pixmap_of(pixels)
            self.picture.setPixmap(
                whole.scaled(self.picture.size(), Qt.AspectRatioMode.KeepAspectRatio)
            )

    def _begin(self) -> None:
        assert self._into is not None
        how = self.how
        kept = self.fields.choice(how.ending, how.form)
        self._preferences.change(
            batch_folder=str(self._into),
            last_export={
                **self._preferences.values.last_export,
                "batch": kept.model_dump_json(),
            },
        )
        if self.kind == "tray":
            self._exports.batch_tray(self._into, self.how)
        else:
            self._exports.run_batch(self._named, self._into, self.how)
        self.accept()
