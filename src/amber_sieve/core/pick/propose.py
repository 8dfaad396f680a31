"""Propose the settings of an added sample: its tolerance, and whether it reaches everywhere or only
the piece at its place.

Ours. Good is what changes at the click, bad is what changes elsewhere. The rules and their
constants were found by search on the objects of path-traced pictures, clicked by a robot
(docs/formulas.md has the figures).
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass

import numpy as np

from ..components import labelled
from .growing import flood_thresholds
from .pieces import labels_at, window_at

#: Least tolerance looked at, hundredths of Oklab.
LOWEST = 1.5
#: Largest tolerance looked at.
HIGHEST = 8.0
#: Steps between them.
STEP = 0.5
#: Growth of a piece is measured this many steps to either side.
EITHER_SIDE = 2
#: Pixels newly taken elsewhere may be this many for each one taken at the click.
ELSEWHERE = 1.0
#: And those of them in pieces too small to be told from noise this many.
SPECKLED = 0.3
#: Everywhere must take this share of the piece that holds still at the click; else here only.
ENOUGH = 0.7
#: No added piece may be larger than this share of the mask so far.
LARGEST = 0.3
#: No piece taken out may be larger than this share of it.
LARGEST_OUT = 0.25
#: A cut is dense when more than this share of what it removes lies within 1 of the dividing line.
DENSE = 0.25
#: A stray that is dropped everywhere may take this share of the pieces that hold what was kept;
#: else it goes here only.
SPARED = 0.1
#: A piece smaller than this is too small for its growth to be told from noise, pixels.
SMALLEST = 9

Place = tuple[float, float]


@dataclass(frozen=True)
class Proposal:
    """Settings proposed for a sample: its tolerance, and whether it reaches only the piece at its
    place.
    """

    tolerance: float
    here: bool


@dataclass(frozen=True)
class _Still:
    """The tolerance at which the piece at a place holds still, and its pixels there."""

    tolerance: float
    size: float


def _still_piece(
    distance: np.ndarray,
    domain: np.ndarray,
    place: Place,
    largest: float,
    without: Sequence[Place] = (),
) -> _Still:
    """Return where the piece of a domain that holds a place grows least for its size, no larger
    than ``largest`` and holding none of some places.
    """
    height, width = distance.shape
    without = [
        (x, y) for x, y in without if 0 <= x < width and 0 <= y < height
    ]  # a sample may lie outside this picture
    tolerances = np.arange(LOWEST - STEP, HIGHEST + EITHER_SIDE * STEP + STEP / 2, STEP)
    levels = flood_thresholds(distance, domain, *window_at(*place), tolerances)
    sizes = np.cumsum(
        np.bincount(levels.ravel(), minlength=len(tolerances))[: len(tolerances)]
    ).astype(np.float64)
    sizes[min((int(levels[int(y), int(x)]) for x, y in without), default=len(tolerances)) :] = (
        np.inf
    )
    middle = sizes[EITHER_SIDE:-EITHER_SIDE]
    with np.errstate(invalid="ignore"):
        growth = (sizes[2 * EITHER_SIDE :] - sizes[: -2 * EITHER_SIDE]) / np.maximum(
            middle, SMALLEST
        )
    inner = tolerances[EITHER_SIDE:-EITHER_SIDE]
    allowed = middle <= largest
    # Smaller tolerances are preferred by the square root: a piece that is too large is harder to
    # mend.
    growth = np.where(allowed, growth * np.sqrt(inner), np.inf)
    best = int(np.argmin(growth)) if allowed.any() else 0
    return _Still(float(inner[best]), float(middle[best]))


def propose_here(
    distance: np.ndarray, masked: np.ndarray, place: Place, keep: bool, kept: Sequence[Place] = ()
) -> Proposal:
    """The tolerance of a sample that is to reach only the piece at its place; the parameters are
    those of the other proposals.
    """
    largest = (LARGEST if keep else LARGEST_OUT) * float(masked.sum())
    return Proposal(
        _still_piece(
            distance, ~masked if keep else masked, place, largest or np.inf, () if keep else kept
        ).tolerance,
        True,
    )


def propose_keep(
    distance: np.ndarray,
    masked: np.ndarray,
    place: Place,
    falloff: float = 1.0,
    again: bool = False,
) -> Proposal:
    """The tolerance and reach of a keep sample that is added to a mask.

    Parameters
    ----------
    distance : (H, W) float32, of every pixel from the new sample, hundredths of Oklab.
    masked : (H, W) bool, the mask so far.
    place : x, y of the click in pixels of the mask.
    falloff : of the new sample.
    again : the place lies in a piece that was dropped here only: the last word wins there, and only
        there.
    """
    outside, largest = ~masked, LARGEST * float(masked.sum())
    still = _still_piece(distance, outside, place, largest)
    if again:
        return Proposal(still.tolerance, True)
    tolerances = np.arange(LOWEST, min(still.tolerance, HIGHEST) + STEP / 4, STEP)
    halves = tolerances + falloff / 2  # where the mask passes half
    levels = flood_thresholds(distance, outside, *window_at(*place), halves)
    for k in reversed(range(len(tolerances))):
        here = int(np.count_nonzero(levels <= k))
        if here < ENOUGH * still.size:
            break
        taken = (distance <= halves[k]) & outside
        if (
            here <= largest
            and int(np.count_nonzero(taken)) - here <= ELSEWHERE * here
            and _specks(taken) <= SPECKLED * here
        ):
            return Proposal(float(tolerances[k]), False)
    return Proposal(still.tolerance, True)


def _specks(taken: np.ndarray) -> int:
    """Return how many pixels of a region lie in pieces too small to be told from noise."""
    sizes = np.bincount(labelled(taken, corners=False).ravel())[1:]
    return int(sizes[sizes < SMALLEST].sum())


def _takes_what_was_kept(
    removed: np.ndarray, masked: np.ndarray, place: Place, kept: Sequence[Place]
) -> bool:
    """Return whether a drop on a piece of the mask in which nothing was kept would take too much of
    those in which something was.
    """
    labels = labelled(masked, corners=False)
    own = {label for at in kept for label in labels_at(labels, *at)}
    if not own or own & set(labels_at(labels, *place)):
        return False
    pieces = np.isin(labels, list(own))
    return int(np.count_nonzero(removed & pieces)) > SPARED * int(np.count_nonzero(pieces))


def propose_drop(
    distance: np.ndarray,
    nearest: np.ndarray,
    masked: np.ndarray,
    place: Place,
    kept: Sequence[Place],
    steady: Callable[[], float],
) -> Proposal:
    """The tolerance and reach of a drop sample that competes.

    Parameters
    ----------
    distance : (H, W) float32, of every pixel from the new sample; ``nearest``: from the nearest
        keep sample that reaches everywhere.
    masked : (H, W) bool, the mask so far.
    kept : places of the keep samples, which its piece must not hold.
    steady : says the tolerance of the sample by itself, for when it reaches everywhere.
    """
    removed = masked & (distance < nearest)
    if _takes_what_was_kept(removed, masked, place, kept):
        return Proposal(
            _still_piece(
                distance, removed, place, LARGEST_OUT * float(masked.sum()), kept
            ).tolerance,
            True,
        )
    through = masked & (np.abs(distance - nearest) < 1)
    if int(through.sum()) <= DENSE * max(1, int(removed.sum())):
        return Proposal(steady(), False)
    return Proposal(
        _still_piece(distance, removed, place, LARGEST_OUT * float(masked.sum()), kept).tolerance,
        True,
    )
