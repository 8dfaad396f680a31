"""Memory that was freed goes back to the system, when nothing is being done and now and then in between.

The C library keeps freed blocks for later, also the large ones that pictures are made of, and its store only grows over a long
session: it has one for every few threads, and pictures of many sizes leave holes in each. Giving it back takes some milliseconds, and
what is asked for next is touched for the first time again; so nothing is given back while something is dragged.
"""

from __future__ import annotations

import contextlib
import ctypes
import time

#: Number of the setting for how many stores there are (mallopt(3), M_ARENA_MAX), and how many are enough: threads here ask rarely, for much.
ARENA_MAX, ARENAS = -8, 2
#: Seconds between two times that memory is given back although there is something to do.
BETWEEN = 2.0


def few_stores() -> None:
    """Let all threads share a few stores of memory; nothing happens where the C library has no such setting."""
    with contextlib.suppress(OSError, AttributeError):
        ctypes.CDLL(None).mallopt(ARENA_MAX, ARENAS)


def give_back() -> None:
    """Return freed memory to the system; nothing happens where the C library has no way to (musl)."""
    with contextlib.suppress(OSError, AttributeError):
        ctypes.CDLL(None).malloc_trim(0)


class GivesBack:
    """Gives memory back now and then; one for a thread that works a lot."""

    def __init__(self) -> None:
        self._last = time.monotonic()

    def __call__(self) -> None:
        """Give it back if that was not done lately."""
        if time.monotonic() - self._last > BETWEEN:
            give_back()
            self._last = time.monotonic()
