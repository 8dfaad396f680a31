"""Prepare a drag while the hand rests: the coarser picture that it works on, and the stages that it
leaves as they are.
"""

from __future__ import annotations

import contextlib
from dataclasses import replace

from PyQt6.QtCore import QObject, QTimer, pyqtSignal

from ...errors import Trouble
from ...live.preview import Rendered, preview
from ...project.model import Sieve
from ...render.evaluate import adjust_ahead
from ..background.guard import guarded
from ..background.workers import Workers
from ..document.work import Work
from .viewing import Viewing

#: Milliseconds after a fine picture came.
RESTED = 50
#: A step of a tolerance.
STEP = 1.0


def _a_step_aside(sieve: Sieve) -> Sieve:
    """The sieve as a step of dragging the tolerance of its samples would leave it."""
    samples = tuple(
        sample.but(tolerance=max(0.0, sample.tolerance - STEP)) for sample in sieve.pick.samples
    )
    return sieve.but(pick=sieve.pick.but(samples=samples))


@guarded
class DragReady(QObject):
    """Makes it in the thread of the renders, and gives it up for whatever is asked there. `made`
    comes with the coarser picture.
    """

    made = pyqtSignal(object)

    def __init__(self, work: Work, viewing: Viewing, workers: Workers) -> None:
        super().__init__()
        self._work, self._viewing, self._workers = work, viewing, workers
        self._timer = QTimer(self)
        self._timer.setSingleShot(True)
        self._timer.setInterval(RESTED)
        self._timer.timeout.connect(self._make)
        viewing.rendered.connect(self._wait)

    def _wait(self, result: Rendered) -> None:
        if result.wanted.hurried:
            self._timer.stop()
        else:
            self._timer.start()

    def _make(self) -> None:
        opened, last, renders = self._work.opened, self._viewing.last, self._workers.renders
        if (
            opened is None
            or last is None
            or self._viewing.plays
            or self._viewing.wanted() != last.wanted
            or not renders.idle
        ):
            return
        if last.wanted.shown.coarseness(last.mask.size) == 1:  # it works on the same picture
            return
        wanted = replace(self._viewing.wanted(), hurried=True)
        beside = replace(
            wanted,
            project=wanted.project.with_sieve(_a_step_aside(wanted.project.sieve(wanted.sieve_id))),
        )

        context = replace(self._workers.context, cancelled=renders.superseded)

        def make() -> None:
            # Nobody has asked for it: what cannot be read is said when somebody does.
            with contextlib.suppress(Trouble):
                if beside.project != wanted.project:
                    preview(
                        opened, beside, context
                    )  # what a step of a tolerance leaves as it is, and where it writes
                result = preview(opened, wanted, context)
                self.made.emit(result)
                adjust_ahead(result.frame, result.seen, context)

        renders.ask(make, opened)
