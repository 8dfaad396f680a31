"""Histogram of a mask."""

from __future__ import annotations

import numpy as np
from PyQt6.QtCore import QRectF, QSize, Qt
from PyQt6.QtGui import QPainter
from PyQt6.QtWidgets import QSizePolicy, QWidget

from ...language import translator
from ..style import AMBER, WELL
from .painting import paints

translate = translator("widgets")


class MaskHistogram(QWidget):
    """Histogram of a mask, log-scaled; the ends are nothing and all."""

    def __init__(self) -> None:
        super().__init__()
        self.counts = np.zeros(64)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.setToolTip(translate("Histogram of the mask: from nothing (left) to all (right)"))

    def sizeHint(self) -> QSize:
        return QSize(100, 28)

    def show_counts(self, counts: np.ndarray) -> None:
        self.counts = np.log1p(counts.astype(float))
        self.update()

    @paints
    def paintEvent(self, painter: QPainter) -> None:
        painter.fillRect(self.rect(), WELL)
        highest, width = max(self.counts.max(), 1e-9), self.width() / len(self.counts)
        for k, count in enumerate(self.counts):
            height = count / highest * (self.height() - 2)
            painter.fillRect(
                QRectF(k * width, self.height() - height, max(width - 1, 1), height),
                AMBER if k in (0, len(self.counts) - 1) else Qt.GlobalColor.lightGray,
            )
