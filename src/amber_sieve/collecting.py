"""Times in which Python does not look for rubbish that holds itself."""

from __future__ import annotations

import contextlib
import gc
from collections.abc import Iterator


@contextlib.contextmanager
def no_collecting() -> Iterator[None]:
    """Let rubbish lie meanwhile."""
    collects = gc.isenabled()
    gc.disable()
    try:
        yield
    finally:
        if collects:
            gc.enable()
