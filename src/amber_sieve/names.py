"""The names that both the formulas and the model know: one list each of comparisons, shapes, areas
and measures.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal, get_args

#: What a sample is compared in.
Comparison = Literal[
    "surface", "colour", "levels", "hue", "saturation", "luminance", "red", "green", "blue"
]
COMPARISONS: tuple[Comparison, ...] = get_args(Comparison)

#: What a sample reaches: all of the picture, or only the piece that hangs together with its place.
Reach = Literal["everywhere", "here"]
REACHES: tuple[Reach, ...] = get_args(Reach)
#: What a drop sample takes: all that lies nearer to it than to any keep sample, or all within its
#: tolerance.
DropRule = Literal["nearer", "tolerance"]
DROP_RULES: tuple[DropRule, ...] = get_args(DropRule)

#: The shapes by which a mask fades from full to nothing.
Shape = Literal["linear", "smooth", "steep", "gentle", "hard", "bend"]
SHAPES: tuple[Shape, ...] = get_args(Shape)

#: Areas that limit a mask; the first three are a middle and two half-axes.
AreaKind = Literal["rect", "ellipse", "radial", "polygon", "gradient", "brush"]
AREA_KINDS: tuple[AreaKind, ...] = get_args(AreaKind)
BOXED: tuple[AreaKind, ...] = ("rect", "ellipse", "radial")
#: How an area joins the mask.
AreaMode = Literal["add", "subtract", "intersect"]
AREA_MODES: tuple[AreaMode, ...] = get_args(AreaMode)

#: Which way an outline is softened.
Way = Literal["both", "inwards", "outwards"]
WAYS: tuple[Way, ...] = get_args(Way)

#: How colours outside the output gamut are brought back.
Gamut = Literal["lower chroma", "clip"]
GAMUTS: tuple[Gamut, ...] = get_args(Gamut)

#: Where a sieve's mask comes from: its own pick, the same as another sieve's, or what some others
#: leave.
MaskFrom = Literal["own", "same", "left"]
MASKS_FROM: tuple[MaskFrom, ...] = get_args(MaskFrom)

#: How a value goes on from one keyframe to the next.
Between = Literal["linear", "smooth", "hold"]
BETWEENS: tuple[Between, ...] = get_args(Between)

#: What the motion of a tracked area may be made of.
Moves = Literal["position", "position, size and rotation", "perspective"]
MOVES: tuple[Moves, ...] = get_args(Moves)

#: How what is done is laid over what was there: the modes of W3C Compositing and Blending.
Blend = Literal[
    "normal",
    "multiply",
    "darken",
    "lighten",
    "screen",
    "overlay",
    "color-dodge",
    "color-burn",
    "hard-light",
    "soft-light",
    "difference",
    "exclusion",
    "hue",
    "saturation",
    "color",
    "luminosity",
]
BLENDS: tuple[Blend, ...] = get_args(Blend)

#: What fills: surroundings are what lies around what is masked; nothing is a hole in the picture,
#: through which its background is seen.
FillKind = Literal["off", "colour", "gradient", "picture", "surroundings", "nothing"]
FILL_KINDS: tuple[FillKind, ...] = get_args(FillKind)
#: Where it fills: inside the mask, or behind what is masked, in place of the rest of the picture.
FillWhere = Literal["inside", "behind"]
FILL_WHERES: tuple[FillWhere, ...] = get_args(FillWhere)


@dataclass(frozen=True)
class Measure:
    """A measure of a pixel: its range, its unit, and whether it wraps. Beyond the ends of the range
    the end counts.
    """

    name: str
    low: float
    high: float
    unit: str
    wraps: bool = False

    @property
    def full(self) -> tuple[float, float, float, float]:
        """The corners of a band that lets everything through."""
        return (self.low, self.low, self.high, self.high)


#: The measures that bands are made of, in the order of their planes.
MEASURES: dict[str, Measure] = {
    measure.name: measure
    for measure in (
        Measure("hue", 0, 360, "°", wraps=True),
        Measure("saturation", 0, 125, "%"),
        Measure("luminance", 0, 100, "L*"),
        Measure("red", 0, 255, ""),
        Measure("green", 0, 255, ""),
        Measure("blue", 0, 255, ""),
    )
}
BANDS = tuple(MEASURES)
#: Bands that look at how a colour is seen.
SEEN_BANDS = BANDS[:3]
#: Bands that look at one channel.
CHANNEL_BANDS = BANDS[3:]

#: Largest tolerance and its unit for every comparison.
TOLERANCES: dict[str, tuple[float, str]] = {
    "surface": (60, ""),
    "colour": (60, ""),
    "levels": (255, ""),
    "hue": (180, "°"),
    "saturation": (125, "%"),
    "luminance": (100, "L*"),
    "red": (255, ""),
    "green": (255, ""),
    "blue": (255, ""),
}


def drop_rule_for(compare: str) -> DropRule:
    """The rule by which a drop sample starts: distances compete where they are distances of
    colours, not of one plain measure.
    """
    return "nearer" if compare in ("surface", "colour") else "tolerance"


#: The scopes, and what they are of.
ScopeKind = Literal["waveform", "parade", "vectorscope", "histogram"]
SCOPE_KINDS: tuple[ScopeKind, ...] = get_args(ScopeKind)
ScopeOf = Literal["result", "original", "masked"]
SCOPES_OF: tuple[ScopeOf, ...] = get_args(ScopeOf)
