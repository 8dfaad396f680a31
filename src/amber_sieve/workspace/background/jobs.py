"""Long work with progress, one at a time, with more of it in a queue."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from PyQt6.QtCore import QObject, QTimer, pyqtSignal

from ...errors import Trouble
from ...language import translator
from ...progress import Cancelled, Progress
from ...threads import Threads
from .guard import told

translate = translator("workspace")


class Job(QObject):
    """One long piece of work in a thread of its own."""

    progressed = pyqtSignal(float, object)
    done = pyqtSignal(object)
    failed = pyqtSignal(str, str)
    stopped = pyqtSignal()

    def __init__(self, title: str, work: Callable[[Progress], Any]) -> None:
        super().__init__()
        self.title = title
        self._work: Callable[[Progress], Any] | None = work
        self.progress = Progress(lambda share, left: self.progressed.emit(share, left))
        #: Of its own: a job that has just ended may still stand on the way to its last event.
        self._threads = Threads(title)

    def start(self) -> None:
        """Begin the work; `done`, `failed` or `stopped` follows."""
        self._threads.start(self._run)

    def cancel(self) -> None:
        """Ask it to stop; `stopped` follows."""
        self.progress.cancel()

    def end(self, seconds: float = 0.0) -> None:
        """Let go of the thread; wait at most so long for what it does."""
        self._threads.end(seconds)

    def _run(self) -> None:
        work, self._work = (
            self._work,
            None,
        )  # what the work holds is freed when it ends, not when the job is
        assert work is not None
        try:
            result = work(self.progress)
        except Cancelled:
            self.stopped.emit()
        except Exception as error:  # told to the person, who can go on
            self.failed.emit(*told(error))
        else:
            self.done.emit(result)


@dataclass(eq=False)
class Waiting:
    """Long work whose turn has not come."""

    title: str
    work: Callable[[Progress], Any]
    then: Callable[[Any], None]


class JobRunner(QObject):
    """Long work, one at a time with more of it in a queue, and beside it one piece of work that
    nobody waits for (``quiet``).
    """

    changed = pyqtSignal(object)
    queued = pyqtSignal()
    failed = pyqtSignal(str, str)
    said = pyqtSignal(str)

    def __init__(self) -> None:
        super().__init__()
        self.job: Job | None = None
        self.quiet: Job | None = None
        #: What waits for its turn, in order.
        self.waiting: list[Waiting] = []
        self._ends = False

    @property
    def idle(self) -> bool:
        return self.job is None and self.quiet is None and not self.waiting

    def queue(
        self, title: str, work: Callable[[Progress], Any], then: Callable[[Any], None]
    ) -> None:
        """Start long work, now or when what was queued before is done."""
        self.waiting.append(Waiting(title, work, then))
        if self.job is not None:
            self.said.emit(
                translate(
                    "{title} waits for its turn: {count} in the queue",
                    title=title,
                    count=len(self.waiting),
                )
            )
        self._next()

    def _next(self) -> None:
        if self.job is None and self.waiting and not self._ends:
            held = self.waiting.pop(0)
            self.run(held.title, held.work, held.then)
        self.queued.emit()

    def move(self, waiting: Waiting, by: int) -> None:
        """Move what waits up or down the queue."""
        at = self.waiting.index(waiting)
        self.waiting.insert(min(max(at + by, 0), len(self.waiting) - 1), self.waiting.pop(at))
        self.queued.emit()

    def forget(self, waiting: Waiting) -> None:
        """Take what waits out of the queue."""
        self.waiting.remove(waiting)
        self.queued.emit()

    def pause(self, on: bool) -> None:
        """Let the running work rest, or go on."""
        if self.job is not None:
            self.job.progress.pause(on)
            self.queued.emit()

    def run(self, title: str, work: Callable[[Progress], Any], then: Callable[[Any], None]) -> None:
        """Start long work; `Trouble` when another is still running."""
        if self.job is not None:
            raise Trouble(
                translate(
                    "{title} is still running: wait for it or stop it first.",
                    title=self.job.title,
                )
            )
        self.job = self._started(title, work, then, quiet=False)
        self.changed.emit(self.job)

    def run_quietly(
        self, title: str, work: Callable[[Progress], Any], then: Callable[[Any], None]
    ) -> bool:
        """Start quiet work; return False when quiet work is running already."""
        if self.quiet is not None:
            return False
        self.quiet = self._started(title, work, then, quiet=True)
        self.changed.emit(self.job or self.quiet)
        return True

    def _started(
        self, title: str, work: Callable[[Progress], Any], then: Callable[[Any], None], quiet: bool
    ) -> Job:
        job = Job(title, work)

        def end() -> None:
            if quiet:
                self.quiet = None
            else:
                self.job = None
            job.end()
            job.deleteLater()
            self.changed.emit(self.job or self.quiet)
            if not quiet:
                QTimer.singleShot(0, self._next)

        def done(result: object) -> None:
            end()
            then(result)

        def failed(message: str, details: str) -> None:
            end()
            self.failed.emit(message, details)

        def stopped() -> None:
            end()
            self.said.emit(translate("{title} was stopped", title=title))

        job.done.connect(done)
        job.failed.connect(failed)
        job.stopped.connect(stopped)
        job.start()
        return job

    def stop(self) -> None:
        """Ask the running work to stop."""
        for job in (self.job, self.quiet):
            if job is not None:
                job.cancel()

    def end(self, seconds: float = 20.0) -> None:
        """Stop everything and wait for it; what waits is forgotten."""
        self._ends = True
        self.waiting.clear()
        self.stop()
        for job in (self.job, self.quiet):
            if job is not None:
                job.end(seconds)
