"""Follow: the pixels of an outline unmixed into the surface and what lies behind it. Ours.

A pixel on an outline is a mixture, in linear light, of the surface's colour F and the colour B behind it. Both are spread from
where the mask is sure into the band round the outline by normalised convolution (H. Knutsson, C.-F. Westin, "Normalized and
differential convolution", 1993), with wider ones where a narrow one finds nothing. The mask of a band pixel I is then the
share of F that explains it best: clip((I - B)·(F - B) / |F - B|²). Where F and B are too alike to tell, the mask stays.
"""

from __future__ import annotations

from dataclasses import dataclass

import cv2
import numpy as np
from numba import prange

from ..parallel import inner, kernel
from .box import box_of
from .spread import WIDER, between, grid_of, place_in, spread

#: From these values on the mask is sure of the surface, or of what is behind it.
SURE, NOT = 0.95, 0.05
#: Colours are spread with a standard deviation of this share of the reach, then with wider ones.
SPREAD = 0.5
#: What lies behind is learnt from this share of the reach away: nearer there may be strands the mask missed.
CLEAR = 0.4
#: The band goes this share of the reach into the surface, but no further than a few pixels: folds are not mixtures.
INTO, DEEPEST = 0.15, 3.0
#: Shares below this are nothing, and above its complement all.
REST = 0.04
#: Reaches round the mask from which the colour behind it is learnt.
ROOM = 5.0
#: How far the mask of a pixel looks, in reaches: four standard deviations of the widest spread.
LOOKS_PER_REACH = 4 * SPREAD * WIDER[-1]
#: Surface shares below this do not say their own colour well enough.
FAINT = 0.25


@dataclass(frozen=True)
class Unmixed:
    """Colours of the surface and of what lies behind, spread over a picture at a coarser scale.

    Attributes
    ----------
    front, behind : (3, h, w) float32 linear light, of the box.
    band : (h', w') bool, the pixels whose mask was taken from them, in a box of the picture.
    share : (H, W) float32, how much of every pixel of the picture is surface.
    corner : row and column of the box's top left.
    """

    front: np.ndarray
    behind: np.ndarray
    band: np.ndarray
    share: np.ndarray
    corner: tuple[int, int] = (0, 0)

    @property
    def opposite(self) -> Unmixed:
        """The same of what lies behind, for the mask turned round."""
        return Unmixed(self.behind, self.front, self.band, np.subtract(1, self.share), self.corner)

    @property
    def whole_band(self) -> np.ndarray:
        """The band as a mask (H, W) of the whole picture."""
        out = np.zeros(self.share.shape, bool)
        top, left = self.corner
        out[top : top + self.band.shape[0], left : left + self.band.shape[1]] = self.band
        return out


@inner
def told_apart(
    planes: np.ndarray, y: int, x: int, front: np.ndarray, behind: np.ndarray,
    y0: int, y1: int, ty: np.float32, x0: int, x1: int, tx: np.float32,
) -> tuple[np.float32, np.float32, np.float32]:  # fmt: skip
    """(I - B)·(F - B), |F - B|² and |I - B|² of a pixel, F and B between four pixels of coarse planes."""
    along, across, off = np.float32(0), np.float32(0), np.float32(0)
    for k in range(3):
        f, b = between(front[k], y0, y1, ty, x0, x1, tx), between(behind[k], y0, y1, ty, x0, x1, tx)
        way, away = f - b, planes[k, y, x] - b
        along += away * way
        across += way * way
        off += away * away
    return along, across, off


@inner
def share_of(along: np.float32, across: np.float32, came: np.float32, least: float) -> np.float32:
    """The share of the surface in a pixel: (I - B)·(F - B) and |F - B|² say what it is, ``came`` what the mask had there."""
    share = min(max(along / max(across, np.float32(1e-12)), np.float32(0)), np.float32(1))
    # What noise makes of pure background and pure surface is neither.
    share = min(max((share - np.float32(REST)) / np.float32(1 - 2 * REST), np.float32(0)), np.float32(1))
    # Between "too alike" and twice that, unmixing comes in gradually.
    trust = min(max(across / np.float32(least) - 1, np.float32(0)), np.float32(1))
    return came + trust * (share - came)


@kernel
def _unmix(
    planes: np.ndarray, mask: np.ndarray, band: np.ndarray, front: np.ndarray, behind: np.ndarray, least: float, out: np.ndarray
) -> None:
    height, width = mask.shape
    for y in prange(height):
        y0, y1, ty = place_in(y, height, front.shape[1])
        for x in range(width):
            if not band[y, x]:
                out[y, x] = mask[y, x]
                continue
            x0, x1, tx = place_in(x, width, front.shape[2])
            along, across, _ = told_apart(planes, y, x, front, behind, y0, y1, ty, x0, x1, tx)
            out[y, x] = share_of(along, across, mask[y, x], least)


