"""Starting the window."""

from __future__ import annotations

import os
import pathlib
import signal
import socket
import subprocess
import sys
from collections.abc import Sequence

from PyQt6.QtCore import QSocketNotifier, QTimer, QTranslator
from PyQt6.QtWidgets import QApplication

from ..files import sweep_parts
from ..language import translator
from ..ready import make_ready
from ..threads import Threads
from ..warm import is_warm, warm, warm_rest_beside
from ..workspace.background.guard import Mishaps
from ..workspace.background.memory import few_stores
from ..workspace.workspace import Workspace
from .start.one_window import Door, handed_over
from .style import set_type
from .window.open_window import open_window

translate = translator("desk")


def has_screen() -> bool:
    """Return whether there is a display to open a window on."""
    return bool(os.environ.get("DISPLAY") or os.environ.get("WAYLAND_DISPLAY"))


def application() -> QApplication:
    """The application, to be dressed when its window stands (`style.dress`); offscreen when there
    is no display.
    """
    existing = QApplication.instance()
    if isinstance(existing, QApplication):
        return existing
    if not has_screen() and "QT_QPA_PLATFORM" not in os.environ:
        os.environ["QT_QPA_PLATFORM"] = "offscreen"
    few_stores()
    made = QApplication([sys.argv[0]])
    made.setApplicationName("Amber Sieve")
    made.setDesktopFileName("amber-sieve")
    set_type(made)
    return made


def main(
    arguments: Sequence[str] | None = None,
    copy: bool = False,
    translators: Sequence[QTranslator] = (),
) -> int:
    """Open the window, with a file if one is named; ends the process with its exit code, or returns
    it when another window took the file. ``copy``: a project opens as an untitled copy.
    ``translators``: what `translations.choose` gave.
    """
    words = list(sys.argv[1:] if arguments is None else arguments)
    running = application()
    for each in translators:
        running.installTranslator(each)
    paths = [pathlib.Path(word) for word in words]
    if words and not copy and handed_over(paths):
        return 0
    workspace = Workspace()
    window = open_window(workspace)
    mishaps = Mishaps(workspace.saving.keep_now)
    mishaps.happened.connect(window.tell_trouble)
    mishaps.install()
    sweep_parts()
    window.show()
    door = Door(window.files.open_from_outside)
    window.leaving.connect(door.close)

    def prepared(_: object) -> None:
        warm_rest_beside()
        begin()

    def begin() -> None:
        restored = workspace.last_tray.restore()
        if words and not (
            copy and restored
        ):  # the demo does not come between a person and what was open
            workspace.pictures.open(paths[0], copy) if copy else workspace.pictures.open_many(paths)
        window.files.offer_unsaved()

    if is_warm():
        Threads("made ready").start(make_ready)
        Threads("warmed beside").start(warm_rest_beside)
        begin()
    else:
        workspace.pictures.opening.emit(
            translate(
                "Amber Sieve for the first time: preparing for this computer, about a minute",
            )
        )
        title = translate("Preparing for this computer (once)")
        workspace.workers.run(title, lambda progress: warm(("first",), progress.step), prepared)

    told_to_end: list[bool] = []

    def end() -> None:
        door.close()
        workspace.close(keep_work=True)
        told_to_end.append(True)
        running.exit(0)  # `quit` would ask every window first, and nobody may be there to answer

    def terminated(*_: object) -> None:
        """Told to end: unsaved work is kept for the next start. Not at once: a signal comes in the
        middle of anything.
        """
        QTimer.singleShot(0, end)

    # Python handles a signal as soon as the event loop calls it: the interpreter writes a byte
    # where Qt listens.
    heard, written = socket.socketpair()
    for end_of_it in (heard, written):
        end_of_it.setblocking(False)
    signal.set_wakeup_fd(written.fileno(), warn_on_full_buffer=False)
    notifier = QSocketNotifier(heard.fileno(), QSocketNotifier.Type.Read)  # type: ignore[call-overload]
    notifier.activated.connect(lambda: heard.recv(64))
    for number in (signal.SIGINT, signal.SIGTERM, signal.SIGHUP):
        signal.signal(number, terminated)
    code = running.exec()
    if told_to_end:
        # the last round of events may have changed something after all was kept
        workspace.saving.keep_now()
    door.close()
    if window.starts_again:
        subprocess.Popen(sys.orig_argv, start_new_session=True)
    # What must be kept is on the disk, and its threads have ended. Taking Python and Qt apart piece
    # by piece, with threads of libraries still alive, is of no use and may abort.
    sys.stdout.flush()
    sys.stderr.flush()
    os._exit(code)
