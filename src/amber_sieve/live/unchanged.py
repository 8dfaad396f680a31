"""Values that stay the same objects while their inputs do."""

from __future__ import annotations

import time
from collections.abc import Callable
from typing import Any, TypeVar

import numpy as np

T = TypeVar("T")


def _equal(one: Any, other: Any) -> bool:
    """Return whether two values are the same; arrays never are by what they hold."""
    return not isinstance(one, np.ndarray) and not isinstance(other, np.ndarray) and one == other


class Unchanged:
    """Remembers the newest value of each name while what it was made from is the same: arrays by
    what they are, the rest by value.

    The same object again means that nothing need be redrawn. Used by the render
    thread alone.
    """

    def __init__(self) -> None:
        self._held: dict[str, tuple[tuple[Any, ...], Any, float]] = {}

    def get(
        self, name: str, inputs: tuple[Any, ...], make: Callable[[], T], lasts: float = 0.0
    ) -> T:
        """The value made from these inputs, made now when they are others. What was made less than
        ``lasts`` seconds ago does for others too.
        """
        if name in self._held:
            before, value, made = self._held[name]
            if time.monotonic() - made < lasts:
                return value
            if len(before) == len(inputs) and all(
                one is other or _equal(one, other)
                for one, other in zip(before, inputs, strict=True)
            ):
                return value
        value = make()
        self._held[name] = (inputs, value, time.monotonic())
        return value
