"""Telling how far long work is, and stopping it."""

from __future__ import annotations

import threading
import time
from collections.abc import Callable


class Cancelled(Exception):
    """Somebody asked for the work to stop."""


class Progress:
    """Counts steps, guesses the time left, and carries the wish to stop from the person to the
    worker.
    """

    def __init__(self, listener: Callable[[float, float | None], None] | None = None) -> None:
        self._listener = listener
        self._stop = threading.Event()
        self._goes = threading.Event()
        self._goes.set()
        self._rested = 0.0
        self._started = time.monotonic()

    def cancel(self) -> None:
        """Ask the work to stop at its next step."""
        self._stop.set()
        self._goes.set()

    def pause(self, on: bool) -> None:
        """Let the work rest at its next step, or go on."""
        if on:
            self._goes.clear()
        else:
            self._goes.set()

    @property
    def paused(self) -> bool:
        """Return whether the work rests, or will at its next step."""
        return not self._goes.is_set()

    def step(self, share: float) -> None:
        """Say that ``share`` (0 to 1) is done; the listener gets it with the seconds left, or None
        while unknown.

        Raises
        ------
        Cancelled: `cancel` was called.
        """
        if not self._goes.is_set():
            begun = time.monotonic()
            self._goes.wait()
            self._rested += time.monotonic() - begun
        if self._stop.is_set():
            raise Cancelled
        spent = time.monotonic() - self._started - self._rested
        left = spent / share * (1 - share) if share > 0.02 and spent > 0.5 else None
        if self._listener:
            self._listener(share, left)


def part_of(step: Callable[[float], None], number: int, of: int) -> Callable[[float], None]:
    """Return a function that tells the progress of one of several pieces of work, from 0, as
    progress of them all.
    """
    return lambda share: step((number + share) / of)
