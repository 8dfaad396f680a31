"""The pictures and clips that are open: opening, going from one to another, closing, what was open
last.
"""

from __future__ import annotations

import contextlib
import pathlib
from collections.abc import Callable
from typing import Any

from PyQt6.QtCore import QCoreApplication, QEventLoop, QObject, pyqtSignal

from ...errors import Trouble
from ...files import mark_of
from ...language import translator
from ...live.glimpse import glimpse_of
from ...live.preview import Opened
from ...media.formats import PROJECT
from ...media.source import Source
from ...progress import Progress
from ...project import open_tray, storage
from ...project.model import Project
from ..background.guard import NO_MEMORY, guarded
from ..background.thumbnailer import Thumbnailer
from ..background.workers import Workers
from ..clip.clip import ClipController
from ..clip.playback import Playback
from ..preferences import PreferenceStore
from ..speech import Speech
from ..viewing.viewing import Viewing
from .opening import MissingSource, opened_source, work_beside
from .tray import Entry
from .work import Work

translate = translator("workspace")


#: Pictures that are put on the tray between two looks at the window's events.
AT_ONCE = 50


@guarded
class Pictures(QObject):
    """The entries of the tray, and which of them is in the window. `opening` names what is being
    opened ("" for nothing any more), `missing` comes with a `MissingSource`.
    """

    opening = pyqtSignal(str)
    missing = pyqtSignal(object)
    #: A picture was opened together with this project, which lay beside it.
    brought = pyqtSignal(str)

    def __init__(
        self,
        work: Work,
        viewing: Viewing,
        workers: Workers,
        clip: ClipController,
        playback: Playback,
        preferences: PreferenceStore,
        speech: Speech,
    ) -> None:
        super().__init__()
        self.speech = speech
        self._work, self._viewing, self._workers = work, viewing, workers
        self._clip, self._playback, self._preferences = clip, playback, preferences
        self._tray = work.tray
        #: Paths of what is being opened: asked for again meanwhile, they are not opened twice.
        self._being_opened: set[str] = set()
        self.thumbnails = Thumbnailer()
        self.thumbnails.made.connect(work.tray.take_thumbnail)
        viewing.rendered.connect(work.tray.renew_thumbnail)
        # A job that failed opens nothing any more.
        workers.failed.connect(lambda *_: self.opening.emit(""))

    def open(self, path: pathlib.Path, copy: bool = False) -> None:
        """Open a picture, a clip or a project, in the background; it is put on the tray. ``copy``:
        a project is not saved where it came from. What is open already is shown again.
        """
        path = pathlib.Path(path)
        there = self.entry_of(str(path.absolute()))
        if there is not None and not copy:
            self.go_to(there)
            return
        if str(path) in self._being_opened and not copy:
            return

        def work(progress: Progress) -> tuple[Source, Project | None]:
            project = storage.load(path) if path.suffix.lower() == PROJECT else None
            if project and not project.source:
                raise Trouble(
                    translate("{path} names no picture: open a picture first.", path=path)
                )
            return opened_source(path, project)

        def done(result: tuple[Source, Project | None]) -> None:
            meanwhile = None if copy else self.entry_of(str(path.absolute()))
            if meanwhile is not None:
                result[0].close()
                self.go_to(meanwhile)
            else:
                self._show(result[0], result[1], None if copy else path, path.stem if copy else "")

        self._being_opened.add(str(path))
        self._run_opening(path.name, work, done, str(path))

    def entry_of(self, path: str) -> Entry | None:
        """The entry of the tray whose picture or project lies at an absolute path."""
        return next(
            (
                e
                for e in self._tray.entries
                if path and path in (e.source, str(e.document.path or ""))
            ),
            None,
        )

    def open_many(self, paths: list[pathlib.Path]) -> None:
        """Put pictures, clips and projects on the tray; they are read when they are looked at. The
        first is shown.
        """
        first: Entry | None = None
        known = {entry.source: entry for entry in reversed(self._tray.entries)}
        with self._tray.all_at_once():
            for number, path in enumerate(paths, 1):
                if number % AT_ONCE == 0:  # the window goes on painting
                    QCoreApplication.processEvents(
                        QEventLoop.ProcessEventsFlag.ExcludeUserInputEvents
                    )
                entry = known.get(str(path.absolute()))
                work = work_beside(path) if entry is None else None
                if work is not None:
                    entry = self.add_unread(str(path.absolute()), work[1], work[0])
                    entry.came_with = work[0].name
                elif path.suffix.lower() == PROJECT or (entry is None and len(paths) == 1):
                    self.open(path)
                elif entry is None:
                    entry = self.add_unread(str(path.absolute()))
                if entry is not None:
                    known.setdefault(entry.source, entry)
                first = first or entry
        self.note_tray()
        if first is not None:
            self.go_to(first)

    def add_unread(
        self, source: str, project: Project | None = None, path: pathlib.Path | None = None
    ) -> Entry:
        """Put a picture on the tray without reading it; its thumbnail comes."""
        entry = Entry(self._work.fresh_document())
        entry.document.start(project or Project(source=source), path)
        self._tray.add(entry)
        self.thumbnails.ask(entry, entry.document.project)
        return entry

    def open_with_source(self, missing: MissingSource, source: pathlib.Path) -> None:
        """Open a project whose picture was found again by hand; where it is on the tray already, it
        is the same one that goes on.
        """
        entry = self._tray.current
        if entry.opened is None and entry.source == missing.project.source:
            self.find_again(source)
            return
        project = missing.project.but(source=str(source.absolute()))
        path = missing.path if missing.path.suffix.lower() == PROJECT else None
        self._run_opening(
            missing.path.name,
            lambda progress: opened_source(missing.path, project),
            lambda result: self._show(result[0], result[1], path, unsaved=True),
        )

    def find_again(self, source: pathlib.Path) -> None:
        """Go on with the same work over another file: the picture was moved, or has changed."""
        entry, project = self._tray.current, self._work.project.but(source=str(source.absolute()))

        def done(result: tuple[Source, Project]) -> None:
            if entry is self._tray.current:
                if entry.opened:
                    entry.opened.retire()
                entry.opened, entry.size = Opened(result[0], project.reading), result[0].about.size
                self._work.edit(
                    lambda now: now.but(source=project.source),
                    translate("Locate the picture"),
                )
                self._picture_changed()

        self._run_opening(source.name, lambda progress: opened_source(source, project), done)

    def _run_opening(
        self,
        name: str,
        work: Callable[[Progress], Any],
        done: Callable[[Any], None],
        path: str = "",
    ) -> None:
        def safely(progress: Progress) -> Any:
            try:
                return work(progress)
            except (MissingSource, Trouble, MemoryError) as trouble:
                return trouble
            finally:
                self._being_opened.discard(path)

        def then(result: Any) -> None:
            if not self._went_wrong(result):
                done(result)

        self.opening.emit(name)
        self._workers.openings.queue(translate("Opening {name}", name=name), safely, then)

    def _went_wrong(self, result: Any) -> bool:
        """Say that nothing is being opened any more, and what went wrong if anything did."""
        self.opening.emit("")
        if isinstance(result, MissingSource):
            self.missing.emit(result)
        elif isinstance(result, Trouble):
            self.speech.trouble.emit(str(result))
        elif isinstance(result, MemoryError):
            self.speech.trouble.emit(NO_MEMORY)
        else:
            return False
        return True

    def _show(
        self,
        source: Source,
        project: Project | None,
        path: pathlib.Path | None,
        title: str = "",
        unsaved: bool = False,
    ) -> None:
        """Put what was opened on the tray, and show it."""
        start = project or Project(source=str(source.about.path.absolute()))
        entry = Entry(self._work.fresh_document())
        entry.document.start(start, path if project else None, title, unsaved)
        entry.opened, entry.size = Opened(source, start.reading), source.about.size
        clean = self._tray.find(start.source) if unsaved else None
        self._tray.add(entry)
        self.thumbnails.ask(entry, start, entry.opened)
        self._turn_to(entry)
        if (
            clean is not None and not clean.document.history.changed
        ):  # as it was before the work that was kept
            self.close([clean])
        for note in source.about.notes:
            self.speech.said.emit(note)
        if start.source_mark and mark_of(source.about.path) not in ("", start.source_mark):
            self.speech.said.emit(
                translate(
                    "{name} has changed since the project was saved; File > Locate the picture… "
                    "takes another.",
                    name=source.about.path.name,
                )
            )
        self._preferences.remember(path if project and path else source.about.path)

    def go_to(self, entry: Entry) -> None:
        """Show another picture of the tray: what was seen of it last at once, itself as soon as it
        is read.
        """
        if entry is self._tray.current and entry.opened is not None:
            return
        self._turn_to(entry)
        if entry.opened is None and entry.source:
            project, path = (
                entry.document.project,
                entry.document.path or pathlib.Path(entry.source),
            )

            def read() -> tuple[Source, Project | None] | MissingSource | Trouble:
                try:
                    return opened_source(path, project)
                except (MissingSource, Trouble) as trouble:
                    return trouble

            self._workers.questions.ask(
                lambda: read, lambda result: self._take_source(entry, result)
            )

    def _take_source(self, entry: Entry, result: Any) -> None:
        if self._went_wrong(result):
            return
        source, project = result
        if entry not in self._tray.entries or entry.opened is not None:
            source.close()
            return
        entry.opened = Opened(source, entry.document.project.reading)
        entry.size = source.about.size
        entry.number = min(entry.number, source.about.frames - 1)
        if project is not None and project.source != entry.source:
            entry.document.edit(
                lambda now: now.but(source=project.source), translate("Locate the picture")
            )
        if entry is self._tray.current:
            self._picture_changed()
            for note in source.about.notes:
                self.speech.said.emit(note)
            if entry.came_with:
                self._preferences.remember(entry.document.path or pathlib.Path(entry.source))
                self.brought.emit(entry.came_with)
                entry.came_with = ""

    def _turn_to(self, entry: Entry) -> None:
        self._playback.stop()
        self._clip.forget_course()
        before = self._tray.current
        if self._viewing.last is not None and before is not entry:
            before.glimpse = glimpse_of(self._viewing.last)
        self._workers.questions.forget()
        self._tray.turn_to(entry)
        self._tray.bring(entry)
        self._viewing.forget_place()
        self._picture_changed()
        if entry.opened is None and entry.glimpse is not None:
            self._viewing.glimpsed.emit(entry.glimpse)
        elif entry.opened is None and entry.source:
            self.opening.emit(entry.name)
        self._tray.changed.emit()
        self.note_tray()

    def _picture_changed(self) -> None:
        """Another picture is in the window, or it was read anew."""
        self._viewing.forget()
        self._work.source_changed.emit()
        self._work.changed.emit()
        self._work.selection_changed.emit()
        self._work.frame_changed.emit()
        self._viewing.ask()

    def go_by(self, by: int) -> None:
        """Show the next picture of the tray, or the one before."""
        entries = self._tray.entries
        self.go_to(entries[(entries.index(self._tray.current) + by) % len(entries)])

    def close(self, entries: list[Entry]) -> None:
        """Take pictures off the tray; their unsaved work goes with them."""
        # What is in the window goes last, so that nothing is shown that goes too.
        for entry in sorted(entries, key=lambda one: one is self._tray.current):
            entry.document.end()
            following = self._tray.remove(entry, Entry(self._work.fresh_document()))
            if entry is self._tray.current:
                self._viewing.forget()
                self.go_to(following)
        self.note_tray()

    def close_all(self) -> None:
        """Take everything off the tray; unsaved work goes with it."""
        self.close(list(self._tray.entries))

    def note_tray(self) -> None:
        """Note what is open, for the next start."""
        with contextlib.suppress(Trouble, OSError):  # that it cannot be noted need not stop anybody
            open_tray.note(self._tray.noted)

    def end(self, keep_work: bool) -> None:
        """Let go of everything that is open; unsaved work is kept for the next start only when that
        is wished.
        """
        self.note_tray()
        for entry in self._tray.entries:
            entry.document.end(keep_work)
        self.thumbnails.end()

    def retire(self) -> None:
        """Close the files; their last readers have ended."""
        for entry in self._tray.entries:
            if entry.opened:
                entry.opened.retire()
