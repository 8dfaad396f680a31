"""Presets of whole sieves: mask and adjustments, with a small picture of what they did, as open
JSON files.
"""

from __future__ import annotations

import base64
import json
import pathlib

from pydantic import Field, ValidationError

from ..errors import Trouble
from ..language import translator
from .model import VERSION, Frozen, Sieve
from .storage import first_complaint, read_json
from .store import LONGEST_NAME, Store, checked_name

translate = translator("project")


class SievePreset(Frozen):
    """A named sieve."""

    amber_sieve: int = Field(default=VERSION, description="version of the file format it is in")
    name: str = Field(min_length=1, max_length=LONGEST_NAME)
    picture: str = Field(
        default="", max_length=200_000, description="what it looked like, PNG as base64"
    )
    sieve: Sieve

    @property
    def png(self) -> bytes:
        """The picture as the bytes of a PNG file; b"" for none."""
        try:
            return base64.b64decode(self.picture, validate=True)
        except ValueError:
            return b""


def preset_of(name: str, sieve: Sieve, png: bytes) -> SievePreset:
    """A preset of a sieve that leans on no other; raises `Trouble` when the name is none."""
    name = checked_name(name)
    return SievePreset(
        name=name, picture=base64.b64encode(png).decode(), sieve=sieve.but(name=name, group="")
    )


def read(path: pathlib.Path) -> SievePreset:
    """A preset from a file; raises `Trouble` when it is none, or of a newer version."""
    held = read_json(path, translate("a preset of a sieve"))
    if isinstance(held.get("amber_sieve"), int) and held["amber_sieve"] > VERSION:
        raise Trouble(
            translate(
                "{path} was made by a newer version of Amber Sieve: update the program to use it.",
                path=path,
            )
        )
    try:
        return SievePreset.model_validate_json(json.dumps(held))
    except ValidationError as error:
        raise Trouble(
            translate(
                "{path} is not a preset of a sieve ({complaint}): choose another file.",
                path=path,
                complaint=first_complaint(error),
            )
        ) from None


#: A person's own.
STORE = Store("sieves", read)
