"""What tests share: the demo, the truth, the window, the terminal."""

import faulthandler
import functools
import json
import os
import pathlib
import subprocess
import sys
import tempfile
import time
import unittest
from typing import ClassVar

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
import cv2
import forked
import numpy as np
import own_home
from PIL import Image

from amber_sieve.core.edge.colour_share import FRINGE
from amber_sieve.core.frame import Frame
from amber_sieve.export.frame import finished
from amber_sieve.media.opening import open_source
from amber_sieve.media.source import About
from amber_sieve.media.stills import Still
from amber_sieve.project.model import Project
from amber_sieve.resolve.resolver import Resolver

ROOT = pathlib.Path(__file__).parent.parent
DEMO = ROOT / "demo"


def beyond(mask: np.ndarray) -> np.ndarray:
    """Pixels (H, W) bool that nothing of a mask reaches, nor the colour of what is masked."""
    reach = 2 * int(FRINGE.outside) + 3
    disc = cv2.getStructuringElement(cv2.MORPH_ELLIPSE, (reach, reach))
    return cv2.dilate((mask > 0).astype(np.uint8), disc) == 0


@functools.cache
def half_demo() -> pathlib.Path:
    """The demo's stills, their truth and projects at half size, for tests of widgets: a quarter of
    the pixels.
    """
    folder = own_home.FOLDER / "half-demo"
    folder.mkdir()
    for path in sorted(DEMO.glob("*.png")) + sorted(DEMO.glob("*.truth/*.png")):
        half = folder / path.relative_to(DEMO)
        half.parent.mkdir(exist_ok=True)
        Image.open(path).reduce(2).save(half, compress_level=1)
    for path in DEMO.glob("*.sieve"):
        held = json.loads(path.read_text())
        for sieve in held["stack"]:
            for sample in sieve.get("pick", {}).get("samples", ()):
                sample["x"], sample["y"] = sample["x"] / 2, sample["y"] / 2
        (folder / path.name).write_text(json.dumps(held))
    return folder


#: Width and height of a window of the tests, pixels.
AS_OPENED = (1280, 800)


def truth(picture: str, kind: str, demo: pathlib.Path = DEMO) -> np.ndarray:
    """True coverage of an object in a demo picture, 0 to 1."""
    return np.asarray(Image.open(demo / f"{picture}.truth" / f"{kind}.png"), np.float32) / 255


def overlap(mask: np.ndarray, true: np.ndarray) -> float:
    """Soft intersection over union: sum of minima over sum of maxima."""
    return float(np.minimum(mask, true).sum() / np.maximum(mask, true).sum())


_frames: dict[str, Frame] = {}


def demo_frame(name: str) -> Frame:
    """A demo still, read once."""
    if name not in _frames:
        _frames[name] = open_source(DEMO / f"{name}.png").frame(0)
    return _frames[name]


def rendered_whole(
    frame: Frame, project: Project, resolver: Resolver | None = None, number: int = 0
) -> Frame:
    """A frame after all sieves, by the driver that everything that is written asks."""
    still = Still(
        About(pathlib.Path("made.png"), "still", (frame.width, frame.height), "float"), frame
    )
    return finished(still, project, number, frame=frame, resolver=resolver).result


def terminal(*words: object) -> subprocess.CompletedProcess:
    """Run the command line as a person would."""
    return forked.run(forked.command, *words)


def solid(colour: tuple[float, float, float], height: int = 8, width: int = 8) -> np.ndarray:
    """Planes of one linear colour."""
    return np.broadcast_to(np.array(colour, np.float32)[:, None, None], (3, height, width)).copy()


class FolderCase(unittest.TestCase):
    """A test with a folder of its own."""

    def setUp(self) -> None:
        held = tempfile.TemporaryDirectory()
        self.addCleanup(held.cleanup)
        self.folder = pathlib.Path(held.name)


