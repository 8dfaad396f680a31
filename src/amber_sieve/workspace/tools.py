"""The tools in hand: how a click samples, and which tool it is."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass


@dataclass
class Tools:
    """The tools' state; it belongs to the window, not to the project.

    Attributes
    ----------
    sample_size : side of the square whose mean a click takes, pixels; stroke_width : of a scribbled
        sample.
    picks : whether a plain click makes a new pick of a sieve that has one: on the page Pick.
    place : "patch", "box", "stroke" or "outline"; role : "" (a click starts over), "keep" or
        "drop".
    island : a click takes an island out or brings it back.
    picker : who waits for the colour that the next click takes, and for nothing else; spot : who
        waits for its place instead.
    """

    sample_size: int = 5
    stroke_width: int = 12
    picks: bool = True
    place: str = "patch"
    role: str = ""
    island: bool = False
    picker: Callable[[tuple[float, float, float]], None] | None = None
    spot: Callable[[float, float], None] | None = None
