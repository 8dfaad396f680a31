"""What colourists judge by: waveform, parade, vectorscope and histogram, as counts.

Sources: luma and colour differences of ITU-R BT.709-6, items 3.2 and 3.3; coded values by IEC 61966-2-1.
"""

from __future__ import annotations

import numpy as np

from .colour.transfer import encode

#: Rec. 709 luma of coded red, green and blue, and what its differences to blue and red are divided by (BT.709-6).
LUMA = np.array([0.2126, 0.7152, 0.0722], np.float32)
BLUE_BY, RED_BY = 1.8556, 1.5748
#: Cells of a scope from top to bottom and across.
CELLS = 256
#: Coded values that a waveform and a histogram cover: below black and above white there is room for what was pushed beyond.
LOWEST, HIGHEST = -0.05, 1.10
#: Half the width of the vectorscope, of colour differences: those of a pure colour are at most 0.5.
RIM = 0.6
#: At most so many pixels are counted; more make no finer picture.
COUNTED = 120_000


def coded(planes: np.ndarray, mask: np.ndarray | None = None) -> tuple[np.ndarray, np.ndarray, np.ndarray | None]:
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
    across = np.broadcast_to((np.arange(part.shape[2], dtype=np.float32) + 0.5) / part.shape[2], part.shape[1:])
    weights = None if mask is None else np.ascontiguousarray(mask[::step, ::step]).ravel()
    return encode(part).reshape(3, -1), across.ravel(), weights


def luma(values: np.ndarray) -> np.ndarray:
    """Rec. 709 luma (N,) of coded values (3, N)."""
    return LUMA @ values


def differences(values: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """Rec. 709 colour differences to blue and to red, (N,) each, of coded values (3, N)."""
    y = luma(values)
    return (values[2] - y) / np.float32(BLUE_BY), (values[0] - y) / np.float32(RED_BY)


def _cells(values: np.ndarray, low: float, high: float) -> np.ndarray:
    return np.clip((values - low) * (CELLS / (high - low)), 0, CELLS - 1).astype(np.int32)


def waveform(values: np.ndarray, across: np.ndarray, weights: np.ndarray | None = None) -> np.ndarray:
    """How many pixels of each place from left to right have each coded value: (CELLS, CELLS), the highest value in row 0.

    ``values`` (N,), one channel or luma; ``across`` (N,) in 0 to 1.
    """
    rows, columns = CELLS - 1 - _cells(values, LOWEST, HIGHEST), _cells(across, 0, 1)
    return np.bincount(rows * CELLS + columns, weights, CELLS * CELLS).reshape(CELLS, CELLS)


def vectorscope(values: np.ndarray, weights: np.ndarray | None = None) -> np.ndarray:
    """How many pixels have each colour difference: (CELLS, CELLS), to blue from left to right, to red from the bottom up."""
    blue, red = differences(values)
    return np.bincount((CELLS - 1 - _cells(red, -RIM, RIM)) * CELLS + _cells(blue, -RIM, RIM), weights, CELLS * CELLS).reshape(CELLS, CELLS)


def histogram(values: np.ndarray, weights: np.ndarray | None = None) -> np.ndarray:
    """How many pixels have each coded value of red, green and blue: (3, CELLS) from (3, N)."""
    return np.stack([np.bincount(_cells(channel, LOWEST, HIGHEST), weights, CELLS) for channel in values])
