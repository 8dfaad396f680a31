"""Work off the interface thread: renders where the newest request wins, and jobs with progress."""

from __future__ import annotations

import threading
import traceback
from collections.abc import Callable
from typing import Any

from PyQt6.QtCore import QObject, pyqtSignal

from ..errors import Trouble
from ..jobs.progress import Cancelled, Progress


def _said(error: BaseException) -> str:
    """What a person is told of an error."""
    if isinstance(error, Trouble):
        return str(error)
    if isinstance(error, MemoryError):
        return "There is not enough memory for this: close other programs or work on a smaller picture."
    traceback.print_exception(error)
    return (
        f"Something went wrong inside the program ({type(error).__name__}: {error}): your work is still here, save it and try another way."
    )


class Renderer(QObject):
    """One thread that answers the newest request only; what was asked before and not begun is forgotten."""

    done = pyqtSignal(object)
    failed = pyqtSignal(str)

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
        while True:
            with self._wake:
                self._busy = False
                while self._request is None and not self._ends:
                    self._wake.wait()
                if self._ends:
                    return
                request, self._request, self._busy = self._request, None, True
            assert request is not None
            try:
                result = request()
            except Exception as error:  # whatever happens, the thread lives on and the person is told
                self.failed.emit(_said(error))
            else:
                self.done.emit(result)

    def end(self) -> None:
        """Finish what is being computed, then stop the thread."""
        with self._wake:
            self._ends = True
            self._wake.notify()
        self._thread.join(10)


class Job(QObject):
    """One long piece of work in a thread of its own."""

    progressed = pyqtSignal(float, object)
    done = pyqtSignal(object)
    failed = pyqtSignal(str)
    stopped = pyqtSignal()

    def __init__(self, title: str, work: Callable[[Progress], Any], parent: QObject | None = None) -> None:
        super().__init__(parent)
        self.title = title
        self._work = work
        self.progress = Progress(lambda share, left: self.progressed.emit(share, left))
        self._thread = threading.Thread(target=self._run, name=title, daemon=True)

    def start(self) -> None:
        self._thread.start()

    def cancel(self) -> None:
        """Ask it to stop; `stopped` follows."""
        self.progress.cancel()

    def wait(self) -> None:
        self._thread.join()

    def _run(self) -> None:
        try:
            result = self._work(self.progress)
        except Cancelled:
            self.stopped.emit()
        except Exception as error:  # told to the person, who can go on
            self.failed.emit(_said(error))
        else:
            self.done.emit(result)
