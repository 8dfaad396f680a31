"""One guard between widgets and the rest: what a person can mend becomes a sentence, what only we
can mend is kept for a report.
"""

from __future__ import annotations

import functools
import inspect
import sys
import threading
import traceback
from collections.abc import Callable
from types import FunctionType, TracebackType
from typing import Any

from PyQt6.QtCore import QObject, pyqtSignal

from ...errors import Trouble
from ...language import translator

translate = translator("workspace")


NO_MEMORY = translate(
    "There is not enough memory for this: close other programs or work on a smaller picture.",
)


def guarded(kind: type) -> type:
    """A class whose public methods turn `Trouble` into a sentence of its ``speech`` and then give
    None.

    Mistakes of ours pass through: they end in `Mishaps`, not before the person as theirs.
    """

    def wrapped(method: Callable[..., Any]) -> Callable[..., Any]:
        @functools.wraps(method)
        def entry(self: Any, *given: Any, **named: Any) -> Any:
            try:
                return method(self, *given, **named)
            except Trouble as trouble:
                self.speech.trouble.emit(str(trouble))
            except MemoryError:
                self.speech.trouble.emit(NO_MEMORY)
            return None

        if len(inspect.signature(method).parameters) > 1:
            return entry

        @functools.wraps(method)
        def bare(self: Any) -> Any:
            return entry(self)

        return bare  # Qt leaves out what a signal carries when a slot takes nothing

    for name, held in list(vars(kind).items()):
        if isinstance(held, FunctionType) and not name.startswith("_"):
            setattr(kind, name, wrapped(held))
    return kind


def details_of(error: BaseException) -> str:
    """The whole story of an error, for a report."""
    return "".join(traceback.format_exception(error))


def told(error: BaseException) -> tuple[str, str]:
    """Return an error in words, and the details for a report ("" when they can mend it
    themselves).
    """
    if isinstance(error, Trouble):
        return str(error), ""
    if isinstance(error, MemoryError):
        return NO_MEMORY, ""
    return (
        translate(
            "Something went wrong inside the program ({name}): your work is still here and you "
            "can go on. If it "
            "happens again, send us the details.",
            name=type(error).__name__,
        ),
        details_of(error),
    )


class Mishaps(QObject):
    """Catches what nobody caught: keeps the work, says one sentence with the details to copy, and
    the program goes on.
    """

    happened = pyqtSignal(str, str)

    def __init__(self, keep_work: Callable[[], None]) -> None:
        super().__init__()
        self._keep_work = keep_work
        self._inside = False

    def install(self) -> None:
        """Hear of every error in slots, events and threads."""
        sys.excepthook = self._caught
        threading.excepthook = lambda held: self._caught(
            held.exc_type, held.exc_value or held.exc_type(), held.exc_traceback
        )

    def _caught(
        self, kind: type[BaseException], error: BaseException, trace: TracebackType | None
    ) -> None:
        if issubclass(kind, KeyboardInterrupt | SystemExit):
            sys.__excepthook__(kind, error, trace)
            return
        if self._inside:  # an error while an error is told must not go round in circles
            return
        self._inside = True
        try:
            if isinstance(error, Trouble):
                self.happened.emit(str(error), "")
                return
            sentence = translate(
                "Something went wrong inside the program; your work is kept and you can go on. If "
                "it happens again, send us the details.",
            )
            self.happened.emit(
                NO_MEMORY if isinstance(error, MemoryError) else sentence, details_of(error)
            )
            self._keep_work()
        finally:
            self._inside = False
