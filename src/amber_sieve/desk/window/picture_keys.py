"""Keys of the picture, wherever the focus is but in a text field; and those of commands, wherever
it is.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping

from PyQt6.QtCore import QEvent, QObject, Qt
from PyQt6.QtGui import QAction, QKeyEvent, QKeySequence
from PyQt6.QtWidgets import QAbstractButton, QApplication, QLineEdit, QTextEdit, QWidget

from ...workspace.workspace import Workspace
from ..canvas.canvas import Canvas
from ..clip.timeline import Timeline
from ..widgets.band_editor import BandEditor

#: Keys that a text field keeps.
EDITING = (
    QKeySequence.StandardKey.Cut,
    QKeySequence.StandardKey.Copy,
    QKeySequence.StandardKey.Paste,
    QKeySequence.StandardKey.SelectAll,
    QKeySequence.StandardKey.Undo,
    QKeySequence.StandardKey.Redo,
)


class PictureKeys(QObject):
    """Hears what the widget with the focus hears, and nothing else: a filter of all events would
    be asked hundreds of times a paint.
    """

    def __init__(
        self,
        window: QWidget,
        workspace: Workspace,
        canvas: Canvas,
        timeline: Timeline,
        letters: Callable[[], Mapping[str, QAction]],
        commands: Callable[[], Iterable[QAction]],
    ) -> None:
        """``letters``: commands by the letter that is their key. ``commands``: all of them."""
        super().__init__(window)
        self._window, self._canvas, self._timeline = window, canvas, timeline
        self._letters, self._commands, self._adjust = letters, commands, workspace.adjust
        self._work, self._clip, self._ahead = workspace.work, workspace.clip, workspace.ahead
        self._playback, self._tools = workspace.playback, workspace.tools
        running = QApplication.instance()
        assert isinstance(running, QApplication)
        running.focusChanged.connect(self._listen)

    def _listen(self, left: QWidget | None, entered: QWidget | None) -> None:
        if left is not None:
            left.removeEventFilter(self)
        if entered is not None:
            entered.installEventFilter(self)

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        if isinstance(event, QKeyEvent) and self._window.isActiveWindow():
            if event.type() == QEvent.Type.ShortcutOverride and self._is_command(event, watched):
                event.ignore()  # or a field would take Ctrl+E for the end of its line
                return True
            focus = QApplication.focusWidget()
            ours = watched is focus and not isinstance(focus, QLineEdit)
            pressed = event.type() == QEvent.Type.KeyPress
            released = event.type() == QEvent.Type.KeyRelease
            if ours and not event.modifiers() and (pressed or released):
                key, on_picture = event.key(), focus in self._canvas.panes
                if self._held(key, pressed, event.isAutoRepeat()):
                    return True
                if pressed and self._at_once(key, on_picture):
                    return True
                act = self._act(key, on_picture, focus)
                if act is not None:
                    if pressed:
                        act()
                    return True
        return super().eventFilter(watched, event)

    def _is_command(self, event: QKeyEvent, watched: QObject | None) -> bool:
        """Return whether a key with Ctrl or Alt is that of a command, and does not edit text in a
        text field.
        """
        if not event.modifiers() & (
            Qt.KeyboardModifier.ControlModifier | Qt.KeyboardModifier.AltModifier
        ):
            return False
        if isinstance(watched, (QLineEdit, QTextEdit)) and any(map(event.matches, EDITING)):
            return False
        pressed = QKeySequence(event.keyCombination())
        return any(pressed in action.shortcuts() for action in self._commands())

    def _held(self, key: int, pressed: bool, repeats: bool) -> bool:
        """Keys that act for as long as they are held."""
        if key not in (Qt.Key.Key_O, Qt.Key.Key_Q):
            return False
        if repeats:
            return True
        if key == Qt.Key.Key_O:
            self._canvas.show_before(pressed)
        else:
            self._ahead.hold(pressed)
            if pressed:
                self._canvas.look_again()
        return True

    def _at_once(self, key: int, on_picture: bool) -> bool:
        """Give a key to what is in hand; return whether it meant something there."""
        if key == Qt.Key.Key_Escape and self._tools.picker is not None:
            self._adjust.pick_colour(None)
            return True
        if not on_picture:
            return False
        areas = self._canvas.areas
        return self._canvas.key_cursor.key(key) or bool(areas.tool and areas.key(key))

    def _act(
        self, key: int, on_picture: bool, focus: QWidget | None
    ) -> Callable[[], object] | None:
        """Return what a key does with the focus where it is; None for nothing."""
        if Qt.Key.Key_0 <= key <= Qt.Key.Key_9 and on_picture:
            return lambda: self._canvas.set_active_view((key - Qt.Key.Key_1) % 10)
        letter = self._letters().get(chr(key)) if 32 < key < 127 else None
        inverts = key == Qt.Key.Key_I and isinstance(focus, BandEditor)
        acts: dict[int, Callable[[], object]] = {
            Qt.Key.Key_Comma: lambda: self._clip.go_to(self._work.number - 1),
            Qt.Key.Key_Period: lambda: self._clip.go_to(self._work.number + 1),
        }
        if letter is not None and not inverts:
            acts[key] = letter.trigger
        if self._work.frames > 1 and not isinstance(focus, QAbstractButton):
            acts |= {
                Qt.Key.Key_Space: self._playback.toggle,
                Qt.Key.Key_BracketLeft: self._timeline.toggle_in,
                Qt.Key.Key_BracketRight: self._timeline.toggle_out,
                Qt.Key.Key_N: self._clip.next_trouble,
            }
        if on_picture:
            acts |= self._canvas.gestures.keys()
        return acts.get(key)
