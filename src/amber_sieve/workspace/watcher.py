"""Watches the current sieve's mask over all frames of a clip, in a thread, while nothing else is done."""

from __future__ import annotations

import threading
from collections.abc import Callable

from PyQt6.QtCore import QObject, pyqtSignal

from ..errors import Trouble
from ..live.watching import Course, factor_for, watched
from ..media.source import Source
from ..project.model import Project
from ..resolve.resolver import Resolver

#: Seconds to wait until nothing else is done any more; frames, at least, after which what was found is shown.
PAUSE, SHOWN_EVERY = 0.05, 8


class Watcher(QObject):
    """`found` comes with the `Course` as it grows; `watch` begins anew."""

    found = pyqtSignal(object)

    def __init__(self, rests: Callable[[], bool]) -> None:
        super().__init__()
        self._rests = rests
        self._stop = threading.Event()
        self._thread: threading.Thread | None = None
        self.course = Course()

    @property
    def watching(self) -> bool:
        """Whether there is something left to watch."""
        return self._thread is not None and self._thread.is_alive()

    def watch(self, opener: Callable[[], Source], resolver: Resolver, project: Project, sieve_id: str) -> None:
        """Watch a sieve's mask from the first frame to the last, first every sixteenth, so that breaks show early."""
        self.end()
        self._stop, self.course = threading.Event(), Course()
        given = (opener, resolver, project, sieve_id, self.course, self._stop)
        self._thread = threading.Thread(target=self._run, args=given, name="watch", daemon=True)
        self._thread.start()

    def _run(
        self, opener: Callable[[], Source], resolver: Resolver, project: Project, sieve_id: str, course: Course, stop: threading.Event
    ) -> None:
        try:
            source = opener()
        except Trouble:
            return
        try:
            frames, factor = source.about.frames, factor_for(*source.about.size)
            order = [*range(0, frames, 16), *(number for number in range(frames) if number % 16)]
            for done, number in enumerate(order, 1):
                while not stop.is_set() and not self._rests():
                    stop.wait(PAUSE)
                if stop.is_set():
                    return
                try:
                    course.add(number, watched(source.frame(number).reduced(factor), project, sieve_id, number, resolver))
                except Trouble:
                    continue  # a damaged frame is said when it is looked at
                if (done % max(SHOWN_EVERY, frames // 100) == 0 or done == frames) and not stop.is_set():
                    self.found.emit(course.copy())
        finally:
            source.close()

    def end(self) -> None:
        """Stop watching; the thread ends by itself, with its source, once the frame is done that it is at."""
        self._stop.set()
        self._thread = None
