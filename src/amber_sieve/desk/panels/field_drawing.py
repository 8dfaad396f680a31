"""Shapes of the colour field: pieces of a ring, and a histogram as an image."""

from __future__ import annotations

import numpy as np
from PyQt6.QtCore import QPointF
from PyQt6.QtGui import (
    QImage,
    QPolygonF,
)

from ...core.statistics import RIM
from ...language import translator
from ..style import WELL
from ..widgets.drawing import image_of, line_through

translate = translator("panels")

#: Columns of the image.
WIDTH = 128


def histogram_image(counts: np.ndarray) -> QImage:
    """A histogram as an image: counted upwards, each row as light as what it counts."""
    shares = np.log1p(counts.astype(float))
    shares /= max(shares.max(), 1e-9)
    greys = (30 + 215 * np.arange(len(counts)) / len(counts)).astype(np.uint32)
    colours = np.uint32(0xFF000000) | greys * np.uint32(0x010101)
    columns = (np.arange(WIDTH) + 0.5) / WIDTH
    pixels = np.where(
        columns[None, :] <= shares[:, None], colours[:, None], np.uint32(0xFF000000 | WELL.rgb())
    )[::-1]
    return image_of(np.ascontiguousarray(pixels.astype(np.uint32))).copy()


def ring(
    middle: QPointF, radius: float, start: float, end: float, inner: float, outer: float
) -> QPolygonF:
    """A piece of a ring, from one hue to another (degrees) and one saturation to another."""
    hues = np.radians(np.linspace(start, min(end, start + 360), 90))
    hues = np.concatenate([hues, hues[::-1]])
    out = np.clip(np.repeat([outer, inner], 90), 0, RIM) / RIM * radius
    return line_through(
        middle.x() + out * np.cos(hues), middle.y() - out * np.sin(hues), closed=True
    )
