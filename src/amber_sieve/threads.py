"""Threads of the program: named, bounded, ended. All threads are started here."""

from __future__ import annotations

import os
import sys
import threading
import time
from collections import deque
from collections.abc import Callable

#: How far behind the others those are that nobody waits for (setpriority(2); on Linux each thread
#: has its own).
LAST = 5


class Threads:
    """Daemon threads of one kind, which do pieces of work in the order in which they were given, at
    most ``most`` of them at once.

    A thread begins with the first piece that finds no other resting, and ends with `end`. A piece
    that raises does not stop its thread; the error goes to ``threading.excepthook``.
    """

    def __init__(self, name: str, most: int = 1, last: bool = False) -> None:
        """``last``: nobody waits for what they do, so they get a core when nothing else wants it;
        so do the kernels' threads that they begin.
        """
        self._name, self._most, self._last = name, most, last
        self._wake = threading.Condition()
        self._waiting: deque[Callable[[], object]] = deque()
        self._threads: list[threading.Thread] = []
        self._working = 0
        self._ends = False

    @property
    def idle(self) -> bool:
        """Return whether nothing is waiting and nothing is being done."""
        with self._wake:
            return not self._waiting and not self._working

    def start(self, work: Callable[[], object]) -> None:
        """Do this when its turn comes; nothing happens once they were ended."""
        with self._wake:
            if self._ends:
                return
            self._waiting.append(work)
            if self._working + len(self._waiting) > len(self._threads) < self._most:
                thread = threading.Thread(target=self._run, name=self._name, daemon=True)
                self._threads.append(thread)
                thread.start()
            self._wake.notify()

    def _run(self) -> None:
        if (
            self._last and sys.platform == "linux"
        ):  # elsewhere a number of a thread says another thing
            # Behind what the program itself has been given: nobody but the administrator may ask
            # for more than that.
            here = threading.get_native_id()
            os.setpriority(
                os.PRIO_PROCESS, here, min(19, os.getpriority(os.PRIO_PROCESS, here) + LAST)
            )
        while True:
            with self._wake:
                while not self._waiting and not self._ends:
                    self._wake.wait()
                if not self._waiting:
                    return
                work = self._waiting.popleft()
                self._working += 1
            try:
                work()
            except (
                Exception
            ):  # told like any error of a thread; the next piece is done all the same
                kind, error, trace = sys.exc_info()
                assert kind is not None
                threading.excepthook(
                    threading.ExceptHookArgs((kind, error, trace, threading.current_thread()))
                )
            finally:
                del work  # what it holds is freed while the thread waits
                with self._wake:
                    self._working -= 1

    def end(self, seconds: float = 0.0) -> None:
        """Begin nothing more, forget what waits, and wait at most so long for what is being
        done.
        """
        with self._wake:
            self._ends = True
            self._waiting.clear()
            self._wake.notify_all()
        until = time.monotonic() + seconds
        for thread in self._threads if seconds else ():
            thread.join(max(0.0, until - time.monotonic()))
