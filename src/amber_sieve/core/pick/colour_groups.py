"""The colours of a picture in groups, by k-means (S. Lloyd, "Least squares quantization in PCM",
1982; begun as in D. Arthur, S. Vassilvitskii, "k-means++", 2007), however they are lit.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass

import cv2
import numpy as np

from ..components import components_of

#: Groups of colours: about twice as many as surfaces are offered.
GROUPS = 24
#: Pixels that they are learnt from: more change nothing that is seen.
LEARNT_FROM = 20_000
#: Rounds of the grouping at most.
ROUNDS = 40
#: It may be stopped between this many parts of these.
PARTS = 2
#: Starts of the grouping.
STARTS = 1
#: How much lightness counts beside a/L and b/L.
LIGHTNESS = 0.35
#: Least lightness that these are divided by.
DARKEST = 0.05
#: Noise is smoothed over this many pixels before colours are grouped.
SMOOTHED = 7
#: And by this much of Oklab.
SMOOTHED_BY = 0.05


def chroma_of(lab: np.ndarray) -> np.ndarray:
    """a/L and b/L (2, H, W) of Oklab: what light and shade change least."""
    out: np.ndarray = lab[1:] / np.maximum(lab[:1], DARKEST)
    return out


@dataclass(frozen=True)
class ColourGroups:
    """The group of each pixel, (H, W), how many there are, and a/L and b/L (2, H, W) of the
    smoothed picture.
    """

    numbers: np.ndarray
    count: int
    chroma: np.ndarray

    def pieces(self, inside: np.ndarray | None, most: int) -> Iterator[np.ndarray]:
        """Return the largest pieces, (H, W) bool, some of each group, a pixel in from its border;
        only ``inside``, where that is given.
        """
        for group in range(self.count):
            own = self.numbers == group
            inner = cv2.erode(
                (own if inside is None else own & inside).astype(np.uint8),
                np.ones((3, 3), np.uint8),
            )
            found = components_of(inner)
            for label in found.largest(most):
                yield found.labels == label


def grouped(lab: np.ndarray, step: Callable[[], None] = lambda: None) -> ColourGroups:
    """The colours of a picture in Oklab, (3, H, W) float32, in groups; the same picture always
    gives the same. ``step`` may raise to stop.
    """
    smoothed = []
    for plane in lab:
        step()
        smoothed.append(
            cv2.bilateralFilter(np.ascontiguousarray(plane), SMOOTHED, SMOOTHED_BY, SMOOTHED / 2)
        )
    smooth = np.stack(smoothed)
    chroma = chroma_of(smooth)
    values = np.concatenate([chroma, LIGHTNESS * smooth[:1]]).reshape(3, -1).T.astype(np.float32)
    step()
    middles = _middles(
        values[
            np.random.default_rng(0).choice(
                len(values), min(LEARNT_FROM, len(values)), replace=False
            )
        ],
        step,
    )
    step()
    away = (middles**2).sum(axis=1)[None] - 2 * values @ middles.T
    step()
    return ColourGroups(away.argmin(axis=1).reshape(lab.shape[1:]), len(middles), chroma)


def _middles(values: np.ndarray, step: Callable[[], None]) -> np.ndarray:
    """The middles (groups, 3) of some values (N, 3)."""
    cv2.setRNGSeed(3)
    labels, begins = None, cv2.KMEANS_PP_CENTERS
    for _ in range(PARTS):
        step()
        rounds = (cv2.TERM_CRITERIA_EPS + cv2.TERM_CRITERIA_COUNT, ROUNDS // PARTS, 1e-4)
        _, labels, middles = cv2.kmeans(
            values, min(GROUPS, len(values)), labels, rounds, STARTS, begins
        )  # type: ignore[call-overload]
        begins = cv2.KMEANS_USE_INITIAL_LABELS
    return middles
