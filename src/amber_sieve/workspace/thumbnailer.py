"""Makes the thumbnails of the tray in a thread, one after another, while nobody waits for them."""

from __future__ import annotations

import contextlib
import pathlib

import numpy as np
from PyQt6.QtCore import QObject, pyqtSignal

from ..errors import Trouble
from ..media.stills.thumbnails import SIDE, thumbnail
from ..project.model import Project
from ..threads import Threads
from .tray import Entry


def reduced_words(words: np.ndarray) -> np.ndarray:
    """A picture that was rendered, in words, as a thumbnail."""
    step = max(1, -(-max(words.shape) // SIDE))
    return np.ascontiguousarray(words[step // 2 :: step, step // 2 :: step])


class Thumbnailer(QObject):
    """`made` says that an entry has its thumbnail; one that cannot be read keeps none."""

    made = pyqtSignal(object, object)

    def __init__(self) -> None:
        super().__init__()
        self._threads = Threads("thumbnails")

    @property
    def idle(self) -> bool:
        """Whether none is being made."""
        return self._threads.idle

    def ask(self, entry: Entry) -> None:
        """Make the thumbnail of an entry when its turn comes."""
        project = entry.document.project
        self._threads.start(lambda: self._make(entry, project))

    def _make(self, entry: Entry, project: Project) -> None:
        words = None
        with contextlib.suppress(Trouble, OSError, MemoryError):  # it is said when the picture is opened
            words = thumbnail(pathlib.Path(project.source), project.reading)
        self.made.emit(entry, words)

    def end(self) -> None:
        """Make no more."""
        self._threads.end()
