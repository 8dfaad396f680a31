"""Remembering stages by their inputs."""

from __future__ import annotations

import dataclasses
import threading
from collections import OrderedDict
from collections.abc import Callable, Hashable
from typing import TypeVar, cast

import numpy as np

T = TypeVar("T")


def _size_of(value: object) -> int:
    if isinstance(value, np.ndarray):
        return value.nbytes
    if isinstance(value, tuple):
        return sum(_size_of(part) for part in value)
    if dataclasses.is_dataclass(value) and not isinstance(value, type):
        return sum(_size_of(getattr(value, field.name)) for field in dataclasses.fields(value))
    return 64


class Cache:
    """Least recently used values, up to a number of bytes; keys are the inputs of a stage by value."""

    def __init__(self, limit: int, step: Callable[[float], None] | None = None) -> None:
        self.limit = limit
        #: Told how far a stage is that takes long (Fine); may raise to stop it.
        self.step = step
        self._held: OrderedDict[Hashable, tuple[object, int]] = OrderedDict()
        self._bytes = 0
        self._lock = threading.Lock()

    def holds(self, key: Hashable) -> bool:
        """Whether a value is held for these inputs."""
        with self._lock:
            return key in self._held

    def get(self, key: Hashable, make: Callable[[], T]) -> T:
        """The value made from these inputs, made now if it is not held. Values must not be written to."""
        with self._lock:
            if key in self._held:
                self._held.move_to_end(key)
                return cast(T, self._held[key][0])
        value = make()
        size = _size_of(value)
        with self._lock:
            if key not in self._held and size <= self.limit:
                self._held[key] = (value, size)
                self._bytes += size
                while self._bytes > self.limit:
                    _, (_, dropped) = self._held.popitem(last=False)
                    self._bytes -= dropped
        return value
