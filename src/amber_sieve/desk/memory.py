"""Memory that was freed goes back to the system when nothing is being done.

The C library keeps freed blocks for later, also the large ones that pictures are made of, and its store only grows over a long
session. Giving it back takes some milliseconds, so it waits until nobody waits.
"""

from __future__ import annotations

import contextlib
import ctypes


def give_back() -> None:
    """Return freed memory to the system; nothing happens where the C library has no way to (musl)."""
    with contextlib.suppress(OSError, AttributeError):
        ctypes.CDLL(None).malloc_trim(0)
