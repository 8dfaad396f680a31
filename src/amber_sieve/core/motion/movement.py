"""Motion from one frame to the next: all of it, pixel by pixel, or what lies inside an outline.

Pixel by pixel it is dense optical flow by inverse search (T. Kroeger, R. Timofte, D. Dai, L. Van
Gool, "Fast optical flow using dense inverse search", 2016). Inside an outline, features of J. Shi
and C. Tomasi ("Good features to track", 1994) are followed by the pyramidal method of Lucas and
Kanade (J.-Y. Bouguet, 2000) there and back again; those that come back fit a motion by RANSAC (M.
A. Fischler, R. C. Bolles, 1981). All through OpenCV.
"""

from __future__ import annotations

from dataclasses import dataclass

import cv2
import numpy as np

from ...names import Moves

#: Features looked for: more say nothing new about five numbers.
FEATURES = 240
#: How clear the faintest is beside the clearest.
CLEAR = 0.01
#: Their least distance, pixels.
APART = 4
#: How far off a feature may come back when it is tracked backwards, pixels.
BACK = 0.7
#: How far off the motion a feature may be, pixels.
OFF = 1.5
#: Standard deviation of the blur that takes the noise away, pixels.
CALM = 1.2
#: How far round a small thing it is looked for, pixels.
LEAST_ROOM = 24
#: How far round a large one.
MOST_ROOM = 96
#: What a place at the far end of that loses against one that has not moved, in correlation.
FARNESS = 0.3
#: The rim goes so far in, as a share of how large the thing is.
RIM = 0.14
#: And this many pixels out.
BESIDE = 5
#: What is painted on a thing slides past its outline by at most this share of it from frame to
#: frame.
SLIDES = 0.03
#: The background moves at least this many pixels otherwise.
LIKE = 0.3
#: Less than this the rest of a picture does not move, pixels.
LEAST_STEP = 0.1
#: Share of its features that must fit.
FITTING = 0.3
#: Flow is found on frames reduced to about this many pixels.
FLOW_ON = 250_000
#: Sides of those have at least this many pixels, and the shorter this share of the longer: OpenCV's
#: flow ends the process on thin strips of fewer.
LEAST_SIDE, NARROWEST = 32, 24
#: Features that a motion needs.
NEEDED = {"position": 3, "position, size and rotation": 5, "perspective": 8}


def to_grey8(planes: np.ndarray) -> np.ndarray:
    """Levels (H, W) uint8 of a frame, in which equal steps look about equal."""
    return np.rint(255 * np.sqrt(np.clip(planes.mean(axis=0), 0, 1))).astype(np.uint8)


