"""Edge: what cleans the mask's outline."""

from __future__ import annotations

from pydantic import Field

from ...names import (
    Way,
)
from ..fields import number
from .values import Amount, Coordinate, Frozen


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
