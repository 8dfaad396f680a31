"""A robot clicks every object of yard and close-up; and how long a click takes to show its mask on
24 megapixels.

    .venv/bin/python bench/clicks.py              both
    .venv/bin/python bench/clicks.py clicks       the second alone
    .venv/bin/python bench/clicks.py --as noise   the first, on pictures as cameras give them:
                                                  a kind of tests/cameras.py, or all
    .venv/bin/python bench/clicks.py --carried    picks carried to other light
"""

import os
import pathlib
import statistics
import sys
import tempfile
import time

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
import cv2
import numpy as np
from PIL import Image
from PyQt6.QtCore import QEventLoop, QPointF, Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication

ROOT = pathlib.Path(__file__).parent.parent
sys.path[:0] = [
    str(ROOT / "tests"),
    str(ROOT / "src"),
]  # the robot and what tests share come before this folder's own
import cameras  # noqa: E402
import own_home  # noqa: E402, F401
import robot  # noqa: E402
from common import overlap  # noqa: E402

from amber_sieve.core.frame import Frame  # noqa: E402
from amber_sieve.desk.app import application  # noqa: E402
from amber_sieve.desk.start.waiting import settle  # noqa: E402
from amber_sieve.desk.window.open_window import open_window  # noqa: E402
from amber_sieve.ready import make_ready  # noqa: E402
from amber_sieve.render.automatic import found_amounts  # noqa: E402
from amber_sieve.render.cache import Cache  # noqa: E402
from amber_sieve.render.context import RenderContext  # noqa: E402
from amber_sieve.render.light import signature_on  # noqa: E402
from amber_sieve.render.mask import mask_of  # noqa: E402
from amber_sieve.workspace.workspace import Workspace  # noqa: E402

#: Waiting in place of asking again and again: who asks holds up the threads that work.
WAIT = QEventLoop.ProcessEventsFlag.WaitForMoreEvents


def objects() -> None:
    """Scores after each click, every object, none left out."""
    rows = []
    for picture, name in robot.objects():
        rows.append(robot.scores(picture, name))
        print(f"{picture:6}{name:12}" + " ".join(f"{score:.3f}" for score in rows[-1]), flush=True)
    table = np.array(rows)
    print("mean              " + " ".join(f"{score:.3f}" for score in table.mean(axis=0)))
    given = np.array(
        [
            robot.offered_clicks(robot.half_frame(picture), robot.half_truth(picture, name))
            for picture, name in robot.objects()
        ]
    )
    print("offered places    " + " ".join(f"{score:.3f}" for score in given.mean(axis=0)))
    losses = np.minimum(np.diff(table, axis=1).min(axis=1), 0)
    reached = [robot.clicks_to(row) for row in rows]
    print(
        f"worst after {robot.CLICKS} clicks {table[:, -1].min():.3f}; clicks to 0.9: "
        f"{np.mean(reached):.2f}, not reached by {reached.count(6)}"
    )
    print(
        f"objects that lose more than 0.02 by a click: {(losses < -0.02).sum()}, most "
        f"{losses.min():.3f}"
    )


def carried() -> None:
    """Scores of three clicks carried to the same picture in warmer and cooler light, a fifth of it
    cut away, with the light as it is and found; every object of which a fifth is left.
    """
    rows = []
    for picture in ("yard", "close"):
        base = robot.half_frame(picture)
        cut, picked_on = base.width // 5, signature_on(base, RenderContext()).text
        other = [
            Frame(cameras.in_light(base.planes[:, :, cut:], gains))
            for gains in (cameras.WARM, cameras.COOL)
        ]
        for name in (name for one, name in robot.objects() if one == picture):
            true = robot.half_truth(picture, name)
            if true[:, cut:].sum() < 0.2 * true.sum():
                continue
            *_, last = robot.clicks(base, true, 3)
            samples = tuple(s.but(x=s.x - cut) for s in last.sieve.pick.samples)
            rows.append([last.score])
            for frame in other:
                for light in ("off", "auto"):
                    pick = last.sieve.pick.but(samples=samples, picked_on=picked_on, light=light)
                    context = RenderContext(Cache(10**9))
                    stands = found_amounts(last.sieve.but(pick=pick), frame, context)
                    rows[-1].append(overlap(mask_of(frame, stands, context), true[:, cut:]))
            words = " ".join(f"{score:.3f}" for score in rows[-1])
            print(f"{picture:6}{name:12}{words}", flush=True)
    print("columns: where picked; warm as it is, found; cool as it is, found")
    for name, values in (("mean", np.mean(rows, axis=0)), ("worst", np.min(rows, axis=0))):
        print(f"{name:18}" + " ".join(f"{value:.3f}" for value in values))


