"""Pause the cyclic garbage collector."""

from __future__ import annotations

import contextlib
import gc
import threading
from collections.abc import Iterator

_LOCK = threading.Lock()
#: Threads that pause it now, and whether it ran before the first of them.
_inside, _collected = 0, False


@contextlib.contextmanager
def gc_pause() -> Iterator[None]:
    """Pause it until the last of the threads that do so at once has ended."""
    global _inside, _collected
    with _LOCK:
        if _inside == 0:
            _collected = gc.isenabled()
            gc.disable()
        _inside += 1
    try:
        yield
    finally:
        with _LOCK:
            _inside -= 1
            if _inside == 0 and _collected:
                gc.enable()
