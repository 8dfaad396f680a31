"""The share of the surface's colour in every pixel along an outline. Ours.

Colour reaches further than coverage: lenses and chroma subsampling spread it, what is out of focus
mixes over many pixels, threads are thinner than a pixel. So a pixel's chroma C (Rec. 709 luma and
chroma of sRGB codes, in which cameras store it) is a mixture of F, the chroma of what is surely
inside nearby, and B, of what is surely outside nearby: share = clip((C - B)·(F - B) / |F - B|²).
The change of chroma is mixed by this share, the change of luma by the mask.

A plain outline is told from a fringe by what lies beyond it: between threads the share changes from
pixel to pixel, in the shadow beside a thing it does not. Beside a fringe B is learnt from further
away.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import cv2
import numpy as np

from ..colour.measures import WEIGHT_B, WEIGHT_G, WEIGHT_R
from ..colour.transfer import code_of_light, encode, light_of_code
from ..frame import BRIGHTEST
from ..jit.parallel import inner, kernel, prange
from .feather import blurred
from .follow import distances_of, near_outline, outline_box
from .grid import Grid, between, grid_over, place_in
from .normalized_convolution import ENDS, normalized_convolution, padded_box


@dataclass(frozen=True)
class _Reach:
    """Full-resolution pixels: how far from the mask shares are looked for, from where on the
    background is sure, and the standard deviation with which colours are spread.
    """

    outside: float
    clear: float
    sigma: float


#: Chosen by trial on recolourings of the yard and of single things against renders in the new
#: colour, see docs/formulas.md.
PLAIN = _Reach(10.0, 5.0, 8.0)
FRINGE = _Reach(30.0, 20.0, 16.0)
#: Deeper inside than this the surface is sure, full-resolution pixels.
INSIDE = 2.0
#: Colours are spread with these multiples of the standard deviation.
WIDER = (1.0, 3.0)
#: Rings round the mask in which threads are looked for, and with which they are compared,
#: full-resolution pixels.
NEAR_RING, FAR_RING = (6.0, 16.0), (24.0, 40.0)
#: The share's deviation within cells of this side, full-resolution pixels, is averaged with this
#: standard deviation.
CELL, SMOOTH = 8, 12.0
#: With this excess of the deviation near the mask over that far from it a fringe begins, and is
#: certain.
SOME, CERTAIN = 0.025, 0.05
#: Least |F - B|² that can be told; from twice this on it is trusted.
LEAST = 0.003
#: A share, or trust in it, under this is none.
NONE = 0.004
#: How far it looks, full-resolution pixels.
COLOUR_SUPPORT = FAR_RING[1] + max(FRINGE.sigma * WIDER[-1] * ENDS, SMOOTH * 4) + 4 * CELL
#: How much a chroma of 1 is of B - Y and R - Y (ITU-R BT.709).
BLUE, RED = np.float32(1.8556), np.float32(1.5748)


@dataclass(frozen=True)
class ColourShare:
    """The pixels along an outline whose chroma is mixed by a share of its own, from top to bottom.

    Attributes
    ----------
    rows, columns : (N,) int64. share, trust : (N,) float32 in 0 to 1, how much of the surface's
        colour is there, and how far that counts.
    foreground : (3, 1, N) float32 linear light, the surface's colour nearby.
    sure_rows, sure_columns : (N,) int64, the nearest pixel that is surely inside. sure_light :
        (3, N) its light.
    """

    rows: np.ndarray
    columns: np.ndarray
    share: np.ndarray
    trust: np.ndarray
    foreground: np.ndarray
    sure_rows: np.ndarray
    sure_columns: np.ndarray
    sure_light: np.ndarray

    def foreground_in(self, planes: np.ndarray) -> np.ndarray:
        """The surface's colour nearby (3, 1, N) in planes that something may have been done to."""
        moved = planes[:, self.sure_rows, self.sure_columns] - self.sure_light
        return np.maximum(self.foreground + moved[:, None], 0)

    @property
    def box(self) -> tuple[slice, slice]:
        """Rows and columns that hold all of its pixels."""
        rows, columns = self.rows, self.columns
        return (
            slice(int(rows[0]), int(rows[-1]) + 1),
            slice(int(columns.min()), int(columns.max()) + 1),
        )

    def limited(self, limit: np.ndarray) -> ColourShare | None:
        """The same where a mask (H, W) lets anything be; None where that is nowhere."""
        return self._trusted(self.trust * limit[self.rows, self.columns])

    def fainter(self, by: float) -> ColourShare | None:
        """The same of which only a part, 0 to 1, counts; None for nothing."""
        return self._trusted(self.trust * np.float32(by))

    def _trusted(self, trust: np.ndarray) -> ColourShare | None:
        held = trust > NONE
        if not held.any():
            return None
        return ColourShare(
            self.rows[held],
            self.columns[held],
            self.share[held],
            trust[held],
            np.ascontiguousarray(self.foreground[..., held]),
            self.sure_rows[held],
            self.sure_columns[held],
            np.ascontiguousarray(self.sure_light[:, held]),
        )


