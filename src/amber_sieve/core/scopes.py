"""Scopes that colourists judge by: waveform, parade, vectorscope and histogram, as counts.

Sources: luma and colour differences of ITU-R BT.709-6, items 3.2 and 3.3; coded values by IEC
    61966-2-1.
"""

from __future__ import annotations

import numpy as np

from .colour.transfer import encode
from .jit.parallel import index_in, kernel, prange, serial_kernel

#: Rec. 709 luma of coded red, green and blue, and what its differences to blue and red are divided
#: by (BT.709-6).
LUMA = np.array([0.2126, 0.7152, 0.0722], np.float32)
BLUE_BY, RED_BY = 1.8556, 1.5748
#: Cells of a scope from top to bottom and across.
CELLS = 256
#: Least coded value that a waveform and a histogram cover: below black there is room for what was
#: pushed beyond.
LOWEST = -0.05
#: Largest coded value: the same above white.
HIGHEST = 1.10
#: Half the width of the vectorscope, of colour differences: those of a pure colour are at most 0.5.
RIM = 0.6
#: At most this many pixels are counted; more make no finer picture.
COUNTED = 120_000


def coded(
    planes: np.ndarray, mask: np.ndarray | None = None
) -> tuple[np.ndarray, np.ndarray, np.ndarray | None]:
    """Coded values of some pixels of a picture, evenly spread.

    Parameters
    ----------
    planes : (3, H, W) linear light. mask : (H, W), 0 to 1, weighs the pixels; None for all alike.

    Returns
    -------
    (3, N) coded values, (N,) places from left to right in 0 to 1, (N,) weights or None.
    """
    height, width = planes.shape[1:]
    step = max(1, int(np.ceil((height * width / COUNTED) ** 0.5)))
    part = np.ascontiguousarray(planes[:, ::step, ::step])
    across = np.tile(
        (np.arange(part.shape[2], dtype=np.float32) + np.float32(0.5)) / np.float32(part.shape[2]),
        part.shape[1],
    )
    weights = None if mask is None else np.ascontiguousarray(mask[::step, ::step]).ravel()
    return encode(part).reshape(3, -1), across, weights


def luma(values: np.ndarray) -> np.ndarray:
    """Rec. 709 luma (N,) of coded values (3, N)."""
    return LUMA @ values


