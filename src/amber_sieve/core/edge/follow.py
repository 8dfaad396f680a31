"""Follow: the pixels of an outline unmixed into the surface and what lies behind it. Ours.

A pixel on an outline is a mixture, in linear light, of the surface's colour F and the colour B
behind it. Both are spread from where the mask is sure into the band round the outline by normalised
convolution (H. Knutsson, C.-F. Westin, "Normalized and differential convolution", 1993), with wider
ones where a narrow one finds nothing. The mask of a band pixel I is then the share of F that
explains it best: clip((I - B)·(F - B) / |F - B|²). Where F and B are too alike to tell, the mask
stays.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

import cv2
import numpy as np

from ..jit.parallel import inner, kernel, prange
from .box import box_of
from .grid import Grid, between, enlarged, grid_over, place_in, sampled
from .normalized_convolution import (
    CELLS_A_DEVIATION,
    ENDS,
    WIDER,
    PaddedBox,
    normalized_convolution,
    padded_box,
)

#: From this value on the mask is sure of the surface.
FOREGROUND_MIN = 0.95
#: Up to this value it is sure of what is behind it.
BACKGROUND_MAX = 0.05
#: Colours are spread with a standard deviation of this share of the reach, then with wider ones.
SPREAD = 0.5
#: What lies behind is learnt from this share of the reach away: nearer there may be strands the
#: mask missed.
CLEAR = 0.4
#: The band goes this share of the reach into the surface: folds are not mixtures.
INTO = 0.15
#: But no further than this many full-resolution pixels.
DEEPEST = 3.0
#: Shares below this are nothing, and above its complement all.
REST = 0.04
#: Reaches round the mask from which the colour behind it is learnt: to where the widest spread
#: ends, and two cells of its grid.
HALO = SPREAD * WIDER[-1] * (ENDS + 1 / CELLS_A_DEVIATION)
#: How far the mask of a pixel looks, in reaches: to where the widest spread ends, two cells of its
#: grid and one of the finer farther, and from there to where the mask is near.
SUPPORT_PER_REACH = SPREAD * WIDER[-1] * (ENDS + 2 / CELLS_A_DEVIATION) + 1


@dataclass(frozen=True)
class EdgeMatte:
    """Colours of the surface and of the background, spread over a picture at a coarser scale.

    Attributes
    ----------
    foreground, background : (3, h, w) float32 linear light, by the cells of ``grid`` over a box of
        the picture.
    band : (h', w') bool, the pixels of the box whose mask was taken from them.
    alpha : (H, W) float32, how much of every pixel of the picture is surface.
    corner : row and column of the box's top left.
    feathered : (H, W) float32, the mask where it was softened afterwards; None where it is alpha.
    """

    foreground: np.ndarray
    background: np.ndarray
    grid: Grid
    band: np.ndarray
    alpha: np.ndarray
    corner: tuple[int, int] = (0, 0)
    feathered: np.ndarray | None = None

    def with_mask(self, mask: np.ndarray) -> EdgeMatte:
        """The same with another mask (H, W) of the surface."""
        if self.feathered is None:
            return replace(self, alpha=mask)
        return replace(self, feathered=mask)

    def shares(self, rows: np.ndarray, columns: np.ndarray) -> np.ndarray:
        """Return how much of the mask is surface at some pixels, (N,): what a feather lays beyond
        the surface is the picture as it is.
        """
        if self.feathered is None:
            return np.ones(rows.size, np.float32)
        alpha, mask = self.alpha[rows, columns], self.feathered[rows, columns]
        return np.divide(alpha, mask, out=np.ones_like(alpha), where=mask > alpha)

    def at_pixels(self, plane: np.ndarray) -> np.ndarray:
        """A plane (h, w) of the cells at every pixel of the box, (h', w')."""
        return enlarged(plane, self.grid, self.band.shape)

    @property
    def opposite(self) -> EdgeMatte:
        """The same of the background, for the mask turned round."""
        return EdgeMatte(
            self.background,
            self.foreground,
            self.grid,
            self.band,
            np.subtract(1, self.alpha),
            self.corner,
            None if self.feathered is None else np.subtract(1, self.feathered),
        )

    @property
    def whole_band(self) -> np.ndarray:
        """The band as a mask (H, W) of the whole picture."""
        out = np.zeros(self.alpha.shape, bool)
        top, left = self.corner
        out[top : top + self.band.shape[0], left : left + self.band.shape[1]] = self.band
        return out


@inner
def projections(
    planes: np.ndarray, y: int, x: int, foreground: np.ndarray, background: np.ndarray,
    y0: int, y1: int, ty: np.float32, x0: int, x1: int, tx: np.float32,
) -> tuple[np.float32, np.float32, np.float32]:  # fmt: skip
    """(I - B)·(F - B), |F - B|² and |I - B|² of a pixel, F and B between four pixels of coarse
    planes.
    """
    along, across, off = np.float32(0), np.float32(0), np.float32(0)
    for k in range(3):
        f, b = (
            between(foreground[k], y0, y1, ty, x0, x1, tx),
            between(background[k], y0, y1, ty, x0, x1, tx),
        )
        way, away = f - b, planes[k, y, x] - b
        along += away * way
        across += way * way
        off += away * away
    return along, across, off


@inner
def alpha_of(along: np.float32, across: np.float32, came: np.float32, least: float) -> np.float32:
    """The share of the surface in a pixel: (I - B)·(F - B) and |F - B|² say what it is, ``came``
    what the mask had there.
    """
    alpha = min(max(along / max(across, np.float32(1e-12)), np.float32(0)), np.float32(1))
    # What noise makes of pure background and pure surface is neither.
    alpha = min(
        max((alpha - np.float32(REST)) / np.float32(1 - 2 * REST), np.float32(0)), np.float32(1)
    )
    # Between "too alike" and twice that, unmixing comes in gradually.
    trust = min(max(across / np.float32(least) - 1, np.float32(0)), np.float32(1))
    return came + trust * (alpha - came)


@kernel
def _unmix(
    planes: np.ndarray,
    rows_from: int,
    columns_from: int,
    mask: np.ndarray,
    band: np.ndarray,
    foreground: np.ndarray,
    background: np.ndarray,
    cell: int,
    top: int,
    left: int,
    least: float,
    out: np.ndarray,
) -> None:
    height, width = mask.shape
    for y in prange(height):
        y0, y1, ty = place_in(y + 0.5, top, cell, foreground.shape[1])
        for x in range(width):
            if not band[y, x]:
                out[y, x] = mask[y, x]
                continue
            x0, x1, tx = place_in(x + 0.5, left, cell, foreground.shape[2])
            along, across, _ = projections(
                planes,
                rows_from + y,
                columns_from + x,
                foreground,
                background,
                y0,
                y1,
                ty,
                x0,
                x1,
                tx,
            )
            out[y, x] = alpha_of(along, across, mask[y, x], least)


def distances_of(mask: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """Return how far every pixel lies from the mask, and how deep inside what is sure of it,
    pixels.
    """
    away = cv2.distanceTransform(
        (mask < BACKGROUND_MAX).astype(np.uint8), cv2.DIST_L2, cv2.DIST_MASK_3
    )
    deep = cv2.distanceTransform(
        (mask > FOREGROUND_MIN).astype(np.uint8), cv2.DIST_L2, cv2.DIST_MASK_3
    )
    return away, deep


def depth_of(reach: float) -> float:
    """Return how far the band goes into the surface."""
    return min(INTO * reach + 1, DEEPEST)


def clear_of(reach: float) -> float:
    """From how far away on the background is sure."""
    return max(1.0, CLEAR * reach)


#: Cells that colours are needed in beyond the band, so that they can be interpolated at its rim.
SPARE = 2


def near_outline(
    away: np.ndarray, deep: np.ndarray, outside: float, inside: float, there: PaddedBox
) -> np.ndarray:
    """Return which cells of the box round a part lie within some distance of the part's outline,
    with some to spare, bool.
    """
    cell = there.grid.cell
    own = grid_over(
        away.shape, cell, (there.corner[0] + there.part[0], there.corner[1] + there.part[1])
    )
    spare = SPARE * cell
    near = (sampled(away, own) <= outside + spare) & (sampled(deep, own) <= inside + spare)
    out = np.zeros(there.grid.shape, bool)
    row, column = (
        (there.part[0] + there.grid.top) // cell,
        (there.part[1] + there.grid.left) // cell,
    )
    out[row : row + own.rows, column : column + own.columns] = near
    return out


def colours_of(
    planes: np.ndarray,
    away: np.ndarray,
    deep: np.ndarray,
    reach: float,
    needed: np.ndarray,
    there: PaddedBox,
) -> tuple[np.ndarray, np.ndarray] | None:
    """The colours of the surface and of what lies behind it, spread, (3, h, w), alike where one of
    them is not known; None where one of them is known nowhere.

    ``needed`` (h, w) bool says where, by the cells of the box; elsewhere both are nothing. Only
    what lies near a place has a say in them, so that a part of a picture finds what the whole does.
    """
    sigma = SPREAD * reach
    foreground, one = normalized_convolution(
        planes, there, deep, depth_of(reach), False, sigma, needed
    )
    background, other = normalized_convolution(
        planes, there, away, clear_of(reach), True, sigma, needed
    )
    # Where one of them is not known, they are alike, and the mask stays.
    both = np.minimum(one, other)
    if not both.any():
        return None
    foreground -= background
    foreground *= both
    foreground += background
    return foreground, background


def outline_box(mask: np.ndarray, reach: float, cell: int) -> tuple[slice, slice] | None:
    """The part of a mask (H, W) in which an outline is looked at, with what is needed round it;
    None where there is none.
    """
    box = box_of(mask, BACKGROUND_MAX, reach + (SPARE + 1) * cell)
    return (
        None
        if box is None
        else (
            slice(box[0].start, min(box[0].stop, mask.shape[0])),
            slice(box[1].start, min(box[1].stop, mask.shape[1])),
        )
    )


def min_distance_squared(sensitivity: float) -> float:
    """Squared distance of two colours in linear light that is too small to tell; 0.0016 is 0.04 in
    one channel.
    """
    return float(0.0064 * 10 ** (-2 * sensitivity))


def follow(
    planes: np.ndarray,
    mask: np.ndarray,
    reach: float,
    sensitivity: float = 0.5,
    origin: tuple[int, int] = (0, 0),
) -> tuple[np.ndarray, EdgeMatte | None]:
    """Unmix the outline of a mask.

    Parameters
    ----------
    planes : (3, H, W) float32 linear light; mask : (H, W) float32.
    reach : how far outside the mask strands are looked for, pixels.
    sensitivity : 0 to 1: how alike surface and background may be and still be told apart.
    origin : row and column of the planes' first pixel in the whole picture.

    Returns
    -------
    The mask (the one that came where nothing is to be done), and what was spread, or None where
    there is no outline.
    """
    cell = max(1, int(SPREAD * reach / 2))
    box = outline_box(mask, reach, cell) if reach > 0 else None
    if box is None:
        return mask, None
    part = np.ascontiguousarray(mask[box])
    away, deep = distances_of(part)
    band = (away <= reach) & (deep <= depth_of(reach))
    if not band.any():
        return mask, None
    there = padded_box(box, HALO * reach, cell, planes.shape, origin)
    needed = near_outline(away, deep, reach, depth_of(reach), there)
    colours, grid = colours_of(planes, away, deep, reach, needed, there), there.from_part
    if colours is None:
        return mask, None
    out, unmixed = mask.copy(), np.empty_like(part)
    _unmix(
        planes,
        box[0].start,
        box[1].start,
        part,
        band,
        *colours,
        grid.cell,
        grid.top,
        grid.left,
        min_distance_squared(sensitivity),
        unmixed,
    )
    out[box] = unmixed
    return out, EdgeMatte(*colours, grid, band, out, (box[0].start, box[1].start))


@kernel
def _surface(
    planes: np.ndarray,
    alpha: np.ndarray,
    rows: np.ndarray,
    columns: np.ndarray,
    foreground: np.ndarray,
    background: np.ndarray,
    cell: int,
    top: int,
    left: int,
    out: np.ndarray,
) -> None:
    for n in prange(rows.size):
        y, x = rows[n], columns[n]
        y0, y1, ty = place_in(y + 0.5, top, cell, foreground.shape[1])
        x0, x1, tx = place_in(x + 0.5, left, cell, foreground.shape[2])
        m = alpha[y, x]
        for k in range(3):
            f, b = (
                between(foreground[k], y0, y1, ty, x0, x1, tx),
                between(background[k], y0, y1, ty, x0, x1, tx),
            )
            rest = planes[k, y, x] - m * f - (1 - m) * b
            out[k, 0, n] = max(f + rest * m / (m * m + (1 - m) * (1 - m)), np.float32(0))


def surface_colours(
    planes: np.ndarray, unmixed: EdgeMatte
) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    """The surface's own colour in every pixel of the band that holds some of it.

    A mixed pixel is I = m·F' + (1 - m)·B'. What the spread colours F and B do not explain, r, is
    laid to both so that they change least in sum of squares: F' = F + r·m / (m² + (1 - m)²); so
    what lies behind a faint pixel does not colour its surface. Adjusted, it is m·A(F') + (1 - m)·B
    = I + m·(A(F') - F').

    Returns
    -------
    Rows and columns (N,), and F' as planes (3, 1, N).
    """
    top, left = unmixed.corner
    height, width = unmixed.band.shape
    rows, columns = np.nonzero(
        unmixed.band & (unmixed.alpha[top : top + height, left : left + width] > 0.004)
    )
    rows, columns = rows + top, columns + left
    out = np.empty((3, 1, rows.size), np.float32)
    grid = unmixed.grid
    _surface(
        planes,
        unmixed.alpha,
        rows,
        columns,
        unmixed.foreground,
        unmixed.background,
        grid.cell,
        grid.top - top,
        grid.left - left,
        out,
    )
    return rows, columns, out
