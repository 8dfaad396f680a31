"""Clean source: chroma noise smoothed in the measured picture, never in the picture."""

from __future__ import annotations

import cv2
import numpy as np

from .median import ROUND, median_within

#: Chroma noise (standard deviation in Oklab) that one pass of the median takes care of.
NOISE_PER_PASS = 0.004
#: Most passes: noise that asks for more has no picture left in it.
MOST = 8
#: Side of a block of JPEG, pixels (ITU-T T.81).
BLOCK = 8
#: How much larger steps across its borders must be to count as blocks: pictures that never were
#: JPEGs stay below.
BLOCKY = 1.1
#: How many passes blocks ask for.
PASSES_FOR_BLOCKS = 2
#: Below this there is nothing to smooth.
NO_NOISE = 2e-5
#: Noise hardly ever moves a pixel by more than this many standard deviations.
LIMIT = 4.0
#: Pixels that one pass looks at on every side: half of its 5 x 5 median.
SUPPORT_PER_PASS = ROUND


def noise_of(plane: np.ndarray) -> float:
    """Standard deviation of the noise in a plane (H, W): J. Immerkaer, "Fast noise variance
    estimation" (1996).
    """
    if min(plane.shape) < 3:
        return 0.0
    response = cv2.filter2D(
        plane, cv2.CV_32F, np.array([[1, -2, 1], [-2, 4, -2], [1, -2, 1]], np.float32)
    )[1:-1, 1:-1]
    return float(np.abs(response).mean() * np.sqrt(np.pi / 2) / 6)


def blockiness_of(plane: np.ndarray) -> float:
    """Return how much larger the steps of a plane (H, W) are across the borders of 8 x 8 blocks
    than elsewhere; 1 where there are no blocks.

    The plane begins on a border. JPEG and many video codecs work in such blocks (ITU-T T.81).
    """
    if min(plane.shape) < 3 * BLOCK:
        return 1.0
    found = []
    for steps in (
        np.abs(np.diff(plane, axis=1)).mean(axis=0),
        np.abs(np.diff(plane, axis=0)).mean(axis=1),
    ):
        border = np.arange(len(steps)) % BLOCK == BLOCK - 1
        found.append(steps[border].mean() / max(float(steps[~border].mean()), 1e-9))
    return float(max(found))


def fitting_amount(lab: np.ndarray) -> int:
    """Return how many passes the chroma noise and the chroma blocks of a picture (3, H, W) Oklab
    ask for, 0 to 8; it begins on a block.
    """
    noise = max(noise_of(lab[1]), noise_of(lab[2]))
    passes = int(np.clip(np.ceil(noise / NOISE_PER_PASS - 0.5), 0, MOST))
    blocky = noise > NO_NOISE and max(blockiness_of(lab[1]), blockiness_of(lab[2])) > BLOCKY
    return max(passes, PASSES_FOR_BLOCKS) if blocky else passes


def cleaned(lab: np.ndarray, passes: int) -> np.ndarray:
    """Oklab with a and b smoothed by ``passes`` (1 or more) of a 5 x 5 median, which keeps edges; L
    is untouched.

    A pixel that the median would change by more than the noise ever does stays: it is a strand or a
    speck of another colour.
    """
    out = np.empty_like(lab)
    out[0] = lab[0]
    # The planes lie here and there by turns, so that the last pass ends in what is given back.
    turns = out[1:], np.empty_like(out[1:]) if passes > 1 else out[1:]
    chroma = lab[1:]
    for left in reversed(range(passes)):
        median_within(chroma, LIMIT * NOISE_PER_PASS * passes, turns[left % 2])
        chroma = turns[left % 2]
    return out
