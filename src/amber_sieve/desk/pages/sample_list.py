"""The list of samples, and how samples are called."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np
from PyQt6.QtCore import QEvent, Qt
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QListWidget

from ...core.colour.measures import one_hue_saturation_luminance
from ...language import decimals, named, translate
from ...names import DropRule
from ...project.model import Pick, Sample

RULE_WORDS: dict[DropRule, str] = {
    "nearer": translate("pages", "Drop: the nearest sample wins"),
    "tolerance": translate("pages", "Drop: all within tolerance"),
}
MEASURE_WORDS = {
    "original": translate("pages", "Original"),
    "result": translate("pages", "Result so far"),
    "layer": translate("pages", "Another picture…"),
}


class SampleList(QListWidget):
    """The samples; Delete takes the chosen ones out.

    ``remove`` does that; ``left`` is called when the pointer leaves the list.
    """

    def __init__(self, remove: Callable[[], object], left: Callable[[], object]) -> None:
        super().__init__()
        self._remove, self._left = remove, left
        self.setMouseTracking(True)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is not None and event.key() in (Qt.Key.Key_Delete, Qt.Key.Key_Backspace):
            self._remove()
        else:
            super().keyPressEvent(event)

    def leaveEvent(self, event: QEvent | None) -> None:
        self._left()
        super().leaveEvent(event)


def in_words(sample: Sample, pick: Pick) -> str:
    """What a sample is called in the list: its name, or its role, reach, colour and tolerance."""
    if sample.name:
        return sample.name
    hue, saturation, luminance = one_hue_saturation_luminance(np.array(sample.colour))
    name = named(pick.name_of(sample.id))
    here = translate("pages", ", here only") if sample.reach == "here" else ""
    return decimals(f"{name}{here}   H {hue:.0f}° S {saturation:.0f} L {luminance:.0f}  ±{sample.tolerance:.1f}")


def whose(ids: tuple[str, ...], pick: Pick) -> str:
    """Which samples are meant."""
    if len(ids) == len(pick.samples) > 1:
        return translate("pages", "of all {count} samples", count=len(ids))
    if len(ids) > 1:
        return translate("pages", "of {count} samples", count=len(ids))
    return translate("pages", "of {name}", name=pick.name_of(ids[0]))
