"""The list of samples, and how samples are called."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np
from PyQt6.QtCore import QEvent, QSignalBlocker, Qt, QTimer
from PyQt6.QtGui import QIcon, QKeyEvent
from PyQt6.QtWidgets import QListWidget

from ...core.colour.measures import one_hue_saturation_luminance
from ...language import decimals, named, translator
from ...names import DropRule
from ...project.model import Pick, Sample
from ..widgets.rows import SOON, ids_of, rows_for, set_icon, tick
from ..widgets.swatch import swatch

translate = translator("pages")


RULE_WORDS: dict[DropRule, str] = {
    "nearer": translate("Drop: the nearest sample wins"),
    "tolerance": translate("Drop: all within tolerance"),
}
MEASURE_WORDS = {
    "original": translate("Original"),
    "result": translate("Result so far"),
    "layer": translate("Another picture…"),
}


#: Least and most rows that the list shows at once; between them it is as high as its samples.
LEAST_ROWS, MOST_ROWS = 2, 7


class SampleList(QListWidget):
    """The samples; Delete takes the chosen ones out.

    ``remove`` does that; ``left`` is called when the pointer leaves the list.
    """

    def __init__(self, remove: Callable[[], object], left: Callable[[], object]) -> None:
        super().__init__()
        self._remove, self._left = remove, left
        self.setMouseTracking(True)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self._swatches: dict[tuple[float, float, float], QIcon] = {}
        self._wanted: tuple[Pick, tuple[str, ...]] = (Pick(), ())
        self._soon = QTimer(self)
        self._soon.setSingleShot(True)
        self._soon.setInterval(SOON)
        self._soon.timeout.connect(self._show)

    def show_samples(self, pick: Pick, chosen: tuple[str, ...], dragging: bool) -> None:
        """Show the samples of a pick, some of them chosen; no signal. While something is dragged
        their words follow a few times a second: whatever one of them says, a list lays out all of
        its rows anew.
        """
        self._wanted = pick, chosen
        if dragging and ids_of(self) == [sample.id for sample in pick.samples]:
            if not self._soon.isActive():
                self._soon.start()
        else:
            self._soon.stop()
            self._show()

    def _show(self) -> None:
        pick, chosen = self._wanted
        colours = [sample.colour for sample in pick.samples]
        self._swatches = {
            colour: self._swatches.get(colour) or swatch(colour) for colour in colours
        }
        last = None
        with QSignalBlocker(self):
            for row, sample in zip(
                rows_for(self, [sample.id for sample in pick.samples]), pick.samples, strict=True
            ):
                row.setText(in_words(sample, pick))
                set_icon(row, self._swatches[sample.colour])
                tick(row, sample.on)
                row.setSelected(sample.id in chosen)
                row.setToolTip(row.text())
                if sample.id in chosen or (not chosen and sample is pick.samples[-1]):
                    last = row
            rows = min(max(len(pick.samples), LEAST_ROWS), MOST_ROWS)
            high = max(self.sizeHintForRow(0), self.fontMetrics().height() + 4)
            self.setFixedHeight(rows * high + 2 * self.frameWidth() + 4)
        if last is not None:
            self.scrollToItem(last)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is not None and event.key() in (Qt.Key.Key_Delete, Qt.Key.Key_Backspace):
            self._remove()
        else:
            super().keyPressEvent(event)

    def leaveEvent(self, event: QEvent | None) -> None:
        self._left()
        super().leaveEvent(event)


def in_words(sample: Sample, pick: Pick) -> str:
    """Return a sample's text in the list: its name, or its role, reach, colour and tolerance."""
    if sample.name:
        return sample.name
    hue, saturation, luminance = one_hue_saturation_luminance(np.array(sample.colour))
    name = named(pick.name_of(sample.id))
    here = translate(", here only") if sample.reach == "here" else ""
    return decimals(
        f"{name}{here}   H {hue:.0f}° S {saturation:.0f} L {luminance:.0f}  ±{sample.tolerance:.1f}"
    )


def whose(ids: tuple[str, ...], pick: Pick) -> str:
    """Return which samples are meant."""
    if len(ids) == len(pick.samples) > 1:
        return translate("of all {count} samples", count=len(ids))
    if len(ids) > 1:
        return translate("of {count} samples", count=len(ids))
    return translate("of {name}", name=pick.name_of(ids[0]))
