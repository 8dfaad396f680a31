"""The model: plain frozen values. An edit is a function from a project to a project."""

from __future__ import annotations

import functools
import itertools
import math
import uuid
from collections.abc import Iterator
from typing import Annotated, Any, Literal, Self

from pydantic import BaseModel, ConfigDict, Field, model_validator

from ..names import (
    BANDS,
    BOXED,
    AreaKind,
    AreaMode,
    Between,
    Blend,
    Comparison,
    DropRule,
    FillKind,
    FillWhere,
    Gamut,
    MaskFrom,
    Reach,
    Shape,
    Way,
)
from .fields import bounds_of, kind_of, number, setting

#: Version of the file format; raised when an older program could not read what a newer one writes.
VERSION: Literal[6] = 6

#: Places lie near the picture; colours are light of at most what a float picture may hold.
Coordinate = Annotated[float, Field(ge=-1e6, le=1e6, allow_inf_nan=False)]
Radiance = Annotated[float, Field(ge=-1e6, le=1e6, allow_inf_nan=False)]
Corner = Annotated[float, Field(ge=-1e4, le=1e4, allow_inf_nan=False)]
Share = Annotated[float, Field(ge=0, le=1, allow_inf_nan=False)]
Colour = tuple[Radiance, Radiance, Radiance]
Point = tuple[Coordinate, Coordinate]
#: Points of a curve: coded values, rising; and hues with what is done at them.
Curved = Annotated[tuple[tuple[Share, Share], ...], Field(max_length=64)]
Degrees = Annotated[float, Field(ge=0, lt=360, allow_inf_nan=False)]
ByHue = Annotated[tuple[tuple[Degrees, Annotated[float, Field(ge=-180, le=180, allow_inf_nan=False)]], ...], Field(max_length=64)]
Factor = Annotated[float, Field(ge=-1e6, le=1e6, allow_inf_nan=False)]
#: A number, or "auto": found on the picture.
Amount = float | Literal["auto"]
Name = Annotated[str, Field(max_length=200)]


def amount(value: Amount) -> float:
    """An amount as a number; "auto" is nothing until it has been found on the picture (`render.automatic`)."""
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
    return tuple(name for name, field in kind.model_fields.items() if kind_of(field) in ("curve", "hues"))


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
        return type(self).model_validate({name: getattr(self, name) for name in type(self).model_fields} | changes)


class Sample(Frozen):
    """A colour taken from the picture."""

    id: Name = Field(default_factory=fresh_id)
    name: Name = ""
    role: Literal["keep", "drop"] = "keep"
    reach: Reach = Field(
        default="everywhere", title="Reach", description="All of the picture, or only the piece that hangs together with its place"
    )
    rule: DropRule = Field(
        default="nearer",
        title="Drop rule",
        description="Of a drop sample: it takes what lies nearer to it than to any keep sample, or all within its tolerance",
    )
    on: bool = True
    x: Coordinate = Field(description="full-resolution pixels from the left edge")
    y: Coordinate = Field(description="full-resolution pixels from the top edge")
    frame: int = Field(default=0, ge=0, description="number of the frame it was taken on, from 0")
    size: int = Field(default=5, ge=1, le=501, description="side of the square whose mean was taken, or width of the stroke, in pixels")
    place: Literal["patch", "box", "stroke"] = "patch"
    points: tuple[Point, ...] = Field(
        default=(), max_length=100_000, description="corners of the box, or the stroke's way, full-resolution pixels"
    )
    colour: Colour = Field(description="mean of the place, linear light, Rec. 709 primaries")
    tones: tuple[Colour, ...] = Field(default=(), max_length=12, description="main tones of a box or stroke; each stands for the sample")
    compare: Comparison = "surface"
    tolerance: float = number(
        6, 0, 1000, "Tolerance", step=0.5, decimals=1, soft=(0, 60), help="Distance from the sample up to which a pixel counts fully"
    )
    falloff: float = number(
        1, 0, 1000, "Falloff", step=0.5, decimals=1, soft=(0, 60), help="Distance beyond the tolerance over which it fades to nothing"
    )
    shape: Shape = "linear"
    bend: float = number(0, -1, 1, "Bend", step=0.05, decimals=2, help="Shape of the falloff: steep (below 0) to gentle")


