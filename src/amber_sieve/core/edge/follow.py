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
from .feather import blurred

#: From these values on the mask is sure of the surface, or of what is behind it.
SURE, NOT = 0.95, 0.05
#: Colours are spread with a standard deviation of this share of the reach, then with wider ones.
SPREAD, WIDER = 0.5, (1.0, 3.0, 9.0)
#: What lies behind is learnt from this share of the reach away: nearer there may be strands the mask missed.
CLEAR = 0.4
#: The band goes this share of the reach into the surface, but no further than a few pixels: folds are not mixtures.
INTO, DEEPEST = 0.15, 3.0
#: Least weight that counts as having found something.
FOUND = 2e-3
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
    def whole_band(self) -> np.ndarray:
        """The band as a mask (H, W) of the whole picture."""
        out = np.zeros(self.share.shape, bool)
        top, left = self.corner
        out[top : top + self.band.shape[0], left : left + self.band.shape[1]] = self.band
        return out


def _coarse(plane: np.ndarray, size: tuple[int, int]) -> np.ndarray:
    return cv2.resize(plane, size, interpolation=cv2.INTER_AREA)


def spread(planes: np.ndarray, weight: np.ndarray, sigma: float, factor: int) -> tuple[np.ndarray, np.ndarray]:
    """Colours carried from where ``weight`` is into everywhere, (3, h, w), ``factor`` times coarser than the planes (3, H, W).

    ``sigma`` is in pixels of the planes. Also returned is how far they are to be trusted, (h, w) in 0 to 1: far from any weight
    nothing is known.
    """
    height, width = weight.shape
    size = (max(1, round(width / factor)), max(1, round(height / factor)))
    small = _coarse(weight, size)
    carried = [_coarse(plane * weight, size) for plane in planes]
    out = np.zeros((3, *small.shape), np.float32)
    known = np.zeros(small.shape, np.float32)
    for wider in reversed(WIDER):
        near = max(sigma * wider / factor, 0.5)
        # A wide spread is smooth: it is worked at a scale at which it is a few pixels.
        lower = max(1, int(near / 4))
        low = (max(1, round(size[0] / lower)), max(1, round(size[1] / lower)))
        found = blurred(_coarse(small, low), near / lower)
        trust = cv2.resize(np.clip(found / FOUND - 1, 0, 1), size)
        known = np.maximum(known, trust)
        if wider == WIDER[-1]:
            trust = np.ones_like(trust)
        for k in range(3):
            # Narrow spreads lie over wider ones with a soft seam, so that colours do not jump where one gives out.
            mean = blurred(_coarse(carried[k], low), near / lower) / np.maximum(found, 1e-7)
            out[k] += trust * (cv2.resize(mean, size) - out[k])
    return out, known


@inner
def _between(coarse: np.ndarray, y0: int, y1: int, ty: float, x0: int, x1: int, tx: float) -> float:
    """A coarse plane between four of its pixels, bilinear."""
    return (coarse[y0, x0] * (1 - tx) + coarse[y0, x1] * tx) * (1 - ty) + (coarse[y1, x0] * (1 - tx) + coarse[y1, x1] * tx) * ty


@kernel
def _unmix(
    planes: np.ndarray, mask: np.ndarray, band: np.ndarray, front: np.ndarray, behind: np.ndarray, least: float, out: np.ndarray
) -> None:
    height, width = mask.shape
    rows, columns = front.shape[1], front.shape[2]
    for y in prange(height):
        fy = min(max((y + 0.5) * rows / height - 0.5, 0.0), rows - 1.0)
        y0 = int(fy)
        y1, ty = min(y0 + 1, rows - 1), np.float32(fy - y0)
        for x in range(width):
            if not band[y, x]:
                out[y, x] = mask[y, x]
                continue
            fx = min(max((x + 0.5) * columns / width - 0.5, 0.0), columns - 1.0)
            x0 = int(fx)
            x1, tx = min(x0 + 1, columns - 1), np.float32(fx - x0)
            along, across = np.float32(0), np.float32(0)
            for k in range(3):
                f, b = _between(front[k], y0, y1, ty, x0, x1, tx), _between(behind[k], y0, y1, ty, x0, x1, tx)
                along += (planes[k, y, x] - b) * (f - b)
                across += (f - b) * (f - b)
            share = min(max(along / max(across, np.float32(1e-12)), np.float32(0)), np.float32(1))
            # What noise makes of pure background and pure surface is neither.
            share = min(max((share - np.float32(REST)) / np.float32(1 - 2 * REST), np.float32(0)), np.float32(1))
            # Between "too alike" and twice that, unmixing comes in gradually.
            trust = min(max(across / np.float32(least) - 1, np.float32(0)), np.float32(1))
            out[y, x] = mask[y, x] + trust * (share - mask[y, x])


def band_of(mask: np.ndarray, reach: float) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    """The band round the outline, and weights (float32) of where the surface and what is behind it are sure."""
    outside = (mask < NOT).astype(np.uint8)
    away = cv2.distanceTransform(outside, cv2.DIST_L2, cv2.DIST_MASK_3)
    deep = cv2.distanceTransform((mask > SURE).astype(np.uint8), cv2.DIST_L2, cv2.DIST_MASK_3)
    into = min(INTO * reach + 1, DEEPEST)
    band = (away <= reach) & (deep <= into)
    return band, (deep > into).astype(np.float32), (away > max(1.0, CLEAR * reach)).astype(np.float32)


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
    band, sure_front, sure_behind = band_of(part, reach)
    if not band.any() or not sure_front.any() or not sure_behind.any():
        return mask, None
    sigma = SPREAD * reach
    factor = max(1, int(sigma / 2))
    (front, one), (behind, other) = spread(here, sure_front, sigma, factor), spread(here, sure_behind, sigma, factor)
    # Where one of them is not known, they are alike, and the mask stays.
    front = behind + np.minimum(one, other) * (front - behind)
    out, unmixed = mask.copy(), np.empty_like(part)
    # Squared distance of two colours in linear light that is too small to tell; 0.0016 is 0.04 in one channel.
    least = 0.0064 * 10 ** (-2 * sensitivity)
    _unmix(here, part, band, front, behind, least, unmixed)
    out[box] = unmixed
    return out, Unmixed(front, behind, band, out, (box[0].start, box[1].start))


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
    high, wide = front.shape[1], front.shape[2]
    for n in prange(rows.size):
        y, x = rows[n], columns[n]
        fy = min(max((y - top + 0.5) * high / height - 0.5, 0.0), high - 1.0)
        fx = min(max((x - left + 0.5) * wide / width - 0.5, 0.0), wide - 1.0)
        y0, x0 = int(fy), int(fx)
        y1, x1 = min(y0 + 1, high - 1), min(x0 + 1, wide - 1)
        ty, tx = np.float32(fy - y0), np.float32(fx - x0)
        m = share[y, x]
        for k in range(3):
            f, b = _between(front[k], y0, y1, ty, x0, x1, tx), _between(behind[k], y0, y1, ty, x0, x1, tx)
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
