"""Size and place of the window: as large as is usual, and never larger than the screen has room
for.
"""

from __future__ import annotations

import base64

from PyQt6.QtWidgets import QApplication, QMainWindow

from ...workspace.preferences import PreferenceStore

#: Size that the window has where there is room, pixels.
USUAL = (1280, 800)
#: What its own frame takes at most, pixels.
FRAME = (16, 48)


def _has_screen() -> bool:
    """Return whether windows are really shown: what Qt draws into memory has a screen of no size
    that means anything.
    """
    return QApplication.platformName() != "offscreen"


def kept_bytes(text: str) -> bytes:
    """Return bytes that were kept in base 64; nothing where it is damaged."""
    try:
        return base64.b64decode(text, validate=True)
    except ValueError:
        return b""


def keep_place(window: QMainWindow, preferences: PreferenceStore) -> None:
    """Remember size and place of a window for the next start."""
    if _has_screen():
        preferences.change(place=base64.b64encode(window.saveGeometry().data()).decode("ascii"))


def size_to_screen(window: QMainWindow, preferences: PreferenceStore) -> None:
    """As it was left, or as large as is usual, and never larger than the screen has room for with
    the window's own frame.
    """
    if (
        _has_screen()
        and preferences.values.place
        and window.restoreGeometry(kept_bytes(preferences.values.place))
    ):
        return
    screen = window.screen()
    room = screen.availableGeometry() if screen is not None and _has_screen() else None
    if room is None:
        window.resize(*USUAL)
    else:
        window.resize(
            min(USUAL[0], room.width() - FRAME[0]), min(USUAL[1], room.height() - FRAME[1])
        )


def keep_on_screen(window: QMainWindow) -> None:
    """Move and shrink a window so that nothing of it, nor of its frame, lies beside the screen."""
    screen = window.screen()
    if screen is None or not _has_screen() or window.isFullScreen() or window.isMaximized():
        return
    room, outer = screen.availableGeometry(), window.frameGeometry()
    beyond = (max(outer.width() - room.width(), 0), max(outer.height() - room.height(), 0))
    if any(beyond):
        window.resize(window.width() - beyond[0], window.height() - beyond[1])
    outer = window.frameGeometry()
    x = min(max(outer.left(), room.left()), room.right() - outer.width() + 1)
    y = min(max(outer.top(), room.top()), room.bottom() - outer.height() + 1)
    if (x, y) != (outer.left(), outer.top()):
        window.move(x, y)