class Pick(Frozen):
    """Which colours the mask is made from."""

    samples: tuple[Sample, ...] = Field(default=(), max_length=256)
    shading: float = number(85, 0, 100, "Shading", "%", help="How far light and shade on the same surface are forgiven")
    gloss: float = number(0, 0, 100, "Gloss", "%", help="How far pale highlights on the same surface are forgiven")
    hue_weight: float = number(
        100, 0, 400, "Hue counts", "%", step=5, soft=(0, 200), help="How much a difference in hue counts on a surface"
    )
    saturation_weight: float = number(
        100, 0, 400, "Saturation counts", "%", step=5, soft=(0, 200), help="How much a difference in saturation counts on a surface"
    )
    outline: tuple[Point, ...] = Field(
        default=(),
        max_length=100_000,
        description="loose outline drawn round the thing, full-resolution pixels: all outside is not the thing",
    )
    connected: bool = Field(default=False, title="Connected only", description="Only what hangs together with a kept place")
    bridge: float = number(0, 0, 200, "Bridge", "px", help="Widest gap that connected only crosses")
    transparent: bool = Field(default=True, title="Transparent pixels may count", description="Whether wholly transparent pixels may count")
    measure: Literal["original", "result", "layer"] = Field(
        default="original", description="what is measured: the picture as opened, as it arrives here, or a layer"
    )
    layer: str = Field(default="", max_length=4096, description="path of another picture of the same size, for measure = layer")


class Band(Frozen):
    """An interval of one measure: fade in from, full from, full to, fade out to."""

    on: bool = False
    inverted: bool = False
    corners: tuple[Corner, Corner, Corner, Corner]
    shape: Shape = "smooth"
    bend: float = number(0, -1, 1, "Bend", step=0.05, decimals=2, help="Shape of the falloff: steep (below 0) to gentle")

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
    black: float = number(0, 0, 100, "Black point", "L*", help="Luminance that counts for nothing")
    white: float = number(100, 0, 100, "White point", "L*", help="Luminance from which on it counts fully")


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
        return self.ramp.on or any(getattr(self, name).on for name in BANDS)


class Place(Frozen):
    """Where an island was clicked."""

    x: Coordinate = Field(description="full-resolution pixels")
    y: Coordinate
    radius: float = Field(default=8.0, ge=0, le=20_000, description="how far it may have moved, full-resolution pixels")


class Edge(Frozen):
    """What cleans the mask's outline, in the order in which it is applied. Lengths are full-resolution pixels."""

    black: float = number(0, 0, 100, "Black point", "%", help="Mask values up to this become nothing")
    white: float = number(100, 0, 100, "White point", "%", help="Mask values from this on become all")
    gamma: float = number(1, 0.1, 10, "Gamma", step=0.1, decimals=2, help="Above 1 lifts partial pixels, below 1 lowers them")
    specks: Amount = number(
        "auto", 0, 1e6, "Specks", "px", step=5, soft=(0, 5000), help="Pieces of at most so many pixels go, unless a sample lies in them"
    )
    holes: Amount = number(
        "auto",
        0,
        1e6,
        "Holes",
        "px",
        step=5,
        soft=(0, 5000),
        help="Holes of at most so many pixels are filled, unless a sample lies in them",
    )
    all_holes: bool = Field(default=False, title="All holes", description="Fill every hole, whatever its size")
    islands_out: tuple[Place, ...] = Field(default=(), max_length=10_000)
    islands_only: tuple[Place, ...] = Field(default=(), max_length=10_000)
    grow: float = number(0, -200, 200, "Grow", "px", step=0.5, decimals=1, soft=(-60, 60), help="Grow; below zero it shrinks")
    feather: float = number(0, 0, 200, "Feather", "px", step=0.5, decimals=1, soft=(0, 100), help="Soften the outline (standard deviation)")
    way: Way = Field(default="both", title="Feather which way", description="Soften both ways, or only inwards or outwards")
    smooth: float = number(0, 0, 50, "Smooth", "px", step=0.5, decimals=1, help="Round a jagged outline without softening it")
    hard: bool = Field(default=False, title="Hard edge", description="No partial pixel")
    follow: Amount = number("auto", 0, 100, "Follow", "px", help="Unmix the outline into surface and background, so far outside the mask")
    sensitivity: float = number(50, 0, 100, "Sensitivity", "%", help="How alike surface and background may be and still be told apart")
    fine: float = number(0, 0, 100, "Fine", "px", help="Matting in a band of this width: hair, fringe, leaves")
    steady: float = number(0, 0, 100, "Steady", "%", help="Of clips: what the frames around mask, brought here along the motion, weighs in")
    no_haze: bool = Field(
        default=True, title="No haze", description="With Follow or Fine: adjust the unmixed colours, so that no rim of the old colour stays"
    )
    clean: Amount = number("auto", 0, 8, "Clean source", help="Smooth the chroma of what is measured, never of the picture")


