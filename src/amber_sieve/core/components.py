"""Connected components of a region, as OpenCV labels them.

`edge.pieces` labels masks of full size by runs of rows instead, which keeps no labels and can be
written over in place.
"""

from __future__ import annotations

from dataclasses import dataclass

import cv2
import numpy as np


def labelled(region: np.ndarray, corners: bool = True) -> np.ndarray:
    """Return the component of each pixel of a region (H, W) bool, from 1, 0 outside; int32.

    ``corners``: pixels that touch at a corner belong together (8 neighbours, or 4).
    """
    labels: np.ndarray = cv2.connectedComponents(
        region.astype(np.uint8, copy=False), connectivity=8 if corners else 4
    )[1]
    return labels


@dataclass(frozen=True)
class Components:
    """All components of a region.

    Attributes
    ----------
    labels : (H, W) int32, from 1; 0 outside.
    boxes : (N, 4) int32, left, top, width, height of component k + 1.
    areas : (N,) int32, its pixels.
    """

    labels: np.ndarray
    boxes: np.ndarray
    areas: np.ndarray

    def largest(self, most: int) -> list[int]:
        """Return the labels of at most ``most`` components, the largest first."""
        return [int(k) + 1 for k in np.argsort(-self.areas, kind="stable")[:most]]


def components_of(region: np.ndarray, corners: bool = True) -> Components:
    """Return the components of a region (H, W) bool, with their boxes and areas.

    Examples
    --------
    >>> found = components_of(np.array([[True, False, True], [True, False, False]]))
    >>> found.largest(2), found.areas.tolist()
    ([1, 2], [2, 1])
    """
    _, labels, stats, _ = cv2.connectedComponentsWithStats(
        region.astype(np.uint8, copy=False), connectivity=8 if corners else 4
    )
    return Components(labels, stats[1:, :4], stats[1:, cv2.CC_STAT_AREA])
