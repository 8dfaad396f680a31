"""A colour as a button: pressed, it asks for another; beside it the colour's code can be typed."""

from __future__ import annotations

import re

from PyQt6.QtCore import QSize, pyqtSignal
from PyQt6.QtGui import QColor
from PyQt6.QtWidgets import QColorDialog, QHBoxLayout, QLineEdit, QPushButton, QWidget

from ...language import translator
from ...project.model import Colour
from .swatch import light_of, screen_colour, swatch

translate = translator("widgets")


class ColourButton(QWidget):
    """``chosen`` comes with linear light."""

    chosen = pyqtSignal(object)

    def __init__(self, name: str, tip: str) -> None:
        super().__init__()
        self.name = name
        self.colour: Colour | None = None
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(4)
        self.button, self.code = QPushButton(name), QLineEdit()
        self.button.setToolTip(tip)
        self.button.setIconSize(QSize(28, 16))
        self.button.clicked.connect(self._ask)
        self.code.setPlaceholderText("#RRGGBB")
        self.code.setObjectName("search")
        self.code.setAccessibleName(translate("{name}, as a code", name=name))
        self.code.setToolTip(translate("The colour as #RRGGBB"))
        self.code.editingFinished.connect(self._typed)
        self.code.setFixedWidth(84)
        row.addWidget(self.button, 1)
        row.addWidget(self.code)

    def show_colour(self, colour: Colour | None) -> None:
        """Show a colour that came from elsewhere."""
        if colour != self.colour or self.button.icon().isNull():
            self.button.setIcon(swatch(colour or (0.02, 0.02, 0.02), 28, 16))
        self.colour = colour
        if not self.code.hasFocus():
            self.code.setText(screen_colour(colour).name().upper() if colour else "")

    def _ask(self) -> None:
        start = screen_colour(self.colour) if self.colour else QColor(180, 90, 60)
        colour = QColorDialog.getColor(start, self, self.name)
        if colour.isValid():
            self.chosen.emit(light_of(colour))

    def _typed(self) -> None:
        text = self.code.text().strip()
        if re.fullmatch("#?[0-9a-fA-F]{6}", text):
            wanted = QColor(text if text.startswith("#") else f"#{text}")
            if self.colour is None or screen_colour(self.colour) != wanted:
                self.chosen.emit(light_of(wanted))
        else:
            self.code.setText(screen_colour(self.colour).name().upper() if self.colour else "")
