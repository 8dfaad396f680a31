"""The one row above the picture: menus, views, and the steps of the work."""

from __future__ import annotations

from collections.abc import Sequence

from PyQt6.QtCore import QSignalBlocker, QSize, Qt
from PyQt6.QtGui import QResizeEvent
from PyQt6.QtWidgets import (
    QHBoxLayout,
    QMenu,
    QMenuBar,
    QSizePolicy,
    QStackedWidget,
    QTabBar,
    QToolButton,
    QWidget,
)

from ...language import translator

translate = translator("window")


#: The steps of the work, in their order: the pages, and how they are called.
STEPS = {
    "pick": translate("Pick"),
    "bands": translate("Bands"),
    "edge": translate("Edge"),
    "areas": translate("Areas"),
    "adjust": translate("Adjust"),
}

#: Least width that the row asks for, pixels.
NARROWEST = 400


class TopRow(QWidget):
    """Menus on the left, how the picture is seen in the middle, the steps on the right; menus that
    have no room stand behind one button.
    """

    def __init__(self, views: QWidget, spare: Sequence[QWidget], pages: QStackedWidget) -> None:
        """``spare`` are parts of the views that may be left out, the first of them first."""
        super().__init__()
        self._spare = spare
        self.setObjectName("row")
        self.menus, self.steps, self._pages = QMenuBar(), QTabBar(), pages
        self.menus.setNativeMenuBar(False)
        self.menus.setSizePolicy(QSizePolicy.Policy.Minimum, QSizePolicy.Policy.Preferred)
        self.steps.setDrawBase(False)
        self.steps.setExpanding(False)
        self.steps.setUsesScrollButtons(False)
        self.steps.setAccessibleName(translate("Steps"))
        for label in STEPS.values():
            self.steps.addTab(label)
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(4)
        self.all_menus = QToolButton()
        self.all_menus.setText(translate("Menu"))
        self.all_menus.setToolTip(
            translate("All menus; a wider window shows them beside each other")
        )
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

    def minimumSizeHint(self) -> QSize:
        """Return no width: what has no room is left out, so the window can be narrow."""
        return QSize(NARROWEST, super().minimumSizeHint().height())

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        super().resizeEvent(event)
        self.fit()

    def fit(self) -> None:
        """Put the menus behind one button where they have no room, then leave out what the menus do
        too.
        """
        for widget in self._spare:
            widget.setVisible(True)
        bar = self._views.layout()
        assert bar is not None
        bar.activate()
        room = self.width() - self.steps.sizeHint().width() - 16
        wide = self.menus.sizeHint().width() + self._views.minimumSizeHint().width() <= room
        self.menus.setVisible(wide)
        self.all_menus.setVisible(not wide)
        room -= (self.menus if wide else self.all_menus).sizeHint().width()
        for widget in self._spare:
            if self._views.minimumSizeHint().width() <= room:
                break
            widget.setVisible(False)
            bar.activate()

    def _follow(self, index: int) -> None:
        with QSignalBlocker(self.steps):
            self.steps.setCurrentIndex(index)
