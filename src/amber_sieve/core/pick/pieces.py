"""Samples that reach only what hangs together with their place: a highlight, a deep fold whose
colour is also the wall's.

Ours. A piece is what lies within a sample's tolerance and falloff and hangs together (4-neighbours)
with its place; a keep piece is looked for where the mask is not yet, a drop piece where it is. So
neither can run on through what was decided before it.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import cv2
import numpy as np

from ..components import labelled
from ..falloff import STEEPEST

#: A pixel with more than this is masked.
HALF = 0.5
#: Pixels round a place on every side in which its piece may begin: a place lies on a pixel, not on
#: a corner of one.
NEAR = 2


@dataclass(frozen=True)
class Reaching:
    """One here-only sample.

    Attributes
    ----------
    distance : (H, W) float32, of every pixel from the sample, in the units of its comparison.
    place : x, y in pixels of the mask.
    keep : adds its piece (True), or takes it out.
    tolerance, falloff : as of any sample.
    rival : (H, W) float32, distance from the keep samples with which a drop sample competes; None
        when it does not.
    """

    distance: np.ndarray
    place: tuple[float, float]
    keep: bool
    tolerance: float
    falloff: float
    rival: np.ndarray | None = None


def depths(where: np.ndarray) -> np.ndarray:
    """Return how far inside a region (H, W) bool every pixel lies, float32, pixels; the picture's
    border counts as an outline.
    """
    padded = cv2.copyMakeBorder(where.astype(np.uint8), 1, 1, 1, 1, cv2.BORDER_CONSTANT, value=0)
    inside: np.ndarray = cv2.distanceTransform(padded, cv2.DIST_L2, cv2.DIST_MASK_5)[1:-1, 1:-1]
    return inside


def deepest(where: np.ndarray) -> tuple[int, int, float]:
    """The place (x, y) deepest inside a region (H, W) bool, and its distance from the outline; the
    picture's border counts as one.

    Example
    -------
    >>> deepest(np.pad(np.ones((3, 5), bool), 2))[:2]
    (3, 3)
    """
    inside = depths(where)
    row, column = np.unravel_index(int(inside.argmax()), inside.shape)
    return int(column), int(row), float(inside[row, column])


def window_at(x: float, y: float) -> tuple[range, range]:
    """Rows and columns in which a piece at a place may begin; they may lie outside the picture."""
    column, row = int(x), int(y)
    return range(row - NEAR, row + NEAR + 1), range(column - NEAR, column + NEAR + 1)


def labels_at(labels: np.ndarray, x: float, y: float) -> list[int]:
    """The numbers of the pieces at a place; none outside the picture or where nothing is."""
    rows, columns = window_at(x, y)
    part = labels[
        max(0, rows.start) : max(0, rows.stop), max(0, columns.start) : max(0, columns.stop)
    ]
    return [int(label) for label in np.unique(part) if label]


def held_by(labels: np.ndarray, wanted: Sequence[int]) -> np.ndarray:
    """Return where (H, W) bool pieces with some numbers lie."""
    if not wanted:
        return np.zeros(labels.shape, bool)
    if len(wanted) == 1:
        return labels == wanted[0]
    return np.isin(labels, wanted)


def piece_at(reaching: Reaching, domain: np.ndarray) -> np.ndarray:
    """The piece of a here-only sample, (H, W) float32 in 0 to 1: full within the tolerance, fading
    over the falloff.
    """
    whole = reaching.tolerance + reaching.falloff
    labels = labelled((reaching.distance <= whole) & domain, corners=False)
    inside = held_by(labels, labels_at(labels, *reaching.place))
    slope = np.float32(1 / max(reaching.falloff, 1 / STEEPEST))
    return np.where(
        inside,
        np.clip(1 - (reaching.distance - np.float32(reaching.tolerance)) * slope, 0, 1),
        np.float32(0),
    )


def with_pieces(mask: np.ndarray, samples: Sequence[Reaching]) -> np.ndarray:
    """The mask with the pieces of here-only samples added or taken out, in their order: the last
    word wins.
    """
    for sample in samples:
        masked = mask > HALF
        if sample.keep:
            mask = np.maximum(mask, piece_at(sample, ~masked))
        else:
            nearer = masked if sample.rival is None else masked & (sample.distance < sample.rival)
            mask = mask * (1 - piece_at(sample, nearer))
    return mask
