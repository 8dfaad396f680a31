"""The choice of the light that a pick is measured in."""

from __future__ import annotations

import contextlib

from PyQt6.QtWidgets import QComboBox, QInputDialog

from ...core.pick.measured import SAME_LIGHT
from ...language import decimals, translator
from ...workspace.document.work import Work
from ...workspace.speech import Speech

translate = translator("pages")

#: What the first two entries stand for; the third is for gains by hand.
KINDS = ("auto", "off")


class LightChoice(QComboBox):
    """Light found, left alone, or three gains by hand."""

    def __init__(self, work: Work, speech: Speech) -> None:
        super().__init__()
        self._work, self._speech = work, speech
        self.addItems([translate("Light: found"), translate("Light: as it is"), ""])
        self.setAccessibleName(translate("Light"))
        self.setToolTip(
            translate(
                "On pictures in other light than the one picked on, that light is found and "
                "divided out before measuring",
            )
        )
        self.activated.connect(self._choose)

    def follow(self) -> None:
        """Show the light of the sieve being worked on."""
        light = self._work.sieve.pick.light
        held = "" if isinstance(light, str) else " ".join(f"{gain:.2f}" for gain in light)
        words = decimals(held) or translate("by hand…")
        self.setItemText(2, translate("Light: {gains}", gains=words))
        self.setCurrentIndex(KINDS.index(light) if isinstance(light, str) else 2)

    def _choose(self, index: int) -> None:
        light = KINDS[index] if index < len(KINDS) else self._asked()
        if light is None:
            self.follow()
        else:
            self._work.edit_sieve(lambda s: s.but(pick=s.pick.but(light=light)), translate("Light"))

    def _asked(self) -> tuple[float, ...] | None:
        """Ask for the gains of the light; None for none, or where they are no gains."""
        light = self._work.sieve.pick.light
        held = SAME_LIGHT if isinstance(light, str) else light
        text, done = QInputDialog.getText(
            self,
            translate("Light"),
            translate("Red, green and blue, times the light of the picture picked on:"),
            text=" ".join(f"{gain:g}" for gain in held),
        )
        if not done:
            return None
        with contextlib.suppress(ValueError):
            gains = tuple(float(word.replace(",", ".")) for word in text.split())
            if len(gains) == 3 and all(0.01 <= gain <= 100 for gain in gains):
                return gains
        self._speech.trouble.emit(
            translate("Write three numbers of 0.01 to 100 with spaces between them.")
        )
        return None
