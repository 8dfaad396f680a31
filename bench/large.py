"""A picture of 100 megapixels of 16 bit in the real window, a project of a hundred sieves, a tray
of five hundred, and 8K footage.

.venv/bin/python bench/large.py [large] [sieves] [tray] [footage]      some of them, or all

Times are from the act to the picture that answers it, on the interface thread; memory is the most
that the process held so far.
"""

import os
import pathlib
import random
import resource
import shutil
import statistics
import subprocess
import sys
import tempfile
import time
import warnings
from collections.abc import Callable

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
import av
import common  # noqa: F401  (finds the sources)
import numpy as np
from PIL import Image
from PyQt6.QtCore import QPointF, Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication

from amber_sieve.desk.app import application
from amber_sieve.desk.start.waiting import settle
from amber_sieve.desk.window.open_window import open_window
from amber_sieve.export.clip import ClipExport
from amber_sieve.project import storage
from amber_sieve.project.model import Pick, Project, Sample, Sieve
from amber_sieve.workspace.workspace import Workspace

DEMO = pathlib.Path(__file__).parent.parent / "demo"
WIDTH, HEIGHT = 12000, 8400
#: Where it is clicked, as shares of width and height: the wall in the sun, then the cloth twice.
PLACES = ((0.15, 0.48), (0.667, 0.18), (0.683, 0.275))

#: Makes the picture, in a process of its own: what that needs is not the window's.
MAKES = """
import sys
import cv2
size = int(sys.argv[3]), int(sys.argv[4])
yard = cv2.resize(cv2.imread(sys.argv[1]), size, interpolation=cv2.INTER_CUBIC)
cv2.imwrite(sys.argv[2], yard.astype("uint16") * 257)
"""


def memory() -> str:
    return (
        f"{resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1e6:.2f} GB   (asked for: at most "
        "4)"
    )


def same_frames(source: pathlib.Path, written: pathlib.Path, count: int) -> int:
    """How many of the first frames of a clip lie within a level of those of another, on average,
    and are nearer to them than to the next.
    """

    def frames(path: pathlib.Path) -> list[np.ndarray]:
        with av.open(str(path)) as held:
            return [
                frame.reformat(960, 540, "yuv420p").to_ndarray()[:540].astype(np.float32)
                for frame, _ in zip(held.decode(video=0), range(count + 1), strict=False)
            ]

    ours, theirs = frames(written), frames(source)
    apart = [float(np.abs(one - other).mean()) for one, other in zip(ours, theirs, strict=False)]
    after = [
        float(np.abs(one - other).mean()) for one, other in zip(ours, theirs[1:], strict=False)
    ]
    return (
        sum(one < 1 and one < other for one, other in zip(apart, after, strict=False))
        if len(ours) == count
        else 0
    )


