"""The one door between widgets and the rest: it holds the document, the tools, the threads and the renderer, and tells what changed.

Widgets ask here and listen here. They keep no copy of the model and call no kernel. What takes time runs in threads: the
interface thread decodes, samples and renders nothing.
"""

from __future__ import annotations

import contextlib
import itertools
import math
import pathlib
from collections.abc import Callable
from dataclasses import replace
from typing import Any

import numpy as np
from PyQt6.QtCore import QObject, QTimer, pyqtSignal

from ..core.adjust.white import neutral
from ..core.areas.scissors import clinging_path
from ..core.bands.starts import tonal
from ..core.edge.islands import Island, islands_of
from ..core.frame import Frame, patch
from ..core.pick.fit import Fit
from ..errors import Trouble
from ..files import mark_of, regular_file
from ..jobs.batch import Outcome, run_batch
from ..jobs.clicking import Clicked, clicked
from ..jobs.clip import ClipExport, export_clip
from ..jobs.export import Export, export
from ..jobs.layers import layers_in
from ..jobs.lookup import Compared, compared, write_lookup
from ..jobs.outlining import outlined
from ..jobs.preview import Opened, Rendered, Shown, Wanted, difference_of, glimpse_of, make_waiting_fine, preview
from ..jobs.progress import Progress
from ..jobs.sampling import bands_from_samples, fitted, sample_along, sample_at, searched_again, taken_again
from ..jobs.seen import Seen
from ..jobs.sources import source_of
from ..jobs.still import export_mask, export_still
from ..jobs.tracking import Moves, Tracked, track, with_tracked
from ..jobs.watching import Course
from ..media import cdl_files, lookup_files, screens
from ..media.formats import PROJECT, is_clip, is_picture
from ..media.opening import open_source
from ..media.sequences import is_pattern
from ..media.source import Source
from ..names import AreaMode, Between, MaskFrom
from ..project import clippings, edits, presets, sieve_presets, storage, tracks
from ..project.finding import found_near
from ..project.history import History
from ..project.model import Area, Joined, Pick, Project, Sample, Sieve, fresh_id
from ..project.recovery import Left, discard
from ..render.believable import Believable, believable_of
from ..render.cache import Cache
from ..render.haze import haze_of
from ..render.inspect import deciding_sample
from ..render.measured import arriving, mask_value
from ..render.stack import sieve_mask
from ..render.views import Looking, view
from . import preferences as settings
from .document import Document
from .guard import guarded
from .playback import Playback
from .thumbnailer import Thumbnailer, reduced_words
from .tools import Tools
from .tray import Entry, Tray, kept
from .watcher import Watcher
from .worker import JobRunner, Questions, Renderer

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
class Session(QObject):
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
        self.thumbnails = Thumbnailer()
        self.thumbnails.made.connect(self._take_thumbnail)
        #: Reading what was opened, beside whatever else runs.
        self._openings = JobRunner()
        self._openings.failed.connect(self._failed)
        self.playback = Playback(self)
        self.watcher = Watcher(lambda: not self.playback.playing and self._renderer.idle and self._questions.idle and self.jobs.idle)
        self.watcher.found.connect(self._take_course)
        self._watches = False
        #: What the course that is watched was begun for.
        self._watched_for: tuple[object, ...] = ()
        self.jobs = JobRunner()
        self.jobs.changed.connect(self.job_changed)
        self.jobs.failed.connect(self._failed)
        self.jobs.said.connect(self.said)
        self._questions = Questions()
        self._questions.failed.connect(self._failed)
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
        works = (self._renderer, self.jobs, self._questions, self._openings, self.thumbnails)
        return not self._hurried and all(work.idle for work in works)

    def display_name(self) -> str:
        """What the title bar calls the work."""
        return self.document.display_name()

    def _failed(self, message: str, details: str) -> None:
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

    # Adjusting

    def set_block(self, block: str, on: bool) -> None:
        """See a block of the current sieve's adjustments, or not."""
        self.set_field(f"adjust.{block}.on", on, "Block on" if on else "Block off")

    def reset_block(self, block: str) -> None:
        """Put a block of the current sieve's adjustments back to where it changes nothing."""
        self.edit_sieve(lambda sieve: edits.without_block(sieve, block), "Reset a block")

    def copy_block(self, block: str, to: str) -> None:
        """Give a block of the current sieve's adjustments to another sieve too."""
        sieve_id = self.sieve.id
        self.edit(lambda project: edits.with_block_copied(project, sieve_id, to, block), "Copy a block")

    def read_cdl(self, path: pathlib.Path, choose: Callable[[list[str]], int] = lambda names: 0) -> None:
        """Take the CDL of a file into the current sieve; ``choose`` says which, where it holds several (below 0: none)."""
        found = cdl_files.read(path)
        number = choose([one.name or f"Correction {k}" for k, one in enumerate(found, 1)]) if len(found) > 1 else 0
        if number < 0:
            return
        try:
            block = self.sieve.adjust.cdl.but(on=True, **found[number].numbers)
        except ValueError:
            raise Trouble(f"{path} holds a correction beyond what a CDL here may be: choose another file.") from None
        self.edit_sieve(lambda sieve: sieve.but(adjust=sieve.adjust.but(cdl=block)), "Read a CDL")

    def read_table(self, path: pathlib.Path) -> None:
        """Take a lookup table into the current sieve."""
        lookup_files.read(path)  # that it can be read is said before it is taken
        block = self.sieve.adjust.lookup.but(on=True, lookup_file=str(path.absolute()))
        self.edit_sieve(lambda sieve: sieve.but(adjust=sieve.adjust.but(lookup=block)), "Lookup table")

    def write_cdl(self, path: pathlib.Path) -> None:
        """Write the CDL of the current sieve."""
        cdl_files.write(cdl_files.correction_of(self.sieve.name, self.sieve.adjust.cdl.given), path)
        self.said.emit(f"Wrote {path.name}")

    def pick_colour(self, then: Callable[[tuple[float, float, float]], None] | None, words: str = "") -> None:
        """Let the next click in the picture take a colour for ``then``, and nothing else; None gives it up."""
        self.tools.picker, self.tools.spot = then, None
        self.picking.emit()
        if words:
            self.said.emit(words)

    def pick_place(self, then: Callable[[float, float], None], words: str) -> None:
        """Let the next click in the picture give its place, full-resolution pixels, to ``then``, and nothing else."""
        self.pick_colour(lambda colour: None, words)
        self.tools.spot = then

    def give_colour(self, x: float, y: float) -> None:
        """The colour at a place, as it arrives at the current sieve, to whoever waits for it."""
        if self.tools.spot is not None:
            wanted = self.tools.spot
            self.pick_colour(None)
            wanted(x, y)
            return
        then, last, cache, size = self.tools.picker, self.last, self._cache, self.tools.sample_size
        self.pick_colour(None)
        if then is None or last is None:
            return
        place = ((x - last.frame.origin[0]) * last.frame.scale, (y - last.frame.origin[1]) * last.frame.scale)

        def answer() -> tuple[float, float, float] | None:
            below = arriving(last.frame, last.seen, last.wanted.sieve_id, cache, layers_in(cache))
            try:
                pixels = patch(below.planes, *place, max(1, round(size * last.frame.scale)))
            except ValueError:  # beside the picture
                return None
            red, green, blue = (float(v) for v in pixels.mean(axis=1, dtype=np.float64))
            return red, green, blue

        self._questions.ask(lambda: answer, lambda colour: then(colour) if colour is not None else None)

    def make_neutral(self, colour: tuple[float, float, float]) -> None:
        """Set temperature and tint so that a colour becomes grey."""
        try:
            temperature, tint = neutral(np.array(colour))
        except ValueError:
            raise Trouble("No light makes a grey look like this colour: pick a place that should be grey.") from None
        block = self.sieve.adjust.white.but(on=True, temperature=round(temperature, 2), tint=round(tint, 2))
        self.edit_sieve(lambda sieve: sieve.but(adjust=sieve.adjust.but(white=block)), "Make neutral")

    def judge(self) -> None:
        """Say how believable the current sieve is, over what is shown; `believable_found` follows."""
        last, cache = self.last, self._cache
        if last is None:
            return

        def answer() -> Believable:
            return believable_of(last.frame, last.seen, last.wanted.sieve_id, cache, layers_in(cache))

        self._questions.ask(lambda: answer, self.believable_found.emit)

    def count_mask(self, on: bool) -> None:
        """Whether the colours inside the mask are counted, for what is drawn over them."""
        if on != self._counts_mask:
            self._counts_mask = on
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

    def set_working(self, name: str) -> None:
        """The linear space in whose channels CDL and curves work; "" for Rec. 709."""
        if name != self.project.working:
            self.edit(lambda project: project.but(working=name), "Working space")

    def set_display(self, name: str) -> None:
        """See and write the picture through a "display / view"; "" for none."""
        if name != self.project.display:
            self.edit(lambda project: project.but(display=name), "Display")

    def _selected(self, document: Document) -> None:
        if document is self.document:
            self.selection_changed.emit()
            self.ask()

    def add_sieve(self) -> None:
        """A new sieve on the stack."""
        project, fresh = edits.with_new_sieve(self.project)
        self.edit(lambda _: project, "Add sieve")
        self.document.select(fresh.id)

    def remove_sieve(self, sieve_id: str) -> None:
        """Take a sieve off the stack; the last one is replaced by an empty one."""
        self.edit(lambda project: edits.without_sieve(project, sieve_id), "Remove sieve")
        self.selection_changed.emit()

    def move_sieve(self, sieve_id: str, by: int) -> None:
        """Move a sieve up or down the stack."""
        self.edit(lambda project: edits.with_sieve_moved(project, sieve_id, by), "Move sieve")

    def duplicate_sieve(self, sieve_id: str) -> None:
        """Put a copy of a sieve after it, and work on that."""
        project, copy = edits.with_copy_of(self.project, sieve_id)
        self.edit(lambda _: project, "Duplicate sieve")
        self.document.select(copy.id)

    def order_sieves(self, ids: list[str]) -> None:
        """Put the sieves into another order."""
        if sorted(ids) == sorted(sieve.id for sieve in self.project.stack):
            self.edit(lambda project: edits.with_order(project, ids), "Move sieve")

    def toggle_solo(self, sieve_id: str) -> None:
        """Let only this sieve work, or all that are on again."""
        self.edit(lambda project: project.but(solo="" if project.solo == sieve_id else sieve_id), "Solo")

    def set_mask_from(self, kind: MaskFrom, of: tuple[str, ...] = (), opposite: bool = False) -> None:
        """Make the current sieve's mask from others', live."""
        sieve_id = self.sieve.id
        self.edit(lambda project: edits.with_mask_from(project, sieve_id, kind, of, opposite), "Mask from")

    def join_mask(self, mode: AreaMode, of: str) -> None:
        """Lay another sieve's mask on the current one's."""
        sieve = self.sieve
        self.edit(
            lambda project: edits.with_joined(project, sieve.id, (*sieve.joined, Joined(mode=mode, of=of))), f"{mode.capitalize()} a mask"
        )

    def unlink_mask(self) -> None:
        """Give the current sieve a mask of its own, a copy of what it leans on."""
        sieve = self.sieve
        self.edit(lambda project: project.with_sieve(edits.unlinked(project, sieve)), "Unlink the mask")

    def clipping(self) -> str:
        """The current sieve as text, for the clipboard."""
        sieve = self.sieve
        return clippings.text_of((edits.unlinked(self.project, sieve) if sieve.leans_on else sieve,))

    def paste(self, text: str, part: str = "") -> None:
        """Add the sieves of a text to the stack, or give the current one the mask or the adjustments of the first of them."""
        sieves = clippings.sieves_in(text)
        if part:
            self.edit_sieve(lambda sieve: edits.with_part_of(sieve, sieves[0], part), f"Paste {part}")
            return
        self.add_sieves(sieves, "Paste sieve")

    def add_sieves(self, sieves: tuple[Sieve, ...], what: str) -> None:
        """Put copies of sieves on the stack, and work on the last."""
        project, copies = edits.with_pasted(self.project, sieves)
        self.edit(lambda _: project, what)
        self.document.select(copies[-1].id)

    def store_sieve(self, name: str, png: bytes) -> None:
        """Store the current sieve as a preset, with a small picture."""
        sieve = self.sieve
        alone = edits.unlinked(self.project, sieve) if sieve.leans_on else sieve
        sieve_presets.keep(sieve_presets.preset_of(name, alone, png))
        self.said.emit(f"Stored {name.strip()}")

    def import_sieve(self, path: pathlib.Path) -> None:
        """Take a file into the presets of sieves."""
        sieve_presets.keep(sieve_presets.read(path))

    def export_sieve(self, preset: sieve_presets.SievePreset, path: pathlib.Path) -> None:
        """Write a preset of a sieve as a file."""
        sieve_presets.write(preset, path if path.suffix else path.with_suffix(".json"))
        self.said.emit(f"Wrote {path.name}")

    # Groups

    def put_into_group(self, name: str) -> None:
        """Put the current sieve into a group of that name; "" takes it out of its own."""
        sieve_id = self.sieve.id
        if name.strip():
            self.edit(lambda project: edits.with_group(project, sieve_id, name.strip()[:200]), "Group")
        else:
            self.edit_sieve(lambda sieve: sieve.but(group=""), "No group")

    def change_group(self, group_id: str, **changes: object) -> None:
        """Change a group's name, switch or strength."""
        self.edit(lambda project: edits.with_changed_group(project, group_id, **changes), "Change group")

    def dissolve_group(self, group_id: str) -> None:
        """Let the sieves of a group stand by themselves."""
        self.edit(lambda project: edits.without_group(project, group_id), "Dissolve group")

    # Takes and history

    def keep_take(self, name: str) -> None:
        """Keep the whole stack under a name."""
        if not 1 <= len(name.strip()) <= 200:
            raise Trouble("The name of a take has 1 to 200 characters: give another name.")
        self.edit(lambda project: edits.with_take(project, name.strip()), "Keep take")

    def use_take(self, name: str) -> None:
        """Go on with the stack of a take."""
        self.edit(lambda project: edits.with_stack_of(project, name), f"Take {name}")
        self.selection_changed.emit()

    def remove_take(self, name: str) -> None:
        """Forget a take."""
        self.edit(lambda project: edits.without_take(project, name), "Remove take")

    def go_to_step(self, number: int) -> None:
        """Go back or on to a step of the history."""
        self.document.go_to_step(number)
        self.selection_changed.emit()

    def select(self, sieve_id: str) -> None:
        """Work on this sieve from now on."""
        self.document.select(sieve_id)

    # Sampling

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

    def sample(self, x: float, y: float, role: str = "keep", fresh: bool = False) -> str:
        """Take a sample at full-resolution (x, y); ``fresh`` starts over with it alone. Returns the id it will have, "" for none."""
        size, number = self.tools.sample_size, self.number
        return self._take_sample(lambda frame, held: sample_at(frame, x, y, size, number, role=role, **held), [(x, y)], fresh, role)

    def sample_place(self, place: str, points: list[tuple[float, float]], role: str = "keep", fresh: bool = False) -> str:
        """Take a sample of a box or along a stroke."""
        width, number = self.tools.stroke_width, self.number
        return self._take_sample(
            lambda frame, held: sample_along(frame, place, points, width, number, role=role, **held), points, fresh, role
        )

    def _take_sample(
        self, take: Callable[[Frame, dict[str, object]], Sample], points: list[tuple[float, float]], fresh: bool, role: str
    ) -> str:
        x, y = points[0]
        if not self.opened or not (0 <= x < self.size[0] and 0 <= y < self.size[1]):
            return ""
        if self.sieve.mask_from != "own":
            self.said.emit("This mask is made from others': unlink it to pick colours of its own")
            return ""
        sample_id = fresh_id()
        self._early = {sample_id: {}}
        room = max(self.tools.sample_size, self.tools.stroke_width)

        def work(seen: Seen) -> tuple[str, Clicked]:
            sieve = seen.sieve
            held: dict[str, object] = {"id": sample_id}
            own = None
            if sieve.pick.samples and not fresh:
                like = sieve.pick.samples[-1]
                held |= {name: getattr(like, name) for name in ("compare", "falloff", "shape", "bend")}
                own = like.tolerance if like.compare != "surface" else None
            return seen.sieve_id, clicked(sieve, take(seen.around(points, room), held), seen.reduced(), seen.cache, fresh, tolerance=own)

        def then(answer: tuple[str, Clicked]) -> None:
            sieve_id, came = answer
            early = self._early.pop(sample_id, {})
            if any(sieve.id == sieve_id for sieve in self.project.stack):
                self._before = self.last
                self.edit(
                    lambda project: project.with_sieve(edits.with_sample(project.sieve(sieve_id), came.sample, fresh)),
                    "Start over with a sample" if fresh else f"Add {role} sample",
                )
                self.clicked.emit(came)
            if early:  # what the person has set with the button still down, before the sample was there
                self.edit_samples(early, "Tolerance", "Drag tolerance", ids=(sample_id,))

        self._ask_about(work, then)
        return sample_id

    def edit_samples(self, changes: dict[str, object], what: str, group: str = "", ids: tuple[str, ...] = ()) -> None:
        """Change fields of some samples of the current sieve; of all of them when no ids are given."""
        for sample_id in ids:
            if sample_id in self._early:
                self._early[sample_id] |= changes
        self.edit_sieve(lambda sieve: edits.with_changed_samples(sieve, changes, ids), what, group)

    def remove_samples(self, ids: tuple[str, ...]) -> None:
        """Take samples out."""
        self.edit_sieve(lambda sieve: edits.without_samples(sieve, ids), "Remove sample")

    def take_again(self, ids: tuple[str, ...] = ()) -> None:
        """Read the colours of samples anew from this frame."""
        number = self.number

        def work(seen: Seen) -> list[Sample]:
            wanted, frame = [s for s in seen.pick.samples if not ids or s.id in ids], seen.whole()
            return [taken_again(sample, frame).but(frame=number) for sample in wanted]

        def then(taken: list[Sample]) -> None:
            by_id = {sample.id: sample for sample in taken}
            self.edit_sieve(lambda s: edits.with_samples(s, [by_id.get(x.id, x) for x in s.pick.samples]), "Sample again")

        self._ask_about(work, then)

    def fit(self) -> None:
        """Find the settings that part keep from drop samples best, and say how well."""

        def work(seen: Seen) -> tuple[Pick, Fit]:
            return fitted(seen.pick, seen.whole(), seen.number, seen.other)

        def then(result: tuple[Pick, Fit]) -> None:
            fresh, found = result
            drops = [sample for sample in fresh.samples if sample.on and sample.role == "drop"]
            nearest = f"; nearest is {drops[found.nearest].name or f'drop sample {found.nearest + 1}'}" if found.nearest is not None else ""
            self.edit_sieve(lambda s: s.but(pick=fresh), "Fit")
            kept = (
                "; nothing would part them better"
                if found.separation == max(found.before, 0.0)
                else f", it was {100 * max(found.before, 0):.0f} %"
            )
            self.said.emit(f"Fit: separation {100 * max(found.separation, 0):.0f} %{kept}{nearest}")

        self._ask_about(work, then)

    def sample_outlined(self, points: list[tuple[float, float]]) -> None:
        """Find samples that make a mask of what lies inside a loose outline, with progress; they replace those that are there."""
        opened, project, sieve_id, number, cache = self.opened, self.project, self.sieve.id, self.number, self._cache
        if opened is None:
            return

        def work(progress: Progress) -> list[Sample]:
            with opened.read():
                seen = Seen(opened, project, sieve_id, number, cache)
                return outlined(seen.sieve, points, seen.whole(), seen.reduced(), cache, number, progress)

        def then(samples: list[Sample]) -> None:
            if opened is self.opened and any(sieve.id == sieve_id for sieve in self.project.stack):
                self._before = self.last

                def change(sieve: Sieve) -> Sieve:
                    fresh = edits.with_samples(sieve, samples)
                    return fresh.but(pick=fresh.pick.but(outline=tuple(points)))

                self.edit(lambda held: held.with_sieve(change(held.sieve(sieve_id))), "Outline a thing")
                self.said.emit(f"{len(samples)} samples found inside the outline")

        self.jobs.run("Looking inside the outline", work, then)

    def set_bands_from_samples(self) -> None:
        """Put hue, saturation and luminance bands round the kept samples; each further sample widens them."""

        def work(seen: Seen) -> Any:
            return bands_from_samples(seen.pick, seen.project.sieve(seen.sieve_id).bands, seen.whole(), seen.number, seen.other)

        def then(bands: Any) -> None:
            # The samples have done their work: they are switched off so that the bands alone decide, and can be switched on again.
            self.edit_sieve(lambda s: edits.with_changed_samples(s, {"on": False}).but(bands=bands), "Set bands from samples")

        self._ask_about(work, then)

    def set_tonal(self, part: str, softness: float) -> None:
        """Set the luminance band to shadows, midtones or highlights."""

        def change(sieve: Sieve) -> Sieve:
            band = sieve.bands.luminance.but(on=True, inverted=False, corners=tonal(part, softness))
            return sieve.but(bands=sieve.bands.but(luminance=band, ramp=sieve.bands.ramp.but(on=False)))

        self.edit_sieve(change, f"Start from {part}", group=f"Start from {part}")

    # Edge and areas

    def list_islands(self) -> None:
        """Find the connected pieces of the mask before any was taken out, the largest first; `islands_found` follows."""
        last, cache = self.last, self._cache
        if last is None:
            return

        def answer() -> list[Island]:
            frame, scale = last.frame, last.frame.scale
            sieve = last.seen.sieve(last.wanted.sieve_id)
            every = sieve.but(edge=sieve.edge.but(islands_out=(), islands_only=(), fine=0.0))
            mask = sieve_mask(frame, last.seen.with_sieve(every), every.id, cache, layers_in(cache))
            left, top = frame.origin
            return [
                Island(
                    left + (i.x + 0.5) / scale,
                    top + (i.y + 0.5) / scale,
                    round(i.area / scale**2),
                    (round(i.box[0] / scale) + left, round(i.box[1] / scale) + top, round(i.box[2] / scale), round(i.box[3] / scale)),
                )
                for i in islands_of(mask)
            ]

        self._questions.ask(lambda: answer, self.islands_found.emit)

    def toggle_island(self, x: float, y: float) -> None:
        """Take the island at a place out, or bring it back."""
        self.edit_sieve(lambda sieve: edits.with_island_toggled(sieve, x, y), "Island out or back")

    def outline_island(self, island: Island | None) -> None:
        """Show where an island lies."""
        self.outlined = island
        self.pointed.emit(None)

    def take_islands_out(self, islands: list[Island]) -> None:
        """Take many islands out at once."""
        places = [edits.place_of(island.x, island.y, island.area) for island in islands]
        self.edit_sieve(lambda sieve: edits.with_islands_out(sieve, places), "Take islands out")

    def keep_only_island(self, x: float, y: float) -> None:
        """Keep only the island at a place."""
        self.edit_sieve(lambda sieve: edits.with_only_island(sieve, x, y), "Keep only this island")

    def all_islands(self) -> None:
        """Bring every island back."""
        self.edit_sieve(edits.with_all_islands, "Bring all islands back")

    def check_haze(self) -> None:
        """Count the partial pixels that keep a rim of the old colour, over what is shown; `haze_found` follows with a line."""
        last, cache = self.last, self._cache
        if last is None:
            return

        def answer() -> str:
            found = haze_of(last.frame, last.seen, last.wanted.sieve_id, cache, layers_in(cache))
            return f"Haze: {found.handled} pixels, without handling {found.unhandled}"

        self._questions.ask(lambda: answer, self.haze_found.emit)

    def edit_areas(self, change: Callable[[Sieve], Sieve], what: str, group: str = "") -> None:
        """Change the list of areas of the current sieve."""
        self.edit_sieve(change, what, group)

    def add_area(self, area: Area) -> str:
        """Add an area to the current sieve; returns its id."""
        self.edit_sieve(lambda sieve: edits.with_area(sieve, area), f"Add {area.kind}")
        return area.id

    def edit_area(self, area: Area, what: str, group: str = "") -> None:
        """Put a changed area in the place of the one with the same id."""
        self.edit_sieve(lambda sieve: edits.with_area(sieve, area), what, group)

    def clinging(
        self, start: tuple[float, float], end: tuple[float, float], sensitivity: float, then: Callable[[list[tuple[float, float]]], None]
    ) -> None:
        """Find the way between two places that runs along the picture's edges, full-resolution pixels; ``then`` gets it."""
        last = self.last
        if last is None:
            then([start, end])
            return

        def answer() -> list[tuple[float, float]]:
            frame, (left, top), scale = last.frame, last.frame.origin, last.frame.scale
            one, other = (((x - left) * scale, (y - top) * scale) for x, y in (start, end))
            return [(left + x / scale, top + y / scale) for x, y in clinging_path(frame.planes, one, other, sensitivity)]

        self._questions.ask(lambda: answer, then)

    # Presets

    def apply_preset(self, preset: presets.Preset) -> None:
        """Use a preset's pick, bands and edge in the current sieve."""
        self.edit_sieve(lambda s: s.but(pick=preset.pick, bands=preset.bands, edge=preset.edge), f"Preset {preset.name}")

    def _preset_from_here(self, name: str) -> presets.Preset:
        if not 1 <= len(name) <= presets.LONGEST_NAME:
            raise Trouble(f"The name of a preset has 1 to {presets.LONGEST_NAME} characters, this one {len(name)}: give another name.")
        kept = [sample for sample in self.sieve.pick.samples if sample.role == "keep"]
        swatch = kept[0].colour if kept else (0.2, 0.2, 0.2)
        return presets.Preset(name=name, swatch=swatch, pick=self.sieve.pick.but(outline=()), bands=self.sieve.bands, edge=self.sieve.edge)

    def save_preset(self, name: str) -> None:
        """Store the current pick, bands and edge among a person's own presets."""
        presets.keep(self._preset_from_here(name))
        self.said.emit(f"Stored preset {name}")

    def export_preset(self, path: pathlib.Path) -> None:
        """Write the current pick, bands and edge as a preset file."""
        presets.write(self._preset_from_here(path.stem[: presets.LONGEST_NAME]), path)
        self.said.emit(f"Wrote {path.name}")

    def import_preset(self, path: pathlib.Path) -> None:
        """Take a preset file into a person's own."""
        presets.keep(presets.read(path))

    # Opening and saving

    def open(self, path: pathlib.Path, copy: bool = False) -> None:
        """Open a picture, a clip or a project, in the background; it is put on the tray. ``copy``: a project is not saved where it came
        from. What is open already is shown again."""
        path = pathlib.Path(path)
        there = next((e for e in self.tray.entries if str(path.absolute()) in (e.source, str(e.document.path or ""))), None)
        if there is not None and not copy:
            self.go_to_picture(there)
            return

        def work(progress: Progress) -> tuple[Source, Project | None]:
            project = storage.load(path) if path.suffix.lower() == PROJECT else None
            if project and not project.source:
                raise Trouble(f"{path} names no picture: open a picture first.")
            return self._source_of(path, project)

        self._run_opening(
            path.name, work, lambda result: self._show(result[0], result[1], None if copy else path, path.stem if copy else "")
        )

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
            self.document.keep_now()
            discard(left)

        self._run_opening(left.title, lambda progress: self._source_of(left.file, left.project), done)

    def open_with_source(self, missing: MissingSource, source: pathlib.Path) -> None:
        """Open a project whose picture was found again by hand."""
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
                entry.opened = Opened(result[0], project.reading)
                self.edit(lambda now: now.but(source=project.source), "Find the picture again")
                self._picture_changed()

        self._run_opening(source.name, lambda progress: self._source_of(source, project), done)

    def _run_opening(self, name: str, work: Callable[[Progress], Any], done: Callable[[Any], None]) -> None:
        def safely(progress: Progress) -> Any:
            try:
                return work(progress)
            except MissingSource as missing:
                return missing

        def then(result: Any) -> None:
            self.opening.emit("")
            if isinstance(result, MissingSource):
                self.missing.emit(result)
            else:
                done(result)

        self.opening.emit(name)
        try:
            self._openings.run(f"Opening {name}", safely, then)
        except Trouble:
            self.opening.emit("")
            raise

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
        self.tray.add(entry)
        self._turn_to(entry)
        for note in source.about.notes:
            self.said.emit(note)
        if start.source_mark and mark_of(source.about.path) not in ("", start.source_mark):
            self.said.emit(
                f"{source.about.path.name} has changed since the project was saved; File > Find the picture again… takes another."
            )
        self._remember(path if project and path else source.about.path)

    # The tray

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
        self.source_changed.emit()
        self.project_changed.emit()
        self.selection_changed.emit()
        self.frame_changed.emit()
        self.ask()

    def next_picture(self, by: int) -> None:
        """Show the next picture of the tray, or the one before."""
        entries = self.tray.entries
        self.go_to_picture(entries[(entries.index(self.tray.current) + by) % len(entries)])

    def close_picture(self, entry: Entry) -> None:
        """Take a picture off the tray; its unsaved work goes with it."""
        entry.document.end()
        following = self.tray.remove(entry, Entry(self._fresh_document()))
        if entry is self.tray.current:
            self.last = None
            self.go_to_picture(following)
            if following.opened is not None or not following.source:
                self._turn_to(following)
        self._note_tray()

    def close_all(self) -> None:
        """Take everything off the tray; unsaved work goes with it."""
        for entry in list(self.tray.entries):
            self.close_picture(entry)

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
                    source = source_of(entry.document.project)
                    found.append((entry, tuple(searched_again(sieve, source.frame(0)) for sieve in sieves)))
                    source.close()
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

        self.jobs.run("Finding tolerances", work, then)

    def restore_tray(self) -> None:
        """Put on the tray what was open when the program ended last, and show the same of it."""
        rows, current = kept()
        entries = []
        for row in rows:
            path = pathlib.Path(row["project"]) if row["project"] else None
            try:
                project = storage.load(path) if path is not None else None
            except Trouble as trouble:
                self.trouble.emit(str(trouble))
                continue
            entry = self._unread(row["source"], project, path)
            entry.number = row["frame"]
            entries.append(entry)
            if row["shared"]:
                self.tray.share(entry, True)
        if entries:
            self.go_to_picture(entries[min(max(current, 0), len(entries) - 1)])

    def _note_tray(self) -> None:
        with contextlib.suppress(Trouble, OSError):  # that it cannot be noted need not stop anybody
            self.tray.keep()

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

    def save(self, path: pathlib.Path) -> bool:
        """Write the project; not True when it could not be written (it is said why)."""
        self.document.save(path)
        self.said.emit(f"Saved {path.name}")
        return True

    def export(self, path: pathlib.Path, depth: str = "", codec: str = "") -> None:
        """Write the result: a picture of this frame, or by the ending a clip or numbered pictures."""

        def work(source: Source, project: Project, number: int, progress: Progress) -> None:
            if is_picture(path) and not is_pattern(path):
                export_still(source, project, path, number, depth, progress)
            else:
                export_clip(source, project, path, None, codec, progress)

        self._export(path, work)

    def export_as(self, path: pathlib.Path, how: Export) -> None:
        """Write this frame as asked: result, masks or a cut-out, at some depth and size."""
        sieve_id = self.sieve.id
        self._export(path, lambda source, project, number, progress: export(source, project, sieve_id, path, how, number, progress))

    def export_frames(self, path: pathlib.Path, frames: tuple[int, int] | None, codec: str, how: ClipExport) -> None:
        """Write frames of a clip, from the first to the last of ``frames``, as a clip or as numbered pictures."""
        chosen = replace(how, sieve_id=self.sieve.id)
        self._export(path, lambda source, project, number, progress: export_clip(source, project, path, frames, codec, progress, chosen))

    def compare_lookup(self, size: int, then: Callable[[Compared], None]) -> None:
        """What a lookup table of so many nodes would make of the picture, for ``then``."""

        def work(seen: Seen) -> Compared:
            return compared(seen.project, seen.opened.frame(seen.number), size)

        self._ask_about(work, then)

    def picture_of(self, name: str, longest: int, then: Callable[[np.ndarray], None]) -> None:
        """A view of the whole picture at most so many pixels wide and high, as screen words, for ``then``."""

        def work(seen: Seen) -> np.ndarray:
            whole = seen.opened.source.about.size
            frame = seen.opened.frame(seen.number, max(1, math.ceil(max(whole) / longest)))
            return view(name, frame, seen.resolved, seen.sieve_id, self.looking, seen.cache, layers_in(seen.cache))

        self._ask_about(work, then)

    def write_lookup(self, path: pathlib.Path, size: int = 33) -> None:
        """Write what depends on colour alone as a 3D lookup table, and say how near it comes."""
        opened, project, number = self.opened, self.project, self.number
        if opened is None:
            return

        def work(progress: Progress) -> Compared:
            with opened.read():
                return write_lookup(project, opened.source.frame(number), path, size, progress)

        def then(written: Compared) -> None:
            left = f"; left out: {'; '.join(written.left_out)}" if written.left_out else ""
            self.said.emit(f"{path.name}: mean ΔE2000 {written.mean:.2f}, largest {written.largest:.1f} from the render{left}")

        self.jobs.queue(f"Writing {path.name}", work, then)

    def run_batch(self, pictures: list[pathlib.Path], folder: pathlib.Path) -> None:
        """Render many pictures by the project as it is now, with a report."""
        self._batch(self.project.but(takes=()), pictures, folder)

    def batch_tray(self, folder: pathlib.Path) -> None:
        """Render the stills of the tray, each by its own stack, with a report."""
        entries = [entry for entry in self.tray.entries if entry.source and not is_clip(pathlib.Path(entry.source))]
        projects = [self.tray.project_of(entry).but(takes=()) for entry in entries]
        self._batch(projects, [pathlib.Path(entry.source) for entry in entries], folder)

    def _batch(self, project: Project | list[Project], pictures: list[pathlib.Path], folder: pathlib.Path) -> None:

        def work(progress: Progress) -> list[Outcome]:
            return run_batch(project, pictures, folder, 1, progress)

        def then(outcomes: list[Outcome]) -> None:
            wrong = [outcome for outcome in outcomes if outcome.trouble]
            self.said.emit(f"Batch: {len(outcomes) - len(wrong)} of {len(outcomes)} pictures written; see {folder.name}/batch.html")
            if wrong:
                more = f" And {len(wrong) - 1} more: see batch.html." if len(wrong) > 1 else ""
                self.trouble.emit(f"{wrong[0].trouble}{more}")

        self.jobs.queue("Batch", work, then)

    def export_mask(self, path: pathlib.Path) -> None:
        """Write the mask of the current sieve as a grey picture."""
        sieve_id = self.sieve.id
        self._export(path, lambda source, project, number, progress: export_mask(source, project, sieve_id, path, number, progress))

    def _export(self, path: pathlib.Path, work: Callable[[Source, Project, int, Progress], object]) -> None:
        opened, project, number = self.opened, self.project, self.number
        if opened is None:
            return

        def job(progress: Progress) -> None:
            with opened.read():
                about = opened.source.about
                if about.kind != "clip":
                    work(opened.source, project, number, progress)
                    return
                # A decoder of its own, so that looking at other frames does not disturb it.
                fresh = source_of(project, regular_file(about.path))
                try:
                    work(fresh, project, number, progress)
                finally:
                    fresh.close()

        self.jobs.queue(f"Exporting {path.name}", job, lambda _: self.said.emit(f"Exported {path.name}"))

    def run(self, title: str, work: Callable[[Progress], object], then: Callable[[Any], None]) -> None:
        """Run long work with progress, one at a time."""
        self.jobs.run(title, work, then)

    def stop_job(self) -> None:
        """Ask the running job to stop."""
        self.jobs.stop()

    # Preferences

    def prefer(self, **changes: object) -> None:
        """Change preferences, keep them, and use them from now on."""
        changed = self.preferences.but(**changes)
        if changed == self.preferences:
            return
        self.preferences = changed
        self._cache.limit = round(changed.cache_megabytes * MEGABYTE)
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

    # Over time

    @property
    def keyframes(self) -> tuple[int, ...]:
        """Frames at which something of the current sieve has a key."""
        return tracks.keyframes_of(self.document.sieve)

    def set_key(self, path: str, how: Between | None = None) -> None:
        """Give a field of the current sieve a key at the frame that is shown: from then on, changing it changes it there."""
        frame = self.number
        self.document.edit_sieve(lambda sieve: tracks.with_key(sieve, path, frame, how), "Keyframe")

    def remove_key(self, path: str, everywhere: bool = False) -> None:
        """Take a field's key away at this frame, or all of them: it then stays as it is now."""
        frame = self.number
        last = tracks.keyed(self.document.sieve, path)
        if last is not None and (everywhere or len(last.keys) == 1):
            self.document.edit_sieve(lambda sieve: tracks.without_key(tracks.at_frame(sieve, frame), path), "No keyframes")
        else:
            self.document.edit_sieve(lambda sieve: tracks.without_key(sieve, path, frame), "No keyframe")

    def key_samples(self) -> None:
        """Measure the samples of the current sieve on this frame, as keyframes of their colours: the light has changed for good."""
        opened, number, sieve = self.opened, self.number, self.sieve
        if opened is None or self.frames <= 1 or not sieve.pick.samples:
            raise Trouble("Take a sample in a clip first: its colour is what gets a key.")

        def work(seen: Seen) -> Sieve:
            frame, stands = seen.whole(), seen.sieve
            # Where they lie on this frame: here-only samples have moved along.
            taken = {sample.id: taken_again(sample.but(frame=number), frame) for sample in stands.pick.samples if sample.on}
            return stands.but(pick=stands.pick.but(samples=tuple(taken.get(sample.id, sample) for sample in stands.pick.samples)))

        def then(found: Sieve) -> None:
            colours = {sample.id: sample.colour for sample in found.pick.samples}

            def change(held: Sieve) -> Sieve:
                for sample in held.pick.samples:
                    path = f"samples.{sample.id}.colour"
                    if tracks.keyed(held, path) is None:  # until now it was the same everywhere
                        held = tracks.with_key(held, path, min(sample.frame, number), "hold")
                    now = tracks.at_frame(held, number)
                    samples = tuple(s.but(colour=colours.get(s.id, s.colour)) if s.id == sample.id else s for s in now.pick.samples)
                    held = tracks.with_key(tracks.recorded(held, now.but(pick=now.pick.but(samples=samples)), number), path, number)
                return held

            self.document.edit_sieve(change, "Key the samples")

        self._ask_about(work, then)

    def next_key(self, by: int) -> None:
        """Go to the next keyframe of the current sieve, or the one before."""
        keys = [key for key in self.keyframes if (key > self.number if by > 0 else key < self.number)]
        if keys:
            self.go_to(keys[0 if by > 0 else -1])

    def track_area(self, area_id: str, way: int, moves: Moves) -> None:
        """Follow what an area lies on from this frame to the last (``way`` 1) or the first (-1), until it is lost."""
        opened, sieve, number = self.opened, self.sieve, self.number
        area = next((area for area in sieve.areas if area.id == area_id), None)
        if opened is None or area is None or self.frames <= 1:
            raise Trouble("Choose an area of a clip first: it is what is tracked.")
        path, project, sieve_id = opened.source.about.path, self.project, sieve.id

        def work(progress: Progress) -> Tracked:
            source = source_of(project, path)
            try:
                return track(source, area, number, way, moves, progress)
            finally:
                source.close()

        def then(found: Tracked) -> None:
            held = next((one for one in self.project.stack if one.id == sieve_id), None)
            if held is not None and found.keys:
                self.edit(lambda now: now.with_sieve(with_tracked(now.sieve(sieve_id), found)), "Track")
            last = max(found.keys, key=lambda frame: frame * way) if found.keys else number
            lost = f"lost at frame {found.lost}: set it there by hand and track on" if found.lost is not None else "to the end"
            self.said.emit(f"Tracked to frame {last}, {lost}; least confidence {100 * min(found.confidence.values(), default=0):.0f} %")

        self.jobs.run("Tracking", work, then)

    def watch(self, on: bool) -> None:
        """Watch the current sieve's mask over all frames, while nothing else is done; or not."""
        self._watches = on
        if on:
            self._watch_on()
        else:
            self.watcher.end()
            self._watched_for = ()
            self.watched.emit(None)

    def _watch_on(self) -> None:
        """Begin anew when what is watched has changed."""
        opened, sieve = self.opened, self.sieve
        if not self._watches or opened is None or self.frames <= 1:
            return
        wanted = (opened, mask_value(self.project, sieve), tuple(one.tracks for one in self.project.stack))
        if wanted != self._watched_for:
            self._watched_for = wanted
            project, path = self.project, opened.source.about.path
            self.watched.emit(Course())
            self.watcher.watch(lambda: source_of(project, path), opened.resolver, project, sieve.id)

    def _take_course(self, course: Course) -> None:
        if self._watches:
            self.watched.emit(course)
            if len(course.seen) == self.frames:
                self.said.emit(f"Watched {self.frames} frames: flicker {course.mean_flicker:.1f} % a frame, {len(course.troubles)} jumps")

    def next_trouble(self, by: int = 1) -> None:
        """Go to the next frame, or the one before, at which the coverage jumps."""
        troubles = self.watcher.course.troubles
        later = [number for number in troubles if (number > self.number if by > 0 else number < self.number)]
        if not self._watches:
            self.said.emit("Switch coverage over time on first: it finds the jumps")
        elif not troubles:
            self.said.emit("No jump was found" if not self.watcher.watching else "No jump was found yet")
        else:
            self.go_to((later or troubles)[0 if by > 0 else -1])

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
            screens.proof_tables(str(path), path.stat().st_mtime_ns)
        self.look(proof=str(path) if path else "")
        self.said.emit(f"Soft proof of {path.name}; magenta is outside its gamut" if path else "No soft proof")

    def use_screen_profile(self, path: pathlib.Path | None) -> None:
        """Draw everything as the screen's profile wants it, from now on; raises `Trouble` when it cannot be used."""
        if path is not None:
            screens.screen_table(str(path), path.stat().st_mtime_ns)
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

    def _renew_thumbnail(self, result: Rendered) -> None:
        """The thumbnail of what is in the window shows its result."""
        words = result.pictures.get("Result")
        if words is not None and not result.wanted.hurried and len(self.tray.entries) > 1 and result.wanted.shown.box == (0, 0, 0, 0):
            self.tray.current.thumbnail = reduced_words(words)
            self.tray.changed.emit()

    def keep_now(self) -> None:
        """Keep all unsaved work before this returns."""
        for entry in self.tray.entries:
            entry.document.keep_now()

    @property
    def unsaved(self) -> list[Entry]:
        """The pictures of the tray with work that is not saved."""
        return [entry for entry in self.tray.entries if entry.document.history.changed]

    def save_all(self) -> bool:
        """Save all unsaved work: where it was saved before, else beside its picture; not True when something could not be written."""
        for entry in self.unsaved:
            entry.document.save(entry.document.path or beside(pathlib.Path(entry.source)))
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
        self.jobs.end()
        self._renderer.end()
        for entry in self.tray.entries:
            if entry.opened:
                entry.opened.retire()
