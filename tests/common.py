"""What tests share: the demo, the truth, the window, the terminal."""

import faulthandler
import os
import pathlib
import subprocess
import sys
import tempfile
import time
import unittest

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
import forked
import numpy as np
import own_home  # noqa: F401  (what the program keeps for a person goes into folders of the tests' own)
from PIL import Image

from amber_sieve.core.frame import Frame
from amber_sieve.export.frame import finished
from amber_sieve.media.opening import open_source
from amber_sieve.media.source import About
from amber_sieve.media.stills import Still
from amber_sieve.project.model import Project
from amber_sieve.resolve.resolver import Resolver

ROOT = pathlib.Path(__file__).parent.parent
DEMO = ROOT / "demo"


def truth(picture: str, kind: str) -> np.ndarray:
    """True coverage of an object in a demo picture, 0 to 1."""
    return np.asarray(Image.open(DEMO / f"{picture}.truth" / f"{kind}.png"), np.float32) / 255


def overlap(mask: np.ndarray, true: np.ndarray) -> float:
    """Soft intersection over union: sum of minima over sum of maxima."""
    return float(np.minimum(mask, true).sum() / np.maximum(mask, true).sum())


_frames: dict[str, Frame] = {}


def demo_frame(name: str) -> Frame:
    """A demo still, read once."""
    if name not in _frames:
        _frames[name] = open_source(DEMO / f"{name}.png").frame(0)
    return _frames[name]


def rendered_whole(frame: Frame, project: Project, resolver: Resolver | None = None, number: int = 0) -> Frame:
    """A frame after all sieves, by the driver that everything that is written asks."""
    still = Still(About(pathlib.Path("made.png"), "still", (frame.width, frame.height), "float"), frame)
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
    """A test with a real window."""

    def setUp(self) -> None:
        super().setUp()
        from amber_sieve.desk.app import application
        from amber_sieve.desk.window.open_window import open_window
        from amber_sieve.workspace.workspace import Workspace

        self.application = application()
        # As at a start: the sheet comes when the widgets stand, which takes half as long.
        self.application.setProperty("dressed", None)
        self.application.setStyleSheet("")
        self.window = open_window(Workspace())
        self.workspace = self.window.workspace
        self.work, self.viewing = self.workspace.work, self.workspace.viewing
        self.troubles: list[str] = []
        self.workspace.speech.mishap.connect(lambda words, details: self.troubles.append(words + details))
        self.workspace.speech.trouble.connect(self.troubles.append)
        self.workspace.preferences.change(surfaces=False, offers=False)  # they are asked for where they are tested
        self.window.show()
        self.window.activateWindow()
        self.addCleanup(self._shut)

    def _shut(self) -> None:
        for entry in self.workspace.tray.entries:
            entry.document.history.mark_saved()
        self.workspace.workers.jobs.end()
        self.application.processEvents()  # what ended says so, or the window would ask whether it may be stopped, and nobody answers
        self.away_with(self.window)

    def away_with(self, window) -> None:
        """Close a window and free it: windows that stay take time from those that come."""
        from PyQt6.QtCore import QEvent

        window.close()
        window.deleteLater()
        self.application.sendPostedEvents(None, QEvent.Type.DeferredDelete)
        self.application.processEvents()

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

    def click(self, x: float, y: float, held=None, pane: int = 0) -> None:
        """Click a picture point in a pane, as a person would."""
        from PyQt6.QtCore import QPointF, Qt
        from PyQt6.QtTest import QTest

        at = self.window.canvas.viewport.to_pane(QPointF(x + 0.5, y + 0.5)).toPoint()
        QTest.mouseClick(self.window.canvas.panes[pane], Qt.MouseButton.LeftButton, held or Qt.KeyboardModifier.NoModifier, at)
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
        QTest.mouseRelease(widget, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, start + QPoint(by, 0))
        self.settle()
