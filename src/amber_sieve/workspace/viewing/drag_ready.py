"""Prepare a drag while the hand rests: the coarser picture that it works on, and the stages that it
leaves as they are.
"""

from __future__ import annotations

from dataclasses import replace

from PyQt6.QtCore import QObject, pyqtSignal

from ...live.preview import Rendered, preview
from ...progress import Progress
from ...project.model import Sieve
from ...render.evaluate import adjust_ahead
from ..background.guard import guarded
from ..background.idle_task import Compute, IdleTask
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
    """Makes it in the thread of the renders, and gives it up for any other request there. `made`
    comes with the coarser picture.
    """

    made = pyqtSignal(object)

    def __init__(self, work: Work, viewing: Viewing, workers: Workers) -> None:
        super().__init__()
        self._work, self._viewing, self._workers = work, viewing, workers
        self._task = IdleTask(workers.renders, RESTED, self._begin, lambda: work.opened)
        viewing.rendered.connect(self._wait)

    @property
    def begun(self) -> bool:
        """Return whether nothing waits to be begun."""
        return not self._task.waits

    def _wait(self, result: Rendered) -> None:
        self._task.forget()
        if not result.wanted.hurried:
            self._task.want(result.wanted)

    def _begin(self) -> Compute | None:
        opened, last, renders = self._work.opened, self._viewing.last, self._workers.renders
        rests = renders.idle and not self._viewing.plays
        if opened is None or last is None or not rests or self._viewing.wanted() != last.wanted:
            return None
        if last.wanted.shown.coarseness(last.mask.size) == 1:  # it works on the same picture
            return None
        wanted = replace(self._viewing.wanted(), hurried=True)
        sieve = _a_step_aside(wanted.project.sieve(wanted.sieve_id))
        beside = replace(wanted, project=wanted.project.with_sieve(sieve))
        context = replace(self._workers.context, cancelled=renders.superseded)

        def coarse(progress: Progress) -> None:
            if beside.project != wanted.project:
                # The stages that a step of a tolerance leaves alone, and where it writes.
                preview(opened, beside, context)
            result = preview(opened, wanted, context)
            self.made.emit(result)
            adjust_ahead(result.frame, result.seen, context)

        return coarse
