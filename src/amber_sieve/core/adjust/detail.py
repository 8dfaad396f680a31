"""Detail: noise reduction, blur, local contrast, sharpening and grain, with no colour drawn in from outside the mask.

All means are normalised by the mask: H. Knutsson, C.-F. Westin, "Normalized and differential convolution" (1993).
"""

from __future__ import annotations

from collections.abc import Callable

import cv2
import numpy as np

from ..colour.measures import WEIGHT_B, WEIGHT_G, WEIGHT_R
from ..colour.oklab import from_oklab, to_oklab
from ..colour.roots import cube_root
from ..edge.box import box_of
from ..edge.feather import blurred
from ..frame import BRIGHTEST
from ..parallel import inner, kernel, prange
from .chain import bounded

#: A mask that weighs less than this tells nothing about its surroundings.
LEAST = np.float32(1e-4)
#: Gaussians wider than this are taken on a picture reduced so far that they are this wide there.
WIDEST = 4.0
#: Standard deviations after which a Gaussian ends: what lies farther out weighs less than 0.04 % (common practice).
DEVIATIONS = 4
#: How many of its radii the filter of local contrast looks: it averages twice, once for the fit and once for its parts.
RADII = 2
#: Levels of the wavelets that noise is told in: grain of photographs is seldom coarser than 16 pixels (by eye on the noisy yard).
LEVELS = 4
#: How many pixels these levels look: 2 + 4 + 8 + 16.
LOOKS_FOR_NOISE = 30
#: Standard deviation of noise in Oklab that all of noise reduction takes away, in lightness and in colour (by eye on the noisy yard).
MOST_NOISE = (0.02, 0.05)
#: Shares of the deviation of white noise that each level holds, the finest first (measured on white noise).
SHARES = (0.89, 0.20, 0.086, 0.041)
#: Squared contrast in cube-rooted luminance from which on the base of local contrast keeps an edge: so edges get no halo.
EDGE = 0.001
#: Most that local lightness is amplified by all of local contrast (by eye on the yard: more makes rims).
MOST_CONTRAST = 1.5
#: Most that local lightness is amplified by all of sharpening (by eye on the yard: more makes grain of flat places).
MOST_SHARPENING = 3.0
#: Standard deviation of cube-rooted luminance that all of grain adds to a mid grey.
MOST_GRAIN = 0.06


def _factor_of(sigma: float) -> int:
    """By how much a picture may be reduced before a Gaussian is taken of it."""
    return max(1, int(sigma / WIDEST))


