"""Steps of the Chebyshev iteration towards the least energy of closed-form matting, in a band along
an outline.

In every window of 3 x 3 pixels the mask should be a linear function of the colour, as in A. Levin,
D. Lischinski, Y. Weiss, "A closed-form solution to natural image matting" (2008). The matrix is
never made: it is applied by window means, as in K. He, J. Sun, X. Tang, "Fast matting using large
kernel matting Laplacian matrices" (2010). The iteration: G. Golub, R. Varga, "Chebyshev
semi-iterative methods" (1961).
"""

from __future__ import annotations

from typing import Any

import numpy as np

from ..jit.parallel import inner, serial_kernel

#: Weight of what unmixing says, against the energy, where surface and background are easily told
#: apart. Chosen with WIDTH and STEPS on 37 outlines, see docs/formulas.md.
WEIGHT = 0.07
#: Largest eigenvalue of the energy with that weight: nine windows hold each pixel.
LARGEST = 9.6
#: Regularisation of a window's covariance.
EPSILON = 1e-6 / 9
#: And in shares of its trace: of greys, however bright, an inverse is left.
RELATIVE = 1e-5
#: How many pixels a step looks round: two windows that share a pixel.
SUPPORT = 2


@serial_kernel
def windows_of(
    light: np.ndarray, band: np.ndarray, ends: np.ndarray
) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    """Of the windows that hold a pixel of the band, by their middles: whether they do (H, W), mean
    colours (3, H, W), and the inverse covariances (6, H, W), row by row from the diagonal on.
    """
    height, width = band.shape
    used, means, inverse = (
        np.zeros(band.shape, np.bool_),
        np.empty(light.shape, np.float32),
        np.empty((6, height, width), np.float32),
    )
    for y in range(1, height - 1):
        first, last = max(1, ends[y, 0]), min(width - 1, ends[y, 1])
        start = -1
        for x in range(first, last + 1):
            held = False
            if x < last:
                for dy in range(-1, 2):
                    for dx in range(-1, 2):
                        held |= band[y + dy, x + dx]
                used[y, x] = held
            if held and start < 0:
                start = x
            elif start >= 0 and not held:
                _fit_colours(light, y, start, x, means, inverse)
                start = -1
    return used, means, inverse


@inner
def _nine(one: np.ndarray, two: np.ndarray, three: np.ndarray, x: int, less: float) -> Any:
    """The nine numbers of a window, less another; in float64, or the inverse would hang on how they
    are rounded.
    """
    return (
        np.float64(one[x]) - less,
        np.float64(one[x + 1]) - less,
        np.float64(one[x + 2]) - less,
        np.float64(two[x]) - less,
        np.float64(two[x + 1]) - less,
        np.float64(two[x + 2]) - less,
        np.float64(three[x]) - less,
        np.float64(three[x + 1]) - less,
        np.float64(three[x + 2]) - less,
    )


@inner
def _sum(v: Any) -> float:
    """The sum of nine numbers."""
    return v[0] + v[1] + v[2] + v[3] + v[4] + v[5] + v[6] + v[7] + v[8]


@inner
def _mean_product(v: Any, w: Any) -> float:
    """The mean product of two times nine numbers."""
    total = (
        v[0] * w[0]
        + v[1] * w[1]
        + v[2] * w[2]
        + v[3] * w[3]
        + v[4] * w[4]
        + v[5] * w[5]
        + v[6] * w[6]
        + v[7] * w[7]
        + v[8] * w[8]
    )
    return total / 9


