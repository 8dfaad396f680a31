"""The part of the session for: opening, reading otherwise, the tray, saving and closing."""

from __future__ import annotations

import contextlib
import pathlib
from collections.abc import Callable
from typing import Any

import numpy as np

from ..errors import Trouble
from ..files import mark_of
from ..live.preview import Opened, Rendered, Shown, glimpse_of
from ..live.sampling import searched_again
from ..media.colour import spaces as colour_spaces
from ..media.footage.sequences import is_pattern
from ..media.formats import PROJECT
from ..media.opening import open_source
from ..media.source import Source
from ..progress import Progress
from ..project import clippings, edits, open_tray, storage
from ..project.finding import found_near
from ..project.model import Project, Sieve
from ..project.recovery import Left, discard
from ..resolve.sources import source_of
from . import preferences as settings
from .guard import NO_MEMORY, guarded
from .state import MissingSource, SessionState, beside
from .thumbnailer import reduced_words
from .tray import Entry


@guarded
class Opening(SessionState):
    """Opening, reading otherwise, the tray, saving and closing."""

    def _read_anew(self) -> None:
        """The picture is to be read otherwise: until it is, nothing is rendered; when it cannot be, that step is taken back."""
        opened, project = self.opened, self.project
        assert opened is not None
        path = opened.source.about.path

        def work() -> Callable[[], Source | Trouble]:
            def read() -> Source | Trouble:
                try:
                    source = source_of(project, path)
                    source.frame(0)
                except Trouble as trouble:
                    return trouble
                return source

            return read

        def then(source: Source | Trouble) -> None:
            if self.opened is not opened or self.project.reading != project.reading:
                if not isinstance(source, Trouble):
                    source.close()  # something else is wanted by now
                return
            if isinstance(source, Trouble):
                self.edit(lambda now: now.but(reading=opened.reading), "Read as before")
                self.trouble.emit(str(source))
                return
            opened.retire()
            self.tray.current.opened = Opened(source, project.reading)
            self.last = None
            self.source_changed.emit()
            self.ask()

        self._questions.ask(work, then)

    def read_as(self, **changes: object) -> None:
        """Read the picture otherwise: its part, its colour space, the white balance of a raw file."""
        reading = self.project.reading.but(**changes)
        if reading != self.project.reading:
            self.edit(lambda project: project.but(reading=reading), "Read the picture otherwise")

    def name_colour_spaces(self, then: Callable[[dict[str, list[str]]], None]) -> None:
        """Read the names of the colour configuration in a thread, for ``then``."""
        self._openings.queue("Reading the colour configuration", lambda progress: colour_spaces.names(), then)

    def set_working(self, name: str) -> None:
        """The linear space in whose channels CDL and curves work; "" for Rec. 709."""
        if name != self.project.working:
            self.edit(lambda project: project.but(working=name), "Working space")

    def set_display(self, name: str) -> None:
        """See and write the picture through a "display / view"; "" for none."""
        if name != self.project.display:
            self.edit(lambda project: project.but(display=name), "Display")

    def open(self, path: pathlib.Path, copy: bool = False) -> None:
        """Open a picture, a clip or a project, in the background; it is put on the tray. ``copy``: a project is not saved where it came
        from. What is open already is shown again."""
        path = pathlib.Path(path)
        there = self._entry_of(str(path.absolute()))
        if there is not None and not copy:
            self.go_to_picture(there)
            return
        if str(path) in self._being_opened and not copy:
            return

        def work(progress: Progress) -> tuple[Source, Project | None]:
            project = storage.load(path) if path.suffix.lower() == PROJECT else None
            if project and not project.source:
                raise Trouble(f"{path} names no picture: open a picture first.")
            return self._source_of(path, project)

        def done(result: tuple[Source, Project | None]) -> None:
            meanwhile = None if copy else self._entry_of(str(path.absolute()))
            if meanwhile is not None:
                result[0].close()
                self.go_to_picture(meanwhile)
            else:
                self._show(result[0], result[1], None if copy else path, path.stem if copy else "")

        self._being_opened.add(str(path))
        self._run_opening(path.name, work, done, str(path))

    def _entry_of(self, path: str) -> Entry | None:
        """The entry of the tray whose picture or project lies at an absolute path."""
        return next((e for e in self.tray.entries if path and path in (e.source, str(e.document.path or ""))), None)

    def open_many(self, paths: list[pathlib.Path]) -> None:
        """Put pictures, clips and projects on the tray; they are read when they are looked at. The first is shown."""
        first: Entry | None = None
        for path in paths:
            entry = self.tray.find(str(path.absolute()))
            if path.suffix.lower() == PROJECT or (entry is None and len(paths) == 1):
                self.open(path)
            elif entry is None:
                entry = self._unread(str(path.absolute()))
            first = first or entry
        self._note_tray()
        if first is not None:
            self.go_to_picture(first)

    def _unread(self, source: str, project: Project | None = None, path: pathlib.Path | None = None) -> Entry:
        entry = Entry(self._fresh_document())
        entry.document.start(project or Project(source=source), path)
        self.tray.add(entry)
        self.thumbnails.ask(entry)
        return entry

    def open_recovered(self, left: Left) -> None:
        """Go on with work that was left behind."""
        path = pathlib.Path(left.path) if left.path else None

        def done(result: tuple[Source, Project]) -> None:
            self._show(result[0], result[1], path, left.title, unsaved=True)
            self.document.fell(left.falls)
            self.document.keep_now()
            discard(left)
            if left.words:
                self.said.emit(left.words)

        self._run_opening(left.title, lambda progress: self._source_of(left.file, left.offered), done)

    def open_with_source(self, missing: MissingSource, source: pathlib.Path) -> None:
        """Open a project whose picture was found again by hand; where it is on the tray already, it is the same one that goes on."""
        entry = self.tray.current
        if entry.opened is None and entry.source == missing.project.source:
            self.find_again(source)
            return
        project = missing.project.but(source=str(source.absolute()))
        path = missing.path if missing.path.suffix.lower() == PROJECT else None
        self._run_opening(
            missing.path.name,
            lambda progress: self._source_of(missing.path, project),
            lambda result: self._show(result[0], result[1], path, unsaved=True),
        )

    def find_again(self, source: pathlib.Path) -> None:
        """Go on with the same work over another file: the picture was moved, or has changed."""
        entry, project = self.tray.current, self.project.but(source=str(source.absolute()))

        def done(result: tuple[Source, Project]) -> None:
            if entry is self.tray.current:
                if entry.opened:
                    entry.opened.retire()
                entry.opened, entry.size = Opened(result[0], project.reading), result[0].about.size
                self.edit(lambda now: now.but(source=project.source), "Find the picture again")
                self._picture_changed()

        self._run_opening(source.name, lambda progress: self._source_of(source, project), done)

    def _run_opening(self, name: str, work: Callable[[Progress], Any], done: Callable[[Any], None], path: str = "") -> None:
        def safely(progress: Progress) -> Any:
            try:
                return work(progress)
            except (MissingSource, Trouble, MemoryError) as trouble:
                return trouble
            finally:
                self._being_opened.discard(path)

        def then(result: Any) -> None:
            self.opening.emit("")
            if isinstance(result, MissingSource):
                self.missing.emit(result)
            elif isinstance(result, Trouble):
                self.trouble.emit(str(result))
            elif isinstance(result, MemoryError):
                self.trouble.emit(NO_MEMORY)
            else:
                done(result)

        self.opening.emit(name)
        self._openings.queue(f"Opening {name}", safely, then)

    @staticmethod
    def _source_of(path: pathlib.Path, project: Project | None) -> tuple[Source, Project | None]:
        """The source to work on, its first frame read once, and its project; one that was moved along with its folder is found."""
        wanted = pathlib.Path(project.source) if project else path
        if project and not wanted.exists() and not is_pattern(wanted):
            near = found_near(wanted, path) if path.suffix.lower() == PROJECT else None
            if near is None:
                raise MissingSource(f"{wanted} is not there any more: show where the picture is now.", path, project)
            wanted, project = near, project.but(source=str(near))
        source = source_of(project, wanted) if project else open_source(wanted)
        try:
            source.frame(0)
        except Exception:
            source.close()
            raise
        return source, project

    def _show(self, source: Source, project: Project | None, path: pathlib.Path | None, title: str = "", unsaved: bool = False) -> None:
        """Put what was opened on the tray, and show it."""
        start = project or Project(source=str(source.about.path.absolute()))
        entry = Entry(self._fresh_document())
        entry.document.start(start, path if project else None, title, unsaved)
        entry.opened, entry.size = Opened(source, start.reading), source.about.size
        clean = self.tray.find(start.source) if unsaved else None
        self.tray.add(entry)
        self.thumbnails.ask(entry)
        self._turn_to(entry)
        if clean is not None and not clean.document.history.changed:  # as it was before the work that was kept
            self.close_pictures([clean])
        for note in source.about.notes:
            self.said.emit(note)
        if start.source_mark and mark_of(source.about.path) not in ("", start.source_mark):
            self.said.emit(
                f"{source.about.path.name} has changed since the project was saved; File > Find the picture again… takes another."
            )
        self._remember(path if project and path else source.about.path)

    def go_to_picture(self, entry: Entry) -> None:
        """Show another picture of the tray: what was seen of it last at once, itself as soon as it is read."""
        if entry is self.tray.current and entry.opened is not None:
            return
        self._turn_to(entry)
        if entry.opened is None and entry.source:
            project, path = entry.document.project, entry.document.path or pathlib.Path(entry.source)

            def read() -> tuple[Source, Project | None] | MissingSource | Trouble:
                try:
                    return self._source_of(path, project)
                except (MissingSource, Trouble) as trouble:
                    return trouble

            self._questions.ask(lambda: read, lambda result: self._take_source(entry, result))

    def _take_source(self, entry: Entry, result: tuple[Source, Project | None] | MissingSource | Trouble) -> None:
        self.opening.emit("")
        if isinstance(result, MissingSource):
            self.missing.emit(result)
        elif isinstance(result, Trouble):
            self.trouble.emit(str(result))
        elif entry not in self.tray.entries or entry.opened is not None:
            result[0].close()
        else:
            source, project = result
            entry.opened, entry.size = Opened(source, entry.document.project.reading), source.about.size
            entry.number = min(entry.number, source.about.frames - 1)
            if project is not None and project.source != entry.source:
                entry.document.edit(lambda now: now.but(source=project.source), "Find the picture again")
            if entry is self.tray.current:
                self._picture_changed()
                for note in source.about.notes:
                    self.said.emit(note)

    def _turn_to(self, entry: Entry) -> None:
        self.playback.stop()
        self.watcher.end()
        self._watched_for = ()
        before = self.tray.current
        if self.last is not None and before is not entry:
            before.glimpse = glimpse_of(self.last)
        self._questions.forget()
        self.tray.turn_to(entry)
        self.tray.bring(entry)
        self.outlined = None
        self.shown = Shown(views=self.shown.views)
        self._picture_changed()
        if entry.opened is None and entry.glimpse is not None:
            self.glimpsed.emit(entry.glimpse)
        elif entry.opened is None and entry.source:
            self.opening.emit(entry.name)
        self.tray.changed.emit()
        self._note_tray()

    def _picture_changed(self) -> None:
        """Another picture is in the window, or it was read anew."""
        self.last = None
        self._promising = False
        self.source_changed.emit()
        self.project_changed.emit()
        self.selection_changed.emit()
        self.frame_changed.emit()
        self.ask()

    def next_picture(self, by: int) -> None:
        """Show the next picture of the tray, or the one before."""
        entries = self.tray.entries
        self.go_to_picture(entries[(entries.index(self.tray.current) + by) % len(entries)])

    def close_pictures(self, entries: list[Entry]) -> None:
        """Take pictures off the tray; their unsaved work goes with them."""
        # What is in the window goes last, so that nothing is shown that goes too.
        for entry in sorted(entries, key=lambda one: one is self.tray.current):
            entry.document.end()
            following = self.tray.remove(entry, Entry(self._fresh_document()))
            if entry is self.tray.current:
                self.last = None
                self.go_to_picture(following)
        self._note_tray()

    def close_all(self) -> None:
        """Take everything off the tray; unsaved work goes with it."""
        self.close_pictures(list(self.tray.entries))

    def start_over(self) -> None:
        """Put the stack back to one empty sieve; it can be undone."""
        source, reading = self.project.source, self.project.reading
        self.edit(lambda _: Project(source=source, reading=reading), "Start over")

    def share_stack(self, entries: list[Entry], on: bool) -> None:
        """Let pictures have one stack between them, or each its own again."""
        for entry in sorted(entries, key=lambda one: one is not self.tray.current):
            self.tray.share(entry, on)

    def paste_to(self, entries: list[Entry], text: str, search: bool = False) -> None:
        """Add the sieves of a text to the stacks of several pictures; ``search`` finds the tolerances of their samples on each anew."""
        sieves = clippings.sieves_in(text)
        if not search:
            for entry in entries:
                entry.document.edit(lambda project: edits.with_pasted(project, sieves)[0], "Paste")
            self.said.emit(f"Pasted {', '.join(sieve.name for sieve in sieves)} into {len(entries)} pictures")
            return

        def work(progress: Progress) -> list[tuple[Entry, tuple[Sieve, ...] | str]]:
            found: list[tuple[Entry, tuple[Sieve, ...] | str]] = []
            for number, entry in enumerate(entries, 1):
                try:
                    with contextlib.closing(source_of(entry.document.project)) as source:
                        found.append((entry, tuple(searched_again(sieve, source.frame(0)) for sieve in sieves)))
                except Trouble as trouble:
                    found.append((entry, str(trouble)))
                progress.step(number / len(entries))
            return found

        def then(found: list[tuple[Entry, tuple[Sieve, ...] | str]]) -> None:
            for entry, result in found:
                if isinstance(result, str):
                    self.trouble.emit(result)
                else:
                    entry.document.edit(lambda project, result=result: edits.with_pasted(project, result)[0], "Paste")  # type: ignore[misc]

        self.tasks.run("Finding tolerances", work, then)

    def restore_tray(self) -> bool:
        """Put on the tray what was open when the program ended last, and show the same of it; not True when that was nothing."""
        try:
            left = open_tray.take_over(self.trouble.emit)
        except (Trouble, OSError):  # the folder cannot be used: there is nothing to restore, and nothing will be noted
            return False

        def read() -> list[tuple[open_tray.Row, Project | None]]:
            found: list[tuple[open_tray.Row, Project | None]] = []
            for row in left.rows:
                try:
                    found.append((row, storage.load(pathlib.Path(row.project)) if row.project else None))
                except Trouble as trouble:
                    troubles.append(str(trouble))
            return found

        def then(found: list[tuple[open_tray.Row, Project | None]]) -> None:
            for words in troubles:
                self.trouble.emit(words)
            entries: list[Entry] = []
            current: Entry | None = None
            for row, project in found:
                if self._entry_of(row.project or row.source) is not None:
                    continue  # it was opened meanwhile
                entry = self._unread(row.source, project, pathlib.Path(row.project) if row.project else None)
                entry.number = row.frame
                entries.append(entry)
                current = entry if row is left.rows[left.current] else current
                if row.shared:
                    self.tray.share(entry, True)
            if entries and self.tray.current.blank:
                self.go_to_picture(current or entries[-1])
            self._note_tray()

        troubles: list[str] = []
        if left.rows:
            self._questions.ask(lambda: read, then)
        return bool(left.rows)

    def _note_tray(self) -> None:
        with contextlib.suppress(Trouble, OSError):  # that it cannot be noted need not stop anybody
            open_tray.note(self.tray.noted)

    def _take_thumbnail(self, entry: Entry, words: np.ndarray | None) -> None:
        if words is not None and entry.thumbnail is None:
            entry.thumbnail = words
            self.tray.changed.emit()

    def _remember(self, path: pathlib.Path) -> None:
        """Keep what was opened among the recent files; that it could not be kept need not stop anybody."""
        name = str(pathlib.Path(path).absolute())
        recent = (name, *(other for other in self.preferences.recent if other != name))[: settings.LONGEST]
        self.preferences = self.preferences.but(recent=recent)
        with contextlib.suppress(Trouble):
            settings.save(self.preferences)

    def save(self, path: pathlib.Path, over: bool = False) -> bool:
        """Write the project; not True when it could not be written (it is said why). ``over``: whatever its file holds by now."""
        self.document.save(path, over)
        self.said.emit(f"Saved {path.name}")
        return True

    def _renew_thumbnail(self, result: Rendered) -> None:
        """The thumbnail of what is in the window shows its result."""
        words = result.pictures.get("result")
        if words is not None and not result.wanted.hurried and len(self.tray.entries) > 1 and result.wanted.shown.box == (0, 0, 0, 0):
            self.tray.current.thumbnail = reduced_words(words)
            self.tray.changed.emit()

    def bring_shared(self) -> None:
        """Give all pictures with the shared stack that stack as it is now: until then they get it when they are shown."""
        for entry in self.tray.entries:
            self.tray.bring(entry)

    def keep_now(self) -> None:
        """Keep all unsaved work before this returns."""
        for entry in self.tray.entries:
            entry.document.keep_now()

    @property
    def unsaved(self) -> list[Entry]:
        """The pictures of the tray with work that is not saved."""
        return [entry for entry in self.tray.entries if entry.document.history.changed]

    def save_all(self) -> bool:
        """Save all unsaved work: where it was saved before, else beside its picture; not True when something could not be written. What
        was changed elsewhere meanwhile is saved beside that, and it is said."""
        for entry in self.unsaved:
            path = entry.document.path
            if path is not None and entry.document.changed_elsewhere:
                entry.document.save(beside(path))
                self.trouble.emit(f"{path.name} was changed by another window or program: your work is saved beside it as {entry.name}.")
            else:
                entry.document.save(path or beside(pathlib.Path(entry.source)))
        return True

    def close(self, keep_work: bool = False) -> None:
        """Stop the threads and let go of files; unsaved work is kept for the next start only when that is wished."""
        self._note_tray()
        self.playback.stop()
        self.watcher.end()
        for entry in self.tray.entries:
            entry.document.end(keep_work)
        self._questions.end()
        self.thumbnails.end()
        self._openings.end()
        self.tasks.end()
        self.jobs.end()
        self._renderer.end()
        for entry in self.tray.entries:
            if entry.opened:
                entry.opened.retire()
