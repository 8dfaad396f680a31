"""An hour of a restless hand: random events in the real window, watching memory and threads.

QT_QPA_PLATFORM=offscreen .venv/bin/python tools/monkey.py [number of events] [seed]

Clicks, drags, keys, numbers, undo, views, pages, frames, opening, saving, exporting and closing
dialogs, in any order. Prints memory and threads as it goes; ends with 1 when anything was raised,
or when memory or threads grew after the first eighth.
"""

from __future__ import annotations

import gc
import os
import pathlib
import random
import sys
import threading
import time
import traceback

ROOT = pathlib.Path(__file__).resolve().parent.parent
sys.path[:0] = [str(ROOT / "src"), str(ROOT / "tests")]
os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
import own_home  # noqa: E402
from PyQt6.QtCore import QEvent, QPoint, QPointF, Qt  # noqa: E402
from PyQt6.QtGui import QWheelEvent  # noqa: E402
from PyQt6.QtTest import QTest  # noqa: E402
from PyQt6.QtWidgets import (
    QAbstractButton,
    QApplication,
    QComboBox,
    QDialog,
    QListWidget,
    QPushButton,
    QToolButton,
    QWidget,
)  # noqa: E402

from amber_sieve.desk.app import application  # noqa: E402
from amber_sieve.desk.start.waiting import settle  # noqa: E402
from amber_sieve.desk.widgets.balance_disc import BalanceDisc  # noqa: E402
from amber_sieve.desk.widgets.band_editor import BandEditor  # noqa: E402
from amber_sieve.desk.widgets.curve_editor import CurveEditor  # noqa: E402
from amber_sieve.desk.widgets.number import Number  # noqa: E402
from amber_sieve.desk.window.open_window import open_window  # noqa: E402
from amber_sieve.workspace.background.guard import Mishaps  # noqa: E402
from amber_sieve.workspace.background.latest_only import QUIET  # noqa: E402
from amber_sieve.workspace.workspace import Workspace  # noqa: E402

#: Buttons that open a dialog which waits for an answer.
WAITING = (
    "Save…",
    "Import…",
    "Export…",
    "Open…",
    "Choose…",
    "Chosen…",
    "Pick in another picture…",
    "Read…",
    "Write…",
    "Target",
    "Colour",
    "To",
    "Choose a table…",
    "Choose a picture…",
)
#: Growth of memory, in megabytes, after the first eighth of the events that still counts as flat.
FLAT = 400


def resident() -> float:
    """Megabytes this process holds."""
    return (
        int(pathlib.Path("/proc/self/statm").read_text().split()[1])
        * os.sysconf("SC_PAGE_SIZE")
        / 1e6
    )


