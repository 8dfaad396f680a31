"""Pick: samples, and how near to them counts."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from ...language import mid_sentence, named
from ...names import Comparison, DropRule, Reach, Shape
from ..fields import number
from .values import Colour, Coordinate, Frozen, Gains, Name, Point, Share, fresh_id


class Sample(Frozen):
    """A colour taken from the picture."""

    id: Name = Field(default_factory=fresh_id)
    name: Name = ""
    role: Literal["keep", "drop"] = "keep"
    reach: Reach = Field(
        default="everywhere",
        title="Reach",
        description="All of the picture, or only the piece that hangs together with its place",
    )
    rule: DropRule = Field(
        default="nearer",
        title="Drop rule",
        description=(
            "Of a drop sample: it takes what lies nearer to it than to any keep sample, or all "
            "within its tolerance"
        ),
    )
    on: bool = True
    x: Coordinate = Field(description="full-resolution pixels from the left edge")
    y: Coordinate = Field(description="full-resolution pixels from the top edge")
    frame: int = Field(default=0, ge=0, description="number of the frame it was taken on, from 0")
    size: int = Field(
        default=5,
        ge=1,
        le=501,
        description="side of the square whose mean was taken, or width of the stroke, in pixels",
    )
    place: Literal["patch", "box", "stroke"] = "patch"
    points: tuple[Point, ...] = Field(
        default=(),
        max_length=100_000,
        description="corners of the box, or the stroke's way, full-resolution pixels",
    )
    colour: Colour = Field(description="mean of the place, linear light, Rec. 709 primaries")
    tones: tuple[Colour, ...] = Field(
        default=(),
        max_length=12,
        description="main tones of a box or stroke; each stands for the sample",
    )
    compare: Comparison = "surface"
    tolerance: float = number(
        6, 0, 1000, "Tolerance", step=0.5, decimals=1, soft=(0, 60),
        help=(
            "How different from the sample a colour may be and still be masked fully: 0 takes "
            "only the sample's own colour, more takes more."
        ),
    )  # fmt: skip
    falloff: float = number(
        1, 0, 1000, "Falloff", step=0.5, decimals=1, soft=(0, 60),
        help=(
            "Over how much more difference the mask fades from full to nothing: 0 gives a hard "
            "edge between colours."
        ),
    )  # fmt: skip
    shape: Shape = "linear"
    bend: float = number(
        0,
        -1,
        1,
        "Falloff curve",
        step=0.05,
        decimals=2,
        help="Below 0 the mask falls off steeply, above 0 gently.",
    )


class Pick(Frozen):
    """Colours that the mask is made from."""

    samples: tuple[Sample, ...] = Field(default=(), max_length=256)
    shading: float = number(
        85,
        0,
        100,
        "Shading",
        "%",
        help=(
            "At 100 % light and shade on the same surface make no difference; at 0 they count "
            "like any other."
        ),
    )
    gloss: float = number(
        0,
        0,
        100,
        "Gloss",
        "%",
        help=(
            "At 100 % pale highlights on the same surface are included; at 0 they count like any "
            "other colour. When it is right, highlights are white in the mask."
        ),
    )
    hue_weight: float = number(
        100, 0, 400, "Hue weight", "%", step=5, soft=(0, 200),
        help=(
            "Above 100 % a difference in hue counts more, below it less; at 0 hue makes no "
            "difference."
        ),
    )  # fmt: skip
    saturation_weight: float = number(
        100, 0, 400, "Saturation weight", "%", step=5, soft=(0, 200),
        help=(
            "Above 100 % a difference in saturation counts more, below it less; at 0 saturation "
            "makes no difference."
        ),
    )  # fmt: skip
    outline: tuple[Point, ...] = Field(
        default=(),
        max_length=100_000,
        description=(
            "loose outline drawn round the thing, full-resolution pixels: all outside is not the "
            "thing"
        ),
    )
    connected: bool = Field(
        default=False,
        title="Connected only",
        description="Only what hangs together with a kept place",
    )
    bridge: float = number(
        0,
        0,
        200,
        "Bridge gaps",
        "px",
        help="Gaps up to this wide are crossed when only what is connected is kept.",
    )
    transparent: bool = Field(
        default=True,
        title="Include transparent pixels",
        description="Whether wholly transparent pixels may count",
    )
    light: Literal["auto", "off"] | Gains = Field(
        default="auto",
        title="Light",
        description=(
            "of this picture over that of the one picked on: found, not looked for, or gains of "
            "red, green and blue"
        ),
    )
    flat: Literal["auto", "off"] | tuple[Share, Share] = Field(
        default="auto",
        title="Flat picture",
        description=(
            "recorded with a log curve and read as sRGB, which is undone before measuring: found, "
            "as it is, or its lowest and highest code"
        ),
    )
    picked_on: str = Field(
        default="",
        max_length=24_000,  # more than any signature has
        description="colours of the picture that the samples were taken from, to find its light by",
    )
    measure: Literal["original", "result", "layer"] = Field(
        default="original",
        description="what is measured: the picture as opened, as it arrives here, or a layer",
    )
    layer: str = Field(
        default="",
        max_length=4096,
        description="path of another picture of the same size, for measure = layer",
    )

    def name_of(self, sample_id: str) -> str:
        """Return a sample's name: its name, or its role and its number in the list; "" when it is
        not there.
        """
        for place, sample in enumerate(self.samples, 1):
            if sample.id == sample_id:
                return sample.name or f"{mid_sentence(named(sample.role))} {place}"
        return ""
