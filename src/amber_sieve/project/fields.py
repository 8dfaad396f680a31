"""Numbers of the model: label, unit, range, step and help stand here once, and pages, terminal,
schema and docs read them.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, get_args

from pydantic import BaseModel, Field
from pydantic.fields import FieldInfo

from ..language import translator

translate = translator("model")


@dataclass(frozen=True, kw_only=True)
class Spec:
    """The spec of a number.

    Attributes
    ----------
    low, high : what may be typed; soft_low, soft_high : what a drag covers, where that is less.
    step : what an arrow key changes it by; decimals : how it is shown.
    auto : whether "auto" may stand in its place; from_auto : whether it starts so (``start`` is
        then the number that changes nothing).
    """

    name: str
    label: str
    start: float
    low: float
    high: float
    soft_low: float
    soft_high: float
    unit: str = ""
    step: float = 1.0
    decimals: int = 0
    help: str = ""
    auto: bool = False
    from_auto: bool = False


def plain_spec(name: str, label: str, start: float, low: float, high: float, **more: Any) -> Spec:
    """A number that stands in no model; a drag covers all of it unless ``soft_low`` and
    ``soft_high`` say otherwise.
    """
    return Spec(
        **{
            "name": name,
            "label": label,
            "start": start,
            "low": low,
            "high": high,
            "soft_low": low,
            "soft_high": high,
            **more,
        }
    )


def number(
    start: float | str,
    low: float,
    high: float,
    label: str,
    unit: str = "",
    *,
    step: float = 1.0,
    decimals: int = 0,
    help: str = "",
    soft: tuple[float, float] | None = None,
) -> Any:
    """A field of a model that is a number; a field typed ``Amount`` may also be "auto".

    ``soft`` is the range a drag covers, where that is less than what may be typed.
    """
    soft_low, soft_high = soft or (low, high)
    shown: dict[str, Any] = {
        "low": low,
        "high": high,
        "unit": unit,
        "step": step,
        "decimals": decimals,
        "soft_low": soft_low,
        "soft_high": soft_high,
    }
    return Field(
        default=start if isinstance(start, str) else float(start),
        title=label,
        description=help or label,
        json_schema_extra={"number": shown, "minimum": low, "maximum": high},
    )


#: What a setting that is no number is, and how it is written in a terminal.
KINDS = {
    "curve": "X:Y,X:Y,… of 0 to 1",
    "hues": "HUE:VALUE,HUE:VALUE,… in degrees",
    "colour": "#RRGGBB, or levels R,G,B",
    "words": "one of its words",
    "switch": "on or off",
    "path": "a file",
}


def title_of(field: FieldInfo) -> str:
    """Return the title of a field, in the language that is spoken; "" where it has no title."""
    return translate(field.title) if field.title else ""


def help_of(field: FieldInfo) -> str:
    """Return the help of a field, in the language that is spoken."""
    return translate(field.description) if field.description else ""


def setting(default: object, kind: str, label: str, help: str) -> Any:
    """A field of an adjustment that is no number, of one of ``KINDS``."""
    return Field(default=default, title=label, description=help, json_schema_extra={"kind": kind})


def kind_of(field: FieldInfo) -> str:
    """Return which of ``KINDS`` a field is; "" for a number, or what is no setting."""
    extra = field.json_schema_extra
    return str(extra.get("kind", "")) if isinstance(extra, dict) else ""


def bounds_of(field: FieldInfo) -> tuple[float, float] | None:
    """The range of a number field, None for any other field."""
    shown = _shown(field)
    return (shown["low"], shown["high"]) if shown else None


def unit_of(shown: dict[str, Any]) -> str:
    """Return the unit of a number; words are in the language that is spoken, signs as they are."""
    unit = str(shown["unit"])
    return translate(unit) if len(unit) > 2 else unit


def _shown(field: FieldInfo) -> dict[str, Any]:
    """Return the notes of `number` on a field; nothing of any other field."""
    extra = field.json_schema_extra
    noted: Any = extra.get("number", {}) if isinstance(extra, dict) else {}
    return dict(noted)


def spec_of(model: type[BaseModel], name: str) -> Spec:
    """Return the spec of a number field.

    Raises
    ------
    KeyError: the model has no such number.
    """
    field = model.model_fields[name]
    shown = _shown(field)
    if not shown:
        raise KeyError(f"{model.__name__}.{name} is not a number")
    auto = any("auto" in get_args(part) for part in get_args(field.annotation))
    start = field.default if isinstance(field.default, (int, float)) else shown["low"]
    from_auto = field.default == "auto"
    return Spec(
        name=name,
        label=title_of(field) or name,
        start=float(start),
        help=help_of(field),
        auto=auto,
        from_auto=from_auto,
        **{**shown, "unit": unit_of(shown)},
    )


def numbers_of(model: type[BaseModel]) -> list[Spec]:
    """All number fields of a model, in order."""
    return [
        spec_of(model, name)
        for name, field in model.model_fields.items()
        if bounds_of(field) is not None
    ]


def _model_at(model: type[BaseModel], path: str) -> tuple[type[BaseModel], str]:
    """The model and the name that the last part of a way through models stands for, as in
    "edge.follow".
    """
    *way, name = path.split(".")
    for part in way:
        inner = model.model_fields[part].annotation
        assert isinstance(inner, type) and issubclass(inner, BaseModel)
        model = inner
    return model, name


def spec_at(model: type[BaseModel], path: str) -> Spec:
    """Return the spec of a number, by its path from a model."""
    return spec_of(*_model_at(model, path))


def field_at(model: type[BaseModel], path: str) -> FieldInfo:
    """A field, by its way from a model."""
    inner, name = _model_at(model, path)
    return inner.model_fields[name]
