"""How a file is read, where it leaves that open or a person knows better."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class Reading:
    """What is chosen about reading a source.

    Attributes
    ----------
    part : name of the part of a file that holds several; "" for the first.
    space : OpenColorIO's name of the colour space the samples are in; "" for what the file says.
    white : x, y of a place of a camera raw (upright, full size) that should be grey; None for the white balance as shot.
    """

    part: str = ""
    space: str = ""
    white: tuple[float, float] | None = None


#: Everything as the file says.
PLAIN = Reading()
