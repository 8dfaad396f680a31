"""A format found by the name that people say: MOV, ProRes, 16 bit."""

from __future__ import annotations

import pathlib
from collections.abc import Callable, Sequence

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtWidgets import QCompleter, QLineEdit

from ...language import named, translator
from ...media import formats

translate = translator("dialogs")


#: How the depths of samples are called.
DEPTHS = {
    "uint8": "8 bit",
    "uint16": "16 bit",
    "half": translate("Half float"),
    "float": translate("Float"),
}
#: What formats and codecs are called, and of each the contents, the ending and the depth or codec.
Called = dict[str, tuple[str, str, str]]
#: Words that people say for some contents, besides their own names.
ALSO = {"mask": "matte", "every mask": "mattes", "lookup table": "LUT 3D"}


def called(known: Sequence[tuple[str, str]], what: str, said: str = "") -> Called:
    """Return the names of some formats (name and ending) of contents ``what`` with each depth or
    codec that it can hold; the contents are ``said`` before, where that is given.
    """
    found: Called = {}
    also = f" {ALSO[what]}" if what in ALSO else ""
    before = f"{named(said)}{also}: " if said else ""
    for name, ending in known:
        form = formats.format_of(pathlib.Path(f"a{ending}"))
        short = ending.lstrip(".#").upper()
        for kind in form.writes if form is not None else ("",):
            held = f"{DEPTHS.get(kind, kind)}, " if kind else ""
            found[f"{before}{held}{name} {ending} {short}"] = (what, ending, kind)
    return found


class FormatFinder(QLineEdit):
    """Typing offers what is called so; Return takes the first. `chosen` comes with the contents,
    the ending, and the depth or codec.
    """

    chosen = pyqtSignal(str, str, str)

    def __init__(self, every: Callable[[], Called], depth: Callable[[], str]) -> None:
        """``every`` gives what can be chosen now, ``depth`` the depth or codec that is chosen."""
        super().__init__()
        self._every, self._depth = every, depth
        self.setObjectName("search")
        self.setPlaceholderText(translate("Find a format: MOV, ProRes, 16 bit, cube, matte…"))
        self.setAccessibleName(translate("Find a format"))
        self.returnPressed.connect(lambda: self._take(self.text()))

    def offer(self) -> None:
        """Offer what can be chosen now."""
        completer = QCompleter(list(self._every()), self)
        completer.setFilterMode(Qt.MatchFlag.MatchContains)
        completer.setCaseSensitivity(Qt.CaseSensitivity.CaseInsensitive)
        completer.activated[str].connect(self._take)
        self.setCompleter(completer)

    def _take(self, words: str) -> None:
        found = [
            kinds
            for name, kinds in self._every().items()
            if words.strip() and words.strip().lower() in name.lower()
        ]
        if found:
            # The depth that is chosen stays where what was typed allows it.
            self.chosen.emit(
                *next((kinds for kinds in found if kinds[2] == self._depth()), found[0])
            )
            self.clear()
