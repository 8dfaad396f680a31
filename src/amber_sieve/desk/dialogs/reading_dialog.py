"""Choose how the picture is read, and through which display it is seen: its part, its colour space,
the white balance of a raw file.
"""

from __future__ import annotations

from PyQt6 import sip
from PyQt6.QtCore import QSignalBlocker
from PyQt6.QtWidgets import (
    QCheckBox,
    QComboBox,
    QDialog,
    QDialogButtonBox,
    QFormLayout,
    QLabel,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from ...language import named, translator
from ...media.formats import RAW
from ...read_settings import CHOICES
from ...workspace.workspace import Workspace
from ..pages.page import row_of

translate = translator("dialogs")


FROM_FILE, FROM_STREAM, NO_DISPLAY = (
    translate("As the file says"),
    translate("As the stream says"),
    "sRGB",
)
REC_709 = translate("Linear Rec. 709")


class ReadingDialog(QDialog):
    """Stays open beside the picture; every choice acts at once and can be undone."""

    def __init__(self, parent: QWidget, workspace: Workspace) -> None:
        super().__init__(parent)
        self.setWindowTitle(translate("Input settings"))
        self._reading, self._work = workspace.reading, workspace.work
        self.part, self.space, self.working, self.display = (
            QComboBox(),
            QComboBox(),
            QComboBox(),
            QComboBox(),
        )
        for combo, name in (
            (self.part, translate("Part")),
            (self.space, translate("Colour space")),
            (self.working, translate("Working space")),
            (self.display, translate("Display")),
        ):
            combo.setAccessibleName(name)
            combo.setMinimumWidth(320)
        self.space.addItem(FROM_FILE)
        self.space.setToolTip(
            translate(
                "What the file's codes stand for: a camera's log encoding, or another space of "
                "the colour configuration ($OCIO)",
            )
        )
        self.working.addItem(REC_709)
        self.working.setToolTip(translate("The light in whose channels CDL and curves work"))
        self.display.addItem(NO_DISPLAY)
        self.display.setToolTip(
            translate("What light is turned into for the screen and for files of 8 and 16 bits")
        )
        self.as_shot, self.pick = (
            QPushButton(translate("As shot")),
            QPushButton(translate("Pick a grey place…")),
        )
        self.streams: dict[str, QComboBox] = {}
        for name, choices in CHOICES.items():
            combo = self.streams[name] = QComboBox()
            combo.addItems([FROM_STREAM, *choices])
            combo.setAccessibleName(named(name))
            combo.activated.connect(
                lambda at, name=name, combo=combo: workspace.reading.change(
                    **{name: combo.itemText(at) if at else ""}
                )
            )
        self.deinterlaced = QCheckBox(translate("Deinterlace"))
        self.deinterlaced.setToolTip(
            translate(
                "Makes whole frames of both fields: woven where nothing moves, filled in where "
                "something does",
            )
        )
        self.deinterlaced.clicked.connect(lambda on: workspace.reading.change(deinterlaced=on))
        self.white = QLabel()
        self.white.setObjectName("dim")
        self.form = QFormLayout()
        self.white_row = row_of(self.as_shot, self.pick, self.white)
        for label, widget in (
            (translate("Part"), self.part),
            (translate("Colour space"), self.space),
            (translate("White balance"), self.white_row),
            *((named(name), combo) for name, combo in self.streams.items()),
            (translate("Interlaced"), self.deinterlaced),
            (translate("Working space"), self.working),
            (translate("Display"), self.display),
        ):
            self.form.addRow(label, widget)
        buttons = QDialogButtonBox(QDialogButtonBox.StandardButton.Close)
        buttons.rejected.connect(self.reject)
        column = QVBoxLayout(self)
        column.addLayout(self.form)
        column.addWidget(buttons)
        self.part.activated.connect(
            lambda at: workspace.reading.change(part=self.part.itemText(at) if at else "")
        )
        self.space.activated.connect(
            lambda at: workspace.reading.change(space=self.space.itemText(at) if at else "")
        )
        self.working.activated.connect(
            lambda at: workspace.reading.set_working(self.working.itemText(at) if at else "")
        )
        self.display.activated.connect(
            lambda at: workspace.reading.set_display(self.display.itemText(at) if at else "")
        )
        self.as_shot.clicked.connect(lambda: workspace.reading.change(white=None))
        self.pick.clicked.connect(
            lambda: workspace.adjust.pick_place(
                lambda x, y: workspace.reading.change(white=(x, y)),
                translate("Click what should be grey"),
            )
        )
        workspace.work.changed.connect(self.follow)
        workspace.work.source_changed.connect(self.follow)
        self.follow()
        workspace.reading.name_colour_spaces(self._take_names)

    def _take_names(self, names: dict[str, list[str]]) -> None:
        """The names of the colour configuration, which may take a while to be read."""
        if sip.isdeleted(self):
            return
        for combo, kind in (
            (self.space, "inputs"),
            (self.working, "workings"),
            (self.display, "displays"),
        ):
            combo.addItems(names[kind])
        self.follow()

    def follow(self) -> None:
        """Show what is chosen for the picture that is open."""
        opened, project = self._work.opened, self._work.project
        about = opened.source.about if opened else None
        parts = about.parts if about else ()
        with (
            QSignalBlocker(self.part),
            QSignalBlocker(self.space),
            QSignalBlocker(self.working),
            QSignalBlocker(self.display),
        ):
            self.part.clear()
            self.part.addItems([*parts] or [translate("Only one")])
            self.part.setCurrentIndex(
                parts.index(project.reading.part) if project.reading.part in parts else 0
            )
            self.space.setCurrentIndex(max(0, self.space.findText(project.reading.space)))
            self.working.setCurrentIndex(max(0, self.working.findText(project.working)))
            self.display.setCurrentIndex(max(0, self.display.findText(project.display)))
        self.part.setEnabled(len(parts) > 1)
        raw = about is not None and about.path.suffix.lower() in RAW
        self.form.setRowVisible(self.white_row, raw)
        clip = about is not None and about.kind == "clip"
        for name, combo in self.streams.items():
            self.form.setRowVisible(combo, clip)
            combo.setCurrentIndex(max(0, combo.findText(getattr(project.reading, name))))
        self.form.setRowVisible(self.deinterlaced, clip)
        self.deinterlaced.setChecked(project.reading.deinterlaced)
        self.form.setRowVisible(self.part, not clip)
        self.form.setRowVisible(self.space, not clip)
        self.space.setEnabled(about is not None and about.kind != "clip")
        place = project.reading.white
        self.white.setText(
            translate("from {place:.0f}, {down:.0f}", place=place[0], down=place[1])
            if place
            else translate("as shot")
        )
