"""A scribbled or boxed place as a few tones."""

from __future__ import annotations

import cv2
import numpy as np

from ..colour.oklab import from_oklab, to_oklab
from .samples import SampleParams, distance_to

#: At most this many tones stand for one place; one for each 0.02 of Oklab they are spread over,
#: which is one just noticeable difference (CSS Color 4). The others were chosen by trial on the
#: yard.
MOST = 6
#: Pixels that are looked at.
TONES_FROM = 6000
#: A place is a mixture when half of its pixels lie farther than this from their mean, by surface:
#: noise and texture stay below it.
MIXED = 5.0


def tones_of(pixels: np.ndarray, most: int = MOST) -> np.ndarray:
    """The main tones of some pixels: cluster means in Oklab (Lloyd's k-means, from OpenCV), largest
    cluster first.

    Parameters
    ----------
    pixels : (3, N) float32 linear light.

    Returns
    -------
    (K, 3) float32 linear light, K <= ``most``; fewer when the pixels are alike.
    """
    every = max(1, pixels.shape[1] // TONES_FROM)
    lab = to_oklab(np.ascontiguousarray(pixels[:, None, ::every], np.float32))[:, 0].T
    spread = float(np.sqrt(lab.var(axis=0).sum()))
    count = int(np.clip(round(spread / 0.02), 1, min(most, len(lab))))
    if count == 1:
        centres = lab.mean(axis=0, keepdims=True)
    else:
        cv2.setRNGSeed(1)
        stop = (cv2.TERM_CRITERIA_EPS | cv2.TERM_CRITERIA_MAX_ITER, 30, 1e-4)
        _, labels, centres = cv2.kmeans(
            np.ascontiguousarray(lab, np.float32), count, None, stop, 3, cv2.KMEANS_PP_CENTERS
        )
        centres = centres[np.argsort(-np.bincount(labels.ravel(), minlength=count))]
    return from_oklab(np.ascontiguousarray(centres.T[:, None], np.float32))[:, 0].T


def mean_at(pixels: np.ndarray, middle: np.ndarray) -> np.ndarray:
    """The colour of a place: the mean of its pixels, of the half that is most like the middle one
    where the place is a mixture.

    The mean of a square that lies across an outline or a thin strand is a colour of neither side.

    Parameters
    ----------
    pixels : (3, N) float32 linear light; middle : (3,), the pixel that was pointed at.
    """
    mean = pixels.mean(axis=1, dtype=np.float64)
    lab = to_oklab(np.ascontiguousarray(np.column_stack([pixels, middle])[:, None], np.float32))
    if np.median(distance_to(lab, [SampleParams(_tuple(mean))])) <= MIXED:
        return mean
    nearest = np.argsort(distance_to(lab, [SampleParams(_tuple(middle))])[0, :-1], kind="stable")
    return pixels[:, nearest[: max(1, pixels.shape[1] // 2)]].mean(axis=1, dtype=np.float64)


def _tuple(colour: np.ndarray) -> tuple[float, float, float]:
    red, green, blue = (float(value) for value in colour)
    return red, green, blue


def stroke_pixels(planes: np.ndarray, points: np.ndarray, width: float) -> np.ndarray:
    """Pixels under a stroke along ``points`` (N, 2) in pixels of ``planes``, (3, M); at least the
    nearest one.
    """
    mask = np.zeros(planes.shape[1:], np.uint8)
    where = np.rint(points).astype(np.int32)
    cv2.polylines(mask, [where.reshape(-1, 1, 2)], False, 1, max(1, round(width)))
    if not mask.any():
        x, y = np.clip(where[0], 0, [planes.shape[2] - 1, planes.shape[1] - 1])
        mask[y, x] = 1
    return planes[:, mask > 0]


def box_pixels(planes: np.ndarray, points: np.ndarray) -> np.ndarray:
    """Pixels of the box between two corners (2, 2), (3, M); at least one."""
    height, width = planes.shape[1:]
    (x0, y0), (x1, y1) = np.sort(points, axis=0)
    left, top = int(np.clip(x0, 0, width - 1)), int(np.clip(y0, 0, height - 1))
    right, bottom = (
        max(left + 1, min(width, int(np.ceil(x1)))),
        max(top + 1, min(height, int(np.ceil(y1)))),
    )
    return planes[:, top:bottom, left:right].reshape(3, -1)
