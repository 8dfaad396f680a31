"""Find anything by a part of its name, and do it or go there with Enter."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QDialog, QLineEdit, QListWidget, QListWidgetItem, QVBoxLayout, QWidget

from ...language import translator

translate = translator("dialogs")


@dataclass(frozen=True)
class Findable:
    """Something that can be found.

    Attributes
    ----------
    place, name : where it stands, and its name there. does : what Enter does.
    hint : shown behind it: a key, or a value. sets : gives it a typed number; None where it is
        no number.
    """

    place: str
    name: str
    does: Callable[[], object]
    hint: str = ""
    sets: Callable[[float], object] | None = None

    def rank(self, words: Sequence[str]) -> int | None:
        """Return how well it fits words in lower case, the best 0; None where one is missing."""
        name, whole = self.name.lower(), f"{self.place} {self.name}".lower()
        if not all(word in whole for word in words):
            return None
        asked = " ".join(words)
        return 0 if name == asked else 1 if name.startswith(asked) else 2 if asked in name else 3


def number_in(word: str) -> float | None:
    """The number that a word is, with a decimal point or comma; None for any other word."""
    try:
        return float(word.replace(",", ".")) if word[-1].isdigit() else None
    except ValueError:
        return None


class Finder(QDialog):
    """A field, and below it all that fits what is typed, the best first."""

    def __init__(self, parent: QWidget, all_of_them: Sequence[Findable]) -> None:
        super().__init__(parent)
        self.setWindowTitle(translate("Find"))
        self.resize(520, 460)
        self._all = all_of_them
        self._shown: list[tuple[Findable, float | None]] = []
        column = QVBoxLayout(self)
        self.search = QLineEdit()
        self.search.setObjectName("search")
        self.search.setPlaceholderText(
            translate("A command, number, sieve, picture …; “hue 40” sets a number")
        )
        self.search.textChanged.connect(self._narrow)
        self.list = QListWidget()
        self.list.setAccessibleName(translate("What was found"))
        self.list.itemActivated.connect(lambda _: self._do())
        column.addWidget(self.search)
        column.addWidget(self.list)
        self.search.setFocus()
        self._narrow("")

    def _narrow(self, text: str) -> None:
        words = text.lower().split()
        value = number_in(words[-1]) if len(words) > 1 else None
        found: list[tuple[int, Findable, float | None]] = []
        for one in self._all:
            if value is not None and one.sets is not None:
                rank = one.rank(words[:-1])
                if rank is not None:
                    found.append((rank, one, value))
                    continue
            rank = one.rank(words)
            if rank is not None:
                found.append((rank, one, None))
        found.sort(key=lambda row: row[0])
        self._shown = [(one, value) for _, one, value in found]
        self.list.clear()
        for one, value in self._shown:
            hint = one.hint if value is None else f"→ {value:g}"
            self.list.addItem(
                QListWidgetItem(f"{one.place}: {one.name}" + (f"      {hint}" if hint else ""))
            )
        self.list.setCurrentRow(0)

    def _do(self) -> None:
        row = self.list.currentRow()
        if not 0 <= row < len(self._shown):
            return
        self.accept()
        one, value = self._shown[row]
        if value is not None and one.sets is not None:
            one.sets(value)
        else:
            one.does()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None:
            return
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self._do()
        elif event.key() in (Qt.Key.Key_Up, Qt.Key.Key_Down) and self._shown:
            by = 1 if event.key() == Qt.Key.Key_Down else -1
            self.list.setCurrentRow((self.list.currentRow() + by) % len(self._shown))
        else:
            super().keyPressEvent(event)
