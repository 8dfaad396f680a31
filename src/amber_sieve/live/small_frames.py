"""Small frames of footage that is slow to decode, kept as they are played, so that it plays at its
rate once they are there. No Qt.
"""

from __future__ import annotations

import threading
from collections.abc import Hashable
from dataclasses import dataclass

import numpy as np

from ..core.frame import Frame

#: Seconds of decoding from which on frames are worth keeping: quicker ones are decoded again.
SLOW = 0.02
#: How much the newest frame counts in that: decoders give some at once and take long over others.
NEWEST = 0.2
#: Most that a number of 16 bits holds.
MOST = float(np.finfo(np.float16).max)


class Pace:
    """Mean decoding time of frames."""

    def __init__(self) -> None:
        self._seconds = 0.0

    def count(self, seconds: float) -> None:
        """One frame took so long."""
        self._seconds += NEWEST * (seconds - self._seconds)

    @property
    def slow(self) -> bool:
        """Return whether frames are worth keeping."""
        return self._seconds > SLOW


@dataclass(frozen=True)
class _Held:
    """A small frame in store."""

    planes: np.ndarray
    key: Hashable
    scale: float
    origin: tuple[int, int]
    whole: tuple[int, int] | None


class SmallFrames:
    """Frames of one clip at one size, in floats of 16 bits, up to a number of bytes: those that are
    played soonest.

    Any thread may ask. ``about`` says what the clip and size are: what is held of another is let go
    of.
    """

    def __init__(self, limit: int) -> None:
        self._limit = limit
        self._lock = threading.Lock()
        self._about: Hashable = None
        self._held: dict[int, _Held] = {}
        self._bytes = 0

    def take(self, about: Hashable, number: int) -> Frame | None:
        """A frame, None where it is not held."""
        with self._lock:
            held = self._held.get(number) if about == self._about else None
        if held is None:
            return None
        return Frame(
            held.planes.astype(np.float32), None, held.key, held.scale, held.origin, held.whole
        )

    @property
    def bytes(self) -> int:
        """Bytes that are held."""
        with self._lock:
            return self._bytes

    def holds(self, about: Hashable, number: int) -> bool:
        """Return whether a frame is held."""
        with self._lock:
            return about == self._about and number in self._held

    def keep(self, about: Hashable, number: int, frame: Frame, head: int, count: int) -> bool:
        """Keep a frame that was decoded, in place of those that are played later than it; False
        when there is no room for it.

        The play head stands at frame ``head`` and goes round through ``count`` frames.
        """
        if frame.alpha is not None:
            return False
        planes = np.clip(frame.planes, -MOST, MOST).astype(np.float16)
        with self._lock:
            if about != self._about:
                self._about, self._bytes = about, 0
                self._held.clear()
            if number in self._held:
                return True
            while self._bytes + planes.nbytes > self._limit:
                last = max(self._held, key=lambda held: (held - head) % count, default=number)
                if (last - head) % count <= (number - head) % count:
                    return False
                self._bytes -= self._held.pop(last).planes.nbytes
            self._held[number] = _Held(planes, frame.key, frame.scale, frame.origin, frame.whole)
            self._bytes += planes.nbytes
            return True

    def let_go(self) -> None:
        """Hold nothing any more."""
        with self._lock:
            self._about, self._bytes = None, 0
            self._held.clear()
