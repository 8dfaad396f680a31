"""Fine: closed-form matting in a band along the edge.

A. Levin, D. Lischinski, Y. Weiss, "A closed-form solution to natural image matting" (2008), through
the package pymatting. For hair, fringe and leaves where surface and background cannot be told by
colour alone. It is slow, so it is worked in tiles.

Matting alone ruins strands that leave no sure inside, and closes gaps that leave no sure outside.
So where Follow can tell the colours
apart its word counts: to the matting's energy comes the squared distance from its mask, as in J.
Wang, M. Cohen, "Optimized color sampling for robust matting" (2007).
"""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import cv2
import numpy as np

from .follow import BACKGROUND_MAX, FOREGROUND_MIN, EdgeMatte

#: Side of a tile, pixels: a system that is solved in the processor's cache.
TILE = 384
#: Overlap on each side of a tile, pixels: the reach of a fringe.
LAP = 48
#: Weight of what Follow says: found by search on path-traced outlines, see docs/formulas.md.
PRIOR_WEIGHT = 0.3
#: |F - B|² from which on that counts, found in the same search.
ALIKE = 0.004
#: Weight of the mask's word where Follow could not tell.
LEAST_PRIOR = 1e-5
#: Steps of the solver after which it will not get there: those of the demo take 3 to 7.
LONGEST = 500
#: Regularisation of the covariance for light up to white, as the package has it.
EPSILON = 1e-7
#: Light beyond this many times white is as good as this: a glint must not blur the matting of what
#: lies beside it.
BRIGHT = 8.0


def band_for(mask: np.ndarray, width: float) -> np.ndarray:
    """The pixels (H, W) bool that are solved for: within ``width`` pixels of the outline, a third
    of it inwards.
    """
    away = cv2.distanceTransform(
        (mask < BACKGROUND_MAX).astype(np.uint8), cv2.DIST_L2, cv2.DIST_MASK_3
    )
    deep = cv2.distanceTransform(
        (mask > FOREGROUND_MIN).astype(np.uint8), cv2.DIST_L2, cv2.DIST_MASK_3
    )
    return (away <= width) & (deep <= max(1.0, width / 3))


def _laplacian(cf_laplacian: Callable[..., Any], planes: np.ndarray, known: np.ndarray) -> Any:
    """The matting Laplacian of light (3, H, W), a sparse matrix, made with as little regularisation
    as will do.

    What keeps the covariance of flat colours from having no inverse must grow with the square of
    the light; where it is still rounded off, the package divides by zero.
    """
    light = np.clip(np.moveaxis(planes, 0, -1), -BRIGHT, BRIGHT).astype(np.float64, order="C")
    epsilon = EPSILON * max(1.0, float(np.abs(light).max())) ** 2
    while True:
        try:
            return cf_laplacian(light, epsilon, is_known=known)
        except ZeroDivisionError:
            epsilon *= 10


def stopped_where_lost(*state: Any) -> None:
    """A step of the solver was made: raises ValueError where what is left is no number any more,
    which no further step would mend.
    """
    if not np.isfinite(state[-1]):
        raise ValueError


def matted(
    planes: np.ndarray, trimap: np.ndarray, mask: np.ndarray, prior: np.ndarray
) -> np.ndarray:
    """Closed-form alpha (H, W) of linear light (3, H, W).

    Parameters
    ----------
    trimap : 0, 1, or 0.5 where unknown; mask : what alpha should be near; prior : (H, W) in 0 to 1,
        how much that counts.
    """
    # Brings in a slow import, needed by this control alone.
    from scipy.sparse import diags

    from .matting_parts import cf_laplacian, cg, ichol

    known = (trimap != 0.5).ravel()
    unknown = ~known
    alpha: np.ndarray = trimap.ravel().astype(np.float64)
    laplacian = _laplacian(cf_laplacian, planes, known)[unknown]
    # Even where nothing is told the mask's word counts a little: places that hang together with
    # nothing known are else undecided.
    weight = np.maximum(PRIOR_WEIGHT * prior.ravel()[unknown].astype(np.float64), LEAST_PRIOR)
    left = (laplacian[:, unknown] + diags(weight)).tocsc()
    right = weight * mask.ravel()[unknown] - laplacian[:, known].dot(alpha[known])
    if (
        not right.any()
    ):  # nothing there is anything, and the package would look for less than nothing
        alpha[unknown] = 0
        return alpha.reshape(trimap.shape).astype(np.float32)
    try:
        alpha[unknown] = cg(
            left, right, M=ichol(left), maxiter=LONGEST, callback=stopped_where_lost
        )
    except ValueError:  # it does not converge; the mask is as good as it was
        return mask
    return np.clip(alpha, 0, 1).reshape(trimap.shape).astype(np.float32)


def prior_of(unmixed: EdgeMatte | None, shape: tuple[int, int]) -> np.ndarray:
    """Return how well Follow could tell surface and background apart, (H, W) in 0 to 1; nothing
    where it did not look.
    """
    prior = np.zeros(shape, np.float32)
    if unmixed is not None:
        top, left = unmixed.corner
        height, width = unmixed.band.shape
        across = ((unmixed.foreground - unmixed.background) ** 2).sum(axis=0)
        prior[top : top + height, left : left + width] = np.clip(
            unmixed.at_pixels(across) / ALIKE - 1, 0, 1
        )
    return prior


def closed_form_matte(
    planes: np.ndarray,
    mask: np.ndarray,
    width: float,
    step: Callable[[float], None] | None = None,
    prior: np.ndarray | None = None,
) -> np.ndarray:
    """Matting in a band along the edge of a mask.

    Parameters
    ----------
    planes : (3, H, W) float32 linear light; mask : (H, W) float32.
    width : how far outside the mask is solved for, pixels.
    step : hears the share that is done; may raise to stop.
    prior : how much the mask's word counts in the band, see `prior_of`; not at all without it.
    """
    band = band_for(mask, width)
    if width <= 0 or not band.any():
        return mask
    trimap = np.where(band, np.float32(0.5), (mask >= 0.5).astype(np.float32))
    out = mask.copy()
    height, breadth = mask.shape
    tiles = [
        (top, left)
        for top in range(0, height, TILE)
        for left in range(0, breadth, TILE)
        if band[top : top + TILE, left : left + TILE].any()
    ]
    for done, (top, left) in enumerate(tiles, 1):
        wide = np.s_[max(0, top - LAP) : top + TILE + LAP, max(0, left - LAP) : left + TILE + LAP]
        part, weight = trimap[wide], np.zeros_like(mask[wide]) if prior is None else prior[wide]
        if ((part == 0).any() and (part == 1).any()) or weight.any():
            alpha = matted(planes[:, wide[0], wide[1]], part, mask[wide], weight)
            inner = np.s_[
                min(top, LAP) : min(top, LAP) + TILE, min(left, LAP) : min(left, LAP) + TILE
            ]
            here = np.s_[top : top + TILE, left : left + TILE]
            out[here] = np.where(band[here], alpha[inner], mask[here])
        if step:
            step(done / len(tiles))
    return out
