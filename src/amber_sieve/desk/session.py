"""The one door between widgets and the rest: the project, its history, what is open, and the renders.

Widgets ask here and listen here. They keep no copy of the model and call no kernel.
"""

from __future__ import annotations

import os
import pathlib
from collections.abc import Callable
from dataclasses import dataclass, field, replace

import numpy as np
from PyQt6.QtCore import QObject, pyqtSignal

from ..core.areas.scissors import clinging_path
from ..core.bands.starts import tonal
from ..core.edge.islands import Island, islands_of
from ..core.frame import Frame
from ..core.pick.fit import Fit
from ..core.statistics import Coverage, Statistics, coverage_of, statistics_of
from ..errors import Trouble
from ..jobs.clip import export_clip
from ..jobs.progress import Progress
from ..jobs.sampling import bands_from_samples, fitted, sample_along, sample_at, taken_again, with_found_tolerance
from ..jobs.still import export_mask, export_still
from ..media.layers import layer
from ..media.opening import open_source
from ..media.source import Source
from ..project import presets, storage
from ..project.history import History
from ..project.model import Area, Pick, Place, Project, Sample, Sieve
from ..render.cache import Cache
from ..render.haze import haze_of
from ..render.mask import bounds_of, make_fine, needs_whole, waits_for_fine
from ..render.stack import measured_frame, sieve_mask
from ..render.views import Looking, shown_mask, solo_field, view
from .worker import Job, Renderer

#: Bytes of stages kept for previews.
CACHE_BYTES = 1_200_000_000
#: Longer side, pixels, of the small frame on which the masks of all sieves are shown in the stack.
THUMBNAIL = 256


@dataclass(frozen=True)
class Shown:
    """What a pane of the canvas needs to see: at which reduction, which part, which views."""

    factor: int = 1
    box: tuple[int, int, int, int] = (0, 0, 0, 0)  # left, top, right, bottom in reduced pixels; all 0 means everything
    views: tuple[str, ...] = ("Result", "Mask")


@dataclass(frozen=True)
class Rendered:
    """A finished render: the pictures of the views, and the mask they were made with."""

    shown: Shown
    number: int
    scale: float
    origin: tuple[float, float]
    pictures: dict[str, np.ndarray]
    mask: np.ndarray
    coverage: Coverage
    statistics: Statistics
    project: Project
    looking: Looking
    frame: Frame
    waiting: list[Sieve]
    thumbnails: dict[str, np.ndarray]
    field: np.ndarray | None


@dataclass
class Opened:
    """What is open: the source, and its reduced frames."""

    source: Source
    frames: dict[int, dict[int, Frame]] = field(default_factory=dict)

    def frame(self, number: int, factor: int = 1) -> Frame:
        """A frame, reduced by ``factor``; only the newest frame is kept."""
        if number not in self.frames:
            self.frames = {number: {1: self.source.frame(number)}}
        levels = self.frames[number]
        if factor not in levels:
            levels[factor] = levels[1].reduced(factor)
        return levels[factor]


