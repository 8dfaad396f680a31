"""A colour as a small picture."""

from __future__ import annotations

import numpy as np
from PyQt6.QtGui import QColor, QIcon, QPixmap

from ...core.colour.transfer import decode, one_encoded


def screen_colour(colour: tuple[float, float, float]) -> QColor:
    """A linear colour as the screen shows it."""
    return QColor(*(int(v) for v in np.clip(np.rint(one_encoded(colour) * 255), 0, 255)))


def light_of(colour: QColor) -> tuple[float, float, float]:
    """Linear light of a colour of the screen, the same as the terminal reads of its code."""
    red, green, blue = (
        float(v) for v in decode(np.array([colour.red(), colour.green(), colour.blue()]) / 255)
    )
    return red, green, blue


def swatch(colour: tuple[float, float, float], width: int = 18, height: int = 18) -> QIcon:
    """A small rectangle of a linear colour."""
    pixmap = QPixmap(width, height)
    pixmap.fill(screen_colour(colour))
    return QIcon(pixmap)
