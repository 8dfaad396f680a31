"""Picture and mask side by side, zoom and pan locked together, with the bar of views above and the
readout below.
"""

from __future__ import annotations

import html

from PyQt6.QtCore import QElapsedTimer, QPointF, QRect, Qt, QTimer
from PyQt6.QtGui import QCursor, QGuiApplication, QResizeEvent
from PyQt6.QtWidgets import (
    QBoxLayout,
    QComboBox,
    QHBoxLayout,
    QLabel,
    QMainWindow,
    QToolButton,
    QToolTip,
    QVBoxLayout,
    QWidget,
)

from ...language import decimals, translator
from ...live.difference import Difference
from ...live.parts import Shown
from ...live.preview import Rendered
from ...render.views import VIEWS
from ...workspace.workspace import Workspace
from ..widgets.icon import icon, tool_cursor, with_icon
from .answer import Answer
from .area_tools import ICONS, AreaTools
from .gestures import Gestures
from .inset import Inset
from .key_cursor import KeyCursor
from .pane import Pane
from .readout_line import ReadoutLine
from .viewport import Viewport

translate = translator("canvas")


#: Milliseconds that the answer to why a pixel is masked stays.
WHY_STAYS = 30_000
#: Milliseconds for which it is shown what a click added and removed.
FLASH = 1300
#: Milliseconds from which on a press on Before is held, and not a click.
HELD = 350
#: How picture and mask are arranged: words and icon.
ARRANGEMENTS = {
    "twin": (translate("Twin"), "columns-2"),
    "inset": (translate("Inset"), "picture-in-picture-2"),
    "single": (translate("Single"), "square"),
}


