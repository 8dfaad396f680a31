"""Workers beside the window: renders, questions, long jobs, reading; and the stages that they
share.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from PyQt6.QtCore import QObject, pyqtSignal

from ...progress import Progress
from ...render.cache import Cache
from ...render.context import RenderContext
from ...threads import Threads
from ..speech import Speech
from .guard import guarded
from .jobs import JobRunner
from .latest_only import LatestOnlyWorker
from .ordered import OrderedWorker

#: Seconds that a write of unsaved work is waited for at the end.
KEEPING = 5.0


@guarded
class Workers(QObject):
    """`job_changed` comes with the `Job` to show, or None; `failed` with a sentence and details;
    `rested` when something has ended.
    """

    job_changed = pyqtSignal(object)
    failed = pyqtSignal(str, str)
    rested = pyqtSignal()

    def __init__(self, bytes_of_stages: int, speech: Speech) -> None:
        super().__init__()
        self.speech = speech
        self.cache = Cache(bytes_of_stages)
        #: What rendering is told that is no step of a drag.
        self.context = RenderContext(self.cache)
        self.renders, self.questions = LatestOnlyWorker("render", large=True), OrderedWorker()
        #: What the pointer asks for, and what the loupe does.
        self.readouts, self.promises = LatestOnlyWorker("readout"), LatestOnlyWorker("promise")
        #: What a click would give, before it is made.
        self.aheads = LatestOnlyWorker("look ahead")
        #: Surfaces of the opened file, which nobody waits for.
        self.surfaces = LatestOnlyWorker("surfaces", last=True)
        #: The next click, which nobody waits for either.
        self.offers = LatestOnlyWorker("offers", last=True)
        #: Small pictures of recent work.
        self.recents = LatestOnlyWorker("recent work", last=True)
        #: What each tolerance would take, which is shown when it is there.
        self.tolerance_hints = LatestOnlyWorker("tolerance hints", last=True)
        #: Reading what was opened, beside whatever else runs.
        self.openings = JobRunner()
        #: Exports, which queue; and what a person waits for meanwhile, one at a time.
        self.jobs, self.tasks = JobRunner(), JobRunner()
        #: Keeping unsaved work of whatever is on the tray.
        self.autosaves = Threads("autosave")
        for one in (*self._all, self.surfaces, self.offers, self.tolerance_hints, self.recents):
            one.failed.connect(self.failed)
        for one in (self.renders, self.questions):
            one.rested.connect(self.rested)
        for runner in (self.jobs, self.tasks):
            runner.changed.connect(self._changed)
            runner.said.connect(speech.said)
        self.failed.connect(speech.failed)

    @property
    def _all(self) -> tuple[LatestOnlyWorker | OrderedWorker | JobRunner, ...]:
        return (
            self.questions,
            self.readouts,
            self.promises,
            self.aheads,
            self.openings,
            self.tasks,
            self.jobs,
            self.renders,
        )

    @property
    def idle(self) -> bool:
        """Return whether nothing is being done and nothing waits."""
        return all(one.idle for one in self._all)

    @property
    def rests(self) -> bool:
        """Return whether nobody waits for anything, so that what nobody waits for may be done."""
        return self.renders.idle and self.questions.idle and self.jobs.idle

    def _changed(self, _: object) -> None:
        self.job_changed.emit(self.tasks.job or self.jobs.job or self.jobs.quiet)
        self.rested.emit()

    def run(
        self, title: str, work: Callable[[Progress], object], then: Callable[[Any], None]
    ) -> None:
        """Run long work with progress, one at a time."""
        self.jobs.run(title, work, then)

    def wait_for(
        self, title: str, work: Callable[[Progress], object], then: Callable[[Any], None]
    ) -> None:
        """Run what a person waits for, beside whatever is being exported."""
        self.tasks.run(title, work, then)

    def stop_job(self) -> None:
        """Ask what is shown as running to stop: what is waited for before an export."""
        (self.tasks if self.tasks.job is not None else self.jobs).stop()

    def end(self) -> None:
        """Stop everything, and wait for it."""
        for one in (*self._all, self.surfaces, self.offers, self.tolerance_hints, self.recents):
            one.end()
        self.autosaves.end(KEEPING)
