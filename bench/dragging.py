"""From the event to the painted mask, while the tolerance is dragged in the real window at 1280 x 800.

.venv/bin/python bench/dragging.py
"""

import os
import pathlib
import statistics
import time

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
import common  # noqa: F401  (finds the sources)
from PyQt6.QtCore import QPointF, Qt
from PyQt6.QtTest import QTest

from amber_sieve.desk.app import application
from amber_sieve.desk.session import Session
from amber_sieve.desk.waiting import settle
from amber_sieve.desk.window import Window

DEMO = pathlib.Path(__file__).parent.parent / "demo"


def main() -> None:
    running = application()
    window = Window(Session())
    window.resize(1280, 800)
    window.show()
    session = window.session
    session.open(DEMO / "yard.sieve")
    settle(session)
    window.canvas.viewport.zoom_to(window.canvas.viewport.zoom * 2.6)  # the picture fills both panes
    settle(session)
    number, pane = window.pick.tolerance, window.canvas.panes[1]
    painted: list[float] = []
    pane.painted.connect(lambda: painted.append(time.perf_counter()))
    y = number.height() / 2
    QTest.mousePress(number, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, QPointF(120, y).toPoint())
    times = []
    for step in range(60):
        want = QPointF(90 + step, y).toPoint()
        before = session.project
        started = time.perf_counter()
        QTest.mouseMove(number, want)
        running.processEvents()
        if session.project == before:
            continue
        while session.last is None or session.last.project != session.project or not painted or painted[-1] < started:
            running.processEvents()
        seen = session.last
        while painted[-1] < started or pane._result is not seen:
            running.processEvents()
        times.append(painted[-1] - started)
    QTest.mouseRelease(number, Qt.MouseButton.LeftButton)
    shown = session.last.mask.shape if session.last else (0, 0)
    print(
        f"dragging tolerance over a twin view at 1280 x 800 ({shown[1]} x {shown[0]} rendered): median {statistics.median(times) * 1e3:.1f} ms, worst {max(times) * 1e3:.1f} ms, {len(times)} events"
    )
    window.session.close()


if __name__ == "__main__":
    main()
