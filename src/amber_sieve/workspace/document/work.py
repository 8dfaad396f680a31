"""The current work: the picture in the window, its project, the sieve and the frame, and every
change to them.
"""

from __future__ import annotations

import pathlib
from collections.abc import Callable
from typing import Any

from PyQt6.QtCore import QObject, pyqtSignal

from ...live.preview import Opened
from ...live.sieve_context import SieveContext
from ...project import edits, tracks
from ...project.history import History
from ...project.model import Project, Sieve
from ...render.context import RenderContext
from ..background.guard import guarded
from ..background.workers import Workers
from ..speech import Speech
from .document import Document
from .tray import Entry, Tray


@guarded
class Work(QObject):
    """The current entry of the tray, as the other controllers and the widgets see and change it.

    `changed` when the project is another, `selection_changed` when another sieve is worked on or
    looks otherwise, `frame_changed` when another frame is shown, `source_changed` when another
    picture is in the window or the same was read otherwise. `stale` says that what was rendered is
    not what the work is any more, `reading_changed` that the picture is to be read otherwise first.
    """

    changed = pyqtSignal()
    selection_changed = pyqtSignal()
    frame_changed = pyqtSignal()
    source_changed = pyqtSignal()
    stale = pyqtSignal()
    reading_changed = pyqtSignal()

    def __init__(self, workers: Workers, speech: Speech) -> None:
        super().__init__()
        self.speech = speech
        self._workers = workers
        #: Something is being dragged: previews may be coarse until it rests.
        self.dragging = False
        self.tray = Tray(Entry(self.fresh_document()))

    def fresh_document(self) -> Document:
        """A document for an entry of the tray, heard by this."""
        document = Document(self._workers.autosaves)
        document.changed.connect(lambda: self._changed(document))
        document.selection_changed.connect(lambda: self._selected(document))
        document.failed.connect(self.speech.trouble)
        return document

    # What is there

    @property
    def document(self) -> Document:
        """The work on what is in the window."""
        return self.tray.current.document

    @property
    def opened(self) -> Opened | None:
        """Return the open source in the window, None while it is not read."""
        return self.tray.current.opened

    @property
    def number(self) -> int:
        """The frame that is shown."""
        return self.tray.current.number

    @property
    def between(self) -> tuple[int, int] | None:
        """First and last frame between the in and the out point, None for all."""
        return self.tray.current.between

    @property
    def project(self) -> Project:
        """Return the project."""
        return self.document.project

    @property
    def history(self) -> History:
        """The steps that led to the project."""
        return self.document.history

    @property
    def path(self) -> pathlib.Path | None:
        """Return where the project is saved, None while it is not."""
        return self.document.path

    @property
    def sieve(self) -> Sieve:
        """The sieve being worked on, as it is at the frame that is shown."""
        sieve = self.document.sieve
        return tracks.at_frame(sieve, self.number) if sieve.tracks else sieve

    @property
    def size(self) -> tuple[int, int]:
        """Width and height of the picture, (0, 0) with none open."""
        return self.opened.source.about.size if self.opened else self.tray.current.size

    @property
    def frames(self) -> int:
        """Return how many frames the source has, 0 with none open."""
        return self.opened.source.about.frames if self.opened else 0

    @property
    def context(self) -> RenderContext:
        """The finished stages that all share."""
        return self._workers.context

    def display_name(self) -> str:
        """Return the work's name in the title bar."""
        return self.document.display_name()

    def light_at(self, x: int, y: int) -> tuple[float, float, float] | None:
        """Linear light of a pixel of the picture, None outside it or while it is not read yet."""
        frame = self.opened.cached(self.number) if self.opened else None
        if frame is None or not (0 <= x < frame.width and 0 <= y < frame.height):
            return None
        red, green, blue = (float(v) for v in frame.planes[:, y, x])
        return red, green, blue

    # Changing it

    def edit(self, change: Callable[[Project], Project], what: str, group: str = "") -> None:
        """Go on to a changed project; with a ``group`` it is one step of a drag, and previews are
        coarse until `end_drag`.
        """
        self.dragging = bool(group)
        self.document.edit(change, what, group)

    def edit_sieve(self, change: Callable[[Sieve], Sieve], what: str, group: str = "") -> None:
        """Change the sieve being worked on, at the frame that is shown where it has keys; see
        `edit`.
        """
        frame = self.number

        def keyed(sieve: Sieve) -> Sieve:
            return (
                tracks.recorded(sieve, change(tracks.at_frame(sieve, frame)), frame)
                if sieve.tracks
                else change(sieve)
            )

        self.edit_tracks(keyed, what, group)

    def edit_tracks(self, change: Callable[[Sieve], Sieve], what: str, group: str = "") -> None:
        """Change the sieve being worked on with its keys, as it stands in the project; see
        `edit`.
        """
        self.dragging = bool(group)
        self.document.edit_sieve(change, what, group)

    def set_field(self, path: str, value: object, what: str, group: str = "") -> None:
        """Set a field of the current sieve, named by its path, as in "edge.follow"."""
        self.edit_sieve(lambda sieve: edits.with_field(sieve, path, value), what, group)

    def end_drag(self) -> None:
        """A drag has ended: the next edit is a step of its own, and the coarse preview is
        shown as it is.
        """
        self.history.close_group()
        self.rest()

    def rest(self) -> None:
        """Nothing is being dragged any more."""
        if self.dragging:
            self.dragging = False
            self.stale.emit()

    def undo(self) -> None:
        """Go one step back."""
        self.document.undo()

    def redo(self) -> None:
        """Go one step on again."""
        self.document.redo()

    def go_to_step(self, number: int) -> None:
        """Go back or on to a step of the history."""
        self.document.go_to_step(number)
        self.selection_changed.emit()

    def select(self, sieve_id: str) -> None:
        """Work on this sieve from now on."""
        self.document.select(sieve_id)

    def show_frame(self, number: int) -> None:
        """Another frame is shown from now on; its caller has changed the number."""
        self.tray.current.number = number
        self.frame_changed.emit()

    def _changed(self, document: Document) -> None:
        if document is not self.document:  # another picture of the tray has got a sieve
            self.tray.changed.emit()
            return
        self.tray.note(self.tray.current)
        otherwise = self.opened is not None and self.opened.reading != self.project.reading
        if not otherwise:
            self.stale.emit()  # before all else: what is seen next is made while the window follows
        self.changed.emit()
        if otherwise:
            self.reading_changed.emit()

    def _selected(self, document: Document) -> None:
        if document is self.document:
            self.selection_changed.emit()
            self.stale.emit()

    # Asking about it

    def ask_about(
        self, question: Callable[[SieveContext], Any], then: Callable[[Any], None]
    ) -> None:
        """Ask something of what the current sieve measures, in a thread; ``then`` gets the answer
        here.
        """

        def prepare() -> Callable[[], Any]:
            opened, project, sieve_id, number, context = (
                self.opened,
                self.project,
                self.sieve.id,
                self.number,
                self.context,
            )

            def answer() -> Any:
                assert opened is not None
                with opened.read():
                    return question(SieveContext(opened, project, sieve_id, number, context))

            return answer

        if self.opened is not None:
            self._workers.questions.ask(prepare, then)
