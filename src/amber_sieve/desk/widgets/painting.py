"""Painters that end when what they draw is drawn, whatever goes wrong.

One that an error leaves alive goes on painting something that is shown already, or gone: Qt ends
the program.
"""

from __future__ import annotations

import contextlib
import functools
from collections.abc import Callable, Iterator
from typing import TypeVar

from PyQt6.QtGui import QPainter, QPaintEvent, QPixmap
from PyQt6.QtWidgets import QWidget

W = TypeVar("W", bound=QWidget)


@contextlib.contextmanager
def painting(on: QWidget | QPixmap) -> Iterator[QPainter]:
    """A painter for as long as something is drawn with it."""
    painter = QPainter(on)
    try:
        yield painter
    finally:
        painter.end()


def paints(draw: Callable[[W, QPainter], None]) -> Callable[[W, QPaintEvent | None], None]:
    """The paint event of a widget that draws itself with a painter."""

    @functools.wraps(draw)
    def paint_event(self: W, event: QPaintEvent | None) -> None:
        with painting(self) as painter:
            draw(self, painter)

    return paint_event
