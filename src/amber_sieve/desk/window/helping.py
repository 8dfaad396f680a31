"""Keys, the guide and the tour."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from PyQt6.QtWidgets import QWidget

from ...language import translator
from ...workspace.workspace import Workspace
from ..dialogs.alone import show_alone
from ..dialogs.guide import Guide
from ..dialogs.small import Keys
from ..start.places import guide
from ..start.tour import Tour
from .keys import GESTURES
from .menus import Menus

translate = translator("keys")
translate_window = translator("window")


class Helping:
    """Help: keys, guide, tour."""

    #: The menus of the window, whose commands are listed.
    menus: Menus[Any]

    def __init__(
        self,
        window: QWidget,
        workspace: Workspace,
        turn_to: Callable[[str], object],
        trouble: Callable[[str], object],
    ) -> None:
        self._window, self._trouble = window, trouble
        self.tour = Tour(workspace, turn_to)

    def show_keys(self) -> None:
        """Show all mouse and key commands."""
        gestures = [
            (translate(where), translate(gesture), translate(does))
            for where, gesture, does in GESTURES
        ]
        keyed = [
            (menu, action.shortcut().toString(), command)
            for menu, command, action in self.menus.listed()
        ]
        rows = [*gestures, *(row for row in keyed if row[1])]
        show_alone(Keys, self._window, rows, beside=True)

    def show_guide(self, page: str = "") -> None:
        """The guide, at a page of it."""
        folder = guide()
        if folder is None:
            self._trouble(
                translate_window(
                    "The guide was not installed: it is the folder docs/guide of the sources.",
                )
            )
        else:
            show_alone(Guide, self._window, folder, beside=True).turn_to(page)
