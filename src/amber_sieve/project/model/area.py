"""Areas: shapes and brush strokes that limit the mask."""

from __future__ import annotations

from typing import Literal, Self

from pydantic import Field, model_validator

from ...names import BOXED, AreaKind, AreaMode, Way
from ..fields import number
from .values import Colour, Coordinate, Frozen, Name, Point, Share, fresh_id


class Stroke(Frozen):
    """One brush stroke, as a vector."""

    points: tuple[tuple[Coordinate, Coordinate, Share], ...] = Field(
        max_length=2_000_000, description="x, y (full-resolution pixels) and pressure (0 to 1)"
    )
    size: float = number(60, 0.1, 5000, "Size", "px", soft=(1, 1000), help="Diameter of the brush.")
    hardness: float = number(
        80,
        0,
        100,
        "Hardness",
        "%",
        help="At 0 the brush is soft from its middle on, at 100 % it ends within a pixel.",
    )
    flow: float = number(
        100, 0, 100, "Flow", "%", help="How much each dab lays on: low values build up slowly."
    )
    opacity: float = number(100, 0, 100, "Opacity", "%", help="The most that one stroke can cover.")
    erase: bool = False
    pressure: Literal["nothing", "size", "flow"] = "nothing"
    like: Colour | None = Field(
        default=None, description="only where the picture resembles this colour"
    )


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
        description=(
            "middle and two half-axes' ends (rect, ellipse, radial), corners (polygon), full and "
            "empty end (gradient)"
        ),
    )
    feather: float = number(
        0, 0, 2000, "Feather", "px", decimals=1, soft=(0, 400),
        help=(
            "Softens the outline of the area over this distance (a standard deviation); at 0 it "
            "is sharp."
        ),
    )  # fmt: skip
    way: Way = "both"
    strokes: tuple[Stroke, ...] = Field(default=(), max_length=10_000)

    @model_validator(mode="after")
    def _enough_points(self) -> Self:
        needed = 3 if self.kind in BOXED else 2 if self.kind == "gradient" else 0
        if needed and len(self.points) != needed:
            raise ValueError(f"a {self.kind} has {needed} points")
        return self