class Stroke(Frozen):
    """One brush stroke, as a vector."""

    points: tuple[tuple[Coordinate, Coordinate, Share], ...] = Field(
        max_length=2_000_000, description="x, y (full-resolution pixels) and pressure (0 to 1)"
    )
    size: float = number(60, 0.1, 5000, "Size", "px", soft=(1, 1000), help="Diameter of the brush")
    hardness: float = number(80, 0, 100, "Hardness", "%", help="From soft from the middle on to an edge of one pixel")
    flow: float = number(100, 0, 100, "Flow", "%", help="How much one dab lays on")
    opacity: float = number(100, 0, 100, "Opacity", "%", help="Most that one stroke covers")
    erase: bool = False
    pressure: Literal["nothing", "size", "flow"] = "nothing"
    like: Colour | None = Field(default=None, description="only where the picture resembles this colour")


class Area(Frozen):
    """A shape, or brush strokes, that limits the mask."""

    id: Name = Field(default_factory=fresh_id)
    name: Name = ""
    on: bool = True
    inverted: bool = False
    mode: AreaMode = "intersect"
    kind: AreaKind
    points: tuple[Point, ...] = Field(
        default=(),
        max_length=100_000,
        description="middle and two half-axes' ends (rect, ellipse, radial), corners (polygon), full and empty end (gradient)",
    )
    feather: float = number(0, 0, 2000, "Feather", "px", decimals=1, soft=(0, 400), help="Soften the area's outline (standard deviation)")
    way: Way = "both"
    strokes: tuple[Stroke, ...] = Field(default=(), max_length=10_000)

    @model_validator(mode="after")
    def _enough_points(self) -> Self:
        needed = 3 if self.kind in BOXED else 2 if self.kind == "gradient" else 0
        if needed and len(self.points) != needed:
            raise ValueError(f"a {self.kind} has {needed} points")
        return self


@functools.cache
def _start_of(kind: type[Frozen]) -> Frozen:
    """A model with every field at its start."""
    return kind()


class Adjustment(Frozen):
    """One block of what is done inside the mask; every number's start changes nothing.

    The sum of a block stands in the file of ``core/adjust`` that is called as the block's field in `Adjust`.
    """

    on: bool = Field(default=True, title="On", description="Off: the block is seen as if it changed nothing")

    @property
    def moved(self) -> bool:
        """Whether anything has been set, be it switched on or off."""
        start = _start_of(type(self))
        return any(value != getattr(start, name) for name, value in self if name != "on")

    @property
    def neutral(self) -> bool:
        """Whether it changes nothing."""
        return not (self.on and self.moved)

    @property
    def given(self) -> dict[str, Any]:
        """What its sum is told."""
        return {name: value for name, value in self if name != "on"}

    @model_validator(mode="after")
    def _curves_rise(self) -> Self:
        for name in _curves_of(type(self)):
            places = [place for place, _ in getattr(self, name)]
            if any(one >= other for one, other in itertools.pairwise(places)):
                raise ValueError(f"the points of {name} must rise from left to right")
        return self


