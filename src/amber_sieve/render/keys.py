"""Cache keys of masks: everything a mask depends on, by value."""

from __future__ import annotations

from collections.abc import Hashable
from dataclasses import dataclass

from ..project.model import Area, Bands, Edge, Pick, Sieve


@dataclass(frozen=True)
class PickedKey:
    """Cache key of a mask before its edge is worked on, besides the frame."""

    pick: Pick
    bands: Bands
    invert: bool
    clean: float | str
    level: float | str


@dataclass(frozen=True)
class MaskKey:
    """Cache key of a finished mask; ``around`` are the picks of the frames around, for Steady."""

    frame: Hashable
    picked: PickedKey
    edge: Edge
    areas: tuple[Area, ...]
    around: tuple[Pick | None, ...]


@dataclass(frozen=True)
class JoinedMaskKey:
    """Cache key of a finished mask that may lean on those of other sieves: the frame, what is
    measured, the mask's own settings, the others'.
    """

    frame: Hashable
    seen: Hashable
    value: tuple[object, ...]
    others: tuple[tuple[object, ...], ...]


def picked_key(sieve: Sieve) -> PickedKey:
    """Return what the mask before the edge depends on besides the frame."""
    return PickedKey(sieve.pick, sieve.bands, sieve.invert, sieve.edge.clean, sieve.edge.level)
