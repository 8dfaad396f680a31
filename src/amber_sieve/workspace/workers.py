"""Work off the interface thread: renders where the newest request wins, questions answered in order, and jobs with progress."""

from __future__ import annotations

import threading
from collections import deque
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from PyQt6.QtCore import QObject, QTimer, pyqtSignal

from ..errors import Trouble
from ..progress import Cancelled, Progress
from .guard import NO_MEMORY, details_of
from .memory import GivesBack, give_back

#: After so many seconds without anything to render, freed memory is given back.
QUIET = 2.0


def _told(error: BaseException) -> tuple[str, str]:
    """What a person is told of an error, and the details for a report ("" when they can mend it themselves)."""
    if isinstance(error, Trouble):
        return str(error), ""
    if isinstance(error, MemoryError):
        return NO_MEMORY, ""
    return (
        f"Something went wrong inside the program ({type(error).__name__}): your work is still here and you can go on. If it happens again, send us the details.",
        details_of(error),
    )


class Renderer(QObject):
    """One thread that answers the newest request only; what was asked before and not begun is forgotten."""

    done = pyqtSignal(object)
    failed = pyqtSignal(str, str)

    def __init__(self) -> None:
        super().__init__()
        self._wake = threading.Condition()
        self._request: Callable[[], Any] | None = None
        self._ends = False
        self._busy = False
        self._thread = threading.Thread(target=self._run, name="render", daemon=True)
        self._thread.start()

    def ask(self, request: Callable[[], Any]) -> None:
        """Compute this next, in place of whatever was waiting."""
        with self._wake:
            self._request = request
            self._wake.notify()

    @property
    def idle(self) -> bool:
        """Whether nothing is waiting and nothing is being computed."""
        with self._wake:
            return self._request is None and not self._busy

    def _run(self) -> None:
        gives_back = GivesBack()
        while True:
            with self._wake:
                self._busy = False
                if not (self._request or self._ends or self._wake.wait(QUIET)):
                    give_back()
                while self._request is None and not self._ends:
                    self._wake.wait()
                if self._ends:
                    return
                request, self._request, self._busy = self._request, None, True
            assert request is not None
            try:
                result = request()
            except Exception as error:  # whatever happens, the thread lives on and the person is told
                self.failed.emit(*_told(error))
            else:
                self.done.emit(result)
                dragged = getattr(getattr(result, "wanted", None), "hurried", False)
                request = result = None  # nothing is held while memory is given back
                if not dragged:
                    gives_back()
            request = result = None  # nor while waiting

    def end(self) -> None:
        """Finish what is being computed, then stop the thread."""
        with self._wake:
            self._ends = True
            self._wake.notify()
        self._thread.join(10)


class Questions(QObject):
    """Answers in the order of asking: each question sees what came of the ones before it.

    A question is put together on the interface thread when its turn comes, its work runs in a thread; what follows from its answer
    runs on the interface thread again, and only then the next one starts.
    """

    failed = pyqtSignal(str, str)
    _answered = pyqtSignal(object, object)

    def __init__(self) -> None:
        super().__init__()
        self._waiting: deque[tuple[Callable[[], Callable[[], Any]], Callable[[Any], None]]] = deque()
        self._running = False
        self._ends = False
        self._answered.connect(self._take)

    @property
    def idle(self) -> bool:
        return not self._running and not self._waiting

    def ask(self, prepare: Callable[[], Callable[[], Any]], then: Callable[[Any], None]) -> None:
        """Do in a thread what ``prepare`` gives when its turn comes, then ``then`` with the answer here."""
        self._waiting.append((prepare, then))
        self._next()

    def forget(self) -> None:
        """Drop what has not begun."""
        self._waiting.clear()

    def end(self) -> None:
        """Answer nothing any more."""
        self._ends = True
        self.forget()

    def _next(self) -> None:
        if self._running or not self._waiting or self._ends:
            return
        self._running = True
        prepare, then = self._waiting.popleft()
        work = prepare()

        def run() -> None:
            answer: tuple[Any, Exception | None]
            try:
                answer = (work(), None)
            except Exception as error:  # told to the person, who can go on
                answer = (None, error)
            self._answered.emit(answer, then)

        threading.Thread(target=run, name="question", daemon=True).start()

    def _take(self, answer: tuple[Any, Exception | None], then: Callable[[Any], None]) -> None:
        value, error = answer
        try:
            if self._ends:
                return
            if error is not None:
                self.failed.emit(*_told(error))
            else:
                then(value)
        finally:
            self._running = False
            self._next()


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
        self._thread = threading.Thread(target=self._run, name=title, daemon=True)

    def start(self) -> None:
        self._thread.start()

    def cancel(self) -> None:
        """Ask it to stop; `stopped` follows."""
        self.progress.cancel()

    def wait(self, seconds: float | None = None) -> None:
        self._thread.join(seconds)

    def _run(self) -> None:
        work, self._work = self._work, None  # what the work holds is freed when it ends, not when the job is
        assert work is not None
        try:
            result = work(self.progress)
        except Cancelled:
            self.stopped.emit()
        except Exception as error:  # told to the person, who can go on
            self.failed.emit(*_told(error))
        else:
            self.done.emit(result)


@dataclass(eq=False)
class Waiting:
    """Long work whose turn has not come."""

    title: str
    work: Callable[[Progress], Any]
    then: Callable[[Any], None]


class JobRunner(QObject):
    """Long work, one at a time with more of it in a queue, and beside it one piece of work that nobody waits for (``quiet``)."""

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

    def queue(self, title: str, work: Callable[[Progress], Any], then: Callable[[Any], None]) -> None:
        """Start long work, now or when what was queued before is done."""
        self.waiting.append(Waiting(title, work, then))
        if self.job is not None:
            self.said.emit(f"{title} waits for its turn: {len(self.waiting)} in the queue")
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
            raise Trouble(f"{self.job.title} is still running: wait for it or stop it first.")
        self.job = self._started(title, work, then, quiet=False)
        self.changed.emit(self.job)

    def run_quietly(self, title: str, work: Callable[[Progress], Any], then: Callable[[Any], None]) -> bool:
        """Start work that nobody waits for; False when such work is running already."""
        if self.quiet is not None:
            return False
        self.quiet = self._started(title, work, then, quiet=True)
        self.changed.emit(self.job or self.quiet)
        return True

    def _started(self, title: str, work: Callable[[Progress], Any], then: Callable[[Any], None], quiet: bool) -> Job:
        job = Job(title, work)

        def end() -> None:
            if quiet:
                self.quiet = None
            else:
                self.job = None
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
            self.said.emit(f"{title} was stopped")

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
                job.wait(seconds)
