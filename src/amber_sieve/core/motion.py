"""How a picture moves from one frame to the next: all of it, pixel by pixel, or what lies inside an outline.

Pixel by pixel it is dense optical flow by inverse search (T. Kroeger, R. Timofte, D. Dai, L. Van Gool, "Fast optical flow using dense inverse
search", 2016). Inside an outline,
features of J. Shi and C. Tomasi ("Good features to track", 1994) are followed by the pyramidal method of Lucas and Kanade (J.-Y. Bouguet,
2000) there and back again; those that come back fit a motion by RANSAC (M. A. Fischler, R. C. Bolles, 1981). All through OpenCV.
"""

from __future__ import annotations

from typing import Literal, get_args

import cv2
import numpy as np

#: What the motion may be made of.
Moves = Literal["position", "position, size and rotation", "perspective"]
MOVES: tuple[Moves, ...] = get_args(Moves)
#: Features looked for, their least distance in pixels, how far off a feature may come back, and how far off the motion may be.
FEATURES, APART, BACK, OFF = 240, 4, 0.7, 1.5
#: Flow is found on frames reduced to about so many pixels.
PIXELS = 250_000
#: Features that a motion needs.
NEEDED = {"position": 3, "position, size and rotation": 5, "perspective": 8}


def levels_of(planes: np.ndarray) -> np.ndarray:
    """Levels (H, W) uint8 of a frame, in which equal steps look about equal."""
    return np.rint(255 * np.sqrt(np.clip(planes.mean(axis=0), 0, 1))).astype(np.uint8)


def flow_between(one: np.ndarray, other: np.ndarray) -> np.ndarray:
    """Where each pixel of a frame lies in another one, as steps (H, W, 2)."""
    height, width = one.shape
    share = min(1.0, (PIXELS / (height * width)) ** 0.5)
    size = (max(16, round(width * share)), max(16, round(height * share)))
    small = [cv2.resize(levels, size, interpolation=cv2.INTER_AREA) for levels in (one, other)]
    found = cv2.DISOpticalFlow.create(cv2.DISOPTICAL_FLOW_PRESET_FAST).calc(small[0], small[1], None)
    return cv2.resize(found, (width, height), interpolation=cv2.INTER_LINEAR) * np.array([width / size[0], height / size[1]], np.float32)


def along(mask: np.ndarray, flow: np.ndarray) -> np.ndarray:
    """A mask of another frame brought to the one that ``flow`` starts from."""
    rows, columns = np.mgrid[0 : mask.shape[0], 0 : mask.shape[1]].astype(np.float32)
    return cv2.remap(mask, columns + flow[..., 0], rows + flow[..., 1], cv2.INTER_LINEAR, borderMode=cv2.BORDER_REPLICATE)


def motion(one: np.ndarray, other: np.ndarray, inside: np.ndarray, moves: Moves) -> tuple[np.ndarray, float] | None:
    """The motion from one frame to another.

    Parameters
    ----------
    one, other : (H, W) uint8 levels; inside : (H, W) uint8, above 0 where features count.

    Returns
    -------
    A matrix (3, 3) for homogeneous pixel places, and a confidence: the share of features that fit; or None when too few do.
    """
    points = cv2.goodFeaturesToTrack(one, FEATURES, 0.005, APART, mask=inside)
    if points is None:
        return None
    there, found, _ = cv2.calcOpticalFlowPyrLK(one, other, points, None, winSize=(21, 21), maxLevel=4)
    back, again, _ = cv2.calcOpticalFlowPyrLK(other, one, there, None, winSize=(21, 21), maxLevel=4)
    good = (found[:, 0] > 0) & (again[:, 0] > 0) & (np.abs(back - points).reshape(-1, 2).max(axis=1) < BACK)
    before, after = points[good].reshape(-1, 2), there[good].reshape(-1, 2)
    if len(before) < NEEDED[moves]:
        return None
    if moves == "position":
        shift = np.median(after - before, axis=0)
        fits = np.linalg.norm(after - before - shift, axis=1) < OFF
        matrix = np.array(
            [
                [1, 0, (after - before)[fits][:, 0].mean() if fits.any() else 0],
                [0, 1, (after - before)[fits][:, 1].mean() if fits.any() else 0],
                [0, 0, 1],
            ]
        )
    elif moves == "perspective":
        held, mask = cv2.findHomography(before, after, cv2.RANSAC, OFF)
        if held is None:
            return None
        matrix, fits = held, mask[:, 0] > 0
    else:
        held, mask = cv2.estimateAffinePartial2D(before, after, method=cv2.RANSAC, ransacReprojThreshold=OFF)
        if held is None:
            return None
        matrix, fits = np.vstack([held, [0, 0, 1]]), mask[:, 0] > 0
    return matrix, float(fits.sum()) / len(points)
