"""The base of every block of adjustments: numbers whose start changes nothing, and a switch."""

from __future__ import annotations

import functools
import itertools
from typing import Any, ClassVar, Self

from pydantic import Field, model_validator

from .values import Frozen, _curves_of


@functools.cache
def start_of(kind: type[Frozen]) -> Frozen:
    """A model with every field at its start."""
    return kind()


class Adjustment(Frozen):
    """One block of what is done inside the mask; every number's start changes nothing.

    The formula of a block stands in the file of ``core/adjust`` that is called as the block's field
    in `Adjust`.
    """

    #: What a person reads above the block.
    label: ClassVar[str] = ""

    on: bool = Field(
        default=True, title="On", description="Off: the block is seen as if it changed nothing"
    )

    #: What older files hold of a block that was found on the picture, not decided.
    once_saved: ClassVar[tuple[str, ...]] = ()

    @model_validator(mode="before")
    @classmethod
    def _without_what_was_found(cls, held: Any) -> Any:
        if cls.once_saved and isinstance(held, dict):
            return {name: value for name, value in held.items() if name not in cls.once_saved}
        return held

    @property
    def moved(self) -> bool:
        """Return whether anything has been set, be it switched on or off."""
        start = start_of(type(self))
        return any(value != getattr(start, name) for name, value in self if name != "on")

    @property
    def neutral(self) -> bool:
        """Return whether it changes nothing."""
        return not (self.on and self.moved)

    @property
    def given(self) -> dict[str, Any]:
        """Its settings, as its formula is given them."""
        return {name: value for name, value in self if name != "on"}

    @model_validator(mode="after")
    def _curves_rise(self) -> Self:
        for name in _curves_of(type(self)):
            places = [place for place, _ in getattr(self, name)]
            if any(one >= other for one, other in itertools.pairwise(places)):
                raise ValueError(f"the points of {name} must rise from left to right")
        return self
