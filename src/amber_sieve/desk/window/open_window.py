"""The whole window: its widgets, and the menus that the table of commands makes for it."""

from __future__ import annotations

from ...workspace.workspace import Workspace
from .commands import TABLE
from .menus import Menus
from .window import Window


def open_window(workspace: Workspace) -> Window:
    """A window on what is open."""
    window = Window(workspace)
    window.take_menus(Menus(window, window.top.menus, TABLE))
    return window
