"""Makes thumbnails in a thread, one after another, while nobody waits for them."""

from __future__ import annotations

import contextlib
import pathlib

import numpy as np
from PyQt6.QtCore import QObject, pyqtSignal

from ...errors import Trouble
from ...live.preview import Opened
from ...media.stills.thumbnails import SIDE, thumbnail, thumbnail_of
from ...project.model import Project
from ...threads import Threads


def reduced_pixels(pixels: np.ndarray, side: int = SIDE) -> np.ndarray:
    """A picture that was rendered, in screen pixels, as a thumbnail."""
    step = max(1, -(-max(pixels.shape) // side))
    return np.ascontiguousarray(pixels[step // 2 :: step, step // 2 :: step])


class Thumbnailer(QObject):
    """`made` says what a thumbnail is of, and gives its pixels, None where the picture cannot be
    read.
    """

    made = pyqtSignal(object, object)

    def __init__(self) -> None:
        super().__init__()
        self._threads = Threads("thumbnails", last=True)

    @property
    def idle(self) -> bool:
        """Return whether none is being made."""
        return self._threads.idle

    def ask(self, about: object, project: Project, opened: Opened | None = None) -> None:
        """Make the thumbnail of a project's picture when its turn comes."""
        self._threads.start(lambda: self._make(about, project, opened))

    def _make(self, about: object, project: Project, opened: Opened | None) -> None:
        pixels = None
        with contextlib.suppress(
            Trouble, OSError, MemoryError
        ):  # it is said when the picture is opened
            if (
                opened is not None and opened.source.about.kind == "still"
            ):  # it has been read: large ones are not read twice
                with opened.read():
                    pixels = thumbnail_of(opened.source.frame(0).planes)
            else:
                pixels = thumbnail(pathlib.Path(project.source), project.reading)
        self.made.emit(about, pixels)

    def end(self) -> None:
        """Forget what waits; what is being made is still handed over."""
        self._threads.end()
