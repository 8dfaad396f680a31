"""Show over the picture what a click has added to the mask and removed from it."""

from __future__ import annotations

import numpy as np
from PyQt6.QtCore import QPointF, QRectF
from PyQt6.QtGui import QPainter

from ...live.difference import Difference
from ..widgets.drawing import image_of
from .viewport import Viewport

#: Colours of what was added and removed, 0xRRGGBB: no pair of working eyes confuses them, and both
#: are far from grey.
ADDED, REMOVED = 0x2E9BFF, 0xFF7A1A
#: What was removed is striped with black besides, in stripes of this many pixels, so that it shows
#: on orange too.
STRIPES = 8


class Flash:
    """A difference of two masks as pixels to lay over the picture."""

    def __init__(self, difference: Difference) -> None:
        added, removed = np.clip(difference.change, 0, 1), np.clip(-difference.change, 0, 1)
        share = (200 * np.maximum(added, removed)).astype(np.uint32)
        rows, columns = np.ogrid[: share.shape[0], : share.shape[1]]
        striped = np.where(
            (rows + columns) % STRIPES < STRIPES // 2, np.uint32(REMOVED), np.uint32(0x101010)
        )
        colour = np.where(added >= removed, np.uint32(ADDED), striped)
        self._pixels = np.ascontiguousarray((share << 24) | colour)
        self._origin, self._scale = difference.origin, difference.scale

    def draw(self, painter: QPainter, viewport: Viewport) -> None:
        """Draw it where it lies on the picture."""
        image = image_of(self._pixels, see_through=True)
        corner = viewport.to_pane(QPointF(*self._origin))
        size = QPointF(image.width(), image.height()) / self._scale * viewport.zoom
        painter.drawImage(QRectF(corner, corner + size), image)