class White(Adjustment):
    """White balance"""

    temperature: float = number(
        0, -250, 250, "Temperature", "mired", soft=(-100, 100), help="Warmer above 0, as by an amber filter; cooler below"
    )
    tint: float = number(0, -100, 100, "Tint", step=0.5, decimals=1, soft=(-40, 40), help="Towards magenta above 0, green below")


class Light(Adjustment):
    """Light"""

    exposure: float = number(0, -10, 10, "Exposure", "stops", step=0.1, decimals=2, soft=(-4, 4), help="Light times two to this power")
    contrast: float = number(0, -100, 100, "Contrast", "%", help="Distances in stops from the pivot, from half to twice")
    pivot: float = number(0, -8, 8, "Pivot", "stops", step=0.1, decimals=2, help="Light that contrast leaves as it is, from mid grey")
    highlights: float = number(0, -100, 100, "Highlights", "%", help="What is lighter than mid grey, darker or lighter")
    shadows: float = number(0, -100, 100, "Shadows", "%", help="What is darker than mid grey, darker or lighter")
    white_point: float = number(100, 10, 1000, "White point", "%", soft=(25, 200), help="Luminance that becomes white")
    black_point: float = number(0, 0, 90, "Black point", "%", step=0.1, decimals=1, soft=(0, 20), help="Luminance that becomes black")
    gamma: float = number(1, 0.1, 10, "Gamma", step=0.05, decimals=2, soft=(0.25, 4), help="Above 1 lightens, black and white stay")


class Curve(Adjustment):
    """Levels and curves"""

    curve: Curved = setting((), "curve", "Curve", "Curve of luminance; hue and saturation stay")
    curve_red: Curved = setting((), "curve", "Red curve", "Curve of the red channel")
    curve_green: Curved = setting((), "curve", "Green curve", "Curve of the green channel")
    curve_blue: Curved = setting((), "curve", "Blue curve", "Curve of the blue channel")
    in_black: float = number(0, 0, 254, "Black in", help="Level that becomes black out")
    in_white: float = number(255, 1, 255, "White in", help="Level that becomes white out")
    middle: float = number(1, 0.1, 10, "Middle", step=0.05, decimals=2, soft=(0.25, 4), help="Gamma between black and white in")
    out_black: float = number(0, 0, 255, "Black out", help="Level that black in becomes")
    out_white: float = number(255, 0, 255, "White out", help="Level that white in becomes")


def _hue_of(name: str) -> Any:
    return number(0, 0, 360, f"{name} hue", "°", help=f"Hue that {name.lower()} are drawn towards")


def _colour_of(name: str) -> Any:
    return number(0, 0, 100, f"{name} colour", "%", step=0.5, decimals=1, help=f"How much of that hue {name.lower()} get")


def _lightness_of(name: str) -> Any:
    return number(0, -100, 100, f"{name} lightness", "%", help=f"{name} darker or lighter")


class Balance(Adjustment):
    """Balance"""

    shadows_hue: float = _hue_of("Shadows")
    shadows_colour: float = _colour_of("Shadows")
    shadows_lightness: float = _lightness_of("Shadows")
    midtones_hue: float = _hue_of("Midtones")
    midtones_colour: float = _colour_of("Midtones")
    midtones_lightness: float = _lightness_of("Midtones")
    highlights_hue: float = _hue_of("Highlights")
    highlights_colour: float = _colour_of("Highlights")
    highlights_lightness: float = _lightness_of("Highlights")
    shadows_to: float = number(35, 0, 100, "Shadows to", "%", help="Lightness at which shadows become midtones")
    highlights_from: float = number(70, 0, 100, "Highlights from", "%", help="Lightness at which midtones become highlights")