class WindowCase(FolderCase):
    """A test with a real window: one for all tests of a class, as new for each."""

    #: Every test has a window of its own: for classes whose tests leave more behind than `_as_new`
    #: undoes.
    own_window = False
    #: Coordinates of clicks are those of the demo's pictures at full size, times this.
    scale = 1.0
    _standing: ClassVar[tuple | None] = None

    def setUp(self) -> None:
        super().setUp()
        own = type(self)
        if own.own_window or own.__dict__.get("_standing") is None:
            own._standing = self._opened()
            (self.addCleanup if own.own_window else own.addClassCleanup)(self._shut, *own._standing)
        self.application, self.window, self.troubles = own._standing
        self.workspace = self.window.workspace
        self.work, self.viewing = self.workspace.work, self.workspace.viewing
        if not own.own_window:
            self._as_new()

    @staticmethod
    def _opened() -> tuple:
        """The application, a new window, and the list of what it complains of."""
        from amber_sieve.desk.app import application
        from amber_sieve.desk.window.open_window import open_window
        from amber_sieve.workspace.workspace import Workspace

        running = application()
        # As at a start: the sheet comes when the widgets stand, which takes half as long.
        running.setProperty("dressed", None)
        running.setStyleSheet("")
        window = open_window(Workspace())
        troubles: list[str] = []
        window.workspace.speech.mishap.connect(
            lambda words, details: troubles.append(words + details)
        )
        window.workspace.speech.trouble.connect(troubles.append)
        window.workspace.preferences.change(
            surfaces=False, offers=False
        )  # they are asked for where they are tested
        window.show()
        window.activateWindow()
        return running, window, troubles

    def _as_new(self) -> None:
        """Bring the window back to how it opens: nothing on the tray, every choice as it ships."""
        from amber_sieve.render.views import Looking
        from amber_sieve.workspace.preferences import Preferences
        from amber_sieve.workspace.tools import Tools

        window, workspace, canvas = self.window, self.workspace, self.window.canvas
        for other in self.application.topLevelWidgets():
            if other is not window and other.isVisible():
                other.close()
        workspace.playback.stop()
        for runner in (workspace.workers.jobs, workspace.workers.tasks):
            runner.stop()
        for entry in workspace.tray.entries:
            entry.document.history.mark_saved()
        workspace.pictures.close_all()
        workspace.preferences.change(
            **Preferences(surfaces=False, offers=False).model_dump(
                exclude={"panels_state", "place"}
            )
        )
        vars(workspace.tools).update(vars(Tools()))
        window.pages.setCurrentIndex(0)
        canvas.bar.wipe.setChecked(False)
        canvas.bar.loupe.setChecked(False)
        canvas.bar.compare.setChecked(False)
        for number, view in enumerate(("result", "mask")):
            canvas.set_view(number, view)
        workspace.viewing.look(**vars(Looking()))
        window.resize(*AS_OPENED)
        self.settle()
        self.troubles.clear()

    @classmethod
    def _shut(cls, running, window, troubles) -> None:
        for entry in window.workspace.tray.entries:
            entry.document.history.mark_saved()
        window.workspace.workers.jobs.end()
        # what ended says so, or the window would ask whether it may be stopped, and nobody answers
        running.processEvents()
        cls.away_with(window)
        cls._standing = None

    @staticmethod
    def away_with(window) -> None:
        """Close a window and free it: windows that stay take time from those that come."""
        from PyQt6.QtCore import QCoreApplication, QEvent

        window.close()
        window.deleteLater()
        QCoreApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete)
        QCoreApplication.processEvents()

    def wait(self, until, seconds: float = 20.0) -> None:
        """Wait until something is so, which it has to be in time."""
        end = time.monotonic() + seconds
        while not until() and time.monotonic() < end:
            self.application.processEvents()
            time.sleep(0.002)
        self.assertTrue(until())

    def open(self, path: pathlib.Path) -> None:
        self.workspace.pictures.close_all()
        self.workspace.pictures.open(path)
        self.settle()

    def settle(self) -> None:
        from amber_sieve.desk.start.waiting import settle

        try:
            settle(self.workspace)
        except TimeoutError as error:
            faulthandler.dump_traceback(file=sys.__stderr__)
            raise TimeoutError(f"{error}; said meanwhile: {self.troubles}") from None

    def rest(self) -> None:
        """Settle, and wait for what is made ahead of the next drag."""
        self.settle()
        self.wait(lambda: self.workspace.drag_ready.begun and self.workspace.idle)
        self.settle()

    def click(self, x: float, y: float, held=None, pane: int = 0) -> None:
        """Click a picture point in a pane, as a person would."""
        from PyQt6.QtCore import QPointF, Qt
        from PyQt6.QtTest import QTest

        at = self.window.canvas.viewport.to_pane(QPointF(x + 0.5, y + 0.5) * self.scale).toPoint()
        QTest.mouseClick(
            self.window.canvas.panes[pane],
            Qt.MouseButton.LeftButton,
            held or Qt.KeyboardModifier.NoModifier,
            at,
        )
        self.settle()

    def drag(self, widget, by: int) -> None:
        """Drag a number sideways by so many pixels."""
        from PyQt6.QtCore import QPoint, Qt
        from PyQt6.QtTest import QTest

        start = QPoint(widget.width() // 2, widget.height() // 2)
        QTest.mousePress(widget, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, start)
        for step in range(1, 6):
            QTest.mouseMove(widget, start + QPoint(by * step // 5, 0))
            self.application.processEvents()
        QTest.mouseRelease(
            widget, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, start + QPoint(by, 0)
        )
        self.settle()
