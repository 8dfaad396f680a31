"""The backdrop of a thing that moves, known from frames in which the thing was elsewhere: what
differs from it is the thing.

So an area stays on a thing whose features slide because it turns. Where a thing stands out from is
learnt from frame to frame, as the histogram of differences inside the area and beside it; the area
is shifted to where their likelihood ratio fits it best. Background subtraction with a likelihood
ratio of foreground and background, as in A. Elgammal, D. Harwood, L. Davis, "Non-parametric model
for background subtraction", 2000; the shape and the learning place by place are ours. Shares and
widths were found on the cup of the demo clip, see docs/formulas.md.
"""

from __future__ import annotations

from dataclasses import dataclass

import cv2
import numpy as np

from .movement import LEAST_STEP, moved_places, peak

#: How far beside the area nothing of the thing is taken to be, as a share of its size, like all of
#: these; found by trial on the made clips of the tests.
CLEAR = 0.15
#: From where on it is surely beside.
BESIDE = 0.1
#: From where on it is surely inside.
INSIDE = 0.08
#: How far round the outline counts.
BAND = 0.25
#: Over which width the outline is soft.
SOFT = 0.05
#: How far round a place differences are counted.
NEAR = 0.08
#: Shares of its size by which a thing may reach beyond the area: people draw areas roughly.
MARGINS = (-0.1, -0.05, 0.0, 0.05, 0.1)
#: How sharply its place must be told, beside how sharp its shape is.
SHARP = 0.12
#: How far from the end of the search a place must lie, and how far aside of it the sharpness is
#: asked, pixels.
ASIDE = 3
#: How far off the thing may lie, pixels.
SPAN = 9
#: Share of the outline's surroundings that must be known.
KNOWN = 0.9
#: How many times more than noise a thing differs.
APART = 1.5
#: Of what lies beside an area this many per cent are taken to be still.
CALM_SHARE = 80
#: Noise of codes that are whole numbers: 1 / sqrt(12), rounded.
STEP_NOISE = 0.3
#: Bounds of the bins of differences, in units of what the still pixels beside the area stay below;
#: and the largest logarithm of a ratio.
BINS = np.array([0.3, 0.6, 0.9, 1.2, 1.5, 2, 2.5, 3, 4, 5, 7, 10])
#: Most pixels that one frame may move an area by on the backdrop's word.
MOST = 3.0
#: Standard deviation of the blur that takes noise away, pixels.
CALM = 1.2
#: Codes added before two are divided, so that noise in the dark does not rule.
DARK = 4.0
#: Fewest pixels that say anything.
FEWEST = 50


def colours_of(planes: np.ndarray) -> np.ndarray:
    """Colours (3, H, W) uint8 of a frame of linear light, in which equal steps look about equal,
    without their noise.
    """
    codes = np.rint(255 * np.sqrt(np.clip(planes, 0, 1))).astype(np.uint8)
    return np.stack([cv2.GaussianBlur(code, (0, 0), CALM) for code in codes])


@dataclass(frozen=True)
class Alignment:
    """The place of a thing in an area: (x, y) from the area's middle, pixels, up to a step that
    stays the same while its shape does; and by what share of its size it reaches beyond the area.
    """

    step: np.ndarray
    margin: float


