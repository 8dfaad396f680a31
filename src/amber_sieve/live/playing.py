"""Frames of a clip made ahead of the play head, at the size they are shown, on threads of their
own. No Qt.

One thread decodes and reduces, others render what is looked at and nothing else, a frame each,
since frames side by side keep cores busier
than cores that wait for each other in every row: no counts, no small pictures, and of Follow, which
takes longer than a frame lasts, only what a hand-set reach asks for. What was made is kept while
nothing it depends on changes, up to a number of bytes.
"""

from __future__ import annotations

import threading
import time
from collections import OrderedDict
from collections.abc import Callable, Hashable
from dataclasses import dataclass, field, replace

import numpy as np

from ..core.frame import Frame
from ..errors import Trouble
from ..media.source import Source
from ..project.model import Project
from ..render.cache import Cache
from ..render.context import RenderContext
from ..render.stages.every import stack_support_radius, while_dragged
from ..render.views import Looking, view
from ..resolve.layers import layers_in
from ..resolve.resolver import Resolver
from ..side_by_side import WORKERS, one_core
from ..threads import Threads
from .parts import Shown, part_of
from .preview import on_screen
from .scoping import Scope, scoped
from .small_frames import Pace, SmallFrames

#: Frames that are decoded ahead of the play head.
DECODED = 4
#: Frames that are rendered ahead of it: about a second.
AHEAD = 24
#: Bytes of finished pictures that are kept.
KEPT = 500_000_000
#: Bytes of stages of the frame that is worked on.
STAGES = 300_000_000


@dataclass(frozen=True)
class Played:
    """Inputs of a frame's pictures besides the source and its number; ``factor`` is how far frames
    are reduced.
    """

    project: Project
    sieve_id: str
    shown: Shown
    looking: Looking
    factor: float
    scopes: tuple[Scope, ...] = ()

    @property
    def box(self) -> tuple[int, int, int, int]:
        """Return the box that is seen, in pixels reduced by ``factor``."""
        share = self.shown.factor / self.factor
        left, top, right, bottom = (round(edge * share) for edge in self.shown.box)
        return left, top, right, bottom


@dataclass(frozen=True)
class Picture:
    """A frame, ready to be shown: pixels by view, their scale and where they lie in the picture.
    None: it could not be read.
    """

    number: int
    views: dict[str, np.ndarray] | None
    scale: float = 1.0
    origin: tuple[float, float] = (0.0, 0.0)
    scopes: dict[Scope, np.ndarray] = field(default_factory=dict)


