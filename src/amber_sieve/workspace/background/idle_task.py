"""Idle work: tolerance curves, the next click, frames ahead."""

from __future__ import annotations

import contextlib
from collections.abc import Callable
from typing import Any

from PyQt6.QtCore import QObject, QTimer, pyqtSignal

from ...errors import Trouble
from ...progress import Cancelled, Progress
from .latest_only import LatestOnlyWorker

#: Computes a value in the thread of a worker; stops with `Cancelled` when the progress says so.
Compute = Callable[[Progress], Any]


class IdleTask(QObject):
    """Computes a value once its key has stood for a while; gives it up when another is wanted."""

    #: The value; None where a file could not be read: the view of it says so.
    found = pyqtSignal(object)
    _ended = pyqtSignal(object, object)

    def __init__(
        self,
        worker: LatestOnlyWorker,
        delay: int,
        begin: Callable[[], Compute | None],
        about: Callable[[], object] = lambda: None,
    ) -> None:
        """``delay``: milliseconds. ``begin`` returns the work, or None when there is nothing to do.
        ``about``: what it is about, see `LatestOnlyWorker.superseded`.
        """
        super().__init__()
        self._worker, self._begin, self._about = worker, begin, about
        #: What the value is for that was found last, or is waited for or computed now.
        self.key: object = None
        self._progress: Progress | None = None
        self._timer = QTimer(self)
        self._timer.setSingleShot(True)
        self._timer.setInterval(delay)
        self._timer.timeout.connect(self._ask)
        self._ended.connect(self._take)

    @property
    def waits(self) -> bool:
        """Return whether it will be begun soon."""
        return self._timer.isActive()

    @property
    def idle(self) -> bool:
        """Return whether nothing is being computed, and nothing will be soon."""
        return self._progress is None and not self.waits

    def want(self, key: object, now: bool = False) -> None:
        """Have the value for a key after the delay, or ``now``; nothing happens if it is known."""
        if key == self.key:
            return
        self.cancel()
        self.key = key
        if now:
            self._ask()
        else:
            self._timer.start()

    def cancel(self) -> None:
        """Something else is wanted first: what was not found may be wanted again."""
        if not self.idle:
            self.forget()

    def forget(self) -> None:
        """Nothing is known any more."""
        self._timer.stop()
        if self._progress is not None:
            self._progress.cancel()
        self.key = self._progress = None

    def _ask(self) -> None:
        work = self._begin()
        if work is None:
            self.key = None
            return
        progress = self._progress = Progress()

        def run() -> None:
            value = None
            try:
                with contextlib.suppress(Trouble, Cancelled):
                    value = work(progress)
            finally:
                self._ended.emit(progress, value)

        self._worker.ask(run, self._about())

    def _take(self, progress: Progress, value: Any) -> None:
        if progress is self._progress:
            self._progress = None
            self.found.emit(value)
