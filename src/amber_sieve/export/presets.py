"""Presets of export options, as open JSON."""

from __future__ import annotations

import json
import pathlib
from typing import Literal

from pydantic import Field, ValidationError

from ..errors import Trouble
from ..language import translator
from ..project.model import Frozen
from ..project.storage import first_complaint, read_json
from ..project.store import LONGEST_NAME, Store
from .still_options import Filter

translate = translator("export")


#: Frames of a clip that leave: the one that is seen, all, or those from the in to the out point.
WhichFrames = Literal["this", "all", "between"]


class ExportChoice(Frozen):
    """Everything that the export dialog asks, but the folder."""

    name: str = Field(default="", max_length=LONGEST_NAME)
    frames: WhichFrames = "this"
    what: str = Field(default="result", max_length=40)
    ending: str = Field(
        default=".png",
        max_length=12,
        description="of the file; #### before it for numbered pictures",
    )
    depth: str = Field(default="", max_length=40, description="sample type, codec or nodes")
    quality: float = Field(default=95, ge=1, le=100)
    size: float = Field(default=100, ge=1, le=400)
    filter: Filter = "best"
    profile: str = Field(default="", max_length=40)
    premultiplied: bool = False
    metadata: bool = True
    pattern: str = Field(default="{name}-sieved", max_length=200)


#: What ships with the program.
SHIPPED = (
    ExportChoice(
        name=translate("For the web (JPEG, sRGB, half size)"),
        ending=".jpg",
        quality=88,
        size=50,
        profile="sRGB",
        metadata=False,
    ),
    ExportChoice(
        name=translate("For print (TIFF, 16 bit, opRGB)"),
        ending=".tif",
        depth="uint16",
        profile="opRGB",
    ),
    ExportChoice(
        name=translate("Cut-out (PNG)"),
        what="cut-out",
        ending=".png",
        pattern="{name}-{sieve}",
    ),
    ExportChoice(
        name=translate("All masks (OpenEXR)"),
        what="every mask",
        ending=".exr",
        pattern="{name}-masks",
    ),
)


def read(path: pathlib.Path) -> ExportChoice:
    """A choice from a file; raises `Trouble` when it holds none."""
    try:
        return ExportChoice.model_validate_json(
            json.dumps(read_json(path, translate("a preset of an export")))
        )
    except ValidationError as error:
        raise Trouble(
            translate(
                "{path} is not a preset of an export ({complaint}): choose another file.",
                path=path,
                complaint=first_complaint(error),
            )
        ) from None


def parsed(text: str) -> ExportChoice | None:
    """A choice from JSON; None where it is none."""
    try:
        return ExportChoice.model_validate_json(text)
    except ValidationError:
        return None


#: A person's own.
STORE = Store("exports", read)
