"""Specks, holes, growing and shrinking by distance."""

from __future__ import annotations

import math

import cv2
import numpy as np

from .box import copied
from .pieces import Pieces, Places, pieces_of

#: A pixel with at least this much belongs to the mask for questions of shape.
HALF = 0.5
#: What is less than that.
UNDER_HALF = float(np.nextafter(np.float32(HALF), np.float32(0)))
#: A pixel with more than this is masked at all.
ANYTHING = 1 / 255

#: A piece longer than this many sides of a square of its most pixels is a strand, not a speck; so
#: no piece has to be followed farther.
LONGEST = 4.0
#: What is less than this is faint: it stays beside what is more. Of 0.15, 0.3 and 0.4, tried on the
#: 18 outlines of the demo and on its noisy clip, 0.3 leaves the least beside the outlines (error
#: 0.1320, 0.1314, 0.1315; strays on frame 46 of the clip 498, 26, 12 pixels).
FAINT = 0.3
#: A small piece is a strand when it is at least this many pixels long.
STRAND = 6
#: And its square on its length holds this many times its pixels.
THIN = 3.0
#: Rows whose distances are worked out at a time.
NEAR_ROWS = 2048


def longest_of(size: float) -> float:
    """Return how long, in pixels, a speck or hole of at most ``size`` pixels can be."""
    return LONGEST * math.sqrt(max(size, 0.0))


def _small(pieces: Pieces, most: float, spared: Places) -> np.ndarray:
    """Return which pieces have at most ``most`` pixels and hold none of some places, (P,) bool."""
    small: np.ndarray = (
        (pieces.sizes <= most) & (pieces.longest <= longest_of(most)) & ~pieces.holding(spared)
    )
    return small


def _with(
    mask: np.ndarray, pieces: Pieces, which: np.ndarray, value: float, over: bool
) -> np.ndarray:
    """The mask with a value where some of its pieces lie; itself where there are none, or where
    that may be written ``over`` it.
    """
    if not which.any():
        return mask
    out = mask if over else copied(mask)
    pieces.write(which, value, out)
    return out


def without_specks(
    mask: np.ndarray, size: float, spared: Places = (), near: float = 0.0, over: bool = False
) -> np.ndarray:
    """The mask without specks: pieces (8-neighbours, anything masked at all) of at most ``size``
    pixels, no longer than `longest_of`.

    Pieces that hold one of the ``spared`` places (x, y in pixels) stay, and so do strands within
    ``near`` pixels of a piece that is no
    speck: unmixing its outline will tell whether they belong to it. ``over``: the mask is
        written over.
    """
    pieces = pieces_of(mask, ANYTHING, corners=True)
    small = _small(pieces, size, spared)
    strands = (
        small
        & (pieces.longest >= STRAND)
        & (pieces.sizes * THIN <= pieces.longest.astype(float) ** 2)
    )
    if near > 0 and strands.any():
        small &= ~_near_ones(pieces, strands, ~small, near)
    return _with(mask, pieces, small, 0, over)


def _near_ones(pieces: Pieces, strands: np.ndarray, large: np.ndarray, near: float) -> np.ndarray:
    """Return which strands come within some distance of a large piece; some rows at a time, since a
    distance takes as much memory as the mask.
    """
    found, (height, width), lap = (
        np.zeros(large.size, np.bool_),
        pieces.shape,
        int(1.06 * near) + 2,
    )  # the distance is up to 5 % too short
    for top in range(0, height, NEAR_ROWS):
        first, last = max(0, top - lap), min(height, top + NEAR_ROWS + lap)
        beside = np.ones((last - first, width), np.uint8)
        pieces.write(large, 0, beside, first)
        away = cv2.distanceTransform(beside, cv2.DIST_L2, cv2.DIST_MASK_3)
        pieces.within(strands, away[top - first : top - first + NEAR_ROWS], near, found, top)
    return found


def without_crumbs(mask: np.ndarray, size: float, spared: Places = ()) -> np.ndarray:
    """The mask without what noise leaves beside a thing: pixels with nothing near them but pieces
    of at most ``size`` pixels.

    Pieces (8-neighbours) are counted of what is more than ``FAINT``; fainter pixels stay beside
    what stays.
    """
    pieces = pieces_of(mask, FAINT, corners=True)
    stays = np.zeros(mask.shape, np.uint8)
    pieces.write(~_small(pieces, size, spared), 1, stays)
    near = cv2.dilate(stays, np.ones((5, 5), np.uint8))
    out = np.zeros_like(mask)
    np.copyto(out, mask, where=near > 0)
    return out


def without_holes(
    mask: np.ndarray, size: float, every: bool = False, spared: Places = (), over: bool = False
) -> np.ndarray:
    """The mask with holes (4-neighbours, less than half masked) of at most ``size`` pixels filled;
    with ``every``, all holes.

    What touches the border of the picture is not a hole; holes that hold one of the ``spared``
    places stay.
    ``over``: the mask is written over.
    """
    pieces = pieces_of(mask, UNDER_HALF, corners=False, below=True)
    holes = _small(pieces, np.inf if every else size, spared) & ~pieces.at_border
    return _with(mask, pieces, holes, 1, over)


def grown(mask: np.ndarray, radius: float) -> np.ndarray:
    """The mask grown (``radius`` > 0) or shrunk (< 0) by Euclidean distance, so that corners come
    out round.

    Parameters
    ----------
    radius : pixels, fractions too. At integer radii, what counts fully after growing is binary
        dilation with a disc, and what counts at all after shrinking is binary erosion with a disc.
    """
    if radius == 0 or not mask.size:
        return mask
    inside = mask >= HALF
    if inside.all() or not inside.any():
        return mask
    if radius > 0:
        away = cv2.distanceTransform((~inside).astype(np.uint8), cv2.DIST_L2, cv2.DIST_MASK_PRECISE)
        return np.maximum(mask, np.clip(np.float32(radius + 1) - away, 0, 1))
    deep = cv2.distanceTransform(inside.astype(np.uint8), cv2.DIST_L2, cv2.DIST_MASK_PRECISE)
    return np.minimum(mask, np.clip(deep + np.float32(radius), 0, 1))
