"""Foretell the share of the picture that each tolerance of a sample would take: worked out while
nothing else is wanted.
"""

from __future__ import annotations

import weakref

from PyQt6.QtCore import QObject, pyqtSignal

from ...live.sieve_context import SieveContext
from ...live.tolerance_curve import shares_by_tolerance
from ...progress import Progress
from ..background.guard import guarded
from ..background.idle_task import Compute, IdleTask
from ..background.workers import Workers
from ..document.work import Work

#: Milliseconds that nothing has changed before it is worked out.
SOON = 150


@guarded
class ToleranceHints(QObject):
    """`found` comes with the id of a sample and the shares of the picture that each tolerance of it
    would take; () while they are not known.
    """

    found = pyqtSignal(str, tuple)

    def __init__(self, work: Work, workers: Workers) -> None:
        super().__init__()
        self.speech = work.speech
        self._work, self._workers = work, workers
        self._wanted = ""
        self._task = IdleTask(workers.tolerance_hints, SOON, self._begin)
        self._task.found.connect(self._take)

    def want(self, sample_id: str) -> None:
        """Work it out for a sample, "" for none; `found` follows where it is not known already."""
        key = self._key(sample_id)
        if key != self._task.key:
            if self._wanted != sample_id:
                self.found.emit(sample_id, ())
            self._wanted = sample_id
            self._task.want(key)

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

    def _begin(self) -> Compute | None:
        opened, key = self._work.opened, self._task.key
        if opened is None or not key or key != self._key(self._wanted):
            return None
        work, sample_id = self._work, self._wanted
        seen = SieveContext(opened, work.project, work.sieve.id, work.number, self._workers.context)

        def shares(progress: Progress) -> tuple[float, ...]:
            with opened.read():
                return shares_by_tolerance(seen, sample_id)

        return shares

    def _take(self, shares: tuple[float, ...] | None) -> None:
        if self._task.key == self._key(self._wanted):
            self.found.emit(self._wanted, shares or ())
