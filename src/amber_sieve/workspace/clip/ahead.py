"""Looking before a click: what a click where the pointer rests would give is worked out in a thread
and shown until the pointer moves on.
"""

from __future__ import annotations

from dataclasses import dataclass

from PyQt6.QtCore import QObject, pyqtSignal

from ...live.clicking import Clicked
from ...live.sieve_context import SieveContext
from ...progress import Progress
from ...project import edits
from ...project.model import Project
from ..background.guard import guarded
from ..background.idle_task import Compute, IdleTask
from ..background.workers import Workers
from ..document.work import Work
from ..samples import SamplesController
from ..viewing.viewing import Viewing

#: Milliseconds that the pointer rests before a click there is worked out.
RESTS = 25


@dataclass(frozen=True)
class Place:
    """The place of a possible click, full-resolution pixels, and its role."""

    x: float
    y: float
    role: str
    fresh: bool


@dataclass(frozen=True)
class Foreseen:
    """The outcome of a possible click: of a project on a frame, for a sieve; with the project after
    it.
    """

    place: Place
    before: Project
    number: int
    sieve_id: str
    came: Clicked
    after: Project


@guarded
class LookAhead(QObject):
    """`foreseen` comes with a `Foreseen`, or None when it is shown no more."""

    foreseen = pyqtSignal(object)

    def __init__(
        self, work: Work, viewing: Viewing, workers: Workers, samples: SamplesController
    ) -> None:
        super().__init__()
        self.speech = work.speech
        self._work, self._viewing, self._workers, self._samples = work, viewing, workers, samples
        #: Switched on, and held for a while by a key.
        self._on = self._held = False
        #: Its key is the place where the pointer rests.
        self._task = IdleTask(workers.aheads, RESTS, self._begin)
        self._task.found.connect(self._take)
        self._shown: Foreseen | None = None
        for gone in (work.changed, work.source_changed, work.selection_changed):
            gone.connect(self.drop)

    @property
    def on(self) -> bool:
        """Return whether it is looked ahead."""
        return self._on or self._held

    def switch(self, on: bool) -> None:
        """Look ahead from now on, or no more."""
        self._on = on
        if not self.on:
            self.drop()

    def hold(self, held: bool) -> None:
        """Look ahead for as long as a key is held."""
        self._held = held
        if not self.on:
            self.drop()

    def rest(self, place: Place) -> None:
        """The pointer is at a place: when it stays, a click there is worked out."""
        if self.on and place != self._task.key:
            self.drop()
            self._task.want(place)

    def look_at(self, place: Place) -> None:
        """Work out at once what a click at a place gives, whether it is looked ahead or not."""
        self.drop()
        self._task.want(place, now=True)

    def drop(self) -> None:
        """Show what is there again."""
        self._task.forget()
        if self._shown is not None:
            self._shown = None
            self._viewing.try_out(None)
            self.foreseen.emit(None)

    def take(self, place: Place) -> str:
        """Click: as it is shown, where it is. Returns the id of the sample, "" for none."""
        shown = self._shown
        if shown is not None and shown.place == place and self._still(shown):
            self.drop()
            self._samples.add(shown.sieve_id, shown.came, place.role, place.fresh)
            return shown.came.sample.id
        self.drop()
        return self._samples.take(place.x, place.y, place.role, place.fresh)

    def _begin(self) -> Compute | None:
        place, work, opened = self._task.key, self._work, self._work.opened
        if not isinstance(place, Place) or opened is None:
            return None
        question = self._samples.question(place.x, place.y, place.role, place.fresh)
        if question is None:
            return None
        before, number, sieve_id = work.project, work.number, work.sieve.id
        seen = SieveContext(opened, before, sieve_id, number, self._workers.context)

        def outcome(progress: Progress) -> Foreseen:
            with opened.read():
                came = question(seen)
            sieve = edits.with_sample(
                before.sieve(sieve_id), came.sample, place.fresh, came.picked_on
            )
            return Foreseen(place, before, number, sieve_id, came, before.with_sieve(sieve))

        return outcome

    def _still(self, found: Foreseen) -> bool:
        """Return whether what was found is of what there is now."""
        work = self._work
        return (
            found.before is work.project
            and found.number == work.number
            and found.sieve_id == work.sieve.id
        )

    def _take(self, found: Foreseen | None) -> None:
        if found is not None and found.place == self._task.key and self._still(found):
            self._shown = found
            self._viewing.try_out(found.after)
            self.foreseen.emit(found)
