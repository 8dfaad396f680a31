"""The next click is offered: where the mask of the current sieve is least sure, worked out while nothing else is wanted."""

from __future__ import annotations

from PyQt6.QtCore import QObject, pyqtSignal

from ..live.offering import offered
from ..live.preview import Rendered
from ..live.seen import Seen
from .guard import guarded
from .preferences import PreferenceStore
from .viewing import Viewing
from .work import Work
from .workers import Workers

#: A place, full-resolution pixels.
Place = tuple[float, float]


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
        wanted = (opened, work.number, sieve.id, sieve.pick, sieve.bands, sieve.edge, sieve.areas)
        if wanted == self._of:
            return
        self._of = wanted
        self.offered.emit(None)
        seen = Seen(opened, work.project, sieve.id, work.number, self._workers.cache)

        def answer() -> tuple[tuple[object, ...], Place | None]:
            with opened.read():
                return wanted, offered(seen.sieve, seen.reduced(), seen.cache)

        self._workers.offers.ask(answer)

    def _take(self, answer: tuple[tuple[object, ...], Place | None]) -> None:
        wanted, place = answer
        if wanted == self._of:
            self.offered.emit(place)