class Session(QObject):
    """The state of the work, as signals and methods."""

    project_changed = pyqtSignal()
    source_changed = pyqtSignal()
    frame_changed = pyqtSignal()
    selection_changed = pyqtSignal()
    rendered = pyqtSignal(object)
    trouble = pyqtSignal(str)
    said = pyqtSignal(str)
    job_changed = pyqtSignal(object)
    pointed = pyqtSignal(object)

    def __init__(self) -> None:
        super().__init__()
        self.history = History(Project())
        self.path: pathlib.Path | None = None
        self.opened: Opened | None = None
        self.number = 0
        self.sample_size = 5
        self.stroke_width = 12
        self.place = "patch"
        self.click_role = ""
        self.island_tool = False
        self.outlined: Island | None = None
        self.field_follows_view = False
        self.looking = Looking()
        self.shown = Shown()
        self.last: Rendered | None = None
        self.job: Job | None = None
        self._current = self.project.stack[0].id
        self._cache = Cache(CACHE_BYTES)
        self._renderer = Renderer()
        self._renderer.done.connect(self._take)
        self._renderer.failed.connect(self.trouble)

    # What is there

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

    @property
    def size(self) -> tuple[int, int]:
        """Width and height of the picture, (0, 0) with none open."""
        return self.opened.source.about.size if self.opened else (0, 0)

    @property
    def frames(self) -> int:
        return self.opened.source.about.frames if self.opened else 0

    @property
    def idle(self) -> bool:
        return self._renderer.idle and self.job is None

    # Editing

    def edit(self, change: Callable[[Project], Project], what: str, group: str = "") -> None:
        """Go on to a changed project; what does not fit the model is said, and nothing changes."""
        try:
            project = change(self.project)
        except ValueError as error:
            self.trouble.emit(f"That value does not fit: {str(error).splitlines()[-1].strip() if str(error) else 'it is out of range'}.")
            return
        if project == self.project:
            return
        self.history.push(project, what, group)
        self._changed()

    def edit_sieve(self, change: Callable[[Sieve], Sieve], what: str, group: str = "") -> None:
        """Change the sieve being worked on."""
        self.edit(lambda project: project.with_sieve(change(self.sieve)), what, group)

    def end_drag(self) -> None:
        """A drag has ended: the next edit is a step of its own."""
        self.history.close_group()

    def undo(self) -> None:
        if self.history.undo():
            self._changed()

    def redo(self) -> None:
        if self.history.redo():
            self._changed()

    def _changed(self) -> None:
        self.project_changed.emit()
        self.ask()

    def add_sieve(self) -> None:
        """A new sieve on the stack; it changes nothing until somebody moves something."""
        fresh = Sieve(name=f"Sieve {len(self.project.stack) + 1}")
        self._current = fresh.id
        self.edit(lambda project: project.but(stack=(*project.stack, fresh)), "Add sieve")
        self.selection_changed.emit()

    def remove_sieve(self, sieve_id: str) -> None:
        """Take a sieve off the stack; the last one is replaced by an empty one."""
        rest = tuple(sieve for sieve in self.project.stack if sieve.id != sieve_id) or (Sieve(name="Sieve 1"),)
        self.edit(lambda project: project.but(stack=rest), "Remove sieve")
        self.selection_changed.emit()

    def move_sieve(self, sieve_id: str, by: int) -> None:
        """Move a sieve up or down the stack."""
        stack = list(self.project.stack)
        at = next(i for i, sieve in enumerate(stack) if sieve.id == sieve_id)
        to = min(max(at + by, 0), len(stack) - 1)
        stack.insert(to, stack.pop(at))
        self.edit(lambda project: project.but(stack=tuple(stack)), "Move sieve")

    def select(self, sieve_id: str) -> None:
        """Work on this sieve from now on."""
        if sieve_id != self._current:
            self._current = sieve_id
            self.selection_changed.emit()
            self.ask()

    # Sampling

    def measured(self) -> Frame:
        """The full-resolution frame that the current sieve measures, and samples are taken from."""
        assert self.opened is not None
        return measured_frame(self.opened.frame(self.number), self.project, self.sieve.id, self._cache, layer)

    def sample(self, x: float, y: float, role: str = "keep", fresh: bool = False) -> str:
        """Take a sample at full-resolution (x, y); ``fresh`` starts over with it alone. Returns its id, "" when none was taken."""
        return self._take_sample(
            lambda frame, settings: sample_at(frame, x, y, self.sample_size, self.number, role=role, **settings), (x, y), role, fresh
        )

    def sample_place(self, place: str, points: list[tuple[float, float]], role: str = "keep", fresh: bool = False) -> str:
        """Take a sample of a box or along a stroke."""
        return self._take_sample(
            lambda frame, settings: sample_along(frame, place, points, self.stroke_width, self.number, role=role, **settings),
            points[0],
            role,
            fresh,
        )

    def _take_sample(self, take: Callable[[Frame, dict[str, object]], Sample], at: tuple[float, float], role: str, fresh: bool) -> str:
        if not self.opened or not (0 <= at[0] < self.size[0] and 0 <= at[1] < self.size[1]):
            return ""
        like = self.sieve.pick.samples[-1] if self.sieve.pick.samples else Sample(x=0, y=0, colour=(0, 0, 0))
        settings = {name: getattr(like, name) for name in ("compare", "falloff", "shape", "bend")}
        if like.compare != "surface":
            settings["tolerance"] = like.tolerance
        try:
            frame = self.measured()
            taken = with_found_tolerance(take(frame, settings), frame, self.sieve.pick, bounds_of(frame, self.sieve, self._cache))
        except Trouble as trouble:
            self.trouble.emit(str(trouble))
            return ""
        kept = () if fresh else self.sieve.pick.samples
        what = "Start over with a sample" if fresh else f"Add {role} sample"
        self.edit_sieve(lambda sieve: sieve.but(pick=sieve.pick.but(samples=(*kept, taken))), what)
        return taken.id

    def edit_samples(self, changes: dict[str, object], what: str, group: str = "", ids: tuple[str, ...] = ()) -> None:
        """Change fields of some samples of the current sieve; of all of them when no ids are given."""

        def change(sieve: Sieve) -> Sieve:
            samples = tuple(sample.but(**changes) if not ids or sample.id in ids else sample for sample in sieve.pick.samples)
            return sieve.but(pick=sieve.pick.but(samples=samples))

        self.edit_sieve(change, what, group)

    def remove_samples(self, ids: tuple[str, ...]) -> None:
        """Take samples out."""
        rest = tuple(sample for sample in self.sieve.pick.samples if sample.id not in ids)
        self.edit_sieve(lambda s: s.but(pick=s.pick.but(samples=rest)), "Remove sample")

    def take_again(self, ids: tuple[str, ...] = ()) -> None:
        """Read the colours of samples anew from this frame of the original."""
        if not self.opened:
            return
        frame = self.opened.frame(self.number)
        samples = tuple(
            taken_again(sample, frame).but(frame=self.number) if not ids or sample.id in ids else sample
            for sample in self.sieve.pick.samples
        )
        self.edit_sieve(lambda s: s.but(pick=s.pick.but(samples=samples)), "Take samples again")

    def fit(self) -> None:
        """Find the settings that part keep from drop samples best, and say how well."""
        if not self.opened:
            return
        pick, frame = self.sieve.pick, self.measured()

        def done(result: tuple[Pick, Fit]) -> None:
            fresh, found = result
            drops = [sample for sample in fresh.samples if sample.on and sample.role == "drop"]
            nearest = f"; nearest is {drops[found.nearest].name or f'drop sample {found.nearest + 1}'}" if found.nearest is not None else ""
            self.edit_sieve(lambda s: s.but(pick=fresh), "Fit")
            self.said.emit(f"Fit: separation {100 * max(found.separation, 0):.0f} %{nearest}")

        self.run("Fit", lambda progress: fitted(pick, frame), done)

    def set_bands_from_samples(self) -> None:
        """Put hue, saturation and luminance bands round the kept samples; each further sample widens them."""
        if not self.opened:
            return
        try:
            bands = bands_from_samples(self.sieve.pick, self.sieve.bands, self.measured())
        except Trouble as trouble:
            self.trouble.emit(str(trouble))
            return
        # The samples have done their work: they are switched off so that the bands alone decide, and can be switched on again.
        samples = tuple(sample.but(on=False) for sample in self.sieve.pick.samples)
        self.edit_sieve(lambda s: s.but(bands=bands, pick=s.pick.but(samples=samples)), "Set bands from samples")

    def set_tonal(self, part: str, softness: float) -> None:
        """Set the luminance band to shadows, midtones or highlights."""

        def change(sieve: Sieve) -> Sieve:
            band = sieve.bands.luminance.but(on=True, inverted=False, corners=tonal(part, softness))
            return sieve.but(bands=sieve.bands.but(luminance=band, ramp=sieve.bands.ramp.but(on=False)))

        self.edit_sieve(change, f"Start from {part}")

    # Edge and areas

    def islands(self) -> list[Island]:
        """The connected pieces of the mask before any was taken out, the largest first, in full-resolution pixels."""
        if self.last is None:
            return []
        frame = self.last.frame
        whole = self.sieve.but(edge=self.sieve.edge.but(islands_out=(), islands_only=(), fine=0.0))
        mask = sieve_mask(frame, self.project.with_sieve(whole), whole.id, self._cache, layer)
        left, top = self.last.origin
        scale = self.last.scale
        return [
            Island(left + (i.x + 0.5) / scale, top + (i.y + 0.5) / scale, round(i.area / scale**2), tuple(round(v / scale) for v in i.box))  # type: ignore[arg-type]
            for i in islands_of(mask)
        ]

    def toggle_island(self, x: float, y: float) -> None:
        """Take the island at a place out, or bring it back."""
        near = [place for place in self.sieve.edge.islands_out if (place.x - x) ** 2 + (place.y - y) ** 2 <= max(place.radius, 4) ** 2]
        if near:
            rest = tuple(place for place in self.sieve.edge.islands_out if place not in near)
            self._edit_edge("Bring the island back", islands_out=rest)
        else:
            self._edit_edge("Take the island out", islands_out=(*self.sieve.edge.islands_out, self._place(x, y)))

    def outline_island(self, island: Island | None) -> None:
        """Show where an island lies."""
        self.outlined = island
        self.project_changed.emit()

    def take_islands_out(self, islands: list[Island]) -> None:
        """Take many islands out at once."""
        places = tuple(self._place(island.x, island.y, island.area) for island in islands)
        self._edit_edge("Take islands out", islands_out=(*self.sieve.edge.islands_out, *places))

    def keep_only_island(self, x: float, y: float) -> None:
        """Keep only the island at a place."""
        self._edit_edge("Keep only this island", islands_only=(self._place(x, y),), islands_out=())

    def all_islands(self) -> None:
        """Bring every island back."""
        self._edit_edge("Bring all islands back", islands_only=(), islands_out=())

    @staticmethod
    def _place(x: float, y: float, area: float = 0.0) -> Place:
        return Place(x=x, y=y, radius=max(6.0, (area**0.5) / 2))

    def _edit_edge(self, what: str, **changes: object) -> None:
        self.edit_sieve(lambda s: s.but(edge=s.edge.but(**changes)), what)

    def haze(self) -> str:
        """How many partial pixels keep a rim of the old colour, with and without handling, over what is shown."""
        if self.last is None or self.last.waiting:
            return ""
        found = haze_of(self.last.frame, self.sieve, self._cache)
        return f"Haze: {found.handled} pixels, without handling {found.unhandled}"

    def edit_areas(self, change: Callable[[tuple[Area, ...]], tuple[Area, ...]], what: str, group: str = "") -> None:
        """Change the list of areas of the current sieve."""
        self.edit_sieve(lambda s: s.but(areas=change(s.areas)), what, group)

    def add_area(self, area: Area) -> str:
        """Add an area to the current sieve; returns its id.

        The first area drawn on a sieve that picks something intersects («only here»), unless another mode was asked for.
        """
        self.edit_areas(lambda areas: (*areas, area), f"Add {area.kind}")
        return area.id

    def edit_area(self, area: Area, what: str, group: str = "") -> None:
        """Put a changed area in the place of the one with the same id."""
        self.edit_areas(lambda areas: tuple(area if other.id == area.id else other for other in areas), what, group)

    def clinging(self, start: tuple[float, float], end: tuple[float, float], sensitivity: float) -> list[tuple[float, float]]:
        """The way between two places that runs along the picture's edges, in full-resolution pixels."""
        if self.last is None:
            return [start, end]
        frame, (left, top), scale = self.last.frame, self.last.origin, self.last.scale
        one, other = (((x - left) * scale, (y - top) * scale) for x, y in (start, end))
        return [(left + x / scale, top + y / scale) for x, y in clinging_path(frame.planes, one, other, sensitivity)]

    # Presets

    def apply_preset(self, preset: presets.Preset) -> None:
        """Use a preset's pick, bands and edge in the current sieve."""
        self.edit_sieve(lambda s: s.but(pick=preset.pick, bands=preset.bands, edge=preset.edge), f"Preset {preset.name}")

    def preset_from_here(self, name: str) -> presets.Preset:
        """The current pick and bands as a preset."""
        kept = [sample for sample in self.sieve.pick.samples if sample.role == "keep"]
        return presets.Preset(
            name=name,
            swatch=kept[0].colour if kept else (0.2, 0.2, 0.2),
            pick=self.sieve.pick,
            bands=self.sieve.bands,
            edge=self.sieve.edge,
        )

    def keep_preset(self, name: str) -> None:
        """Store the current pick and bands among a person's own presets."""
        try:
            presets.keep(self.preset_from_here(name))
        except (Trouble, OSError, ValueError) as trouble:
            self.trouble.emit(f"The preset could not be stored: {trouble}")
        else:
            self.said.emit(f"Stored preset {name}")

    # Opening and saving

    def open(self, path: pathlib.Path) -> None:
        """Open a picture, a clip or a project, in the background."""

        def work(progress: Progress) -> tuple[Source, Project | None]:
            project = storage.load(path) if path.suffix.lower() == ".sieve" else None
            if project and not project.source:
                raise Trouble(f"{path} names no picture: open a picture first.")
            source = open_source(pathlib.Path(project.source) if project else path)
            source.frame(0)
            return source, project

        self.run(f"Opening {path.name}", work, lambda result: self._show(path, *result))

    def _show(self, path: pathlib.Path, source: Source, project: Project | None) -> None:
        if self.opened:
            self.opened.source.close()
        self.opened = Opened(source)
        self.number = 0
        self.path = path if project else None
        self.history = History(project or Project(source=str(source.about.path.absolute())))
        self._current = self.project.stack[0].id
        self.last = None
        self.shown = Shown(views=self.shown.views)
        self.source_changed.emit()
        self.project_changed.emit()
        self.frame_changed.emit()
        self.ask()

    def save(self, path: pathlib.Path) -> bool:
        """Write the project; False when it could not be written (it is said why)."""
        try:
            storage.save(self.project, path)
        except Trouble as trouble:
            self.trouble.emit(str(trouble))
            return False
        self.path = path
        self.history.mark_saved()
        self.project_changed.emit()
        self.said.emit(f"Saved {path.name}")
        return True

    def export(self, path: pathlib.Path, depth: str = "", codec: str = "") -> None:
        """Write the result: a picture of this frame, or by the ending a clip or numbered pictures."""
        if not self.opened:
            return
        source, project, number = self.opened.source, self.project, self.number
        fresh = open_source(source.about.path) if source.about.kind != "still" else source

        def work(progress: Progress) -> None:
            one = (
                path.suffix.lower() in (".png", ".jpg", ".jpeg", ".tif", ".tiff", ".exr") and "#" not in path.name and "%" not in path.name
            )
            if one:
                export_still(fresh, project, path, number, depth, progress)
            else:
                export_clip(fresh, project, path, None, codec, progress)

        self.run(f"Exporting {path.name}", work, lambda _: self.said.emit(f"Exported {path.name}"))

    def export_mask(self, path: pathlib.Path) -> None:
        """Write the mask of the current sieve as a grey picture."""
        if not self.opened:
            return
        source, project, sieve_id, number = self.opened.source, self.project, self.sieve.id, self.number
        self.run(
            f"Exporting {path.name}",
            lambda progress: export_mask(source, project, sieve_id, path, number, progress),
            lambda _: self.said.emit(f"Exported {path.name}"),
        )

    def run(self, title: str, work: Callable[[Progress], object], then: Callable[..., None]) -> None:
        """Run long work with progress, one at a time."""
        if self.job is not None:
            self.trouble.emit(f"{self.job.title} is still running: wait for it or stop it first.")
            return
        job = Job(title, work, self)
        self.job = job

        def end() -> None:
            self.job = None
            self.job_changed.emit(None)

        def done(result: object) -> None:
            end()
            then(result)

        def failed(message: str) -> None:
            end()
            self.trouble.emit(message)

        job.done.connect(done)
        job.failed.connect(failed)
        job.stopped.connect(end)
        job.stopped.connect(lambda: self.said.emit(f"{title} was stopped"))
        self.job_changed.emit(job)
        job.start()

    def stop_job(self) -> None:
        """Ask the running job to stop."""
        if self.job:
            self.job.cancel()

    # Rendering

    def go_to(self, number: int) -> None:
        """Show another frame."""
        number = min(max(number, 0), max(self.frames - 1, 0))
        if number != self.number:
            self.number = number
            self.frame_changed.emit()
            self.ask()

    def show(self, shown: Shown) -> None:
        """The canvas wants to see this."""
        if shown != self.shown:
            self.shown = shown
            self.ask()

    def look(self, **changes: object) -> None:
        """Draw the views otherwise from now on: see `Looking`."""
        looking = replace(self.looking, **changes)  # type: ignore[arg-type]
        if looking != self.looking:
            self.looking = looking
            self.ask()

    def follow_view(self, on: bool) -> None:
        """Count colours over what is seen, or over the whole picture."""
        self.field_follows_view = on
        self.ask()

    def ask(self) -> None:
        """Render what is shown, with the newest state."""
        if not self.opened:
            return
        opened, project, sieve, shown, number, looking, cache = (
            self.opened,
            self.project,
            self.sieve,
            self.shown,
            self.number,
            self.looking,
            self._cache,
        )
        follows = self.field_follows_view

        def work() -> Rendered:
            level = opened.frame(number, shown.factor)
            frame = level
            left, top, right, bottom = shown.box
            if right > left and bottom > top:
                # Pieces and holes may reach beyond what is seen: then the whole picture is worked on.
                if any(needs_whole(s) for s in project.stack):
                    left = top = 0
                else:
                    frame = cache.get(("part", level.key, shown.box), lambda: _Held(level.part(*shown.box))).frame
            else:
                left = top = 0
            # Matting takes seconds: what waits for it is shown without it, while it is made in the background.
            waiting = [s for s in project.stack if s.on and waits_for_fine(frame, s, cache)]
            seen = project
            for s in waiting:
                seen = seen.with_sieve(s.but(edge=s.edge.but(fine=0.0)))
            mask = shown_mask(frame, seen, sieve.id, looking, cache, layer)
            pictures = {name: view(name, frame, seen, sieve.id, looking, cache, layer) for name in shown.views}
            counted = frame if follows else opened.frame(number)
            statistics = cache.get(
                ("statistics", counted.key, sieve.areas), lambda: statistics_of(counted.planes, bounds_of(counted, sieve, cache))
            )
            field = solo_field(statistics, project.sieve(sieve.id), looking)
            tiny = opened.frame(number, max(1, 2 ** int(np.ceil(np.log2(max(opened.source.about.size) / THUMBNAIL)))))
            thumbnails = {s.id: sieve_mask(tiny, seen, s.id, cache, layer) for s in project.stack}
            origin = (left / frame.scale, top / frame.scale)
            return Rendered(
                shown,
                number,
                frame.scale,
                origin,
                pictures,
                mask,
                coverage_of(mask),
                statistics,
                project,
                looking,
                frame,
                waiting,
                thumbnails,
                field,
            )

        self._renderer.ask(work)

    def _take(self, result: Rendered) -> None:
        self.last = result
        self.rendered.emit(result)
        if result.waiting and self.job is None and result.project == self.project:
            self._make_fine(result.frame, result.waiting)

    def _make_fine(self, frame: Frame, waiting: list[Sieve]) -> None:
        """Make the mattings that a render waits for, then render again."""

        def work(progress: Progress) -> None:
            for number, sieve in enumerate(waiting):
                make_fine(frame, sieve, self._cache, lambda share, number=number: progress.step((number + share) / len(waiting)))  # type: ignore[misc]

        self.run("Fine edge", work, lambda _: self.ask())

    def close(self) -> None:
        """Stop the threads and let go of files."""
        if self.job:
            self.job.cancel()
            self.job.wait()
        self._renderer.end()
        if self.opened:
            self.opened.source.close()

    def display_name(self) -> str:
        """What the title bar calls the work."""
        if self.path:
            return self.path.name
        return os.path.basename(self.project.source) or "Nothing open"


@dataclass(frozen=True)
class _Held:
    """A part of a frame as a cache entry."""

    frame: Frame