class Hues(Adjustment):
    """Curves over hue"""

    turn_by_hue: ByHue = setting((), "hues", "Turn by hue", "Degrees that single hues are turned by")
    saturation_by_hue: ByHue = setting((), "hues", "Saturation by hue", "From grey (-100) to twice the chroma (100), for single hues")
    lightness_by_hue: ByHue = setting((), "hues", "Lightness by hue", "Darker (-100) or lighter (100), for single hues")


class Recolour(Adjustment):
    """Recolour"""

    hue: float = number(0, -180, 180, "Hue", "°", decimals=1, help="Turn of the hue")
    saturation: float = number(0, -100, 100, "Saturation", "%", help="From grey (-100) to twice the chroma (100)")
    vibrance: float = number(0, -100, 100, "Vibrance", "%", help="Saturation that spares what is rich already, and skin")
    lightness: float = number(0, -100, 100, "Lightness", "%", help="Towards black or white")
    one_hue: float = number(0, 0, 100, "One hue", "%", help="How far all hues are drawn to one")
    one_hue_at: float = number(0, 0, 360, "Which hue", "°", help="The one hue that all are drawn to")


class Match(Adjustment):
    """Match a target"""

    target: Colour | None = setting(None, "colour", "Target", "Colour that the mean of what is masked becomes")
    nearest: bool = setting(
        False, "switch", "Nearest believable", "Go towards the target only as far as nothing leaves the gamut or is crushed"
    )
    found: tuple[Factor, Factor, Factor] | None = Field(default=None, description="found on the picture while it is rendered")

    @property
    def moved(self) -> bool:
        return self.target is not None

    @property
    def given(self) -> dict[str, Any]:
        return {"found": self.found}


class Even(Adjustment):
    """Even out"""

    even_lightness: float = number(0, 0, 100, "Even lightness", "%", help="How far the lightness of what is masked is drawn together")
    even_hue: float = number(0, 0, 100, "Even hue", "%", help="How far the hues of what is masked are drawn together")
    mean: tuple[Factor, Factor] | None = Field(default=None, description="found on the picture while it is rendered")

    @property
    def moved(self) -> bool:
        return bool(self.even_lightness or self.even_hue)


#: Range of each kind of number of a CDL, and what a drag covers.
CDL_RANGES = {"Slope": ((0, 100), (0, 4)), "Offset": ((-10, 10), (-0.5, 0.5)), "Power": ((0.05, 20), (0.1, 4))}


def _channels(name: str, label: str, start: float, help: str) -> Any:
    (low, high), soft = CDL_RANGES[label]
    return number(start, low, high, f"{label} {name}", step=0.01, decimals=3, soft=soft, help=f"{help}, {name}")


class Mono(Adjustment):
    """Mono"""

    mono: float = number(0, 0, 100, "Grey", "%", help="How far the way to grey")
    mono_red: float = number(21, -200, 200, "Grey from red", "%", help="How much red counts in the grey")
    mono_green: float = number(72, -200, 200, "Grey from green", "%", help="How much green counts in the grey")
    mono_blue: float = number(7, -200, 200, "Grey from blue", "%", help="How much blue counts in the grey")


class Cdl(Adjustment):
    """CDL"""

    slope_red: float = _channels("red", "Slope", 1, "Light times this")
    slope_green: float = _channels("green", "Slope", 1, "Light times this")
    slope_blue: float = _channels("blue", "Slope", 1, "Light times this")
    offset_red: float = _channels("red", "Offset", 0, "Then this is added")
    offset_green: float = _channels("green", "Offset", 0, "Then this is added")
    offset_blue: float = _channels("blue", "Offset", 0, "Then this is added")
    power_red: float = _channels("red", "Power", 1, "Then to this power")
    power_green: float = _channels("green", "Power", 1, "Then to this power")
    power_blue: float = _channels("blue", "Power", 1, "Then to this power")
    cdl_saturation: float = number(
        1, 0, 20, "CDL saturation", soft=(0, 4), step=0.01, decimals=3, help="Distance from the luma, as a factor"
    )