class Monkey:
    """Does one random thing after another."""

    def __init__(self, seed: int) -> None:
        self.chance = random.Random(seed)
        self.application = application()
        self.workspace = Workspace()
        self.window = open_window(self.workspace)
        self.mishaps = Mishaps(self.workspace.saving.keep_now)
        self.raised: list[str] = []
        self.mishaps.happened.connect(
            lambda words, details: self.raised.append(details) if details else None
        )
        self.workspace.speech.mishap.connect(lambda words, details: self.raised.append(details))
        self.mishaps.install()
        self.window.show()
        self.window.activateWindow()
        self.folder = own_home.FOLDER

    def place_in(self, widget: QWidget) -> QPoint:
        return QPoint(
            self.chance.randrange(max(widget.width(), 1)),
            self.chance.randrange(max(widget.height(), 1)),
        )

    def held(self) -> Qt.KeyboardModifier:
        key = Qt.KeyboardModifier
        return self.chance.choice(
            (
                key.NoModifier,
                key.NoModifier,
                key.ShiftModifier,
                key.ControlModifier,
                key.AltModifier,
            )
        )

    def drag(self, widget: QWidget, steps: int = 4) -> None:
        held = self.held()
        start = self.place_in(widget)
        QTest.mousePress(widget, Qt.MouseButton.LeftButton, held, start)
        for _ in range(steps):
            QTest.mouseMove(widget, self.place_in(widget))
            self.application.processEvents()
        QTest.mouseRelease(widget, Qt.MouseButton.LeftButton, held, self.place_in(widget))

    def widgets(self, kind: type) -> list:
        return [
            widget
            for widget in self.window.findChildren(kind)
            if widget.isVisible() and widget.isEnabled()
        ]

    def step(self) -> None:
        """One thing."""
        chance, key = self.chance, Qt.Key
        pane = chance.choice(self.window.canvas.panes)
        way = chance.randrange(100)
        if way < 14:
            QTest.mouseClick(pane, Qt.MouseButton.LeftButton, self.held(), self.place_in(pane))
        elif way < 24:
            self.drag(pane)
        elif way < 40:
            numbers = self.widgets(Number)
            if numbers:
                number = chance.choice(numbers)
                chance.choice(
                    (
                        lambda: self.drag(number),
                        lambda: QTest.keyClick(
                            number, chance.choice((key.Key_Left, key.Key_Right))
                        ),
                    )
                )()
        elif way < 50:
            editors = [
                *self.widgets(BandEditor),
                *self.widgets(CurveEditor),
                *self.widgets(BalanceDisc),
                self.window.field,
            ]
            self.drag(chance.choice(editors))
        elif way < 58:
            letters = "1234567890twiholaz,.n[] "
            QTest.keyClick(pane, chance.choice(letters))
        elif way < 64:
            chance.choice((self.workspace.work.undo, self.workspace.work.redo))()
        elif way < 70:
            self.window.pages.setCurrentIndex(chance.randrange(self.window.pages.count()))
        elif way < 78:
            buttons = [
                b
                for b in self.widgets(QAbstractButton)
                if b.text() not in WAITING
                and "preset" not in b.toolTip()
                and b is not self.window.adjust.fill_picture
                and not (isinstance(b, (QToolButton, QPushButton)) and b.menu())
                and b.window() is self.window
            ]
            if buttons:
                chance.choice(buttons).click()
        elif way < 84:
            boxes = [
                b
                for b in self.widgets(QComboBox)
                if b.count() and b is not self.window.pick.measure
            ]
            if boxes:
                box = chance.choice(boxes)
                index = chance.randrange(box.count())
                box.setCurrentIndex(index)
                box.activated.emit(index)
        elif way < 88:
            at = QPointF(self.place_in(pane))
            wheel = QWheelEvent(
                at,
                pane.mapToGlobal(at),
                QPoint(),
                QPoint(0, chance.choice((-240, -120, 120))),
                Qt.MouseButton.NoButton,
                Qt.KeyboardModifier.NoModifier,
                Qt.ScrollPhase.NoScrollPhase,
                False,
            )
            QApplication.sendEvent(pane, wheel)
        elif way < 91:
            lists = self.widgets(QListWidget)
            if lists:
                rows = chance.choice(lists)
                if rows.count():
                    item = rows.item(chance.randrange(rows.count()))
                    chance.choice(
                        (
                            lambda: rows.setCurrentItem(item),
                            lambda: rows.itemEntered.emit(item),
                            lambda: QTest.keyClick(rows, key.Key_Delete),
                        )
                    )()
        elif way < 93:
            self.workspace.saving.save(self.folder / "monkey.sieve")
        elif way < 94:
            self.workspace.exports.write(
                self.folder / chance.choice(("out.png", "out.jpg", "out.exr"))
            )
        elif way < 95:
            self.window.files.offer_unsaved()
            chance.choice(
                (
                    self.window.help.show_keys,
                    self.window.menus.actions["find"].trigger,
                    self.window.help.show_guide,
                    self.window.show_preferences,
                    self.window.exports.show_export,
                )
            )()
            self.workspace.preferences.change(
                theme=chance.choice(("dark", "light", "contrast")),
                text_size=chance.choice((100.0, 100.0, 150.0, 200.0)),
                marks=chance.random() < 0.8,
                panels=chance.random() < 0.9,
            )
            chance.choice(
                (
                    lambda: self.window.panels.switch("scopes"),
                    self.window.panels.reset,
                    self.window.help.tour.start,
                    lambda: self.window.resize(
                        chance.choice((1024, 1280, 1600)), chance.choice((640, 800, 1000))
                    ),
                )
            )()
        elif way < 96 and self.workspace.workers.jobs.job is None:
            self.workspace.work.history.mark_saved()
            self.workspace.pictures.open(
                ROOT
                / "demo"
                / chance.choice(("yard.png", "close.png", "yard.sieve", "clip.mp4", "none.png"))
            )
        elif way < 98:
            self.workspace.clip.go_to(chance.randrange(max(self.workspace.work.frames, 1)))
        else:
            self.workspace.workers.stop_job()
        for dialog in self.window.findChildren(QDialog):
            if dialog.isVisible() and chance.random() < 0.6:
                dialog.close()
                dialog.deleteLater()
        # A stack or list of areas that only grows would measure itself, not the program.
        if (
            len(self.workspace.work.project.stack) > 4
            or len(self.workspace.work.sieve.areas) > 6
            or len(self.workspace.work.sieve.pick.samples) > 12
        ):
            self.workspace.work.undo()
            self.workspace.work.history.mark_saved()
            self.workspace.work.edit_sieve(
                lambda s: s.but(areas=(), pick=s.pick.but(samples=s.pick.samples[:2])), "Tidy"
            )
            self.workspace.work.edit(lambda p: p.but(stack=p.stack[:2]), "Tidy")


