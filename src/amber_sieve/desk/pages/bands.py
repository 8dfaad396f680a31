"""Bands: intervals of hue, saturation, luminance and single channels."""

from __future__ import annotations

import pathlib

import numpy as np
from PyQt6.QtCore import QSignalBlocker, QTimer
from PyQt6.QtWidgets import (
    QButtonGroup,
    QCheckBox,
    QComboBox,
    QFileDialog,
    QInputDialog,
    QPushButton,
    QStackedWidget,
    QVBoxLayout,
    QWidget,
)

from ...core.bands.interval import Interval, shares_by_corner, with_corner
from ...language import named, translator
from ...live.preview import Rendered
from ...names import BANDS, CHANNEL_BANDS, MEASURES, SEEN_BANDS, SHAPES
from ...project import presets
from ...project.fields import plain_spec, spec_of
from ...project.model import Band, Bands, Ramp, Sieve
from ...workspace.viewing.readout import Pointed
from ...workspace.workspace import Workspace
from ..widgets.band_editor import BandEditor
from ..widgets.number import Number
from ..widgets.rows import SOON
from ..widgets.swatch import swatch
from .page import Page, row_of

translate = translator("pages")


#: Numbers that are no fields of the model: one corner of four, whose range follows its band, and
#: what sets several at once.
CORNER = plain_spec(
    "corner",
    translate("Corner"),
    0,
    -360,
    720,
    decimals=1,
    help=translate("Corner"),
)
SOFTNESS = plain_spec(
    "softness",
    translate("Softness"),
    50,
    0,
    100,
    unit="%",
    help=translate("How softly shadows, midtones and highlights meet"),
)
CORNER_NAMES = (
    translate("Fade in from"),
    translate("Full from"),
    translate("Full to"),
    translate("Fade out to"),
)


#: Places of a corner at which it is foretold how much the band would take.
PLACES = 24


