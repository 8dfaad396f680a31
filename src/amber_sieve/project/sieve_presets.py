"""Presets of whole sieves: mask and adjustments, with a small picture of what they did, as open JSON files."""

from __future__ import annotations

import base64
import contextlib
import json
import pathlib
from collections.abc import Iterator

from pydantic import Field, ValidationError

from ..errors import Trouble
from ..files import made_folder, write_text
from .model import VERSION, Frozen, Sieve
from .presets import LONGEST_NAME, file_name_of, own_folder
from .storage import first_complaint, read_json


class SievePreset(Frozen):
    """A named sieve."""

    amber_sieve: int = Field(default=VERSION, description="version of the file format it is in")
    name: str = Field(min_length=1, max_length=LONGEST_NAME)
    picture: str = Field(default="", max_length=200_000, description="what it looked like, PNG as base64")
    sieve: Sieve

    @property
    def png(self) -> bytes:
        """The picture as the bytes of a PNG file; b"" for none."""
        try:
            return base64.b64decode(self.picture, validate=True)
        except ValueError:
            return b""


def folder() -> pathlib.Path:
    """Where they live."""
    return own_folder() / "sieves"


def preset_of(name: str, sieve: Sieve, png: bytes) -> SievePreset:
    """A preset of a sieve that leans on no other; raises `Trouble` when the name is none."""
    if not 1 <= len(name.strip()) <= LONGEST_NAME:
        raise Trouble(f"The name of a preset has 1 to {LONGEST_NAME} characters, this one {len(name.strip())}: give another name.")
    return SievePreset(name=name.strip(), picture=base64.b64encode(png).decode(), sieve=sieve.but(name=name.strip(), group=""))


def read(path: pathlib.Path) -> SievePreset:
    """A preset from a file; raises `Trouble` when it is none, or of a newer version."""
    held = read_json(path, "a preset of a sieve")
    if isinstance(held.get("amber_sieve"), int) and held["amber_sieve"] > VERSION:
        raise Trouble(f"{path} was made by a newer version of Amber Sieve: update the program to use it.")
    try:
        return SievePreset.model_validate_json(json.dumps(held))
    except ValidationError as error:
        raise Trouble(f"{path} is not a preset of a sieve ({first_complaint(error)}): choose another file.") from None


def write(preset: SievePreset, path: pathlib.Path) -> None:
    """Write a preset; raises `Trouble` when that fails."""
    write_text(path, preset.model_dump_json(indent=1) + "\n")


def _path_of(name: str) -> pathlib.Path:
    """The file that holds the preset of this name already, or a new one."""
    return next((path for path, preset in _stored() if preset.name == name), folder() / file_name_of(name))


def keep(preset: SievePreset) -> None:
    """Store it; one of the same name is replaced. Raises `Trouble` when that fails."""
    path = _path_of(preset.name)
    made_folder(path.parent, "presets")
    write(preset, path)


def remove(preset: SievePreset) -> None:
    """Take it out."""
    with contextlib.suppress(OSError):
        _path_of(preset.name).unlink(missing_ok=True)


def stored() -> list[SievePreset]:
    """All that are stored, by name; files that are none are passed over."""
    return [preset for _, preset in _stored()]


def _stored() -> Iterator[tuple[pathlib.Path, SievePreset]]:
    for path in sorted(folder().glob("*.json")) if folder().is_dir() else []:
        with contextlib.suppress(Trouble):
            yield path, read(path)