class Player:
    """Makes frames from ``start`` on, round from ``first`` to ``last``; `picture` gives what is
    ready.

    ``opener`` opens a source of the player's own, which is closed by `stop`. ``head`` tells the
    frame that is due, counted on without going
    round, so that what comes too late is left out. What was slow to decode is kept in ``small``, as
    frames of ``clip``.
    """

    def __init__(
        self,
        opener: Callable[[], Source],
        resolver: Resolver,
        first: int,
        last: int,
        start: int,
        head: Callable[[], int],
        small: SmallFrames,
        clip: Hashable = None,
    ) -> None:
        self._opener, self._resolver, self._head = opener, resolver, head
        self._small, self._clip, self._pace = small, clip, Pace()
        self._first, self._count, self._start = first, last - first + 1, start
        self._wanted: Played | None = None
        self._ready: OrderedDict[int, Picture] = OrderedDict()
        self._bytes = 0
        self._decoded: OrderedDict[int, Frame | None] = OrderedDict()
        #: The frames that are being rendered.
        self._working: set[int] = set()
        self._wake = threading.Condition()
        self._ends = False
        self._threads = Threads("play", 1 + WORKERS)
        #: The clock waits for the frame that is due: it does not come too late.
        self.patient = False
        self._begun = False

    def play(self, wanted: Played) -> None:
        """Begin, or go on with something else."""
        with self._wake:
            if wanted != self._wanted:
                same_size = self._wanted is not None and self._wanted.factor == wanted.factor
                self._wanted = wanted
                self._ready.clear()
                self._bytes = 0
                if not same_size:
                    self._decoded.clear()
            self._wake.notify_all()
        if not self._begun and not self._ends:
            self._begun = True
            for run in (self._decode, *[self._render] * WORKERS):
                self._threads.start(run)

    def frame_at(self, count: int) -> int:
        """The number of the frame that is due at a count."""
        return self._first + (count - self._first) % self._count

    def picture(self, count: int) -> Picture | None:
        """The picture that is due at a count, None while it is not ready."""
        with self._wake:
            self._wake.notify_all()
            return self._ready.get(self.frame_at(count))

    @property
    def ready(self) -> set[int]:
        """Numbers of the frames that are ready."""
        with self._wake:
            return set(self._ready)

    def stop(self) -> None:
        """End the threads, each once it is done with its frame; the one that decodes closes the
        source.
        """
        with self._wake:
            self._ends = True
            self._wake.notify_all()
        self._threads.end()

    # Threads

    def _due(self) -> int | None:
        """The next count to render, None when enough is ready. The lock is held."""
        head = self._head()
        # What is due at once would come too late.
        late = not self.patient and head > self._start and self.frame_at(head) not in self._ready
        for count in range(head + (WORKERS if late else 0), head + min(AHEAD, self._count)):
            number = self.frame_at(count)
            if number not in self._ready and number not in self._working:
                return count
        return None

    def _decode(self) -> None:
        try:
            source = self._opener()
        except Trouble:
            return  # it was there a moment ago; nothing will be ready
        try:
            self._decode_from(source)
        finally:
            source.close()

    def _decode_from(self, source: Source) -> None:
        while True:
            with self._wake:
                number = None
                while not self._ends and number is None:
                    due = self._due() if self._wanted is not None else None
                    if due is not None:
                        ahead = (
                            self.frame_at(count)
                            for count in range(due, due + min(DECODED, self._count))
                        )
                        number = next(
                            (
                                n
                                for n in ahead
                                if n not in self._decoded
                                and n not in self._ready
                                and n not in self._working
                            ),
                            None,
                        )
                    if number is None:
                        self._wake.wait()
                if self._ends or number is None or self._wanted is None:
                    return
                factor = self._wanted.factor
            frame = self._frame(source, number, factor)
            with self._wake:
                if self._wanted.factor == factor:
                    self._decoded[number] = frame
                    while len(self._decoded) > 2 * DECODED:
                        self._decoded.popitem(last=False)
                self._wake.notify_all()

    def _frame(self, source: Source, number: int, factor: float) -> Frame | None:
        """A small frame, decoded or as it was kept; None where it is damaged: it costs itself
        only.
        """
        about = (self._clip, factor)
        held = self._small.take(about, number)
        if held is not None:
            return held
        started = time.perf_counter()
        try:
            frame = source.quick_frame(number, factor)
        except Trouble:
            return None
        self._pace.count(time.perf_counter() - started)
        if self._pace.slow:
            self._small.keep(about, number, frame, self.frame_at(self._head()), self._count)
        return frame

    def _render(self) -> None:
        one_core()
        while True:
            with self._wake:
                due, wanted = None, self._wanted
                while not self._ends:
                    due, wanted = self._due() if self._wanted is not None else None, self._wanted
                    if due is not None and self.frame_at(due) in self._decoded:
                        break
                    self._wake.wait()
                if self._ends or due is None or wanted is None:
                    return
                number = self.frame_at(due)
                frame = self._decoded.pop(number)
                self._working.add(number)
            picture = (
                Picture(number, None) if frame is None else self._pictured(frame, number, wanted)
            )
            with self._wake:
                self._working.discard(number)
                if wanted == self._wanted:
                    self._keep(picture)
                self._wake.notify_all()

    def _pictured(self, level: Frame, number: int, wanted: Played) -> Picture:
        context, looking = (
            RenderContext(Cache(STAGES), once=True),
            replace(wanted.looking, quick=True),
        )
        layers = layers_in(context)
        try:
            # What is automatic was found on the frame that was shown before playing began, or is
            # found on this reduced one.
            project = self._resolver.resolve_frame(
                while_dragged(wanted.project), level, number, context
            )
            held = part_of(level, wanted.box, stack_support_radius(project), context)
            views = {
                name: on_screen(
                    np.ascontiguousarray(
                        view(name, held.frame, project, wanted.sieve_id, looking, context, layers)[
                            held.inner
                        ]
                    ),
                    name,
                    looking,
                )
                for name in wanted.shown.views
            }
            scopes = scoped(wanted.scopes, held.frame, project, wanted.sieve_id, context, layers)
        except Trouble:
            return Picture(number, None)
        corner = (
            (held.inner[1].start or 0) / held.frame.scale,
            (held.inner[0].start or 0) / held.frame.scale,
        )
        return Picture(
            number,
            views,
            held.frame.scale,
            (held.frame.origin[0] + corner[0], held.frame.origin[1] + corner[1]),
            scopes,
        )

    def _keep(self, picture: Picture) -> None:
        """Keep a picture, and let go of those that were shown longest ago. The lock is held."""
        self._ready[picture.number] = picture
        self._bytes += _size_of(picture)
        while self._bytes > KEPT and len(self._ready) > 1:
            self._bytes -= _size_of(self._ready.popitem(last=False)[1])


def _size_of(picture: Picture) -> int:
    return sum(pixels.nbytes for pixels in (picture.views or {}).values())