class Desk:
    """The window, and what is measured in it."""

    def __init__(self) -> None:
        self.application = application()
        self.window = open_window(Workspace())
        self.workspace = self.window.workspace
        self.window.resize(1280, 800)
        self.window.show()
        QApplication.processEvents()

    def until(self, done: Callable[[], bool], started: float, limit: float = 120.0) -> float:
        """Seconds from ``started`` until something holds."""
        while not done() and time.perf_counter() - started < limit:
            QApplication.processEvents()
            time.sleep(0.0005)
        return time.perf_counter() - started

    def answered(self, act: Callable[[], object]) -> float:
        """Seconds from an act to the next picture."""
        before, started = self.workspace.viewing.last, time.perf_counter()
        act()
        return self.until(lambda: self.workspace.viewing.last is not before, started)

    def painted(self, act: Callable[[], object]) -> float:
        """Seconds from an act to the pane's next paint, which shows what is there until what is
        asked for is rendered.
        """
        done: list[float] = []
        watch = self.window.canvas.panes[0].painted.connect(
            lambda: done.append(time.perf_counter())
        )
        started = time.perf_counter()
        act()
        self.until(lambda: bool(done), started)
        self.window.canvas.panes[0].painted.disconnect(watch)
        time.sleep(0.005)  # a hand goes on a little later
        return done[0] - started

    def click(self, across: float, down: float) -> None:
        at = self.window.canvas.viewport.to_pane(QPointF(across * WIDTH, down * HEIGHT)).toPoint()
        QTest.mouseClick(
            self.window.canvas.panes[0],
            Qt.MouseButton.LeftButton,
            Qt.KeyboardModifier.NoModifier,
            at,
        )

    def large(self, folder: pathlib.Path) -> None:
        """Opened, clicked, dragged, exported."""
        path = folder / "large.tif"
        subprocess.run(
            [sys.executable, "-c", MAKES, DEMO / "yard.png", str(path), str(WIDTH), str(HEIGHT)],
            check=True,
        )
        started = time.perf_counter()
        self.workspace.pictures.open(path)
        settle(self.workspace, 300)
        print(f"100 megapixels, opened: {time.perf_counter() - started:.1f} s")
        clicks = []
        for place in PLACES:
            clicks.append(self.answered(lambda place=place: self.click(*place)))
            settle(self.workspace, 300)
        print(f"100 megapixels, a click: {1000 * max(clicks):.0f} ms   (asked for: at most 400)")
        for name in ("light.exposure", "recolour.hue"):
            steps = [
                self.answered(
                    lambda value=value, name=name: self.workspace.work.set_field(
                        f"adjust.{name}", value, name, group="drag"
                    )
                )
                for value in np.linspace(0.1, 2, 40).tolist()
            ]
            self.workspace.work.end_drag()
            settle(self.workspace, 300)
            print(
                f"100 megapixels, {name} dragged: {1000 * statistics.median(steps):.0f} ms   "
                "(asked for: median at most 33)"
            )
        viewport, here = self.window.canvas.viewport, QPointF(60, 40)
        for name, acts in {
            "panned": [
                lambda k=k: viewport.pan(QPointF(9 if k % 40 < 20 else -9, 5)) for k in range(60)
            ],
            "zoomed": [
                lambda k=k: viewport.zoom_to(
                    viewport.zoom * (1.08 if k % 60 < 30 else 1 / 1.08), here
                )
                for k in range(60)
            ],
        }.items():
            viewport.zoom_to(0.5)
            settle(self.workspace, 300)
            steps = [self.painted(act) for act in acts]
            settle(self.workspace, 300)
            print(
                f"100 megapixels, {name}: {1000 * statistics.median(steps):.0f} ms from the act "
                f"to the paint, worst {1000 * max(steps):.0f}"
                "   (asked for: median at most 33)"
            )
        viewport.fit()
        settle(self.workspace, 300)
        started = time.perf_counter()
        self.workspace.exports.write(folder / "out.tif")
        settle(self.workspace, 600)
        print(f"100 megapixels, exported: {time.perf_counter() - started:.1f} s")
        print(f"100 megapixels, memory with the export: {memory()}")
        self.workspace.pictures.close_all()
        settle(self.workspace)

    def footage(self, folder: pathlib.Path) -> None:
        """8K, opened, clicked, played, and some of it exported as it came."""
        path, out = folder / "large.mp4", folder / "out.mkv"
        words = [
            "ffmpeg",
            "-v",
            "error",
            "-i",
            DEMO / "clip.mp4",
            "-vf",
            "scale=7680:4320",
            "-preset",
            "veryfast",
            "-crf",
            "20",
            path,
        ]
        subprocess.run(words, check=True)
        started = time.perf_counter()
        self.workspace.pictures.open(path)
        settle(self.workspace, 300)
        frames = self.workspace.work.frames
        print(f"8K footage ({frames} frames), opened: {time.perf_counter() - started:.1f} s")
        at = self.window.canvas.viewport.to_pane(QPointF(290 * 8, 450 * 8)).toPoint()
        click = self.answered(
            lambda: QTest.mouseClick(
                self.window.canvas.panes[0],
                Qt.MouseButton.LeftButton,
                Qt.KeyboardModifier.NoModifier,
                at,
            )
        )
        settle(self.workspace, 300)
        print(f"8K footage, a click: {1000 * click:.0f} ms")
        self.workspace.work.set_field("adjust.recolour.hue", 90.0, "Hue")
        settle(self.workspace, 300)
        playback = self.workspace.playback
        playback.loop = False
        started = time.perf_counter()
        quiet = self.until(lambda: self.workspace.quiet_frames.idle, started)
        print(f"8K footage, its small frames made while nobody waits: {quiet:.1f} s")
        started = time.perf_counter()
        playback.toggle()
        took = self.until(lambda: not playback.playing, started)
        rate = float(self.workspace.work.opened.source.about.rate)
        print(
            f"8K footage, played: {playback.shown} of {frames} shown, {playback.dropped} late, in "
            f"{took:.1f} s of {frames / rate:.1f}   (asked for: none late)"
        )
        self.workspace.work.set_field("adjust.recolour.hue", 0.0, "Hue")
        settle(self.workspace, 300)
        started = time.perf_counter()
        self.workspace.exports.write_frames(out, (0, 11), "FFV1", ClipExport())
        settle(self.workspace, 900)
        print(f"8K footage, 12 frames exported: {time.perf_counter() - started:.1f} s")
        print(
            "8K footage, exported frames that are those of the source: "
            f"{same_frames(path, out, 12)} of 12   (asked for: all)"
        )
        print(f"8K footage, memory: {memory()}")
        self.workspace.pictures.close_all()
        settle(self.workspace)

    def sieves(self, folder: pathlib.Path) -> None:
        """A hundred sieves of two hundred samples each."""
        chance = random.Random(1)

        def sample() -> Sample:
            colour = (chance.random(), chance.random(), chance.random())
            return Sample(
                x=chance.randrange(1800), y=chance.randrange(1200), colour=colour, tolerance=8
            )

        stack = tuple(
            Sieve(name=f"Sieve {n}", pick=Pick(samples=tuple(sample() for _ in range(200))))
            for n in range(100)
        )
        storage.save(Project(source=str(DEMO / "yard.png"), stack=stack), folder / "many.sieve")
        started = time.perf_counter()
        self.workspace.pictures.open(folder / "many.sieve")
        took = self.until(lambda: self.workspace.work.opened is not None, started)
        print(
            f"a project of 100 sieves, 200 samples each, opened: {took:.1f} s   (asked for: at "
            "most 2)"
        )
        started = time.perf_counter()
        self.workspace.pictures.close_all()
        settle(self.workspace, 300)
        print(f"and closed while it is rendered: {time.perf_counter() - started:.1f} s")

    def tray(self, folder: pathlib.Path) -> None:
        """Five hundred pictures."""
        first = folder / "p000.jpg"
        Image.open(DEMO / "yard.png").convert("RGB").resize((1200, 800)).save(first)
        paths = [first, *(shutil.copy(first, folder / f"p{n:03}.jpg") for n in range(1, 500))]
        started = time.perf_counter()
        self.workspace.pictures.open_many([pathlib.Path(path) for path in paths])
        print(f"500 pictures put on the tray: {time.perf_counter() - started:.1f} s")
        settle(self.workspace, 120)
        print(f"and all with their thumbnails: {time.perf_counter() - started:.1f} s")


def main() -> None:
    warnings.simplefilter("ignore")
    with tempfile.TemporaryDirectory() as folder:
        for kind in ("STATE", "CONFIG", "DATA"):
            os.environ[f"XDG_{kind}_HOME"] = folder
        desk = Desk()
        for part in sys.argv[1:] or ("large", "sieves", "tray", "footage"):
            getattr(desk, part)(pathlib.Path(folder))
    sys.stdout.flush()
    os._exit(0)  # as the program ends


if __name__ == "__main__":
    main()
