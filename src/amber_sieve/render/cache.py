"""Remembering stages by their inputs."""

from __future__ import annotations

import contextlib
import dataclasses
import threading
from collections import OrderedDict
from collections.abc import Callable, Hashable, Iterator
from typing import TypeVar, cast

import numpy as np

T = TypeVar("T")


def _bytes_of(value: object) -> int:
    if isinstance(value, np.ndarray):
        return value.nbytes
    if isinstance(value, tuple):
        return sum(_bytes_of(part) for part in value)
    if dataclasses.is_dataclass(value) and not isinstance(value, type):
        return sum(_bytes_of(getattr(value, field.name)) for field in dataclasses.fields(value))
    return 64


class Cache:
    """Least recently used values, up to a number of bytes; keys are the inputs of a stage by value.

    ``keeps`` is the predicate for keys that are never evicted: of what several sieves ask for.
    """

    def __init__(self, limit: int, keeps: Callable[[Hashable], bool] | None = None) -> None:
        self.limit = limit
        self._keeps = keeps
        self._kept: dict[Hashable, object] = {}
        self._cached: OrderedDict[Hashable, tuple[object, int]] = OrderedDict()
        #: Values of steps of a drag, and the round in which each was last asked for.
        self._transient: dict[Hashable, int] = {}
        self._round = 0
        self._bytes = 0
        self._lock = threading.Lock()

    def holds(self, key: Hashable) -> bool:
        """Return whether a value is held for these inputs."""
        with self._lock:
            return key in self._cached

    def get(self, key: Hashable, make: Callable[[], T], transient: bool = False) -> T:
        """Return the value made from these inputs, made now if it is not held. Values must not be
        written to.

        A ``transient`` value is dropped at the end of the next round that does not ask for it, see
        `transient_round`.
        """
        with self._lock:
            if key in self._kept:
                return cast(T, self._kept[key])
            if key in self._cached:
                self._cached.move_to_end(key)
                if key in self._transient:
                    self._transient[key] = self._round
                return cast(T, self._cached[key][0])
        value = make()
        if self._keeps is not None and self._keeps(key):
            with self._lock:
                return cast(T, self._kept.setdefault(key, value))
        size = _bytes_of(value)
        with self._lock:
            if key not in self._cached and size <= self.limit:
                self._cached[key] = (value, size)
                self._bytes += size
                if transient:
                    self._transient[key] = self._round
                while self._bytes > self.limit:
                    self._drop(next(iter(self._cached)))
        return value

    def resize(self, limit: int) -> None:
        """Set the limit, bytes; the least recently used values are dropped at once."""
        with self._lock:
            self.limit = limit
            while self._bytes > limit:
                self._drop(next(iter(self._cached)))

    def _drop(self, key: Hashable) -> None:
        _, size = self._cached.pop(key)
        self._bytes -= size
        self._transient.pop(key, None)

    @contextlib.contextmanager
    def transient_round(self) -> Iterator[None]:
        """Make one step of a drag; transient values that it did not ask for are dropped at its end.

        The steps of a drag are never looked at again: kept, each would take fresh memory, and
        touching that for the first time costs more than working on it.
        """
        with self._lock:
            self._round += 1
        try:
            yield
        finally:
            with self._lock:
                for key in [key for key, last in self._transient.items() if last < self._round]:
                    self._drop(key)
