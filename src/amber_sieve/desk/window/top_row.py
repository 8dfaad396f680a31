"""The one row above the picture: menus, views, and the steps of the work."""

from __future__ import annotations

from PyQt6.QtCore import QSignalBlocker, Qt
from PyQt6.QtGui import QResizeEvent
from PyQt6.QtWidgets import QHBoxLayout, QMenu, QMenuBar, QSizePolicy, QStackedWidget, QTabBar, QToolButton, QWidget

#: The steps of the work, in their order: the pages, and how they are called.
STEPS = {"pick": "Pick", "bands": "Bands", "edge": "Edge", "areas": "Areas", "adjust": "Adjust"}


class TopRow(QWidget):
    """Menus on the left, how the picture is seen in the middle, the steps on the right; menus that have no room stand behind one button."""

    def __init__(self, views: QWidget, pages: QStackedWidget) -> None:
        super().__init__()
        self.setObjectName("row")
        self.menus, self.steps, self._pages = QMenuBar(), QTabBar(), pages
        self.menus.setNativeMenuBar(False)
        self.menus.setSizePolicy(QSizePolicy.Policy.Minimum, QSizePolicy.Policy.Preferred)
        self.steps.setDrawBase(False)
        self.steps.setExpanding(False)
        self.steps.setUsesScrollButtons(False)
        self.steps.setAccessibleName("Steps")
        for label in STEPS.values():
            self.steps.addTab(label)
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(4)
        self.all_menus = QToolButton()
        self.all_menus.setText("Menu")
        self.all_menus.setToolTip("All menus; a wider window shows them beside each other")
        self.all_menus.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
        self._menu, self._views = QMenu(self), views
        self._menu.aboutToShow.connect(self._fill)
        self.all_menus.setMenu(self._menu)
        self.all_menus.hide()
        row.addWidget(self.menus)
        row.addWidget(self.all_menus)
        row.addWidget(views, 1)
        row.addWidget(self.steps, 0, Qt.AlignmentFlag.AlignBottom)
        self.steps.currentChanged.connect(pages.setCurrentIndex)
        pages.currentChanged.connect(self._follow)

    def _fill(self) -> None:
        self._menu.clear()
        self._menu.addActions(self.menus.actions())

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        """Where the menus have no room beside each other, one button holds them all."""
        super().resizeEvent(event)
        others = self._views.minimumSizeHint().width() + self.steps.sizeHint().width() + 12
        wide = self.menus.sizeHint().width() + others <= self.width()
        self.menus.setVisible(wide)
        self.all_menus.setVisible(not wide)

    def _follow(self, index: int) -> None:
        with QSignalBlocker(self.steps):
            self.steps.setCurrentIndex(index)
