"""What is asked of colour: how the picture is read and seen, and the veil."""

from __future__ import annotations

import pathlib

from PyQt6.QtWidgets import QFileDialog, QWidget

from ...workspace.workspace import Workspace
from ..dialogs.reading_dialog import ReadingDialog
from ..dialogs.small import ask_colour

ICC = "ICC profiles (*.icc *.icm)"


class Colours:
    """Asks for profiles and colours on behalf of the window."""

    def __init__(self, window: QWidget, workspace: Workspace) -> None:
        self._window, self._workspace = window, workspace

    def ask_veil_colour(self) -> None:
        colour = ask_colour(self._window, "Veil colour")
        if colour is not None:
            self._workspace.preferences.change(veil_colour=colour)

    def show_reading(self) -> None:
        """Part, colour space, white balance of a raw file, and the display."""
        ReadingDialog(self._window, self._workspace).show()

    def ask_proof(self) -> None:
        """Show the picture as a print or another screen would."""
        name, _ = QFileDialog.getOpenFileName(self._window, "ICC profile to proof", "", ICC)
        if name:
            self._workspace.viewing.proof(pathlib.Path(name))

    def ask_screen_profile(self) -> None:
        """Draw everything as the screen's own profile wants it."""
        name, _ = QFileDialog.getOpenFileName(self._window, "ICC profile of this screen", "", ICC)
        if name:
            self._workspace.viewing.use_screen_profile(pathlib.Path(name))
