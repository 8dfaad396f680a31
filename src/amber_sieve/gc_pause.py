"""Times in which Python does not look for rubbish that holds itself."""

from __future__ import annotations

import contextlib
import gc
import threading
from collections.abc import Iterator

_LOCK = threading.Lock()
#: How many threads are in such a time, and whether rubbish was looked for before the first of them.
_inside, _collected = 0, False


@contextlib.contextmanager
def gc_pause() -> Iterator[None]:
    """Let rubbish lie meanwhile, until the last of several threads has ended with it."""
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