def _reduced(plane: np.ndarray, factor: int) -> np.ndarray:
    """A plane (H, W) by the means of squares, its last rows and columns repeated to fill them."""
    if factor == 1:
        return plane
    height, width = plane.shape
    padded = cv2.copyMakeBorder(plane, 0, -height % factor, 0, -width % factor, cv2.BORDER_REPLICATE)
    return cv2.resize(padded, (padded.shape[1] // factor, padded.shape[0] // factor), interpolation=cv2.INTER_AREA)


def _enlarged(plane: np.ndarray, factor: int, shape: tuple[int, int]) -> np.ndarray:
    """The way back, by straight lines between the middles of the squares."""
    if factor == 1:
        return plane
    out: np.ndarray = cv2.resize(plane, None, fx=factor, fy=factor, interpolation=cv2.INTER_LINEAR)[: shape[0], : shape[1]]
    return out


def gaussian(plane: np.ndarray, sigma: float) -> np.ndarray:
    """Gaussian blur, edges repeated; wide ones on a reduced picture."""
    factor = _factor_of(sigma)
    if factor == 1:
        return blurred(plane, sigma)
    # Reducing and enlarging blur a little too: the variance of a square is f² / 12, that of the two ends of a straight line f² / 6.
    left = np.sqrt(sigma**2 - factor**2 / 4) / factor
    return _enlarged(blurred(_reduced(plane, factor), left), factor, plane.shape)


class Weighted:
    """Gaussian means in which every pixel counts by its weight; where nothing weighs, what comes stays.

    Parameters
    ----------
    weights : (H, W) float32; sigma : standard deviation, pixels.
    """

    def __init__(self, weights: np.ndarray, sigma: float) -> None:
        self._weights, self._sigma = weights, sigma
        below = gaussian(weights, sigma)
        self._inside, self._over = below > LEAST, 1 / np.maximum(below, LEAST)

    def mean(self, plane: np.ndarray) -> np.ndarray:
        """The means of a plane (H, W)."""
        found = gaussian(plane * self._weights, self._sigma)
        found *= self._over
        np.copyto(found, plane, where=~self._inside)
        return found


@kernel
def _roots(planes: np.ndarray, out: np.ndarray) -> None:
    for y in prange(planes.shape[1]):
        r, g, b, row = planes[0, y], planes[1, y], planes[2, y], out[y]
        for x in range(row.size):
            row[x] = cube_root(max(WEIGHT_R * r[x] + WEIGHT_G * g[x] + WEIGHT_B * b[x], np.float32(0)))


@kernel
def _relit(planes: np.ndarray, roots: np.ndarray, changes: np.ndarray, out: np.ndarray) -> None:
    """Light scaled so that its cube-rooted luminance changes so much: hue and saturation stay."""
    least, most = np.float32(0), np.float32(4)
    for y in prange(planes.shape[1]):
        root, change = roots[y], changes[y]
        for k in range(3):
            source, target = planes[k, y], out[k, y]
            for x in range(root.size):
                factor = min(max(np.float32(1) + change[x] / max(root[x], np.float32(1e-3)), least), most)
                target[x] = bounded(source[x] * factor * factor * factor)


def _relighted(planes: np.ndarray, change_of: Callable[[np.ndarray], np.ndarray]) -> np.ndarray:
    roots = np.empty(planes.shape[1:], np.float32)
    _roots(planes, roots)
    out = np.empty_like(planes)
    _relit(planes, roots, change_of(roots).astype(np.float32, copy=False), out)
    return out


def _sharpened(planes: np.ndarray, weights: np.ndarray, amount: float, sigma: float) -> np.ndarray:
    """Unsharp masking of lightness (common practice, no source)."""
    factor = np.float32(amount * MOST_SHARPENING)
    return _relighted(planes, lambda roots: factor * (roots - Weighted(weights, sigma).mean(roots)))


def _with_local_contrast(planes: np.ndarray, weights: np.ndarray, amount: float, radius: float) -> np.ndarray:
    """What a guided filter leaves out is amplified: K. He, J. Sun, X. Tang, "Guided image filtering" (2010), its coefficients found on a
    reduced picture as in K. He, J. Sun, "Fast guided filter" (2015)."""
    sigma = radius / 2
    factor = _factor_of(sigma)

    def change(roots: np.ndarray) -> np.ndarray:
        small, share = _reduced(roots * weights, factor), _reduced(weights, factor)
        squares = _reduced(roots * roots * weights, factor)
        over = 1 / np.maximum(blurred(share, sigma / factor), LEAST)
        middle = blurred(small, sigma / factor) * over
        spread = np.maximum(blurred(squares, sigma / factor) * over - middle * middle, 0)
        slope = spread / (spread + np.float32(EDGE))
        # Both weigh by the mask too, so that what lies outside has no say.
        slope_mean = blurred(slope * share, sigma / factor) * over
        rest_mean = blurred((1 - slope) * middle * share, sigma / factor) * over
        kept = _enlarged(slope_mean, factor, roots.shape) * roots
        kept += _enlarged(rest_mean, factor, roots.shape)
        np.subtract(roots, kept, out=kept)
        kept *= np.float32(amount * MOST_CONTRAST)
        return kept

    return _relighted(planes, change)


#: The cubic B-spline that the wavelets are made with.
S0, S1, S2 = np.float32(6 / 16), np.float32(4 / 16), np.float32(1 / 16)


@kernel
def _across(plane: np.ndarray, weights: np.ndarray, hole: int, out: np.ndarray) -> None:
    """The spline along rows, with its taps so many pixels apart, of a plane times its weights."""
    width = plane.shape[1]
    for y in prange(plane.shape[0]):
        padded, values, weight, row = np.empty(width + 4 * hole, np.float32), plane[y], weights[y], out[y]
        taps = (padded[:width], padded[hole:], padded[2 * hole :], padded[3 * hole :], padded[4 * hole :])
        t0, t1, t2, t3, t4 = taps
        for x in range(width):
            t2[x] = values[x] * weight[x]
        padded[: 2 * hole] = t2[0]
        padded[width + 2 * hole :] = t2[width - 1]
        for x in range(width):
            row[x] = S2 * (t0[x] + t4[x]) + S1 * (t1[x] + t3[x]) + S0 * t2[x]


@kernel
def _level(left: np.ndarray, crossed: np.ndarray, below: np.ndarray, hole: int, least: float, kept: np.ndarray, coarse: np.ndarray) -> None:
    """The spline down the columns gives the coarse plane; what it leaves of ``left``, lowered, is added to what is kept."""
    height, zero, one, tiny, square = left.shape[0], np.float32(0), np.float32(1), np.float32(1e-20), np.float32(least * least)
    for y in prange(height):
        at = np.int64(y)
        farther, far = at - 2 * hole, at - hole
        near, nearer = at + hole, at + 2 * hole
        r0, r1, r2 = crossed[farther if farther > 0 else 0], crossed[far if far > 0 else 0], crossed[at]
        r3, r4 = crossed[near if near < height else height - 1], crossed[nearer if nearer < height else height - 1]
        before, weight, keep, out = left[at], below[at], kept[at], coarse[at]
        for x in range(left.shape[1]):
            mean = (S2 * (r0[x] + r4[x]) + S1 * (r1[x] + r3[x]) + S0 * r2[x]) / max(weight[x], LEAST)
            mean = mean if weight[x] > LEAST else before[x]
            wavelet = before[x] - mean
            size = abs(wavelet)
            keep[x] += wavelet * max(one - square / max(size * size, tiny), zero)
            out[x] = mean


def _spread(weights: np.ndarray, hole: int) -> np.ndarray:
    """The spline both ways."""
    ones, crossed, kept, out = np.ones_like(weights), *(np.empty_like(weights) for _ in range(3))
    _across(weights, ones, hole, crossed)
    _level(weights, crossed, ones, hole, 0.0, kept, out)
    return out


def _denoised(planes: np.ndarray, weights: np.ndarray, amount: float, scale: float) -> np.ndarray:
    """Small wavelets lowered: the à trous transform of J.-L. Starck, F. Murtagh, "Automatic noise estimation from the multiresolution
    support" (1998), lowered by the non-negative garrote (H.-Y. Gao, "Wavelet shrinkage denoising", 1998) at three deviations, in Oklab."""
    lab = to_oklab(planes)
    skipped = max(0, round(-np.log2(scale)))  # the finest levels are gone from a reduced picture
    levels = [(2**level, _spread(weights, 2**level), SHARES[level + skipped]) for level in range(LEVELS - skipped)]
    crossed, kept, one, other = (np.empty_like(weights) for _ in range(4))
    for k in range(3):
        most, left = amount * MOST_NOISE[0 if k == 0 else 1], lab[k]
        kept[...] = 0
        for number, (hole, below, share) in enumerate(levels):
            coarse = other if number % 2 else one
            _across(left, weights, hole, crossed)
            _level(left, crossed, below, hole, 3 * most * share, kept, coarse)
            left = coarse
        np.add(kept, left, out=lab[k])
    light = from_oklab(lab)
    return np.clip(light, -BRIGHTEST, BRIGHTEST, out=light)


@inner
def _noise_at(column: int, row: int, seed: int) -> np.float32:
    """A number that a place and a seed always give, -1 to 1, of a triangular distribution: two rounds of mixed bits."""
    h = np.uint32(column) * np.uint32(0x9E3779B1) ^ np.uint32(row) * np.uint32(0x85EBCA77) ^ np.uint32(seed) * np.uint32(0xC2B2AE3D)
    h = np.uint32((h ^ (h >> np.uint32(15))) * np.uint32(0x2C1B3C6D))
    h = np.uint32((h ^ (h >> np.uint32(12))) * np.uint32(0x297A2D39))
    h = np.uint32(h ^ (h >> np.uint32(15)))
    return (
        np.float32(h & np.uint32(0xFFFF)) * np.float32(1 / 65536) + np.float32(h >> np.uint32(16)) * np.float32(1 / 65536) - np.float32(1)
    )


@kernel
def _grain(left: float, top: float, step: float, seed: int, out: np.ndarray) -> None:
    """Noise between the corners of a lattice, mixed so that its deviation is the same everywhere between them."""
    one, two, three = np.float32(1), np.float32(2), np.float32(3)
    for y in prange(out.shape[0]):
        down = (y + 0.5) * step + top
        row = int(np.floor(down))
        ty = np.float32(down - row)
        ty = ty * ty * (three - two * ty)
        for x in range(out.shape[1]):
            across = (x + 0.5) * step + left
            column = int(np.floor(across))
            tx = np.float32(across - column)
            tx = tx * tx * (three - two * tx)
            above = (one - tx) * _noise_at(column, row, seed) + tx * _noise_at(column + 1, row, seed)
            under = (one - tx) * _noise_at(column, row + 1, seed) + tx * _noise_at(column + 1, row + 1, seed)
            spread = ((one - tx) * (one - tx) + tx * tx) * ((one - ty) * (one - ty) + ty * ty)
            out[y, x] = ((one - ty) * above + ty * under) / np.sqrt(spread)


def _grained(planes: np.ndarray, amount: float, size: float, scale: float, corner: tuple[float, float], seed: int) -> np.ndarray:
    """Grain of some size, full-resolution pixels, that lies fast on the picture; it is strongest in midtones."""
    lattice = max(size, 1 / scale)  # a reduced picture shows the mean of so many grains
    noise = np.empty(planes.shape[1:], np.float32)
    _grain(corner[0] / lattice, corner[1] / lattice, 1 / (scale * lattice), seed, noise)
    faded = min(1.0, size * scale) * amount * MOST_GRAIN * 6**0.5
    return _relighted(planes, lambda roots: np.float32(4 * faded) * noise * roots * np.clip(1.1 - roots, 0.1, 1))


def looks(
    noise: float = 0.0, blur: float = 0.0, local_contrast: float = 0.0, contrast_radius: float = 40.0, sharpen: float = 0.0,
    sharpen_radius: float = 1.0, grain: float = 0.0, grain_size: float = 1.5, frame: int = 0,
) -> float:  # fmt: skip
    """How far detail looks beyond a pixel, full-resolution pixels."""
    far = (LOOKS_FOR_NOISE if noise else 0) + DEVIATIONS * blur
    far += DEVIATIONS * RADII * contrast_radius / 2 if local_contrast else 0
    return far + (DEVIATIONS * sharpen_radius + 1 if sharpen else 0)


def with_detail(
    planes: np.ndarray, mask: np.ndarray, noise: float = 0.0, blur: float = 0.0, local_contrast: float = 0.0, contrast_radius: float = 40.0,
    sharpen: float = 0.0, sharpen_radius: float = 1.0, grain: float = 0.0, grain_size: float = 1.5, frame: int = 0,
    scale: float = 1.0, origin: tuple[int, int] = (0, 0),
) -> np.ndarray:  # fmt: skip
    """A picture with detail worked on inside a mask, in the order of the parameters; what it becomes outside is of no use.

    Parameters
    ----------
    planes : (3, H, W) float32 linear light; mask : (H, W) float32, by which pixels count for their neighbours.
    noise, local_contrast, sharpen, grain : per cent; below 0, local contrast is lowered.
    blur, contrast_radius, sharpen_radius, grain_size : full-resolution pixels; the first and third are standard deviations.
    frame : its number: grain changes from frame to frame.
    scale, origin : of the picture, see `Frame`.
    """
    box = box_of(mask, 1e-9, 0)
    if box is None or not (noise or blur or local_contrast or sharpen or grain):
        return planes
    whole = mask[box].shape == mask.shape
    part, weights = (planes, mask) if whole else (np.ascontiguousarray(planes[:, box[0], box[1]]), np.ascontiguousarray(mask[box]))
    if noise:
        part = _denoised(part, weights, noise / 100, scale)
    if blur:
        softened = Weighted(weights, blur * scale)
        part = np.stack([softened.mean(plane) for plane in part])
    if local_contrast:
        part = _with_local_contrast(part, weights, local_contrast / 100, max(1.0, contrast_radius * scale))
    if sharpen and sharpen_radius * scale > 0.2:  # on a picture reduced so far there is nothing left of it
        part = _sharpened(part, weights, sharpen / 100, sharpen_radius * scale)
    if grain:
        corner = (origin[0] + box[1].start / scale, origin[1] + box[0].start / scale)
        part = _grained(part, grain / 100, grain_size, scale, corner, frame)
    if whole:
        return part
    out = planes.copy()
    out[:, box[0], box[1]] = part
    return out
