"""The connected pieces of a mask, taken out or kept by place."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import cv2
import numpy as np

from ..components import components_of, labelled

#: A pixel belongs to an island when at least this much of it is masked.
MEMBER = 0.1


@dataclass(frozen=True)
class Island:
    """One connected piece: a place on it (x, y in pixels of the mask), its pixels, its box (left,
    top, width, height).
    """

    x: float
    y: float
    area: int
    box: tuple[int, int, int, int]


def islands_of(mask: np.ndarray, most: int = 200) -> list[Island]:
    """The pieces of a mask, the largest first, at most ``most`` of them."""
    pieces = components_of(mask >= MEMBER)
    found = []
    for label in pieces.largest(most):
        left, top, width, height = (int(v) for v in pieces.boxes[label - 1])
        inside = pieces.labels[top : top + height, left : left + width] == label
        # The deepest pixel: the place that stays on the island longest when the tolerance changes.
        deep = cv2.distanceTransform(
            np.pad(inside, 1).astype(np.uint8), cv2.DIST_L2, cv2.DIST_MASK_3
        )[1:-1, 1:-1]
        row, column = np.unravel_index(int(deep.argmax()), deep.shape)
        found.append(
            Island(
                left + float(column),
                top + float(row),
                int(pieces.areas[label - 1]),
                (left, top, width, height),
            )
        )
    return found


def _labels_at(labels: np.ndarray, places: Sequence[tuple[float, float, float]]) -> set[int]:
    """The piece at or nearest to each place (x, y, radius it may lie away)."""
    height, width = labels.shape
    found = set()
    for x, y, radius in places:
        reach = max(1, int(np.ceil(radius)))
        left, top = max(0, int(x) - reach), max(0, int(y) - reach)
        part = labels[top : min(height, int(y) + reach + 1), left : min(width, int(x) + reach + 1)]
        rows, columns = np.nonzero(part)
        if len(rows):
            apart = (rows + top - y) ** 2 + (columns + left - x) ** 2
            if apart.min() <= radius**2 + 2:
                found.add(int(part[rows[apart.argmin()], columns[apart.argmin()]]))
    return found


def without_islands(
    mask: np.ndarray,
    out: Sequence[tuple[float, float, float]],
    only: Sequence[tuple[float, float, float]] = (),
) -> np.ndarray:
    """The mask without the islands at some places, or with only those at others.

    Parameters
    ----------
    out, only : places as x, y, and how far the island may have moved away from there, in pixels of
        the mask. With ``only``, every other island goes; an empty ``only`` keeps all.
    """
    if not out and not only:
        return mask
    labels = labelled(mask >= MEMBER)
    keep = np.ones(labels.max() + 1, bool)
    if only:
        keep[:] = False
        keep[list(_labels_at(labels, only))] = True
    keep[list(_labels_at(labels, out))] = False
    keep[0] = True
    rest = np.where(keep[labels], mask, np.float32(0))
    # Faint pixels round an island that went go with it.
    gone = ~keep[labels]
    if gone.any():
        near = cv2.dilate(gone.astype(np.uint8), np.ones((3, 3), np.uint8), iterations=2) > 0
        rest[near & (labels == 0)] = 0
    return rest
