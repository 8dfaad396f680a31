"""The tray: the pictures and clips that are open, each with its own work, and which of them is in
the window.
"""

from __future__ import annotations

import contextlib
import time
from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import Any

import numpy as np
from PyQt6.QtCore import QObject, pyqtSignal

from ...language import translator
from ...live.preview import Opened, Rendered
from ...media.source import key_of
from ...project.model import Project
from ...project.open_tray import OpenTray, Row
from ..background.thumbnailer import reduced_pixels
from .document import Document

translate = translator("workspace")


#: Bytes of pictures that stay open behind the one in the window, so that going back to them is at
#: once; the last one always does. They are taken from what the stages may keep.
STAY_OPEN = 250_000_000
#: What a picture that is open takes: three planes of float32, and what is reduced from them.
BYTES_A_PIXEL = 3 * 4 * 1.4
#: Stacks are shared by these fields of a project.
SHARED = ("stack", "groups", "takes", "solo", "gamut", "display")


#: Longer side of the picture of a step of the history, pixels: there may be thousands of them.
OF_A_STEP = 72


@dataclass(eq=False)
class Entry:
    """One picture or clip of the tray.

    Attributes
    ----------
    document : its work. opened : its source, None while it is not read.
    number : the frame that is shown; between : first and last frame between its in and out point.
    size : width and height, (0, 0) while it was never read.
    shared : its stack is the one that all shared entries have.
    glimpse : what was shown of it last, without what takes much memory. thumbnail : pixels (H, W)
        uint32.
    came_with : name of the project that lay beside its picture, until that was said.
    """

    document: Document
    opened: Opened | None = None
    number: int = 0
    between: tuple[int, int] | None = None
    size: tuple[int, int] = (0, 0)
    shared: bool = False
    glimpse: Rendered | None = None
    thumbnail: np.ndarray | None = None
    came_with: str = ""
    used: float = field(default_factory=time.monotonic)

    @property
    def source(self) -> str:
        """Path of its picture, "" for none."""
        return self.document.project.source

    @property
    def replaced(self) -> bool:
        """Return whether another file lies where its picture was read from."""
        about = self.opened.source.about if self.opened is not None else None
        if about is None or about.mark is None:
            return False
        try:
            return key_of(about.path) != about.mark
        except OSError:
            return False  # it has gone, and may come back

    @property
    def bytes(self) -> float:
        """Return the bytes that its picture takes while it is open."""
        return self.size[0] * self.size[1] * BYTES_A_PIXEL

    @property
    def blank(self) -> bool:
        """Return whether nothing was ever opened here."""
        return not self.source and not self.document.history.changed

    @property
    def name(self) -> str:
        """Return its name."""
        return self.document.display_name()


class Tray(QObject):
    """The entries in order; `changed` when there are others, `redrawn` when one looks otherwise."""

    changed = pyqtSignal()
    redrawn = pyqtSignal(object)

    def __init__(self, first: Entry) -> None:
        super().__init__()
        self.entries = [first]
        self.current = first
        #: The stack of the shared entries, and what goes with it; None while there are none.
        self._shared: dict[str, Any] | None = None

    @contextlib.contextmanager
    def all_at_once(self) -> Iterator[None]:
        """Say once, at the end, that the tray is another: five hundred pictures would be shown five
        hundred times.
        """
        self.blockSignals(True)
        try:
            yield
        finally:
            self.blockSignals(False)
            self.changed.emit()

    def add(self, entry: Entry) -> None:
        """Put an entry at the end."""
        self.entries.append(entry)
        self.changed.emit()

    def turn_to(self, entry: Entry) -> None:
        """Show an entry; the blank one that a window starts with goes."""
        self.current, entry.used = entry, time.monotonic()
        for one in [one for one in self.entries if one.blank and one is not entry]:
            one.document.end()
            self.entries.remove(one)
        self.trim()

    def take_thumbnail(self, about: object, pixels: np.ndarray | None) -> None:
        """Take a thumbnail that was made; None where the picture cannot be read."""
        if pixels is not None and isinstance(about, Entry) and about.thumbnail is None:
            about.thumbnail = pixels
            self.redrawn.emit(about)

    def renew_thumbnail(self, result: Rendered) -> None:
        """Let the thumbnail of the picture in the window, and the step of its history, show its
        result, where it is whole."""
        pixels = result.pictures.get("result")
        whole = result.wanted.shown.box == (0, 0, 0, 0) and not result.wanted.hurried
        if pixels is None or not whole:
            return
        small = reduced_pixels(pixels, OF_A_STEP)
        self.current.document.history.keep_picture(result.wanted.project, small)
        if len(self.entries) > 1:
            self.current.thumbnail = reduced_pixels(pixels)
            self.redrawn.emit(self.current)

    def find(self, source: str) -> Entry | None:
        """The entry of a picture, by its path."""
        return next((entry for entry in self.entries if entry.source == source), None)

    def remove(self, entry: Entry, blank: Entry) -> Entry:
        """Take an entry out; returns the one to show next, ``blank`` where none is left."""
        at = self.entries.index(entry)
        self.entries.remove(entry)
        if not self.entries:
            self.entries = [blank]
        if entry.opened:
            entry.opened.retire()
        self.changed.emit()
        return (
            self.current
            if entry is not self.current
            else self.entries[min(at, len(self.entries) - 1)]
        )

    def _behind(self) -> list[Entry]:
        """Return the open pictures behind the one in the window, the latest first."""
        return sorted(
            (one for one in self.entries if one.opened is not None and one is not self.current),
            key=lambda one: -one.used,
        )

    @property
    def bytes_behind(self) -> int:
        """Return the bytes of the open pictures behind the one in the window."""
        return round(sum(entry.bytes for entry in self._behind()))

    def trim(self) -> None:
        """Close what was not looked at for longest, until what stays open is small enough; what was
        looked at last stays, however large.
        """
        held = 0.0
        for number, entry in enumerate(self._behind()):
            held += entry.bytes
            if number and held > STAY_OPEN and entry.opened is not None:
                entry.opened.retire()
                entry.opened = None

    # Shared stacks

    def share(self, entry: Entry, on: bool) -> None:
        """Let an entry have the shared stack, or its own from now on; the first that is shared
        brings its own.
        """
        entry.shared = on
        if on and self._shared is not None and sum(one.shared for one in self.entries) > 1:
            self.bring(entry)
        elif on:
            self.note(entry)
        self.changed.emit()

    def note(self, entry: Entry) -> None:
        """A shared entry has changed: the others will follow."""
        if entry.shared:
            self._shared = {name: getattr(entry.document.project, name) for name in SHARED}

    def bring(self, entry: Entry) -> None:
        """Give a shared entry the stack as it is now."""
        if entry.shared and self._shared is not None:
            held = self._shared
            entry.document.edit(lambda project: project.but(**held), translate("Shared stack"))

    def project_of(self, entry: Entry) -> Project:
        """The work on an entry, with the shared stack where it has that."""
        project = entry.document.project
        return project.but(**self._shared) if entry.shared and self._shared is not None else project

    # What is kept for the next start

    @property
    def noted(self) -> OpenTray:
        """Return the tray as it is kept for the next start."""
        named = [entry for entry in self.entries if entry.source]
        rows = tuple(
            Row(entry.source, str(entry.document.path or ""), entry.shared, entry.number)
            for entry in named
        )
        return OpenTray(
            rows, next((place for place, entry in enumerate(named) if entry is self.current), 0)
        )
