"""The mask along an outline brought in line with the picture's own lines of colour: what unmixing
leaves of noise goes, edges meet theirs.

In every window of 3 x 3 pixels the mask should be a linear function of the colour, as in A. Levin,
D. Lischinski, Y. Weiss, "A closed-form solution to natural image matting" (2008). Here its energy
only settles a mask that is near already, in a narrow band: a few steps of the Chebyshev iteration
(G. Golub, R. Varga, "Chebyshev semi-iterative methods", 1961) take the place of a solver. So each
pixel looks a fixed
number of pixels round, whatever part of the picture is worked on, and the matrix is never made: it
is applied by window means, as in K. He, J. Sun, X. Tang, "Fast matting using large kernel matting
Laplacian matrices" (2010).
"""

from __future__ import annotations

from concurrent.futures import ThreadPoolExecutor

import numpy as np

from ..jit.parallel import kernel, prange, serial_kernel, threads
from .chebyshev import SUPPORT, WEIGHT, iterate, windows_of
from .follow import BACKGROUND_MAX, FOREGROUND_MIN, EdgeMatte
from .grid import Grid, between, place_in

#: How far outside the outline the mask is settled, full-resolution pixels; inside, a third of it.
WIDTH = 4.0
#: Steps at full resolution: fewer pixels are as far apart in fewer steps.
STEPS = 10
#: Least number of steps.
FEWEST = 3
#: Its weight where they are not.
LEAST_WEIGHT = 1e-5
#: |F - B|² from which on that counts.
ALIKE = 0.004
#: Light beyond this many times white is as good as this.
BRIGHT = 8.0
#: Side of the squares that are worked on at a time: what they need lies in the processor's cache.
TILE = 256
#: Most pixels that it looks round at full resolution, and, since steps are not fewer than `FEWEST`,
#: at any down to a sixth.
REFINE_SUPPORT = 64


def rounds_of(scale: float) -> int:
    """Steps for a picture of some size relative to full resolution."""
    return max(FEWEST, round(STEPS * min(scale, 1.0)))


def refine_alpha(planes: np.ndarray, unmixed: EdgeMatte, scale: float = 1.0) -> np.ndarray:
    """The mask of an unmixed outline, settled in a band along it.

    Parameters
    ----------
    planes : (3, H, W) float32 linear light. unmixed : what Follow found, and its mask.
    scale : size of the planes relative to full resolution.

    Returns
    -------
    (H, W) float32.
    """
    mask, grid = unmixed.alpha, unmixed.grid
    across = ((unmixed.foreground - unmixed.background) ** 2).sum(axis=0)
    wide, steps = max(1.0, WIDTH * scale), rounds_of(scale)
    (top, left), (height, width) = unmixed.corner, unmixed.band.shape
    out = mask.copy()
    places = np.array(
        [(y, x) for y in range(top, top + height, TILE) for x in range(left, left + width, TILE)],
        np.int64,
    )
    near = np.empty(len(places), np.bool_)
    _find_outline(mask, places, int(wide) + 1, near)
    box = top, left, top + height, left + width

    def settle(place: np.ndarray) -> None:
        _settle_square(planes, mask, place, box, across, grid, wide, steps, out)

    # Squares share the threads, not the rows of one: what is compiled for a row stays small.
    with ThreadPoolExecutor(threads()) as pool:
        list(pool.map(settle, places[near]))
    return out


def _settle_square(
    planes: np.ndarray,
    mask: np.ndarray,
    place: np.ndarray,
    box: tuple[int, int, int, int],
    across: np.ndarray,
    grid: Grid,
    wide: float,
    steps: int,
    out: np.ndarray,
) -> None:
    """Settle the mask in a square, given by its top and left, inside a box (top, left, bottom,
    right).
    """
    top, left = place
    bottom, right = min(top + TILE, box[2]), min(left + TILE, box[3])
    halo = SUPPORT * steps + int(wide) + 3
    y0, x0 = max(0, top - halo), max(0, left - halo)
    round_it = slice(y0, bottom + halo), slice(x0, right + halo)
    part = np.ascontiguousarray(mask[round_it])
    light = np.clip(planes[:, *round_it], np.float32(-BRIGHT), np.float32(BRIGHT))
    band = _band(part, wide)
    ends = _ends(band)
    weights = _weights(band, ends, y0, x0, box, across, grid.cell, grid.top, grid.left)
    inner = top - y0, left - x0, bottom - y0, right - x0
    found = iterate(light, part, band, ends, weights, *windows_of(light, band, ends), steps, inner)
    square = slice(inner[0], inner[2]), slice(inner[1], inner[3])
    np.copyto(out[top:bottom, left:right], np.clip(found[square], 0, 1), where=band[square])


