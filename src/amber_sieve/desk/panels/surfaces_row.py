"""Chips, one for each main surface of the picture: to point at for its mask, to click for a pick.
They can be folded away.
"""

from __future__ import annotations

from PyQt6.QtCore import QEvent, QSize, Qt
from PyQt6.QtGui import QEnterEvent, QGuiApplication, QIcon, QPixmap
from PyQt6.QtWidgets import QGridLayout, QToolButton, QVBoxLayout, QWidget

from ...language import decimals, translator
from ...workspace.viewing.surfaces import Chip, SurfacesController
from ...workspace.workspace import Workspace
from ..widgets.block import Block
from ..widgets.drawing import image_of

translate = translator("panels")


#: Largest width and height of a chip's picture, pixels.
CHIP = (54, 40)
#: Chips in a row: the page is as wide as four.
ACROSS = 4


class ChipButton(QToolButton):
    """One surface on grey, and below it how much of the picture it holds."""

    def __init__(self, surfaces: SurfacesController, chip: Chip, number: int) -> None:
        super().__init__()
        self._surfaces, self._chip = surfaces, chip
        image = image_of(chip.pixels)
        self.setObjectName("chip")
        self.setIcon(QIcon(QPixmap.fromImage(image.copy())))
        self.setIconSize(
            QSize(image.width(), image.height()).scaled(*CHIP, Qt.AspectRatioMode.KeepAspectRatio)
        )
        share = decimals(f"{100 * chip.share:.0f} %") if chip.share >= 0.01 else "under 1 %"
        self.setFixedWidth(CHIP[0] + 6)
        self.setText(share)
        self.setToolButtonStyle(Qt.ToolButtonStyle.ToolButtonTextUnderIcon)
        self.setToolTip(
            translate(
                "A surface that holds {share} of the picture. Click to pick it, Ctrl+click for a "
                "new sieve",
                share=share,
            )
        )
        self.setAccessibleName(
            translate("Surface {number}, {share} of the picture", number=number, share=share)
        )
        self.clicked.connect(self._take)

    def minimumSizeHint(self) -> QSize:
        return QSize(CHIP[0] + 6, CHIP[1] + self.fontMetrics().height() + 8)

    def _take(self) -> None:
        held = QGuiApplication.keyboardModifiers()
        self._surfaces.take(self._chip, bool(held & Qt.KeyboardModifier.ControlModifier))

    def enterEvent(self, event: QEnterEvent | None) -> None:
        self._surfaces.show(self._chip)
        super().enterEvent(event)

    def leaveEvent(self, event: QEvent | None) -> None:
        self._surfaces.hide()
        super().leaveEvent(event)


class SurfacesRow(QWidget):
    """The chips under a heading that folds them away; hidden while none are known and they are
    looked for.
    """

    def __init__(self, workspace: Workspace) -> None:
        super().__init__()
        self._surfaces, self._preferences = workspace.surfaces, workspace.preferences
        self.fold = Block(translate("Surfaces"), plain=True)
        self.fold.arrow.setToolTip(
            translate(
                "Main surfaces of the picture, found by themselves: point at one for its mask, "
                "click it to pick it",
            )
        )
        self.fold.folded.connect(lambda on: self._preferences.change(surfaces=on))
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.addWidget(self.fold)
        self.grid = QGridLayout()
        self.grid.setSpacing(3)
        self.fold.column.addLayout(self.grid)
        self.chips: list[ChipButton] = []
        workspace.surfaces.found.connect(self._show)
        self._preferences.changed.connect(self._follow)
        self._follow()

    def _show(self, chips: list[Chip]) -> None:
        for button in self.chips:
            self.grid.removeWidget(button)
            button.deleteLater()
        self.chips = [
            ChipButton(self._surfaces, chip, number) for number, chip in enumerate(chips, start=1)
        ]
        for number, button in enumerate(self.chips):
            self.grid.addWidget(button, number // ACROSS, number % ACROSS)

    def _follow(self) -> None:
        """Folded or not, as is preferred."""
        self.fold.set_open(self._preferences.values.surfaces)
