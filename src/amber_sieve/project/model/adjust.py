"""Adjust: what is done inside the mask, a class a block."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any, ClassVar

from pydantic import Field

from ...names import Blend, FillKind, FillWhere
from ..fields import number, setting
from .adjustment import Adjustment, start_of
from .values import ByHue, Colour, Curved, Frozen


class White(Adjustment):
    """White balance: light warmed, cooled or tinted as a whole."""

    label: ClassVar[str] = "White balance"

    temperature: float = number(
        0, -250, 250, "Temperature", "mired", soft=(-100, 100),
        help=(
            "Above 0 the light becomes warmer, as through an amber filter; below 0 it becomes "
            "cooler. 10 mired near daylight are about 450 kelvin."
        ),
    )  # fmt: skip
    tint: float = number(
        0,
        -100,
        100,
        "Tint",
        step=0.5,
        decimals=1,
        soft=(-40, 40),
        help="Above 0 the light leans to magenta, below 0 to green.",
    )


class Light(Adjustment):
    """Light: exposure, contrast and the tones."""

    label: ClassVar[str] = "Light"

    exposure: float = number(
        0, -10, 10, "Exposure", "stops", step=0.1, decimals=2, soft=(-4, 4),
        help="Each stop above 0 doubles the light, each stop below halves it.",
    )  # fmt: skip
    contrast: float = number(
        0,
        -100,
        100,
        "Contrast",
        "%",
        help="At 100 % distances from the pivot double, in stops; at -100 % they halve.",
    )
    pivot: float = number(
        0,
        -8,
        8,
        "Pivot",
        "stops",
        step=0.1,
        decimals=2,
        help=(
            "The light that contrast leaves alone: 0 is mid grey, above 0 lighter, below 0 darker."
        ),
    )
    highlights: float = number(
        0,
        -100,
        100,
        "Highlights",
        "%",
        help="Above 0 what is lighter than mid grey becomes lighter, below 0 darker.",
    )
    shadows: float = number(
        0,
        -100,
        100,
        "Shadows",
        "%",
        help="Above 0 what is darker than mid grey becomes lighter, below 0 darker.",
    )
    white_point: float = number(
        100, 10, 1000, "White point", "%", soft=(25, 200),
        help=(
            "The luminance that becomes white: below 100 % the picture gets lighter, above it "
            "darker."
        ),
    )  # fmt: skip
    black_point: float = number(
        0, 0, 90, "Black point", "%", step=0.1, decimals=1, soft=(0, 20),
        help=(
            "The luminance that becomes black: at 0 nothing changes, higher values deepen the "
            "shadows."
        ),
    )  # fmt: skip
    gamma: float = number(
        1, 0.1, 10, "Gamma", step=0.05, decimals=2, soft=(0.25, 4),
        help="Above 1 the tones between black and white get lighter, below 1 darker.",
    )  # fmt: skip


class Curve(Adjustment):
    """Levels and curves, on sRGB-coded values."""

    label: ClassVar[str] = "Levels and curves"

    curve: Curved = setting((), "curve", "Curve", "Curve of luminance; hue and saturation stay")
    curve_red: Curved = setting((), "curve", "Red curve", "Curve of the red channel")
    curve_green: Curved = setting((), "curve", "Green curve", "Curve of the green channel")
    curve_blue: Curved = setting((), "curve", "Blue curve", "Curve of the blue channel")
    in_black: float = number(
        0, 0, 254, "Input black", help="This level becomes the output black; at 0 nothing changes."
    )
    in_white: float = number(
        255,
        1,
        255,
        "Input white",
        help="This level becomes the output white; at 255 nothing changes.",
    )
    middle: float = number(
        1, 0.1, 10, "Midtones", step=0.05, decimals=2, soft=(0.25, 4),
        help="Above 1 the tones between input black and input white get lighter, below 1 darker.",
    )  # fmt: skip
    out_black: float = number(
        0,
        0,
        255,
        "Output black",
        help="The level that input black becomes; above 0 blacks turn grey.",
    )
    out_white: float = number(
        255,
        0,
        255,
        "Output white",
        help="The level that input white becomes; below 255 whites turn grey.",
    )


def _hue_of(name: str) -> Any:
    return number(
        0,
        0,
        360,
        f"{name} hue",
        "°",
        help=f"The hue that {name.lower()} are drawn towards, as far as their colour says.",
    )


def _colour_of(name: str) -> Any:
    return number(
        0,
        0,
        100,
        f"{name} colour",
        "%",
        step=0.5,
        decimals=1,
        help=f"At 0 {name.lower()} keep their colour; at 100 % they are drawn to the hue most.",
    )


def _lightness_of(name: str) -> Any:
    return number(
        0,
        -100,
        100,
        f"{name} lightness",
        "%",
        help=f"Above 0 {name.lower()} become lighter, below 0 darker.",
    )


class Balance(Adjustment):
    """Shadows, midtones and highlights, each towards a hue."""

    label: ClassVar[str] = "Balance"

    shadows_hue: float = _hue_of("Shadows")
    shadows_colour: float = _colour_of("Shadows")
    shadows_lightness: float = _lightness_of("Shadows")
    midtones_hue: float = _hue_of("Midtones")
    midtones_colour: float = _colour_of("Midtones")
    midtones_lightness: float = _lightness_of("Midtones")
    highlights_hue: float = _hue_of("Highlights")
    highlights_colour: float = _colour_of("Highlights")
    highlights_lightness: float = _lightness_of("Highlights")
    shadows_to: float = number(
        35, 0, 100, "Shadows to", "%", help="The lightness at which shadows become midtones."
    )
    highlights_from: float = number(
        70,
        0,
        100,
        "Highlights from",
        "%",
        help="The lightness at which midtones become highlights.",
    )


class Hues(Adjustment):
    """Adjustments at each hue."""

    label: ClassVar[str] = "Curves by hue"

    turn_by_hue: ByHue = setting(
        (), "hues", "Hue shift by hue", "Degrees that single hues are shifted by"
    )
    saturation_by_hue: ByHue = setting(
        (),
        "hues",
        "Saturation by hue",
        "From grey (-100) to twice the chroma (100), for single hues",
    )
    lightness_by_hue: ByHue = setting(
        (), "hues", "Lightness by hue", "Darker (-100) or lighter (100), for single hues"
    )


class Recolour(Adjustment):
    """Hue, saturation and lightness turned."""

    label: ClassVar[str] = "Recolour"

    hue: float = number(
        0,
        -180,
        180,
        "Hue",
        "°",
        decimals=1,
        help="Turns every hue by this angle; 180 degrees gives the opposite colour.",
    )
    saturation: float = number(
        0,
        -100,
        100,
        "Saturation",
        "%",
        help="At -100 % colours become grey, at 100 % their chroma doubles.",
    )
    vibrance: float = number(
        0,
        -100,
        100,
        "Vibrance",
        "%",
        help=(
            "Like saturation, but colours that are rich already change less, and skin tones least."
        ),
    )
    lightness: float = number(
        0, -100, 100, "Lightness", "%", help="At -100 % everything is black, at 100 % white."
    )
    one_hue: float = number(
        0,
        0,
        100,
        "Draw hues together",
        "%",
        help=(
            "At 100 % all hues become the one given beside it; at 0 none changes. When it is "
            "right, the thing has one hue, and its light and dark are what they were."
        ),
    )
    one_hue_at: float = number(
        0, 0, 360, "Towards hue", "°", help="The hue that all others are drawn towards."
    )
    dyed: bool = setting(
        False,
        "switch",
        "As if dyed",
        "Change the thing's own colour alone: light, folds and gloss stay as they are",
    )

    @property
    def moved(self) -> bool:
        return any(
            value != getattr(start_of(Recolour), name)
            for name, value in self
            if name not in ("on", "dyed")
        )


class Match(Adjustment):
    """The mean colour brought to a target."""

    label: ClassVar[str] = "Match a target"
    once_saved = ("found",)

    target: Colour | None = setting(
        None, "colour", "Target", "Colour that the mean of what is masked becomes"
    )
    nearest: bool = setting(
        False,
        "switch",
        "Stay believable",
        "Goes towards the target only as far as no colour leaves the gamut and no shade is crushed",
    )

    @property
    def moved(self) -> bool:
        return self.target is not None


class Even(Adjustment):
    """Colours drawn towards their mean."""

    label: ClassVar[str] = "Even out"
    once_saved = ("mean",)

    even_lightness: float = number(
        0,
        0,
        100,
        "Even lightness",
        "%",
        help="At 100 % everything inside the mask has the same lightness; at 0 nothing changes.",
    )
    even_hue: float = number(
        0,
        0,
        100,
        "Even hue",
        "%",
        help="At 100 % everything inside the mask has the same hue; at 0 nothing changes.",
    )

    @property
    def moved(self) -> bool:
        return bool(self.even_lightness or self.even_hue)


#: Range of each kind of number of a CDL, and what a drag covers.
CDL_RANGES = {
    "Slope": ((0, 100), (0, 4)),
    "Offset": ((-10, 10), (-0.5, 0.5)),
    "Power": ((0.05, 20), (0.1, 4)),
}


#: What each kind of number of a CDL does to the light of a channel.
CDL_HELP = {
    "Slope": "Multiplies {} light: above 1 it gets lighter, below 1 darker.",
    "Offset": (
        "Is added to {} light after the slope: above 0 it lifts shadows, below 0 it deepens them."
    ),
    "Power": (
        "The power {} light is raised to after slope and offset: above 1 midtones get darker, "
        "below 1 lighter."
    ),
}


def _channels(name: str, label: str, start: float) -> Any:
    (low, high), soft = CDL_RANGES[label]
    return number(
        start,
        low,
        high,
        f"{label} {name}",
        step=0.01,
        decimals=3,
        soft=soft,
        help=CDL_HELP[label].format(name),
    )


class Mono(Adjustment):
    """Grey by channel weights."""

    label: ClassVar[str] = "Black and white"

    mono: float = number(
        0,
        0,
        100,
        "Amount",
        "%",
        help="At 100 % the picture is black and white, at 0 it keeps its colours.",
    )
    mono_red: float = number(
        21,
        -200,
        200,
        "Red",
        "%",
        help="How bright red light becomes in the grey: higher is lighter, below 0 it darkens.",
    )
    mono_green: float = number(
        72,
        -200,
        200,
        "Green",
        "%",
        help="How bright green light becomes in the grey: higher is lighter, below 0 it darkens.",
    )
    mono_blue: float = number(
        7,
        -200,
        200,
        "Blue",
        "%",
        help="How bright blue light becomes in the grey: higher is lighter, below 0 it darkens.",
    )


class Cdl(Adjustment):
    """The ASC CDL, version 1.2."""

    label: ClassVar[str] = "CDL"

    slope_red: float = _channels("red", "Slope", 1)
    slope_green: float = _channels("green", "Slope", 1)
    slope_blue: float = _channels("blue", "Slope", 1)
    offset_red: float = _channels("red", "Offset", 0)
    offset_green: float = _channels("green", "Offset", 0)
    offset_blue: float = _channels("blue", "Offset", 0)
    power_red: float = _channels("red", "Power", 1)
    power_green: float = _channels("green", "Power", 1)
    power_blue: float = _channels("blue", "Power", 1)
    cdl_saturation: float = number(
        1, 0, 20, "CDL saturation", soft=(0, 4), step=0.01, decimals=3,
        help="At 0 colours become grey, at 1 they stay, above 1 they get richer.",
    )  # fmt: skip


class Lookup(Adjustment):
    """A 1D or 3D lookup table."""

    label: ClassVar[str] = "Lookup table"

    lookup_file: str = Field(
        default="",
        max_length=4096,
        title="Table",
        description="A lookup table (.cube, .clf) over sRGB-coded values",
        json_schema_extra={"kind": "path"},
    )

    @property
    def moved(self) -> bool:
        return bool(self.lookup_file)


class Detail(Adjustment):
    """Noise, blur, local contrast, sharpness and grain."""

    label: ClassVar[str] = "Detail"
    once_saved = ("frame",)

    noise: float = number(
        0,
        0,
        100,
        "Noise reduction",
        "%",
        help="At 100 % noise in lightness and colour is smoothed most; at 0 nothing changes.",
    )
    blur: float = number(
        0, 0, 500, "Blur", "px", step=0.5, decimals=1, soft=(0, 50),
        help="Softens the picture over this distance (a standard deviation); at 0 nothing changes.",
    )  # fmt: skip
    local_contrast: float = number(
        0, -100, 100, "Local contrast", "%",
        help=(
            "Above 0 things stand out from what surrounds them, below 0 they sink into it, "
            "without halos."
        ),
    )  # fmt: skip
    contrast_radius: float = number(
        40,
        2,
        500,
        "Radius",
        "px",
        soft=(2, 200),
        help="How far local contrast looks: small for texture, large for whole shapes.",
    )
    sharpen: float = number(
        0,
        0,
        100,
        "Sharpen",
        "%",
        help="At 100 % fine detail is emphasised most; at 0 nothing changes.",
    )
    sharpen_radius: float = number(
        1, 0.3, 20, "Radius", "px", step=0.1, decimals=1, soft=(0.3, 5),
        help="How far sharpening looks: small for fine detail, large for coarse.",
    )  # fmt: skip
    grain: float = number(
        0, 0, 100, "Grain", "%", help="At 100 % film-like grain is strongest; at 0 there is none."
    )
    grain_size: float = number(
        1.5,
        0.5,
        20,
        "Size",
        "px",
        step=0.1,
        decimals=1,
        soft=(0.5, 6),
        help="How large a grain is.",
    )

    @property
    def moved(self) -> bool:
        return bool(self.noise or self.blur or self.local_contrast or self.sharpen or self.grain)


class Fill(Adjustment):
    """A colour, a gradient or another picture, inside the mask or behind what it holds."""

    label: ClassVar[str] = "Fill"

    fill: FillKind = setting(
        "off",
        "words",
        "Fill",
        "What fills: a colour, a gradient, another picture, what lies around it (for small "
        "things), or nothing (transparent)",
    )
    fill_where: FillWhere = setting(
        "inside", "words", "Where", "Inside the mask, or behind what it holds"
    )
    fill_colour: Colour = setting(
        (0.18, 0.18, 0.18), "colour", "Colour", "Colour that fills, or begins the gradient"
    )
    fill_to: Colour = setting((0.8, 0.8, 0.8), "colour", "To", "Colour that ends the gradient")
    fill_angle: float = number(
        90, -180, 180, "Angle", "°", help="Direction of the gradient: 0 to the right, 90 downwards."
    )
    fill_picture: str = Field(
        default="",
        max_length=4096,
        title="Picture",
        description="Path of the picture that fills",
        json_schema_extra={"kind": "path"},
    )
    fill_across: float = number(
        0, -200, 200, "Across", "%", soft=(-50, 50),
        help=(
            "Moves the picture to the right above 0 and to the left below it, in per cent of the "
            "width."
        ),
    )  # fmt: skip
    fill_down: float = number(
        0,
        -200,
        200,
        "Down",
        "%",
        soft=(-50, 50),
        help="Moves the picture down above 0 and up below it, in per cent of the height.",
    )
    fill_scale: float = number(
        100,
        1,
        1000,
        "Scale",
        "%",
        soft=(20, 300),
        help="At 100 % the picture just covers everything; lower is smaller, higher larger.",
    )
    fill_blend: Blend = setting(
        "normal", "words", "Blend mode", "How it is laid over what is there"
    )
    fill_opacity: float = number(
        100,
        0,
        100,
        "Opacity",
        "%",
        help="At 100 % the fill covers what is there; at 0 it is not seen.",
    )

    @property
    def moved(self) -> bool:
        return self.fill != "off" and not (self.fill == "picture" and not self.fill_picture)


class Adjust(Frozen):
    """Adjustments inside the mask: the blocks in the order in which they are applied."""

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

    @property
    def neutral(self) -> bool:
        """Return whether it changes nothing."""
        return all(block.neutral for _, block in self.blocks())

    def blocks(self) -> Iterator[tuple[str, Adjustment]]:
        """The blocks by name."""
        return ((name, getattr(self, name)) for name in type(self).model_fields)
