"""Memory that was freed goes back to the system, when nothing is being done and, where much of it
has gathered, in between.

The C library keeps freed blocks for later, also the large ones that pictures are made of, and its
store only grows over a long
session: it has one for every few threads, and pictures of many sizes leave holes in each. Giving it
back takes some milliseconds, and what is asked for next is touched for the first time again; so
little is kept for reuse, and nothing is given back while something is dragged.
"""

from __future__ import annotations

import contextlib
import ctypes
import time

from ...live.playing import KEPT

#: Share of the cache that stages keep at least, whatever else is open.
LEAST = 0.6
#: The same while a clip is played.
LEAST_PLAYING = 0.25
#: Number of the setting for how many stores of memory there are (mallopt(3), M_ARENA_MAX).
ARENA_MAX = -8
#: How many are enough: threads here ask rarely, for much.
ARENAS = 1
#: Freed bytes that may lie ready for the next request.
READY = 150_000_000
#: Seconds between two times that more is given back.
BETWEEN = 0.5


class _Counts(ctypes.Structure):
    """Counts of the C library's store (mallinfo2(3))."""

    _fields_ = [
        (name, ctypes.c_size_t)
        for name in (
            "arena",
            "ordblks",
            "smblks",
            "hblks",
            "hblkhd",
            "usmblks",
            "fsmblks",
            "uordblks",
            "fordblks",
            "keepcost",
        )
    ]


def few_stores() -> None:
    """Let all threads share one store of memory; nothing happens where the C library has no such
    setting.
    """
    with contextlib.suppress(OSError, AttributeError):
        ctypes.CDLL(None).mallopt(ARENA_MAX, ARENAS)


def give_back() -> None:
    """Return freed memory to the system; nothing happens where the C library has no way to
    (musl).
    """
    with contextlib.suppress(OSError, AttributeError):
        ctypes.CDLL(None).malloc_trim(0)


def freed() -> int:
    """Bytes that were freed and are still the program's; 0 where the C library does not say."""
    with contextlib.suppress(OSError, AttributeError):
        count = ctypes.CDLL(None).mallinfo2
        count.restype = _Counts
        return int(count().fordblks)
    return 0


class GivesBack:
    """Gives memory back in between; one for a thread that works a lot."""

    def __init__(self) -> None:
        self._last = time.monotonic()

    def __call__(self) -> None:
        """Give it back where much has gathered, unless that was done a moment ago."""
        if time.monotonic() - self._last > BETWEEN and freed() > READY:
            give_back()
            self._last = time.monotonic()


def stages_may_keep(allowed: int, others: int, playing: bool) -> int:
    """Bytes that finished stages may keep, of what a person allows: less what ``others`` take,
    pictures that are open behind the one in the window and small frames of a clip, and, while it is
    played, what its finished pictures take.
    """
    others += KEPT if playing else 0
    return max(allowed - others, round(allowed * (LEAST_PLAYING if playing else LEAST)))
