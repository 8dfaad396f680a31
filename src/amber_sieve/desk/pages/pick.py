"""Pick: samples, and how near to them counts."""

from __future__ import annotations

import numpy as np
from PyQt6.QtCore import Qt
from PyQt6.QtGui import QColor, QIcon, QPixmap
from PyQt6.QtWidgets import QButtonGroup, QCheckBox, QHBoxLayout, QLabel, QListWidget, QListWidgetItem, QPushButton, QWidget

from ...core.colour.measures import one_hue_saturation_luminance
from ...core.colour.transfer import encode
from ...project.model import Sample, Sieve
from ..number import Number
from ..session import Session
from .page import Page


def swatch(colour: tuple[float, float, float], width: int = 18, height: int = 18) -> QIcon:
    """A small square of a linear colour."""
    pixmap = QPixmap(width, height)
    pixmap.fill(QColor(*(int(v) for v in np.clip(np.rint(encode(np.array(colour, np.float32)) * 255), 0, 255))))
    return QIcon(pixmap)


def _row(*widgets: QWidget) -> QWidget:
    box = QWidget()
    row = QHBoxLayout(box)
    row.setContentsMargins(0, 0, 0, 0)
    row.setSpacing(4)
    for widget in widgets:
        row.addWidget(widget)
    return box


class PickPage(Page):
    """The samples of the current sieve and what they are compared by."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.modes = {}
        group = QButtonGroup(self)
        for name, mode, tip in (
            ("Start over", "", "A click replaces all samples"),
            ("Keep", "keep", "A click adds a keep sample (Shift+click)"),
            ("Drop", "drop", "A click adds a drop sample (Ctrl+click)"),
        ):
            button = QPushButton(name)
            button.setCheckable(True)
            button.setChecked(not mode)
            button.setToolTip(tip)
            button.clicked.connect(lambda _, mode=mode: session.setProperty("click", mode))
            group.addButton(button)
            self.modes[mode] = button
        self.heading("A click on the picture")
        self.column.addWidget(_row(*self.modes.values()))
        self.samples = QListWidget()
        self.samples.setAccessibleName("Samples")
        self.samples.setFixedHeight(132)
        self.heading("Samples")
        self.column.addWidget(self.samples)
        self.remove = QPushButton("Remove")
        self.remove.setToolTip("Take the chosen sample out (Delete)")
        self.remove.clicked.connect(self._remove)
        self.clear = QPushButton("Clear")
        self.clear.clicked.connect(lambda: session.edit_sieve(lambda s: s.but(pick=s.pick.but(samples=())), "Clear samples"))
        self.column.addWidget(_row(self.remove, self.clear))
        self.heading("Compare by")
        self.by = {}
        kinds = QButtonGroup(self)
        for name, tip in (("surface", "The same surface, however it is lit"), ("colour", "Exactly this colour")):
            button = QPushButton(name.capitalize())
            button.setCheckable(True)
            button.setToolTip(tip)
            button.clicked.connect(lambda _, name=name: self._compare(name))
            kinds.addButton(button)
            self.by[name] = button
        self.column.addWidget(_row(*self.by.values()))
        start = Sample.model_fields

        self.tolerance = self._of_all("tolerance", Number("Tolerance", 0, 60, start["tolerance"].default, 0.5, "", 1))
        self.falloff = self._of_all("falloff", Number("Falloff", 0, 60, start["falloff"].default, 0.5, "", 1))
        pick = type(session.sieve.pick)()
        self.shading = self.field("pick", "shading", Number("Shading", 0, 100, pick.shading, 1, "%"), "Shading")
        self.gloss = self.field("pick", "gloss", Number("Gloss", 0, 100, pick.gloss, 1, "%"), "Gloss")
        self.invert = QCheckBox("Invert the mask")
        self.invert.toggled.connect(self._invert)
        self.column.addWidget(self.invert)
        self.coverage = QLabel("")
        self.coverage.setObjectName("dim")
        self.column.addWidget(self.coverage)
        self.column.addStretch(1)
        session.rendered.connect(self._cover)
        self.follow()

    def _of_all(self, name: str, number: Number) -> Number:
        """A number that shows a field of the last sample and changes it in all of them."""

        def write(sieve: Sieve, value: float) -> Sieve:
            changes: dict[str, object] = {name: value}
            return sieve.but(pick=sieve.pick.but(samples=tuple(sample.but(**changes) for sample in sieve.pick.samples)))

        def read(sieve: Sieve) -> float:
            return float(getattr(sieve.pick.samples[-1], name)) if sieve.pick.samples else number.start

        return self.bind(number, read, write, number.name)

    def _compare(self, name: str) -> None:
        self.session.edit_samples({"compare": name}, f"Compare by {name}")
        self.follow()

    def _remove(self) -> None:
        row = self.samples.currentRow()
        kept = tuple(s for i, s in enumerate(self.session.sieve.pick.samples) if i != row)
        self.session.edit_sieve(lambda s: s.but(pick=s.pick.but(samples=kept)), "Remove sample")

    def _invert(self, on: bool) -> None:
        self.session.edit_sieve(lambda s: s.but(invert=on), "Invert the mask")

    def _cover(self, result) -> None:  # type: ignore[no-untyped-def]
        self.coverage.setText(f"The mask covers {100 * result.coverage:.1f} % of what is shown")

    def follow(self) -> None:
        super().follow()
        sieve: Sieve = self.session.sieve
        row = self.samples.currentRow()
        self.samples.clear()
        for sample in sieve.pick.samples:
            hue, saturation, luminance = one_hue_saturation_luminance(np.array(sample.colour))
            item = QListWidgetItem(
                swatch(sample.colour), f"{sample.role.capitalize()}   H {hue:.0f}°  S {saturation:.0f} %  L {luminance:.0f}"
            )
            item.setData(Qt.ItemDataRole.UserRole, sample.id)
            self.samples.addItem(item)
        self.samples.setCurrentRow(min(max(row, 0), len(sieve.pick.samples) - 1))
        for widget in (self.remove, self.clear, *self.by.values(), self.tolerance, self.falloff):
            widget.setEnabled(bool(sieve.pick.samples))
        chosen = sieve.pick.samples[-1].compare if sieve.pick.samples else "surface"
        for name, button in self.by.items():
            button.setChecked(name == chosen)
        for number in (self.shading, self.gloss):
            number.setEnabled(chosen == "surface")
        self.invert.blockSignals(True)
        self.invert.setChecked(sieve.invert)
        self.invert.blockSignals(False)
