"""The line that says what lies under the pointer, and what a click there would come to."""

from __future__ import annotations

from PyQt6.QtWidgets import QLabel, QSizePolicy

from ...language import decimals, mid_sentence, named, translator
from ...live.clicking import Clicked
from ...workspace.clip.ahead import Foreseen
from ...workspace.viewing.readout import Pointed
from ...workspace.workspace import Workspace

translate = translator("canvas")


def changed_in_words(clicked: Clicked) -> str:
    """Return the shares of the picture that a click adds and takes, in words."""
    return decimals(f"+{100 * clicked.added:.1f} % \u2212{100 * clicked.removed:.1f} %")


class ReadoutLine(QLabel):
    """Position, levels, hue, saturation, luminance, mask, and the sample that decided."""

    def __init__(self, workspace: Workspace) -> None:
        super().__init__(" ")
        self.setObjectName("dim")
        self.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Fixed)
        #: Whether the pointer is over the picture, and what was said to lie under it last.
        self.hovers = False
        self._pointed: Pointed | None = None
        self._foreseen = ""
        workspace.readout.pointed.connect(self._read_out)
        workspace.ahead.foreseen.connect(self._foresee)

    def forget(self) -> None:
        """Another picture has come."""
        self.hovers = False
        self._read_out(None)

    def _foresee(self, found: Foreseen | None) -> None:
        self._foreseen = ""
        if found is not None:
            sample = found.came.sample
            what = (
                translate("A click here would be a new pick")
                if found.place.fresh
                else translate(
                    "A click here would {role}",
                    role=mid_sentence(named(found.place.role)),
                )
            )
            reach = (
                translate("everywhere") if sample.reach == "everywhere" else translate("only here")
            )
            self._foreseen = translate(
                "{what}: tolerance {tolerance:g}, {reach}, {why}",
                what=what,
                tolerance=sample.tolerance,
                reach=reach,
                why=found.came.why or changed_in_words(found.came),
            )
        self._read_out(self._pointed)

    def _read_out(self, pointed: Pointed | None) -> None:
        self._pointed = pointed
        if self._foreseen:
            self.setText(self._foreseen)
            return
        if pointed is None:
            self.setText(" ")
            return
        value = {name: decimals(f"{number:.0f}") for name, number in pointed.measures.items()}
        levels = translate(
            "levels {red} {green} {blue}",
            red=value["red"],
            green=value["green"],
            blue=value["blue"],
        )
        measures = f"H {value['hue']}°  S {value['saturation']} %  L {value['luminance']}"
        mask = (
            translate("mask {masked:.0f} %", masked=100 * pointed.masked)
            if pointed.masked is not None
            else translate("mask -")
        )
        parts = (
            f"{pointed.x}, {pointed.y}",
            levels,
            measures,
            mask,
            translate("by {decided}", decided=pointed.decided) if pointed.decided else "",
        )
        self.setText("     ".join(part for part in parts if part))
