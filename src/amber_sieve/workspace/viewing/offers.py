"""The next click is offered: where the mask of the current sieve is least sure, worked out while
nothing else is wanted.
"""

from __future__ import annotations

from PyQt6.QtCore import QObject, QTimer, pyqtSignal

from ...errors import Trouble
from ...live.offering import offered
from ...live.preview import Rendered
from ...live.seen import Seen
from ...progress import Cancelled, Progress
from ...render.evaluate import mask_value
from ..background.guard import guarded
from ..background.workers import Workers
from ..document.work import Work
from ..preferences import PreferenceStore
from .viewing import Viewing

#: Milliseconds after a fine picture came: a hand that goes on to the next control begins sooner,
#: and its first step would wait.
QUIET = 1000
#: What it was worked out with, and the place that was found, full-resolution pixels.
Answer = tuple[Progress, tuple[float, float] | None]


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
        #: What the offer was worked out for.
        self._of: tuple[object, ...] = ()
        #: It is being worked out, and may be stopped.
        self._progress: Progress | None = None
        self._quiet = QTimer(self)
        self._quiet.setSingleShot(True)
        self._quiet.setInterval(QUIET)
        self._quiet.timeout.connect(self._begin)
        work.stale.connect(self._stop)
        workers.offers.done.connect(self._take)
        viewing.rendered.connect(self._look)
        preferences.changed.connect(self._forget)
        work.source_changed.connect(self._forget)

    @property
    def idle(self) -> bool:
        """Return whether none is being worked out, or about to be."""
        return self._progress is None and not self._quiet.isActive()

    def _forget(self) -> None:
        self._stop()
        self._of = ()
        self.offered.emit(None)

    def _stop(self) -> None:
        """Something else is wanted first."""
        if self._progress is not None:
            self._progress.cancel()
        if self._progress is not None or self._quiet.isActive():
            self._progress, self._of = None, ()
        self._quiet.stop()

    def _look(self, shown: Rendered) -> None:
        """Work it out anew when the mask that is shown is another, and stays."""
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
        if wanted == self._of:
            return
        self._stop()
        self._of = wanted
        self.offered.emit(None)
        self._quiet.start()

    def _begin(self) -> None:
        work, opened, progress = self._work, self._work.opened, Progress()
        if opened is None:
            return
        self._progress = progress
        seen = Seen(opened, work.project, work.sieve.id, work.number, self._workers.context)

        def answer() -> Answer:
            with opened.read():
                try:
                    return progress, offered(
                        seen.sieve, seen.reduced(), seen.context, step=progress.step
                    )
                except (Cancelled, Trouble):  # a damaged frame; what is shown says so
                    return progress, None

        self._workers.offers.ask(answer)

    def _take(self, answer: Answer) -> None:
        progress, place = answer
        if progress is self._progress:
            self._progress = None
            self.offered.emit(place)
