"""The main surfaces of a picture, found by themselves: places at which a click holds something.
Ours.

Colours are grouped, however they are lit. The deepest places of the largest pieces of each group
are clicked; of the masks that gives, one after another is chosen that covers most of what none like
it covers, where rare colours count more: a flower is as much a surface as the wall behind it.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import cv2
import numpy as np

from ..colour.oklab import to_oklab
from .colour_groups import chroma_of, grouped
from .pieces import deepest
from .samples import SampleParams, membership
from .tolerance import steady_tolerance

#: Pieces of each that are clicked.
PIECES = 2
#: Least depth of a place, pixels.
DEEP = 3.0
#: Half the side of the square whose mean is its colour, pixels.
HALF = 2
#: Masks of less than this share of the picture are no surface.
SMALLEST = 0.0015
#: Nor is one that overlaps another by this much of both.
ALIKE = 0.6
#: Masks are compared, and tolerances found, on every n-th pixel.
THIN = 2
#: Colours count by their share of the picture to this power, so that rare ones are found.
RARE = -0.5
#: Bins of a/L and b/L in which that share is counted.
BIN = 0.05
#: Bins of L.
BIN_LIGHT = 0.15
#: Bins of a/L and b/L to either side of grey, and the last one of L.
FARTHEST, BRIGHTEST = 99, 99
#: Colours count by their chroma and this.
GREY = 0.1


@dataclass(frozen=True)
class Surface:
    """A place (x, y) in pixels of the picture that was looked at, and the mask (H, W) float32 that
    a click there gives.
    """

    x: int
    y: int
    mask: np.ndarray


def _places(lab: np.ndarray, step: Callable[[], None]) -> list[tuple[int, int]]:
    """Deep places of the largest pieces of each group of colours, the deepest and most colourful
    first.
    """
    groups = grouped(lab, step)
    found: list[tuple[float, int, int]] = []
    for piece in groups.pieces(None, PIECES):
        step()
        x, y, depth = deepest(piece)
        if depth > DEEP:
            worth = depth * (0.25 + float(np.hypot(*groups.chroma[:, y, x])))
            found.append((-worth, x, y))
    return [(x, y) for _, x, y in sorted(found)]


def _rareness(lab: np.ndarray) -> np.ndarray:
    """Return how much each pixel counts (H, W): rare and colourful ones count more."""
    chroma = chroma_of(lab)
    across = np.clip(np.rint(chroma / BIN), -FARTHEST, FARTHEST).astype(np.int64)
    light = np.clip(np.rint(lab[0] / BIN_LIGHT), 0, BRIGHTEST).astype(np.int64)
    bins = ((across[0] * (2 * FARTHEST + 1) + across[1]) * (BRIGHTEST + 1) + light).ravel()
    bins -= bins.min()
    rare = (np.bincount(bins)[bins] / light.size) ** RARE * (GREY + np.hypot(*chroma)).ravel()
    out: np.ndarray = (rare / rare.sum()).reshape(light.shape).astype(np.float32)
    return out


def _overlaps(masks: np.ndarray) -> np.ndarray:
    """Overlap by union of each of some masks (N, pixels) of zeros and ones with each other, (N,
    N).
    """
    both, sizes = masks @ masks.T, masks.sum(axis=1)
    out: np.ndarray = both / np.maximum(sizes[:, None] + sizes[None] - both, 1)
    return out


def found_surfaces(
    planes: np.ndarray, most: int = 10, step: Callable[[float], None] = lambda share: None
) -> list[Surface]:
    """The main surfaces of a picture.

    Parameters
    ----------
    planes : (3, H, W) float32 linear light, of some 400,000 pixels.
    most : how many are wanted at most.
    step : hears the share that is done, and may raise to stop: every few hundredths of a second,
        for nobody waits for surfaces.

    Returns
    -------
    From the one that covers most of what counts on; fewer where there are fewer, none for a picture
    of one colour.
    """
    lab = to_oklab(np.ascontiguousarray(planes, np.float32))
    step(0.0)
    places = _places(lab, lambda: step(0.1))
    thin = np.ascontiguousarray(lab[:, ::THIN, ::THIN])
    left: list[Surface] = []
    for number, (x, y) in enumerate(places):
        step(0.2 + 0.4 * number / len(places))
        patch = planes[:, max(0, y - HALF) : y + HALF + 1, max(0, x - HALF) : x + HALF + 1]
        red, green, blue = (float(value) for value in patch.reshape(3, -1).mean(axis=1))
        probe = SampleParams((red, green, blue))
        mask = membership(
            lab, [SampleParams(probe.colour, tolerance=steady_tolerance(thin, probe))]
        )
        if float(mask.mean()) >= SMALLEST:
            left.append(Surface(x, y, mask))
    step(0.6)
    rare = _rareness(cv2.GaussianBlur(np.moveaxis(lab, 0, -1), (0, 0), 2.0).transpose(2, 0, 1))
    if not left:
        return []
    step(0.6)
    masks = np.stack([surface.mask[::THIN, ::THIN].ravel() for surface in left])
    step(0.6)
    alike = _overlaps((masks > 0.5).astype(np.float32))
    weighed, chosen = masks * rare[::THIN, ::THIN].ravel(), list[int]()
    free = list(range(len(left)))
    while free and len(chosen) < most:
        # What an unlike mask covers is hardly covered: a flower inside what holds all warm colours
        # is a surface of its own.
        gains = []
        for k in free:
            step(0.6 + 0.4 * len(chosen) / most)
            covered = (masks[chosen] * np.sqrt(alike[chosen, k])[:, None]).max(axis=0, initial=0)
            gains.append(float((weighed[k] * (1 - covered)).sum()))
        best = free.pop(int(np.argmax(gains)))
        if all(alike[best, c] < ALIKE for c in chosen):
            chosen.append(best)
    return [left[k] for k in chosen]
