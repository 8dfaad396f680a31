"""The main surfaces of the open picture, found while nobody waits for anything, to be clicked
without aiming.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from PyQt6.QtCore import QObject, QTimer, pyqtSignal

from ...core.colour.screen import to_screen
from ...core.frame import Frame
from ...core.pick.surfaces import Surface, found_surfaces
from ...live.clicking import looked_at
from ...progress import Progress
from ..background.guard import guarded
from ..background.idle_task import Compute, IdleTask
from ..background.workers import Workers
from ..clip.ahead import LookAhead, Place
from ..document.work import Work
from ..preferences import PreferenceStore
from ..stack import StackController
from .viewing import Viewing

#: Light round a surface on its chip: a dark neutral grey, 63 of 255.
AROUND = 0.05
#: Longer side of a chip's picture, pixels.
SIDE = 112
#: A chip shows what lies between these shares of the surface's rows and columns, per cent.
ENDS = (3, 97)
#: Milliseconds that nothing has been dragged, or has stopped a search, before the next search
#: begins.
QUIET = 2000


@dataclass(frozen=True)
class Chip:
    """A surface that is offered: where a click would be, full-resolution pixels, how much of the
    picture it holds, and what it looks like: screen pixels (H, W) uint32, grey round it.
    """

    x: float
    y: float
    share: float
    pixels: np.ndarray


def _picture_of(planes: np.ndarray, mask: np.ndarray) -> np.ndarray:
    """A surface cut out of a picture (3, H, W) on grey, as screen pixels (h, w) uint32."""
    held = np.nonzero(mask > 0.5)
    rows, columns = (
        slice(int(low), int(high) + 1)
        for low, high in (np.percentile(places, ENDS) for places in held)
    )
    every = max(1, -(-max(rows.stop - rows.start, columns.stop - columns.start) // SIDE))
    box = (slice(rows.start, rows.stop, every), slice(columns.start, columns.stop, every))
    cut = AROUND + mask[box] * (planes[(slice(None), *box)] - AROUND)
    return to_screen(np.ascontiguousarray(cut, np.float32))


def _chips_of(frame: Frame, surfaces: list[Surface]) -> list[Chip]:
    return [
        Chip(
            (surface.x + 0.5) / frame.scale,
            (surface.y + 0.5) / frame.scale,
            float(surface.mask.mean()),
            _picture_of(frame.planes, surface.mask),
        )
        for surface in surfaces
        if (surface.mask > 0.5).any()
    ]


@guarded
class SurfacesController(QObject):
    """`found` comes with the chips that are offered, none while nothing is known."""

    found = pyqtSignal(list)

    def __init__(
        self,
        work: Work,
        viewing: Viewing,
        workers: Workers,
        ahead: LookAhead,
        stack: StackController,
        preferences: PreferenceStore,
    ) -> None:
        super().__init__()
        self.speech = work.speech
        self._work, self._viewing, self._workers, self._ahead = work, viewing, workers, ahead
        self._stack, self._preferences = stack, preferences
        #: Its key is what is open.
        self._task = IdleTask(workers.surfaces, 0, self._begin)
        self._task.found.connect(lambda chips: self.found.emit(chips or []))
        work.source_changed.connect(self._forget)
        self._quiet = QTimer(self)
        self._quiet.setSingleShot(True)
        self._quiet.setInterval(QUIET)
        self._quiet.timeout.connect(self._look)
        work.stale.connect(self._make_way)
        viewing.rendered.connect(lambda _: self._look())
        preferences.changed.connect(self._look)
        workers.rested.connect(self._look)

    def _forget(self) -> None:
        self._task.forget()
        self._quiet.stop()
        self.found.emit([])

    def _make_way(self) -> None:
        """Something else is wanted first. A hand that drags one number drags the next: a search
        begun in between would delay its first step.
        """
        if not self._task.idle or self._work.dragging or self._quiet.isActive():
            self._quiet.start()
        self._task.cancel()

    def _look(self) -> None:
        """Find them as soon as nothing else is wanted."""
        opened = self._work.opened
        if opened is None or self._task.key is opened or self._viewing.plays:
            return
        if self._work.dragging:
            # between two steps too there is somebody who waits, however long the hand rests
            self._quiet.start()
        elif (
            not self._quiet.isActive() and self._preferences.values.surfaces and self._workers.rests
        ):
            self._task.want(opened, now=True)

    def _begin(self) -> Compute | None:
        opened, number = self._work.opened, self._work.number
        if opened is None:
            return None
        width, height = opened.source.about.size

        def chips(progress: Progress) -> list[Chip]:
            with opened.read():
                frame = opened.frame(number, looked_at(width, height))
            return _chips_of(frame, found_surfaces(frame.planes, step=progress.step))

        return chips

    def show(self, chip: Chip) -> None:
        """Show what a click there would give, until the pointer leaves."""
        self._ahead.look_at(Place(chip.x, chip.y, "keep", True))

    def hide(self) -> None:
        """The pointer has left."""
        self._ahead.drop()

    def take(self, chip: Chip, fresh_sieve: bool = False) -> None:
        """Make it the pick of the current sieve, or of a new one."""
        if fresh_sieve:
            self._ahead.drop()
            self._stack.add()
        self._ahead.take(Place(chip.x, chip.y, "keep", True))
