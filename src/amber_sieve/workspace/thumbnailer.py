"""Makes the thumbnails of the tray in a thread, one after another, while nobody waits for them."""

from __future__ import annotations

import contextlib
import pathlib

import numpy as np
from PyQt6.QtCore import QObject, pyqtSignal

from ..errors import Trouble
from ..live.preview import Opened
from ..media.stills.thumbnails import SIDE, thumbnail, thumbnail_of
from ..project.model import Project
from ..threads import Threads
from .tray import Entry


def reduced_pixels(pixels: np.ndarray) -> np.ndarray:
    """A picture that was rendered, in screen pixels, as a thumbnail."""
    step = max(1, -(-max(pixels.shape) // SIDE))
    return np.ascontiguousarray(pixels[step // 2 :: step, step // 2 :: step])


class Thumbnailer(QObject):
    """`made` says that an entry has its thumbnail; one that cannot be read keeps none."""

    made = pyqtSignal(object, object)

    def __init__(self) -> None:
        super().__init__()
        self._threads = Threads("thumbnails", last=True)

    @property
    def idle(self) -> bool:
        """Whether none is being made."""
        return self._threads.idle

    def ask(self, entry: Entry) -> None:
        """Make the thumbnail of an entry when its turn comes."""
        project, opened = entry.document.project, entry.opened
        self._threads.start(lambda: self._make(entry, project, opened))

    def _make(self, entry: Entry, project: Project, opened: Opened | None) -> None:
        pixels = None
        with contextlib.suppress(Trouble, OSError, MemoryError):  # it is said when the picture is opened
            if opened is not None and opened.source.about.kind == "still":  # it has been read: large ones are not read twice
                with opened.read():
                    pixels = thumbnail_of(opened.source.frame(0).planes)
            else:
                pixels = thumbnail(pathlib.Path(project.source), project.reading)
        self.made.emit(entry, pixels)

    def end(self) -> None:
        """Forget what waits; what is being made is still handed over."""
        self._threads.end()