def chroma_of(light: np.ndarray) -> np.ndarray:
    """Chroma (2, …), blue and red difference, of linear light (3, …)."""
    code = encode(light)
    luma = WEIGHT_R * code[0] + WEIGHT_G * code[1] + WEIGHT_B * code[2]
    return np.stack([(code[2] - luma) / BLUE, (code[0] - luma) / RED])


@inner
def _chroma(red: Any, green: Any, blue: Any) -> Any:
    red, green, blue = code_of_light(red), code_of_light(green), code_of_light(blue)
    luma = WEIGHT_R * red + WEIGHT_G * green + WEIGHT_B * blue
    return (blue - luma) / BLUE, (red - luma) / RED


@inner
def _share_of(
    planes: np.ndarray, y: Any, x: Any, front: np.ndarray, back: np.ndarray,
    y0: Any, y1: Any, ty: Any, x0: Any, x1: Any, tx: Any,
) -> Any:  # fmt: skip
    """The share of a pixel, and |F - B|²; F and B between four cells of their chroma (2, h, w)."""
    blue, red = _chroma(planes[0, y, x], planes[1, y, x], planes[2, y, x])
    b0, b1 = (
        between(back[0], y0, y1, ty, x0, x1, tx),
        between(back[1], y0, y1, ty, x0, x1, tx),
    )
    f0, f1 = (
        between(front[0], y0, y1, ty, x0, x1, tx) - b0,
        between(front[1], y0, y1, ty, x0, x1, tx) - b1,
    )
    apart = f0 * f0 + f1 * f1
    along = (blue - b0) * f0 + (red - b1) * f1
    share = min(max(along / max(apart, np.float32(1e-9)), np.float32(0)), np.float32(1))
    return share, apart


@kernel
def _add_deviations(
    planes: np.ndarray, rows_from: int, columns_from: int, away: np.ndarray,
    rings: np.ndarray, front: np.ndarray, back: np.ndarray,
    side: int, above: int, beside: int, cell: int, top: int, left: int, sums: np.ndarray,
) -> None:  # fmt: skip
    """Number, sum and sum of squares of the shares in two rings, (6, h, w) by the cells of a grid.
    ``side``, ``above`` and ``beside`` are of the colours' grid.
    """
    height, width = away.shape
    for row in prange(sums.shape[1]):
        start: Any = np.int64(row) * cell - top  # unsigned, it could not lie before the part
        for y in range(max(start, 0), min(start + cell, height)):
            y0, y1, ty = place_in(y + 0.5, above, side, front.shape[1])
            for x in range(width):
                far = away[y, x]
                first = rings[0] < far and far <= rings[1]
                if not first and not (rings[2] < far and far <= rings[3]):
                    continue
                x0, x1, tx = place_in(x + 0.5, beside, side, front.shape[2])
                share, apart = _share_of(
                    planes, rows_from + y, columns_from + x, front, back, y0, y1, ty, x0, x1, tx
                )
                if apart > np.float32(LEAST):
                    column, ring = (x + left) // cell, 0 if first else 3
                    sums[ring, row, column] += np.float32(1)
                    sums[ring + 1, row, column] += share
                    sums[ring + 2, row, column] += share * share


