"""How a file is read, where it leaves that open or a person knows better."""

from __future__ import annotations

from dataclasses import dataclass

#: What may be chosen in place of what a stream says, and the numbers of H.273 for it.
CHOICES: dict[str, dict[str, int]] = {
    "matrix": {"BT.601": 6, "BT.709": 1, "BT.2020": 9},
    "range": {"limited": 1, "full": 2},
    "primaries": {"BT.601 (525)": 6, "BT.601 (625)": 5, "BT.709": 1, "P3": 12, "BT.2020": 9},
    "curve": {"BT.709": 1, "sRGB": 13, "gamma 2.2": 4, "gamma 2.8": 5, "linear": 8, "PQ": 16, "HLG": 18},
}


@dataclass(frozen=True)
class Reading:
    """What is chosen about reading a source.

    Attributes
    ----------
    part : name of the part of a file that holds several; "" for the first.
    space : OpenColorIO's name of the colour space the samples are in; "" for what the file says.
    white : x, y of a place of a camera raw (upright, full size) that should be grey; None for the white balance as shot.
    matrix, range, primaries, curve : of footage, words of ``CHOICES``; "" for what the stream says.
    deinterlaced : whole frames are made of the fields of interlaced footage.
    """

    part: str = ""
    space: str = ""
    white: tuple[float, float] | None = None
    matrix: str = ""
    range: str = ""
    primaries: str = ""
    curve: str = ""
    deinterlaced: bool = False


#: Everything as the file says.
PLAIN = Reading()
