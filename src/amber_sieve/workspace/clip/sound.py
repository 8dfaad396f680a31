"""The sound of a clip while it plays, by Qt; silent where there is no device, or no sound."""

from __future__ import annotations

import contextlib
import pathlib
from typing import Any

from PyQt6.QtCore import QLoggingCategory, QUrl

from ...gc_pause import gc_pause
from ...media.quiet import quiet


class Sound:
    """The sound of one clip from a time on, seconds."""

    def __init__(self, path: pathlib.Path, at: float) -> None:
        self._player: Any = None
        self._at = at
        QLoggingCategory.setFilterRules("qt.multimedia.*=false")
        with contextlib.suppress(ImportError):  # a system without what Qt's sound needs
            # A closed dialog that were collected meanwhile would have its last events handled by a
            # PyQt that is half through this.
            with gc_pause():
                from PyQt6.QtMultimedia import QAudioOutput, QMediaDevices, QMediaPlayer

            with quiet():  # libraries that look for a device say in vain that there is none
                there = bool(QMediaDevices.audioOutputs())
            if there:
                self._player, self._output = QMediaPlayer(), QAudioOutput()
                self._player.setAudioOutput(self._output)
                self._player.setSource(QUrl.fromLocalFile(str(path)))

    def start(self) -> None:
        """Begin to play from where it was set to."""
        if self._player is not None:
            self._player.setPosition(round(self._at * 1000))
            self._player.play()

    def seek(self, at: float) -> None:
        """Go on from another time."""
        if self._player is not None:
            self._player.setPosition(round(at * 1000))

    def stop(self) -> None:
        """End the sound; its process goes with it."""
        if self._player is not None:
            self._player.stop()
            self._player = None
