"""What all parts of the session share (`session.py` puts them together): it holds the document, the tools, the threads and the renderer, and tells what changed.

Widgets ask here and listen here. They keep no copy of the model and call no kernel. What takes time runs in threads: the
interface thread decodes, samples and renders nothing.
"""

from __future__ import annotations

import itertools
import pathlib
from collections.abc import Callable
from dataclasses import replace
from typing import Any

import numpy as np
from PyQt6.QtCore import QObject, QTimer, pyqtSignal

from ..core.edge.islands import Island
from ..errors import Trouble
from ..files import regular_file
from ..live.preview import Opened, Rendered, Shown, Wanted, difference_of, make_waiting_fine, preview
from ..live.seen import Seen
from ..live.watching import Course
from ..media.colour import screens
from ..media.formats import PROJECT
from ..progress import Progress
from ..project import edits, tracks
from ..project.history import History
from ..project.model import Project, Sieve
from ..render.cache import Cache
from ..render.inspect import deciding_sample
from ..render.views import Looking
from . import preferences as settings
from .away import away
from .document import Document
from .guard import guarded
from .memory import stages_may_keep
from .playback import Playback
from .thumbnailer import Thumbnailer
from .tools import Tools
from .tray import Entry, Tray
from .watcher import Watcher
from .workers import JobRunner, Questions, Renderer

MEGABYTE = 1_000_000
#: Milliseconds after the last step of a drag from which on it rests.
REST = 250


def beside(source: pathlib.Path) -> pathlib.Path:
    """A name for a project beside its picture that is not taken yet."""
    names = itertools.chain([source.with_suffix(PROJECT)], (source.with_name(f"{source.stem}-{k}{PROJECT}") for k in itertools.count(2)))
    return next(name for name in names if not name.exists())


class MissingSource(Trouble):
    """The picture of a project is not where it was; the person may point to it."""

    def __init__(self, message: str, path: pathlib.Path, project: Project) -> None:
        super().__init__(message)
        self.path, self.project = path, project


