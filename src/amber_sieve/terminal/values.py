"""Words of the command line into values; each says in one sentence what is wrong with a word."""

from __future__ import annotations

import argparse
import math
import pathlib
import re
from collections.abc import Callable
from typing import Any

from pydantic import ValidationError

from ..names import AREA_KINDS, AREA_MODES, BOXED, REACHES
from ..project import storage
from ..project.controls import settings, words_of
from ..project.fields import Spec, kind_of, spec_of

#: Places lie within this many pixels of the picture's corner.
FARTHEST = 1e6
#: Frames have fewer digits than would ever be counted.
LAST_FRAME = 10_000_000


def finite(text: str, low: float = -FARTHEST, high: float = FARTHEST) -> float:
    """A number that lies in a range; "nan" and "inf" do not."""
    try:
        value = float(text)
    except ValueError:
        raise argparse.ArgumentTypeError(f"{text[:60]} is not a number") from None
    if not (math.isfinite(value) and low <= value <= high):
        raise argparse.ArgumentTypeError(f"{text[:60]} does not lie between {low:g} and {high:g}")
    return value


def many(text: str) -> list[float]:
    """Numbers with commas between them."""
    return [finite(part) for part in text.split(",")]


def point(text: str) -> tuple[float, float]:
    """X,Y in full-resolution pixels."""
    values = many(text)
    if len(values) != 2:
        raise argparse.ArgumentTypeError(f"{text[:60]} should be two numbers, X,Y")
    return values[0], values[1]


def place_of_pixel(text: str) -> tuple[int, int]:
    """X,Y of a pixel, from the top left, none below 0."""
    x, y = (int(at) for at in point(text))
    if min(x, y) < 0:
        raise argparse.ArgumentTypeError(f"{text} lies beside the picture")
    return x, y


def place(text: str) -> tuple[float, float, str | None]:
    """X,Y of a click, and its reach when one is named: X,Y,here or X,Y,everywhere."""
    where, _, reach = text.rpartition(",")
    if reach not in REACHES:
        return *point(text), None
    return *point(where), reach


class ClickInOrder(argparse.Action):
    """Keeps and drops together in the order in which they are typed: each proposes for itself what
    it finds on those before it.
    """

    def __call__(
        self, _: object, held: argparse.Namespace, value: Any, flag: str | None = None
    ) -> None:
        held.clicks = [*held.clicks, ((flag or "").lstrip("-"), *value)]


def number_of(spec: Spec, auto: bool = False) -> Callable[[str], float | str]:
    """A number in the range of a field of the model, for argparse; "auto" where it can be found on
    the picture.
    """

    def number(text: str) -> float | str:
        return text if (auto or spec.auto) and text == "auto" else finite(text, spec.low, spec.high)

    return number


def whole(low: int, high: int) -> Callable[[str], int]:
    """A whole number in a range, for argparse."""

    def number(text: str) -> int:
        value = finite(text, low, high)
        if value != int(value):
            raise argparse.ArgumentTypeError(f"{text[:60]} is not a whole number")
        return int(value)

    return number


def frames(text: str) -> tuple[int, int]:
    """A-B, or a single frame."""
    first, _, last = text.partition("-")
    count = whole(0, LAST_FRAME)
    return count(first), count(last or first)


def four(text: str) -> tuple[float, ...]:
    """A,B,C,D: the corners of a band."""
    values = [finite(part, -1e4, 1e4) for part in text.split(",")]
    if len(values) != 4 or values != sorted(values):
        raise argparse.ArgumentTypeError(f"{text[:60]} should be four rising numbers, A,B,C,D")
    return tuple(values)


