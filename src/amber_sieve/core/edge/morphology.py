"""Specks, holes, growing and shrinking by distance."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence

import cv2
import numpy as np

from ..parallel import kernel, prange, serial_kernel
from .box import box_of

#: A pixel with at least this much belongs to the mask for questions of shape.
HALF = 0.5


#: A piece longer than so many sides of a square of its most pixels is a strand, not a speck; so no piece has to be followed farther.
LONGEST = 4.0
#: What is less than this is faint: it stays beside what is more. Of 0.15, 0.3 and 0.4, tried on the 18 outlines of the demo and on its noisy clip,
#: 0.3 leaves the least beside the outlines (error 0.1320, 0.1314, 0.1315; strays on frame 46 of the clip 498, 26, 12 pixels).
FAINT = 0.3
#: A small piece is a strand when it is at least so many pixels long.
STRAND = 6
#: And its square on its length holds so many times its pixels.
THIN = 3.0
#: Rows whose distances are worked out at a time.
NEAR_ROWS = 2048

#: Masks of more pixels than this are labelled some rows at a time: labels take as much memory as the mask.
LARGE = 150_000_000
#: Rows of such a part, without what is looked at round it.
LARGE_ROWS = 5000

Places = Sequence[tuple[float, float]]


def longest_of(size: float) -> float:
    """How long, in pixels, a speck or hole of at most ``size`` pixels can be."""
    return LONGEST * math.sqrt(max(size, 0.0))


def _small(inside: np.ndarray, most: float, connectivity: int, spared: Places) -> tuple[np.ndarray, ...]:
    """Labels, which of them have at most ``most`` pixels and hold none of some places, which touch the border, and OpenCV's counts."""
    _, labels, stats, _ = cv2.connectedComponentsWithStats(inside.view(np.uint8), connectivity=connectivity)
    left, top, width, height = stats[:, 0], stats[:, 1], stats[:, 2], stats[:, 3]
    small = (stats[:, cv2.CC_STAT_AREA] <= most) & (np.maximum(width, height) <= longest_of(most))
    border = (left == 0) | (top == 0) | (left + width == inside.shape[1]) | (top + height == inside.shape[0])
    small[0] = False
    for x, y in spared:
        if 0 <= x < inside.shape[1] and 0 <= y < inside.shape[0]:
            small[labels[int(y), int(x)]] = False
    return labels, small, border, stats


def without_specks(mask: np.ndarray, size: float, spared: Places = (), near: float = 0.0) -> np.ndarray:
    """The mask without specks: pieces (8-neighbours, anything masked at all) of at most ``size`` pixels, no longer than `longest_of`.

    Pieces that hold one of the ``spared`` places (x, y in pixels) stay, and so do strands within ``near`` pixels of a piece that is no
    speck: whoever unmixes its outline will tell whether they belong to it.
    """
    box = box_of(mask, 1 / 255, 0)
    if box is None:
        return mask.copy()
    # No speck is longer than that, and no large piece that comes near one may look small for being cut off.
    lap = 2 * math.ceil(longest_of(size)) + int(1.06 * near) + 4
    specks = _by_rows(mask[box], lap, _shifted(spared, box), lambda part, there: _specks(part, size, there, near))
    out = mask.copy()  # after the labels are gone, which take as much memory
    np.copyto(out[box], 0, where=specks)
    return out


def _by_rows(mask: np.ndarray, lap: int, spared: Places, find: Callable[[np.ndarray, Places], np.ndarray]) -> np.ndarray:
    """What is found of a mask, (H, W) bool; where that is large, of some rows at a time with ``lap`` more round them."""
    height = len(mask)
    if mask.size <= LARGE:
        return find(mask, spared)
    out = np.empty(mask.shape, np.bool_)
    for top in range(0, height, LARGE_ROWS):
        first, bottom = max(0, top - lap), min(height, top + LARGE_ROWS)
        found = find(mask[first : min(height, bottom + lap)], [(x, y - first) for x, y in spared])
        out[top:bottom] = found[top - first : bottom - first]
    return out


def _specks(mask: np.ndarray, size: float, spared: Places, near: float) -> np.ndarray:
    """Which pixels lie in a speck, (H, W) bool."""
    labels, small, _, stats = _small(mask > 1 / 255, size, 8, spared)
    longer = np.maximum(stats[:, cv2.CC_STAT_WIDTH], stats[:, cv2.CC_STAT_HEIGHT])
    strands = small & (longer >= STRAND) & (stats[:, cv2.CC_STAT_AREA] * THIN <= longer.astype(float) ** 2)
    if near > 0 and strands.any():
        _keep_near_ones(labels, strands, near, small)
    return _those_of(labels, small)


