"""An outline that clings to the picture's edges between clicks.

E. N. Mortensen, W. A. Barrett, "Intelligent scissors for image composition" (1995), from OpenCV.
"""

from __future__ import annotations

import cv2
import numpy as np

from ..colour.transfer import to_levels

#: The picture is searched in a window of at most this many pixels round the two ends: more takes
#: longer than a drag may.
LARGEST = 1400
#: Room round the two ends in that window, pixels: outlines swing out as far.
MARGIN = 60


def clinging_path(
    planes: np.ndarray,
    start: tuple[float, float],
    end: tuple[float, float],
    sensitivity: float = 0.5,
) -> list[tuple[float, float]]:
    """The way from ``start`` to ``end`` that runs along edges.

    Parameters
    ----------
    planes : (3, H, W) linear light; start, end : x, y in its pixels.
    sensitivity : 0 (only strong edges draw) to 1 (weak ones too).

    Returns
    -------
    Points from start to end, both included; a straight line when both lie on one pixel or too far
    apart to be searched.
    """
    height, width = planes.shape[1:]
    ends = np.clip(np.array([start, end], float), 0, [width - 1, height - 1])
    left, top = np.maximum(ends.min(0) - MARGIN, 0).astype(int)
    right, bottom = np.minimum(ends.max(0) + MARGIN, [width, height]).astype(int)
    if (
        max(right - left, bottom - top) > LARGEST
        or min(right - left, bottom - top) < 3
        or np.abs(ends[0] - ends[1]).max() < 1
    ):
        return [start, end]
    part = np.ascontiguousarray(
        np.moveaxis(to_levels(np.ascontiguousarray(planes[:, top:bottom, left:right])), 0, -1)
    ).astype(np.uint8)
    tool = cv2.segmentation.IntelligentScissorsMB()
    tool.setEdgeFeatureCannyParameters(
        20 + 100 * (1 - sensitivity), 60 + 200 * (1 - sensitivity), 3, True
    )
    tool.setGradientMagnitudeMaxLimit(200)
    tool.applyImage(part)
    corner = np.array([left, top])
    first, last = (ends - corner).astype(int)
    tool.buildMap((int(first[0]), int(first[1])))
    contour = tool.getContour((int(last[0]), int(last[1]))).reshape(-1, 2)
    return [(float(x + left) + 0.5, float(y + top) + 0.5) for x, y in contour]
