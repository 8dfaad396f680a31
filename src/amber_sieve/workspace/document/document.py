"""The work itself: the project, its history, where it is saved, which sieve is worked on, and its
autosave.
"""

from __future__ import annotations

import os
import pathlib
import threading
from collections.abc import Callable

from pydantic import ValidationError
from PyQt6.QtCore import QObject, QTimer, pyqtSignal

from ...errors import Trouble
from ...files import digest_of
from ...language import translator
from ...project import storage
from ...project.history import History
from ...project.model import Project, Sieve
from ...project.recovery import Recovery
from ...threads import Threads
from ..background.blocking_call import blocking_call

translate = translator("workspace")


#: Seconds after a change until it is kept: with the writing, less than two seconds of work are lost
#: when the power fails.
KEEP_AFTER = 1.2


class Document(QObject):
    """One project being worked on."""

    changed = pyqtSignal()
    selection_changed = pyqtSignal()
    failed = pyqtSignal(str)
    #: Work could not be kept, by the thread that does it: it is tried again.
    _not_kept = pyqtSignal()

    def __init__(self, autosaves: Threads, keep_after: float = KEEP_AFTER) -> None:
        super().__init__()
        self.history = History(Project())
        self.path: pathlib.Path | None = None
        self.title = ""
        #: What the project's file held when it was read or written last.
        self._digest = ""
        self._current = self.project.stack[0].id
        self._recovery = Recovery()
        self._kept: Project | None = None
        self._writing = threading.Lock()
        #: Shared by all documents: a tray may hold hundreds.
        self._autosaves = autosaves
        self._complained = False
        #: Runs from the first change on that is not kept yet; made then, for a tray may hold
        #: thousands of documents.
        self._timer: QTimer | None = None
        self._keep_after = keep_after

    # What there is

    @property
    def project(self) -> Project:
        return self.history.project

    @property
    def sieve(self) -> Sieve:
        """The sieve being worked on."""
        for sieve in self.project.stack:
            if sieve.id == self._current:
                return sieve
        self._current = self.project.stack[0].id
        return self.project.stack[0]

    def display_name(self) -> str:
        """Return the work's name in the title bar."""
        if self.path:
            return self.path.name
        return self.title or os.path.basename(self.project.source) or translate("Nothing open")

    # Changing

    def start(
        self, project: Project, path: pathlib.Path | None, title: str = "", unsaved: bool = False
    ) -> None:
        """Work on this from now on. ``unsaved``: it is not what its file holds."""
        self.history = History(project)
        if unsaved:
            self.history.mark_never_saved()
        self.path, self.title, self._kept = path, title, None
        self._digest = digest_of(path) if path is not None else ""
        self._current = project.stack[0].id
        self._recovery.falls = 0
        if unsaved:
            self._keep_soon()
        else:
            self._recovery.forget()

    def fell(self, times: int) -> None:
        """Note how many times the program crashed with this work open."""
        self._recovery.falls = times

    def edit(self, change: Callable[[Project], Project], what: str, group: str = "") -> None:
        """Go on to a changed project; steps in a row with the same ``group`` are one step."""
        try:
            project = change(self.project)
        except ValidationError as error:
            if error.errors()[0]["type"] != "too_long":
                raise  # a mistake of ours
            raise Trouble(
                translate(
                    "{what} does not go on: {complaint}. Undo what is too much, or begin another "
                    "sieve.",
                    what=what,
                    complaint=storage.first_complaint(error),
                )
            ) from None
        if project != self.project:
            self.history.push(project, what, group)
            self._tell_changed()

    def edit_sieve(self, change: Callable[[Sieve], Sieve], what: str, group: str = "") -> None:
        """Change the sieve being worked on."""
        self.edit(lambda project: project.with_sieve(change(self.sieve)), what, group)

    def undo(self) -> None:
        if self.history.undo():
            self._tell_changed()

    def go_to_step(self, number: int) -> None:
        """Go back or on to a step of the history."""
        if self.history.go_to(number):
            self._tell_changed()

    def redo(self) -> None:
        if self.history.redo():
            self._tell_changed()

    def select(self, sieve_id: str) -> None:
        """Work on this sieve from now on."""
        if sieve_id != self._current:
            self._current = sieve_id
            self.selection_changed.emit()

    @property
    def changed_elsewhere(self) -> bool:
        """Return whether the project's file is not what was read or written here last: another
        window or program has changed it.
        """
        path = self.path
        return (
            path is not None
            and path.exists()
            and blocking_call(lambda: digest_of(path)) != self._digest
        )

    def save(self, path: pathlib.Path, over: bool = False, replaced: bool = False) -> None:
        """Write the project, in a thread while the window goes on painting. ``replaced``: see
        `storage.save`.

        Raises
        ------
        Trouble: that fails, or the file was changed elsewhere meanwhile and ``over`` does not say
            that it is to be written over.
        """
        if path == self.path and not over and self.changed_elsewhere:
            raise Trouble(
                translate(
                    "{path} was changed by another window or program since it was read here: save "
                    "under another name.",
                    path=path,
                )
            )
        project = self.project

        def write() -> str:
            storage.save(project, path, replaced)
            return digest_of(path)

        self._digest = blocking_call(write)
        self.path = path
        self.history.mark_saved()
        self._recovery.forget()
        self._kept = None
        self.changed.emit()

    # Unsaved work

    def _tell_changed(self) -> None:
        self.changed.emit()
        self._keep_soon()

    def _keep_soon(self) -> None:
        if self._timer is None:
            self._timer = QTimer(self)
            self._timer.setSingleShot(True)
            self._timer.timeout.connect(self._autosave)
            self._not_kept.connect(self._keep_soon)
        if not self._timer.isActive():
            self._timer.start(round(1000 * self._keep_after))

    def _autosave(self) -> None:
        """Keep unsaved work if there is any that is not kept yet, off the interface thread: disks
        may be slow.
        """
        project = self.project
        if not self.history.changed:
            if self._kept is not None:
                self._kept = None
                self._recovery.forget()
        elif project != self._kept:
            self._kept = project
            title, path = self.display_name(), self.path
            self._autosaves.start(lambda: self._keep(project, title, path))

    def _keep(self, project: Project, title: str, path: pathlib.Path | None) -> None:
        with self._writing:
            if self._kept is not project:  # saved or changed meanwhile
                return
            try:
                self._recovery.keep(project, title, path)
                self._complained = False
            except Trouble as trouble:
                self._kept = None
                self._not_kept.emit()
                if not self._complained:
                    self._complained = True
                    self.failed.emit(str(trouble))

    def keep_now(self) -> None:
        """Keep unsaved work before this returns."""
        if self.history.changed:
            self._kept = self.project
            self._keep(self.project, self.display_name(), self.path)

    def end(self, keep: bool = False) -> None:
        """No more work; unsaved work is forgotten unless it is to be offered at the next start."""
        if self._timer is not None:
            self._timer.stop()
        if keep:
            self._recovery.falls = -1  # the program ends as it was told to: it did not fall
            self.keep_now()
        else:
            with self._writing:
                self._kept = None
                self._recovery.forget()