def area(text: str) -> dict[str, object]:
    """MODE:KIND:NUMBERS, as in «intersect:ellipse:X,Y,W,H»."""
    parts = text.split(":")
    if len(parts) != 3:
        raise argparse.ArgumentTypeError(
            f"{text[:60]} should read MODE:KIND:NUMBERS, for example intersect:rect:10,10,400,300"
        )
    mode, kind, values = parts[0], parts[1], many(parts[2])
    if mode not in AREA_MODES:
        raise argparse.ArgumentTypeError(
            f"{mode[:60]} is no mode: areas add, subtract or intersect"
        )
    if kind not in AREA_KINDS or kind == "brush":
        raise argparse.ArgumentTypeError(
            f"{kind[:60]} is no shape: use rect, ellipse, radial, polygon or gradient"
        )
    needs = 4 if kind in BOXED or kind == "gradient" else None
    if (needs and len(values) != needs) or (not needs and (len(values) < 6 or len(values) % 2)):
        raise argparse.ArgumentTypeError(
            f"{kind} takes {needs or 'an even number (six or more) of'} numbers, {len(values)} "
            "were given"
        )
    points = tuple(zip(values[::2], values[1::2], strict=True))
    if kind in BOXED:
        x, y, width, height = values
        middle = (x + width / 2, y + height / 2)
        points = (middle, (x + width, middle[1]), (middle[0], y + height))
    return {"mode": mode, "kind": kind, "points": points}


def colour(text: str) -> tuple[float, float, float]:
    """#RRGGBB, or levels R,G,B, as linear light."""
    import numpy as np

    from ..core.colour.transfer import decode

    parts = (
        [str(int(text[k : k + 2], 16)) for k in (1, 3, 5)]
        if re.fullmatch("#[0-9a-fA-F]{6}", text)
        else text.split(",")
    )
    levels = [finite(part, -1e4, 1e4) for part in parts]
    if len(levels) != 3:
        raise argparse.ArgumentTypeError(
            f"{text[:60]} is no colour: write #RRGGBB, or three levels R,G,B"
        )
    red, green, blue = (float(v) for v in decode(np.array(levels) / 255))
    return red, green, blue


def light(text: str) -> str | tuple[float, ...]:
    """auto, off, or the gains R,G,B of the light."""
    if text in ("auto", "off"):
        return text
    gains = [finite(part, 0.01, 100) for part in text.split(",")]
    if len(gains) != 3:
        raise argparse.ArgumentTypeError(
            f"{text[:60]} is no light: write auto, off, or gains R,G,B of 0.01 to 100"
        )
    return tuple(gains)


def points(text: str) -> tuple[tuple[float, float], ...]:
    """X:Y,X:Y,…: the points of a curve."""
    pairs = [part.split(":") for part in text.split(",")] if text else []
    if any(len(pair) != 2 for pair in pairs):
        raise argparse.ArgumentTypeError(
            f"{text[:60]} should be points X:Y with commas between them"
        )
    return tuple((finite(x), finite(y)) for x, y in pairs)


def _value(text: str, name: str) -> object:
    """The value of a setting of an adjustment, by what it is."""
    _, kind, field = settings()[name]
    form = kind_of(field)
    if not form:
        spec = spec_of(kind, name)
        return finite(text, spec.low, spec.high)
    if form in ("curve", "hues"):
        return points(text)
    if form == "colour":
        return colour(text)
    if form == "path":
        return str(pathlib.Path(text).absolute())
    words = words_of(field) if form == "words" else ("on", "off")
    if text not in words:
        raise argparse.ArgumentTypeError(f"{text[:60]} is none of {', '.join(words)}")
    return text == "on" if form == "switch" else text


def setting(text: str) -> tuple[str, object]:
    """NAME=VALUE of an adjustment, as `controls` lists them; returns the way to its field, and the
    value.
    """
    name, _, value = text.partition("=")
    if name not in settings():
        raise argparse.ArgumentTypeError(
            f"{name[:60]} is no adjustment: `amber-sieve controls` lists them"
        )
    path, kind, _ = settings()[name]
    found = _value(value, name)
    try:
        kind.model_validate({name: found})
    except ValidationError as error:
        raise argparse.ArgumentTypeError(
            f"{value[:60]} does not fit ({storage.first_complaint(error)})"
        ) from None
    return path, found
