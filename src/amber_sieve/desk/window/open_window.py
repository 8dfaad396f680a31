"""The whole window: its widgets, and the menus that the table of commands makes for it."""

from __future__ import annotations

from ...workspace.workspace import Workspace
from ..start.control_port import ControlPort
from .commands import TABLE
from .menus import Menus
from .window import Window


def open_window(workspace: Workspace) -> Window:
    """A window on the open picture."""
    window = Window(workspace)
    window.take_menus(Menus(window, window.top.menus, TABLE))
    remote = workspace.control_surfaces
    remote.turned.connect(window.pages.setCurrentIndex)
    remote.compared.connect(window.canvas.bar.compare.setChecked)
    window.pages.currentChanged.connect(remote.show_page)
    window.leaving.connect(ControlPort(workspace, window).close)
    return window
