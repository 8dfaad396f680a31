"""Menus and shortcuts, made from the table of commands."""

from __future__ import annotations

import functools
from typing import TYPE_CHECKING

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QAction, QKeySequence
from PyQt6.QtWidgets import QMenu

from .commands import TABLE, Command, Line, Menu

if TYPE_CHECKING:
    from .window import Window


def plain(label: str) -> str:
    """A label without the mark of the letter that chooses it."""
    return label.replace("&", "")


class Menus:
    """The menus of a window, and the action of every command by its id."""

    def __init__(self, window: Window) -> None:
        self._window = window
        self.menus: dict[str, QMenu] = {}
        self.actions: dict[str, QAction] = {}
        for row in TABLE:
            if isinstance(row, Menu):
                self._add_menu(row)
            elif isinstance(row, Line):
                self.menus[row.menu].addSeparator()
            else:
                self._add(row)
        # Plain letters act only while nothing is typed in: see `Window.eventFilter`.
        self.letters = {keys: action for action in self.actions.values() if len(keys := action.shortcut().toString()) == 1}
        for action in self.letters.values():
            action.setShortcutContext(Qt.ShortcutContext.WidgetShortcut)

    def _add_menu(self, row: Menu) -> None:
        bar = self._window.menuBar()
        assert bar is not None
        menu = self.menus[row.inside].addMenu(row.label) if row.inside else bar.addMenu(row.label)
        assert menu is not None
        if row.fill is not None:
            menu.aboutToShow.connect(functools.partial(row.fill, self._window, menu))
        self.menus[row.id] = menu

    def _add(self, row: Command) -> None:
        action = QAction(row.label, self._window)
        action.setObjectName(row.id)
        if row.keys:
            action.setShortcut(QKeySequence(row.keys))
        action.setCheckable(row.ticked is not None)
        action.triggered.connect(lambda _=False: row.act(self._window))
        action.setStatusTip(row.tip)
        self.menus[row.menu].addAction(action)
        self.actions[row.id] = action

    def refresh(self) -> None:
        """Let every command say what it does now, and whether it can be chosen."""
        for row in TABLE:
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
        rows = [row for row in TABLE if isinstance(row, Command)]
        return [(plain(self.menus[row.menu].title()), plain(self.actions[row.id].text()), self.actions[row.id]) for row in rows]