@kernel
def _find_outline(mask: np.ndarray, places: np.ndarray, round_it: int, out: np.ndarray) -> None:
    """Find out whether the mask of squares, with some pixels round them, is neither all nor
    nothing.
    """
    for number in prange(places.shape[0]):
        top, left = places[number, 0], places[number, 1]
        surface = ground = False
        for y in range(max(0, top - round_it), min(mask.shape[0], top + TILE + round_it)):
            for x in range(max(0, left - round_it), min(mask.shape[1], left + TILE + round_it)):
                surface |= mask[y, x] >= np.float32(BACKGROUND_MAX)
                ground |= mask[y, x] <= np.float32(FOREGROUND_MIN)
        out[number] = surface and ground


@serial_kernel
def _weights(
    band: np.ndarray,
    ends: np.ndarray,
    y0: int,
    x0: int,
    box: tuple[int, int, int, int],
    across: np.ndarray,
    cell: int,
    above: int,
    beside: int,
) -> np.ndarray:
    """Return how much the mask that came counts against the energy (H, W), by how far foreground
    and background are apart there.
    """
    weights = np.zeros(band.shape, np.float32)
    for y in range(band.shape[0]):
        r0, r1, ty = place_in(
            min(max(y0 + y - box[0], 0), box[2] - box[0] - 1) + 0.5, above, cell, across.shape[0]
        )
        for x in range(ends[y, 0], ends[y, 1]):
            if band[y, x]:
                c0, c1, tx = place_in(
                    min(max(x0 + x - box[1], 0), box[3] - box[1] - 1) + 0.5,
                    beside,
                    cell,
                    across.shape[1],
                )
                told = between(across, r0, r1, ty, c0, c1, tx) / np.float32(ALIKE) - np.float32(1)
                inside = box[0] <= y0 + y < box[2] and box[1] <= x0 + x < box[3]
                told = min(max(told, np.float32(0)), np.float32(1)) if inside else np.float32(0)
                weights[y, x] = max(np.float32(WEIGHT) * told, np.float32(LEAST_WEIGHT))
    return weights


@serial_kernel
def _reached(held: np.ndarray, wide: float) -> np.ndarray:
    """The pixels (H, W) uint8 within a distance of those that are held, by the chamfer distance of
    G. Borgefors, "Distance transformations in digital images" (1986): steps along and
    across, and aslant.
    """
    straight, aslant = 0.955, 1.3693
    far, (height, width) = int(wide / straight), held.shape
    reach = np.zeros(far + 1, np.int64)  # columns to each side, by the rows away
    for down in range(far + 1):
        for across in range(1, far + 1):
            if aslant * min(down, across) + straight * abs(down - across) <= wide:
                reach[down] = across
    out, padded, row = (
        np.zeros(held.shape, np.uint8),
        np.zeros(width + 2 * far, np.uint8),
        np.empty(width, np.uint8),
    )
    for y in range(height):
        padded[far : far + width] = held[y]
        row[:] = held[y]
        for across in range(far + 1):
            left, right = (
                padded[far - across : far - across + width],
                padded[far + across : far + across + width],
            )
            for x in range(width):
                row[x] |= left[x] | right[x]
            for down in range(far + 1):
                if reach[down] == across:
                    if y >= down:
                        above = out[y - down]
                        for x in range(width):
                            above[x] |= row[x]
                    if y + down < height:
                        below = out[y + down]
                        for x in range(width):
                            below[x] |= row[x]
    return out


@serial_kernel
def _band(mask: np.ndarray, wide: float) -> np.ndarray:
    """The pixels (H, W) bool within a distance outside the outline, and a third of it inside."""
    surface, ground = np.empty(mask.shape, np.uint8), np.empty(mask.shape, np.uint8)
    for y in range(mask.shape[0]):
        row, some, less = mask[y], surface[y], ground[y]
        for x in range(row.size):
            some[x], less[x] = (
                row[x] >= np.float32(BACKGROUND_MAX),
                row[x] <= np.float32(FOREGROUND_MIN),
            )
    near, deep = _reached(surface, wide), _reached(ground, max(1.0, wide / 3))
    band = np.empty(mask.shape, np.bool_)
    for y in range(mask.shape[0]):
        for x in range(mask.shape[1]):
            band[y, x] = (near[y, x] & deep[y, x]) != 0
    return band


@serial_kernel
def _ends(band: np.ndarray) -> np.ndarray:
    """Return where the band begins and ends in each row, with a pixel round it, (H, 2)."""
    height, width = band.shape
    ends = np.empty((height, 2), np.int64)
    for y in range(height):
        first, last = width, 0
        for x in range(width):
            if band[y, x]:
                first, last = min(first, x), x + 1
        ends[y] = max(0, first - 1), min(width, last + 1)
    for y in range(height):  # the rows above and below belong to its windows
        ends[y, 0] = min(ends[max(0, y - 1), 0], ends[y, 0])
        ends[y, 1] = max(ends[max(0, y - 1), 1], ends[y, 1])
    for y in range(height - 1, -1, -1):
        ends[y, 0] = min(ends[min(height - 1, y + 1), 0], ends[y, 0])
        ends[y, 1] = max(ends[min(height - 1, y + 1), 1], ends[y, 1])
    return ends
