"""Foretell the share of the picture that each tolerance of a sample would take: worked out while
nothing else is wanted.
"""

from __future__ import annotations

import weakref

from PyQt6.QtCore import QObject, QTimer, pyqtSignal

from ...errors import Trouble
from ...live.foretelling import shares_by_tolerance
from ...live.seen import Seen
from ..background.guard import guarded
from ..background.workers import Workers
from ..document.work import Work

#: Milliseconds that nothing has changed before it is worked out.
SOON = 150
#: What it was worked out for, and the shares.
Answer = tuple[tuple[object, ...], tuple[float, ...]]


@guarded
class Foretold(QObject):
    """`found` comes with the id of a sample and the shares of the picture that each tolerance of it
    would take; () while they are not known.
    """

    found = pyqtSignal(str, tuple)

    def __init__(self, work: Work, workers: Workers) -> None:
        super().__init__()
        self.speech = work.speech
        self._work, self._workers = work, workers
        self._wanted = ""
        #: What the shares that were found last were worked out for.
        self._of: tuple[object, ...] = ()
        self._soon = QTimer(self)
        self._soon.setSingleShot(True)
        self._soon.setInterval(SOON)
        self._soon.timeout.connect(self._ask)
        workers.foretold.done.connect(self._take)

    def want(self, sample_id: str) -> None:
        """Work it out for a sample, "" for none; `found` follows where it is not known already."""
        key = self._key(sample_id)
        if key != self._of:
            if self._wanted != sample_id:
                self.found.emit(sample_id, ())
            self._wanted = sample_id
            self._soon.start()

    def _key(self, sample_id: str) -> tuple[object, ...]:
        """All that the distances from a sample depend on."""
        work = self._work
        pick, sieve = work.sieve.pick, work.sieve
        sample = next((sample for sample in pick.samples if sample.id == sample_id), None)
        if sample is None:
            return ()
        weights = (
            pick.shading,
            pick.gloss,
            pick.hue_weight,
            pick.saturation_weight,
            pick.measure,
            pick.layer,
        )
        return (
            weakref.ref(work.opened) if work.opened is not None else None,  # it may be closed
            work.number,
            sieve.id,
            sample_id,
            sample.colour,
            sample.tones,
            sample.compare,
            weights,
            sieve.areas,
            sieve.edge.clean,
        )

    def _ask(self) -> None:
        opened, key = self._work.opened, self._key(self._wanted)
        if opened is None or not key:
            return
        seen = Seen(
            opened,
            self._work.project,
            self._work.sieve.id,
            self._work.number,
            self._workers.context,
        )

        def answer() -> Answer:
            with opened.read():
                try:
                    return key, shares_by_tolerance(seen, str(key[3]))
                except Trouble:  # a damaged frame; what is shown says so
                    return key, ()

        self._workers.foretold.ask(answer)

    def _take(self, answer: Answer) -> None:
        key, shares = answer
        if key == self._key(self._wanted):
            self._of = key
            self.found.emit(self._wanted, shares)
