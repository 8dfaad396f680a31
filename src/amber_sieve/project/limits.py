"""Limit the size of a file's raw JSON: a list that is too long is told before its items are looked
at one by one.
"""

from __future__ import annotations

import functools
from typing import Any, get_args

from annotated_types import MaxLen
from pydantic import BaseModel


def _models_in(annotation: Any) -> type[BaseModel] | None:
    """The model that stands in an annotation, be it inside a tuple or beside None."""
    if isinstance(annotation, type) and issubclass(annotation, BaseModel):
        return annotation
    return next(
        (found for part in get_args(annotation) if (found := _models_in(part)) is not None), None
    )


@functools.cache
def _lists_of(model: type[BaseModel]) -> tuple[tuple[str, int | None, type[BaseModel] | None], ...]:
    """The fields of a model that hold a list with a limit, or models: name, most items, and which
    model.
    """
    found = []
    for name, field in model.model_fields.items():
        most = next((one.max_length for one in field.metadata if isinstance(one, MaxLen)), None)
        inner = _models_in(field.annotation)
        if most is not None or inner is not None:
            found.append((name, most, inner))
    return tuple(found)


def excess_in(model: type[BaseModel], held: Any, place: str = "") -> str:
    """Return what is too long in an object that is to become a model, as «place: at most n
    …»; "" when nothing is.
    """
    if not isinstance(held, dict):
        return ""
    for name, most, inner in _lists_of(model):
        value, there = held.get(name), f"{place}.{name}" if place else name
        if isinstance(value, (list, tuple)) and most is not None and len(value) > most:
            return f"{there}: at most {most} are possible, it has {len(value)}"
        if inner is None:
            continue
        for number, item in enumerate(value if isinstance(value, (list, tuple)) else [value]):
            words = excess_in(
                inner, item, f"{there}.{number}" if isinstance(value, (list, tuple)) else there
            )
            if words:
                return words
    return ""
