"""Only what hangs together with the sampled places."""

from __future__ import annotations

from collections.abc import Sequence

import cv2
import numpy as np

from ..components import labelled
from ..disjoint import find_root
from ..jit.parallel import kernel, prange, serial_kernel

#: A pixel belongs to a piece when at least this much of it is masked.
MEMBER = np.float32(1 / 255)
#: The measured distance of a pixel beside a piece is 1; this much slack absorbs the error of
#: measuring.
SLACK = 0.45


@serial_kernel
def _join(labels: np.ndarray, distance: np.ndarray, most: np.float32, group_of: np.ndarray) -> None:
    """Join the pieces on both sides of a pixel that belongs to neither: of a gap of an odd number
    of pixels, the one in its middle.
    """
    height, width = labels.shape
    half = most / np.float32(2)
    for y in range(height):
        for x in range(width):
            here = distance[y, x]
            if here <= half or here > most:
                continue
            first = 0
            for step in range(4):
                row, column = y + (step == 1) - (step == 0), x + (step == 3) - (step == 2)
                if (
                    row < 0
                    or column < 0
                    or row >= height
                    or column >= width
                    or distance[row, column] + here > most
                ):
                    continue
                other = find_root(group_of, labels[row, column])
                if first == 0:
                    first = other
                else:
                    group_of[other] = first
    for label in range(group_of.size):
        group_of[label] = find_root(group_of, label)


@kernel
def _only(mask: np.ndarray, labels: np.ndarray, keep: np.ndarray, out: np.ndarray) -> None:
    for y in prange(mask.shape[0]):
        source, of, row = mask[y], labels[y], out[y]
        for x in range(source.size):
            row[x] = source[x] if source[x] >= MEMBER and keep[of[x]] else np.float32(0)


def connected_only(
    mask: np.ndarray, seeds: Sequence[tuple[float, float]], bridge: float = 0.0
) -> np.ndarray:
    """The mask without the pieces that do not hang together with a seed.

    Gaps are crossed where the distances of two neighbouring pixels to the nearest piece come to no
    more than the bridge. What lies within half of it all round a piece belongs to it; pixels that
    lie farther, in the middle of a gap, join those beside them.

    Parameters
    ----------
    mask : (H, W) float32, 0 to 1.
    seeds : x, y of the sampled places, in pixels of this mask; those outside it or on nothing are
        passed over.
    bridge : widest gap, in pixels, that still counts as hanging together; 0 lets nothing cross.

    Returns
    -------
    (H, W) float32; empty when no seed lies on the mask.
    """
    height, width = mask.shape
    at = [(int(y), int(x)) for x, y in seeds if 0 <= x < width and 0 <= y < height]
    at = [(y, x) for y, x in at if mask[y, x] >= MEMBER]
    out = np.zeros_like(mask)
    if not at:
        return out
    if bridge > 0:
        most = np.float32(bridge + SLACK)
        distance = cv2.distanceTransform(
            (mask < MEMBER).view(np.uint8), cv2.DIST_L2, cv2.DIST_MASK_5
        )
        # Once pieces are wider by a pixel, corners that touch are joined through those beside them,
        # and no others are.
        labels = labelled(distance <= most / 2, corners=bool(most < 2))
        group_of = np.arange(labels.max() + 1, dtype=np.int32)
        _join(labels, distance, most, group_of)
    else:
        labels = labelled(mask >= MEMBER)
        group_of = np.arange(labels.max() + 1, dtype=np.int32)
    _only(mask, labels, np.isin(group_of, [group_of[labels[place]] for place in at]), out)
    return out
