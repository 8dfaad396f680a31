"""Starting the window."""

from __future__ import annotations

import os
import pathlib
import signal
import sys
from collections.abc import Sequence

from PyQt6.QtCore import QTimer
from PyQt6.QtWidgets import QApplication

from .session import Session
from .style import dress
from .window import Window


def has_screen() -> bool:
    """Whether there is a display to open a window on."""
    return bool(os.environ.get("DISPLAY") or os.environ.get("WAYLAND_DISPLAY"))


def application() -> QApplication:
    """The application, dressed; offscreen when there is no display."""
    existing = QApplication.instance()
    if isinstance(existing, QApplication):
        return existing
    if not has_screen() and "QT_QPA_PLATFORM" not in os.environ:
        os.environ["QT_QPA_PLATFORM"] = "offscreen"
    made = QApplication([sys.argv[0]])
    made.setApplicationName("Amber Sieve")
    made.setDesktopFileName("amber-sieve")
    dress(made)
    return made


def main(arguments: Sequence[str] | None = None) -> int:
    """Open the window, with a file if one is named; returns the exit code."""
    words = list(sys.argv[1:] if arguments is None else arguments)
    running = application()
    window = Window(Session())
    window.show()
    if words:
        window.session.open(pathlib.Path(words[0]))
    # Let Python see Ctrl+C while Qt runs.
    signal.signal(signal.SIGINT, lambda *_: running.quit())
    pulse = QTimer()
    pulse.timeout.connect(lambda: None)
    pulse.start(200)
    return running.exec()
