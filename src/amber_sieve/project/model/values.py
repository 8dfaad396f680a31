"""Values of fields: coordinates, colours, curves, amounts; and what all models share."""

from __future__ import annotations

import functools
import math
import uuid
from typing import Annotated, Any, Literal, Self

from pydantic import BaseModel, ConfigDict, Field, model_validator

from ..fields import bounds_of, kind_of

#: Places lie so near the picture, pixels; colours are light of at most what a float picture may
#: hold.
NEAR = 1e6
Coordinate = Annotated[float, Field(ge=-NEAR, le=NEAR, allow_inf_nan=False)]
Radiance = Annotated[float, Field(ge=-1e6, le=1e6, allow_inf_nan=False)]
Corner = Annotated[float, Field(ge=-1e4, le=1e4, allow_inf_nan=False)]
Share = Annotated[float, Field(ge=0, le=1, allow_inf_nan=False)]
Colour = tuple[Radiance, Radiance, Radiance]
Point = tuple[Coordinate, Coordinate]
Gain = Annotated[float, Field(ge=0.01, le=100, allow_inf_nan=False)]
Gains = tuple[Gain, Gain, Gain]

#: Points of a curve: coded values, rising; and hues with what is done at them.
Curved = Annotated[tuple[tuple[Share, Share], ...], Field(max_length=64)]
Degrees = Annotated[float, Field(ge=0, lt=360, allow_inf_nan=False)]
ByHue = Annotated[
    tuple[tuple[Degrees, Annotated[float, Field(ge=-180, le=180, allow_inf_nan=False)]], ...],
    Field(max_length=64),
]
Factor = Annotated[float, Field(ge=-1e6, le=1e6, allow_inf_nan=False)]

#: A number, or "auto": found on the picture.
Amount = float | Literal["auto"]
Name = Annotated[str, Field(max_length=200)]


def is_auto(value: object) -> bool:
    """Return whether an amount is to be found on the picture."""
    return value == "auto"


def amount(value: Amount) -> float:
    """An amount as a number; "auto" is nothing until it has been found on the picture
    (`render.automatic`).
    """
    return 0.0 if value == "auto" else value


def fresh_id() -> str:
    """A short name that no other sieve or sample has."""
    return uuid.uuid4().hex[:12]


@functools.cache
def _ranges_of(kind: type[BaseModel]) -> tuple[tuple[str, float, float], ...]:
    """The number fields of a model, each with its range."""
    found = ((name, bounds_of(field)) for name, field in kind.model_fields.items())
    return tuple((name, *bounds) for name, bounds in found if bounds)


@functools.cache
def _curves_of(kind: type[BaseModel]) -> tuple[str, ...]:
    """The fields of a model that are points of a curve."""
    return tuple(
        name for name, field in kind.model_fields.items() if kind_of(field) in ("curve", "hues")
    )


class Frozen(BaseModel):
    """A value that never changes; `but` gives a changed copy."""

    model_config = ConfigDict(frozen=True, extra="forbid")
    #: Where the hash is kept: values are keys of caches, asked for again and again, and deep.
    __slots__ = ("_kept_hash",)

    def __hash__(self) -> int:
        try:
            return int(object.__getattribute__(self, "_kept_hash"))
        except AttributeError:
            kept = hash((type(self), *(getattr(self, name) for name in type(self).model_fields)))
            object.__setattr__(self, "_kept_hash", kept)
            return kept

    @model_validator(mode="after")
    def _numbers_lie_in_their_range(self) -> Self:
        for name, low, high in _ranges_of(type(self)):
            value = getattr(self, name)
            if value != "auto" and not (math.isfinite(value) and low <= value <= high):
                raise ValueError(f"{name} is {value:g}, it should lie between {low:g} and {high:g}")
        return self

    def but(self, **changes: Any) -> Self:
        """A copy with some fields changed, checked like any other."""
        return type(self).model_validate(
            {name: getattr(self, name) for name in type(self).model_fields} | changes
        )
