"""Shared parts of the pages: a column of fields that follow the work."""

from __future__ import annotations

from collections.abc import Callable, Sequence

from PyQt6.QtCore import QPoint, QSignalBlocker, Qt
from PyQt6.QtGui import QShowEvent
from PyQt6.QtWidgets import (
    QButtonGroup,
    QCheckBox,
    QComboBox,
    QHBoxLayout,
    QMenu,
    QPushButton,
    QScrollArea,
    QVBoxLayout,
    QWidget,
)

from ...language import named, translator
from ...project import edits
from ...project.edits import field_of
from ...project.fields import field_at, help_of, spec_at, title_of
from ...project.model import Sieve
from ...workspace.workspace import Workspace
from ..clip.key_menu import fill_key_menu
from ..widgets.block import Block
from ..widgets.icon import with_icon
from ..widgets.number import Number

translate = translator("pages")


class Page(QScrollArea):
    """A column of fields for one step of the work."""

    def __init__(self, workspace: Workspace) -> None:
        super().__init__()
        self.work, self._clip, self._preferences = (
            workspace.work,
            workspace.clip,
            workspace.preferences,
        )
        self._bound_numbers: list[tuple[Number, str]] = []
        self._bound_checks: list[tuple[QCheckBox, str]] = []
        self._bound_choices: list[tuple[QComboBox, str, tuple[str, ...]]] = []
        self.setWidgetResizable(True)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        inner = QWidget()
        inner.setObjectName("panel")
        self.column = QVBoxLayout(inner)
        self.column.setContentsMargins(8, 4, 8, 6)
        self.column.setSpacing(4)
        self.setWidget(inner)
        #: Where the next control goes: the page, or the group that was begun last.
        self.into = self.column
        workspace.work.changed.connect(self._something_changed)
        workspace.work.selection_changed.connect(self._something_changed)

    def put(self, *widgets: QWidget) -> None:
        """Add widgets below each other, to the group that was begun last."""
        for widget in widgets:
            self.into.addWidget(widget)

    def group(self, name: str, title: str, folded: bool = False) -> Block:
        """Begin a group of controls under a heading that folds them; how a person left it is
        remembered.
        """
        block, key = Block(title, plain=True), f"{type(self).__name__}.{name}"
        block.set_open(not self._preferences.values.folded.get(key, folded))
        block.folded.connect(
            lambda on: self._preferences.change(
                folded={**self._preferences.values.folded, key: not on}
            )
        )
        self.column.addWidget(block)
        self.into = block.column
        return block

    def ungrouped(self) -> None:
        """End the group: fields that follow belong to none."""
        self.into = self.column

    def number(self, path: str, label: str = "", add: bool = True) -> Number:
        """A number for a field of the current sieve, named by its way, as in "edge.follow"; all it
        says comes from the model.
        """
        number = Number(spec_at(Sieve, path), label)
        number.moved.connect(
            lambda value: self.work.set_field(path, value, number.name, group=path)
        )
        number.settled.connect(self.work.end_drag)
        number.automatic.connect(lambda: self.work.set_field(path, "auto", number.name))
        self._bound_numbers.append((number, path))
        number.setContextMenuPolicy(Qt.ContextMenuPolicy.CustomContextMenu)
        number.customContextMenuRequested.connect(lambda at: self._menu_of(number, path, at))
        if add:
            self.put(number)
        return number

    def _menu_of(self, number: Number, path: str, at: QPoint) -> None:
        menu = QMenu(self)
        if self.work.frames > 1:
            fill_key_menu(menu, self.work, self._clip, path)
            menu.addSeparator()
        if len(self.work.project.stack) > 1:
            copy = menu.addAction(translate("Copy {name} to all sieves", name=number.name))
            assert copy is not None
            copy.triggered.connect(lambda: self.copy_to_all(path, number.name))
        if not menu.isEmpty():
            menu.popup(number.mapToGlobal(at))

    def copy_to_all(self, path: str, name: str) -> None:
        """Give all sieves the value that a number has in the current one."""
        value = field_of(self.work.sieve, path)
        self.work.edit(
            lambda project: edits.with_field_everywhere(project, path, value),
            translate("Copy {name} to all sieves", name=name),
        )

    def numbers_by_path(self) -> dict[str, Number]:
        """Return the numbers of the page by the ways of their fields."""
        return {path: number for number, path in self._bound_numbers}

    def set_number(self, path: str, value: float) -> None:
        """Set a number as a person would, within its bounds."""
        number = self.numbers_by_path()[path]
        number.set(value)
        number.settled.emit()

    def show_number(self, path: str) -> None:
        """Bring a number into sight, and give it the keyboard."""
        for number, way in self._bound_numbers:
            if way == path:
                group = number.parentWidget()
                while group is not None and not isinstance(group, Block):
                    group = group.parentWidget()
                if group is not None:
                    group.set_open(True)
                number.setFocus()
                self.ensureWidgetVisible(number)

    def check(self, path: str, label: str = "") -> QCheckBox:
        """A box for a switch of the current sieve."""
        field = field_at(Sieve, path)
        box = QCheckBox(label or title_of(field) or path)
        box.setToolTip(help_of(field))
        box.toggled.connect(lambda on: self.work.set_field(path, on, box.text()))
        self._bound_checks.append((box, path))
        return box

    def choice(self, path: str, names: tuple[str, ...]) -> QComboBox:
        """A list for a field of the current sieve that is one of some words."""
        field = field_at(Sieve, path)
        box = QComboBox()
        narrow(box)
        box.addItems([named(name) for name in names])
        box.setAccessibleName(title_of(field) or path)
        box.setToolTip(help_of(field))
        box.activated.connect(
            lambda index: self.work.set_field(path, names[index], title_of(field) or path)
        )
        self._bound_choices.append((box, path, names))
        return box

    def _something_changed(self) -> None:
        """Follow at once when seen; a page that is not seen catches up when it is shown."""
        if self.isVisible():
            self.follow()

    def showEvent(self, event: QShowEvent | None) -> None:
        self.follow()
        super().showEvent(event)

    def found(self, path: str) -> tuple[float | None, str]:
        """Return the value that an automatic number was found to have, or words when it is not one
        number; (None, "") while nothing is known.
        """
        return None, ""

    def follow(self) -> None:
        """Show what the work holds now."""
        sieve = self.work.sieve
        keys = {track.path for track in sieve.tracks}
        for number, path in self._bound_numbers:
            number.set_keyed(path in keys)
            value = field_of(sieve, path)
            if value == "auto":
                number.show_auto(*self.found(path))
            else:
                number.show_value(float(value))
        for box, path in self._bound_checks:
            with QSignalBlocker(box):
                box.setChecked(field_of(sieve, path))
        for choice, path, names in self._bound_choices:
            choice.setCurrentIndex(names.index(field_of(sieve, path)))

    def exclusive(
        self, rows: Sequence[tuple[str, str, str, str]], act: Callable[[str], object]
    ) -> dict[str, QPushButton]:
        """Add buttons of which one is down, by their values; rows: label, value, icon and tip."""
        group = QButtonGroup(self)
        made: dict[str, QPushButton] = {}
        for name, value, drawing, tip in rows:
            button = QPushButton(name)
            button.setToolTip(tip)
            if drawing:
                with_icon(button, drawing, tip, name)
            button.setAccessibleName(name)
            button.setAccessibleDescription(tip)
            button.setCheckable(True)
            button.setChecked(not made)
            button.clicked.connect(lambda _, value=value: act(value))
            group.addButton(button)
            made[value] = button
        self.put(row_of(*made.values()))
        return made


def narrow(box: QComboBox) -> None:
    """Let a list be narrower than its longest row, so that it never makes a page wider."""
    box.setSizeAdjustPolicy(QComboBox.SizeAdjustPolicy.AdjustToMinimumContentsLengthWithIcon)
    box.setMinimumContentsLength(6)


def row_of(*widgets: QWidget) -> QWidget:
    """Widgets side by side."""
    box = QWidget()
    row = QHBoxLayout(box)
    row.setContentsMargins(0, 0, 0, 0)
    row.setSpacing(4)
    for widget in widgets:
        row.addWidget(widget)
    return box


def column_of(*widgets: QWidget, grows: QWidget) -> QWidget:
    """Widgets below each other without room between them; one of them takes what room there is."""
    box = QWidget()
    box.setObjectName("panel")
    column = QVBoxLayout(box)
    column.setContentsMargins(0, 0, 0, 0)
    column.setSpacing(0)
    for widget in widgets:
        column.addWidget(widget, 1 if widget is grows else 0)
    return box
