"""What the pages share: a column of fields that follow the session."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QShowEvent
from PyQt6.QtWidgets import QHBoxLayout, QLabel, QScrollArea, QVBoxLayout, QWidget

from ...project.model import Sieve
from ..number import Number
from ..session import Session


class Page(QScrollArea):
    """A column of fields for one step of the work."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self._bound: list[tuple[Number, Callable[[Sieve], float]]] = []
        self.setWidgetResizable(True)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        inner = QWidget()
        inner.setObjectName("panel")
        self.column = QVBoxLayout(inner)
        self.column.setContentsMargins(10, 8, 10, 8)
        self.column.setSpacing(5)
        self.setWidget(inner)
        session.project_changed.connect(self._something_changed)
        session.selection_changed.connect(self._something_changed)

    def heading(self, text: str) -> QLabel:
        label = QLabel(text)
        label.setObjectName("heading")
        self.column.addWidget(label)
        return label

    def bind(self, number: Number, read: Callable[[Sieve], float], write: Callable[[Sieve, float], Sieve], what: str) -> Number:
        """Put a number on the page that shows and changes something of the current sieve."""
        number.moved.connect(lambda value: self.session.edit_sieve(lambda sieve: write(sieve, value), what, group=what))
        number.settled.connect(self.session.end_drag)
        self._bound.append((number, read))
        self.column.addWidget(number)
        return number

    def field(self, part: str, name: str, number: Number, what: str) -> Number:
        """A number bound to ``sieve.part.name``."""

        def write(sieve: Sieve, value: float) -> Sieve:
            changes: dict[str, Any] = {part: getattr(sieve, part).but(**{name: value})}
            return sieve.but(**changes)

        return self.bind(number, lambda sieve: float(getattr(getattr(sieve, part), name)), write, what)

    def _something_changed(self) -> None:
        """Follow at once when seen; a page that is not seen catches up when it is shown."""
        if self.isVisible():
            self.follow()

    def showEvent(self, event: QShowEvent | None) -> None:
        self.follow()
        super().showEvent(event)

    def follow(self) -> None:
        """Show what the session holds now."""
        for number, read in self._bound:
            number.show_value(read(self.session.sieve))


def row_of(*widgets: QWidget) -> QWidget:
    """Widgets side by side."""
    box = QWidget()
    row = QHBoxLayout(box)
    row.setContentsMargins(0, 0, 0, 0)
    row.setSpacing(4)
    for widget in widgets:
        row.addWidget(widget)
    return box
