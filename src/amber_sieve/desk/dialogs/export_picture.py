"""A picture of what the export dialog will write."""

from __future__ import annotations

import numpy as np
from PyQt6 import sip
from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QLabel, QVBoxLayout, QWidget

from ...export.lookup import Compared
from ...workspace.exports import ExportsController
from ...workspace.viewing.viewing import Viewing
from ..widgets.drawing import pixmap_of
from .export_formats import LOOKUP
from .export_words import VIEWS, compared_words

#: Longer side of the picture, pixels.
PICTURE = 360


class ExportPicture(QWidget):
    """The picture; of a lookup table, what it makes above what the render makes, and how they
    differ.
    """

    def __init__(self, exports: ExportsController, viewing: Viewing) -> None:
        super().__init__()
        self._exports, self._viewing, self._kind = exports, viewing, ""
        self.picture, self.beside, self.said = QLabel(), QLabel(), QLabel()
        self.said.setWordWrap(True)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        for label in (self.picture, self.beside, self.said):
            label.setFixedWidth(PICTURE)
            label.setAlignment(Qt.AlignmentFlag.AlignTop)
            column.addWidget(label)
        column.addStretch(1)

    def ask(self, kind: str, size: int) -> None:
        """Ask for all of what will be written; ``size``: nodes on a side of a lookup table."""
        self._kind = kind
        for label in (self.beside, self.said):
            label.setVisible(kind == LOOKUP)
        if kind == LOOKUP:
            self.said.setText("…")
            self._exports.compare_lookup(size, self._paint_compared)
        else:
            self._viewing.picture_of(VIEWS[kind], PICTURE, self._paint)

    def _paint(self, pixels: np.ndarray) -> None:
        if not sip.isdeleted(self):  # the dialog may have been closed meanwhile
            self.picture.setPixmap(pixmap_of(pixels))

    def _paint_compared(self, found: Compared, through: np.ndarray, real: np.ndarray) -> None:
        if sip.isdeleted(self) or self._kind != LOOKUP:
            return
        smooth = Qt.TransformationMode.SmoothTransformation
        for label, pixels in ((self.picture, through), (self.beside, real)):
            label.setPixmap(pixmap_of(pixels).scaledToWidth(PICTURE, smooth))
        self.said.setText(compared_words(found))
