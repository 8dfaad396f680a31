"""Makes the thumbnails of the tray in a thread, one after another, while nobody waits for them."""

from __future__ import annotations

import pathlib
import queue
import threading

import numpy as np
from PyQt6.QtCore import QObject, pyqtSignal

from ..errors import Trouble
from ..media.stills.thumbnails import SIDE, thumbnail
from ..project.model import Project
from ..resolve.sources import reading_of
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
        self._waiting: queue.SimpleQueue[tuple[Entry, Project] | None] = queue.SimpleQueue()
        #: How many were asked for, and how many are done: each is counted by one thread alone.
        self._asked = self._done = 0
        self._thread: threading.Thread | None = None
        self._ends = False

    @property
    def idle(self) -> bool:
        return self._asked == self._done

    def ask(self, entry: Entry) -> None:
        """Make the thumbnail of an entry when its turn comes."""
        self._asked += 1
        self._waiting.put((entry, entry.document.project))
        if self._thread is None:
            self._thread = threading.Thread(target=self._run, name="thumbnails", daemon=True)
            self._thread.start()

    def _run(self) -> None:
        while (wanted := self._waiting.get()) is not None and not self._ends:
            entry, project = wanted
            words = None
            try:
                words = thumbnail(pathlib.Path(project.source), reading_of(project))
            except (Trouble, OSError, MemoryError):
                pass  # it is said when the picture is opened
            self._done += 1
            if not self._ends:
                self.made.emit(entry, words)

    def end(self) -> None:
        """Make no more."""
        self._ends = True
        self._waiting.put(None)