@kernel
def _find_shares(
    planes: np.ndarray, corner: np.ndarray, rows: np.ndarray, columns: np.ndarray,
    near_light: np.ndarray, near_front: np.ndarray, near_back: np.ndarray, near: np.ndarray,
    far_light: np.ndarray, far_front: np.ndarray, far_back: np.ndarray, far: np.ndarray,
    fringed: np.ndarray, coarse: np.ndarray, away: np.ndarray, limits: np.ndarray,
    share: np.ndarray, trust: np.ndarray, light: np.ndarray,
) -> None:  # fmt: skip
    """Share, trust and the surface's colour of some pixels of a part. ``near``, ``far`` and
    ``coarse`` are side of a cell, top and left of the grids.
    """
    for n in prange(rows.size):
        y, x = rows[n], columns[n]
        w0, w1, tw = place_in(y + 0.5, coarse[1], coarse[0], fringed.shape[0])
        v0, v1, tv = place_in(x + 0.5, coarse[2], coarse[0], fringed.shape[1])
        fringe = between(fringed, w0, w1, tw, v0, v1, tv)
        trust[n] = np.float32(0)
        if away[n] > limits[0] + (limits[1] - limits[0]) * fringe:
            continue
        y0, y1, ty = place_in(y + 0.5, near[1], near[0], near_front.shape[1])
        x0, x1, tx = place_in(x + 0.5, near[2], near[0], near_front.shape[2])
        one, apart = _share_of(
            planes, corner[0] + y, corner[1] + x, near_front, near_back, y0, y1, ty, x0, x1, tx
        )
        sure = min(max(apart / np.float32(LEAST) - 1, np.float32(0)), np.float32(1))
        for k in range(3):
            light[k, 0, n] = between(near_light[k], y0, y1, ty, x0, x1, tx)
        if fringe > 0:
            y0, y1, ty = place_in(y + 0.5, far[1], far[0], far_front.shape[1])
            x0, x1, tx = place_in(x + 0.5, far[2], far[0], far_front.shape[2])
            other, apart = _share_of(
                planes, corner[0] + y, corner[1] + x, far_front, far_back, y0, y1, ty, x0, x1, tx
            )
            certain = min(max(apart / np.float32(LEAST) - 1, np.float32(0)), np.float32(1))
            one += fringe * (other - one)
            sure += fringe * (certain - sure)
            for k in range(3):
                wide = between(far_light[k], y0, y1, ty, x0, x1, tx)
                light[k, 0, n] += fringe * (wide - light[k, 0, n])
        share[n], trust[n] = one, sure


@kernel
def _mix_chroma(
    given: np.ndarray, change: np.ndarray, share: np.ndarray, trust: np.ndarray, out: np.ndarray
) -> None:
    """Give light (3, N) the chroma of what was given (3, N), changed (2, N) by its share."""
    for n in prange(share.size):
        blue, red = _chroma(given[0, n], given[1, n], given[2, n])
        held_blue, held_red = _chroma(out[0, n], out[1, n], out[2, n])
        more_blue = trust[n] * (blue + share[n] * change[0, n] - held_blue) * BLUE
        more_red = trust[n] * (red + share[n] * change[1, n] - held_red) * RED
        more_green = -(WEIGHT_R * more_red + WEIGHT_B * more_blue) / WEIGHT_G
        for k in range(3):
            more = more_red if k == 0 else more_green if k == 1 else more_blue
            value = light_of_code(code_of_light(out[k, n]) + more)
            out[k, n] = min(max(value, -np.float32(BRIGHTEST)), np.float32(BRIGHTEST))


def mix_chroma(
    given: np.ndarray, change: np.ndarray, share: np.ndarray, trust: np.ndarray, out: np.ndarray
) -> np.ndarray:
    """Light ``out`` (3, N), whose luma is mixed already, with its chroma mixed by a share.

    Parameters
    ----------
    given : (3, N) the picture's light there. change : (2, N) of the chroma of the surface.
    share, trust : (N,) as in `ColourShare`.
    """
    out = np.ascontiguousarray(out)
    _mix_chroma(np.ascontiguousarray(given), np.ascontiguousarray(change), share, trust, out)
    return out


def _numbers(grid: Grid) -> np.ndarray:
    return np.array([grid.cell, grid.top, grid.left], np.int64)


