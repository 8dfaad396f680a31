"""Noise reduction: small wavelets are lowered, with no colour drawn in from outside the mask.

The à trous transform of J.-L. Starck, F. Murtagh, "Automatic noise estimation from the
multiresolution support" (1998), lowered by the non-negative garrote of H.-Y. Gao, "Wavelet
shrinkage denoising" (1998) at three deviations, in Oklab. All means are normalised by the
mask: H. Knutsson, C.-F. Westin, "Normalized and differential convolution" (1993).
"""

from __future__ import annotations

import numpy as np

from ..colour.oklab import from_oklab, to_oklab
from ..frame import BRIGHTEST
from ..jit.parallel import inner, kernel, prange

#: A mask that weighs less than this tells nothing about its surroundings.
LEAST = np.float32(1e-4)
#: Levels of the wavelets that noise is told in: grain of photographs is seldom coarser than 16
#: pixels (by eye on the noisy yard).
LEVELS = 4
#: How many pixels these levels look: 2 + 4 + 8 + 16.
NOISE_SUPPORT = 30
#: Standard deviation of noise in Oklab that all of noise reduction takes away, in lightness and in
#: colour (by eye on the noisy yard).
MOST_NOISE = (0.02, 0.05)
#: Shares of the deviation of white noise that each level holds, the finest first (measured on white
#: noise).
SHARES = (0.89, 0.20, 0.086, 0.041)
#: The cubic B-spline that the wavelets are made with.
S0, S1, S2 = np.float32(6 / 16), np.float32(4 / 16), np.float32(1 / 16)
#: Rows that one thread works in one go: few enough that many threads share a small picture. It
#: crosses up to 32 more, as its neighbours do.
ROWS = 96


@inner
def _across(padded: np.ndarray, hole: int, row: np.ndarray) -> None:
    """The spline along a row, with its taps ``apart`` pixels apart. ``padded`` is the row with room
    for 2 · hole more on both sides.
    """
    width = row.size
    t0, t1, t2, t3, t4 = (
        padded[:width],
        padded[hole:],
        padded[2 * hole :],
        padded[3 * hole :],
        padded[4 * hole :],
    )
    padded[: 2 * hole] = t2[0]
    padded[width + 2 * hole :] = t2[width - 1]
    for x in range(width):
        row[x] = S2 * (t0[x] + t4[x]) + S1 * (t1[x] + t3[x]) + S0 * t2[x]


@kernel
def _spread(weights: np.ndarray, hole: int, out: np.ndarray) -> None:
    """One by what the spline both ways gives of weights; 0 where that tells nothing. Rows crossed
    are kept in a ring.
    """
    height, width = weights.shape
    count = 4 * hole + 1
    for part in prange((height + ROWS - 1) // ROWS):
        begin, end = part * ROWS, min((part + 1) * ROWS, height)
        ring, padded = np.empty((count, width), np.float32), np.empty(width + 4 * hole, np.float32)
        for n in range(end - begin + 4 * hole):
            held, middle = (
                weights[min(max(np.int64(begin + n - 2 * hole), 0), height - 1)],
                padded[2 * hole :],
            )
            for x in range(width):
                middle[x] = held[x]
            _across(padded, hole, ring[n % count])
            at = n - 4 * hole
            if at >= 0:
                r0, r1, r2 = (
                    ring[at % count],
                    ring[(at + hole) % count],
                    ring[(at + 2 * hole) % count],
                )
                r3, r4, row = ring[(at + 3 * hole) % count], ring[n % count], out[begin + at]
                for x in range(width):
                    total = S2 * (r0[x] + r4[x]) + S1 * (r1[x] + r3[x]) + S0 * r2[x]
                    row[x] = np.float32(1) / total if total > LEAST else np.float32(0)


@kernel
def _level(
    left: np.ndarray,
    weights: np.ndarray,
    over: np.ndarray,
    hole: int,
    least: float,
    first: bool,
    last: bool,
    kept: np.ndarray,
    coarse: np.ndarray,
) -> None:
    """The spline both ways gives the coarse plane; what it leaves of ``left``, lowered, is kept,
    and in the end the coarse with it.
    """
    height, width = left.shape
    zero, one, tiny, square, count = (
        np.float32(0),
        np.float32(1),
        np.float32(1e-20),
        np.float32(least * least),
        4 * hole + 1,
    )
    for part in prange((height + ROWS - 1) // ROWS):
        begin, end = part * ROWS, min((part + 1) * ROWS, height)
        ring, padded = np.empty((count, width), np.float32), np.empty(width + 4 * hole, np.float32)
        for n in range(end - begin + 4 * hole):
            source = min(max(np.int64(begin + n - 2 * hole), 0), height - 1)
            values, weight, middle = left[source], weights[source], padded[2 * hole :]
            for x in range(width):
                middle[x] = values[x] * weight[x]
            _across(padded, hole, ring[n % count])
            at = n - 4 * hole
            if at < 0:
                continue
            r0, r1, r2 = ring[at % count], ring[(at + hole) % count], ring[(at + 2 * hole) % count]
            r3, r4, y = ring[(at + 3 * hole) % count], ring[n % count], begin + at
            before, share, keep, out = left[y], over[y], kept[y], coarse[y]
            for x in range(width):
                mean = (S2 * (r0[x] + r4[x]) + S1 * (r1[x] + r3[x]) + S0 * r2[x]) * share[x]
                mean = mean if share[x] > zero else before[x]
                wavelet = before[x] - mean
                size = abs(wavelet)
                lowered = wavelet * max(one - square / max(size * size, tiny), zero) + (
                    zero if first else keep[x]
                )
                keep[x] = lowered + mean if last else lowered
                out[x] = mean


def denoised(planes: np.ndarray, weights: np.ndarray, amount: float, scale: float) -> np.ndarray:
    """A picture (3, H, W), linear light, with noise lowered by an amount, 0 to 1; by ``weights``
    (H, W) pixels count for their neighbours.

    ``scale``: of the picture, see `Frame`.
    """
    lab, kept, one, other = (
        to_oklab(planes),
        np.empty_like(planes),
        np.empty_like(weights),
        np.empty_like(weights),
    )
    skipped = max(0, round(-np.log2(scale)))  # the finest levels are gone from a reduced picture
    count = LEVELS - skipped
    over = np.empty((max(count, 0), *weights.shape), np.float32)
    for level in range(count):
        _spread(weights, 2**level, over[level])
    for k in range(3):
        most, left = amount * MOST_NOISE[0 if k == 0 else 1], lab[k]
        for level in range(count):
            coarse = other if level % 2 else one
            least = 3 * most * SHARES[level + skipped]
            _level(
                left,
                weights,
                over[level],
                2**level,
                least,
                level == 0,
                level == count - 1,
                kept[k],
                coarse,
            )
            left = coarse
    light = from_oklab(kept if count > 0 else lab)
    return np.clip(light, -BRIGHTEST, BRIGHTEST, out=light)