class Lookup(Adjustment):
    """Lookup"""

    lookup_file: str = Field(
        default="",
        max_length=4096,
        title="Table",
        description="A lookup table (.cube, .clf) over sRGB-coded values",
        json_schema_extra={"kind": "path"},
    )
    table: Any = Field(default=None, exclude=True, description="what the file holds, read while it is rendered")

    @property
    def moved(self) -> bool:
        return bool(self.lookup_file)

    @property
    def given(self) -> dict[str, Any]:
        return {"table": self.table.values if self.table is not None else None}


class Detail(Adjustment):
    """Detail"""

    noise: float = number(0, 0, 100, "Noise reduction", "%", help="Noise taken away in lightness and colour")
    blur: float = number(0, 0, 500, "Blur", "px", step=0.5, decimals=1, soft=(0, 50), help="Soften what is masked (standard deviation)")
    local_contrast: float = number(0, -100, 100, "Local contrast", "%", help="Contrast with the surroundings, without halos at edges")
    contrast_radius: float = number(40, 2, 500, "its radius", "px", soft=(2, 200), help="How far local contrast looks")
    sharpen: float = number(0, 0, 100, "Sharpen", "%", help="Lightness against its surroundings")
    sharpen_radius: float = number(1, 0.3, 20, "its radius", "px", step=0.1, decimals=1, soft=(0.3, 5), help="How far sharpening looks")
    grain: float = number(0, 0, 100, "Grain", "%", help="Film-like grain, strongest in midtones")
    grain_size: float = number(1.5, 0.5, 20, "its size", "px", step=0.1, decimals=1, soft=(0.5, 6), help="Size of a grain")
    frame: int = Field(default=0, ge=0, description="number of the frame, set while a clip is rendered: grain changes from frame to frame")

    @property
    def moved(self) -> bool:
        return bool(self.noise or self.blur or self.local_contrast or self.sharpen or self.grain)


class Fill(Adjustment):
    """Fill"""

    fill: FillKind = setting("off", "words", "Fill", "What fills: a colour, a gradient, another picture, or nothing (transparent)")
    fill_where: FillWhere = setting("inside", "words", "Where", "Inside the mask, or behind what it holds")
    fill_colour: Colour = setting((0.18, 0.18, 0.18), "colour", "Colour", "Colour that fills, or begins the gradient")
    fill_to: Colour = setting((0.8, 0.8, 0.8), "colour", "To", "Colour that ends the gradient")
    fill_angle: float = number(90, -180, 180, "Angle", "°", help="Way of the gradient: 0 to the right, 90 downwards")
    fill_picture: str = Field(
        default="", max_length=4096, title="Picture", description="Path of the picture that fills", json_schema_extra={"kind": "path"}
    )
    fill_across: float = number(0, -200, 200, "Across", "%", soft=(-50, 50), help="How far the picture is moved, of the width")
    fill_down: float = number(0, -200, 200, "Down", "%", soft=(-50, 50), help="How far the picture is moved, of the height")
    fill_scale: float = number(100, 1, 1000, "Scale", "%", soft=(20, 300), help="Size of the picture: at 100 % it just covers all")
    fill_blend: Blend = setting("normal", "words", "Blend mode", "How it is laid over what is there")
    fill_opacity: float = number(100, 0, 100, "Opacity", "%", help="How much of it is laid on")

    @property
    def moved(self) -> bool:
        return self.fill != "off" and not (self.fill == "picture" and not self.fill_picture)


