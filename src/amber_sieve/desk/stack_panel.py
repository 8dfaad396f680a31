"""The stack: the sieves in the order the picture falls through them."""

from __future__ import annotations

from PyQt6.QtCore import QSignalBlocker, Qt
from PyQt6.QtWidgets import QHBoxLayout, QLabel, QListWidget, QListWidgetItem, QToolButton, QVBoxLayout, QWidget

from .pages.swatch import swatch
from .session import Session


class StackPanel(QWidget):
    """A list of sieves with a swatch and a switch each, and buttons to add, remove and move."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.setObjectName("panel")
        self.session = session
        column = QVBoxLayout(self)
        column.setContentsMargins(8, 6, 8, 8)
        heading = QLabel("Stack")
        heading.setObjectName("heading")
        column.addWidget(heading)
        self.list = QListWidget()
        self.list.setAccessibleName("Stack of sieves")
        self.list.setToolTip("The picture falls through these from top to bottom; the tick switches a sieve, F2 renames it")
        column.addWidget(self.list, 1)
        row = QHBoxLayout()
        row.setSpacing(4)
        self.buttons = {}
        for name, tip, act in (
            ("Add", "A new sieve; it changes nothing until you move something (Ctrl+Shift+N)", session.add_sieve),
            ("Remove", "Take this sieve off the stack", lambda: session.remove_sieve(session.sieve.id)),
            ("▲", "Move up the stack", lambda: session.move_sieve(session.sieve.id, -1)),
            ("▼", "Move down the stack", lambda: session.move_sieve(session.sieve.id, 1)),
        ):
            button = QToolButton()
            button.setText(name)
            button.setToolTip(tip)
            button.setAccessibleName(tip)
            button.clicked.connect(act)
            row.addWidget(button)
            self.buttons[name] = button
        column.addLayout(row)
        self.list.currentRowChanged.connect(self._select)
        self.list.itemChanged.connect(self._edited)
        session.project_changed.connect(self.follow)
        session.selection_changed.connect(self.follow)
        self.follow()

    def _select(self, row: int) -> None:
        if 0 <= row < len(self.session.project.stack):
            self.session.select(self.session.project.stack[row].id)

    def _edited(self, item: QListWidgetItem) -> None:
        sieve = self.session.project.stack[self.list.row(item)]
        on, name = item.checkState() == Qt.CheckState.Checked, item.text().strip() or sieve.name
        what = ("Switch sieve on" if on else "Switch sieve off") if on != sieve.on else "Rename sieve"
        self.session.edit(lambda project: project.with_sieve(sieve.but(on=on, name=name)), what)

    def follow(self) -> None:
        """Show the stack as it is now."""
        with QSignalBlocker(self.list):
            self.list.clear()
            for sieve in self.session.project.stack:
                item = QListWidgetItem(sieve.name)
                item.setFlags(item.flags() | Qt.ItemFlag.ItemIsUserCheckable | Qt.ItemFlag.ItemIsEditable)
                item.setCheckState(Qt.CheckState.Checked if sieve.on else Qt.CheckState.Unchecked)
                kept = [sample for sample in sieve.pick.samples if sample.role == "keep"]
                if kept:
                    item.setIcon(swatch(kept[0].colour, 22, 14))
                self.list.addItem(item)
                if sieve.id == self.session.sieve.id:
                    self.list.setCurrentItem(item)
