"""Find a thing's own outline: what keeps an area on a thing that turns.

What is painted on a round thing slides past its outline when it turns, so features alone lead an
area astray. Its outline is known by the strongest edge near every place of the area's, and later
frames say by how far that has to be shifted to lie on edges best. After model-based edge tracking
(C. Harris, C. Stennett, "RAPID", 1990), with a plain shift in place of a pose. Ours.
"""

from __future__ import annotations

import cv2
import numpy as np

from .movement import moved_places, peak

#: Standard deviation of the blur under which edges are looked for, pixels.
CALM = 2.0
#: Places along an outline: one at every five degrees.
PLACES = 72
#: How far from the area's outline the thing's own is looked for, as a share of its size.
NEAR = 0.12
#: How far off a frame may say it lies, pixels.
SHIFT = 3
#: An outline counts when its edges are this many times stronger than the edges at twice SHIFT away.
STRONGER = 1.2
#: Of what one frame says this much is believed: noise must not shake the area.
BELIEVED = 0.15
#: And no more than this many pixels.
MOST = 0.3
#: How fast it is learnt which places belong to the thing.
LEARNS = 0.1


def _slopes(levels: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    calm = cv2.GaussianBlur(levels.astype(np.float32), (0, 0), CALM)
    return cv2.Sobel(calm, cv2.CV_32F, 1, 0), cv2.Sobel(calm, cv2.CV_32F, 0, 1)


def _across(
    slopes: tuple[np.ndarray, np.ndarray], places: np.ndarray, ways: np.ndarray
) -> np.ndarray:
    """Return how steep a frame is across an outline at some places (…, 2), along unit vectors."""
    x, y = places[..., 0].astype(np.float32), places[..., 1].astype(np.float32)
    along, down = (
        cv2.remap(
            slope,
            x.reshape(-1, 1),
            y.reshape(-1, 1),
            cv2.INTER_LINEAR,
            borderMode=cv2.BORDER_CONSTANT,
        ).reshape(x.shape)
        for slope in slopes
    )
    return np.abs(along * ways[..., 0] + down * ways[..., 1])


class Contour:
    """The outline of a thing in one frame: its places (N, 2) and the ways across it."""

    def __init__(self, levels: np.ndarray, corners: np.ndarray) -> None:
        """Look for it near an area's outline, a closed polygon (M, 2), pixels of the frame (H, W)
        uint8.
        """
        places = _evenly(corners, PLACES)
        ways = _ways(places)
        size = float(np.ptp(places, axis=0).max())
        reach = max(2.0, NEAR * size)
        steps = np.arange(-reach, reach + 0.5, 1.0)
        steep = _across(
            _slopes(levels), places[:, None] + steps[None, :, None] * ways[:, None], ways[:, None]
        )
        found = steps[steep.argmax(axis=1)]
        # A place that lies elsewhere than its neighbours has found something else.
        around = np.stack([np.roll(found, by) for by in range(-3, 4)])
        self.places = places + np.median(around, axis=0)[:, None] * ways
        #: Trust in each place: an edge of the thing stays steep before any background.
        self._trust = np.ones(len(self.places))

    def shift(self, levels: np.ndarray, matrix: np.ndarray) -> np.ndarray:
        """By how much (2,) a thing lies elsewhere in a frame than a matrix (3, 3) has taken its
        outline; nothing where that cannot be told.
        """
        places = moved_places(self.places, matrix)
        ways = _ways(places)
        span = 2 * SHIFT
        steps = np.arange(-span, span + 1, dtype=np.float64)
        grid = np.stack(np.meshgrid(steps, steps), -1)  # shifts, row by row
        steep = _across(_slopes(levels), places + grid[:, :, None], ways)
        # One strong edge of the background must not outweigh the rest.
        steep = np.minimum(steep / max(float(np.median(steep[span, span])), 1e-3), 1.5)
        total = steep @ self._trust / self._trust.sum()
        inner = total[SHIFT : span + SHIFT + 1, SHIFT : span + SHIFT + 1]
        row, column = (
            int(place) + SHIFT for place in np.unravel_index(int(inner.argmax()), inner.shape)
        )
        beside = max(float(np.median(total[[0, -1]])), float(np.median(total[:, [0, -1]])))
        if total[row, column] <= STRONGER * beside:  # out of the picture all is nothing
            return np.zeros(2)
        self._trust += LEARNS * (steep[row, column] - self._trust)
        across = (
            peak(total[row, column - 1], total[row, column], total[row, column + 1]) + column - span
        )
        down = peak(total[row - 1, column], total[row, column], total[row + 1, column]) + row - span
        return np.clip(BELIEVED * np.array([across, down]), -MOST, MOST)


def _evenly(corners: np.ndarray, count: int) -> np.ndarray:
    """Places at even distances along a closed polygon."""
    closed = np.vstack([corners, corners[:1]])
    way = np.concatenate([[0], np.cumsum(np.linalg.norm(np.diff(closed, axis=0), axis=1))])
    at = np.linspace(0, way[-1], count, endpoint=False)
    return np.column_stack([np.interp(at, way, closed[:, k]) for k in (0, 1)])


def _ways(places: np.ndarray) -> np.ndarray:
    """Unit vectors across a closed outline."""
    along = np.roll(places, -1, axis=0) - np.roll(places, 1, axis=0)
    across = np.column_stack([along[:, 1], -along[:, 0]])
    return across / np.maximum(np.linalg.norm(across, axis=1, keepdims=True), 1e-9)
