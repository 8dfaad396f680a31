"""Choices in reading a file, where it leaves them open or a person knows better."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any

#: What may be chosen in place of what a stream says, and the numbers of H.273 for it.
CHOICES: dict[str, dict[str, int]] = {
    "matrix": {"BT.601": 6, "BT.709": 1, "BT.2020": 9},
    "range": {"limited": 1, "full": 2},
    "primaries": {"BT.601 (525)": 6, "BT.601 (625)": 5, "BT.709": 1, "P3": 12, "BT.2020": 9},
    "curve": {
        "BT.709": 1,
        "sRGB": 13,
        "gamma 2.2": 4,
        "gamma 2.8": 5,
        "linear": 8,
        "PQ": 16,
        "HLG": 18,
    },
}


def _setting(default: Any, title: str, description: str, **limits: object) -> Any:
    """A field that a project checks when it is read: pydantic takes limits and words from a field's
    metadata (its documentation, Dataclasses).

    So code that only reads pictures need not load it.
    """
    return field(default=default, metadata={"title": title, "description": description, **limits})


def _name(title: str, description: str, longest: int = 40) -> Any:
    return _setting("", title, description, max_length=longest)


@dataclass(frozen=True)
class Reading:
    """Choices in reading a source; a project keeps it, and every reader is told it."""

    __pydantic_config__ = {"extra": "forbid"}

    part: str = _name("Part", 'of a file that holds several pictures; "" for the first', 200)
    space: str = _name("Colour space", 'name in OpenColorIO; "" for what the file says', 200)
    white: tuple[float, float] | None = _setting(
        None,
        "White balance",
        "x, y of a place of a camera raw, upright, that should be grey; null for as shot",
    )
    matrix: str = _name("Matrix", 'of footage; "" for what the stream says')
    range: str = _name("Range", 'of footage: limited, full, or "" for what the stream says')
    primaries: str = _name("Primaries", 'of footage; "" for what the stream says')
    curve: str = _name("Curve", 'of footage; "" for what the stream says')
    deinterlaced: bool = _setting(
        False, "Deinterlaced", "Whole frames are made of the fields of interlaced footage"
    )


#: Everything as the file says.
PLAIN = Reading()
