"""Panels round the picture that can be moved, floated and put away, and come back as they were."""

from __future__ import annotations

import base64

from PyQt6.QtCore import QSize, Qt
from PyQt6.QtGui import QPainter
from PyQt6.QtWidgets import (
    QDockWidget,
    QHBoxLayout,
    QLabel,
    QMainWindow,
    QMenu,
    QToolButton,
    QWidget,
)

from ...language import translator
from ...workspace.preferences import PreferenceStore
from ..style import LINE
from ..widgets.icon import with_icon
from ..widgets.painting import paints
from .place import kept_bytes

translate = translator("window")


#: Height of the strip by which a panel is dragged, pixels.
STRIP = 8
#: How many dots are drawn on it.
DOTS = 5
#: Raised when panels come or go, so that what was kept of other ones is not used.
VERSION = 1


class Grip(QWidget):
    """The strip above a panel: to drag it by, and to double-click so that it floats. A floating
    panel has its name and a button in it.
    """

    def __init__(self, dock: QDockWidget, title: str) -> None:
        super().__init__(dock)
        self._dock = dock
        self.setCursor(Qt.CursorShape.OpenHandCursor)
        self.setToolTip(
            translate(
                "{title}: drag this strip to move the panel, double-click to let it float; View > "
                "Panels puts it away",
                title=title,
            )
        )
        row = QHBoxLayout(self)
        row.setContentsMargins(8, 0, 2, 0)
        self._title, self._back, self._away = QLabel(title), QToolButton(), QToolButton()
        self._back.setText(translate("Put back"))
        self._back.setToolTip(translate("Put {title} back into the window", title=title))
        with_icon(
            self._away,
            "x",
            translate("Close {title}; View > Panels brings it back", title=title),
        )
        self._back.clicked.connect(lambda: dock.setFloating(False))
        self._away.clicked.connect(dock.close)
        row.addWidget(self._title, 1)
        for button in (self._back, self._away):
            button.setAutoRaise(True)
            button.setObjectName("bare")
            row.addWidget(button)
        dock.topLevelChanged.connect(self._follow)
        self._follow(False)

    def _follow(self, floats: bool) -> None:
        for widget in (self._title, self._back, self._away):
            widget.setVisible(floats)
        self.setFixedHeight(28 if floats else STRIP)

    def sizeHint(self) -> QSize:
        return QSize(20, self.height())

    def minimumSizeHint(self) -> QSize:
        return self.sizeHint()

    @paints
    def paintEvent(self, painter: QPainter) -> None:
        if self._dock.isFloating():
            return
        for dot in range(DOTS):
            painter.fillRect(self.width() // 2 + 5 * (dot - DOTS // 2), STRIP // 2 - 1, 2, 2, LINE)


class Panels:
    """The panels of a window by their ids."""

    def __init__(self, window: QMainWindow, preferences: PreferenceStore) -> None:
        self._window, self._preferences = window, preferences
        self.docks: dict[str, QDockWidget] = {}
        self._titles: dict[str, str] = {}
        #: Whether they are there, or put away.
        self._on = True
        #: As they stand in a new window.
        self._first = b""
        window.setDockOptions(
            QMainWindow.DockOption.AllowNestedDocks | QMainWindow.DockOption.AllowTabbedDocks
        )
        for corner, area in (
            (Qt.Corner.TopLeftCorner, Qt.DockWidgetArea.LeftDockWidgetArea),
            (Qt.Corner.BottomLeftCorner, Qt.DockWidgetArea.LeftDockWidgetArea),
            (Qt.Corner.TopRightCorner, Qt.DockWidgetArea.RightDockWidgetArea),
            (Qt.Corner.BottomRightCorner, Qt.DockWidgetArea.RightDockWidgetArea),
        ):
            window.setCorner(corner, area)

    def add(self, name: str, title: str, widget: QWidget, area: Qt.DockWidgetArea) -> None:
        """A panel that stands in an area, below what stands there already."""
        dock = QDockWidget(title, self._window)
        dock.setObjectName(name)
        dock.setTitleBarWidget(Grip(dock, title))
        dock.setWidget(widget)
        self._window.addDockWidget(area, dock)
        self.docks[name], self._titles[name] = dock, title

    def size(self, widths: dict[str, int], heights: dict[str, int]) -> None:
        """Set the sizes of panels in a new window, pixels."""
        for sizes, way in ((widths, Qt.Orientation.Horizontal), (heights, Qt.Orientation.Vertical)):
            self._window.resizeDocks(
                [self.docks[name] for name in sizes], list(sizes.values()), way
            )

    def restore(self) -> None:
        """Put them as they were left, or away."""
        self._first = self._window.saveState(VERSION).data()
        self._stand()
        self._preferences.changed.connect(self.follow)
        self.follow()

    def keep(self) -> None:
        """Remember how they stand."""
        if self._preferences.values.panels:
            state = base64.b64encode(self._window.saveState(VERSION).data()).decode("ascii")
            self._preferences.change(panels_state=state)

    def reset(self) -> None:
        """Put them as they are in a new window."""
        self._preferences.change(panels=True, panels_state="")
        self._stand()

    def toggle(self) -> None:
        """Put all away, or bring back those that were there."""
        self.keep()
        self._preferences.change(panels=not self._preferences.values.panels)

    def switch(self, name: str) -> None:
        """Show one of them, or put it away."""
        self.docks[name].setVisible(self.docks[name].isHidden())

    def follow(self) -> None:
        """All are away while that is preferred, and those that were there come back."""
        on = self._preferences.values.panels
        if on != self._on:
            self._on = on
            if on:
                self._stand()
            else:
                for dock in self.docks.values():
                    dock.hide()

    def _stand(self) -> None:
        if not (
            self._preferences.values.panels_state
            and self._window.restoreState(
                kept_bytes(self._preferences.values.panels_state), VERSION
            )
        ):
            self._window.restoreState(self._first, VERSION)

    def fill_menu(self, menu: QMenu) -> None:
        """A tick for each, whether it floats, and the way back."""
        menu.clear()
        for dock in self.docks.values():
            menu.addAction(dock.toggleViewAction())
        menu.addSeparator()
        for name, dock in self.docks.items():
            action = menu.addAction(translate("{titles} floats", titles=self._titles[name]))
            assert action is not None
            action.setCheckable(True)
            action.setChecked(dock.isFloating())
            action.setEnabled(dock.isVisible())
            action.triggered.connect(dock.setFloating)
        menu.addSeparator()
        action = menu.addAction(translate("Reset the panels"))
        assert action is not None
        action.triggered.connect(lambda _: self.reset())
