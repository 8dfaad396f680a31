"""The bar of views: what each pane shows, Before, Wipe and Loupe, the zoom, and the arrangement."""

from __future__ import annotations

from collections.abc import Sequence

from PyQt6.QtCore import QElapsedTimer, Qt, pyqtSignal
from PyQt6.QtWidgets import QComboBox, QHBoxLayout, QLabel, QToolButton, QWidget

from ...language import translator
from ...render.views import VIEWS
from ..widgets.icon import icon, with_icon

translate = translator("canvas")

#: Milliseconds from which on a press on Before is held, and not a click.
HELD = 350
#: How picture and mask are arranged: words and icon.
ARRANGEMENTS = {
    "twin": (translate("Twin"), "columns-2"),
    "inset": (translate("Inset"), "picture-in-picture-2"),
    "single": (translate("Single"), "square"),
}


class ViewsBar(QWidget):
    """Stands in the row above all; says what was chosen by signals."""

    #: A view was chosen for the left (0) or right (1) pane.
    view_chosen = pyqtSignal(int, str)
    #: Another arrangement was chosen.
    arrangement_chosen = pyqtSignal(str)
    #: The original is held over the picture while this is True.
    peeked = pyqtSignal(bool)

    def __init__(self, views: Sequence[str]) -> None:
        super().__init__()
        left, right = (self._choice(number, view) for number, view in enumerate(views))
        self.choices = (left, right)
        self.compare = self._before()
        tip = translate("Before and after on either side of a line that can be dragged (W)")
        self.wipe = _switch("split", tip, translate("Wipe"))
        tip = translate("Loupe: the pixels at the pointer, and the mean that would be taken (L)")
        self.loupe = _switch("search", tip)
        self.zoom = QLabel("100 %")
        self.zoom.setMinimumWidth(40)
        self.zoom.setAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
        self.fit, self.full = QToolButton(), QToolButton()
        with_icon(self.fit, "maximize", translate("Show the whole picture (Ctrl+0)"))
        self.full.setText("100 %")
        self.full.setToolTip(translate("One picture pixel for each screen pixel (Ctrl+1)"))
        self.layouts = self._arrangements()
        #: Hidden with its choice where there is no room.
        self.second = QWidget()
        beside = QHBoxLayout(self.second)
        beside.setContentsMargins(0, 0, 0, 0)
        beside.addWidget(right)
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 2, 0, 2)
        row.setSpacing(4)
        for widgets in (
            (left, self.compare, self.wipe, self.loupe),
            (self.fit, self.full, self.zoom),
            (self.layouts, self.second),
        ):
            if row.count():
                row.addStretch(1)
            for widget in widgets:
                row.addWidget(widget)

    @property
    def spare(self) -> tuple[QWidget, ...]:
        """Left out in this order where the row has no room: keys and menus do the same."""
        return (
            self.zoom,
            self.full,
            self.loupe,
            self.fit,
            self.layouts,
            self.wipe,
            self.second,
            self.compare,
        )

    def _choice(self, number: int, view: str) -> QComboBox:
        choice = QComboBox()
        for name, one in VIEWS.items():
            choice.addItem(one.label, name)
        choice.setCurrentIndex(choice.findData(view))
        choice.setSizeAdjustPolicy(QComboBox.SizeAdjustPolicy.AdjustToMinimumContentsLengthWithIcon)
        choice.setMinimumContentsLength(6)
        choice.setAccessibleName(translate("Left view") if number == 0 else translate("Right view"))
        choice.setToolTip(
            translate("What this pane shows (keys 1 to 9 and 0 for the pane under the pointer)")
        )
        choice.currentIndexChanged.connect(
            lambda index: self.view_chosen.emit(number, choice.itemData(index))
        )
        return choice

    def _arrangements(self) -> QComboBox:
        choice = QComboBox()
        for name, (words, drawing) in ARRANGEMENTS.items():
            choice.addItem(icon(drawing), words, name)
        choice.setAccessibleName(translate("Layout"))
        choice.setToolTip(
            translate(
                "Picture and mask side by side (T), the mask small in a corner (I), or one view"
            )
        )
        choice.activated.connect(lambda at: self.arrangement_chosen.emit(choice.itemData(at)))
        return choice

    def _before(self) -> QToolButton:
        tip = translate("The picture as it was: click to switch, hold to peek (hold O)")
        button = _switch("eye", tip, translate("Before"))
        self._pressed = QElapsedTimer()
        button.pressed.connect(self._press_before)
        button.released.connect(self._release_before)
        # A screen reader switches it without a press.
        button.toggled.connect(lambda _: self.peeked.emit(False))
        return button

    def _press_before(self) -> None:
        self._pressed.start()
        self.peeked.emit(True)

    def _release_before(self) -> None:
        """A click has switched it; a press that was held only peeked."""
        if self._pressed.elapsed() >= HELD:
            self.compare.setChecked(False)
        self.peeked.emit(False)


def _switch(drawing: str, tip: str, words: str = "") -> QToolButton:
    """A button that stays pressed, with an icon and, where given, words beside it."""
    button = QToolButton()
    with_icon(button, drawing, tip, words)
    if words:
        button.setToolButtonStyle(Qt.ToolButtonStyle.ToolButtonTextBesideIcon)
    button.setCheckable(True)
    return button