class Backdrop:
    """The backdrop as far as it has been seen."""

    def __init__(self, shape: tuple[int, int]) -> None:
        self._colours = np.zeros((3, *shape), np.float32)
        self._known = np.zeros(shape, bool)

    def moved(self, matrix: np.ndarray | None) -> None:
        """The surroundings have moved by a matrix (3, 3) since the last frame; None for nobody
        knows how: all is forgotten.
        """
        height, width = self._known.shape
        if matrix is None:
            self._known[...] = False
            return
        corners = np.array([[0, 0], [width, 0], [width, height], [0, height]], np.float64)
        if np.abs(moved_places(corners, matrix) - corners).max() < LEAST_STEP:
            return  # a camera that stands still: nothing is made soft
        self._colours = np.stack(
            [cv2.warpPerspective(plane, matrix, (width, height)) for plane in self._colours]
        )
        self._known = (
            cv2.warpPerspective(
                self._known.astype(np.uint8), matrix, (width, height), flags=cv2.INTER_NEAREST
            )
            > 0
        )

    def add(self, colours: np.ndarray, corners: np.ndarray) -> None:
        """A frame's colours (3, H, W) uint8 beside an area, a closed polygon (N, 2), are what lies
        there.
        """
        size = _size(corners)
        part, inner = _part(corners, size, self._known.shape)
        free = (
            cv2.distanceTransform(1 - inner, cv2.DIST_L2, cv2.DIST_MASK_3) > CLEAR * size
            if inner.size
            else inner > 0
        )
        held, known, here = self._colours[:, *part], self._known[part], colours[:, *part]
        light = _light(here, held, free & known)
        hidden, seen = held * light, known | free
        self._colours[...], self._known[...] = colours, True
        self._colours[:, *part] = np.where(free, here, hidden)
        self._known[part] = seen

    def alignment(
        self, colours: np.ndarray, corners: np.ndarray, margin: float | None = None
    ) -> Alignment | None:
        """Return how a thing lies in an area that was drawn on it; None where that cannot be told.

        Parameters
        ----------
        margin : by what share of its size the thing is known to reach beyond the area; None for
            that is to be found.
        """
        size = _size(corners)
        part, inner = _part(corners, BESIDE * size + BAND * size + SPAN + 2, self._known.shape)
        if min(inner.shape) <= 2 * SPAN:
            return None
        deep = cv2.distanceTransform(inner, cv2.DIST_L2, cv2.DIST_MASK_5) - cv2.distanceTransform(
            1 - inner, cv2.DIST_L2, cv2.DIST_MASK_5
        )
        known, band = self._known[part], np.abs(deep) < BAND * size
        beside, inside = known & (deep < -BESIDE * size), known & (deep > INSIDE * size)
        if beside.sum() < FEWEST or inside.sum() < FEWEST or known[band].mean() < KNOWN:
            return None
        here, held = colours[:, *part].astype(np.float32), self._colours[:, *part]
        differs = _distances(here - held * _light(here, held, beside), beside)
        noise = float(np.percentile(differs[beside], CALM_SHARE))
        if np.median(differs[inside]) < APART * noise:
            return None
        ratio = np.where(
            known, _ratio(differs / max(noise, 1e-3), inside, beside, NEAR * size), 0
        ).astype(np.float32)
        found = [
            _best(ratio, deep, band, one, size)
            for one in (MARGINS if margin is None else (margin,))
        ]
        best = max(found, key=lambda one: one[0])
        return best[1]


def _size(corners: np.ndarray) -> float:
    return float(np.ptp(corners, axis=0).max())


def _part(
    corners: np.ndarray, room: float, shape: tuple[int, int]
) -> tuple[tuple[slice, slice], np.ndarray]:
    """The part of a frame (rows, columns) round a closed polygon, and where it lies in that part,
    (h, w) uint8.
    """
    ends = [
        (int(np.clip(np.floor(low - room), 0, end)), int(np.clip(np.ceil(high + room), 0, end)))
        for low, high, end in zip(
            corners.min(axis=0), corners.max(axis=0), reversed(shape), strict=True
        )
    ]
    (left, right), (top, bottom) = ends
    inner = np.zeros((bottom - top, right - left), np.uint8)
    if inner.size:
        cv2.fillPoly(
            inner,
            [np.rint(np.clip(corners - (left, top), -1e6, 1e6) * 16).astype(np.int32)],
            1,
            shift=4,
        )
    return (slice(top, bottom), slice(left, right)), inner


def _light(here: np.ndarray, held: np.ndarray, where: np.ndarray) -> np.ndarray:
    """By what each channel (3, 1, 1) has grown lighter than what is held of it."""
    if where.sum() < FEWEST:
        return np.ones((3, 1, 1), np.float32)
    ratios = [
        np.median((one[where] + DARK) / (other[where] + DARK))
        for one, other in zip(here.astype(np.float32), held, strict=True)
    ]
    return np.array(ratios, np.float32)[:, None, None]


