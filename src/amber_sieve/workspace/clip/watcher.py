"""Watches the current sieve's mask over all frames of a clip, a frame at a time, while nothing else
is done.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator

from PyQt6.QtCore import QObject, pyqtSignal

from ...errors import Trouble
from ...live.watching import Course, factor_for, watched
from ...media.source import Source
from ...project.model import Project
from ...resolve.resolver import Resolver
from ...threads import Threads

#: Frames, at least, after which what was found is shown.
SHOWN_EVERY = 8
#: Every n-th frame is looked at first, so that breaks show early.
FIRST_EVERY = 16
#: Seconds that a frame is waited for at the end.
CLOSING = 5.0


class _Watch:
    """One course from the first frame to the last."""

    def __init__(
        self, opener: Callable[[], Source], resolver: Resolver, project: Project, sieve_id: str
    ) -> None:
        self._opener, self._resolver, self._project, self._sieve_id = (
            opener,
            resolver,
            project,
            sieve_id,
        )
        self.course = Course()
        self._source: Source | None = None
        self._left: Iterator[int] = iter(())
        self._done = 0

    def step(self) -> Course | None:
        """Look at the next frame; returns the course where it is to be shown. Raises StopIteration
        after the last, `Trouble` when the clip cannot be opened.
        """
        if self._source is None:
            self._source = self._opener()
            frames = range(self._source.about.frames)
            self._left = iter(
                [*frames[::FIRST_EVERY], *(number for number in frames if number % FIRST_EVERY)]
            )
        source, number = self._source, next(self._left)
        try:
            frame = source.frame(number).reduced(factor_for(*source.about.size))
            self.course.add(
                number, watched(frame, self._project, self._sieve_id, number, self._resolver)
            )
        except Trouble:
            pass  # a damaged frame is said when it is looked at
        self._done += 1
        frames_in_all = source.about.frames
        shown = (
            self._done % max(SHOWN_EVERY, frames_in_all // 100) == 0 or self._done == frames_in_all
        )
        return self.course.copy() if shown else None

    def close(self) -> None:
        """Let go of the clip; once is enough."""
        source, self._source = self._source, None
        if source is not None:
            source.close()


class Watcher(QObject):
    """`found` comes with the `Course` as it grows; `watch` starts over, `go_on` is called when
    other work may have ended.
    """

    found = pyqtSignal(object)
    _stepped = pyqtSignal(object, object, bool)

    def __init__(self, rests: Callable[[], bool]) -> None:
        super().__init__()
        self._rests = rests
        self._threads = Threads("watch")
        self._watch: _Watch | None = None
        self._busy = False
        self._stepped.connect(self._take)

    @property
    def watching(self) -> bool:
        """Return whether there is something left to watch."""
        return self._watch is not None

    def watch(
        self, opener: Callable[[], Source], resolver: Resolver, project: Project, sieve_id: str
    ) -> None:
        """Watch a sieve's mask from the first frame to the last."""
        self.end()
        self._watch = _Watch(opener, resolver, project, sieve_id)
        self.go_on()

    def go_on(self) -> None:
        """Look at the next frame, when nobody waits for anything else."""
        watch = self._watch
        if watch is None or self._busy or not self._rests():
            return
        self._busy = True

        def run() -> None:
            course, more = None, False
            try:
                course = watch.step()
                more = True
            except (Trouble, StopIteration):
                pass
            finally:  # whatever was raised, others go on
                if not more or watch is not self._watch:
                    watch.close()
                self._stepped.emit(watch, course, more)

        self._threads.start(run)

    def _take(self, watch: _Watch, course: Course | None, more: bool) -> None:
        self._busy = False
        if watch is not self._watch:
            if more:
                self._threads.start(watch.close)
        elif not more:
            self._watch = None
        elif course is not None:
            self.found.emit(course)
        self.go_on()

    def end(self) -> None:
        """Stop watching; the clip is let go of once the frame is done that is looked at."""
        watch, self._watch = self._watch, None
        if watch is not None and not self._busy:
            watch.close()

    def close(self) -> None:
        """Stop for good, and wait a little for the frame that is looked at."""
        self.end()
        self._threads.end(CLOSING)
