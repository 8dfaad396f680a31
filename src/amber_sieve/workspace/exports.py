"""Exports: pictures, masks, clips, lookup tables and batches."""

from __future__ import annotations

import contextlib
import pathlib
from collections.abc import Callable
from dataclasses import replace

import numpy as np

from ..core.colour.screen import to_screen
from ..errors import Trouble
from ..export.batch import AS_IT_CAME, BatchHow, Outcome, run_batch
from ..export.clip import ClipExport, export_clip
from ..export.frame import finished
from ..export.lookup import Compared, compared, write_lookup
from ..export.still import export_mask, export_still
from ..export.still_options import Export, export
from ..files import regular_file
from ..language import translator
from ..live.sieve_context import SieveContext
from ..media.footage.sequences import is_pattern
from ..media.formats import is_clip, is_picture
from ..media.opening import open_source
from ..media.source import Source
from ..progress import Progress
from ..project.model import Project
from ..render.context import RenderContext
from ..render.shown import shown
from ..resolve.layers import layers_in
from ..resolve.sources import source_of
from .background.guard import guarded
from .background.workers import Workers
from .document.work import Work
from .speech import Speech

translate = translator("workspace")


@guarded
class ExportsController:
    """Jobs that write what is in the window, or on the tray."""

    def __init__(self, work: Work, workers: Workers, speech: Speech) -> None:
        self.speech = speech
        self._work, self._workers = work, workers

    def write(self, path: pathlib.Path, depth: str = "", codec: str = "") -> None:
        """Write the result: a picture of this frame, or by the ending a clip or numbered
        pictures.
        """

        def work(source: Source, project: Project, number: int, progress: Progress) -> None:
            if is_picture(path) and not is_pattern(path):
                export_still(source, project, path, number, depth, progress)
            else:
                export_clip(source, project, path, None, codec, progress)

        self._queue(path, work)

    def write_as(self, path: pathlib.Path, how: Export) -> None:
        """Write this frame as asked: result, masks or a cut-out, at some depth and size."""
        sieve_id = self._work.sieve.id
        self._queue(
            path,
            lambda source, project, number, progress: export(
                source, project, sieve_id, path, how, number, progress
            ),
        )

    def write_frames(
        self, path: pathlib.Path, frames: tuple[int, int] | None, codec: str, how: ClipExport
    ) -> None:
        """Write frames of a clip, from the first to the last of ``frames``, as a clip or as
        numbered pictures.
        """
        chosen = replace(how, sieve_id=self._work.sieve.id)
        self._queue(
            path,
            lambda source, project, number, progress: export_clip(
                source, project, path, frames, codec, progress, chosen
            ),
        )

    def compare_lookup(
        self, size: int, then: Callable[[Compared, np.ndarray, np.ndarray], None]
    ) -> None:
        """Compare a lookup table of ``nodes`` nodes with the render, for ``then``: figures, and
        screen pixels through it and as rendered.
        """

        def work(seen: SieveContext) -> tuple[Compared, np.ndarray, np.ndarray]:
            found = compared(seen.project, seen.opened.frame(seen.number), size)
            return found, to_screen(found.through), to_screen(found.real)

        self._work.ask_about(work, lambda answer: then(*answer))

    def write_lookup(self, path: pathlib.Path, size: int = 33) -> None:
        """Write what depends on colour alone as a 3D lookup table, and say how near it comes."""
        opened, project, number = self._work.opened, self._work.project, self._work.number
        if opened is None:
            return

        def work(progress: Progress) -> Compared:
            with opened.read():
                return write_lookup(project, opened.source.frame(number), path, size, progress)

        def then(written: Compared) -> None:
            left = (
                translate("; left out: {left_out}", left_out="; ".join(written.left_out))
                if written.left_out
                else ""
            )
            words = translate(
                "{name}: mean ΔE2000 {mean:.2f}, largest {largest:.1f} from the render{left}",
                name=path.name,
                mean=written.mean,
                largest=written.largest,
                left=left,
            )
            self.speech.wrote.emit(words, path)

        self._workers.jobs.queue(translate("Writing {name}", name=path.name), work, then)

    def run_batch(
        self, pictures: list[pathlib.Path], folder: pathlib.Path, how: BatchHow = AS_IT_CAME
    ) -> None:
        """Render many pictures by the project as it is now, with a report."""
        self._batch(self._work.project.but(takes=()), pictures, folder, how)

    def first_of_batch(
        self,
        picture: pathlib.Path,
        own: bool,
        longest: int,
        then: Callable[[np.ndarray | None], None],
    ) -> None:
        """Show a batch's result of a picture, at most ``side`` pixels wide and high, as screen
        pixels for ``then``; None where it cannot be read. ``own``: by its own stack on the tray,
        and not by the one in the window.
        """
        entry = self._work.tray.find(str(picture.absolute())) if own else None
        project = self._work.tray.project_of(entry) if entry is not None else self._work.project

        def question() -> np.ndarray | None:
            try:
                with contextlib.closing(open_source(picture, project.reading)) as source:
                    frame = source.frame(0)
                    small = frame.reduced(max(1.0, max(frame.width, frame.height) / longest))
                    made = finished(source, project.but(takes=()), 0, frame=small)
                    return shown(made.result.planes, made.stands, layers_in(RenderContext()))
            except Trouble:  # the batch will say so of each
                return None

        self._workers.questions.ask(lambda: question, then)

    def batch_tray(self, folder: pathlib.Path, how: BatchHow = AS_IT_CAME) -> None:
        """Render the stills of the tray, each by its own stack, with a report."""
        entries = [
            entry
            for entry in self._work.tray.entries
            if entry.source and not is_clip(pathlib.Path(entry.source))
        ]
        clips = sum(is_clip(pathlib.Path(entry.source)) for entry in self._work.tray.entries)
        if not entries:
            raise Trouble(
                translate(
                    "There are no stills on the tray: open some, or export the clips (Ctrl+E).",
                )
            )
        if clips:
            self.speech.said.emit(
                translate(
                    "{clips} clips are left out: export them by themselves (Ctrl+E)",
                    clips=clips,
                )
            )
        projects = [self._work.tray.project_of(entry).but(takes=()) for entry in entries]
        self._batch(projects, [pathlib.Path(entry.source) for entry in entries], folder, how)

    def _batch(
        self,
        project: Project | list[Project],
        pictures: list[pathlib.Path],
        folder: pathlib.Path,
        how: BatchHow,
    ) -> None:

        def work(progress: Progress) -> list[Outcome]:
            return run_batch(project, pictures, folder, how, progress)

        def then(outcomes: list[Outcome]) -> None:
            wrong = [outcome for outcome in outcomes if outcome.trouble]
            done = len(outcomes) - len(wrong)
            words = (
                translate(
                    "Batch: {done} of {count} pictures looked at", done=done, count=len(outcomes)
                )
                if how.preview
                else translate(
                    "Batch: {done} of {count} pictures written", done=done, count=len(outcomes)
                )
            )
            reused = sum(outcome.reused for outcome in outcomes)
            earlier = translate(", {n} of them by an earlier run", n=reused) if reused else ""
            self.speech.wrote.emit(words + earlier, folder / "batch.html")
            if wrong:
                more = (
                    translate(" And {count} more: see batch.html.", count=len(wrong) - 1)
                    if len(wrong) > 1
                    else ""
                )
                self.speech.trouble.emit(f"{wrong[0].trouble}{more}")

        self._workers.jobs.queue(translate("Batch"), work, then)

    def write_mask(self, path: pathlib.Path) -> None:
        """Write the mask of the current sieve as a grey picture."""
        sieve_id = self._work.sieve.id
        self._queue(
            path,
            lambda source, project, number, progress: export_mask(
                source, project, sieve_id, path, number, progress
            ),
        )

    def _queue(
        self, path: pathlib.Path, work: Callable[[Source, Project, int, Progress], object]
    ) -> None:
        opened, project, number = self._work.opened, self._work.project, self._work.number
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

        self._workers.jobs.queue(
            translate("Exporting {name}", name=path.name),
            job,
            lambda _: self.speech.wrote.emit(translate("Exported {name}", name=path.name), path),
        )
