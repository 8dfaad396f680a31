"""Presets: a saved pick, bands and edge, as open JSON files."""

from __future__ import annotations

import json
import pathlib
from typing import Literal

from pydantic import Field, ValidationError

from ..errors import Trouble
from ..language import translator
from .model import Band, Bands, Colour, Edge, Frozen, Pick
from .storage import (
    edge_from_version_1,
    edge_from_version_2,
    first_complaint,
    pick_from_version_2,
    read_json,
)
from .store import LONGEST_NAME, Store

translate = translator("project")


class Preset(Frozen):
    """A named start for other pictures."""

    version: Literal[3] = 3
    name: str = Field(min_length=1, max_length=LONGEST_NAME)
    swatch: Colour = Field(description="linear light, for showing")
    pick: Pick = Pick()
    bands: Bands = Bands()
    edge: Edge = Edge()


Corners = tuple[float, float, float, float]


def _bands(hue: Corners | None, saturation: Corners | None, luminance: Corners | None) -> Bands:
    """Bands from corners; None leaves a band off."""
    given = {"hue": hue, "saturation": saturation, "luminance": luminance}
    return Bands().but(
        **{name: Band(on=True, corners=corners) for name, corners in given.items() if corners}
    )


#: What ships with the program. The corners were set on made-up pictures and hold the patches of a
#: colour chart as the tests say.
SHIPPED = (
    Preset(
        name=translate("Skin tones"),
        swatch=(0.55, 0.30, 0.21),
        bands=_bands((22, 32, 56, 62), (14, 20, 48, 56), (10, 22, 90, 98)),
    ),
    Preset(
        name=translate("Skies"),
        swatch=(0.13, 0.22, 0.52),
        bands=_bands((220, 236, 259, 264), (8, 14, 62, 70), (25, 38, 95, 100)),
    ),
    Preset(
        name=translate("Foliage"),
        swatch=(0.09, 0.16, 0.03),
        bands=_bands((108, 116, 146, 152), (20, 30, 100, 110), (5, 14, 75, 85)),
    ),
    Preset(
        name=translate("Neutrals"),
        swatch=(0.21, 0.21, 0.21),
        bands=_bands(None, (0, 0, 5, 9), None),
    ),
    Preset(
        name=translate("Warm"),
        swatch=(0.62, 0.20, 0.04),
        bands=_bands((320, 345, 465, 475), (4, 12, 125, 125), None),
    ),
    Preset(
        name=translate("Cool"),
        swatch=(0.04, 0.20, 0.55),
        bands=_bands((160, 180, 300, 315), (4, 12, 125, 125), None),
    ),
    Preset(
        name=translate("Shadows"),
        swatch=(0.02, 0.02, 0.02),
        bands=_bands(None, None, (0, 0, 25, 42)),
    ),
    Preset(
        name=translate("Midtones"),
        swatch=(0.18, 0.18, 0.18),
        bands=_bands(None, None, (25, 42, 58, 75)),
    ),
    Preset(
        name=translate("Highlights"),
        swatch=(0.80, 0.80, 0.80),
        bands=_bands(None, None, (58, 75, 100, 100)),
    ),
)


def read(path: pathlib.Path) -> Preset:
    """A preset from a file.

    Raises
    ------
    Trouble: not a preset.
    """
    held = read_json(path, translate("a preset"))
    try:
        if held.get("version", 1) == 1:
            held = held | {"version": 2, "edge": edge_from_version_1(held.get("edge", {}))}
        if held["version"] == 2:
            old = {
                "edge": edge_from_version_2(held.get("edge", {})),
                "pick": pick_from_version_2(held.get("pick", {})),
            }
            held = held | {"version": 3} | old
        return Preset.model_validate_json(json.dumps(held))
    except (AttributeError, TypeError, RecursionError):
        raise Trouble(
            translate(
                "{path} is not a preset of Amber Sieve: its fields are not what they should be. "
                "Choose another file.",
                path=path,
            )
        ) from None
    except ValidationError as error:
        raise Trouble(
            translate(
                "{path} is not a preset of Amber Sieve ({complaint}): choose another file.",
                path=path,
                complaint=first_complaint(error),
            )
        ) from None


#: A person's own.
STORE = Store("", read)
