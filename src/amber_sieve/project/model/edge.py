"""Edge: what cleans the mask's outline."""

from __future__ import annotations

from pydantic import Field

from ...names import Way
from ..fields import number
from .values import Amount, Coordinate, Frozen


class Place(Frozen):
    """The place at which an island was clicked."""

    x: Coordinate = Field(description="full-resolution pixels")
    y: Coordinate
    radius: float = Field(
        default=8.0,
        ge=0,
        le=20_000,
        description="how far it may have moved, full-resolution pixels",
    )


class Edge(Frozen):
    """Settings that clean the mask's outline, in the order in which it is applied. Lengths are
    full-resolution pixels.
    """

    black: float = number(
        0,
        0,
        100,
        "Black point",
        "%",
        help="Mask values up to this become 0, which cleans a grey background.",
    )
    white: float = number(
        100,
        0,
        100,
        "White point",
        "%",
        help="Mask values from this on become 100 %, which closes a grey inside.",
    )
    gamma: float = number(
        1,
        0.1,
        10,
        "Gamma",
        step=0.1,
        decimals=2,
        help="Above 1 partial pixels are masked more, below 1 less.",
    )
    specks: Amount = number(
        "auto", 0, 1e6, "Remove specks up to", "px", step=5, soft=(0, 5000),
        help=(
            "Pieces of at most so many pixels are removed, unless a sample lies in them; at 0 all "
            "stay."
        ),
    )  # fmt: skip
    holes: Amount = number(
        "auto", 0, 1e6, "Fill holes up to", "px", step=5, soft=(0, 5000),
        help=(
            "Holes of at most so many pixels are filled, unless a sample lies in them; at 0 none "
            "is."
        ),
    )  # fmt: skip
    all_holes: bool = Field(
        default=False, title="All holes", description="Fill every hole, whatever its size"
    )
    islands_out: tuple[Place, ...] = Field(default=(), max_length=10_000)
    islands_only: tuple[Place, ...] = Field(default=(), max_length=10_000)
    grow: float = number(
        0, -200, 200, "Grow", "px", step=0.5, decimals=1, soft=(-60, 60),
        help="Above 0 the mask grows by this distance, below 0 it shrinks.",
    )  # fmt: skip
    feather: float = number(
        0, 0, 200, "Feather", "px", step=0.5, decimals=1, soft=(0, 100),
        help=(
            "Softens the finished outline over this distance (a standard deviation), last of all; "
            "at 0 it stays as it is."
        ),
    )  # fmt: skip
    way: Way = Field(
        default="both",
        title="Feather direction",
        description="Soften both ways, or only inwards or outwards",
    )
    smooth: float = number(
        0, 0, 50, "Smooth", "px", step=0.5, decimals=1,
        help=(
            "Rounds a jagged outline over this distance without softening it; at 0 it stays as it "
            "is."
        ),
    )  # fmt: skip
    hard: bool = Field(default=False, title="Hard edge", description="No partial pixel")
    follow: Amount = number(
        "auto", 0, 100, "Follow the edge", "px",
        help=(
            "Looks this far on both sides of the outline to work out how far each pixel is "
            "covered; at 0 the outline stays as it was picked. When it is right, soft edges are "
            "grey in the mask and no rim of the old colour stays."
        ),
    )  # fmt: skip
    sensitivity: float = number(
        50, 0, 100, "Colour separation", "%",
        help=(
            "At 0 subject and background must differ clearly to be told apart, at 100 % the "
            "slightest difference is used. When it is right, the mask is grey along the edge alone."
        ),
    )  # fmt: skip
    fine: float = number(
        0, 0, 100, "Hair and fringe", "px",
        help=(
            "Width of the band in which hair, fringe and leaves are worked out pixel by pixel; at "
            "0 it is off. It takes seconds."
        ),
    )  # fmt: skip
    steady: float = number(
        0, 0, 100, "Steady over time", "%",
        help=(
            "In clips: at 100 % the frames around weigh most, so that the mask does not flicker; "
            "at 0 each frame stands alone."
        ),
    )  # fmt: skip
    no_haze: bool = Field(
        default=True,
        title="No colour fringe",
        description=(
            "Along the outline the unmixed colours are adjusted, so that no rim of the old colour "
            "stays"
        ),
    )
    clean: Amount = number(
        "auto", 0, 12, "Denoise (mask only)",
        help=(
            "Removes noise before the mask is made: at 1 and 2 that of colour, from 3 on grain "
            "too; at 0 the picture is measured as it is. The picture itself never changes."
        ),
    )  # fmt: skip
    level: Amount = number(
        "auto", 0, 6, "Brighten (mask only)", "stops", step=0.1, decimals=1,
        help=(
            "Measures a dark picture as if it had been exposed longer, so that its colours are "
            "told apart; at 0 it is measured as it is. The picture itself never changes."
        ),
    )  # fmt: skip
