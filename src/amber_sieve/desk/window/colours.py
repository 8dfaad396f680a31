"""Commands for colour: how the picture is read and seen, and the veil."""

from __future__ import annotations

import pathlib

from PyQt6.QtWidgets import QFileDialog, QWidget

from ...language import translator
from ...workspace.workspace import Workspace
from ..canvas.clean_screen import CleanScreen
from ..canvas.viewport import Viewport
from ..dialogs.alone import show_alone
from ..dialogs.reading_dialog import ReadingDialog
from ..dialogs.small import ask_colour

translate = translator("window")


ICC = translate("ICC profiles (*.icc *.icm)")


class Colours:
    """Asks for profiles and colours on behalf of the window."""

    def __init__(self, window: QWidget, workspace: Workspace, viewport: Viewport) -> None:
        self._window, self._workspace, self._viewport = window, workspace, viewport
        #: The result on another screen, None while it is not shown.
        self.clean: CleanScreen | None = None

    def toggle_clean(self) -> None:
        """Show the result alone on another screen, or close it."""
        if self.clean is not None:
            self.close_clean()
            return
        self.clean = CleanScreen(self._workspace, self._viewport)
        self.clean.closed.connect(self._forget_clean)
        self.clean.show_beside(self._window)

    def close_clean(self) -> None:
        """Close the result on another screen, if it is there."""
        if self.clean is not None:
            self.clean.close()

    def _forget_clean(self) -> None:
        self.clean = None

    def ask_veil_colour(self) -> None:
        colour = ask_colour(self._window, translate("Veil colour"))
        if colour is not None:
            self._workspace.preferences.change(veil_colour=colour)

    def show_reading(self) -> None:
        """Part, colour space, white balance of a raw file, and the display."""
        show_alone(ReadingDialog, self._window, self._workspace)

    def ask_proof(self) -> None:
        """Show the picture as a print or another screen would."""
        name, _ = QFileDialog.getOpenFileName(
            self._window, translate("ICC profile to proof"), "", ICC
        )
        if name:
            self._workspace.viewing.proof(pathlib.Path(name))

    def ask_screen_profile(self) -> None:
        """Draw everything as the screen's own profile wants it."""
        name, _ = QFileDialog.getOpenFileName(
            self._window, translate("ICC profile of this screen"), "", ICC
        )
        if name:
            self._workspace.viewing.use_screen_profile(pathlib.Path(name))
