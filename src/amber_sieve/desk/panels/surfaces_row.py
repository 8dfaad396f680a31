"""A row of chips, one for each main surface of the picture: to point at for its mask, to click for a pick. It can be folded."""

from __future__ import annotations

from PyQt6.QtCore import QEvent, QSize, Qt
from PyQt6.QtGui import QEnterEvent, QGuiApplication, QIcon, QPixmap, QResizeEvent
from PyQt6.QtWidgets import QHBoxLayout, QSizePolicy, QToolButton, QWidget

from ...workspace.surfaces import HEIGHT, Chip, SurfacesController
from ...workspace.workspace import Workspace
from ..widgets.drawing import image_of


class ChipButton(QToolButton):
    """One surface: the picture, dark where it does not hold."""

    def __init__(self, surfaces: SurfacesController, chip: Chip, number: int) -> None:
        super().__init__()
        self._surfaces, self._chip = surfaces, chip
        image = image_of(chip.pixels)
        self.setIcon(QIcon(QPixmap.fromImage(image.copy())))
        self.setIconSize(QSize(image.width(), image.height()))
        share = f"{100 * chip.share:.0f} %" if chip.share >= 0.01 else "under 1 %"
        self.setToolTip(f"A surface that holds {share} of the picture. Click to pick it, Ctrl+click for a new sieve")
        self.setAccessibleName(f"Surface {number}, {share} of the picture")
        self.clicked.connect(self._take)

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
    """The chips, beside an arrow that folds them away; hidden while none are known."""

    def __init__(self, workspace: Workspace) -> None:
        super().__init__()
        self._surfaces, self._preferences = workspace.surfaces, workspace.preferences
        self.setObjectName("panel")
        self.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Fixed)
        self.setMinimumWidth(1)  # in place of what its chips would ask for
        self.fold = QToolButton()
        self.fold.setText("Surfaces")
        self.fold.setCheckable(True)
        self.fold.setAutoRaise(True)
        self.fold.setObjectName("bare")
        self.fold.setToolButtonStyle(Qt.ToolButtonStyle.ToolButtonTextBesideIcon)
        self.fold.setToolTip("Main surfaces of the picture, found by themselves; fold them away or look for them")
        self.fold.clicked.connect(lambda on: self._preferences.change(surfaces=on))
        self.row = QHBoxLayout(self)
        self.row.setContentsMargins(4, 2, 4, 2)
        self.row.setSpacing(3)
        self.row.addWidget(self.fold)
        self.row.addStretch(1)
        self.chips: list[ChipButton] = []
        workspace.surfaces.found.connect(self._show)
        self._preferences.changed.connect(self._follow)
        self._follow()

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        super().resizeEvent(event)
        self._fit()

    def _fit(self) -> None:
        """Show as many chips as there is room for: the row never makes the window wider."""
        room = self.width() - self.fold.sizeHint().width() - 12
        for button in self.chips:
            room -= button.sizeHint().width() + self.row.spacing()
            button.setVisible(self._preferences.values.surfaces and room >= 0)

    def _show(self, chips: list[Chip]) -> None:
        for button in self.chips:
            self.row.removeWidget(button)
            button.deleteLater()
        self.chips = [ChipButton(self._surfaces, chip, number) for number, chip in enumerate(chips, start=1)]
        for number, button in enumerate(self.chips):
            self.row.insertWidget(1 + number, button)
        self._follow()

    def _follow(self) -> None:
        """Folded or not, as is preferred."""
        on = self._preferences.values.surfaces
        self.fold.setChecked(on)
        self.fold.setArrowType(Qt.ArrowType.DownArrow if on else Qt.ArrowType.RightArrow)
        self._fit()
        self.setFixedHeight(HEIGHT + 12 if on and self.chips else self.fold.sizeHint().height() + 4)
