"""Keyframes over the frames of a clip."""

from __future__ import annotations

from typing import Self

from pydantic import Field, model_validator

from ...names import Between
from .values import Coordinate, Frozen


class Key(Frozen):
    """A field's value at one frame, and how it goes on to the next key."""

    frame: int = Field(ge=0, le=100_000_000)
    value: tuple[Coordinate, ...] = Field(
        min_length=1, max_length=200_000, description="its numbers in a row"
    )
    how: Between = "linear"
    confidence: float | None = Field(
        default=None,
        ge=0,
        le=1,
        description="how sure tracking was of it; null for what was set by hand",
    )


class Track(Frozen):
    """A field that changes from frame to frame."""

    path: str = Field(
        min_length=1,
        max_length=200,
        description='its way through the sieve, as in "adjust.light.exposure" or "areas.ID.points"',
    )
    keys: tuple[Key, ...] = Field(min_length=1, max_length=100_000, description="by rising frames")

    @model_validator(mode="after")
    def _rises(self) -> Self:
        if any(
            one.frame >= other.frame or len(one.value) != len(other.value)
            for one, other in zip(self.keys, self.keys[1:], strict=False)
        ):
            raise ValueError("the keys of a track rise, and have as many numbers each")
        return self
