"""Sieves as text, to be copied and pasted between pictures and windows."""

from __future__ import annotations

from pydantic import Field, ValidationError

from ..errors import Trouble
from ..language import translator
from .model import VERSION, Frozen, Sieve

translate = translator("project")


#: Characters of a text that is looked at for sieves, at most.
LONGEST = 20_000_000


class Clipping(Frozen):
    """Some sieves of a project, in their order."""

    amber_sieve: int = Field(default=VERSION, description="version of the file format they are in")
    sieves: tuple[Sieve, ...] = Field(min_length=1, max_length=256)


def text_of(sieves: tuple[Sieve, ...]) -> str:
    """Sieves as JSON text for the clipboard, read back by `sieves_in`."""
    return Clipping(sieves=sieves).model_dump_json(indent=1)


def sieves_in(text: str) -> tuple[Sieve, ...]:
    """The sieves that a text holds.

    Raises
    ------
    Trouble: it holds none.
    """
    try:
        if len(text) > LONGEST:
            raise ValueError("far more than sieves take")
        held = Clipping.model_validate_json(text)
    except (ValidationError, ValueError, RecursionError):
        raise Trouble(translate("The clipboard holds no sieve: copy one first.")) from None
    if held.amber_sieve > VERSION:
        raise Trouble(
            translate(
                "The clipboard holds a sieve of a newer version of Amber Sieve: update the "
                "program to paste it.",
            )
        )
    return held.sieves
