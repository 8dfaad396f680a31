"""How a file is read, where it leaves that open or a person knows better."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

from pydantic import ConfigDict, Field

#: A coordinate near the picture.
Place = Annotated[float, Field(ge=-1e6, le=1e6, allow_inf_nan=False)]

#: What may be chosen in place of what a stream says, and the numbers of H.273 for it.
CHOICES: dict[str, dict[str, int]] = {
    "matrix": {"BT.601": 6, "BT.709": 1, "BT.2020": 9},
    "range": {"limited": 1, "full": 2},
    "primaries": {"BT.601 (525)": 6, "BT.601 (625)": 5, "BT.709": 1, "P3": 12, "BT.2020": 9},
    "curve": {"BT.709": 1, "sRGB": 13, "gamma 2.2": 4, "gamma 2.8": 5, "linear": 8, "PQ": 16, "HLG": 18},
}


@dataclass(frozen=True)
class Reading:
    """What is chosen about reading a source; a project keeps it, and every reader is told it."""

    __pydantic_config__ = ConfigDict(extra="forbid")

    part: Annotated[str, Field(max_length=200, title="Part", description='of a file that holds several pictures; "" for the first')] = ""
    space: Annotated[str, Field(max_length=200, title="Colour space", description='name in OpenColorIO; "" for what the file says')] = ""
    white: Annotated[
        tuple[Place, Place] | None,
        Field(title="White balance", description="x, y of a place of a camera raw, upright, that should be grey; null for as shot"),
    ] = None
    matrix: Annotated[str, Field(max_length=40, title="Matrix", description='of footage; "" for what the stream says')] = ""
    range: Annotated[str, Field(max_length=40, title="Range", description='of footage: limited, full, or "" for what the stream says')] = ""
    primaries: Annotated[str, Field(max_length=40, title="Primaries", description='of footage; "" for what the stream says')] = ""
    curve: Annotated[str, Field(max_length=40, title="Curve", description='of footage; "" for what the stream says')] = ""
    deinterlaced: Annotated[bool, Field(title="Deinterlaced", description="Whole frames are made of the fields of interlaced footage")] = (
        False
    )


#: Everything as the file says.
PLAIN = Reading()
