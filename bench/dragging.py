"""From the event to the painted mask, while a handle is dragged in the real window.

.venv/bin/python bench/dragging.py            the demo picture at 1280 x 800 .venv/bin/python
bench/dragging.py --large    24 megapixels in a window of 3840 x 2100 (asked for: median 33 ms,
worst 66)
"""

import gc
import os
import pathlib
import statistics
import sys
import tempfile
import time

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
import cv2
import numpy as np
from common import Ruler
from PyQt6.QtCore import QEventLoop, QPointF, Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QWidget

from amber_sieve.desk.app import application
from amber_sieve.desk.start.waiting import settle
from amber_sieve.desk.window.open_window import open_window
from amber_sieve.desk.window.window import Window
from amber_sieve.project import storage
from amber_sieve.project.model import Edge, Sieve
from amber_sieve.ready import make_ready
from amber_sieve.workspace.workspace import Workspace

WAIT = QEventLoop.ProcessEventsFlag.WaitForMoreEvents
DEMO = pathlib.Path(__file__).parent.parent / "demo"


def timed(
    window: Window,
    widget: QWidget,
    start: QPointF,
    step: QPointF,
    events: int = 60,
    pane_number: int = 1,
) -> list[float]:
    """Seconds from each mouse event to the painted mask, or with pane 0 to the painted result."""
    workspace, pane = window.workspace, window.canvas.panes[pane_number]
    painted: list[float] = []
    watch = pane.painted.connect(lambda: painted.append(time.perf_counter()))
    # A pane is also painted when the project changes, before its mask has: only what is painted
    # after the mask came counts.
    came = [0.0]
    heard = workspace.viewing.rendered.connect(lambda _: came.append(time.perf_counter()))
    QTest.qWait(500)  # no hand reaches the next control sooner
    QTest.mousePress(
        widget, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, start.toPoint()
    )
    times = []
    for number in range(1, events):
        before = workspace.work.project
        started = time.perf_counter()
        QTest.mouseMove(widget, (start + step * number).toPoint())
        QApplication.processEvents()
        if workspace.work.project == before:
            continue
        while (
            workspace.viewing.last is None
            or workspace.viewing.last.wanted.project != workspace.work.project
            or not painted
            or painted[-1] < max(came[-1], started)
        ):
            # Waiting in place of asking again and again: who asks holds up the thread that renders.
            QApplication.processEvents(WAIT)
        times.append(painted[-1] - started)
    QTest.mouseRelease(widget, Qt.MouseButton.LeftButton)
    pane.painted.disconnect(watch)
    workspace.viewing.rendered.disconnect(heard)
    settle(workspace)
    return times


#: Adjustments that are dragged, by their blocks: numbers, and what is drawn.
DRAGGED = (
    ("white", ("temperature",)),
    ("light", ("exposure", "contrast", "highlights")),
    ("curve", ("curve", "in_black")),
    ("balance", ("balance",)),
    ("hues", ("hues",)),
    ("recolour", ("hue", "vibrance")),
    ("mono", ("mono",)),
    ("cdl", ("slope_red",)),
    ("detail", ("blur", "local_contrast", "sharpen", "noise", "grain")),
)


def adjustments(window: Window, asked: str) -> None:
    """Drags of the adjustments, to the painted result."""
    workspace, page = window.workspace, window.adjust
    window.pages.setCurrentWidget(page)
    assert workspace.viewing.last is not None
    rows, columns = workspace.viewing.last.mask.shape
    print(f"adjustments, {columns} x {rows} pixels rendered; from the event to the painted result:")
    drawn = {"curve": page.curves.editor, "balance": page.balance.disc, "hues": page.hues.editor}
    for block, names in DRAGGED:
        for other, held in page.blocks.items():
            held.set_open(other == block)
        settle(workspace)
        for name in names:
            widget: QWidget = drawn[name] if name in drawn else page.numbers[name]
            middle, step = (
                QPointF(widget.width() / 2, widget.height() / 2),
                QPointF(0.5, -0.5) if name in drawn else QPointF(1, 0),
            )
            start = workspace.work.project
            times = timed(window, widget, middle, step, pane_number=0)
            print(
                f"  {name:26}median {statistics.median(times) * 1e3:5.1f} ms, worst "
                f"{max(times) * 1e3:5.1f}, {len(times)} events{asked}"
            )
            workspace.work.edit(lambda _, start=start: start, "Back")
            settle(workspace)


