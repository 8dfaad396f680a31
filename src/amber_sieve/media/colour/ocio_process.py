"""OpenColorIO in a process of its own: while it reads a large table or configuration it holds Python's lock, and the window would stand still.

The other side of the pipe is this module, run by `python -m`; requests and answers are pickled, one after another.
"""

from __future__ import annotations

import contextlib
import os
import pathlib
import pickle
import subprocess
import sys
import threading
from typing import Any, BinaryIO

import numpy as np

from ...errors import Trouble
from ...language import translate

_LOCK = threading.Lock()
_process: subprocess.Popen[bytes] | None = None


def ask(what: str, *given: Any) -> Any:
    """What a function of `ocio_functions` gives; only one is asked at a time.

    Raises
    ------
    Trouble: it could not be done; or the process was ended from outside.
    """
    global _process
    with _LOCK:
        if _process is not None and _process.poll() is not None:
            _let_go(_process)
            _process = None
        if _process is None:
            # It finds the package where this one found it, started in whatever way.
            environment = os.environ | {"PYTHONPATH": str(pathlib.Path(__file__).parents[3])}
            _process = subprocess.Popen(
                [sys.executable, "-m", __name__], stdin=subprocess.PIPE, stdout=subprocess.PIPE, stderr=subprocess.DEVNULL, env=environment
            )
        assert _process.stdin is not None and _process.stdout is not None
        try:
            pickle.dump((what, given), _process.stdin, pickle.HIGHEST_PROTOCOL)
            _process.stdin.flush()
            words, answer = pickle.load(_process.stdout)
        except (OSError, EOFError, pickle.UnpicklingError):
            _process.kill()
            _let_go(_process)
            _process = None
            raise Trouble(translate("colour", "The process that reads colour tables was ended: try again.")) from None
    if words:
        raise Trouble(words)
    return answer


def _let_go(process: subprocess.Popen[bytes]) -> None:
    """Close our ends of the pipes of a process that has ended."""
    process.wait()
    for end in (process.stdin, process.stdout):
        with contextlib.suppress(OSError):
            if end is not None:
                end.close()


def _serve(requests: BinaryIO, answers: BinaryIO) -> None:
    """Answer until the other side goes."""
    from . import ocio_functions

    while True:
        try:
            what, given = pickle.load(requests)
        except (EOFError, OSError):
            return
        answer: tuple[str, Any]
        try:
            answer = ("", getattr(ocio_functions, what)(*given))
        except Trouble as trouble:
            answer = (str(trouble), None)
        except Exception as error:  # a mistake of ours, told on the other side
            answer = (
                translate(
                    "colour",
                    "A colour table could not be worked on ({name}: {error}): choose another.",
                    name=type(error).__name__,
                    error=error,
                ),
                None,
            )
        pickle.dump(answer, answers, pickle.HIGHEST_PROTOCOL)
        answers.flush()


if __name__ == "__main__":
    np.seterr(all="ignore")
    _serve(sys.stdin.buffer, sys.stdout.buffer)
