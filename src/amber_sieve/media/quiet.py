"""Keeps what C libraries print away from stderr while they read: what is wrong with a file is said
in a sentence of our own.
"""

from __future__ import annotations

import contextlib
import os
import threading
from collections.abc import Iterator

#: Held only to count who is inside, never while anything is read.
_LOCK = threading.Lock()
_inside = 0
_stderr = -1


@contextlib.contextmanager
def quiet() -> Iterator[None]:
    """Nothing reaches the file descriptor of stderr here. The first to come in turns it away, the
    last to leave turns it back, so that many threads may read at once.
    """
    global _inside, _stderr
    with _LOCK:
        if _inside == 0:
            _stderr = os.dup(2)
            nothing = os.open(os.devnull, os.O_WRONLY)
            os.dup2(nothing, 2)
            os.close(nothing)
        _inside += 1
    try:
        yield
    finally:
        with _LOCK:
            _inside -= 1
            if _inside == 0:
                os.dup2(_stderr, 2)
                os.close(_stderr)