def _those_of(labels: np.ndarray, which: np.ndarray) -> np.ndarray:
    """Which pixels have one of some labels, (H, W) bool."""
    out = np.empty(labels.shape, np.bool_)
    _mark(labels, which, out)
    return out


def _keep_near_ones(labels: np.ndarray, strands: np.ndarray, near: float, small: np.ndarray) -> None:
    """Take from ``small`` the strands that come within some distance of a piece that is not small; some rows at a time, since a distance
    takes as much memory as the mask."""
    large, lap = ~small & (np.arange(len(small)) > 0), int(1.06 * near) + 2  # the distance is up to 5 % too short
    for top in range(0, len(labels), NEAR_ROWS):
        first, last = max(0, top - lap), min(len(labels), top + NEAR_ROWS + lap)
        beside = ~_those_of(labels[first:last], large)
        away = cv2.distanceTransform(beside.view(np.uint8), cv2.DIST_L2, cv2.DIST_MASK_3)
        inner = slice(top - first, top - first + NEAR_ROWS)
        _keep_near(labels[first:last][inner], strands, away[inner], float(near), small)


def without_crumbs(mask: np.ndarray, size: float, spared: Places = ()) -> np.ndarray:
    """The mask without what noise leaves beside a thing: pixels with nothing near them but pieces of at most ``size`` pixels.

    Pieces (8-neighbours) are counted of what is more than ``FAINT``; fainter pixels stay beside what stays.
    """
    out = np.zeros_like(mask)
    box = box_of(mask, FAINT, 2)
    if box is None:
        return out
    mask, out_there = mask[box], out[box]
    labels, small, *_ = _small(mask > FAINT, size, 8, _shifted(spared, box))
    stays = _those_of(labels, ~small & (np.arange(len(small)) > 0))
    near = cv2.dilate(stays.view(np.uint8), np.ones((5, 5), np.uint8))
    np.copyto(out_there, mask, where=near > 0)
    return out


def without_holes(mask: np.ndarray, size: float, every: bool = False, spared: Places = ()) -> np.ndarray:
    """The mask with holes (4-neighbours, less than half masked) of at most ``size`` pixels filled; with ``every``, all holes.

    What touches the border of the picture is not a hole; holes that hold one of the ``spared`` places stay.
    """
    # Round what is masked runs a line that is not: what hangs together with it is no hole, wherever the picture ends.
    box = box_of(mask, np.nextafter(np.float32(HALF), np.float32(0)), 1)
    if box is None:
        return mask.copy()
    if every:
        holes = _holes(mask[box], np.inf, _shifted(spared, box))
    else:  # what is cut off is none, as at the border of the picture: where it is looked for, no small hole is
        lap = math.ceil(longest_of(size)) + 2
        holes = _by_rows(mask[box], lap, _shifted(spared, box), lambda part, there: _holes(part, size, there))
    out = mask.copy()
    np.copyto(out[box], 1, where=holes)
    return out


def _holes(mask: np.ndarray, size: float, spared: Places) -> np.ndarray:
    """Which pixels lie in a hole, (H, W) bool."""
    labels, small, border, _ = _small(mask < HALF, size, 4, spared)
    return _those_of(labels, small & ~border)


def _shifted(places: Places, box: tuple[slice, slice]) -> Places:
    """Places as seen from the corner of a box."""
    return [(x - box[1].start, y - box[0].start) for x, y in places]


@kernel
def _mark(labels: np.ndarray, which: np.ndarray, out: np.ndarray) -> None:
    """Say of every pixel whether it has one of some labels."""
    for y in prange(labels.shape[0]):
        row, label = out[y], labels[y]
        for x in range(row.size):
            row[x] = which[label[x]]


@serial_kernel
def _keep_near(labels: np.ndarray, strands: np.ndarray, away: np.ndarray, near: float, small: np.ndarray) -> None:
    """Take from ``small`` the labels of strands that come within some distance."""
    for y in range(labels.shape[0]):
        label, row = labels[y], away[y]
        for x in range(label.size):
            if strands[label[x]] and row[x] <= near:
                small[label[x]] = False


def grown(mask: np.ndarray, radius: float) -> np.ndarray:
    """The mask grown (``radius`` > 0) or shrunk (< 0) by Euclidean distance, so that corners come out round.

    Parameters
    ----------
    radius : pixels, fractions too. At integer radii, what counts fully after growing is binary dilation with a disc, and what
        counts at all after shrinking is binary erosion with a disc.
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