@guarded
class SessionState(QObject):
    """The state of the work, as signals and methods."""

    project_changed = pyqtSignal()
    source_changed = pyqtSignal()
    frame_changed = pyqtSignal()
    selection_changed = pyqtSignal()
    rendered = pyqtSignal(object)
    trouble = pyqtSignal(str)
    mishap = pyqtSignal(str, str)
    said = pyqtSignal(str)
    job_changed = pyqtSignal(object)
    opening = pyqtSignal(str)
    missing = pyqtSignal(object)
    glimpsed = pyqtSignal(object)
    watched = pyqtSignal(object)
    pointed = pyqtSignal(object)
    islands_found = pyqtSignal(list)
    clicked = pyqtSignal(object)
    #: The place and the colour that a click there would take.
    promised = pyqtSignal(object)
    changed_mask = pyqtSignal(object)
    haze_found = pyqtSignal(str)
    believable_found = pyqtSignal(object)
    picking = pyqtSignal()
    preferences_changed = pyqtSignal()

    def __init__(self) -> None:
        super().__init__()
        self.preferences = settings.load()
        self.tools = Tools()
        self.outlined: Island | None = None
        self.field_follows_view = False
        self.looking = Looking(
            veil_colour=self.preferences.veil_colour, veil_opacity=self.preferences.veil_opacity / 100,
            screen=self.preferences.screen_profile if pathlib.Path(self.preferences.screen_profile).is_file() else "",
        )  # fmt: skip
        self.shown = Shown()
        self.last: Rendered | None = None
        #: What was shown before the last click, until what came of it is shown.
        self._before: Rendered | None = None
        self.tray = Tray(Entry(self._fresh_document()))
        #: Paths of what is being opened: asked for again meanwhile, they are not opened twice.
        self._being_opened: set[str] = set()
        self.thumbnails = Thumbnailer()
        self.thumbnails.made.connect(self._take_thumbnail)
        #: Reading what was opened, beside whatever else runs.
        self._openings = JobRunner()
        self._openings.failed.connect(self._failed)
        self.playback = Playback(self)
        for changed in (self.playback.changed, self.tray.changed, self.source_changed):
            changed.connect(self._fit_cache)
        self.watcher = Watcher(lambda: not self.playback.playing and self._renderer.idle and self._questions.idle and self.jobs.idle)
        self.watcher.found.connect(self._take_course)
        self._watches, self._course = False, Course()
        #: What the course that is watched was begun for.
        self._watched_for: tuple[object, ...] = ()
        #: Exports, which queue; and what a person waits for meanwhile, one at a time.
        self.jobs, self.tasks = JobRunner(), JobRunner()
        for runner in (self.jobs, self.tasks):
            runner.changed.connect(lambda _: self.job_changed.emit(self.tasks.job or self.jobs.job or self.jobs.quiet))
            runner.failed.connect(self._failed)
            runner.said.connect(self.said)
        self._questions = Questions()
        self._questions.failed.connect(self._failed)
        #: Where the colour of a click is asked for, and whether it is being found.
        self._promise: tuple[int, int] | None = None
        self._promising = False
        self._early: dict[str, dict[str, object]] = {}
        #: Something is being dragged; a drag that stops without an end rests by itself.
        self._hurried = False
        self._counts_mask = False
        self._calm = QTimer(self)
        self._calm.setSingleShot(True)
        self._calm.timeout.connect(self._rest)
        self._cache = Cache(round(self.preferences.cache_megabytes * MEGABYTE))
        self._renderer = Renderer()
        self._renderer.done.connect(self._take)
        self._renderer.failed.connect(self._failed)

    def _fresh_document(self) -> Document:
        document = Document(self.preferences.autosave_seconds)
        document.changed.connect(lambda: self._changed(document))
        document.selection_changed.connect(lambda: self._selected(document))
        document.failed.connect(self.trouble)
        return document

    # What is there

    @property
    def document(self) -> Document:
        """The work on what is in the window."""
        return self.tray.current.document

    @property
    def opened(self) -> Opened | None:
        """What is in the window, None while it is not read."""
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
        return self.document.project

    @property
    def history(self) -> History:
        return self.document.history

    @property
    def path(self) -> pathlib.Path | None:
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
        return self.opened.source.about.frames if self.opened else 0

    @property
    def idle(self) -> bool:
        works = (self._renderer, self.jobs, self.tasks, self._questions, self._openings, self.thumbnails)
        return not self._hurried and all(work.idle for work in works)

    def display_name(self) -> str:
        """What the title bar calls the work."""
        return self.document.display_name()

    def _failed(self, message: str, details: str) -> None:
        self.opening.emit("")  # whatever it was, nothing is being opened by it any more
        if details:
            self.mishap.emit(message, details)
        else:
            self.trouble.emit(message)

    # Editing

    def edit(self, change: Callable[[Project], Project], what: str, group: str = "") -> None:
        """Go on to a changed project; with a ``group`` it is one step of a drag, and shown in a hurry until `end_drag`."""
        self._hurried = bool(group)
        self.document.edit(change, what, group)

    def edit_sieve(self, change: Callable[[Sieve], Sieve], what: str, group: str = "") -> None:
        """Change the sieve being worked on; see `edit`."""
        self._hurried = bool(group)
        frame = self.number

        def keyed(sieve: Sieve) -> Sieve:
            return tracks.recorded(sieve, change(tracks.at_frame(sieve, frame)), frame) if sieve.tracks else change(sieve)

        self.document.edit_sieve(keyed, what, group)

    def set_field(self, path: str, value: object, what: str, group: str = "") -> None:
        """Set a field of the current sieve, named by its way, as in "edge.follow"."""
        self.edit_sieve(lambda sieve: edits.with_field(sieve, path, value), what, group)

    def set_gamut(self, gamut: str) -> None:
        """How colours outside the output gamut are brought back."""
        self.edit(lambda project: project.but(gamut=gamut), "Gamut")

    def end_drag(self) -> None:
        """A drag has ended: the next edit is a step of its own, and what was shown in a hurry is shown as it is."""
        self.history.close_group()
        self._rest()

    def _rest(self) -> None:
        """Nothing is being dragged any more."""
        if self._hurried:
            self._hurried = False
            self.ask()

    def undo(self) -> None:
        self.document.undo()

    def redo(self) -> None:
        self.document.redo()

    def _changed(self, document: Document) -> None:
        if document is not self.document:  # another picture of the tray has got a sieve
            self.tray.changed.emit()
            return
        self.tray.note(self.tray.current)
        self.project_changed.emit()
        if self.opened and self.opened.reading != self.project.reading:
            self._read_anew()
        else:
            self.ask()

    def _selected(self, document: Document) -> None:
        if document is self.document:
            self.selection_changed.emit()
            self.ask()

    def select(self, sieve_id: str) -> None:
        """Work on this sieve from now on."""
        self.document.select(sieve_id)

    def _ask_about(self, work: Callable[[Seen], Any], then: Callable[[Any], None]) -> None:
        """Ask something of what the current sieve measures, in a thread; ``then`` gets the answer here."""

        def prepare() -> Callable[[], Any]:
            opened, project, sieve_id, number, cache = self.opened, self.project, self.sieve.id, self.number, self._cache

            def answer() -> Any:
                assert opened is not None
                with opened.read():
                    return work(Seen(opened, project, sieve_id, number, cache))

            return answer

        if self.opened is not None:
            self._questions.ask(prepare, then)

    def run(self, title: str, work: Callable[[Progress], object], then: Callable[[Any], None]) -> None:
        """Run long work with progress, one at a time."""
        self.jobs.run(title, work, then)

    def wait_for(self, title: str, work: Callable[[Progress], object], then: Callable[[Any], None]) -> None:
        """Run what a person waits for, beside whatever is being exported."""
        self.tasks.run(title, work, then)

    def stop_job(self) -> None:
        """Ask what is shown as running to stop: what is waited for before an export."""
        (self.tasks if self.tasks.job is not None else self.jobs).stop()

    def _fit_cache(self) -> None:
        allowed = round(self.preferences.cache_megabytes * MEGABYTE)
        self._cache.resize(stages_may_keep(allowed, self.tray.bytes_behind, self.playback.playing))

    def prefer(self, **changes: object) -> None:
        """Change preferences, keep them, and use them from now on."""
        changed = self.preferences.but(**changes)
        if changed == self.preferences:
            return
        self.preferences = changed
        self._fit_cache()
        for entry in self.tray.entries:
            entry.document.set_autosave(changed.autosave_seconds)
        self.look(veil_colour=changed.veil_colour, veil_opacity=changed.veil_opacity / 100, screen=changed.screen_profile)
        self.preferences_changed.emit()
        settings.save(changed)

    # Rendering

    def go_to(self, number: int) -> None:
        """Show another frame."""
        self.playback.stop()
        number = min(max(number, 0), max(self.frames - 1, 0))
        if number != self.number:
            self.tray.current.number = number
            if self.document.sieve.tracks:
                self.selection_changed.emit()
            self.frame_changed.emit()
            self.ask()

    def set_between(self, first: int | None, last: int | None) -> None:
        """Set the in and the out point; None and None for all frames."""
        end = max(self.frames - 1, 0)
        if first is None and last is None:
            self.tray.current.between = None
        else:
            low, high = sorted((min(max(first or 0, 0), end), min(end if last is None else max(last, 0), end)))
            self.tray.current.between = (low, high)
        self.frame_changed.emit()

    @property
    def keyframes(self) -> tuple[int, ...]:
        """Frames at which something of the current sieve has a key."""
        return tracks.keyframes_of(self.document.sieve)

    def show(self, shown: Shown) -> None:
        """The canvas wants to see this."""
        other, self.shown = shown != self.shown, shown
        if other or self.playback.playing:
            self.ask()

    def look(self, **changes: Any) -> None:
        """Draw the views otherwise from now on: see `Looking`."""
        looking = replace(self.looking, **changes)
        if looking != self.looking:
            self.looking = looking
            self.ask()

    def proof(self, path: pathlib.Path | None) -> None:
        """Show the picture as an ICC profile would; None for not. Raises `Trouble` when it cannot be used."""
        if path is not None:
            away(lambda: screens.proof_tables(str(path), regular_file(path).stat().st_mtime_ns))
        self.look(proof=str(path) if path else "")
        self.said.emit(f"Soft proof of {path.name}; magenta is outside its gamut" if path else "No soft proof")

    def use_screen_profile(self, path: pathlib.Path | None) -> None:
        """Draw everything as the screen's profile wants it, from now on; raises `Trouble` when it cannot be used."""
        if path is not None:
            away(lambda: screens.screen_table(str(path), regular_file(path).stat().st_mtime_ns))
        self.prefer(screen_profile=str(path) if path else "")

    def follow_view(self, on: bool) -> None:
        """Count colours over what is seen, or over the whole picture."""
        self.field_follows_view = on
        self.ask()

    def light_at(self, x: int, y: int) -> tuple[float, float, float] | None:
        """Linear light of a pixel of the picture, None outside it or while it is not read yet."""
        frame = self.opened.held(self.number) if self.opened else None
        if frame is None or not (0 <= x < frame.width and 0 <= y < frame.height):
            return None
        red, green, blue = (float(v) for v in frame.planes[:, y, x])
        return red, green, blue

    def decides(self, light: tuple[float, float, float], masked: float | None = None) -> str:
        """Name of the sample that decides about a pixel with this colour and mask."""
        return deciding_sample(light, self.sieve, masked)

    def wanted(self) -> Wanted:
        """All that the next render depends on besides the source."""
        return Wanted(
            self.project, self.sieve.id, self.number, self.shown, self.looking, self.field_follows_view, self._hurried, self._counts_mask
        )

    def ask(self) -> None:
        """Render what is shown, with the newest state."""
        if self.playback.playing:
            self.playback.renew()
        elif self.opened:
            opened, wanted, cache = self.opened, self.wanted(), self._cache
            if self._hurried:
                self._calm.start(REST)
            self._renderer.ask(lambda: (opened, preview(opened, wanted, cache)))

    def _take(self, answer: tuple[Opened, Rendered]) -> None:
        opened, result = answer
        if opened is not self.opened:  # another picture has been opened meanwhile
            return
        if result.lost and (self.last is None or self.last.lost != result.lost or self.last.wanted.number != result.wanted.number):
            self.said.emit(f"Place lost on this frame: {', '.join(result.lost)}; take the sample again here.")
        if self.playback.playing:  # asked for before playing began
            return
        self.last = result
        self.rendered.emit(result)
        self._watch_on()
        self._renew_thumbnail(result)
        if self._before is not None and result.wanted.project == self.project:
            self.changed_mask.emit(difference_of(self._before, result))
            self._before = None
        if result.waiting and result.wanted.project == self.project:
            cache = self._cache
            self.jobs.run_quietly("Fine edge", lambda progress: make_waiting_fine(result, cache, progress.step), lambda _: self.ask())

    # What the parts do when their turn comes

    def _read_anew(self) -> None:
        """The picture is to be read otherwise (`session_opening`)."""

    def _watch_on(self) -> None:
        """What is watched may have changed (`session_over_time`)."""

    def _take_course(self, course: Course) -> None:
        """More of a clip was watched (`session_over_time`)."""

    def _take_thumbnail(self, entry: Entry, words: np.ndarray | None) -> None:
        """A thumbnail was made (`session_opening`)."""

    def _renew_thumbnail(self, result: Rendered) -> None:
        """Something was rendered (`session_opening`)."""
