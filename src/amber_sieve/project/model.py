"""The model: plain frozen values. An edit is a function from a project to a project."""

from __future__ import annotations

import uuid
from typing import Annotated, Literal, Self

from pydantic import BaseModel, ConfigDict, Field, model_validator

#: Version of the file format; raised when an older program could not read what a newer one writes.
VERSION: Literal[1] = 1

Percent = Annotated[float, Field(ge=0, le=100, allow_inf_nan=False)]
SignedPercent = Annotated[float, Field(ge=-100, le=100, allow_inf_nan=False)]
Finite = Annotated[float, Field(allow_inf_nan=False)]
Distance = Annotated[float, Field(ge=0, le=1000, allow_inf_nan=False)]
Comparison = Literal["surface", "colour", "levels", "hue", "saturation", "luminance", "red", "green", "blue"]
Shape = Literal["linear", "smooth", "steep", "gentle", "hard", "bend"]


def fresh_id() -> str:
    """A short name that no other sieve or sample has."""
    return uuid.uuid4().hex[:12]


class Frozen(BaseModel):
    """A value that never changes; `but` gives a changed copy."""

    model_config = ConfigDict(frozen=True, extra="forbid")

    def but(self, **changes: object) -> Self:
        """A copy with some fields changed, checked like any other."""
        return type(self).model_validate({name: getattr(self, name) for name in type(self).model_fields} | changes)


class Sample(Frozen):
    """A colour taken from the picture."""

    id: str = Field(default_factory=fresh_id)
    name: str = ""
    role: Literal["keep", "drop"] = "keep"
    on: bool = True
    x: Finite = Field(description="full-resolution pixels from the left edge")
    y: Finite = Field(description="full-resolution pixels from the top edge")
    frame: int = Field(default=0, ge=0, description="number of the frame it was taken on, from 0")
    size: int = Field(default=5, ge=1, le=101, description="side of the square whose mean was taken, in pixels")
    colour: tuple[Finite, Finite, Finite] = Field(description="mean of the patch, linear light, Rec. 709 primaries")
    compare: Comparison = "surface"
    tolerance: Distance = 6.0
    falloff: Distance = 1.0
    shape: Shape = "linear"
    bend: float = Field(default=0.0, ge=-1, le=1)


class Pick(Frozen):
    """Which colours the mask is made from."""

    samples: tuple[Sample, ...] = ()
    shading: Percent = 85.0
    gloss: Percent = 0.0


class Adjust(Frozen):
    """What is done inside the mask."""

    hue: float = Field(default=0.0, ge=-180, le=180, description="degrees")
    saturation: SignedPercent = 0.0
    lightness: SignedPercent = 0.0

    @property
    def neutral(self) -> bool:
        """Whether it changes nothing."""
        return self == Adjust()


class Sieve(Frozen):
    """One mask together with what is done inside it."""

    id: str = Field(default_factory=fresh_id)
    name: str = "Sieve"
    on: bool = True
    pick: Pick = Pick()
    invert: bool = False
    strength: Percent = 100.0
    adjust: Adjust = Adjust()


class Project(Frozen):
    """The whole work on one picture or clip."""

    version: Literal[1] = VERSION
    source: str = Field(default="", description="the picture or clip: a path relative to the project file, or absolute")
    stack: tuple[Sieve, ...] = Field(default=(Sieve(name="Sieve 1"),), description="the picture falls through these from first to last")
    gamut: Literal["lower chroma", "clip"] = Field(
        default="lower chroma", description="how colours outside the output gamut are brought back"
    )

    @model_validator(mode="after")
    def _ids_differ(self) -> Self:
        if len({sieve.id for sieve in self.stack}) != len(self.stack):
            raise ValueError("two sieves have the same id")
        return self

    def sieve(self, sieve_id: str) -> Sieve:
        """The sieve with this id."""
        return next(sieve for sieve in self.stack if sieve.id == sieve_id)

    def with_sieve(self, changed: Sieve) -> Project:
        """The project with the sieve of the same id replaced."""
        return self.but(stack=tuple(changed if sieve.id == changed.id else sieve for sieve in self.stack))