def run(events: int, seed: int = 1) -> int:
    """So many random events; returns 1 when something was raised, or something grew."""
    monkey = Monkey(seed)
    monkey.workspace.pictures.open(ROOT / "demo" / "yard.sieve")
    settle(monkey.workspace)
    first: tuple[float, int] | None = None
    for number in range(events):
        try:
            monkey.step()
        except Exception:  # what a slot would have raised
            monkey.raised.append(traceback.format_exc())
        QApplication.processEvents()
        QApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete)
        if number % max(events // 16, 1) == 0:
            try:
                settle(monkey.workspace, 120)
            except TimeoutError:
                workers = monkey.workspace.workers
                jobs = [
                    one.title
                    for one in (
                        workers.jobs.job,
                        workers.jobs.quiet,
                        workers.tasks.job,
                        workers.openings.job,
                    )
                    if one
                ]
                busy = [
                    name
                    for name, one in vars(workers).items()
                    if getattr(one, "idle", True) is False
                ]
                monkey.raised.append(
                    f"still busy after 120 s at event {number}: {busy}, {jobs}, dragging "
                    f"{monkey.workspace.work.dragging}"
                )
            gc.collect()
            time.sleep(2 * QUIET / 1000)  # what was freed is given back when nothing is done
            now = (resident(), threading.active_count())
            print(
                f"event {number:6}: {now[0]:6.0f} MB, {now[1]} threads, {len(monkey.raised)} "
                "raised",
                flush=True,
            )
            if first is None and number >= events // 8:
                first = now
    settle(monkey.workspace, 120)
    gc.collect()
    time.sleep(2 * QUIET / 1000)
    last = (resident(), threading.active_count())
    first = first or last
    print(
        f"{events} events: {first[0]:.0f} MB and {first[1]} threads after an eighth, "
        f"{last[0]:.0f} MB and {last[1]} threads at the end"
    )
    for words in dict.fromkeys(monkey.raised):
        print(words)
    monkey.workspace.work.history.mark_saved()
    monkey.workspace.close()
    return 1 if monkey.raised or last[0] > first[0] + FLAT or last[1] > first[1] + 2 else 0


if __name__ == "__main__":
    code = run(
        int(sys.argv[1]) if len(sys.argv) > 1 else 40_000,
        int(sys.argv[2]) if len(sys.argv) > 2 else 1,
    )
    sys.stdout.flush()
    os._exit(code)
