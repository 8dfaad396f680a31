"""Where a mask is least sure: the place at which a further click is likely to change most. Ours.

Four kinds of places are looked at: pieces of the mask in which nothing was kept, which may be strays; gaps and bays in what was clicked, which may be
folds and highlights that the tolerance missed, the likelier the nearer their colour is; and, less likely, what lies just beyond the tolerance
or just within it elsewhere. The deepest place of the largest pieces wins, by its depth and that likelihood.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence

import cv2
import numpy as np

from .pieces import deepest

#: Likelihood of a stray.
STRAY = 0.5
#: Distance, hundredths of Oklab, over which the likelihood of a gap falls to its e-th part.
FALLS = 15.0
#: Likelihood of the others.
ELSEWHERE = 0.1
#: Gaps are closed over this share of the root of the piece's size.
CLOSED = 0.2
#: And over at least so many pixels.
LEAST_CLOSED = 3
#: Just beyond a mask is so many pixels wide.
BEYOND = 6.0
#: Just within is so many.
WITHIN = 3.0
#: So many of the largest pieces of each kind are looked at.
PIECES = 4
#: None that is less deep than this, pixels.
SHALLOW = 1.5


def _largest(region: np.ndarray) -> Iterator[np.ndarray]:
    """The largest pieces of a region (H, W) bool."""
    count, labels, stats, _ = cv2.connectedComponentsWithStats(region.astype(np.uint8), connectivity=4)
    for label in 1 + np.argsort(-stats[1:, cv2.CC_STAT_AREA])[:PIECES] if count > 1 else ():
        yield labels == label


def unsure_place(margin: np.ndarray, masked: np.ndarray, kept: Sequence[tuple[int, int]], settled: np.ndarray) -> tuple[int, int] | None:
    """The place (x, y) that is most worth a click; None where nothing is.

    Parameters
    ----------
    margin : (H, W) float32, how far each pixel lies within the tolerance of the samples, below 0 beyond it; hundredths of Oklab.
    masked : (H, W) bool, the mask. kept : places of the keep samples in it.
    settled : (H, W) bool, what needs no click: it looks like what was clicked already, and is masked like it.
    """
    height, width = masked.shape
    _, labels = cv2.connectedComponents(masked.astype(np.uint8), connectivity=8)
    own = {int(labels[min(y, height - 1), min(x, width - 1)]) for x, y in kept} - {0}
    main = np.isin(labels, list(own)) if own else masked
    reach = max(LEAST_CLOSED, int(CLOSED * np.sqrt(max(int(main.sum()), 1))))
    disc = cv2.getStructuringElement(cv2.MORPH_ELLIPSE, (2 * reach + 1, 2 * reach + 1))
    closed = cv2.morphologyEx(np.pad(main.astype(np.uint8), reach), cv2.MORPH_CLOSE, disc)[reach:-reach, reach:-reach] > 0
    kinds = (
        (masked & ~main, STRAY), (closed & ~masked, None), (~masked & (margin > -BEYOND) & ~closed, ELSEWHERE),
        (main & (margin < WITHIN), ELSEWHERE),
    )  # fmt: skip
    best: tuple[float, int, int] | None = None
    for region, likely in kinds:
        for piece in _largest(region & ~settled):
            x, y, depth = deepest(piece)
            if depth >= SHALLOW:
                worth = depth * (likely if likely is not None else float(np.exp(min(float(margin[y, x]), 0.0) / FALLS)))
                best = max(best, (worth, x, y)) if best is not None else (worth, x, y)
    return best[1:] if best is not None else None