def flow_between(one: np.ndarray, other: np.ndarray) -> np.ndarray:
    """Return where each pixel of a frame lies in another one, as steps (H, W, 2)."""
    height, width = one.shape
    share = min(1.0, (FLOW_ON / (height * width)) ** 0.5)
    least = max(LEAST_SIDE, round(max(width, height) * share) // NARROWEST)
    size = (max(least, round(width * share)), max(least, round(height * share)))
    small = [cv2.resize(levels, size, interpolation=cv2.INTER_AREA) for levels in (one, other)]
    found = cv2.DISOpticalFlow.create(cv2.DISOPTICAL_FLOW_PRESET_FAST).calc(
        small[0], small[1], None
    )
    return cv2.resize(found, (width, height), interpolation=cv2.INTER_LINEAR) * np.array(
        [width / size[0], height / size[1]], np.float32
    )


def along(mask: np.ndarray, flow: np.ndarray) -> np.ndarray:
    """A mask of another frame brought to the one that ``flow`` starts from."""
    rows, columns = np.mgrid[0 : mask.shape[0], 0 : mask.shape[1]].astype(np.float32)
    return cv2.remap(
        mask,
        columns + flow[..., 0],
        rows + flow[..., 1],
        cv2.INTER_LINEAR,
        borderMode=cv2.BORDER_REPLICATE,
    )


@dataclass(frozen=True)
class FollowedThing:
    """A thing that is followed, as it looks in one frame.

    Attributes
    ----------
    levels : (h, w) uint8, its surroundings.
    inside, rim, around : (h, w) uint8, above 0 where it is, along its outline, and beside it.
    corner : x, y of the surroundings in the frame.
    box : left, top, right, bottom of the inside, in the surroundings.
    """

    levels: np.ndarray
    inside: np.ndarray
    rim: np.ndarray
    around: np.ndarray
    corner: tuple[int, int]
    box: tuple[int, int, int, int]


def seen_in(levels: np.ndarray, inside: np.ndarray) -> FollowedThing | None:
    """Return the thing inside an outline of a frame (H, W), with room to look for it; None where
    nothing does.
    """
    rows, columns = np.flatnonzero(inside.any(axis=1)), np.flatnonzero(inside.any(axis=0))
    if not rows.size:
        return None
    size = max(int(rows[-1] - rows[0]), int(columns[-1] - columns[0])) + 1
    room = int(min(max(size, LEAST_ROOM), MOST_ROOM))
    top, left = max(0, int(rows[0]) - room), max(0, int(columns[0]) - room)
    part = np.s_[top : int(rows[-1]) + room + 1, left : int(columns[-1]) + room + 1]
    box = (
        int(columns[0]) - left,
        int(rows[0]) - top,
        int(columns[-1]) + 1 - left,
        int(rows[-1]) + 1 - top,
    )
    here = (inside[part] > 0).astype(np.uint8)
    away, deep = (
        cv2.distanceTransform(one, cv2.DIST_L2, cv2.DIST_MASK_3) for one in (1 - here, here)
    )
    rim = (away <= BESIDE) & (deep <= max(4.0, RIM * size))
    around = (away > BESIDE) & (away <= BESIDE + room // 2)
    return FollowedThing(
        _calm(levels[part]), here, rim.astype(np.uint8), around.astype(np.uint8), (left, top), box
    )


def _calm(levels: np.ndarray) -> np.ndarray:
    return cv2.GaussianBlur(levels, (0, 0), CALM)


def moved_by(x: float, y: float) -> np.ndarray:
    """A plain step as a matrix (3, 3)."""
    return np.array([[1, 0, x], [0, 1, y], [0, 0, 1]], np.float64)


def moved_places(places: np.ndarray, matrix: np.ndarray) -> np.ndarray:
    """Places (N, 2) moved by a matrix (3, 3)."""
    moved = np.column_stack([places, np.ones(len(places))]) @ matrix.T
    out: np.ndarray = moved[:, :2] / moved[:, 2:]
    return out


def peak(before: float, here: float, after: float) -> float:
    """Return where a parabola through three neighbours is highest, from the middle one."""
    bend = before - 2 * here + after
    return float(np.clip(0.5 * (before - after) / bend, -0.5, 0.5)) if bend < 0 else 0.0


def motion_of_rest(one: np.ndarray, other: np.ndarray, inside: np.ndarray) -> np.ndarray | None:
    """Return how all but what lies inside an outline, (H, W) above 0, has moved from a frame (H, W)
    uint8 to another, as a matrix (3, 3); None where that cannot be told.
    """
    height, width = one.shape
    size = (
        max(1, width // 2),
        max(1, height // 2),
    )  # half as large tells it as well, in a quarter of the time
    small = [cv2.resize(levels, size, interpolation=cv2.INTER_AREA) for levels in (one, other)]
    away = cv2.distanceTransform(
        (cv2.resize(inside, size) == 0).astype(np.uint8), cv2.DIST_L2, cv2.DIST_MASK_3
    )
    found = _by_features(
        _calm(small[0]),
        _calm(small[1]),
        (away > BESIDE).astype(np.uint8),
        "position, size and rotation",
    )
    if found is None or found[1] < FITTING:
        return None
    scale = np.diag([size[0] / width, size[1] / height, 1.0])
    return np.linalg.inv(scale) @ found[0] @ scale


def _as_before(seen: FollowedThing, other: np.ndarray, matrix: np.ndarray) -> np.ndarray:
    """A frame as it would look from where the thing was seen, were this its motion."""
    height, width = seen.levels.shape
    way = matrix @ moved_by(*seen.corner)
    flags = cv2.INTER_LINEAR | cv2.WARP_INVERSE_MAP
    return _calm(
        cv2.warpPerspective(
            other, way, (width, height), flags=flags, borderMode=cv2.BORDER_REPLICATE
        )
    )


def _shifted(seen: FollowedThing, there: np.ndarray) -> tuple[int, int]:
    """By how many pixels the thing lies elsewhere, by normalised cross-correlation; of two places
    alike the nearer one is meant.
    """
    left, top, right, bottom = seen.box
    score = cv2.matchTemplate(there, seen.levels[top:bottom, left:right], cv2.TM_CCOEFF_NORMED)
    down, across = np.ogrid[0 : score.shape[0], 0 : score.shape[1]]
    away = ((across - left) ** 2 + (down - top) ** 2) / float(max(seen.levels.shape)) ** 2
    row, column = np.unravel_index(
        int((np.nan_to_num(score, nan=-1.0) - FARNESS * away).argmax()), score.shape
    )
    return int(column) - left, int(row) - top


def motion(
    seen: FollowedThing, other: np.ndarray, moves: Moves, guess: np.ndarray | None = None
) -> tuple[np.ndarray, float] | None:
    """The motion of a thing from the frame it was seen in to another.

    Parameters
    ----------
    other : (H, W) uint8, levels of the other frame.
    guess : a matrix (3, 3) that the motion may be near, else it is looked for where it was.

    Returns
    -------
    A matrix (3, 3) for homogeneous pixel places, and a confidence: the share of features that fit;
    or None when too few do.
    """
    matrix = np.eye(3) if guess is None else guess
    matrix = matrix @ moved_by(*_shifted(seen, _as_before(seen, other, matrix)))
    there = _as_before(seen, other, matrix)
    left, top, right, bottom = seen.box
    held, now = seen.levels[top:bottom, left:right], there[top:bottom, left:right]
    # Light that grows or fades over all of it is no motion.
    gain = float(held.std()) / max(float(now.std()), 1.0)
    there = np.clip(
        np.rint((there - float(now.mean())) * min(max(gain, 0.3), 3.0) + float(held.mean())), 0, 255
    ).astype(np.uint8)
    found = _by_features(seen.levels, there, seen.inside, moves)
    if found is None:
        return None
    rest, confidence, _ = found
    rim = _by_features(seen.levels, there, seen.rim, moves)
    if (
        rim is not None
        and rim[2] >= 2 * NEEDED[moves]
        and _is_outline(
            seen, rest, rim[0], _by_features(seen.levels, there, seen.around, "position")
        )
    ):
        rest = rim[0]
    to_frame = moved_by(*seen.corner)
    return matrix @ to_frame @ rest @ np.linalg.inv(to_frame), confidence


def _by_features(
    one: np.ndarray, other: np.ndarray, where: np.ndarray, moves: Moves
) -> tuple[np.ndarray, float, int] | None:
    """The motion of the features somewhere in a picture, the share of them that fits it, and their
    number; None when too few do.
    """
    points = cv2.goodFeaturesToTrack(one, FEATURES, CLEAR, APART, mask=where)
    if points is None:
        return None
    after, found, _ = cv2.calcOpticalFlowPyrLK(
        one, other, points, None, winSize=(15, 15), maxLevel=2
    )
    back, again, _ = cv2.calcOpticalFlowPyrLK(other, one, after, None, winSize=(15, 15), maxLevel=2)
    good = (
        (found[:, 0] > 0)
        & (again[:, 0] > 0)
        & (np.abs(back - points).reshape(-1, 2).max(axis=1) < BACK)
    )
    fitted = _fitted(points[good].reshape(-1, 2), after[good].reshape(-1, 2), moves)
    return None if fitted is None else (fitted[0], fitted[1] / len(points), fitted[1])


def _is_outline(
    seen: FollowedThing,
    inner: np.ndarray,
    rim: np.ndarray,
    around: tuple[np.ndarray, float, int] | None,
) -> bool:
    """Return whether what moves along an outline is that of the thing.

    What is painted on a thing that turns slides past its outline; the outline itself says where it
    is. But where an outline was drawn beside the thing, what lies along it is the background, and
    moves with that.
    """
    left, top, right, bottom = seen.box
    middle = np.array([(left + right) / 2, (top + bottom) / 2, 1.0])

    def step(matrix: np.ndarray) -> np.ndarray:
        place = matrix @ middle
        moved: np.ndarray = place[:2] / place[2] - middle[:2]
        return moved

    apart = float(np.linalg.norm(step(rim) - step(inner)))
    if apart > SLIDES * max(right - left, bottom - top):
        return False
    return around is None or float(np.linalg.norm(step(rim) - step(around[0]))) > 2 * apart + LIKE


def _fitted(before: np.ndarray, after: np.ndarray, moves: Moves) -> tuple[np.ndarray, int] | None:
    """The motion (3, 3) that takes places (N, 2) to others, and how many it fits; None when there
    are too few.
    """
    if len(before) < NEEDED[moves]:
        return None
    if moves == "position":
        steps = after - before
        fits = np.linalg.norm(steps - np.median(steps, axis=0), axis=1) < OFF
        return moved_by(*(steps[fits].mean(axis=0) if fits.any() else (0.0, 0.0))), int(fits.sum())
    if moves == "perspective":
        held, mask = cv2.findHomography(before, after, cv2.RANSAC, OFF)
        return None if held is None else (held, int(mask.sum()))
    held, mask = cv2.estimateAffinePartial2D(
        before, after, method=cv2.RANSAC, ransacReprojThreshold=OFF
    )
    return None if held is None else (np.vstack([held, [0, 0, 1]]), int(mask.sum()))