@serial_kernel
def _fit_colours(
    light: np.ndarray, y: int, first: int, last: int, means: np.ndarray, inverse: np.ndarray
) -> None:
    """Mean colours and inverse covariances of the windows of a row, from one column to before
    another.
    """
    r0, r1, r2 = (
        light[0, y - 1, first - 1 : last + 1],
        light[0, y, first - 1 : last + 1],
        light[0, y + 1, first - 1 : last + 1],
    )
    g0, g1, g2 = (
        light[1, y - 1, first - 1 : last + 1],
        light[1, y, first - 1 : last + 1],
        light[1, y + 1, first - 1 : last + 1],
    )
    b0, b1, b2 = (
        light[2, y - 1, first - 1 : last + 1],
        light[2, y, first - 1 : last + 1],
        light[2, y + 1, first - 1 : last + 1],
    )
    mr, mg, mb = means[0, y, first:last], means[1, y, first:last], means[2, y, first:last]
    irr, irg, irb = inverse[0, y, first:last], inverse[1, y, first:last], inverse[2, y, first:last]
    igg, igb, ibb = inverse[3, y, first:last], inverse[4, y, first:last], inverse[5, y, first:last]
    for x in range(last - first):
        r, g, b = (
            _sum(_nine(r0, r1, r2, x, 0.0)) / 9,
            _sum(_nine(g0, g1, g2, x, 0.0)) / 9,
            _sum(_nine(b0, b1, b2, x, 0.0)) / 9,
        )
        red, green, blue = _nine(r0, r1, r2, x, r), _nine(g0, g1, g2, x, g), _nine(b0, b1, b2, x, b)
        rr, gg, bb = _mean_product(red, red), _mean_product(green, green), _mean_product(blue, blue)
        rg, rb, gb = _mean_product(red, green), _mean_product(red, blue), _mean_product(green, blue)
        more = EPSILON + RELATIVE * (rr + gg + bb)
        rr, gg, bb = rr + more, gg + more, bb + more
        mr[x], mg[x], mb[x] = r, g, b
        a, c, d = gg * bb - gb * gb, rb * gb - rg * bb, rg * gb - rb * gg
        over = 1 / (rr * a + rg * c + rb * d)
        irr[x], irg[x], irb[x] = a * over, c * over, d * over
        igg[x] = (rr * bb - rb * rb) * over
        igb[x] = (rg * rb - rr * gb) * over
        ibb[x] = (rr * gg - rg * rg) * over


@serial_kernel
def iterate(
    light: np.ndarray,
    mask: np.ndarray,
    band: np.ndarray,
    ends: np.ndarray,
    weights: np.ndarray,
    used: np.ndarray,
    means: np.ndarray,
    inverse: np.ndarray,
    steps: int,
    inner: tuple[int, int, int, int],
) -> np.ndarray:
    """The mask after some steps towards the least energy, in the band; beside it, it is all or
    nothing. It is right in ``inner`` (top, left, bottom, right): steps that are not seen from there
    are left out.
    """
    height, width = mask.shape
    windows, pixels = _runs(used), _runs(band)
    found, change = np.empty(mask.shape, np.float32), np.zeros(mask.shape, np.float32)
    # Linear functions of the windows, by their middles: a level and three slopes, with an empty row
    # and column all round.
    lines = np.zeros((4, height + 2, width + 2), np.float32)
    for y in range(height):
        for x in range(width):
            found[y, x] = mask[y, x] if band[y, x] else np.float32(mask[y, x] >= np.float32(0.5))
    middle, half = (LARGEST + WEIGHT) / 2, (LARGEST - WEIGHT) / 2
    sigma = middle / half
    ratio = 1 / sigma
    kept, taken = np.float32(0), np.float32(1 / middle)
    for step in range(steps):
        # What can still be seen inside after the steps that are left.
        far = SUPPORT * (steps - 1 - step)
        top, left, bottom, right = inner[0] - far, inner[1] - far, inner[2] + far, inner[3] + far
        for n in range(windows.shape[0]):
            y, first, last = (
                windows[n, 0],
                max(windows[n, 1], left - 1),
                min(windows[n, 2], right + 1),
            )
            if top - 1 <= y <= bottom and first < last:
                _fit(found, light, means, inverse, y, first, last, lines)
        for n in range(pixels.shape[0]):
            y, first, last = pixels[n, 0], max(pixels[n, 1], left), min(pixels[n, 2], right)
            if top <= y < bottom and first < last:
                _step(found, light, mask, weights, lines, y, first, last, kept, taken, change)
        for n in range(pixels.shape[0]):
            y, first, last = pixels[n, 0], max(pixels[n, 1], left), min(pixels[n, 2], right)
            if top <= y < bottom:
                for x in range(first, last):
                    found[y, x] += change[y, x]
        following = 1 / (2 * sigma - ratio)
        kept, taken = np.float32(following * ratio), np.float32(2 * following / half)
        ratio = following
    return found