class Adjust(Frozen):
    """What is done inside the mask: the blocks in the order in which they are applied."""

    white: White = White()
    light: Light = Light()
    curve: Curve = Curve()
    balance: Balance = Balance()
    hues: Hues = Hues()
    recolour: Recolour = Recolour()
    match: Match = Match()
    even: Even = Even()
    mono: Mono = Mono()
    cdl: Cdl = Cdl()
    lookup: Lookup = Lookup()
    detail: Detail = Detail()
    fill: Fill = Fill()
    primaries: tuple[Factor, ...] | None = Field(default=None, exclude=True, description="of the working space, found while it is rendered")

    @property
    def neutral(self) -> bool:
        """Whether it changes nothing."""
        return all(block.neutral for _, block in self.blocks())

    def blocks(self) -> Iterator[tuple[str, Adjustment]]:
        """The blocks by name."""
        pairs = ((name, getattr(self, name)) for name in type(self).model_fields)
        return ((name, block) for name, block in pairs if isinstance(block, Adjustment))


class Joined(Frozen):
    """Another sieve's mask, laid on one's own like an area."""

    mode: AreaMode = "add"
    of: Name


class Key(Frozen):
    """What a field is at one frame, and how it goes on to the next key."""

    frame: int = Field(ge=0, le=100_000_000)
    value: tuple[Coordinate, ...] = Field(min_length=1, max_length=200_000, description="its numbers in a row")
    how: Between = "linear"
    confidence: float | None = Field(default=None, ge=0, le=1, description="how sure tracking was of it; null for what was set by hand")


class Track(Frozen):
    """A field that changes from frame to frame."""

    path: str = Field(
        min_length=1, max_length=200, description='its way through the sieve, as in "adjust.light.exposure" or "areas.ID.points"'
    )
    keys: tuple[Key, ...] = Field(min_length=1, max_length=100_000, description="by rising frames")

    @model_validator(mode="after")
    def _rises(self) -> Self:
        if any(
            one.frame >= other.frame or len(one.value) != len(other.value) for one, other in zip(self.keys, self.keys[1:], strict=False)
        ):
            raise ValueError("the keys of a track rise, and have as many numbers each")
        return self


class Sieve(Frozen):
    """One mask together with what is done inside it."""

    id: Name = Field(default_factory=fresh_id)
    name: Name = "Sieve"
    on: bool = True
    pick: Pick = Pick()
    around: tuple[Pick | None, ...] = Field(
        default=(),
        exclude=True,
        description="the pick as it stands on the frames around, found while it is rendered; empty where it is the same",
    )
    bands: Bands = Bands()
    mask_from: MaskFrom = Field(default="own", description="its own pick and edge, the same as another sieve's, or what others leave")
    of: tuple[Name, ...] = Field(default=(), max_length=64, description="ids of the sieves whose masks it is made from")
    opposite: bool = Field(default=False, title="Opposite", description="The finished mask turned round")
    joined: tuple[Joined, ...] = Field(default=(), max_length=64, description="other sieves' masks laid on it, from first to last")
    invert: bool = Field(default=False, title="Invert the mask", description="What was masked is not, and what was not is")
    edge: Edge = Edge()
    areas: tuple[Area, ...] = Field(default=(), max_length=1000, description="applied from first to last")
    outside: float = number(0, 0, 100, "Outside level", "%", help="How much of the adjustment the masked-out rest still gets")
    strength: float = number(100, 0, 100, "Strength", "%", help="How much of the adjustment the sieve gives")
    blend: Blend = Field(default="normal", title="Blend mode", description="How what is done is laid over the picture that arrives")
    group: Name = Field(default="", description='id of the group it belongs to, "" for none')
    tracks: tuple[Track, ...] = Field(default=(), max_length=1000, description="fields that change from frame to frame")
    adjust: Adjust = Adjust()

    @property
    def leans_on(self) -> tuple[str, ...]:
        """Ids of the sieves whose masks this one's is made from."""
        return (*(self.of if self.mask_from != "own" else ()), *(one.of for one in self.joined))


class Group(Frozen):
    """Sieves that are switched, and weakened, together."""

    id: Name = Field(default_factory=fresh_id)
    name: str = Field(min_length=1, max_length=200)
    on: bool = True
    strength: float = number(100, 0, 100, "Strength", "%", help="How much of what its sieves do the group gives")


