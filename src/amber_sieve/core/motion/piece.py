"""A thing followed by the piece of a mask that it is: that says where it is, how large and how it
has turned, also where it has no texture.

The mask is the one that a sieve picks, or where that says nothing, of what has the colours inside
the area. The piece is measured by its moments (M.-K. Hu, "Visual pattern recognition by moment
invariants", 1962). Where it is covered, cut off by the picture's edge or grown together with
another one, its size
jumps: it does not count there, and is waited for.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

import cv2
import numpy as np

from ...names import Moves
from ..colour.oklab import to_oklab
from ..components import components_of
from .movement import moved_by

#: How far round where it should be a piece is looked for, radii of the thing.
ROOM = 1.35
#: How much farther with each frame that it has been away for.
FARTHER = 0.5
#: And how far at most.
FARTHEST = 4.0
#: A piece in the area must fill this much of it.
FILLS = 0.3
#: Next to the area this much may be masked at most.
LEAKS = 0.3
#: Next to it is from and up to these shares of its size.
NEXT_TO = (0.12, 0.4)
#: From this overlap on, laid on each other at one size, a piece has the shape of the area.
ALIKE = 0.8
#: From this share of its convex hull on, a piece is full.
FULL = 0.9
#: A piece is the thing as long as its area is not less than this share of what it was when it was
#: last seen whole.
SMALLEST = 0.7
#: Nor more than this.
LARGEST = 1.4
#: Times that a piece is looked for again, round where it was found.
AGAIN = 3
#: Fewest pixels of a piece.
FEWEST = 12
#: Side of the square that closes the gaps that noise makes, pixels.
CLOSED = 5
#: Of a new size this much is believed at once: noise must not shake the area.
BELIEVED = 0.3
#: From this ratio of its longer to its shorter side on, a piece says how it has turned.
LONG = 1.25
#: Lightness from which the hue of a colour inside an area is sure.
LIGHT = 0.08
#: Least tolerance of these colours, in a/L and b/L.
LEAST_TOLERANCE = 0.05
#: How many times their median distance it is.
TIMES = 2.5
#: Share of the area round its middle that is looked at: people draw areas wider than things.
MIDDLE = 0.7


@dataclass(frozen=True)
class Piece:
    """A piece of a mask: its middle (x, y), the radius of a disc of its area, the way its longer
    side points (radians), how much longer that is, whether the picture's edge cuts it off, and the
    piece itself (h, w) uint8 with the row and column of its corner.
    """

    middle: np.ndarray
    radius: float
    angle: float
    stretch: float
    cut: bool
    mask: np.ndarray
    corner: tuple[int, int]


def _chroma_of(planes: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """a/L and b/L (2, H, W) of linear light, and L (H, W)."""
    lab = to_oklab(np.ascontiguousarray(planes, np.float32))
    return lab[1:] / np.maximum(lab[:1], 0.05), lab[0]


class Colours:
    """The colours inside an area of a frame, however they are lit."""

    def __init__(self, planes: np.ndarray, inside: np.ndarray) -> None:
        chroma, lightness = _chroma_of(planes)
        deep = cv2.distanceTransform(inside, cv2.DIST_L2, cv2.DIST_MASK_3)
        here = (deep > (1 - MIDDLE) * deep.max()) & (lightness > LIGHT)
        here = here if here.any() else inside > 0
        held = chroma[:, here]
        self._body = np.median(held, axis=1)[:, None, None] if held.size else np.zeros((2, 1, 1))
        away = np.linalg.norm(held - self._body[:, :, 0], axis=0)
        self._tolerance = max(LEAST_TOLERANCE, TIMES * float(np.median(away)) if away.size else 0.0)

    def mask(self, planes: np.ndarray) -> np.ndarray:
        """Return the mask of these colours in another frame, (H, W) uint8."""
        chroma, lightness = _chroma_of(planes)
        found: np.ndarray = (np.linalg.norm(chroma - self._body, axis=0) < self._tolerance) & (
            lightness > LIGHT
        )
        return found.astype(np.uint8)


def stands_apart(mask: np.ndarray, inside: np.ndarray) -> bool:
    """Return whether what is masked in an area, both (H, W) uint8, is a piece of its own that the
    area was drawn round.
    """
    size = 2 * np.sqrt(float(np.count_nonzero(inside)) / np.pi)
    if size < 2:
        return False
    away = cv2.distanceTransform(1 - inside, cv2.DIST_L2, cv2.DIST_MASK_5)
    beside = (away > max(2.0, NEXT_TO[0] * size)) & (away <= max(4.0, NEXT_TO[1] * size))
    leaks = float(mask[beside].mean()) if beside.any() else 0.0
    return float(mask[inside > 0].mean()) >= FILLS and leaks <= LEAKS


def piece_near(mask: np.ndarray, middle: np.ndarray, room: float) -> Piece | None:
    """The largest piece of a mask (H, W) uint8 within some room (pixels) of a place (x, y)."""
    height, width = mask.shape
    left, top = (max(0, int(np.floor(at - room))) for at in middle)
    right, bottom = (int(np.ceil(at + room)) + 1 for at in middle)
    part = mask[top:bottom, left:right]
    if min(part.shape) < 2:
        return None
    disc = np.zeros_like(part)
    cv2.circle(
        disc,
        (round(float(middle[0]) - left), round(float(middle[1]) - top)),
        max(1, round(room)),
        1,
        -1,
    )
    closed = cv2.morphologyEx(part * disc, cv2.MORPH_CLOSE, np.ones((CLOSED, CLOSED), np.uint8))
    pieces = components_of(closed)
    if not len(pieces.areas):
        return None
    one = (pieces.labels == pieces.largest(1)[0]).astype(np.uint8)
    outline, _ = cv2.findContours(one, cv2.RETR_EXTERNAL, cv2.CHAIN_APPROX_NONE)
    cv2.drawContours(one, outline, -1, 1, -1)  # its holes are its own
    moments = cv2.moments(one, True)
    if moments["m00"] < FEWEST:
        return None
    place = np.array(
        [left + moments["m10"] / moments["m00"], top + moments["m01"] / moments["m00"]]
    )
    across, down, both = (moments[name] / moments["m00"] for name in ("mu20", "mu02", "mu11"))
    spread = np.hypot(across - down, 2 * both)
    stretch = np.sqrt((across + down + spread) / max(across + down - spread, 1e-6))
    rows, columns = np.flatnonzero(one.any(axis=1)) + top, np.flatnonzero(one.any(axis=0)) + left
    cut = bool(
        rows[0] == 0 or columns[0] == 0 or rows[-1] == height - 1 or columns[-1] == width - 1
    )
    radius, angle = (
        float(np.sqrt(moments["m00"] / np.pi)),
        0.5 * float(np.arctan2(2 * both, across - down)),
    )
    return Piece(place, radius, angle, float(stretch), cut, one, (top, left))


def _likeness(piece: Piece, inside: np.ndarray) -> float:
    """Return how alike the shapes of a piece and of an area (H, W) uint8 are, laid on each other at
    one size: overlap by union.
    """
    moments = cv2.moments(inside, True)
    scale = piece.radius / float(np.sqrt(moments["m00"] / np.pi))
    middle = np.array([moments["m10"], moments["m01"]]) / moments["m00"]
    step = piece.middle - piece.corner[::-1] - scale * middle
    matrix = np.array([[scale, 0, step[0]], [0, scale, step[1]]])
    laid = cv2.warpAffine(inside, matrix, piece.mask.shape[::-1], flags=cv2.INTER_NEAREST) > 0
    here = piece.mask > 0
    return float((laid & here).sum()) / max(float((laid | here).sum()), 1.0)


def _fullness(piece: Piece) -> float:
    """Share of its convex hull that a piece fills."""
    hull = cv2.convexHull(np.argwhere(piece.mask).astype(np.int32))
    return float(cv2.countNonZero(piece.mask) / max(cv2.contourArea(hull), 1.0))


class PieceFollower:
    """Follows a piece from frame to frame.

    Parameters
    ----------
    mask, inside : (H, W) uint8, what is masked in the first frame, and the area drawn there.
    """

    def __init__(self, mask: np.ndarray, inside: np.ndarray) -> None:
        moments = cv2.moments(inside, True)
        middle = np.array([moments["m10"], moments["m01"]]) / max(moments["m00"], 1.0)
        reach = cv2.distanceTransform(1 - inside, cv2.DIST_L2, cv2.DIST_MASK_5)
        size = float(np.sqrt(moments["m00"] / np.pi))
        self.first = piece_near(
            mask * (reach <= NEXT_TO[0] * 2 * size).astype(np.uint8), middle, 3 * size
        )
        #: It is full, or has the shape of the area: all of the thing is masked, not a part of it
        #: that might change.
        self.whole = self.first is not None and (
            _fullness(self.first) >= FULL or _likeness(self.first, inside) >= ALIKE
        )
        self._last, self._step, self._turn = self.first, np.zeros(2), 0.0
        #: For this many frames it has not been seen whole.
        self.away = 0

    def to(self, mask: np.ndarray) -> Piece | None:
        """The thing in the next frame, None where it is not seen whole."""
        last = self._last
        if last is None:
            return None
        guess = last.middle + self._step * (1 + self.away)
        room = last.radius * min(ROOM + FARTHER * self.away, FARTHEST)
        found = self._again(mask, guess, room)
        if found is None and self.away == 0:  # it began to move, or moves otherwise
            found = self._again(mask, last.middle, last.radius * FARTHEST / 2)
        if found is None:
            self.away += 1
            return None
        self._step = (found.middle - last.middle) / (1 + self.away)
        self.away = 0
        smooth = (1 - BELIEVED) * last.radius + BELIEVED * found.radius
        turn = (found.angle - last.angle + np.pi / 2) % np.pi - np.pi / 2
        long = min(found.stretch, last.stretch) >= LONG
        self._turn += turn if long else 0.0
        self._last = replace(found, radius=smooth, angle=found.angle if long else last.angle)
        return found

    def _again(self, mask: np.ndarray, guess: np.ndarray, room: float) -> Piece | None:
        """The piece near a place, looked for again round where it was found; None where it is not
        the thing.
        """
        last = self._last
        assert last is not None
        found = piece_near(mask, guess, room)
        for _ in range(AGAIN):
            if found is None or float(np.abs(found.middle - guess).max()) < 0.5:
                break
            guess = found.middle
            found = piece_near(mask, guess, room)
        if (
            found is None
            or found.cut
            or not SMALLEST <= (found.radius / last.radius) ** 2 <= LARGEST
        ):
            return None
        return found

    def matrix(self, moves: Moves) -> np.ndarray:
        """The motion (3, 3) from the first frame to where it was last seen whole."""
        assert self.first is not None and self._last is not None
        out = moved_by(*-self.first.middle)
        if moves != "position":
            scale = self._last.radius / self.first.radius
            cos, sin = scale * np.cos(self._turn), scale * np.sin(self._turn)
            out = np.array([[cos, -sin, 0], [sin, cos, 0], [0, 0, 1]]) @ out
        return moved_by(*self._last.middle) @ out
