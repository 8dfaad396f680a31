"""Values found for a sieve on a frame, beside what a person decided: it is never saved."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any

from pydantic import ConfigDict, InstanceOf

from ..core.adjust.dye import Body, Dye
from ..project.model import Pick, Sieve
from .layers import Table


@dataclass(frozen=True)
class Found:
    """Values that the stages of a sieve need besides its settings.

    Attributes
    ----------
    recolour : the thing's own colour; None while it was not learnt, or nothing is masked.
    match : the dye that brings the mean to the target; None as above.
    even : mean L*, and mean hue in degrees, of the masked pixels; None as above.
    table : what the lookup table's file holds.
    primaries : from the working space to Rec. 709, row by row; None for Rec. 709 itself.
    frame : number of the frame: grain changes from frame to frame.
    around : the pick as it stands on the frames around (None where there is none); empty where it
        is the same.
    """

    recolour: Body | None = None
    match: Dye | None = None
    even: tuple[float, float] | None = None
    table: Table | None = None
    primaries: tuple[float, ...] | None = None
    frame: int = 0
    around: tuple[Pick | None, ...] = ()

    @property
    def means(self) -> dict[str, Any]:
        """Return the means of the masked colours."""
        return {"recolour": self.recolour, "match": self.match, "even": self.even}


NOTHING_FOUND = Found()


class Resolved(Sieve):
    """A sieve as it stands on a frame: amounts as numbers, keyed fields as they are there, and what
    was found.
    """

    model_config = ConfigDict(defer_build=True)  # with the first picture, not with the window

    found: InstanceOf[Found] = NOTHING_FOUND


def found_of(sieve: Sieve) -> Found:
    """Return the values found for a sieve; nothing for one that was not resolved."""
    return sieve.found if isinstance(sieve, Resolved) else NOTHING_FOUND


def with_found(sieve: Sieve, **changes: Any) -> Sieve:
    """The sieve with more found; itself where that is what was found already."""
    found = replace(found_of(sieve), **changes)
    if found == found_of(sieve):
        return sieve
    if isinstance(sieve, Resolved):
        return sieve.but(found=found)
    return Resolved(**{name: getattr(sieve, name) for name in Sieve.model_fields}, found=found)
