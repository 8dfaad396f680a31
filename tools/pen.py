"""A simulated pen: plays strokes with pressure and tilt into the real window, as a tablet would
send them.

    tools/pen.py STROKES.txt [PICTURE] [-o RESULT.png]    plays them on the page Areas with the
    brush, and writes the mask

A file of strokes is text: a line `stroke` begins one, a line of numbers is a place of the pen: x
and y in pixels of the picture, pressure 0 to 1, tilt to the right and towards the hand in degrees
(-60 to 60), and milliseconds since the place before. `#` begins a comment.
"""

from __future__ import annotations

import argparse
import os
import pathlib
import sys
from dataclasses import dataclass

ROOT = pathlib.Path(__file__).resolve().parent.parent
sys.path[:0] = [str(ROOT / "src"), str(ROOT / "tests")]

import own_home  # noqa: E402, F401
from PyQt6.QtCore import QEvent, QPointF, Qt  # noqa: E402
from PyQt6.QtGui import QInputDevice, QPointingDevice, QTabletEvent  # noqa: E402
from PyQt6.QtTest import QTest  # noqa: E402
from PyQt6.QtWidgets import QApplication  # noqa: E402

from amber_sieve.desk.window.window import Window  # noqa: E402


@dataclass(frozen=True)
class Place:
    """Where a pen is: pixels of the picture, pressure 0 to 1, tilt in degrees, and milliseconds
    since the place before.
    """

    x: float
    y: float
    pressure: float
    tilt_x: float = 0.0
    tilt_y: float = 0.0
    after: float = 0.0


def strokes_of(text: str) -> list[list[Place]]:
    """The strokes of a file; raises ValueError with the number of the line that is wrong."""
    strokes: list[list[Place]] = []
    for number, line in enumerate(text.splitlines(), 1):
        words = line.partition("#")[0].split()
        if words == ["stroke"]:
            strokes.append([])
        elif words:
            try:
                place = Place(*(float(word) for word in words))
            except (ValueError, TypeError):
                raise ValueError(
                    f"line {number}: x, y, pressure, two tilts and milliseconds are wanted"
                ) from None
            if (
                not strokes
                or not 0 <= place.pressure <= 1
                or max(abs(place.tilt_x), abs(place.tilt_y)) > 60
            ):
                raise ValueError(
                    f"line {number}: no stroke has begun, or pressure or tilt is out of range"
                )
            strokes[-1].append(place)
    return [stroke for stroke in strokes if stroke]


def play(window: Window, strokes: list[list[Place]], timed: bool = False) -> int:
    """Play strokes into the left pane of a window; ``timed`` as fast as they were recorded. Returns
    how many events were sent.
    """
    stylus = QInputDevice.DeviceType.Stylus
    can = (
        QInputDevice.Capability.Position
        | QInputDevice.Capability.Pressure
        | QInputDevice.Capability.XTilt
        | QInputDevice.Capability.YTilt
    )
    pen = QPointingDevice("pen", 1, stylus, QPointingDevice.PointerType.Pen, can, 1, 1)
    pane, left, none = (
        window.canvas.panes[0],
        Qt.MouseButton.LeftButton,
        Qt.KeyboardModifier.NoModifier,
    )
    kinds, sent = QEvent.Type, 0
    for stroke in strokes:
        for k, place in enumerate(stroke):
            if timed and place.after:
                QTest.qWait(round(place.after))
            at = window.canvas.viewport.to_pane(QPointF(place.x + 0.5, place.y + 0.5))
            whole = QPointF(pane.mapToGlobal(at.toPoint()))
            for kind in (
                kinds.TabletPress if k == 0 else kinds.TabletMove,
                kinds.TabletRelease if k == len(stroke) - 1 else None,
            ):
                if kind is not None:
                    pressure = place.pressure if kind != kinds.TabletRelease else 0.0
                    held = left if kind != kinds.TabletRelease else Qt.MouseButton.NoButton
                    event = QTabletEvent(
                        kind,
                        pen,
                        at,
                        whole,
                        pressure,
                        place.tilt_x,
                        place.tilt_y,
                        0,
                        0,
                        0,
                        none,
                        left,
                        held,
                    )
                    QApplication.sendEvent(pane, event)
                    sent += 1
    return sent


def main() -> int:
    from amber_sieve.desk.app import application
    from amber_sieve.desk.start.waiting import settle
    from amber_sieve.desk.window.open_window import open_window
    from amber_sieve.workspace.workspace import Workspace

    parser = argparse.ArgumentParser(description=(__doc__ or "").partition("\n")[0])
    parser.add_argument("strokes", type=pathlib.Path)
    parser.add_argument("picture", type=pathlib.Path, nargs="?", default=ROOT / "demo" / "yard.png")
    parser.add_argument("-o", "--out", type=pathlib.Path, default=pathlib.Path("pen.png"))
    given = parser.parse_args()
    running = application()
    window = open_window(Workspace())
    window.show()
    window.workspace.pictures.open(given.picture)
    settle(window.workspace)
    window.pages.setCurrentWidget(window.areas)
    window.canvas.areas.take("brush")
    sent = play(window, strokes_of(given.strokes.read_text()))
    settle(window.workspace)
    window.workspace.exports.write_mask(given.out)
    settle(window.workspace)
    print(f"{sent} events of the pen; the mask is {given.out}")
    window.workspace.close()
    running.processEvents()
    sys.stdout.flush()
    os._exit(0)


if __name__ == "__main__":
    sys.exit(main())
