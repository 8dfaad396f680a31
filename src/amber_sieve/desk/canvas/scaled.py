"""Screen pixels at the size in which they are seen."""

from __future__ import annotations

import math

import cv2
import numpy as np
from PyQt6.QtCore import QPointF, QRectF, QSize, QSizeF
from PyQt6.QtGui import QImage, QPainter, QRegion

from ...core.changed import changed_boxes, no_runs, runs_of_boxes
from ...core.scaling import scale_runs
from ...render.patched import Step
from ..widgets.drawing import image_of

#: Top, left, bottom, right of each.
Boxes = list[tuple[int, int, int, int]]
#: From this many screen pixels to a pixel on, pixels are shown as squares.
SMOOTH_TO = 2.0


class Scaled:
    """Screen pixels scaled to the pixels of the screen at a zoom; scaled again when any of that
    changes.

    Painted from this, an image is only copied: the painter's own scaling would take several times
    as long, at every paint.
    """

    def __init__(self) -> None:
        self._of: tuple[object, ...] = ()
        self._pixels: np.ndarray | None = None
        #: Which step of a drag they are of.
        self._step: Step | None = None
        #: Pixels of the screen to one.
        self._scale = 1.0
        #: The first and the last row and column that are seen.
        self._first, self._last = (0, 0), (0, 0)
        self._image, self._at = QImage(), QPointF()
        self._memory = np.empty(0, np.uint8)
        #: Screen pixels uint32, or levels of grey uint8, as what was scaled.
        self._scaled: np.ndarray = np.empty((0, 0), np.uint32)

    def draw(
        self,
        painter: QPainter,
        pixels: np.ndarray,
        corner: QPointF,
        zoom: float,
        room: QSize,
        ratio: float,
    ) -> None:
        """Draw pixels (H, W) uint32, or levels of grey uint8, so that their corner lies there,
        ``zoom`` points of the painter to a pixel, within a widget's room.
        """
        if self.fit(pixels, corner, zoom, room, ratio):
            painter.drawImage(self._at, self._image)

    def fit(
        self,
        pixels: np.ndarray,
        corner: QPointF,
        zoom: float,
        room: QSize,
        ratio: float,
        step: Step | None = None,
    ) -> bool:
        """Have pixels as `draw` draws them; False where none of them is seen. ``step`` says which
        step of a drag they are of.
        """
        height, width = pixels.shape
        scale, left, top = zoom * ratio, corner.x() * ratio, corner.y() * ratio
        box = (
            max(0, round(left)),
            max(0, round(top)),
            min(round(room.width() * ratio), round(left + width * scale)),
            min(round(room.height() * ratio), round(top + height * scale)),
        )
        size = (box[2] - box[0], box[3] - box[1])
        if min(size) <= 0:
            return False
        of = (box, left, top, scale)
        if pixels is not self._pixels or of != self._of:
            # The pixels that are seen, all of them whole, and where the first of them lies.
            x0, y0 = (
                min(max(0, int((start - edge) / scale)), size - 1)
                for start, edge, size in ((box[0], left, width), (box[1], top, height))
            )
            x1 = min(width, max(x0 + 1, math.ceil((box[2] - left) / scale)))
            y1 = min(height, max(y0 + 1, math.ceil((box[3] - top) / scale)))
            self._of, self._pixels, self._step = of, pixels, step
            self._scale, self._first, self._last = scale, (y0, x0), (y1, x1)
            self._scale_all((max(1, round((y1 - y0) * scale)), max(1, round((x1 - x0) * scale))))
            self._hold_image(ratio)
            self._at = QPointF(round(left + x0 * scale) / ratio, round(top + y0 * scale) / ratio)
        return True

    @property
    def _seen(self) -> np.ndarray:
        """Return the part of the pixels that is seen."""
        assert self._pixels is not None
        (y0, x0), (y1, x1) = self._first, self._last
        return self._pixels[y0:y1, x0:x1]

    def _scale_all(self, size: tuple[int, int]) -> None:
        """Scale all pixels that are seen to a number of rows and columns."""
        seen = self._seen
        count = size[0] * size[1] * seen.itemsize
        if (
            not count <= self._memory.size <= 2 * count
        ):  # else it is used again: fresh memory takes as long as the scaling
            self._memory = np.empty(count + count // 32, np.uint8)
        self._scaled = self._memory[:count].view(seen.dtype).reshape(size)
        if self._scale < SMOOTH_TO:
            scale_runs(seen, ~no_runs(*seen.shape), self._scaled)
            return
        source, target = (
            one.view(np.uint8).reshape(*one.shape, one.itemsize) for one in (seen, self._scaled)
        )
        cv2.resize(source, size[::-1], target, interpolation=cv2.INTER_NEAREST)

    def _hold_image(self, ratio: float) -> None:
        """Wrap the scaled pixels in a new image, without a copy: the painter caches by image."""
        self._image = image_of(self._scaled)
        self._image.setDevicePixelRatio(ratio)

    def leads_to(self, pixels: np.ndarray, step: Step | None) -> bool:
        """Return whether pixels are those that are held, or of the step right after them."""
        return pixels is self._pixels or (step is not None and step.follows(self._step))

    def exchange(self, pixels: np.ndarray, step: Step | None = None) -> QRegion | None:
        """Take others (H, W) in the place of the pixels that were drawn last: only what differs is
        scaled, and is to be painted anew; None for all of it, where nothing is known of it.
        ``step`` says what may differ from the pixels of the step before, where it is known.
        """
        before, before_it, self._step = self._pixels, self._step, step
        if (
            before is None
            or (before.shape, before.dtype) != (pixels.shape, pixels.dtype)
            or self._scale >= SMOOTH_TO
            or not self._of
        ):
            return None
        if pixels is before:
            return QRegion()
        if step is not None and step.follows(before_it):
            changed, (runs, left) = step.boxes(), step.shown_runs
        else:
            changed = changed_boxes(before, pixels)
            runs, left = runs_of_boxes(changed, *pixels.shape), 0
        boxes, self._pixels = self._on_screen(changed), pixels
        if boxes:
            (y0, x0), (y1, _) = self._first, self._last
            scale_runs(self._seen, runs[y0:y1], self._scaled, left + x0)
        ratio = self._image.devicePixelRatio()
        self._hold_image(ratio)
        region = QRegion()
        for top, left, bottom, right in boxes:
            corner = self._at + QPointF(left, top) / ratio
            region += QRectF(corner, QSizeF(right - left, bottom - top) / ratio).toAlignedRect()
        return region

    def _on_screen(self, boxes: Boxes) -> Boxes:
        """Some boxes of the pixels, as the boxes of what is scaled that may differ where they
        do.
        """
        if not boxes:
            return []
        (y0, x0), (y1, x1), (height, width) = self._first, self._last, self._scaled.shape
        down, across = (y1 - y0) / height, (x1 - x0) / width  # pixels to one of the screen's
        top, left, bottom, right = np.array(boxes, np.float64).T
        # Each pixel of the screen lies between two, so it may change where one of them does.
        first = np.floor(
            np.maximum(np.stack([(top - y0 - 0.5) / down, (left - x0 - 0.5) / across]) - 0.5, 0)
        )
        last = (
            np.ceil(np.stack([(bottom - y0 + 0.5) / down, (right - x0 + 0.5) / across]) - 0.5) + 1
        )
        found = np.concatenate([first, np.minimum(last, [[height], [width]])]).astype(np.int64)
        return [(a, b, c, d) for a, b, c, d in found.T.tolist() if c > a and d > b]