class Take(Frozen):
    """A named alternative of the whole stack."""

    name: str = Field(min_length=1, max_length=200)
    stack: tuple[Sieve, ...] = Field(min_length=1, max_length=256)


class Reading(Frozen):
    """How the picture is read, where its file leaves that open or a person knows better."""

    part: str = Field(default="", max_length=200, title="Part", description='of a file that holds several pictures; "" for the first')
    space: str = Field(default="", max_length=200, title="Colour space", description='name in OpenColorIO; "" for what the file says')
    matrix: str = Field(default="", max_length=40, title="Matrix", description='of footage; "" for what the stream says')
    range: str = Field(default="", max_length=40, title="Range", description='of footage: limited, full, or "" for what the stream says')
    primaries: str = Field(default="", max_length=40, title="Primaries", description='of footage; "" for what the stream says')
    curve: str = Field(default="", max_length=40, title="Curve", description='of footage; "" for what the stream says')
    deinterlaced: bool = Field(default=False, title="Deinterlaced", description="Whole frames are made of the fields of interlaced footage")
    white: tuple[Coordinate, Coordinate] | None = Field(
        default=None, title="White balance", description="x, y of a place of a camera raw that should be grey; null for as shot"
    )


class Project(Frozen):
    """The whole work on one picture or clip."""

    version: Literal[6] = VERSION
    source: str = Field(default="", max_length=4096, description="the picture or clip: a path relative to the project file")
    source_mark: str = Field(default="", max_length=64, description="what the picture was when the project was saved")
    reading: Reading = Reading()
    working: str = Field(
        default="",
        max_length=200,
        title="Working space",
        description='linear space of OpenColorIO in whose channels CDL and curves work; "" for Rec. 709',
    )
    display: str = Field(
        default="",
        max_length=400,
        title="Display",
        description='"display / view" of OpenColorIO it is seen and written through; "" for none',
    )
    stack: tuple[Sieve, ...] = Field(
        default=(Sieve(name="Sieve 1"),), min_length=1, max_length=256, description="the picture falls through these from first to last"
    )
    groups: tuple[Group, ...] = Field(default=(), max_length=64, description="sieves of one are switched and weakened together")
    takes: tuple[Take, ...] = Field(default=(), max_length=64, description="named alternatives of the whole stack")
    solo: Name = Field(default="", description='id of the one sieve that works, "" for all that are on')
    gamut: Gamut = Field(default="lower chroma", title="Gamut", description="How colours outside the output gamut are brought back")

    @model_validator(mode="after")
    def _ids_differ(self) -> Self:
        if len({sieve.id for sieve in self.stack}) != len(self.stack):
            raise ValueError("two sieves have the same id")
        return self

    @model_validator(mode="after")
    def _links_hold(self) -> Self:
        """Masks lean on sieves that are there, and never in a circle; what is measured after others leans on them too."""
        leans: dict[str, list[str]] = {}
        for place, sieve in enumerate(self.stack):
            leans[sieve.id] = list(sieve.leans_on)
            if sieve.pick.measure == "result" and sieve.mask_from == "own":
                leans[sieve.id] += [other.id for other in self.stack[:place]]
            if not set(leans[sieve.id]) <= {other.id for other in self.stack}:
                raise ValueError(f"the mask of {sieve.name} leans on a sieve that is not there")
        if not any(sieve.leans_on for sieve in self.stack):
            return self
        done: set[str] = set()
        while len(done) < len(leans):
            free = {name for name, others in leans.items() if name not in done and set(others) <= done}
            if not free:
                raise ValueError("masks would lean on each other in a circle")
            done |= free
        return self

    def sieve(self, sieve_id: str) -> Sieve:
        """The sieve with this id."""
        return next(sieve for sieve in self.stack if sieve.id == sieve_id)

    def with_sieve(self, changed: Sieve) -> Project:
        """The project with the sieve of the same id replaced."""
        return self.but(stack=tuple(changed if sieve.id == changed.id else sieve for sieve in self.stack))
