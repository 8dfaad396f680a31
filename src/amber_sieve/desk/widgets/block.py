"""A block of the Adjust page that folds."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QSignalBlocker, Qt, pyqtSignal
from PyQt6.QtGui import QMouseEvent
from PyQt6.QtWidgets import QHBoxLayout, QLabel, QMenu, QToolButton, QVBoxLayout, QWidget

from ...language import translator
from .icon import icon, with_icon

translate = translator("widgets")


class Block(QWidget):
    """A heading that folds what lies under it, with a switch, a reset and a menu.

    ``switched`` comes with the switch, ``reset`` with the arrow that goes back, ``folded`` when it
    opens or closes.
    """

    switched = pyqtSignal(bool)
    reset = pyqtSignal()
    folded = pyqtSignal(bool)

    def __init__(self, title: str, plain: bool = False) -> None:
        super().__init__()
        self.title = title
        self._use: tuple[bool, bool] | None = None
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(4)
        head = QWidget()
        row = QHBoxLayout(head)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(2)
        self.arrow = QToolButton()
        self.arrow.setCheckable(True)
        self.arrow.setAutoRaise(True)
        self.arrow.setObjectName("bare")
        self.arrow.setText(title)
        self.arrow.setToolButtonStyle(Qt.ToolButtonStyle.ToolButtonTextBesideIcon)
        self.arrow.setAccessibleName(translate("Open or close {title}", title=title))
        self.arrow.toggled.connect(self._fold)
        self.mark = QLabel("")
        self.mark.setObjectName("active")
        row.addWidget(self.arrow)
        row.addWidget(self.mark, 1)
        self.switch, self.back, self.more = QToolButton(), QToolButton(), QToolButton()
        if not plain:
            self.switch.setCheckable(True)
            self.switch.setChecked(True)
            with_icon(self.switch, "eye", translate("See {title} on or off", title=title))
            self.switch.toggled.connect(self._switch)
            with_icon(self.back, "rotate-ccw", translate("Reset {title}", title=title))
            self.back.clicked.connect(self.reset)
            with_icon(self.more, "ellipsis", translate("More of {title}", title=title))
            self.more.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
            for button in (self.switch, self.back, self.more):
                button.setAutoRaise(True)
                button.setObjectName("bare")
                row.addWidget(button)
        column.addWidget(head)
        self.body = QWidget()
        self.column = QVBoxLayout(self.body)
        self.column.setContentsMargins(0, 0, 0, 4)
        self.column.setSpacing(4)
        column.addWidget(self.body)
        self._fold(False)

    def set_title(self, title: str) -> None:
        """Call it otherwise."""
        self.title = title
        self.arrow.setText(title)

    def add(self, *widgets: QWidget) -> None:
        """Put widgets under the heading."""
        for widget in widgets:
            self.column.addWidget(widget)

    def set_menu(self, fill: Callable[[QMenu], None]) -> None:
        """Set the function that fills the menu every time it opens."""
        menu = QMenu(self)

        def anew() -> None:
            menu.clear()
            fill(menu)

        menu.aboutToShow.connect(anew)
        self.more.setMenu(menu)

    @property
    def open(self) -> bool:
        return self.arrow.isChecked()

    def set_open(self, on: bool) -> None:
        """Unfold or fold."""
        self.arrow.setChecked(on)

    def show_use(self, used: bool, on: bool) -> None:
        """Mark whether it changes anything, and whether it is seen."""
        if (used, on) == self._use:
            return
        self._use = (used, on)
        self.mark.setText("●" if used and on else "○" if used else "")
        with QSignalBlocker(self.switch):
            self.switch.setChecked(on)
        self.switch.setIcon(icon("eye" if on else "eye-off"))
        self.back.setEnabled(used or not on)
        self.switch.setEnabled(used or not on)

    def _fold(self, on: bool) -> None:
        self.body.setVisible(on)
        self.arrow.setIcon(icon("chevron-down" if on else "chevron-right"))
        self.folded.emit(on)

    def _switch(self, on: bool) -> None:
        self.switched.emit(on)

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        """The whole heading opens and closes."""
        if event is not None and event.position().y() < self.arrow.height():
            self.set_open(not self.open)
