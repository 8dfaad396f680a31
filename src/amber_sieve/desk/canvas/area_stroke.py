"""A brush and a drawing that is not finished."""

from __future__ import annotations

from dataclasses import dataclass, field

from ...language import translator
from ...project.model import Area, Point

translate = translator("canvas")


@dataclass
class Brush:
    """The brush in hand."""

    size: float = 60.0
    hardness: float = 80.0
    flow: float = 100.0
    opacity: float = 100.0
    pressure: str = "nothing"
    alike: bool = False


@dataclass
class Drawing:
    """A drawing or drag that is under way."""

    start: Point
    handle: str = ""
    before: Area | None = None
    points: list[tuple[float, float, float]] = field(default_factory=list)
    erase: bool = False
