"""Picture and mask side by side, zoom and pan locked together, with the bar of views above and the
readout below.
"""

from __future__ import annotations

from PyQt6.QtCore import QPointF, Qt, QTimer
from PyQt6.QtGui import QCursor, QGuiApplication, QResizeEvent
from PyQt6.QtWidgets import (
    QBoxLayout,
    QMainWindow,
    QVBoxLayout,
    QWidget,
)

from ...language import decimals, translator
from ...live.difference import Difference
from ...live.parts import Shown
from ...live.preview import Rendered
from ...render.views import VIEWS
from ...workspace.workspace import Workspace
from ..widgets.icon import tool_cursor
from .answer import Answer
from .area_tools import ICONS, AreaTools
from .gestures import Gestures
from .inset import Inset
from .key_cursor import KeyCursor
from .pane import Pane
from .readout_line import ReadoutLine
from .viewport import Viewport
from .views_bar import ViewsBar

translate = translator("canvas")


#: Milliseconds for which it is shown what a click added and removed.
FLASH = 1300


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
        self.bar = ViewsBar([pane.view for pane in self.panes])
        self.bar.view_chosen.connect(self.set_view)
        self.bar.arrangement_chosen.connect(self.arrange)
        self.bar.peeked.connect(self.show_before)
        self.bar.wipe.toggled.connect(self.set_wipe)
        self.bar.loupe.toggled.connect(self.set_loupe)
        self.bar.fit.clicked.connect(self.viewport.fit)
        self.bar.full.clicked.connect(lambda: self.viewport.zoom_to(1.0 / self.devicePixelRatioF()))
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
        workspace.adjust.picking.connect(self.follow_tool)
        self._calm = QTimer(self)
        self._calm.setSingleShot(True)
        self._calm.timeout.connect(lambda: self._flash(None))

    # Arrangement

    @property
    def arrangement(self) -> str:
        """twin, inset or single."""
        return self._preferences.values.arrangement

    def arrange(self, name: str) -> None:
        """Arrange picture and mask; it is remembered."""
        self._preferences.change(arrangement=name)

    def toggle(self, arrangement: str) -> None:
        """Between an arrangement and one view."""
        self.arrange("single" if self.arrangement == arrangement else arrangement)

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
        self.bar.wipe.setChecked(False)
        self.panes[0].wipe_view = "other take"
        self.bar.wipe.setChecked(True)

    def _prefer(self) -> None:
        """Follow the preferences."""
        held = self._preferences.values
        self.bar.layouts.setCurrentIndex(self.bar.layouts.findData(held.arrangement))
        twin = held.arrangement == "twin"
        self.panes[1].setVisible(twin and self.field is None)
        self.bar.choices[1].setVisible(held.arrangement != "single")
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
        self.bar.choices[number].setCurrentIndex(self.bar.choices[number].findData(name))
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
        self.panes[0].override = "original" if on or self.bar.compare.isChecked() else None
        self._ask()

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
        self.bar.zoom.setText(
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
        """Redraw samples and areas that have changed; the picture follows when it is rendered."""
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
        if difference is not None:
            self._calm.start(FLASH)

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
        self._repaint()

    def set_loupe(self, on: bool) -> None:
        """Show the pixels at the pointer enlarged."""
        for pane in self.panes:
            pane.loupe = on
        self._repaint()

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
