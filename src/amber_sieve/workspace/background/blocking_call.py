"""Run work in a thread; the caller waits while the window keeps painting."""

from __future__ import annotations

from collections.abc import Callable
from typing import TypeVar

from PyQt6.QtCore import QEventLoop, QObject, pyqtSignal

from ...threads import Threads

T = TypeVar("T")


class _Bell(QObject):
    """Rings in the thread that made it, from any thread."""

    rings = pyqtSignal()


def blocking_call(work: Callable[[], T]) -> T:
    """Return the result of some work, done in a thread; until then events are handled, but not
    those of mouse and keys. Raises what it raises.
    """
    given: list[T] = []
    raised: list[BaseException] = []
    loop, bell, threads = QEventLoop(), _Bell(), Threads("blocking call")
    bell.rings.connect(loop.quit)

    def run() -> None:
        try:
            given.append(work())
        except BaseException as error:  # raised again where it was asked for
            raised.append(error)
        bell.rings.emit()

    threads.start(run)
    loop.exec(QEventLoop.ProcessEventsFlag.ExcludeUserInputEvents)
    threads.end(1.0)
    if raised:
        raise raised[0]
    return given[0]
