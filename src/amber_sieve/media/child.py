"""A process of our own for work that holds Python's lock, or may not end: it can be ended, threads
cannot.

Requests and answers are pickled, one after another. The other side is a module run by `python -m`
that calls `serve`.
"""

from __future__ import annotations

import contextlib
import os
import pathlib
import pickle
import select
import subprocess
import sys
import threading
from collections.abc import Callable
from typing import Any


class ChildEnded(Exception):
    """The process ended before it answered, or was ended because it took too long."""


class Child:
    """A process that answers requests; it is started with the first, and anew after it has ended.

    Several threads may ask; one is answered at a time.
    """

    def __init__(self, module: str) -> None:
        self._module = module
        self._lock = threading.Lock()
        self._process: subprocess.Popen[bytes] | None = None

    def start(self) -> None:
        """Start the process if it is not running, without waiting for it."""
        with self._lock:
            self._started()

    def _started(self) -> subprocess.Popen[bytes]:
        if self._process is not None and self._process.poll() is not None:
            self._end(self._process)
        if self._process is None:
            # It finds the package where this process found it, started in whatever way.
            environment = os.environ | {"PYTHONPATH": str(pathlib.Path(__file__).parents[2])}
            self._process = subprocess.Popen(
                [sys.executable, "-m", self._module],
                stdin=subprocess.PIPE,
                stdout=subprocess.PIPE,
                stderr=subprocess.DEVNULL,
                env=environment,
            )
        return self._process

    def ask(self, request: Any, seconds: float | None = None) -> Any:
        """Return the answer to a request.

        Raises
        ------
        ChildEnded: the process ended, or ``seconds`` passed and it was ended.
        """
        with self._lock:
            process = self._started()
            assert process.stdin is not None and process.stdout is not None
            try:
                pickle.dump(request, process.stdin, pickle.HIGHEST_PROTOCOL)
                process.stdin.flush()
                if seconds is not None and not select.select([process.stdout], [], [], seconds)[0]:
                    raise ChildEnded("it took too long")
                return pickle.load(process.stdout)
            except (OSError, EOFError, pickle.UnpicklingError):
                self._end(process)
                raise ChildEnded("it ended") from None
            except ChildEnded:
                self._end(process)
                raise

    def _end(self, process: subprocess.Popen[bytes]) -> None:
        """End the process and close our ends of its pipes."""
        self._process = None
        process.kill()
        process.wait()
        for end in (process.stdin, process.stdout):
            with contextlib.suppress(OSError):
                if end is not None:
                    end.close()


def serve(answer: Callable[[Any], Any]) -> None:
    """Answer requests until the other side goes."""
    while True:
        try:
            request = pickle.load(sys.stdin.buffer)
        except (EOFError, OSError):
            return
        pickle.dump(answer(request), sys.stdout.buffer, pickle.HIGHEST_PROTOCOL)
        sys.stdout.buffer.flush()