@serial_kernel
def _runs(where: np.ndarray) -> np.ndarray:
    """The runs of a region (H, W) bool along its rows: row, first and one more than the last
    column, (N, 3).
    """
    height, width = where.shape
    found, count = np.empty((height * (width + 1) // 2 + 1, 3), np.int32), 0
    for y in range(height):
        before = False
        for x in range(width):
            if where[y, x] and not before:
                found[count, 0], found[count, 1] = y, x
            elif before and not where[y, x]:
                found[count, 2] = x
                count += 1
            before = where[y, x]
        if before:
            found[count, 2] = width
            count += 1
    return found[:count]


@serial_kernel
def _fit(
    found: np.ndarray,
    light: np.ndarray,
    means: np.ndarray,
    inverse: np.ndarray,
    y: int,
    first: int,
    last: int,
    lines: np.ndarray,
) -> None:
    """Of the windows of a row the linear functions of colour that are nearest to the mask."""
    size, ninth = last - first, np.float32(1 / 9)
    a, b, c = (
        found[y - 1, first - 1 : last + 1],
        found[y, first - 1 : last + 1],
        found[y + 1, first - 1 : last + 1],
    )
    ra, rb, rc = (
        light[0, y - 1, first - 1 : last + 1],
        light[0, y, first - 1 : last + 1],
        light[0, y + 1, first - 1 : last + 1],
    )
    ga, gb, gc = (
        light[1, y - 1, first - 1 : last + 1],
        light[1, y, first - 1 : last + 1],
        light[1, y + 1, first - 1 : last + 1],
    )
    ba, bb, bc = (
        light[2, y - 1, first - 1 : last + 1],
        light[2, y, first - 1 : last + 1],
        light[2, y + 1, first - 1 : last + 1],
    )
    mr, mg, mb = means[0, y, first:last], means[1, y, first:last], means[2, y, first:last]
    rr, rg, rbl = inverse[0, y, first:last], inverse[1, y, first:last], inverse[2, y, first:last]
    gg, gbl, bbl = inverse[3, y, first:last], inverse[4, y, first:last], inverse[5, y, first:last]
    level, sr, sg, sb = (
        lines[0, y + 1, first + 1 : last + 1],
        lines[1, y + 1, first + 1 : last + 1],
        lines[2, y + 1, first + 1 : last + 1],
        lines[3, y + 1, first + 1 : last + 1],
    )
    for x in range(size):
        p, q, r = mr[x], mg[x], mb[x]
        mean = a[x] + a[x + 1] + a[x + 2] + b[x] + b[x + 1] + b[x + 2] + c[x] + c[x + 1] + c[x + 2]
        red = (ra[x] - p) * a[x] + (ra[x + 1] - p) * a[x + 1] + (ra[x + 2] - p) * a[x + 2]
        red += (rb[x] - p) * b[x] + (rb[x + 1] - p) * b[x + 1] + (rb[x + 2] - p) * b[x + 2]
        red += (rc[x] - p) * c[x] + (rc[x + 1] - p) * c[x + 1] + (rc[x + 2] - p) * c[x + 2]
        green = (ga[x] - q) * a[x] + (ga[x + 1] - q) * a[x + 1] + (ga[x + 2] - q) * a[x + 2]
        green += (gb[x] - q) * b[x] + (gb[x + 1] - q) * b[x + 1] + (gb[x + 2] - q) * b[x + 2]
        green += (gc[x] - q) * c[x] + (gc[x + 1] - q) * c[x + 1] + (gc[x + 2] - q) * c[x + 2]
        blue = (ba[x] - r) * a[x] + (ba[x + 1] - r) * a[x + 1] + (ba[x + 2] - r) * a[x + 2]
        blue += (bb[x] - r) * b[x] + (bb[x + 1] - r) * b[x + 1] + (bb[x + 2] - r) * b[x + 2]
        blue += (bc[x] - r) * c[x] + (bc[x + 1] - r) * c[x + 1] + (bc[x + 2] - r) * c[x + 2]
        mean, red, green, blue = mean * ninth, red * ninth, green * ninth, blue * ninth
        s = rr[x] * red + rg[x] * green + rbl[x] * blue
        t = rg[x] * red + gg[x] * green + gbl[x] * blue
        u = rbl[x] * red + gbl[x] * green + bbl[x] * blue
        sr[x], sg[x], sb[x], level[x] = s, t, u, mean - s * p - t * q - u * r


@serial_kernel
def _step(
    found: np.ndarray,
    light: np.ndarray,
    mask: np.ndarray,
    weights: np.ndarray,
    lines: np.ndarray,
    y: int,
    first: int,
    last: int,
    kept: float,
    taken: float,
    change: np.ndarray,
) -> None:
    """By how much the pixels of a row change: towards what the windows that hold them say, and
    towards the mask that came.
    """
    height, width = mask.shape
    size, rows = last - first, min(y + 1, height - 2) - max(y - 1, 1) + 1
    value, came, weight, moves = (
        found[y, first:last],
        mask[y, first:last],
        weights[y, first:last],
        change[y, first:last],
    )
    red, green, blue = light[0, y, first:last], light[1, y, first:last], light[2, y, first:last]
    la, lb, lc = (
        lines[0, y, first : last + 2],
        lines[0, y + 1, first : last + 2],
        lines[0, y + 2, first : last + 2],
    )
    ra, rb, rc = (
        lines[1, y, first : last + 2],
        lines[1, y + 1, first : last + 2],
        lines[1, y + 2, first : last + 2],
    )
    ga, gb, gc = (
        lines[2, y, first : last + 2],
        lines[2, y + 1, first : last + 2],
        lines[2, y + 2, first : last + 2],
    )
    ba, bb, bc = (
        lines[3, y, first : last + 2],
        lines[3, y + 1, first : last + 2],
        lines[3, y + 2, first : last + 2],
    )
    for x in range(size):
        level = (
            la[x]
            + la[x + 1]
            + la[x + 2]
            + lb[x]
            + lb[x + 1]
            + lb[x + 2]
            + lc[x]
            + lc[x + 1]
            + lc[x + 2]
        )
        level += red[x] * (
            ra[x]
            + ra[x + 1]
            + ra[x + 2]
            + rb[x]
            + rb[x + 1]
            + rb[x + 2]
            + rc[x]
            + rc[x + 1]
            + rc[x + 2]
        )
        level += green[x] * (
            ga[x]
            + ga[x + 1]
            + ga[x + 2]
            + gb[x]
            + gb[x + 1]
            + gb[x + 2]
            + gc[x]
            + gc[x + 1]
            + gc[x + 2]
        )
        level += blue[x] * (
            ba[x]
            + ba[x + 1]
            + ba[x + 2]
            + bb[x]
            + bb[x + 1]
            + bb[x + 2]
            + bc[x]
            + bc[x + 1]
            + bc[x + 2]
        )
        # At the border of the picture fewer windows hold a pixel.
        windows = rows * (min(first + x + 1, width - 2) - max(first + x - 1, 1) + 1)
        rest = level - np.float32(windows) * value[x] + weight[x] * (came[x] - value[x])
        moves[x] = np.float32(kept) * moves[x] + np.float32(taken) * rest
