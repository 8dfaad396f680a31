"""A stage of a sieve describes itself, once; questions about all stages are loops over the list of
them (`every.py`).
"""

from __future__ import annotations

import math
from typing import Any, ClassVar

from ...language import mid_sentence, translator
from ...project.fields import kind_of, numbers_of, title_of
from ...project.model import Frozen, Sieve

translate = translator("stages")


#: A stage that looks so far must see the whole picture.
WHOLE = math.inf


def changed_in_words(held: Frozen, only: tuple[str, ...] | None = None) -> list[str]:
    """The numbers and settings of a model that are not at their start, with their values; of some
    fields alone where they are named.
    """
    found = []
    for spec in numbers_of(type(held)):
        value = getattr(held, spec.name)
        if (
            (only is None or spec.name in only)
            and value != type(held).model_fields[spec.name].default
            and value != "auto"
        ):
            found.append(
                f"{mid_sentence(spec.label)} {value:g}{' ' + spec.unit if spec.unit else ''}"
            )
    for name, field in type(held).model_fields.items():
        value, kind = getattr(held, name), kind_of(field)
        if kind and value != field.default and (only is None or name in only):
            words = (
                ""
                if kind in ("curve", "hues")
                else translate(" on")
                if kind == "switch"
                else f" {value}"
                if kind in ("words", "path")
                else ""
            )
            found.append(f"{mid_sentence(title_of(field) or name)}{words}")
    return found


class Stage:
    """One stage of mask or adjustment; by default it looks at single pixels and is the same while
    something is dragged.

    Attributes
    ----------
    name : what it is called where it is told about. pointwise : it depends on the colour of a pixel
        alone, so a lookup table can carry it.
    looks_dragged : how far it looks at most while something is dragged, full-resolution pixels.
    """

    name: ClassVar[str] = ""
    pointwise: ClassVar[bool] = False
    support_radius_dragged: ClassVar[float] = WHOLE

    def is_noop(self, sieve: Sieve) -> bool:
        """Return whether it does nothing."""
        raise NotImplementedError

    def without(self, sieve: Sieve) -> Sieve:
        """The sieve with this stage doing nothing."""
        raise NotImplementedError

    def support_radius(self, sieve: Sieve) -> float:
        """Return how far it looks beyond a pixel, full-resolution pixels, or ``WHOLE``."""
        return 0.0

    def while_dragged(self, sieve: Sieve) -> Sieve:
        """Return the sieve for drags and playing: without stages that take too long."""
        return sieve

    def carried(self, sieve: Sieve) -> Sieve:
        """The sieve with what a lookup table can carry of this stage."""
        return sieve if self.pointwise or self.is_noop(sieve) else self.without(sieve)

    def words(self, sieve: Sieve) -> list[str]:
        """Return its effects, in a few words each."""
        return []

    def example(self, sieve: Sieve) -> Sieve:
        """The sieve with this stage having something to do, for set-up to compile."""
        return sieve


def moved_a_little(held: Frozen) -> dict[str, Any]:
    """Every number of a model a quarter of the way to the end of what a drag covers."""
    return {
        spec.name: min(spec.high, spec.start + 0.25 * (spec.soft_high - spec.start))
        for spec in numbers_of(type(held))
    }