class Canvas(QWidget):
    """The middle of the window."""

    def __init__(self, workspace: Workspace) -> None:
        super().__init__()
        self._work, self._viewing, self._readout = (
            workspace.work,
            workspace.viewing,
            workspace.readout,
        )
        self._tools, self._preferences = workspace.tools, workspace.preferences
        self.viewport = Viewport()
        self.areas = AreaTools(workspace, self.viewport)
        self.panes = [
            Pane(workspace, self.viewport, "result"),
            Pane(workspace, self.viewport, "mask"),
        ]
        for pane in self.panes:
            pane.overlay = self.areas.paint
            pane.takes_pen = lambda: self.areas.tool == "brush"
            pane.has_tool = lambda: bool(self.areas.tool)
        for changed in (self.areas.changed, workspace.areas.outline_changed):
            changed.connect(self._repaint)
        self._cursor_name: str | None = ""
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        #: How the picture is seen: stands in the row above all.
        self.bar = self._bar()
        self.pair = QBoxLayout(QBoxLayout.Direction.LeftToRight)
        self.pair.setSpacing(2)
        for pane in self.panes:
            self.pair.addWidget(pane)
            pane.hovered.connect(self._hover)
        self.gestures = Gestures(workspace, self.viewport, self.panes, self.areas)
        self.answer = Answer(workspace, self.viewport, self.panes[0])
        self.gestures.presses = self.answer.stand_in
        self.key_cursor = KeyCursor(self.viewport, self.panes, self.gestures, self._hover)
        column.addLayout(self.pair, 1)
        self.inset = Inset(workspace, self.viewport, self.panes[0])
        self.field: QWidget | None = None
        #: Shown in the window's bar at the bottom.
        self.readout = ReadoutLine(workspace)
        self._pointer: QPointF | None = None
        self.viewport.changed.connect(self._ask)
        workspace.pictures.opening.connect(self._opening)
        workspace.preferences.changed.connect(self._prefer)
        self.areas.changed.connect(self.follow_tool)
        self._prefer()
        workspace.viewing.rendered.connect(self._take)
        workspace.viewing.glimpsed.connect(self._take)
        workspace.work.source_changed.connect(self._new_source)
        workspace.work.changed.connect(self._project_changed)
        self._marked: tuple[object, ...] = ()
        workspace.viewing.changed_mask.connect(self._flash)
        workspace.readout.explained.connect(self._tell_why)
        workspace.adjust.picking.connect(self.follow_tool)
        self._calm = QTimer(self)
        self._calm.setSingleShot(True)
        self._calm.timeout.connect(self._end_flash)

    def _bar(self) -> QWidget:
        bar = QWidget()
        row = QHBoxLayout(bar)
        row.setContentsMargins(0, 2, 0, 2)
        row.setSpacing(4)
        self.choices = []
        for number, pane in enumerate(self.panes):
            choice = QComboBox()
            for name, one in VIEWS.items():
                choice.addItem(one.label, name)
            choice.setCurrentIndex(choice.findData(pane.view))
            choice.setSizeAdjustPolicy(
                QComboBox.SizeAdjustPolicy.AdjustToMinimumContentsLengthWithIcon
            )
            choice.setMinimumContentsLength(6)
            choice.setAccessibleName(
                translate("Left view") if number == 0 else translate("Right view")
            )
            choice.setToolTip(
                translate(
                    "What this pane shows (keys 1 to 9 and 0 for the pane under the pointer)",
                )
            )
            choice.currentIndexChanged.connect(
                lambda index, number=number: self.set_view(number, list(VIEWS)[index])
            )
            self.choices.append(choice)
        self.layouts = QComboBox()
        for name, (words, drawing) in ARRANGEMENTS.items():
            self.layouts.addItem(icon(drawing), words, name)
        self.layouts.setAccessibleName(translate("Layout"))
        self.layouts.setToolTip(
            translate(
                "Picture and mask side by side (T), the mask small in a corner (I), or one view",
            )
        )
        self.layouts.activated.connect(lambda index: self.arrange(list(ARRANGEMENTS)[index]))
        self.compare = QToolButton()
        tip = translate("The picture as it was: click to switch, hold to peek (hold O)")
        with_icon(self.compare, "eye", tip, translate("Before"))
        self.compare.setToolButtonStyle(Qt.ToolButtonStyle.ToolButtonTextBesideIcon)
        self.compare.setCheckable(True)
        self._pressed = QElapsedTimer()
        self.compare.pressed.connect(self._press_before)
        self.compare.released.connect(self._release_before)
        self.compare.toggled.connect(
            lambda _: self.show_before(False)
        )  # a screen reader switches it without a press
        self.wipe = QToolButton()
        tip = translate("Before and after on either side of a line that can be dragged (W)")
        with_icon(self.wipe, "split", tip, translate("Wipe"))
        self.wipe.setToolButtonStyle(Qt.ToolButtonStyle.ToolButtonTextBesideIcon)
        self.wipe.setCheckable(True)
        self.wipe.toggled.connect(self.set_wipe)
        self.loupe = QToolButton()
        with_icon(
            self.loupe,
            "search",
            translate("Loupe: the pixels at the pointer, and the mean that would be taken (L)"),
        )
        self.loupe.setCheckable(True)
        self.loupe.toggled.connect(self.set_loupe)
        self.zoom_label = QLabel("100 %")
        self.zoom_label.setMinimumWidth(40)
        self.zoom_label.setAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
        fit, full = QToolButton(), QToolButton()
        with_icon(fit, "maximize", translate("Show the whole picture (Ctrl+0)"))
        fit.clicked.connect(self.viewport.fit)
        full.setText("100 %")
        full.setToolTip(translate("One picture pixel for each screen pixel (Ctrl+1)"))
        full.clicked.connect(lambda: self.viewport.zoom_to(1.0 / self.devicePixelRatioF()))
        row.addWidget(self.choices[0])
        row.addWidget(self.compare)
        row.addWidget(self.wipe)
        row.addWidget(self.loupe)
        row.addStretch(1)
        row.addWidget(fit)
        row.addWidget(full)
        row.addWidget(self.zoom_label)
        row.addStretch(1)
        row.addWidget(self.layouts)
        self.second = QWidget()
        beside = QHBoxLayout(self.second)
        beside.setContentsMargins(0, 0, 0, 0)
        beside.addWidget(self.choices[1])
        row.addWidget(self.second)
        #: What is left out first where the row has no room: keys and menus do the same.
        self.spare = (
            self.zoom_label,
            full,
            self.loupe,
            fit,
            self.layouts,
            self.wipe,
            self.second,
            self.compare,
        )
        return bar

    # Arrangement

    @property
    def arrangement(self) -> str:
        """twin, inset or single."""
        return self._preferences.values.arrangement

    def arrange(self, name: str) -> None:
        """Arrange picture and mask; it is remembered."""
        self._preferences.change(arrangement=name)

    def toggle_twin(self) -> None:
        """Between two views side by side and one."""
        self.arrange("single" if self.arrangement == "twin" else "twin")

    def toggle_beside(self) -> None:
        """Before and after side by side, or result and mask again."""
        beside = self.arrangement == "twin" and self.panes[1].view == "original"
        self.set_view(0, "result")
        self.set_view(1, "mask" if beside else "original")
        self.arrange("twin")

    def show_take_beside(self) -> None:
        """This take and another one side by side."""
        self.set_view(0, "result")
        self.set_view(1, "other take")
        self.arrange("twin")

    def wipe_take(self) -> None:
        """This take and another one on either side of a line."""
        self.set_view(0, "result")
        self.wipe.setChecked(False)
        self.panes[0].wipe_view = "other take"
        self.wipe.setChecked(True)

    def toggle_inset(self) -> None:
        """Between the small mask in a corner and one view."""
        self.arrange("single" if self.arrangement == "inset" else "inset")

    def _prefer(self) -> None:
        """Follow the preferences."""
        held = self._preferences.values
        self.layouts.setCurrentIndex(self.layouts.findData(held.arrangement))
        twin = held.arrangement == "twin"
        self.panes[1].setVisible(twin and self.field is None)
        self.choices[1].setVisible(held.arrangement != "single")
        self.inset.setVisible(held.arrangement == "inset")
        self.inset.place()
        for pane in self.panes:
            pane.surround = held.surround
            pane.update()
        self._arrange()
        self._ask()

    def show_large(self, field: QWidget | None) -> None:
        """Show a widget in the second pane's place; None brings the pane back."""
        if self.field is not None:
            self.pair.removeWidget(self.field)
            self.field.hide()
            self.field.deleteLater()
        self.field = field
        if field is not None:
            self.pair.addWidget(field, 1)
            field.show()
        self._prefer()

    def follow_tool(self) -> None:
        """The cursor shows which tool is in hand."""
        tool = "" if self._tools.picker is not None else self.areas.tool
        name = ICONS.get(tool) if tool else "crosshair" if self._tools.island else "pipette"
        if name != self._cursor_name:
            self._cursor_name = name
            cursor = (
                QCursor(Qt.CursorShape.ArrowCursor)
                if tool == "change" or name is None
                else tool_cursor(name)
            )
            for pane in self.panes:
                pane.set_tool_cursor(cursor)

    def _opening(self, name: str) -> None:
        for pane in self.panes:
            pane.message = translate("Opening {name}…", name=name) if name else ""
            if name:
                pane.take(None)
        if not name and self._viewing.last is not None:
            self._take(self._viewing.last)

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        self._arrange()
        self.inset.place()

    def _arrange(self) -> None:
        """Put the panes side by side or one above the other, whichever shows the picture larger."""
        width, height = self._work.size
        # What opens below the picture does not turn the panes round: all the height counts that
        # there is for both.
        window = self.window()
        column = window.centralWidget() if isinstance(window, QMainWindow) else None
        room = (self.width(), column.height() if column is not None else self.height())
        if width and height and min(room) > 0:
            beside = min(room[0] / 2 / width, room[1] / height)
            above = min(room[0] / width, room[1] / 2 / height)
            self.pair.setDirection(
                QBoxLayout.Direction.TopToBottom
                if above > 1.1 * beside
                else QBoxLayout.Direction.LeftToRight
            )

    def set_view(self, number: int, name: str) -> None:
        """Show a view in the left (0) or right (1) pane."""
        self.panes[number].view = name
        self.choices[number].setCurrentIndex(self.choices[number].findData(name))
        self._ask()

    def set_active_view(self, index: int) -> None:
        """Show the view with this number in the pane under the pointer."""
        number = (
            1
            if self.panes[1].isVisible() and self.panes[1].underMouse() or self.inset.underMouse()
            else 0
        )
        self.set_view(number, list(VIEWS)[index])

    def show_before(self, on: bool) -> None:
        """Hold the original over the left pane; it stays where Before is switched on."""
        self.panes[0].override = "original" if on or self.compare.isChecked() else None
        self._ask()

    def _press_before(self) -> None:
        self._pressed.start()
        self.show_before(True)

    def _release_before(self) -> None:
        """A click has switched it; a press that was held only peeked."""
        if self._pressed.elapsed() >= HELD:
            self.compare.setChecked(False)
        self.show_before(False)

    def _new_source(self) -> None:
        self._hover(None)
        self.readout.forget()
        if self.viewport.picture != self._work.size:
            self._arrange()
            self.viewport.set_picture(*self._work.size)
        for pane in self.panes:
            pane.take(None)
        self._ask()

    def _ask(self) -> None:
        """Ask for what the panes need to see now."""
        self.zoom_label.setText(
            decimals(f"{self.viewport.zoom * self.devicePixelRatioF() * 100:.0f} %")
        )
        if not self._work.size[0]:
            return
        names = [self.panes[0].showing]
        if self.arrangement != "single":
            names.append(self.panes[1].showing)
        if self.panes[0].wipe is not None:
            names.append(self.panes[0].wipe_view)
        factor = self.viewport.reduction(self.devicePixelRatioF())
        box, seen = self.viewport.parts(factor)
        sharp = min(self.viewport.zoom * self.devicePixelRatioF(), 1.0)
        shown = Shown(factor, box, tuple(dict.fromkeys(names)), sharp, seen)
        if (
            shown == self._viewing.shown
            and self._viewing.last
            and self._viewing.last.wanted.shown == shown
        ):
            self._take(self._viewing.last)
        self._viewing.show(shown)

    def _take(self, result: Rendered) -> None:
        for pane in self.panes:
            pane.take(result)
        self.inset.view = self.panes[1].showing
        self.inset.take(result)
        self._point()

    def _project_changed(self) -> None:
        """Draw samples and areas anew when they have changed; the picture follows when it is
        rendered.
        """
        sieve = self._work.sieve
        marked = (sieve.id, sieve.pick, sieve.areas)
        if len(marked) != len(self._marked) or any(
            one is not other for one, other in zip(marked, self._marked, strict=True)
        ):
            self._marked = marked
            if (
                self.areas.tool or not self._work.dragging
            ):  # marks are not drawn while something else is dragged
                self._repaint()

    def _repaint(self) -> None:
        for pane in self.panes:
            pane.update()

    def _flash(self, difference: Difference | None) -> None:
        """Show for a moment what was added and what was removed."""
        for pane in self.panes:
            pane.set_flash(difference)
        self._calm.start(FLASH)

    def _end_flash(self) -> None:
        for pane in self.panes:
            pane.set_flash(None)

    def set_wipe(self, on: bool) -> None:
        """Before on the left of a line in the left pane, after on its right."""
        self.panes[0].wipe = 0.5 if on else None
        if not on:
            self.panes[0].wipe_view = "original"
        self._ask()
        self.panes[0].update()

    def set_marks(self, on: bool) -> None:
        """Draw samples and areas over the picture, or leave it bare."""
        for pane in self.panes:
            pane.marks = on
            pane.update()

    def set_loupe(self, on: bool) -> None:
        """Show the pixels at the pointer enlarged."""
        for pane in self.panes:
            pane.loupe = on
            pane.update()

    def _hover(self, at: QPointF | None) -> None:
        self.areas.hover(at)
        self._pointer = at
        self.readout.hovers = at is not None
        self.gestures.hover(at, QGuiApplication.keyboardModifiers())
        self._point()

    def look_again(self) -> None:
        """The pointer is where it was, but what that means has changed."""
        self._hover(self._pointer)

    def _point(self) -> None:
        """Ask what lies under the pointer."""
        self._readout.point(
            (self._pointer.x(), self._pointer.y()) if self._pointer is not None else None
        )

    def _tell_why(self, lines: list[str]) -> None:
        """Say beside the pointer what decided about the pixel there."""
        words = "".join(f"<p style='margin:2px'>{html.escape(line)}</p>" for line in lines)
        QToolTip.showText(
            QCursor.pos(),
            f"<div style='width:360px'>{words}</div>",
            self.panes[0],
            QRect(),
            WHY_STAYS,
        )
