"""Questions that are answered in a thread, in the order of asking."""

from __future__ import annotations

from collections import deque
from collections.abc import Callable
from typing import Any

from PyQt6.QtCore import QObject, pyqtSignal

from ...threads import Threads
from .guard import told


class OrderedWorker(QObject):
    """Answers in the order of asking: each question sees what came of the ones before it.

    A question is put together on the interface thread when its turn comes, its work runs in a
    thread; what follows from its answer runs on the interface thread again, and only then the next
    one starts.
    """

    failed = pyqtSignal(str, str)
    #: Nothing is being answered any more.
    rested = pyqtSignal()
    _answered = pyqtSignal(object, object)

    def __init__(self) -> None:
        super().__init__()
        self._waiting: deque[tuple[Callable[[], Callable[[], Any]], Callable[[Any], None]]] = (
            deque()
        )
        self._running = False
        self._ends = False
        self._threads = Threads("question")
        self._answered.connect(self._take)

    @property
    def idle(self) -> bool:
        return not self._running and not self._waiting

    def ask(self, prepare: Callable[[], Callable[[], Any]], then: Callable[[Any], None]) -> None:
        """Do in a thread what ``prepare`` gives when its turn comes, then ``then`` with the answer
        here.
        """
        self._waiting.append((prepare, then))
        self._next()

    def forget(self) -> None:
        """Drop what has not begun."""
        self._waiting.clear()

    def end(self) -> None:
        """Answer nothing any more."""
        self._ends = True
        self.forget()
        self._threads.end()

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

        self._threads.start(run)

    def _take(self, answer: tuple[Any, Exception | None], then: Callable[[Any], None]) -> None:
        value, error = answer
        try:
            if self._ends:
                return
            if error is not None:
                self.failed.emit(*told(error))
            else:
                then(value)
        finally:
            self._running = False
            self._next()
            if self.idle:
                self.rested.emit()