def enlarged(folder: pathlib.Path) -> pathlib.Path:
    """The demo's project with its picture enlarged to 24 megapixels, with noise of its own: where
    it lies.
    """
    project = storage.load(DEMO / "yard.sieve")
    small = cv2.imread(str(DEMO / "yard.png"))
    large = cv2.resize(small, (6000, 4000), interpolation=cv2.INTER_CUBIC)
    noise = np.random.default_rng(1).integers(-3, 4, large.shape, np.int16)
    cv2.imwrite(str(folder / "yard.png"), np.clip(large + noise, 0, 255).astype(np.uint8))
    share = 6000 / small.shape[1]

    def moved(sieve: Sieve) -> Sieve:
        samples = tuple(
            s.but(x=round(s.x * share), y=round(s.y * share)) for s in sieve.pick.samples
        )
        return sieve.but(pick=sieve.pick.but(samples=samples))

    storage.save(
        project.but(source=str(folder / "yard.png"), stack=tuple(map(moved, project.stack))),
        folder / "yard.sieve",
    )
    return folder / "yard.sieve"


def main() -> None:
    large = "--large" in sys.argv
    with tempfile.TemporaryDirectory() as folder:
        dragged(
            enlarged(pathlib.Path(folder)) if large else DEMO / "yard.sieve",
            (3840, 2100) if large else (1280, 800),
        )


def dragged(project: pathlib.Path, size: tuple[int, int]) -> None:
    """Drags in a window of that size."""
    running = application()
    make_ready()  # as a window does when it starts
    window = open_window(Workspace())
    window.resize(*size)
    window.show()
    workspace = window.workspace
    workspace.pictures.open(project)
    settle(workspace)
    # The drags are of the pick and the bands; the last one is with all that is automatic at the
    # edge.
    workspace.work.edit_sieve(
        lambda s: s.but(edge=Edge(specks=0, holes=0, follow=0, clean=0, level=0)), "No edge work"
    )
    asked = f" (asked for: at most {33 if size[0] > 3000 else 16})"
    adjustments(window, asked)
    window.pages.setCurrentWidget(window.pick)
    window.canvas.viewport.zoom_to(
        window.canvas.viewport.zoom * 2.6
    )  # the picture fills both panes
    settle(workspace)
    assert workspace.viewing.last is not None
    rows, columns = workspace.viewing.last.mask.shape
    copy = Ruler(columns, rows).copy
    print(
        f"twin view at {size[0]} x {size[1]}, {columns} x {rows} pixels rendered for mask and "
        "result; from the event to the painted mask:"
    )

    def tell(name: str, times: list[float]) -> None:
        middle = statistics.median(times)
        print(
            f"  {name:26}median {middle * 1e3:5.1f} ms = {middle / copy:4.1f} copies of its "
            f"planes, worst {max(times) * 1e3:5.1f} ms, {len(times)} events{asked}"
        )

    number = window.pick.tolerance
    tell("tolerance", timed(window, number, QPointF(90, number.height() / 2), QPointF(1, 0)))
    workspace.work.edit_sieve(lambda s: s.but(edge=Edge()), "All automatic")
    settle(workspace)
    tell(
        "tolerance, all automatic",
        timed(window, number, QPointF(150, number.height() / 2), QPointF(-1, 0)),
    )
    workspace.work.edit_sieve(
        lambda s: s.but(edge=Edge(specks=0, holes=0, follow=0, clean=0, level=0)), "No edge work"
    )
    workspace.samples.set_bands()
    settle(workspace)
    window.pages.setCurrentWidget(window.bands)
    settle(workspace)
    for measure in ("hue", "saturation", "luminance"):
        editor = window.bands.editors[measure]
        corner = getattr(workspace.work.sieve.bands, measure).corners[2]
        tell(
            f"{measure} band",
            timed(
                window, editor, QPointF(editor.x_of(corner), editor.height() / 2), QPointF(0.4, 0)
            ),
        )
    field = window.field
    hue, saturation = (
        workspace.work.sieve.bands.hue.corners,
        workspace.work.sieve.bands.saturation.corners,
    )
    start = field.at((hue[1] + hue[2]) / 2, (saturation[1] + saturation[2]) / 2)
    tell("region on the colour field", timed(window, field, start, QPointF(0.5, -0.3)))
    workspace.work.history.mark_saved()
    window.close()
    running.processEvents()
    gc.unfreeze()  # else libraries say at the end that something was left


if __name__ == "__main__":
    main()
