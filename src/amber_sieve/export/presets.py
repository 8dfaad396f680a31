"""What can be chosen of an export, under a name, as open JSON."""

from __future__ import annotations

import json
import pathlib
from typing import Literal

import platformdirs
from pydantic import Field, ValidationError

from ..errors import Trouble
from ..files import made_folder, write_text
from ..project.model import Frozen
from ..project.storage import read_json
from .still_options import Filter

#: Frames of a clip that leave: the one that is seen, all, or those from the in to the out point.
WhichFrames = Literal["this", "all", "between"]


class ExportChoice(Frozen):
    """Everything that the export dialog asks, but the folder."""

    name: str = Field(default="", max_length=60)
    frames: WhichFrames = "this"
    what: str = Field(default="result", max_length=40)
    ending: str = Field(default=".png", max_length=12, description="of the file; #### before it for numbered pictures")
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
    ExportChoice(name="For the web (JPEG, sRGB, half size)", ending=".jpg", quality=88, size=50, profile="sRGB", metadata=False),
    ExportChoice(name="For print (TIFF, 16 bit, opRGB)", ending=".tif", depth="uint16", profile="opRGB"),
    ExportChoice(name="Cut-out (PNG)", what="cut-out", ending=".png", pattern="{name}-{sieve}"),
    ExportChoice(name="All masks (OpenEXR)", what="every mask", ending=".exr", pattern="{name}-masks"),
)


class Kept(Frozen):
    """The file of a person's own."""

    presets: tuple[ExportChoice, ...] = Field(default=(), max_length=200)


def own_file() -> pathlib.Path:
    """Where a person's own are kept."""
    return pathlib.Path(platformdirs.user_data_dir("amber-sieve")) / "export-presets.json"


def own() -> tuple[ExportChoice, ...]:
    """A person's own; none where there is no file, or a damaged one."""
    try:
        return Kept.model_validate_json(json.dumps(read_json(own_file(), "export presets"))).presets
    except (Trouble, ValidationError):
        return ()


def keep(choice: ExportChoice) -> None:
    """Store one; one of the same name is replaced. Raises `Trouble` when it has no name or cannot be written."""
    if not choice.name.strip():
        raise Trouble("A preset needs a name: write one.")
    _write((*(one for one in own() if one.name != choice.name), choice))


def remove(name: str) -> None:
    """Take one out; raises `Trouble` when that cannot be written."""
    _write(tuple(one for one in own() if one.name != name))


def _write(choices: tuple[ExportChoice, ...]) -> None:
    path = own_file()
    made_folder(path.parent, "presets")
    write_text(path, Kept(presets=choices).model_dump_json(indent=1) + "\n")
