"""Taking a colour from another picture."""

from __future__ import annotations

import pathlib
from collections.abc import Callable

import numpy as np
from PyQt6.QtCore import QPointF, Qt
from PyQt6.QtGui import QCursor, QMouseEvent, QPixmap
from PyQt6.QtWidgets import QDialog, QFileDialog, QLabel, QVBoxLayout, QWidget

from ...core.colour.screen import to_screen
from ...core.frame import Frame, patch
from ...language import translator
from ...media import formats
from ...media.opening import open_source
from ...progress import Progress
from ...workspace.background.workers import Workers
from ..widgets.drawing import image_of

translate = translator("dialogs")


#: Longer side at which the other picture is shown, pixels.
LONGEST = 900
#: Side of the square that a click takes there, pixels.
TAKEN = 5
READABLE = formats.filter_words(translate("Pictures"), formats.endings("still"))


class PictureColour(QDialog):
    """Another picture: a click gives its colour there and closes it."""

    def __init__(
        self,
        parent: QWidget,
        name: str,
        frame: Frame,
        pixels: np.ndarray,
        then: Callable[[tuple[float, float, float]], None],
    ) -> None:
        super().__init__(parent)
        self.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        self.setWindowTitle(translate("Click a colour in {name}", name=name))
        self._frame, self._then = frame, then
        image = image_of(pixels)
        self.picture = QLabel()
        self.picture.setPixmap(QPixmap.fromImage(image.copy()))  # the pixels go, the picture stays
        self.picture.setCursor(QCursor(Qt.CursorShape.CrossCursor))
        self.picture.setFixedSize(frame.width, frame.height)
        column = QVBoxLayout(self)
        column.addWidget(self.picture)

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is not None and self.picture.geometry().contains(event.position().toPoint()):
            self.take(event.position() - QPointF(self.picture.pos()))

    def take(self, at: QPointF) -> None:
        """Take the colour at a place of the picture as it is shown."""
        x, y = (
            min(max(at.x(), 0), self._frame.width - 1),
            min(max(at.y(), 0), self._frame.height - 1),
        )
        red, green, blue = (float(v) for v in patch(self._frame.planes, x, y, TAKEN).mean(axis=1))
        self._then((red, green, blue))
        self.accept()


def show_picture(
    parent: QWidget,
    workers: Workers,
    path: pathlib.Path,
    then: Callable[[tuple[float, float, float]], None],
) -> None:
    """Open a picture in the background, and show it to take a colour from."""

    def work(progress: Progress) -> tuple[Frame, np.ndarray]:
        source = open_source(path)
        try:
            frame = source.frame(0)
            small = frame.reduced(max(1, round(max(frame.width, frame.height) / LONGEST + 0.49)))
            return small, to_screen(small.planes)
        finally:
            source.close()

    workers.wait_for(
        translate("Opening {name}", name=path.name),
        work,
        lambda found: PictureColour(parent, path.name, found[0], found[1], then).show(),
    )


def ask_colour_of_picture(
    parent: QWidget, workers: Workers, then: Callable[[tuple[float, float, float]], None]
) -> None:
    """Let the person choose a picture, and a colour in it."""
    name, _ = QFileDialog.getOpenFileName(
        parent, translate("Take a colour from a picture"), "", READABLE
    )
    if name:
        show_picture(parent, workers, pathlib.Path(name), then)
