"""Fine: closed-form matting in a band along the edge.

A. Levin, D. Lischinski, Y. Weiss, "A closed-form solution to natural image matting" (2008), through the package pymatting.
For hair, fringe and leaves where surface and background cannot be told by colour alone. It is slow, so it is worked in tiles.
"""

from __future__ import annotations

from collections.abc import Callable

import cv2
import numpy as np

from .follow import NOT, SURE

#: Side of a tile and the overlap on each of its sides, pixels.
TILE, LAP = 384, 48


def band_for(mask: np.ndarray, width: float) -> np.ndarray:
    """The pixels (H, W) bool that are solved for: within ``width`` pixels of the outline, a third of it inwards."""
    away = cv2.distanceTransform((mask < NOT).astype(np.uint8), cv2.DIST_L2, cv2.DIST_MASK_3)
    deep = cv2.distanceTransform((mask > SURE).astype(np.uint8), cv2.DIST_L2, cv2.DIST_MASK_3)
    return (away <= width) & (deep <= max(1.0, width / 3))


def matted(planes: np.ndarray, trimap: np.ndarray) -> np.ndarray:
    """Closed-form alpha (H, W) of linear light (3, H, W); ``trimap`` is 0, 1, or 0.5 where unknown."""
    from pymatting import estimate_alpha_cf  # brings in a slow import, needed by this control alone

    return estimate_alpha_cf(np.moveaxis(planes, 0, -1).astype(np.float64), trimap.astype(np.float64)).astype(np.float32)


def fine(planes: np.ndarray, mask: np.ndarray, width: float, step: Callable[[float], None] | None = None) -> np.ndarray:
    """Matting in a band along the edge of a mask.

    Parameters
    ----------
    planes : (3, H, W) float32 linear light; mask : (H, W) float32.
    width : how far outside the mask is solved for, pixels.
    step : told the share that is done; may raise to stop.
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
        part = trimap[wide]
        if (part == 0).any() and (part == 1).any():
            alpha = matted(planes[:, wide[0], wide[1]], part)
            inner = np.s_[min(top, LAP) : min(top, LAP) + TILE, min(left, LAP) : min(left, LAP) + TILE]
            here = np.s_[top : top + TILE, left : left + TILE]
            out[here] = np.where(band[here], alpha[inner], mask[here])
        if step:
            step(done / len(tiles))
    return out
