"""The next click is offered: where the mask of the current sieve is least sure, worked out while
nothing else is wanted.
"""

from __future__ import annotations

from PyQt6.QtCore import QObject, pyqtSignal

from ...live.next_click import offered
from ...live.preview import Rendered
from ...live.sieve_context import SieveContext
from ...progress import Progress
from ...render.evaluate import mask_value
from ..background.guard import guarded
from ..background.idle_task import Compute, IdleTask
from ..background.workers import Workers
from ..document.work import Work
from ..preferences import PreferenceStore
from .viewing import Viewing

#: Milliseconds after a fine picture came: a hand that goes on to the next control begins sooner,
#: and its first step would wait.
QUIET = 1000


@guarded
class Offers(QObject):
    """`offered` comes with a place that is offered, or None."""

    offered = pyqtSignal(object)

    def __init__(
        self, work: Work, viewing: Viewing, workers: Workers, preferences: PreferenceStore
    ) -> None:
        super().__init__()
        self.speech = work.speech
        self._work, self._workers, self._preferences = work, workers, preferences
        self._task = IdleTask(workers.offers, QUIET, self._begin)
        self._task.found.connect(self.offered)
        work.stale.connect(self._task.cancel)
        viewing.rendered.connect(self._look)
        preferences.changed.connect(self._forget)
        work.source_changed.connect(self._forget)

    @property
    def idle(self) -> bool:
        """Return whether none is being worked out, or about to be."""
        return self._task.idle

    def _forget(self) -> None:
        self._task.forget()
        self.offered.emit(None)

    def _look(self, shown: Rendered) -> None:
        """Look for another place when the shown mask has changed, and stays."""
        work = self._work
        opened, sieve = work.opened, work.sieve
        if (
            opened is None
            or not self._preferences.values.offers
            or shown.wanted.hurried
            or shown.wanted.project is not work.project
        ):
            return
        wanted = (opened, work.number, sieve.id, mask_value(work.project, sieve))
        if wanted != self._task.key:
            self._task.want(wanted)
            self.offered.emit(None)

    def _begin(self) -> Compute | None:
        work, opened = self._work, self._work.opened
        if opened is None:
            return None
        seen = SieveContext(opened, work.project, work.sieve.id, work.number, self._workers.context)

        def place(progress: Progress) -> tuple[float, float] | None:
            with opened.read():
                return offered(seen.sieve, seen.reduced(), seen.context, step=progress.step)

        return place
