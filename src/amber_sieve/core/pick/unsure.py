"""Find the place where a mask is least sure: the place at which a further click is likely to change
most. Ours.

Four kinds of places are looked at: pieces of the mask in which nothing was kept, which may be
strays; gaps and bays in the clicked place, which may be folds and highlights that the tolerance
missed, the likelier the nearer their colour is; what touches the mask and has its colour in another
light, which may be the same thing in sun or in shade; and, less likely, what lies just within the
tolerance. The deepest place of the largest pieces wins, by its depth and that likelihood.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence

import cv2
import numpy as np

from ..components import components_of, labelled
from .colour_groups import ColourGroups
from .pieces import depths

#: Likelihood of a stray.
STRAY = 0.5
#: Distance, hundredths of Oklab, over which the likelihood of a gap falls to its e-th part.
FALLS = 15.0
#: Likelihood of what is just within.
WITHIN_LIKELY = 0.1
#: Likelihood of what has the same colour in another light, were all round it masked.
RELIT = 1.5
#: Distance of a/L and b/L over which that falls to its e-th part.
RELIT_FALLS = 0.04
#: Farther than this many times that nothing is looked at.
RELIT_FARTHEST = 5.0
#: Least share of the round of such a piece that is masked.
TOUCHES = 0.2
#: A mask is touched from this share of the picture's longer side away, over the soft edge of a
#: shadow; and from at least this many pixels.
TOUCHED_FROM, LEAST_TOUCHED = 1 / 75, 2
#: Half the side of the square in which the a/L and b/L of a click are looked at, pixels.
AROUND = 2
#: Gaps are closed over this share of the root of the piece's size.
CLOSED = 0.2
#: And over at least this many pixels.
LEAST_CLOSED = 3
#: Deviation of colour round a place, hundredths of Oklab, over which its worth falls to its e-th
#: part: a mix of two colours says little.
ROUGH = 5.0
#: Just within is so far from the tolerance, hundredths of Oklab.
WITHIN = 3.0
#: Largest pieces of each kind that are looked at.
PIECES = 4
#: None that is less deep than this, pixels.
SHALLOW = 1.5


def evenness(lab: np.ndarray) -> np.ndarray:
    """Return how even the colour round each pixel of Oklab planes (3, H, W) is, (H, W) float32: 1
    where it is one, less where two meet.
    """
    spread = np.zeros(lab.shape[1:], np.float32)
    for plane in lab:
        mean, squares = (
            cv2.blur(values, (2 * AROUND + 1, 2 * AROUND + 1)) for values in (plane, plane * plane)
        )
        spread += np.maximum(squares - mean * mean, 0)
    np.sqrt(spread, out=spread)
    spread *= -100 / ROUGH
    return np.exp(spread, out=spread)


def _best_of(piece: np.ndarray, even: np.ndarray) -> tuple[int, int, float]:
    """The place (x, y) of a piece (H, W) bool that says most, deep in it and of one colour, and its
    worth: 0 where none is deep enough.
    """
    inside = depths(piece)
    worth = np.where(inside >= SHALLOW, inside * even, 0)
    y, x = np.unravel_index(int(worth.argmax()), worth.shape)
    return int(x), int(y), float(worth[y, x])


def _largest(region: np.ndarray) -> Iterator[np.ndarray]:
    """The largest pieces of a region (H, W) bool."""
    pieces = components_of(region, corners=False)
    for label in pieces.largest(PIECES):
        yield pieces.labels == label


def _wider(where: np.ndarray, by: int) -> np.ndarray:
    """Grow a region (H, W) bool by some pixels all round."""
    out: np.ndarray = (
        cv2.dilate(where.astype(np.uint8), np.ones((2 * by + 1, 2 * by + 1), np.uint8)) > 0
    )
    return out


def _closed(region: np.ndarray, reach: int) -> np.ndarray:
    """Close a region (H, W) bool: fill all that no disc of a radius reaches without meeting it; by
    distances, since a disc takes long.
    """
    around = np.pad(region, reach + 1)
    near = (
        cv2.distanceTransform((~around).astype(np.uint8), cv2.DIST_L2, cv2.DIST_MASK_PRECISE)
        <= reach
    )
    closed: np.ndarray = (
        cv2.distanceTransform(near.astype(np.uint8), cv2.DIST_L2, cv2.DIST_MASK_PRECISE) > reach
    )
    return closed[reach + 1 : -reach - 1, reach + 1 : -reach - 1]


def _relit(
    groups: ColourGroups,
    masked: np.ndarray,
    kept: Sequence[tuple[int, int]],
    free: np.ndarray,
    even: np.ndarray,
    step: Callable[[], None],
) -> Iterator[tuple[float, int, int]]:
    """Places outside the mask that have the colour of what was kept in another light, and touch the
    mask: worth, x, y.
    """
    squares = [
        groups.chroma[:, max(0, y - AROUND) : y + AROUND + 1, max(0, x - AROUND) : x + AROUND + 1]
        for x, y in kept
    ]
    colours = np.stack([np.median(square.reshape(2, -1), axis=1) for square in squares])
    touched = _wider(masked, max(LEAST_TOUCHED, round(TOUCHED_FROM * max(masked.shape))))
    for piece in groups.pieces(free & ~masked, PIECES):
        step()
        away = (
            float(np.hypot(*(np.median(groups.chroma[:, piece], axis=1) - colours).T).min())
            / RELIT_FALLS
        )
        if away > RELIT_FARTHEST:
            continue
        whole = _wider(piece, 1)  # pieces are given without their outermost pixels
        x, y, worth = _best_of(whole, even)
        rim = touched[_wider(whole, 1) & ~whole]
        touches = (
            float(rim.mean()) if rim.size else 0.0
        )  # a piece that is the whole picture has none
        if worth and touches >= TOUCHES:
            yield RELIT * worth * touches * float(np.exp(-away)), x, y


def most_uncertain_pixel(
    margin: np.ndarray,
    masked: np.ndarray,
    kept: Sequence[tuple[int, int]],
    settled: np.ndarray,
    groups: ColourGroups,
    even: np.ndarray,
    step: Callable[[], None] = lambda: None,
) -> tuple[int, int] | None:
    """The place (x, y) that is most worth a click; None where nothing is.

    Parameters
    ----------
    margin : (H, W) float32, how far each pixel lies within the tolerance of the samples, below 0
        beyond it; hundredths of Oklab.
    masked : (H, W) bool, the mask. kept : places of the keep samples in it.
    settled : (H, W) bool, what needs no click: it looks like what was clicked already, and is
        masked like it. groups : of the picture's colours. even : see `evenness`. step : is called
        now and then, and may raise to stop.
    """
    height, width = masked.shape
    labels = labelled(masked)
    own = {int(labels[min(y, height - 1), min(x, width - 1)]) for x, y in kept} - {0}
    main = np.isin(labels, list(own)) if own else masked
    reach = max(LEAST_CLOSED, int(CLOSED * np.sqrt(max(int(main.sum()), 1))))
    kinds = (
        (masked & ~main, STRAY),
        (_closed(main, reach) & ~masked, None),
        (main & (margin < WITHIN), WITHIN_LIKELY),
    )
    best = max(_relit(groups, masked, kept, ~settled, even, step), default=None)
    for region, likely in kinds:
        for piece in _largest(region & ~settled):
            step()
            x, y, worth = _best_of(piece, even)
            if worth:
                worth *= (
                    likely
                    if likely is not None
                    else float(np.exp(min(float(margin[y, x]), 0.0) / FALLS))
                )
                best = max(best, (worth, x, y)) if best is not None else (worth, x, y)
    return best[1:] if best is not None else None
