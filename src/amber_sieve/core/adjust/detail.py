"""Detail: noise reduction, blur, local contrast, sharpening and grain, with no colour drawn in from
outside the mask.

All means are normalised by the mask: H. Knutsson, C.-F. Westin, "Normalized and differential
convolution" (1993).
"""

from __future__ import annotations

from collections.abc import Callable

import cv2
import numpy as np

from ..colour.measures import WEIGHT_B, WEIGHT_G, WEIGHT_R
from ..colour.roots import cube_root
from ..edge.box import box_of
from ..edge.feather import blurred
from ..jit.parallel import inner, kernel, prange
from .chain import bounded
from .noise import LEAST, NOISE_SUPPORT, denoised

#: Gaussians wider than this are taken on a picture reduced so far that they are this wide there.
WIDEST = 4.0
#: Standard deviations after which a Gaussian ends: what lies farther out weighs less than 0.04 %
#: (common practice).
DEVIATIONS = 4
#: How many of its radii the filter of local contrast looks: it averages twice, once for the fit and
#: once for its parts.
RADII = 2
#: Squared contrast in cube-rooted luminance from which on the base of local contrast keeps an edge:
#: so edges get no halo.
EDGE = 0.001
#: Most that local lightness is amplified by all of local contrast (by eye on the yard: more makes
#: rims).
MOST_CONTRAST = 1.5
#: Most that local lightness is amplified by all of sharpening (by eye on the yard: more makes grain
#: of flat places).
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
    padded = cv2.copyMakeBorder(
        plane, 0, -height % factor, 0, -width % factor, cv2.BORDER_REPLICATE
    )
    return cv2.resize(
        padded, (padded.shape[1] // factor, padded.shape[0] // factor), interpolation=cv2.INTER_AREA
    )


def _enlarged(plane: np.ndarray, factor: int, shape: tuple[int, int]) -> np.ndarray:
    """The way back, by straight lines between the middles of the squares."""
    if factor == 1:
        return plane
    out: np.ndarray = cv2.resize(plane, None, fx=factor, fy=factor, interpolation=cv2.INTER_LINEAR)[
        : shape[0], : shape[1]
    ]
    return out


def gaussian(plane: np.ndarray, sigma: float) -> np.ndarray:
    """Gaussian blur, edges repeated; wide ones on a reduced picture."""
    factor = _factor_of(sigma)
    if factor == 1:
        return blurred(plane, sigma)
    # Reducing and enlarging blur a little too: the variance of a square is f² / 12, that of the two
    # ends of a straight line f² / 6.
    left = np.sqrt(sigma**2 - factor**2 / 4) / factor
    return _enlarged(blurred(_reduced(plane, factor), left), factor, plane.shape)


class Weighted:
    """Gaussian means in which every pixel counts by its weight; where nothing weighs, what comes
    stays.

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
            row[x] = cube_root(
                max(WEIGHT_R * r[x] + WEIGHT_G * g[x] + WEIGHT_B * b[x], np.float32(0))
            )


@kernel
def _relit(planes: np.ndarray, roots: np.ndarray, changes: np.ndarray, out: np.ndarray) -> None:
    """Scale light so that its cube-rooted luminance changes: hue and saturation stay."""
    least, most = np.float32(0), np.float32(4)
    for y in prange(planes.shape[1]):
        root, change = roots[y], changes[y]
        for k in range(3):
            source, target = planes[k, y], out[k, y]
            for x in range(root.size):
                factor = min(
                    max(np.float32(1) + change[x] / max(root[x], np.float32(1e-3)), least), most
                )
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


def _with_local_contrast(
    planes: np.ndarray, weights: np.ndarray, amount: float, radius: float
) -> np.ndarray:
    """Amplify what a guided filter leaves out: K. He, J. Sun, X. Tang, "Guided image filtering"
    (2010), its coefficients found on a reduced picture as in K. He, J. Sun, "Fast guided filter"
    (2015).
    """
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


@inner
def _noise_at(column: int, row: int, seed: int) -> np.float32:
    """A number that a place and a seed always give, -1 to 1, of a triangular distribution: two
    rounds of mixed bits.
    """
    h = (
        np.uint32(column) * np.uint32(0x9E3779B1)
        ^ np.uint32(row) * np.uint32(0x85EBCA77)
        ^ np.uint32(seed) * np.uint32(0xC2B2AE3D)
    )
    h = np.uint32((h ^ (h >> np.uint32(15))) * np.uint32(0x2C1B3C6D))
    h = np.uint32((h ^ (h >> np.uint32(12))) * np.uint32(0x297A2D39))
    h = np.uint32(h ^ (h >> np.uint32(15)))
    return (
        np.float32(h & np.uint32(0xFFFF)) * np.float32(1 / 65536)
        + np.float32(h >> np.uint32(16)) * np.float32(1 / 65536)
        - np.float32(1)
    )


@kernel
def _grain(left: float, top: float, step: float, seed: int, out: np.ndarray) -> None:
    """Noise between the corners of a lattice, mixed so that its deviation is the same everywhere
    between them.
    """
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
            above = (one - tx) * _noise_at(column, row, seed) + tx * _noise_at(
                column + 1, row, seed
            )
            under = (one - tx) * _noise_at(column, row + 1, seed) + tx * _noise_at(
                column + 1, row + 1, seed
            )
            spread = ((one - tx) * (one - tx) + tx * tx) * ((one - ty) * (one - ty) + ty * ty)
            out[y, x] = ((one - ty) * above + ty * under) / np.sqrt(spread)


def _grained(
    planes: np.ndarray,
    amount: float,
    size: float,
    scale: float,
    corner: tuple[float, float],
    seed: int,
) -> np.ndarray:
    """Grain of some size, full-resolution pixels, that lies fast on the picture; it is strongest in
    midtones.
    """
    lattice = max(size, 1 / scale)  # a reduced picture shows means of grains
    noise = np.empty(planes.shape[1:], np.float32)
    _grain(corner[0] / lattice, corner[1] / lattice, 1 / (scale * lattice), seed, noise)
    faded = min(1.0, size * scale) * amount * MOST_GRAIN * 6**0.5
    return _relighted(
        planes, lambda roots: np.float32(4 * faded) * noise * roots * np.clip(1.1 - roots, 0.1, 1)
    )


def support_radius(
    noise: float = 0.0,
    blur: float = 0.0,
    local_contrast: float = 0.0,
    contrast_radius: float = 40.0,
    sharpen: float = 0.0,
    sharpen_radius: float = 1.0,
    grain: float = 0.0,
    grain_size: float = 1.5,
    frame: int = 0,
) -> float:
    """Return how far detail looks beyond a pixel, full-resolution pixels."""
    far = (NOISE_SUPPORT if noise else 0) + DEVIATIONS * blur
    far += DEVIATIONS * RADII * contrast_radius / 2 if local_contrast else 0
    return far + (DEVIATIONS * sharpen_radius + 1 if sharpen else 0)


def with_detail(
    planes: np.ndarray,
    mask: np.ndarray,
    noise: float = 0.0,
    blur: float = 0.0,
    local_contrast: float = 0.0,
    contrast_radius: float = 40.0,
    sharpen: float = 0.0,
    sharpen_radius: float = 1.0,
    grain: float = 0.0,
    grain_size: float = 1.5,
    frame: int = 0,
    scale: float = 1.0,
    origin: tuple[int, int] = (0, 0),
) -> np.ndarray:
    """A picture with detail worked on inside a mask, in the order of the parameters; what it
    becomes outside is of no use.

    Parameters
    ----------
    planes : (3, H, W) float32 linear light; mask : (H, W) float32, by which pixels count for their
        neighbours.
    noise, local_contrast, sharpen, grain : per cent; below 0, local contrast is lowered.
    blur, contrast_radius, sharpen_radius, grain_size : full-resolution pixels; the first and third
        are standard deviations.
    frame : its number: grain changes from frame to frame.
    scale, origin : of the picture, see `Frame`.
    """
    box = box_of(mask, 1e-9, 0)
    if box is None or not (noise or blur or local_contrast or sharpen or grain):
        return planes
    whole = mask[box].shape == mask.shape
    part, weights = (
        (planes, mask)
        if whole
        else (np.ascontiguousarray(planes[:, box[0], box[1]]), np.ascontiguousarray(mask[box]))
    )
    if noise:
        part = denoised(part, weights, noise / 100, scale)
    if blur:
        softened = Weighted(weights, blur * scale)
        part = np.stack([softened.mean(plane) for plane in part])
    if local_contrast:
        part = _with_local_contrast(
            part, weights, local_contrast / 100, max(1.0, contrast_radius * scale)
        )
    if (
        sharpen and sharpen_radius * scale > 0.2
    ):  # on a picture reduced so far there is nothing left of it
        part = _sharpened(part, weights, sharpen / 100, sharpen_radius * scale)
    if grain:
        corner = (origin[0] + box[1].start / scale, origin[1] + box[0].start / scale)
        part = _grained(part, grain / 100, grain_size, scale, corner, frame)
    if whole:
        return part
    out = planes.copy()
    out[:, box[0], box[1]] = part
    return out
