"""Finding the tolerance, falloff, shading and gloss that part what is to be kept from what is to be dropped.

Ours. For every shading and gloss tried, each kept pixel has a distance to the nearest keep tone, and each dropped pixel too.
The wider the gap between the far end of the first and the near end of the second, relative to the first, the better.
"""

from __future__ import annotations

import itertools
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from ..colour.oklab import to_oklab
from .samples import Probe, membership

SHADINGS = (0.5, 0.7, 0.85, 0.95)
GLOSSES = (0.0, 0.3, 0.6)
#: Share of the kept pixels that must count fully; the rest is taken as slips of the hand.
HELD = 0.97
#: Pixels looked at of each sample.
PIXELS = 1500
FARTHEST = 60.0


@dataclass(frozen=True)
class Fit:
    """What was found.

    Attributes
    ----------
    tolerance, falloff : hundredths of Oklab; shading, gloss : 0 to 1.
    separation : 0 to 1: share of kept pixels inside plus share of dropped pixels outside, minus 1 (Youden's index).
    nearest : number of the drop sample whose pixels come nearest, or None without drop samples.
    drop_tolerance : tolerance for the drop samples.
    """

    tolerance: float
    falloff: float
    shading: float
    gloss: float
    separation: float
    nearest: int | None
    drop_tolerance: float


def distances(lab: np.ndarray, colours: np.ndarray, shading: float, gloss: float) -> np.ndarray:
    """Surface distance of pixels (3, 1, N) Oklab to the nearest of some colours (K, 3), up to ``FARTHEST``."""
    # One long linear falloff from tolerance 0 turns membership back into distance; the kernel stays the only formula.
    probes = [
        Probe((float(c[0]), float(c[1]), float(c[2])), tolerance=0.0, falloff=FARTHEST, shading=shading, gloss=gloss) for c in colours
    ]
    return (1 - membership(lab, probes)[0]) * FARTHEST


def _thinned(pixels: np.ndarray) -> np.ndarray:
    every = max(1, pixels.shape[1] // PIXELS)
    return to_oklab(np.ascontiguousarray(pixels[:, None, ::every], np.float32))


def fit(keeps: Sequence[tuple[np.ndarray, np.ndarray]], drops: Sequence[tuple[np.ndarray, np.ndarray]]) -> Fit:
    """Find what parts keep from drop samples best.

    Parameters
    ----------
    keeps, drops : for every sample its tones (K, 3) and its pixels (3, N), linear light.

    Raises
    ------
    ValueError: there is no keep sample.
    """
    if not keeps:
        raise ValueError("a fit needs at least one keep sample")
    tones = np.concatenate([sample[0] for sample in keeps])
    kept = np.concatenate([_thinned(sample[1]) for sample in keeps], axis=2)
    dropped = [_thinned(sample[1]) for sample in drops]
    best: tuple[float, Fit] | None = None
    for shading, gloss in itertools.product(SHADINGS, GLOSSES):
        near = float(np.quantile(distances(kept, tones, shading, gloss), HELD))
        away = [distances(pixels, tones, shading, gloss) for pixels in dropped]
        if away:
            ends = [float(np.quantile(d, 1 - HELD)) for d in away]
            nearest = int(np.argmin(ends))
            gap = ends[nearest] - near
            tolerance = max(0.5, near + 0.35 * gap if gap > 0 else (near + ends[nearest]) / 2)
            falloff = max(0.5, 0.3 * gap)
            inside = float((distances(kept, tones, shading, gloss) <= tolerance).mean())
            outside = float(np.mean([(d > tolerance + falloff / 2).mean() for d in away]))
            # Forgiving gloss lets pale backgrounds in, which no drop sample may have named: it must pay for itself.
            score = gap / (near + 1.0) - 0.5 * gloss
            found = Fit(tolerance, falloff, shading, gloss, inside + outside - 1, nearest, max(0.5, tolerance / 2))
        else:
            score = -near - 2 * gloss
            found = Fit(max(2.0, near * 1.3), max(0.5, near * 0.3), shading, gloss, 1.0, None, 1.0)
        if best is None or score > best[0]:
            best = (score, found)
    assert best is not None
    return best[1]