def as_cameras_give_them(kind: str) -> None:
    """Scores after three clicks on pictures of a kind, every object, none left out; and whether the
    clicked places are held.
    """
    rows, held = [], []
    for picture in ("yard", "close"):
        planes = cameras.as_cameras_give(robot.half_frame(picture).planes, kind)
        frame = Frame(np.ascontiguousarray(planes, np.float32))
        for name in (name for one, name in robot.objects() if one == picture):
            true = robot.half_truth(picture, name)
            if kind == "soft":
                true = cv2.GaussianBlur(true, (0, 0), cameras.FOCUS)
            row = []
            for one in robot.clicks(frame, true, 3):
                row.append(one.score)
                held.append((one.mask[one.y, one.x] >= 0.5) == (one.role == "keep"))
            rows.append(row + row[-1:] * (3 - len(row)))
            words = " ".join(f"{score:.3f}" for score in rows[-1])
            print(f"{kind:6}{picture:6}{name:12}{words}", flush=True)
    table = np.array(rows)
    words = " ".join(f"{score:.3f}" for score in table.mean(axis=0))
    lost = min(0.0, float(np.diff(table, axis=1).min()))
    print(
        f"{kind:6}mean              {words}   worst {table[:, -1].min():.3f}, lost by a click "
        f"{lost:.3f}, places held {np.mean(held):.3f} of {len(held)}",
        flush=True,
    )


def click_times(path: pathlib.Path) -> None:
    """From the press to the painted mask of it, 24 megapixels in the window."""
    running = application()
    make_ready()  # as the program does while its window is empty
    window = open_window(Workspace())
    window.resize(1280, 800)
    window.show()
    workspace, pane, times = window.workspace, window.canvas.panes[0], []
    workspace.pictures.open(path)
    settle(workspace)
    for number, (x, y, held) in enumerate(
        (
            (4660, 2940, Qt.KeyboardModifier.NoModifier),
            (5540, 3470, Qt.KeyboardModifier.ControlModifier),
            (4230, 3220, Qt.KeyboardModifier.ShiftModifier),
            (2450, 2760, Qt.KeyboardModifier.ShiftModifier),
            (2450, 3900, Qt.KeyboardModifier.ControlModifier),
        )
    ):
        at = window.canvas.viewport.to_pane(QPointF(x, y)).toPoint()
        before = workspace.work.project
        started = time.perf_counter()
        QTest.mousePress(pane, Qt.MouseButton.LeftButton, held, at)
        while (
            workspace.work.project == before
            or workspace.viewing.last is None
            or workspace.viewing.last.wanted.project != workspace.work.project
        ):
            QApplication.processEvents(WAIT)
        window.canvas.panes[1].repaint()
        times.append(time.perf_counter() - started)
        QTest.mouseRelease(pane, Qt.MouseButton.LeftButton, held, at)
        settle(workspace)
        print(
            f"click {number + 1} on 24 megapixels: {times[-1] * 1e3:.0f} ms from the press to the "
            "painted mask"
        )
    print(f"median {statistics.median(times) * 1e3:.0f} ms   (asked for: at most 150)")
    workspace.work.history.mark_saved()
    window.close()
    running.processEvents()


if __name__ == "__main__":
    if "--carried" in sys.argv:
        carried()
        sys.exit()
    if "--as" in sys.argv:
        wanted = sys.argv[sys.argv.index("--as") + 1]
        for one in cameras.KINDS if wanted == "all" else (wanted,):
            as_cameras_give_them(one)
        sys.exit()
    if "clicks" not in sys.argv:
        objects()
    with tempfile.TemporaryDirectory() as folder:
        large = pathlib.Path(folder) / "large.png"
        Image.fromarray(
            np.asarray(Image.open(ROOT / "demo" / "yard.png").resize((6000, 4000)))
        ).save(large, compress_level=1)
        click_times(large)
