"""Remembering stages by their inputs."""

from __future__ import annotations

import contextlib
import dataclasses
import threading
from collections import OrderedDict
from collections.abc import Callable, Hashable, Iterator, Mapping
from typing import TypeVar, cast

import numpy as np

from ..core.edge.box import Boxed
from ..progress import Cancelled

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
    """Least recently used values, up to a number of bytes; keys are the inputs of a stage by value."""

    def __init__(
        self,
        limit: int,
        step: Callable[[float], None] | None = None,
        keeps: Callable[[Hashable], bool] | None = None,
        once: bool = False,
        across: Cache | None = None,
        outlined: Mapping[Hashable, Boxed] | None = None,
    ) -> None:
        self.limit = limit
        #: Serves a single rendering: nothing is made for the sake of later ones.
        self.once = once or limit == 0
        #: Holds what the frames of a clip ask each other for.
        self.across = across or self
        #: Masks of the whole picture with their outline worked, of which its parts take theirs.
        self.outlined = outlined or {}
        #: Says of which inputs the values are kept whatever the limit: those that several sieves ask for.
        self._keeps = keeps
        self._kept: dict[Hashable, object] = {}
        #: Told how far a stage is that takes long (Fine); may raise to stop it.
        self.step = step
        self._cached: OrderedDict[Hashable, tuple[object, int]] = OrderedDict()
        #: What was made while something was dragged, and in which round it was last asked for.
        self._fleeting: dict[Hashable, int] = {}
        self._round = 0
        self._here = threading.local()
        self._bytes = 0
        self._lock = threading.Lock()

    def holds(self, key: Hashable) -> bool:
        """Whether a value is held for these inputs."""
        with self._lock:
            return key in self._cached

    def get(self, key: Hashable, make: Callable[[], T]) -> T:
        """The value made from these inputs, made now if it is not held. Values must not be written to."""
        with self._lock:
            if key in self._kept:
                return cast(T, self._kept[key])
            if key in self._cached:
                self._cached.move_to_end(key)
                if key in self._fleeting:
                    self._fleeting[key] = self._round
                return cast(T, self._cached[key][0])
        self.check()
        value = make()
        if self._keeps is not None and self._keeps(key):
            with self._lock:
                return cast(T, self._kept.setdefault(key, value))
        size = _bytes_of(value)
        with self._lock:
            if key not in self._cached and size <= self.limit:
                self._cached[key] = (value, size)
                self._bytes += size
                if self.hurries:
                    self._fleeting[key] = self._round
                while self._bytes > self.limit:
                    self._drop(next(iter(self._cached)))
        return value

    def asked_before(self, key: Hashable) -> bool:
        """Whether this is asked of these inputs again; not at the first time in a row of steps of a drag."""
        before = self.holds(("asked for", key))
        self.get(("asked for", key), lambda: True)
        return before

    @property
    def hurries(self) -> bool:
        """Whether this thread makes a step of a drag, see `fleeting`."""
        return bool(getattr(self._here, "hurried", False))

    def check(self) -> None:
        """Raise `Cancelled` where what this thread makes is of no use any more, see `while_wanted`; long stages ask in between."""
        unwanted = getattr(self._here, "unwanted", None)
        if unwanted is not None and unwanted():
            raise Cancelled

    def resize(self, limit: int) -> None:
        """Hold so many bytes from now on; what was used longest ago is let go of at once."""
        with self._lock:
            self.limit = limit
            while self._bytes > limit:
                self._drop(next(iter(self._cached)))

    def _drop(self, key: Hashable) -> None:
        _, size = self._cached.pop(key)
        self._bytes -= size
        self._fleeting.pop(key, None)

    @contextlib.contextmanager
    def while_wanted(self, unwanted: Callable[[], bool]) -> Iterator[None]:
        """What is made here, in this thread, is given up before its next stage as soon as it is of no use any more: `Cancelled` is raised.
        Stages that were finished are kept."""
        self._here.unwanted = unwanted
        try:
            yield
        finally:
            self._here.unwanted = None

    @contextlib.contextmanager
    def fleeting(self) -> Iterator[None]:
        """What is made here, in this thread, is let go of when the next such round does not ask for it.

        The steps of a drag are never looked at again: kept, each would take fresh memory, and touching that for the first time costs
        more than working on it.
        """
        with self._lock:
            self._round += 1
        self._here.hurried = True
        try:
            yield
        finally:
            self._here.hurried = False
            with self._lock:
                for key in [key for key, last in self._fleeting.items() if last < self._round]:
                    self._drop(key)