def _distances(steps: np.ndarray, beside: np.ndarray) -> np.ndarray:
    """Return how far colours are apart, (H, W), by their differences (3, H, W): Mahalanobis'
    distance, with the noise as it is beside a thing, so that a hue tells more than a brightness
    that is all grain.
    """
    noise = steps[:, beside]
    noise = noise - np.median(noise, axis=1, keepdims=True)
    far = (noise**2).sum(axis=0)
    noise = noise[:, far <= np.percentile(far, CALM_SHARE)]
    spread = noise @ noise.T / noise.shape[1] + STEP_NOISE * np.eye(3)
    whitened = np.tensordot(
        np.linalg.cholesky(np.linalg.inv(spread)).T.astype(np.float32), steps, 1
    )
    out: np.ndarray = np.sqrt((whitened**2).sum(axis=0))
    return out


def _ratio(differs: np.ndarray, inside: np.ndarray, beside: np.ndarray, near: float) -> np.ndarray:
    """Logarithm of how much likelier a difference (H, W) is inside a thing, near that place of it,
    than beside it.
    """
    bins = np.digitize(differs, BINS)
    count = len(BINS) + 1

    def shares(where: np.ndarray) -> np.ndarray:
        counted = np.bincount(bins[where], minlength=count) + 0.02 * where.sum() / count
        out: np.ndarray = counted / counted.sum()
        return out

    within, without = shares(inside), shares(beside)
    area = cv2.GaussianBlur(inside.astype(np.float32), (0, 0), near)
    out = np.zeros(differs.shape, np.float32)
    for number in np.unique(bins):
        there = bins == number
        counted = cv2.GaussianBlur((there & inside).astype(np.float32), (0, 0), near)
        # A place of which little is known is like all of the thing.
        share = (counted + 0.01 * within[number] + 0.02 / count * area) / (1.02 * area + 0.01)
        out[there] = np.log(share[there] / without[number])
    return np.clip(out, -MOST, MOST)


def _best(
    ratio: np.ndarray, deep: np.ndarray, band: np.ndarray, margin: float, size: float
) -> tuple[float, Alignment | None]:
    """Return how well a shape grown by a margin fits where it fits best, and that place; None where
    it lies at the end of the span, or where places aside fit about as well.
    """
    shape = np.where(band, np.clip((deep + margin * size) / (SOFT * size), -1, 1), 0).astype(
        np.float32
    )
    fits, ideal = (_fits(one, shape) for one in (ratio, shape))
    row, column = (int(place) for place in np.unravel_index(int(fits.argmax()), fits.shape))
    best = float(fits[row, column])
    if best <= 0 or not (ASIDE <= row <= 2 * SPAN - ASIDE and ASIDE <= column <= 2 * SPAN - ASIDE):
        return best, None
    top = float(ideal[SPAN, SPAN])
    for down, across in ((ASIDE, 0), (0, ASIDE)):
        drop = best - max(fits[row - down, column - across], fits[row + down, column + across])
        sharp = top - max(ideal[SPAN - down, SPAN - across], ideal[SPAN + down, SPAN + across])
        if drop / best < SHARP * sharp / top:
            return best, None
    x = column - SPAN + peak(fits[row, column - 1], fits[row, column], fits[row, column + 1])
    y = row - SPAN + peak(fits[row - 1, column], fits[row, column], fits[row + 1, column])
    return best, Alignment(np.array([x, y]), margin)


def _fits(ratio: np.ndarray, shape: np.ndarray) -> np.ndarray:
    """Return how well a shape fits, shifted by up to the span each way."""
    wider = cv2.copyMakeBorder(ratio, SPAN, SPAN, SPAN, SPAN, cv2.BORDER_CONSTANT, value=0)
    out: np.ndarray = cv2.matchTemplate(wider, shape, cv2.TM_CCORR)
    return out