def differences(values: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """Rec. 709 colour differences to blue and to red, (N,) each, of coded values (3, N)."""
    y = luma(values)
    return (values[2] - y) / np.float32(BLUE_BY), (values[0] - y) / np.float32(RED_BY)


@kernel
def _counted(
    values: np.ndarray, across: np.ndarray, weights: np.ndarray, bounds: np.ndarray, out: np.ndarray
) -> None:
    """Count the pixels of channels (C, N) into cells (C, CELLS, CELLS), the highest of ``values``
    in row 0. ``bounds``: the least of ``values``, how many cells 1 of it takes, and the same of
    ``across``; ``weights`` holds one for each pixel, or one for all.
    """
    most, last = out.shape[1] - 1, weights.size - 1
    for channel in prange(values.shape[0]):
        for k in range(values.shape[1]):
            row = most - np.int64(index_in((values[channel, k] - bounds[0]) * bounds[1], most))
            column = np.int64(index_in((across[k] - bounds[2]) * bounds[3], most))
            out[channel, row, column] += weights[min(k, last)]


def _count(
    values: np.ndarray,
    across: np.ndarray,
    rows: tuple[float, float],
    columns: tuple[float, float],
    weights: np.ndarray | None,
) -> np.ndarray:
    bounds = np.array(
        [rows[0], CELLS / (rows[1] - rows[0]), columns[0], CELLS / (columns[1] - columns[0])],
        np.float32,
    )
    out = np.zeros((values.shape[0], CELLS, CELLS), np.float32)
    _counted(values, across, np.ones(1, np.float32) if weights is None else weights, bounds, out)
    return out


def parade(values: np.ndarray, across: np.ndarray, weights: np.ndarray | None = None) -> np.ndarray:
    """The waveforms (3, CELLS, CELLS) float32 of three channels (3, N); see `waveform`."""
    return _count(values, across, (LOWEST, HIGHEST), (0.0, 1.0), weights)


def waveform(
    values: np.ndarray, across: np.ndarray, weights: np.ndarray | None = None
) -> np.ndarray:
    """Return how many pixels of each place from left to right have each coded value: (CELLS, CELLS)
    float32, the highest value in row 0.

    ``values`` (N,), one channel or luma; ``across`` (N,) in 0 to 1.
    """
    return parade(values[None], across, weights)[0]


def vectorscope(values: np.ndarray, weights: np.ndarray | None = None) -> np.ndarray:
    """Return how many pixels have each colour difference: (CELLS, CELLS), to blue from left to
    right, to red from the bottom up.
    """
    blue, red = differences(values)
    return _count(red[None], blue, (-RIM, RIM), (-RIM, RIM), weights)[0]


def histogram(values: np.ndarray, weights: np.ndarray | None = None) -> np.ndarray:
    """Return how many pixels have each coded value of red, green and blue: (3, CELLS) from (3,
    N).
    """
    middle = np.zeros(values.shape[1], np.float32)
    return _count(values, middle, (LOWEST, HIGHEST), (0.0, 1.0), weights)[:, ::-1, 0]


@kernel
def _traced(counts: np.ndarray, colour: np.ndarray, most: float, out: np.ndarray) -> None:
    full, half = np.float32(255), np.float32(0.5)
    share = np.float32(1) / np.float32(most)
    for row in prange(counts.shape[0]):
        for column in range(counts.shape[1]):
            count = counts[row, column]
            if count > 0:
                lit = np.sqrt(np.log(count + np.float32(1)) * share) * full
                high = np.uint32(lit * colour[0] + half) << np.uint32(16)
                middle = np.uint32(lit * colour[1] + half) << np.uint32(8)
                out[row, column] = (
                    np.uint32(0xFF000000) | high | middle | np.uint32(lit * colour[2] + half)
                )


def traced(counts: np.ndarray, colour: tuple[float, float, float]) -> np.ndarray:
    """Counts (H, W) as pixels 0xFFRRGGBB of one colour (0 to 1): lifted, so that a single pixel
    shows.
    """
    out = np.full(counts.shape, 0xFF000000, np.uint32)
    _traced(counts, np.array(colour, np.float32), max(float(np.log1p(counts.max())), 1e-9), out)
    return out


@serial_kernel
def _hills(heights: np.ndarray, colours: np.ndarray, out: np.ndarray) -> None:
    full, half = np.float32(255), np.float32(0.5)
    size = out.shape[0]
    for column in range(out.shape[1]):
        for row in range(size):
            red, green, blue = np.float32(0), np.float32(0), np.float32(0)
            for k in range(heights.shape[0]):
                if size - 1 - row < heights[k, column]:
                    red, green, blue = (
                        red + colours[k, 0],
                        green + colours[k, 1],
                        blue + colours[k, 2],
                    )
            high = np.uint32(min(red, np.float32(1)) * full + half) << np.uint32(16)
            middle = np.uint32(min(green, np.float32(1)) * full + half) << np.uint32(8)
            out[row, column] = (
                np.uint32(0xFF000000)
                | high
                | middle
                | np.uint32(min(blue, np.float32(1)) * full + half)
            )


def hills(counts: np.ndarray, colours: tuple[tuple[float, float, float], ...]) -> np.ndarray:
    """Histograms (3, CELLS) over each other as pixels 0xFFRRGGBB (CELLS, CELLS), each in its colour
    (0 to 1); heights by the root.
    """
    heights = np.sqrt(counts / max(float(counts.max()), 1e-9)).astype(np.float32) * np.float32(
        CELLS
    )
    out = np.empty((CELLS, counts.shape[1]), np.uint32)
    _hills(heights, np.array(colours, np.float32), out)
    return out
