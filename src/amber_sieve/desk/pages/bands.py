"""Bands: intervals of hue, saturation, luminance and single channels."""

from __future__ import annotations

import pathlib

from PyQt6.QtCore import QSignalBlocker
from PyQt6.QtWidgets import QButtonGroup, QCheckBox, QComboBox, QFileDialog, QInputDialog, QPushButton, QStackedWidget, QVBoxLayout, QWidget

from ...core.bands.interval import RANGES
from ...core.falloff import SHAPES
from ...errors import Trouble
from ...project import presets
from ...project.model import BAND_NAMES, Band, Bands, Ramp, Sieve
from ..band_editor import BandEditor
from ..number import Number
from ..session import Rendered, Session
from .page import Page, row_of
from .swatch import swatch

CORNER_NAMES = ("Fade in from", "Full from", "Full to", "Fade out to")


class BandsPage(Page):
    """Three bands at a time over their histograms, and the numbers of the chosen one."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.active = "hue"
        self._presets_row()
        self.editors: dict[str, BandEditor] = {}
        self.sets = QStackedWidget()
        self.set_buttons = []
        group = QButtonGroup(self)
        for number, (name, members) in enumerate((("H S L", BAND_NAMES[:3]), ("R G B", BAND_NAMES[3:]))):
            button = QPushButton(name)
            button.setCheckable(True)
            button.setChecked(number == 0)
            button.clicked.connect(lambda _, number=number: self.show_set(number))
            group.addButton(button)
            self.set_buttons.append(button)
            box = QWidget()
            column = QVBoxLayout(box)
            column.setContentsMargins(0, 0, 0, 0)
            column.setSpacing(3)
            for measure in members:
                editor = BandEditor(measure)
                editor.edited.connect(lambda band, what, measure=measure: self._edit(measure, band, what))
                editor.settled.connect(session.end_drag)
                editor.chosen.connect(lambda measure=measure: self.choose(measure))
                column.addWidget(editor)
                self.editors[measure] = editor
            self.sets.addWidget(box)
        self.column.addWidget(row_of(*self.set_buttons))
        self.column.addWidget(self.sets)
        self._details()
        self._luminance()
        self.column.addStretch(1)
        session.rendered.connect(self._histograms)
        session.pointed.connect(self._point)
        self.follow()

    def _presets_row(self) -> None:
        self.preset = QComboBox()
        self.preset.setAccessibleName("Presets")
        self.preset.setToolTip("A preset replaces the pick and the bands of this sieve")
        self.preset.activated.connect(self._apply)
        menu = QPushButton("Keep…")
        menu.setToolTip("Keep this pick and these bands as a preset of your own")
        menu.clicked.connect(self._keep)
        self.keep_button = menu
        load, save = QPushButton("Import…"), QPushButton("Export…")
        load.clicked.connect(self._import)
        save.clicked.connect(self._export)
        self.column.addWidget(self.preset)
        self.from_samples = QPushButton("Set from samples")
        self.from_samples.setToolTip("Bands round the kept samples; take more and set again to widen them")
        self.from_samples.clicked.connect(self.session.set_bands_from_samples)
        self.column.addWidget(row_of(menu, load, save))
        self.column.addWidget(self.from_samples)
        self.fill_presets()

    def fill_presets(self) -> None:
        """List the presets that ship and a person's own."""
        with QSignalBlocker(self.preset):
            self.preset.clear()
            self.preset.addItem("Presets…")
            self._listed = [*presets.SHIPPED, *presets.own()]
            for preset in self._listed:
                self.preset.addItem(swatch(preset.swatch), preset.name)

    def _apply(self, index: int) -> None:
        if index > 0:
            self.session.apply_preset(self._listed[index - 1])
        self.preset.setCurrentIndex(0)

    def _keep(self) -> None:
        name, agreed = QInputDialog.getText(self, "Keep as a preset", "Name")
        if agreed and name.strip():
            self.session.keep_preset(name.strip())
            self.fill_presets()

    def _import(self) -> None:
        name, _ = QFileDialog.getOpenFileName(self, "Import a preset", "", "Presets (*.json)")
        if name:
            self.import_preset(pathlib.Path(name))

    def import_preset(self, path: pathlib.Path) -> None:
        """Take a preset file into a person's own."""
        try:
            presets.keep(presets.read(path))
        except (Trouble, OSError) as trouble:
            self.session.trouble.emit(str(trouble))
        self.fill_presets()

    def _export(self) -> None:
        name, _ = QFileDialog.getSaveFileName(self, "Export as a preset", f"{self.session.sieve.name}.json", "Presets (*.json)")
        if name:
            self.export_preset(pathlib.Path(name))

    def export_preset(self, path: pathlib.Path) -> None:
        """Write this pick and these bands as a preset file."""
        try:
            presets.write(self.session.preset_from_here(path.stem), path)
        except Trouble as trouble:
            self.session.trouble.emit(str(trouble))

    def _details(self) -> None:
        self.title = self.heading("Hue band")
        self.on, self.inverted = QCheckBox("On"), QCheckBox("Inverted")
        self.on.toggled.connect(lambda on: self._change("on or off", on=on))
        self.inverted.toggled.connect(lambda on: self._change("inverted", on=True, inverted=on))
        self.full = QPushButton("Full range")
        self.full.clicked.connect(lambda: self.editors[self.active].reset())
        self.column.addWidget(row_of(self.on, self.inverted, self.full))
        self.corners = []
        for index, name in enumerate(CORNER_NAMES):
            number = Number(name, -360, 720, 0, 1, "", 1)
            number.moved.connect(lambda value, index=index: self._corner(index, value))
            number.settled.connect(self.session.end_drag)
            self.corners.append(number)
            self.column.addWidget(number)
        self.shape = QComboBox()
        self.shape.addItems([shape.capitalize() for shape in SHAPES])
        self.shape.setAccessibleName("Falloff shape")
        self.shape.setToolTip("Shape of the falloff")
        self.shape.activated.connect(lambda index: self._change("falloff shape", shape=SHAPES[index]))
        self.bend = Number("Bend", -1, 1, 0, 0.05, "", 2)
        self.bend.moved.connect(lambda value: self._change("falloff bend", bend=value))
        self.column.addWidget(row_of(self.shape, self.bend))

    def _luminance(self) -> None:
        self.tones = QWidget()
        column = QVBoxLayout(self.tones)
        column.setContentsMargins(0, 4, 0, 0)
        column.setSpacing(5)
        self.softness = Number("Softness", 0, 100, 50, 1, "%")
        self.softness.moved.connect(lambda _: self._start(self._tonal_part))
        self._tonal_part = ""
        self.tonal = {}
        for part in ("shadows", "midtones", "highlights"):
            button = QPushButton(part.capitalize())
            button.clicked.connect(lambda _, part=part: self._start(part))
            self.tonal[part] = button
        column.addWidget(row_of(*self.tonal.values()))
        column.addWidget(self.softness)
        self.ramp, self.inverse = QCheckBox("Ramp instead"), QCheckBox("Inverse")
        self.ramp.toggled.connect(lambda on: self._ramp(on=on))
        self.inverse.toggled.connect(lambda on: self._ramp(inverse=on))
        column.addWidget(row_of(self.ramp, self.inverse))
        self.black, self.white = Number("Black point", 0, 100, 0, 1, "L*"), Number("White point", 0, 100, 100, 1, "L*")
        self.black.moved.connect(lambda value: self._ramp(black=value))
        self.white.moved.connect(lambda value: self._ramp(white=value))
        for number in (self.black, self.white):
            number.settled.connect(self.session.end_drag)
        column.addWidget(row_of(self.black, self.white))
        self.column.addWidget(self.tones)

    def _start(self, part: str) -> None:
        self._tonal_part = part
        if part:
            self.session.set_tonal(part, self.softness.value)

    # Editing

    def _edit(self, measure: str, band: Band, what: str) -> None:
        self.session.edit_sieve(lambda s: s.but(bands=s.bands.but(**{measure: band})), what, group=what)

    def _change(self, what: str, **changes: object) -> None:
        band = getattr(self.session.sieve.bands, self.active)
        self._edit(self.active, band.but(**changes), f"{self.active.capitalize()} band {what}")

    def _corner(self, index: int, value: float) -> None:
        corners = list(getattr(self.session.sieve.bands, self.active).corners)
        corners[index] = value
        for k in range(index, 3):
            corners[k + 1] = max(corners[k + 1], corners[k])
        for k in range(index, 0, -1):
            corners[k - 1] = min(corners[k - 1], corners[k])
        self._change(CORNER_NAMES[index].lower(), on=True, corners=tuple(corners))

    def _ramp(self, **changes: object) -> None:
        self.session.edit_sieve(
            lambda s: s.but(bands=s.bands.but(ramp=s.bands.ramp.but(**changes))), "Luminance ramp", group="Luminance ramp"
        )

    # Following

    def choose(self, measure: str) -> None:
        """Show the numbers of this band."""
        self.active = measure
        self.follow()

    def show_set(self, number: int) -> None:
        """Show the three perceptual bands (0) or the three channels (1)."""
        self.sets.setCurrentIndex(number)
        self.set_buttons[number].setChecked(True)
        self.choose(BAND_NAMES[3 * number])

    def _histograms(self, result: Rendered) -> None:
        counted = result.statistics
        for measure in BAND_NAMES[:3]:
            self.editors[measure].show_histogram(getattr(counted, measure))
        for measure, counts in zip(BAND_NAMES[3:], counted.levels, strict=True):
            self.editors[measure].show_histogram(counts)

    def _point(self, measures: dict[str, float] | None) -> None:
        for measure, editor in self.editors.items():
            editor.show_pointer(measures[measure] if measures else None)

    def follow(self) -> None:
        super().follow()
        sieve: Sieve = self.session.sieve
        bands: Bands = sieve.bands
        for measure, editor in self.editors.items():
            editor.show_band(getattr(bands, measure))
        band: Band = getattr(bands, self.active)
        low, high = RANGES[self.active]
        self.title.setText(f"{self.active.capitalize()} band")
        for number, corner, default in zip(self.corners, band.corners, (low, low, high, high), strict=True):
            number.low, number.high = (low - 360, high + 360) if self.active == "hue" else (low, high)
            number.start = default
            number.show_value(corner)
            number.update()
        ramp: Ramp = bands.ramp
        for box, value in ((self.on, band.on), (self.inverted, band.inverted), (self.ramp, ramp.on), (self.inverse, ramp.inverse)):
            with QSignalBlocker(box):
                box.setChecked(value)
        self.shape.setCurrentIndex(SHAPES.index(band.shape))
        self.bend.show_value(band.bend)
        self.bend.setEnabled(band.shape == "bend")
        self.black.show_value(ramp.black)
        self.white.show_value(ramp.white)
        self.tones.setVisible(self.active == "luminance")
        self.from_samples.setEnabled(any(sample.role == "keep" for sample in sieve.pick.samples))