class BandsPage(Page):
    """Three bands at a time over their histograms, and the numbers of the chosen one."""

    def __init__(self, workspace: Workspace) -> None:
        super().__init__(workspace)
        self._presets, self._samples = workspace.presets, workspace.samples
        self.active = "hue"
        self._presets_row()
        self.editors: dict[str, BandEditor] = {}
        self.sets = QStackedWidget()
        self.set_buttons = []
        group = QButtonGroup(self)
        for number, (name, members) in enumerate((("H S L", SEEN_BANDS), ("R G B", CHANNEL_BANDS))):
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
                editor.edited.connect(
                    lambda band, what, measure=measure: self._edit(measure, band, what, group=what)
                )
                editor.settled.connect(workspace.work.end_drag)
                editor.chosen.connect(lambda measure=measure: self.choose(measure))
                column.addWidget(editor, 1)
                self.editors[measure] = editor
            self.sets.addWidget(box)
        self.column.addWidget(row_of(*self.set_buttons))
        self.column.addWidget(self.sets, 1)
        self._details()
        self._luminance()
        self._viewing = workspace.viewing
        workspace.viewing.rendered.connect(self._histograms)
        self._soon = QTimer(self)
        self._soon.setSingleShot(True)
        self._soon.setInterval(SOON)
        self._soon.timeout.connect(self._show_bands)
        workspace.work.stale.connect(self._rested)
        workspace.readout.pointed.connect(self._point)
        self.follow()

    def _presets_row(self) -> None:
        self.group("presets", translate("Presets"))
        self.preset = QComboBox()
        self.preset.setAccessibleName(translate("Presets"))
        self.preset.setToolTip(translate("A preset replaces the pick and the bands of this sieve"))
        self.preset.activated.connect(self._apply)
        self.save_button, load, save = QPushButton(), QPushButton(), QPushButton()
        self.save_button.setText(translate("Save…"))
        self.save_button.setToolTip(
            translate("Save this pick, these bands and this edge as a preset of your own")
        )
        load.setText(translate("Import…"))
        load.setToolTip(translate("Import a preset from a file"))
        save.setText(translate("Export…"))
        save.setToolTip(translate("Export these settings as a preset file"))
        self.save_button.clicked.connect(self._save)
        load.clicked.connect(self._import)
        save.clicked.connect(self._export)
        self.put(self.preset)
        self.from_samples = QPushButton(translate("Set from samples"))
        self.from_samples.setToolTip(
            translate("Bands round the kept samples; take more and set again to widen them")
        )
        self.from_samples.clicked.connect(self._samples.set_bands)
        self.put(row_of(self.save_button, load, save))
        self.ungrouped()
        self.put(self.from_samples)
        self.fill_presets()

    def fill_presets(self) -> None:
        """List the presets that ship and a person's own."""
        with QSignalBlocker(self.preset):
            self.preset.clear()
            self.preset.addItem(translate("Presets…"))
            self._listed = [*presets.SHIPPED, *presets.STORE.all()]
            for preset in self._listed:
                self.preset.addItem(swatch(preset.swatch), preset.name)

    def _apply(self, index: int) -> None:
        if index > 0:
            self._presets.apply(self._listed[index - 1])
        self.preset.setCurrentIndex(0)

    def _save(self) -> None:
        name, agreed = QInputDialog.getText(self, translate("Save as a preset"), translate("Name"))
        if agreed and name.strip():
            self._presets.keep(name.strip())
            self.fill_presets()

    def _import(self) -> None:
        name, _ = QFileDialog.getOpenFileName(
            self, translate("Import a preset"), "", translate("Presets (*.json)")
        )
        if name:
            self._presets.read(pathlib.Path(name))
            self.fill_presets()

    def _export(self) -> None:
        name, _ = QFileDialog.getSaveFileName(
            self,
            translate("Export as a preset"),
            f"{self.work.sieve.name}.json",
            translate("Presets (*.json)"),
        )
        if name:
            self._presets.write(pathlib.Path(name))

    def _details(self) -> None:
        self.title = self.group("corners", translate("Hue band"))
        self.on, self.inverted = (
            QCheckBox(translate("On")),
            QCheckBox(translate("Inverted")),
        )
        self.on.toggled.connect(lambda on: self._change(translate("on or off"), on=on))
        self.inverted.toggled.connect(lambda on: self._change("inverted", on=True, inverted=on))
        self.full = QPushButton(translate("Full range"))
        self.full.clicked.connect(lambda: self.editors[self.active].reset())
        self.put(row_of(self.on, self.inverted, self.full))
        self.corners = []
        for index, name in enumerate(CORNER_NAMES):
            number = Number(CORNER, name)
            number.moved.connect(lambda value, index=index: self._corner(index, value))
            number.settled.connect(self.work.end_drag)
            self.corners.append(number)
            self.put(number)
        self.shape = QComboBox()
        self.shape.addItems([named(shape) for shape in SHAPES])
        self.shape.setAccessibleName(translate("Falloff shape"))
        self.shape.setToolTip(translate("Shape of the falloff"))
        self.shape.activated.connect(
            lambda index: self._change(translate("falloff shape"), shape=SHAPES[index])
        )
        self.bend = Number(spec_of(Band, "bend"))
        self.bend.moved.connect(
            lambda value: self._change(
                translate("falloff bend"), translate("falloff bend"), bend=value
            )
        )
        self.bend.settled.connect(self.work.end_drag)
        self.put(row_of(self.shape, self.bend))

    def _luminance(self) -> None:
        self.tones = QWidget()
        column = QVBoxLayout(self.tones)
        column.setContentsMargins(0, 4, 0, 0)
        column.setSpacing(5)
        self.softness = Number(SOFTNESS)
        self.softness.moved.connect(lambda _: self._start(self._tonal_part))
        self.softness.settled.connect(self.work.end_drag)
        self._tonal_part = ""
        self.tonal = {}
        for part in ("shadows", "midtones", "highlights"):
            button = QPushButton(named(part))
            button.clicked.connect(lambda _, part=part: self._start(part))
            self.tonal[part] = button
        column.addWidget(row_of(*self.tonal.values()))
        column.addWidget(self.softness)
        self.ramp, self.inverse = (
            QCheckBox(translate("Luminance as the mask")),
            QCheckBox(translate("Inverted")),
        )
        self.ramp.toggled.connect(
            lambda on: self.work.set_field("bands.ramp.on", on, translate("Luminance ramp"))
        )
        self.inverse.toggled.connect(
            lambda on: self.work.set_field("bands.ramp.inverse", on, translate("Inverse ramp"))
        )
        column.addWidget(row_of(self.ramp, self.inverse))
        self.black, self.white = (
            self.number(f"bands.ramp.{name}", add=False) for name in ("black", "white")
        )
        column.addWidget(row_of(self.black, self.white))
        self.put(self.tones)

    def _start(self, part: str) -> None:
        self._tonal_part = part
        if part:
            self._samples.set_tonal(part, self.softness.value())

    # Editing

    def _edit(self, measure: str, band: Band, what: str, group: str = "") -> None:
        self.work.set_field(f"bands.{measure}", band, what, group)

    def _change(self, what: str, group: str = "", **changes: object) -> None:
        band = getattr(self.work.sieve.bands, self.active)
        self._edit(
            self.active,
            band.but(**changes),
            translate("{active} band {what}", active=named(self.active), what=what),
            group and f"{self.active} {group}",
        )

    def _corner(self, index: int, value: float) -> None:
        corners = with_corner(
            getattr(self.work.sieve.bands, self.active).corners, index, value, self.active
        )
        self._change(CORNER_NAMES[index].lower(), CORNER_NAMES[index], on=True, corners=corners)

    # Following

    def choose(self, measure: str) -> None:
        """Show the numbers of this band."""
        self.active = measure
        self.follow()
        self._foretell(self._viewing.last)

    def show_set(self, number: int) -> None:
        """Show the three perceptual bands (0) or the three channels (1)."""
        self.sets.setCurrentIndex(number)
        self.set_buttons[number].setChecked(True)
        self.choose(BANDS[3 * number])

    def _histograms(self, result: Rendered) -> None:
        counted = result.statistics
        for measure in SEEN_BANDS:
            self.editors[measure].show_histogram(getattr(counted, measure))
        for measure, counts in zip(CHANNEL_BANDS, counted.levels, strict=True):
            self.editors[measure].show_histogram(counts)

        self._foretell(result)

    def _foretell(self, result: Rendered | None) -> None:
        """Show under each corner how much of the picture the band would take with it elsewhere."""
        if result is None or not self.isVisible() or self.work.dragging:
            return
        counts = {
            **{name: getattr(result.statistics, name) for name in SEEN_BANDS},
            **dict(zip(CHANNEL_BANDS, result.statistics.levels, strict=True)),
        }
        band: Band = getattr(self.work.sieve.bands, self.active)
        interval = Interval(self.active, band.corners, band.inverted)
        for index, number in enumerate(self.corners):
            places = np.linspace(number.soft_low, number.soft_high, PLACES)
            number.set_curve(shares_by_corner(counts[self.active], interval, index, places))

    def _point(self, pointed: Pointed | None) -> None:
        for measure, editor in self.editors.items():
            editor.show_pointer(pointed.measures[measure] if pointed is not None else None)

    def _show_bands(self) -> None:
        self._soon.stop()
        for measure, editor in self.editors.items():
            editor.show_band(getattr(self.work.sieve.bands, measure))

    def _rested(self) -> None:
        """End a drag."""
        if self._soon.isActive() and not self.work.dragging:
            self._show_bands()

    def follow(self) -> None:
        super().follow()
        sieve: Sieve = self.work.sieve
        bands: Bands = sieve.bands
        # To draw one takes as long as a tenth of a step of a drag: while a number or the colour
        # field is dragged they follow now and then.
        if not self.work.dragging or any(editor.held for editor in self.editors.values()):
            self._show_bands()
        elif not self._soon.isActive():
            self._soon.start()
        band: Band = getattr(bands, self.active)
        known = MEASURES[self.active]
        self.title.set_title(translate("{active} band", active=named(self.active)))
        room = known.high if known.wraps else 0
        for number, corner, default in zip(self.corners, band.corners, known.full, strict=True):
            number.set_range(known.low - room, known.high + room, default, known.unit)
            number.show_value(corner)
        ramp: Ramp = bands.ramp
        for box, value in (
            (self.on, band.on),
            (self.inverted, band.inverted),
            (self.ramp, ramp.on),
            (self.inverse, ramp.inverse),
        ):
            with QSignalBlocker(box):
                box.setChecked(value)
        self.shape.setCurrentIndex(SHAPES.index(band.shape))
        self.bend.show_value(band.bend)
        self.bend.setEnabled(band.shape == "bend")
        self.tones.setVisible(self.active == "luminance")
        self.from_samples.setEnabled(any(sample.role == "keep" for sample in sieve.pick.samples))