def colour_share(
    planes: np.ndarray, mask: np.ndarray, scale: float = 1.0, origin: tuple[int, int] = (0, 0)
) -> ColourShare | None:
    """Find how much of the surface's colour is in the pixels along the outline of a mask.

    Parameters
    ----------
    planes : (3, H, W) float32 linear light; mask : (H, W) float32.
    scale : size of the planes relative to full resolution.
    origin : row and column of the planes' first pixel in the whole picture.

    Returns
    -------
    None where there is no outline, or its colours cannot be told apart.
    """
    cells = [max(1, int(one.sigma * scale / 2)) for one in (PLAIN, FRINGE)]
    box = outline_box(mask, FAR_RING[1] * scale, cells[1])
    if box is None:
        return None
    away, deep = distances_of(np.ascontiguousarray(mask[box]))
    place, depth = (box[0].start, box[1].start), max(1.0, INSIDE * scale)
    found = []
    for one, cell in zip((PLAIN, FRINGE), cells, strict=True):
        sigma = one.sigma * scale
        there = padded_box(box, sigma * WIDER[-1] * (ENDS + 1), cell, planes.shape, origin)
        needed = near_outline(away, deep, FAR_RING[1] * scale, depth, there)
        front, known = normalized_convolution(
            planes, there, deep, depth, False, sigma, needed, WIDER
        )
        back, other = normalized_convolution(
            planes, there, away, max(1.0, one.clear * scale), True, sigma, needed, WIDER
        )
        back = front + np.minimum(known, other) * (back - front)  # alike where one is not known
        found.append((front, chroma_of(front), chroma_of(back), there.from_part))
    corner = (origin[0] + place[0], origin[1] + place[1])
    coarse = grid_over(away.shape, max(2, round(CELL * scale)), corner)
    fringed = _fringed(planes, place, away, found[1], coarse, scale)
    rows, columns = np.nonzero((away <= FRINGE.outside * scale) & (deep <= depth))
    share, trust = np.zeros(rows.size, np.float32), np.zeros(rows.size, np.float32)
    light = np.empty((3, 1, rows.size), np.float32)
    _find_shares(
        planes,
        np.array(place, np.int64),
        rows,
        columns,
        *(part for one in found for part in (*one[:3], _numbers(one[3]))),
        fringed,
        _numbers(coarse),
        away[rows, columns],
        np.array([PLAIN.outside, FRINGE.outside], np.float32) * np.float32(scale),
        share,
        trust,
        light,
    )
    held = (trust > 0) & ((share > NONE) | (mask[rows + place[0], columns + place[1]] > 0))
    if not held.any():
        return None
    rows, columns = rows[held], columns[held]
    sure_rows, sure_columns = _nearest_inside(deep, depth, rows, columns)
    sure_rows, sure_columns = sure_rows + place[0], sure_columns + place[1]
    return ColourShare(
        rows + place[0],
        columns + place[1],
        share[held],
        trust[held],
        np.ascontiguousarray(light[..., held]),
        sure_rows,
        sure_columns,
        planes[:, sure_rows, sure_columns],
    )


def _nearest_inside(
    deep: np.ndarray, depth: float, rows: np.ndarray, columns: np.ndarray
) -> tuple[np.ndarray, np.ndarray]:
    """Row and column of the pixel nearest to each of some (N,) that lies deeper inside than a
    depth.
    """
    labels = cv2.distanceTransformWithLabels(
        (deep <= depth).view(np.uint8),
        cv2.DIST_L2,
        cv2.DIST_MASK_5,
        labelType=cv2.DIST_LABEL_PIXEL,
    )[1]
    wanted = labels[rows, columns]
    # It lies at the border of those that are deep enough.
    border = np.flatnonzero((deep > depth) & (deep <= depth + 2))
    of_label = np.zeros(int(wanted.max()) + 1, np.int64)
    marks = labels.ravel()[border]
    known = marks < of_label.size
    of_label[marks[known]] = border[known]
    return np.divmod(of_label[wanted], deep.shape[1])


def _fringed(
    planes: np.ndarray,
    place: tuple[int, int],
    away: np.ndarray,
    found: tuple[np.ndarray, np.ndarray, np.ndarray, Grid],
    coarse: Grid,
    scale: float,
) -> np.ndarray:
    """Return how much of a fringe every place has, (h, w) in 0 to 1 by the cells of a grid."""
    sums = np.zeros((6, *coarse.shape), np.float32)
    _, front, back, grid = found
    rings = np.array([*NEAR_RING, *FAR_RING], np.float32) * np.float32(scale)
    _add_deviations(
        planes, *place, away, rings, front, back, *_numbers(grid), *_numbers(coarse), sums
    )
    deviations = []
    for count, total, squares in (sums[:3], sums[3:]):
        some = np.maximum(count, 1)
        spread = np.sqrt(np.maximum(squares / some - (total / some) ** 2, 0))
        sigma = SMOOTH * scale / coarse.cell
        weight = blurred(count, sigma)
        mean = np.divide(
            blurred(count * spread, sigma), weight, out=np.zeros_like(weight), where=weight > 1e-3
        )
        deviations.append(mean)
    more = deviations[0] - deviations[1]
    return np.clip((more - SOME) / np.float32(CERTAIN - SOME), 0, 1).astype(np.float32)
