"""Commands, and the menus and shortcuts made from a table of them."""

from __future__ import annotations

import functools
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Generic, TypeVar

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QAction, QKeySequence
from PyQt6.QtWidgets import QMainWindow, QMenu, QMenuBar

from ...language import translator

translate = translator("commands")


#: The window whose menus they are.
W = TypeVar("W", bound=QMainWindow)


@dataclass(frozen=True)
class Command(Generic[W]):
    """Something that the window does.

    Attributes
    ----------
    id : its name in code. menu : id of the menu that it stands in. label : what a person reads,
        with the letter that chooses it.
    act : what it does. keys : its shortcut, "" for none. tip : said in the bar at the bottom.
    enabled : whether it can be chosen now. ticked : whether it is on, for what can be on or off.
    name : what it is called now, where that changes.
    """

    id: str
    menu: str
    label: str
    act: Callable[[W], object]
    keys: str = ""
    tip: str = ""
    enabled: Callable[[W], bool] | None = None
    ticked: Callable[[W], bool] | None = None
    name: Callable[[W], str] | None = None


@dataclass(frozen=True)
class Menu(Generic[W]):
    """A menu, in the bar or ``inside`` another; ``fill`` puts into it what changes, each time it
    opens.
    """

    id: str
    label: str
    inside: str = ""
    fill: Callable[[W, QMenu], object] | None = None


@dataclass(frozen=True)
class Line:
    """A line between the commands of a menu."""

    menu: str


def plain(label: str) -> str:
    """A label without the mark of the letter that chooses it."""
    return label.replace("&", "")


class Menus(Generic[W]):
    """The menus of a window, and the action of every command by its id."""

    def __init__(
        self, window: W, bar: QMenuBar, rows: Sequence[Command[W] | Menu[W] | Line]
    ) -> None:
        self._window, self._bar, self._rows = window, bar, rows
        self.menus: dict[str, QMenu] = {}
        self.actions: dict[str, QAction] = {}
        for row in rows:
            if isinstance(row, Menu):
                self._add_menu(row)
            elif isinstance(row, Line):
                self.menus[row.menu].addSeparator()
            else:
                self._add(row)
        # Plain letters act only while nothing is typed in: see `Window.eventFilter`.
        self.letters = {
            keys: action
            for action in self.actions.values()
            if len(keys := action.shortcut().toString()) == 1
        }
        for action in self.letters.values():
            action.setShortcutContext(Qt.ShortcutContext.WidgetShortcut)
        # Shortcuts act whether the menus have room beside each other or stand behind one button.
        for action in self.actions.values():
            if action not in self.letters.values():
                self._window.addAction(action)

    def _add_menu(self, row: Menu[W]) -> None:
        label = translate(row.label)
        menu = self.menus[row.inside].addMenu(label) if row.inside else self._bar.addMenu(label)
        assert menu is not None
        if row.fill is not None:
            menu.aboutToShow.connect(functools.partial(row.fill, self._window, menu))
        self.menus[row.id] = menu

    def _add(self, row: Command[W]) -> None:
        action = QAction(translate(row.label), self._window)
        action.setObjectName(row.id)
        if row.keys:
            action.setShortcut(QKeySequence(row.keys))
        action.setCheckable(row.ticked is not None)
        action.triggered.connect(lambda _=False: row.act(self._window))
        action.setStatusTip(translate(row.tip) if row.tip else "")
        self.menus[row.menu].addAction(action)
        self.actions[row.id] = action

    def refresh(self) -> None:
        """Let every command say what it does now, and whether it can be chosen."""
        for row in self._rows:
            if isinstance(row, Command):
                action = self.actions[row.id]
                if row.name is not None:
                    action.setText(row.name(self._window))
                if row.enabled is not None:
                    action.setEnabled(row.enabled(self._window))
                if row.ticked is not None:
                    action.setChecked(row.ticked(self._window))

    def listed(self) -> list[tuple[str, str, QAction]]:
        """The label of the menu, the label and the action of every command."""
        rows = [row for row in self._rows if isinstance(row, Command)]
        return [
            (
                plain(self.menus[row.menu].title()),
                plain(self.actions[row.id].text()),
                self.actions[row.id],
            )
            for row in rows
        ]