def distances_of(mask: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """How far every pixel lies from the mask, and how deep inside what is sure of it, pixels."""
    away = cv2.distanceTransform((mask < NOT).astype(np.uint8), cv2.DIST_L2, cv2.DIST_MASK_3)
    deep = cv2.distanceTransform((mask > SURE).astype(np.uint8), cv2.DIST_L2, cv2.DIST_MASK_3)
    return away, deep


def depth_of(reach: float) -> float:
    """How far the band goes into the surface."""
    return min(INTO * reach + 1, DEEPEST)


def clear_of(reach: float) -> float:
    """From how far away on the background is sure."""
    return max(1.0, CLEAR * reach)


def near_outline(away: np.ndarray, deep: np.ndarray, outside: float, inside: float, factor: int) -> np.ndarray:
    """Which cells of a grid ``factor`` times coarser lie within some distance of the outline, with a cell to spare, bool."""
    rows, columns = grid_of(away.shape, factor)
    spare = 2 * factor
    size = (columns, rows)
    near = cv2.resize(away, size, interpolation=cv2.INTER_NEAREST) <= outside + spare
    near &= cv2.resize(deep, size, interpolation=cv2.INTER_NEAREST) <= inside + spare
    return near


def colours_of(
    planes: np.ndarray, away: np.ndarray, deep: np.ndarray, reach: float, needed: np.ndarray
) -> tuple[np.ndarray, np.ndarray] | None:
    """The colours of the surface and of what lies behind it, spread, (3, h, w); None where one of them is nowhere sure.

    ``needed`` (h, w) bool says where, on a coarser grid; elsewhere both are nothing.
    """
    if deep.max() <= depth_of(reach) or away.max() <= clear_of(reach):
        return None
    far, sigma = 2 * ROOM * reach, SPREAD * reach
    front, one = spread(planes, deep, depth_of(reach), far, sigma, needed)
    behind, other = spread(planes, away, clear_of(reach), far, sigma, needed)
    # Where one of them is not known, they are alike, and the mask stays.
    return behind + np.minimum(one, other) * (front - behind), behind


def least_of(sensitivity: float) -> float:
    """Squared distance of two colours in linear light that is too small to tell; 0.0016 is 0.04 in one channel."""
    return float(0.0064 * 10 ** (-2 * sensitivity))


def follow(planes: np.ndarray, mask: np.ndarray, reach: float, sensitivity: float = 0.5) -> tuple[np.ndarray, Unmixed | None]:
    """Unmix the outline of a mask.

    Parameters
    ----------
    planes : (3, H, W) float32 linear light; mask : (H, W) float32.
    reach : how far outside the mask strands are looked for, pixels.
    sensitivity : 0 to 1: how alike surface and background may be and still be told apart.

    Returns
    -------
    The mask (the one that came where nothing is to be done), and what was spread, or None where there is no outline.
    """
    box = box_of(mask, NOT, ROOM * reach) if reach > 0 else None
    if box is None:
        return mask, None
    here, part = np.ascontiguousarray(planes[:, box[0], box[1]]), np.ascontiguousarray(mask[box])
    away, deep = distances_of(part)
    band = (away <= reach) & (deep <= depth_of(reach))
    needed = near_outline(away, deep, reach, depth_of(reach), max(1, int(SPREAD * reach / 2)))
    colours = colours_of(here, away, deep, reach, needed) if band.any() else None
    if colours is None:
        return mask, None
    out, unmixed = mask.copy(), np.empty_like(part)
    _unmix(here, part, band, *colours, least_of(sensitivity), unmixed)
    out[box] = unmixed
    return out, Unmixed(*colours, band, out, (box[0].start, box[1].start))


@kernel
def _surface(
    planes: np.ndarray,
    share: np.ndarray,
    rows: np.ndarray,
    columns: np.ndarray,
    front: np.ndarray,
    behind: np.ndarray,
    top: int,
    left: int,
    height: int,
    width: int,
    out: np.ndarray,
) -> None:
    for n in prange(rows.size):
        y, x = rows[n], columns[n]
        y0, y1, ty = place_in(y - top, height, front.shape[1])
        x0, x1, tx = place_in(x - left, width, front.shape[2])
        m = share[y, x]
        for k in range(3):
            f, b = between(front[k], y0, y1, ty, x0, x1, tx), between(behind[k], y0, y1, ty, x0, x1, tx)
            rest = planes[k, y, x] - m * f - (1 - m) * b
            out[k, 0, n] = max(f + rest / max(m, np.float32(FAINT)), np.float32(0))


def surface_colours(planes: np.ndarray, unmixed: Unmixed) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    """The surface's own colour in every pixel of the band that holds some of it.

    A mixed pixel is I = m·F' + (1 - m)·B, with F' the spread colour F and what the spread ones do not explain laid to it; in
    faint pixels only a part of that, or noise would be blown up. Adjusted, it is m·A(F') + (1 - m)·B = I + m·(A(F') - F').

    Returns
    -------
    Rows and columns (N,), and F' as planes (3, 1, N).
    """
    top, left = unmixed.corner
    height, width = unmixed.band.shape
    rows, columns = np.nonzero(unmixed.band & (unmixed.share[top : top + height, left : left + width] > 0.004))
    rows, columns = rows + top, columns + left
    out = np.empty((3, 1, rows.size), np.float32)
    _surface(planes, unmixed.share, rows, columns, unmixed.front, unmixed.behind, top, left, height, width, out)
    return rows, columns, out
