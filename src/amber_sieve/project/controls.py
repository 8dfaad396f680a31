"""Every number of a project by name: what the terminal lists, and the README shows."""

from __future__ import annotations

from pydantic import BaseModel

from .fields import Spec, numbers_of
from .model import Adjust, Area, Edge, Pick, Sample, Sieve, Stroke


def adjustments() -> dict[str, tuple[str, Spec]]:
    """The numbers of all adjustments: name, the way to the field from a sieve, and what is known of it."""
    found: dict[str, tuple[str, Spec]] = {}
    for block, field in Adjust.model_fields.items():
        kind = field.annotation
        assert isinstance(kind, type) and issubclass(kind, BaseModel)
        found |= {spec.name: (f"adjust.{block}.{spec.name}", spec) for spec in numbers_of(kind)}
    return found


def table() -> str:
    """All numbers as a table in Markdown."""
    groups: dict[str, type[BaseModel]] = {"sample": Sample, "pick": Pick, "edge": Edge, "area": Area, "brush": Stroke, "sieve": Sieve}
    rows = [(group, spec) for group, model in groups.items() for spec in numbers_of(model)]
    rows += [("adjust", spec) for _, spec in adjustments().values()]
    lines = ["| of | name | range | start | what it does |", "|---|---|---|---|---|"]
    for group, spec in rows:
        unit = f" {spec.unit}" if spec.unit else ""
        auto = ", or auto" if spec.auto else ""
        lines.append(
            f"| {group} | {spec.name} | {spec.low:g} to {spec.high:g}{unit}{auto} | {'auto' if spec.from_auto else f'{spec.start:g}'} | {spec.help} |"
        )
    return "\n".join(lines)
