"""Every number of a project by name, and every other setting of an adjustment: what the terminal
lists, and `docs/controls.md` shows.
"""

from __future__ import annotations

import functools
from collections.abc import Iterator
from typing import get_args

from pydantic import BaseModel
from pydantic.fields import FieldInfo

from ..language import translator
from .fields import KINDS, Spec, bounds_of, kind_of, numbers_of, spec_at, spec_of
from .model import Adjust, Adjustment, Area, Edge, Pick, Sample, Sieve, Stroke

translate = translator("model")


def blocks() -> Iterator[tuple[str, type[Adjustment]]]:
    """The blocks of adjustments by the names of their fields."""
    for name, field in Adjust.model_fields.items():
        kind = field.annotation
        if isinstance(kind, type) and issubclass(kind, Adjustment):
            yield name, kind


def left_out_of_cdl(sieve: Sieve) -> list[str]:
    """Labels of the adjustments of a sieve that its CDL does not carry."""
    return [
        translate(kind.label)
        for name, kind in blocks()
        if name != "cdl" and not getattr(sieve.adjust, name).neutral
    ]


def settings() -> dict[str, tuple[str, type[Adjustment], FieldInfo]]:
    """Everything that can be set of all adjustments: name, the way to the field from a sieve, its
    model, and the field.
    """
    return {
        name: (f"adjust.{block}.{name}", kind, field)
        for block, kind in blocks()
        for name, field in kind.model_fields.items()
        if bounds_of(field) or kind_of(field)
    }


def words_of(field: FieldInfo) -> tuple[str, ...]:
    """The words that a field may be."""
    return tuple(str(word) for word in get_args(field.annotation))


def _row(group: str, spec: Spec) -> str:
    unit = f" {spec.unit}" if spec.unit else ""
    auto = ", or auto" if spec.auto else ""
    start = "auto" if spec.from_auto else f"{spec.start:g}"
    return (
        f"| {group} | {spec.name} | {spec.low:g} to {spec.high:g}{unit}{auto} | {start} | "
        f"{spec.help} |"
    )


def _other_row(name: str, field: FieldInfo) -> str:
    kind = kind_of(field)
    values = ", ".join(words_of(field)) if kind == "words" else KINDS[kind]
    start = (
        field.default
        if kind == "words"
        else "off"
        if kind == "switch"
        else "none"
        if field.default in ((), None, "")
        else "grey"
    )
    return f"| adjust | {name} | {values} | {start} | {field.description} |"


def table() -> str:
    """All of them as a table in Markdown."""
    groups: dict[str, type[BaseModel]] = {
        "sample": Sample,
        "pick": Pick,
        "edge": Edge,
        "area": Area,
        "brush": Stroke,
        "sieve": Sieve,
    }
    lines = ["| of | name | range | start | what it does |", "|---|---|---|---|---|"]
    lines += [_row(group, spec) for group, model in groups.items() for spec in numbers_of(model)]
    for name, (_, kind, field) in settings().items():
        lines.append(
            _row("adjust", spec_of(kind, name)) if bounds_of(field) else _other_row(name, field)
        )
    return "\n".join(lines)


#: The pages of a surface, in the order of work; "areas" has what is seen of a mask as a whole.
PAGES = ("pick", "bands", "edge", "areas", "adjust")


@functools.cache
def paths() -> dict[str, tuple[str, ...]]:
    """By page, where its numbers stand in a sieve, as in "adjust.light.exposure"."""
    return {
        "pick": tuple(f"pick.{spec.name}" for spec in numbers_of(Pick)),
        "bands": ("bands.ramp.black", "bands.ramp.white"),
        "edge": tuple(f"edge.{spec.name}" for spec in numbers_of(Edge)),
        "areas": ("strength", "outside"),
        "adjust": tuple(
            f"adjust.{block}.{spec.name}" for block, kind in blocks() for spec in numbers_of(kind)
        ),
    }


@functools.cache
def specs() -> dict[str, Spec]:
    """Return the specs of all numbers that have an address, by path."""
    return {path: spec_at(Sieve, path) for page in PAGES for path in paths()[page]}


def address_of(path: str) -> str:
    """The address of a number.

    Example
    -------
    >>> address_of("adjust.light.exposure")
    '/sieve/adjust/light/exposure'
    """
    return "/sieve/" + path.replace(".", "/")


def path_of(address: str) -> tuple[str, str]:
    """The path of the number that an address stands for, and what is done to it ("" sets it); ("",
    "") where there is none.

    Example
    -------
    >>> path_of("/sieve/adjust/light/exposure/by")
    ('adjust.light.exposure', 'by')
    """
    words = address.removeprefix("/sieve/")
    if words == address or "." in words:
        return "", ""
    path, _, last = words.rpartition("/")
    if last in ("by", "touch", "reset") and path.replace("/", ".") in specs():
        return path.replace("/", "."), last
    return (words.replace("/", "."), "") if words.replace("/", ".") in specs() else ("", "")
