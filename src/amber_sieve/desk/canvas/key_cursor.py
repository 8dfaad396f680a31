"""A cursor on the picture for the keyboard: what a mouse does there, arrow keys, Enter and Space
do.
"""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QPointF, Qt

from .gestures import Gestures
from .pane import Pane
from .viewport import Viewport

#: Screen pixels that an arrow key moves it by.
STEP = 12.0
#: The same with the button held down, where strokes are drawn.
HELD_STEP = 6.0


class KeyCursor:
    """Off until it is asked for. Enter clicks; Space presses and, the second time, lets go: so
    boxes, strokes and areas are drawn.
    """

    def __init__(
        self,
        viewport: Viewport,
        panes: list[Pane],
        gestures: Gestures,
        hover: Callable[[QPointF | None], object],
    ) -> None:
        self._viewport, self._panes, self._gestures, self._hover = viewport, panes, gestures, hover
        #: Where it is in the picture, None while it is off; whether the button is down.
        self.at: QPointF | None = None
        self.holds = False

    def toggle(self) -> None:
        """Put it into the middle of the visible part, or take it away."""
        self._let_go()
        if self.at is None:
            self._panes[0].setFocus()  # arrows and Enter are the picture's from now on
        self._go_to(None if self.at is not None else QPointF(self._viewport.centre))

    def _go_to(self, at: QPointF | None) -> None:
        self.at = at
        for pane in self._panes:
            pane.key_cursor = at
            pane.update()
        self._hover(at)

    def _let_go(self) -> None:
        if self.holds and self.at is not None:
            self.holds = False
            self._gestures.release(0, self.at, Qt.KeyboardModifier.NoModifier)

    def key(self, key: int) -> bool:
        """A key while a pane has the focus; whether it meant something."""
        if self.at is None:
            return False
        moves = {
            Qt.Key.Key_Left: (-1, 0),
            Qt.Key.Key_Right: (1, 0),
            Qt.Key.Key_Up: (0, -1),
            Qt.Key.Key_Down: (0, 1),
        }
        if key in moves:
            step = (HELD_STEP if self.holds else STEP) / self._viewport.zoom
            across, down = moves[Qt.Key(key)]
            width, height = self._viewport.picture
            self._go_to(
                QPointF(
                    min(max(self.at.x() + across * step, 0), width - 1),
                    min(max(self.at.y() + down * step, 0), height - 1),
                )
            )
            if self.holds:
                self._gestures.drag(0, self.at, Qt.KeyboardModifier.NoModifier)
        elif key in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self._let_go()
            self._gestures.press(0, self.at, Qt.KeyboardModifier.NoModifier)
            self._gestures.release(0, self.at, Qt.KeyboardModifier.NoModifier)
        elif key == Qt.Key.Key_Space:
            if self.holds:
                self._let_go()
            else:
                self.holds = True
                self._gestures.press(0, self.at, Qt.KeyboardModifier.NoModifier)
        elif key == Qt.Key.Key_Escape:
            self.toggle()
        else:
            return False
        return True
