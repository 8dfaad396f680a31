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
Colour = tuple[Finite, Finite, Finite]
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
    size: int = Field(default=5, ge=1, le=501, description="side of the square whose mean was taken, or width of the stroke, in pixels")
    place: Literal["patch", "box", "stroke"] = "patch"
    points: tuple[tuple[Finite, Finite], ...] = Field(
        default=(), description="corners of the box, or the stroke's way, full-resolution pixels"
    )
    colour: Colour = Field(description="mean of the place, linear light, Rec. 709 primaries")
    tones: tuple[Colour, ...] = Field(default=(), max_length=12, description="main tones of a box or stroke; each stands for the sample")
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
    connected: bool = Field(default=False, description="only what hangs together with a kept place")
    bridge: float = Field(default=0.0, ge=0, le=200, description="widest gap that connected only crosses, full-resolution pixels")
    transparent: bool = Field(default=True, description="whether wholly transparent pixels may count")
    measure: Literal["original", "result", "layer"] = Field(
        default="original", description="what is measured: the picture as opened, as it arrives here, or a layer"
    )
    layer: str = Field(default="", description="path of another picture of the same size, for measure = layer")


class Band(Frozen):
    """An interval of one measure: fade in from, full from, full to, fade out to."""

    on: bool = False
    inverted: bool = False
    corners: tuple[Finite, Finite, Finite, Finite]
    shape: Shape = "smooth"
    bend: float = Field(default=0.0, ge=-1, le=1)

    @model_validator(mode="after")
    def _corners_rise(self) -> Self:
        a, b, c, d = self.corners
        if not a <= b <= c <= d:
            raise ValueError("the corners of a band must rise")
        return self


class Ramp(Frozen):
    """The luminance itself in place of a luminance band."""

    on: bool = False
    inverse: bool = False
    black: float = Field(default=0.0, ge=0, le=100, description="L* that counts for nothing")
    white: float = Field(default=100.0, ge=0, le=100, description="L* from which on it counts fully")


class Bands(Frozen):
    """Intervals of hue (degrees), saturation (per cent), luminance (L*) and single channels (levels); the mask is their product."""

    hue: Band = Band(corners=(0, 0, 360, 360))
    saturation: Band = Band(corners=(0, 0, 125, 125))
    luminance: Band = Band(corners=(0, 0, 100, 100))
    red: Band = Band(corners=(0, 0, 255, 255))
    green: Band = Band(corners=(0, 0, 255, 255))
    blue: Band = Band(corners=(0, 0, 255, 255))
    ramp: Ramp = Ramp()

    @property
    def active(self) -> bool:
        """Whether any of them is on."""
        return self.ramp.on or any(getattr(self, name).on for name in BAND_NAMES)


BAND_NAMES = ("hue", "saturation", "luminance", "red", "green", "blue")


Way = Literal["both", "inwards", "outwards"]
Point = tuple[Finite, Finite]


class Place(Frozen):
    """Where an island was clicked."""

    x: Finite = Field(description="full-resolution pixels")
    y: Finite
    radius: float = Field(default=8.0, ge=0, le=2000, description="how far it may have moved, full-resolution pixels")


class Edge(Frozen):
    """What cleans the mask's outline, in the order in which it is applied. Lengths are full-resolution pixels."""

    black: Percent = 0.0
    white: Percent = 100.0
    gamma: float = Field(default=1.0, ge=0.1, le=10)
    specks: float = Field(default=0.0, ge=0, le=1e6, description="pieces of at most so many pixels go")
    holes: float = Field(default=0.0, ge=0, le=1e6, description="holes of at most so many pixels are filled")
    all_holes: bool = False
    islands_out: tuple[Place, ...] = ()
    islands_only: tuple[Place, ...] = ()
    grow: float = Field(default=0.0, ge=-200, le=200, description="negative shrinks")
    feather: float = Field(default=0.0, ge=0, le=200, description="standard deviation")
    way: Way = "both"
    smooth: float = Field(default=0.0, ge=0, le=50)
    hard: bool = False
    follow: float = Field(default=0.0, ge=0, le=100, description="reach")
    sensitivity: Percent = 50.0
    fine: float = Field(default=0.0, ge=0, le=100, description="width of the band")
    no_haze: bool = True
    clean: float = Field(default=0.0, ge=0, le=8, description="passes of chroma smoothing of what is measured")
    clean_auto: bool = False


class Stroke(Frozen):
    """One brush stroke, as a vector."""

    points: tuple[tuple[Finite, Finite, Finite], ...] = Field(description="x, y (full-resolution pixels) and pressure (0 to 1)")
    size: float = Field(default=60.0, gt=0, le=5000, description="diameter")
    hardness: Percent = 80.0
    flow: Percent = 100.0
    opacity: Percent = 100.0
    erase: bool = False
    pressure: Literal["nothing", "size", "flow"] = "nothing"
    like: Colour | None = Field(default=None, description="only where the picture resembles this colour")


class Area(Frozen):
    """A shape, or brush strokes, that limits the mask."""

    id: str = Field(default_factory=fresh_id)
    name: str = ""
    on: bool = True
    inverted: bool = False
    mode: Literal["add", "subtract", "intersect"] = "intersect"
    kind: Literal["rect", "ellipse", "polygon", "gradient", "radial", "brush"]
    points: tuple[Point, ...] = Field(
        default=(), description="middle and two half-axes' ends (rect, ellipse, radial), corners (polygon), full and empty end (gradient)"
    )
    feather: float = Field(default=0.0, ge=0, le=2000)
    way: Way = "both"
    strokes: tuple[Stroke, ...] = ()

    @model_validator(mode="after")
    def _enough_points(self) -> Self:
        needed = {"rect": 3, "ellipse": 3, "radial": 3, "gradient": 2}.get(self.kind, 0)
        if needed and len(self.points) != needed:
            raise ValueError(f"a {self.kind} has {needed} points")
        return self


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
    bands: Bands = Bands()
    invert: bool = False
    edge: Edge = Edge()
    areas: tuple[Area, ...] = Field(default=(), description="applied from first to last")
    outside: Percent = Field(default=0.0, description="how much of the adjustment the masked-out rest still gets")
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
