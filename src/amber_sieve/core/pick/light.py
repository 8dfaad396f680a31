"""Find the change of light between two pictures of the same things, from their colours alone.

Other light multiplies linear red, green and blue by one gain each (von Kries 1902). In log chroma,
(log R/G, log B/G), that is a shift, found where the histograms of the two pictures correlate most
(J. T. Barron, "Convolutional color constancy", ICCV 2015); the gain of green is that of lightness.
"""

from __future__ import annotations

import base64
import binascii
import functools
import zlib
from typing import NamedTuple

import cv2
import numpy as np

#: Cells of the histogram of log chroma in each direction, and how far it reaches from grey.
CELLS, FARTHEST = 128, 3.0
#: Cells of the histogram of log green, and the natural logarithms it reaches from and to.
STEPS, DARKEST, BRIGHTEST = 192, -7.0, 1.0
#: Light below the first is noise, above the second it is clipped.
LEAST, MOST = 0.004, 0.98
#: Histograms are smoothed by this many cells.
SMOOTH = 1.0


class Signature(NamedTuple):
    """The colours of a picture: how often each log chroma (CELLS, CELLS) and each log green
    (STEPS,) occurs, as square roots, uint8.
    """

    chroma: np.ndarray
    green: np.ndarray

    @property
    def text(self) -> str:
        """Return the signature as printable text of one to four kilobytes, for `signature_from`."""
        held = zlib.compress(self.chroma.tobytes() + self.green.tobytes(), 9)
        return base64.b85encode(held).decode()


class Light(NamedTuple):
    """The gains (red, green, blue) of the light of one picture over that of another, and how
    sure they are, 0 to 1.
    """

    gains: tuple[float, float, float]
    sure: float


def _as_bytes(histogram: np.ndarray) -> np.ndarray:
    root = np.sqrt(histogram)
    return np.rint(root * (255 / max(float(root.max()), 1e-9))).astype(np.uint8)


def signature_of(planes: np.ndarray) -> Signature:
    """Return the signature of a picture (3, H, W) of linear light, reduced so far that its noise
    is gone.
    """
    counted = (planes.min(axis=0) > LEAST) & (planes.max(axis=0) < MOST)
    red, green, blue = (np.log(plane[counted]) for plane in planes)
    ends = (-FARTHEST, FARTHEST)
    chroma = cv2.calcHist([red - green, blue - green], [0, 1], None, [CELLS] * 2, [*ends, *ends])
    lightness = cv2.calcHist([green], [0], None, [STEPS], [DARKEST, BRIGHTEST])
    return Signature(_as_bytes(chroma), _as_bytes(lightness.ravel()))


@functools.lru_cache(maxsize=32)
def signature_from(text: str) -> Signature | None:
    """Return the signature that a text holds; None where it holds none."""
    try:
        unpacked = zlib.decompressobj().decompress(base64.b85decode(text), CELLS**2 + STEPS + 1)
    except (ValueError, binascii.Error, zlib.error):
        return None
    if len(unpacked) != CELLS**2 + STEPS:
        return None
    held = np.frombuffer(unpacked, np.uint8)
    return Signature(held[: CELLS**2].reshape(CELLS, CELLS), held[CELLS**2 :])


def _peak(values: np.ndarray, place: int) -> float:
    """Return a periodic curve's maximum near a place, by a parabola through its neighbours."""
    left, middle, right = (float(values[(place + k) % values.size]) for k in (-1, 0, 1))
    bend = left - 2 * middle + right
    return place + (0.5 * (left - right) / bend if bend < 0 else 0.0)


def light_between(picked: Signature, other: Signature) -> Light:
    """Return the light of another picture over that of the picture picked on.

    >>> red = np.random.default_rng(1).uniform(0.05, 0.5, (3, 90, 90)).astype(np.float32)
    >>> light_between(signature_of(red), signature_of(red))
    Light(gains=(1.0, 1.0, 1.0), sure=1.0)
    """
    if np.array_equal(picked.chroma, other.chroma) and np.array_equal(picked.green, other.green):
        return Light((1.0, 1.0, 1.0), 1.0)
    one, two = (
        cv2.GaussianBlur(held.chroma.astype(np.float32), (0, 0), SMOOTH) for held in (picked, other)
    )
    size = float(np.linalg.norm(one) * np.linalg.norm(two))
    if not size:
        return Light((1.0, 1.0, 1.0), 0.0)
    together = np.fft.irfft2(np.fft.rfft2(two) * np.conj(np.fft.rfft2(one)), s=one.shape) / size
    row, column = (int(k) for k in np.unravel_index(int(together.argmax()), together.shape))
    places = _peak(together[:, column], row), _peak(together[row], column)
    red, blue = (((k + CELLS / 2) % CELLS - CELLS / 2) * 2 * FARTHEST / CELLS for k in places)
    was, now = (
        cv2.GaussianBlur(held.green.astype(np.float32)[None], (0, 0), 2 * SMOOTH)[0]
        for held in (picked, other)
    )
    along = np.correlate(now - now.mean(), was - was.mean(), "full")
    shift = _peak(along, int(along.argmax())) - (STEPS - 1)
    green = shift * (BRIGHTEST - DARKEST) / STEPS
    sure = float(together[row, column])
    gains = (float(np.exp(green + red)), float(np.exp(green)), float(np.exp(green + blue)))
    return Light(gains, round(min(sure, 1.0), 3))
