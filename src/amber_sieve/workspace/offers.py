"""The next click is offered: where the mask of the current sieve is least sure, worked out while nothing else is wanted."""

from __future__ import annotations

from PyQt6.QtCore import QObject, pyqtSignal

from ..errors import Trouble
from ..live.offering import offered
from ..live.preview import Rendered
from ..live.seen import Seen
from ..render.evaluate import mask_value
from .guard import guarded
from .preferences import PreferenceStore
from .viewing import Viewing
from .work import Work
from .workers import Workers

#: What was asked for, and the place that was found, full-resolution pixels.
Answer = tuple[tuple[object, ...], tuple[float, float] | None]


@guarded
class Offers(QObject):
    """`offered` comes with a place that is offered, or None."""

    offered = pyqtSignal(object)

    def __init__(self, work: Work, viewing: Viewing, workers: Workers, preferences: PreferenceStore) -> None:
        super().__init__()
        self.speech = work.speech
        self._work, self._workers, self._preferences = work, workers, preferences
        #: What the offer was worked out for.
        self._of: tuple[object, ...] = ()
        workers.offers.done.connect(self._take)
        viewing.rendered.connect(self._look)
        preferences.changed.connect(self._forget)
        work.source_changed.connect(self._forget)

    def _forget(self) -> None:
        self._of = ()
        self.offered.emit(None)

    def _look(self, shown: Rendered) -> None:
        """Work it out anew when the mask that is shown is another."""
        work = self._work
        opened, sieve = work.opened, work.sieve
        if opened is None or not self._preferences.values.offers or shown.wanted.hurried or shown.wanted.project is not work.project:
            return
        wanted = (opened, work.number, sieve.id, mask_value(work.project, sieve))
        if wanted == self._of:
            return
        self._of = wanted
        self.offered.emit(None)
        seen = Seen(opened, work.project, sieve.id, work.number, self._workers.cache)

        def answer() -> Answer:
            with opened.read():
                try:
                    return wanted, offered(seen.sieve, seen.reduced(), seen.cache)
                except Trouble:  # a damaged frame; what is shown says so
                    return wanted, None

        self._workers.offers.ask(answer)

    def _take(self, answer: Answer) -> None:
        wanted, place = answer
        if wanted == self._of:
            self.offered.emit(place)
