"""The context of a rendering: where its stages are kept, whether it makes a step of a drag, how it
is stopped.
"""

from __future__ import annotations

from collections.abc import Callable, Hashable, Mapping
from dataclasses import dataclass, field
from typing import TypeVar

from ..core.edge.box import CroppedMask
from ..progress import Cancelled
from .cache import Cache

T = TypeVar("T")


@dataclass(frozen=True)
class RenderContext:
    """Everything a rendering depends on besides the frame and the project; it is handed down as it
    is.

    Attributes
    ----------
    cache : finished stages by their inputs; the default keeps nothing.
    interactive : it makes one step of a drag, whose stages are dropped when the next step does not
        ask for them.
    cancelled : returns True once the result is of no use; `Cancelled` is then raised before the
        next stage.
    step : told the share of a long stage (closed-form matting) that is done; may raise to stop it.
    frames : keeps what the frames of a clip ask each other for; None for ``cache``.
    refined : masks of the whole picture, all but unmixed, of which its parts take theirs.
    once : it serves a single rendering, so nothing is made for the sake of later ones.
    """

    cache: Cache = field(default_factory=lambda: Cache(0))
    interactive: bool = False
    cancelled: Callable[[], bool] | None = None
    step: Callable[[float], None] | None = None
    frames: Cache | None = None
    refined: Mapping[Hashable, CroppedMask] = field(default_factory=dict)
    once: bool = False

    @property
    def keeps_nothing(self) -> bool:
        """Return whether no stage is kept for later."""
        return self.cache.limit == 0

    @property
    def across(self) -> Cache:
        """Return the cache of what the frames of a clip ask each other for."""
        return self.frames or self.cache

    def get(self, key: Hashable, make: Callable[[], T]) -> T:
        """Return the value made from these inputs, made now if it is not held. Values must not be
        written to.
        """

        def made() -> T:
            self.check()
            return make()

        return self.cache.get(key, made, self.interactive)

    def holds(self, key: Hashable) -> bool:
        """Return whether a value is held for these inputs."""
        return self.cache.holds(key)

    def asked_before(self, key: Hashable) -> bool:
        """Return whether this is asked again of these inputs; not at the first time in a row of
        steps of a drag.
        """
        before = self.holds(("asked for", key))
        self.get(("asked for", key), lambda: True)
        return before

    def check(self) -> None:
        """Raise `Cancelled` where the result is of no use any more; long stages ask in between."""
        if self.cancelled is not None and self.cancelled():
            raise Cancelled
