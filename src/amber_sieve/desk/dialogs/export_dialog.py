"""The export dialog: what leaves, as what, how large; with a picture of it and a live example of
its name.
"""

from __future__ import annotations

import pathlib

from PyQt6.QtCore import QSignalBlocker
from PyQt6.QtGui import QKeySequence, QShortcut
from PyQt6.QtWidgets import (
    QCheckBox,
    QDialog,
    QDialogButtonBox,
    QFileDialog,
    QFormLayout,
    QHBoxLayout,
    QLabel,
    QMessageBox,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from ...errors import Trouble
from ...export import presets as export_presets
from ...export.clip import CLIP_WHATS, ClipExport
from ...export.presets import ExportChoice
from ...export.still_options import TOKENS, WHATS, Export, What, name_from
from ...language import named, translator
from ...media import formats
from ...project.controls import left_out_of_cdl
from ...workspace.workspace import Workspace
from ..pages.page import row_of
from ..start.places import folder_for_exports
from .export_formats import CDL, LOOKUP, depths_of, known_formats
from .export_picture import ExportPicture
from .export_words import DEPTH_WORDS, FRAMES, size_words
from .fields import combo_of, refill
from .form_fields import FormFields
from .format_finder import DEPTHS, Called, FormatFinder, called
from .preset_row import PresetRow

translate = translator("dialogs")


#: Nodes on a side of a lookup table where nothing else is chosen.
USUAL_SIZE = 33


class ExportDialog(QDialog):
    """Everything about one picture, or the frames of a clip, that leaves; the button writes it and
    goes on working.
    """

    def __init__(self, parent: QWidget, workspace: Workspace, what: str = "") -> None:
        """As it was chosen last; ``what`` leaves, where that is given."""
        super().__init__(parent)
        self.setWindowTitle(translate("Export"))
        self._preferences, self._adjust = workspace.preferences, workspace.adjust
        self._exports, self._viewing, self._work = (
            workspace.exports,
            workspace.viewing,
            workspace.work,
        )
        assert workspace.work.opened is not None
        about = workspace.work.opened.source.about
        self.folder = folder_for_exports(about.path)
        self.presets = PresetRow(lambda: self.choice)
        self.frames = combo_of(translate("Frames"), list(FRAMES.values()))
        self.what = combo_of(translate("Contents"), [])
        self.format_choice = combo_of(translate("Format"), [])
        self.depth_choice = combo_of(translate("Depth"), [])
        self.fields = FormFields(
            "{name}-sieved", translate("{name} of the picture, {sieve}, {date}, {frame}")
        )
        self.resume = QCheckBox(translate("Skip existing files"))
        self.tokens = [QPushButton(f"{{{token}}}") for token in TOKENS]
        for button in self.tokens:
            button.setToolTip(translate("Put {text} into the name", text=button.text()))
            button.clicked.connect(lambda _, token=button.text(): self.fields.pattern.insert(token))
        self.search = FormatFinder(self._every_format, lambda: self.chosen_depth)
        self.search.chosen.connect(self._use_found)
        self.picture = ExportPicture(workspace.exports, workspace.viewing)
        self.example, self.place = QLabel(), QPushButton(str(self.folder))
        self.example.setObjectName("dim")
        self.example.setWordWrap(True)
        self.place.clicked.connect(self._choose_folder)
        self.depth_label = QLabel(translate("Depth"))
        form = QFormLayout()
        self.form = form
        for words, widget in (
            (translate("Preset"), self.presets),
            (translate("Contents"), self.what),
            (translate("Frames"), self.frames),
            ("", self.search),
            (translate("Format"), self.format_choice),
            (self.depth_label, self.depth_choice),
            ("", self.fields.quality),
            ("", self.fields.size_number),
            (translate("Resampling"), self.fields.filter),
            (translate("Profile"), self.fields.profile),
            ("", self.fields.premultiplied),
            ("", self.fields.metadata),
            ("", self.resume),
            (translate("Folder"), self.place),
            (translate("Name"), self.fields.pattern),
            ("", row_of(*self.tokens)),
            ("", self.example),
        ):
            form.addRow(words, widget)
        self.clip = about.frames > 1
        self._lay_out()
        if self.clip:
            self.fields.quality.set(formats.QUALITY)
        form.setRowVisible(self.frames, self.clip)
        #: Which frames were chosen last, where what leaves lets one choose.
        self._frames = 2 if self.clip and workspace.work.between else 1 if self.clip else 0
        self.frames.setCurrentIndex(self._frames)
        self._listen()
        workspace.work.changed.connect(self._ask_picture)
        refill(self.what, [(named(word), word) for word in self._whats()], "result")
        self._fit_frames()
        ending = about.path.suffix.lower()
        self.format_choice.setCurrentIndex(max(0, self.format_choice.findData(ending)))
        self._choose_as_last(what)

    def _lay_out(self) -> None:
        """Pictures on the left, the choices on the right, the buttons below."""
        buttons = QDialogButtonBox(QDialogButtonBox.StandardButton.Cancel)
        self.export = QPushButton(translate("Export"))
        buttons.addButton(self.export, QDialogButtonBox.ButtonRole.AcceptRole)
        QShortcut(QKeySequence("Ctrl+E"), self, self.export.click)
        buttons.accepted.connect(self._export)
        buttons.rejected.connect(self.reject)
        row, column = QHBoxLayout(), QVBoxLayout(self)
        row.addWidget(self.picture)
        row.addLayout(self.form, 1)
        column.addLayout(row)
        column.addWidget(buttons)
        self.resize(920, 620)
        # Return ends typing; only the button, or Ctrl+E, exports.
        for button in self.findChildren(QPushButton):
            button.setAutoDefault(False)

    def _listen(self) -> None:
        """Each choice decides what can be chosen after it."""
        self.presets.chosen.connect(self.use)
        self.frames.currentIndexChanged.connect(self._keep_frames)
        self.what.currentIndexChanged.connect(lambda _: self._fit_frames())
        self.format_choice.currentIndexChanged.connect(lambda _: self._depths())
        self.depth_choice.currentIndexChanged.connect(
            lambda _: self._ask_picture() if self.kind == LOOKUP else None
        )
        for combo in (self.depth_choice, self.fields.filter, self.fields.profile):
            combo.currentIndexChanged.connect(lambda _: self._follow())
        self.fields.pattern.textChanged.connect(lambda _: self._follow())
        self.fields.size_number.moved.connect(lambda _: self._follow())
        self.fields.quality.moved.connect(lambda _: self._follow())

    def _choose_as_last(self, what: str) -> None:
        """As it was chosen last for such a source; ``what`` leaves, where that is given."""
        last = export_presets.parsed(self._preferences.values.last_export.get(self._last, ""))
        if last is not None:
            self.use(last)
            if self.clip and self._work.between:
                self._keep_frames(list(FRAMES).index("between"))
                self._fit_frames()
        if what:
            self.what.setCurrentIndex(max(0, self.what.findData(what)))

    # What is chosen

    @property
    def _last(self) -> str:
        """Of what kind of source the last choice is remembered."""
        return "clip" if self.clip else "still"

    @property
    def many(self) -> bool:
        """Return whether frames of a clip leave, and not one picture."""
        return self.clip and self.frames.currentIndex() > 0

    @property
    def kind(self) -> str:
        """Return what is exported: one of ``WHATS`` or ``CLIP_WHATS``, or ``LOOKUP``."""
        return str(self.what.currentData())

    @property
    def ending(self) -> str:
        """Of the file's name, with the field for the number before it where it stands for many."""
        return str(self.format_choice.currentData() or "")

    @property
    def chosen_depth(self) -> str:
        """The sample type, codec, or nodes on a side."""
        return str(self.depth_choice.currentData() or "")

    @property
    def how(self) -> Export:
        """The export of one picture as it is chosen."""
        what: What = next((known for known in WHATS if known == self.kind), "result")
        return self.fields.export(what, self.chosen_depth if self.chosen_depth in DEPTHS else "")

    @property
    def choice(self) -> ExportChoice:
        """Everything that is chosen, to be stored."""
        frames = list(FRAMES)[self.frames.currentIndex()]
        made = self.fields.choice(self.ending, self.how, frames, self.kind)
        return made.but(depth=self.chosen_depth)

    @property
    def path(self) -> pathlib.Path:
        """Return where it will be written; raises `Trouble` when the pattern makes no name."""
        assert self._work.opened is not None
        name = name_from(
            self.fields.pattern.text(),
            self._work.opened.source.about.path,
            self._work.sieve.name,
            self._work.number,
        )
        return self.folder / f"{name}{self.ending}"

    def use(self, choice: ExportChoice) -> None:
        """Choose everything as it was stored, as far as this picture allows it."""
        if self.clip:
            self._keep_frames(list(FRAMES).index(choice.frames))
        self.what.setCurrentIndex(max(0, self.what.findData(choice.what)))
        self._fit_frames()
        for combo, wanted in (
            (self.format_choice, choice.ending),
            (self.depth_choice, choice.depth),
        ):
            combo.setCurrentIndex(max(0, combo.findData(wanted)))
        self.fields.use(choice)

    # What can be chosen

    def _whats(self) -> tuple[str, ...]:
        """Return all that can leave."""
        of_clips = [one for one in CLIP_WHATS if one not in WHATS] if self.clip else []
        return (*WHATS, *of_clips, LOOKUP, CDL)

    def _keep_frames(self, index: int) -> None:
        """Remember which frames a person has chosen."""
        self._frames = index
        self._formats()

    def _fit_frames(self) -> None:
        """Offer the frames that fit the contents: some are of one frame alone, some of many."""
        alone, together = self.kind not in CLIP_WHATS, self.kind not in (*WHATS, LOOKUP, CDL)
        wanted = 0 if alone else max(self._frames, 1) if together else self._frames
        with QSignalBlocker(self.frames):
            self.frames.setCurrentIndex(wanted if self.clip else 0)
        self.frames.setEnabled(not alone and not together)
        self._formats()

    def _formats(self, wanted: str = "") -> None:
        wanted = wanted or self.ending
        refill(
            self.format_choice,
            [(f"{name}  {ending}", ending) for name, ending in known_formats(self.kind, self.many)],
            wanted,
        )
        self.search.offer()
        self._depths()
        self._ask_picture()

    def _depths(self) -> None:
        known, lookup = formats.format_of(pathlib.Path(f"a{self.ending}")), self.kind == LOOKUP
        clip = known is not None and known.kind == "clip"
        rows = depths_of(known, self.kind)
        chosen = self.chosen_depth
        usual = str(USUAL_SIZE) if lookup and (chosen, chosen) not in rows else chosen
        refill(self.depth_choice, rows, usual)
        self.depth_label.setText(DEPTH_WORDS["clip" if clip else "lookup" if lookup else "still"])
        grey = self.kind in ("mask", "every mask") and not clip
        self.depth_choice.setEnabled(not grey and len(rows) > 1)
        still = self.kind in WHATS and not self.many
        for widget, used in (
            (self.fields.size_number, still),
            (self.fields.filter, still),
            (self.fields.metadata, still),
            (self.fields.profile, still and not grey and known is not None and known.profile),
            (
                self.fields.premultiplied,
                self.kind == "cut-out" and known is not None and known.encoder == "tiff",
            ),
            (self.resume, self.many and "####" in self.ending),
        ):
            widget.setEnabled(used)  # rows stay where they are
        self._follow()

    def _every_format(self) -> Called:
        """Return the names of each format, codec and table that can be chosen, those of what leaves
        now first: contents, ending, and depth or codec.
        """
        found: Called = {}
        for what in sorted(self._whats(), key=lambda one: one != self.kind):
            together = what in CLIP_WHATS and what not in WHATS
            many = together or (self._frames > 0 and what in CLIP_WHATS)
            found |= called(known_formats(what, many), what, "" if what == self.kind else what)
        return found

    def _use_found(self, what: str, ending: str, kind: str) -> None:
        """Choose a format that was found by its name."""
        self.what.setCurrentIndex(self.what.findData(what))
        self.format_choice.setCurrentIndex(self.format_choice.findData(ending))
        self.depth_choice.setCurrentIndex(max(0, self.depth_choice.findData(kind)))

    def _choose_folder(self) -> None:
        name = QFileDialog.getExistingDirectory(self, translate("Export into"), str(self.folder))
        if name:
            self.folder = pathlib.Path(name)
            self.place.setText(name)
            self._follow()

    # What will be

    def _numbers(self) -> tuple[int, int] | None:
        return self._work.between if self.frames.currentIndex() == 2 else None

    def _follow(self) -> None:
        self.fields.quality.setEnabled(formats.has_quality(self.ending, self.chosen_depth))
        try:
            there = translate(", is there already") if self.path.exists() else ""
            self.example.setText(f"{self.path.name}{there}\n{self._size_words()}")
            self.export.setEnabled(True)
        except Trouble as trouble:
            self.example.setText(str(trouble))
            self.export.setEnabled(False)

    def _size_words(self) -> str:
        if self.kind == LOOKUP:
            return translate("Codes of sRGB in and out")
        if self.kind == CDL:
            left = left_out_of_cdl(self._work.sieve)
            return (
                translate("Left out: {left_out}", left_out=", ".join(left))
                if left
                else translate("All that {sieve} does", sieve=self._work.sieve.name)
            )
        return size_words(
            self._work.size,
            (self._numbers() or (0, self._work.frames - 1)) if self.many else None,
            self.how,
            self.ending,
        )

    def _ask_picture(self) -> None:
        """Ask for what will be written, all of it."""
        self.picture.ask(
            self.kind, int(self.chosen_depth or USUAL_SIZE) if self.kind == LOOKUP else 0
        )

    def _export(self) -> None:
        path = self.path
        words = translate("{name} is there already. Write over it?", name=path.name)
        if (
            path.exists()
            and QMessageBox.question(self, "Amber Sieve", words) != QMessageBox.StandardButton.Yes
        ):
            return
        if self.kind == LOOKUP:
            self._exports.write_lookup(path, int(self.chosen_depth))
        elif self.kind == CDL:
            self._adjust.write_cdl(path)
        elif self.many:
            still = "####" in self.ending
            what = next(known for known in CLIP_WHATS if known == self.kind)
            how = ClipExport(
                what,
                "",
                round(self.fields.quality.value()),
                self.chosen_depth if still else "",
                self.resume.isChecked() and still,
            )
            self._exports.write_frames(
                path, self._numbers(), "" if still else self.chosen_depth, how
            )
        else:
            self._exports.write_as(path, self.how)
        self._preferences.change(
            last_export={
                **self._preferences.values.last_export,
                self._last: self.choice.model_dump_json(),
            }
        )
        self.accept()
