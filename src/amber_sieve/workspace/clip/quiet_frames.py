"""While nobody waits for anything, the small frames of footage that is slow to decode are made, so
that it plays at its rate.
"""

from __future__ import annotations

import threading
import time
from collections.abc import Callable, Hashable, Iterable

from PyQt6.QtCore import QObject, QTimer

from ...errors import Trouble
from ...live.small_frames import Pace, SmallFrames
from ...media.source import Source
from ...threads import Threads
from ..background.workers import Workers
from ..document.work import Work
from ..viewing.viewing import Viewing
from .playback import Playback

#: Milliseconds of quiet before it begins, and seconds between looks whether it is quiet still.
QUIET, LOOKS = 1500, 0.1
#: After so many frames it is known whether they are slow to decode.
KNOWN = 8


class QuietFrames(QObject):
    """Makes them in a thread of its own, from the frame that is shown on, and stops when something
    is played, or another size or clip is shown.
    """

    def __init__(self, work: Work, viewing: Viewing, workers: Workers, playback: Playback) -> None:
        super().__init__()
        self._work, self._workers, self._playback = work, workers, playback
        self._threads = Threads("small frames", last=True)
        self._stop = threading.Event()
        #: What it was begun for last: what the frames are of, and which are played.
        self._begun: Hashable = None
        self._timer = QTimer(self)
        self._timer.setSingleShot(True)
        self._timer.setInterval(QUIET)
        self._timer.timeout.connect(self._begin)
        viewing.rendered.connect(lambda _: self._wait())
        playback.changed.connect(self._wait)
        for changed in (work.source_changed, work.frame_changed):
            changed.connect(self._wait)

    @property
    def idle(self) -> bool:
        """Return whether nothing is being made, and nothing will be soon."""
        return self._threads.idle and not self._timer.isActive()

    def _wait(self) -> None:
        """Something is shown, played or opened: what is made for something else stops."""
        about = self._playback.about if not self._playback.playing else None
        if about is not None and (about, self._playback.range) == self._begun:
            return
        self._stop.set()
        self._begun = None
        if about is not None:
            self._timer.start()
        else:
            self._timer.stop()

    def _begin(self) -> None:
        about, playback = self._playback.about, self._playback
        if about is None or playback.playing:
            return
        try:
            opener = playback.opener()
        except Trouble:  # it was there a moment ago
            return
        self._begun, self._stop = (about, playback.range), threading.Event()
        (first, count), head = playback.range, self._work.number
        order = [first + (head - first + ahead) % count for ahead in range(count)]
        factor, stop, small, workers = playback.factor, self._stop, playback.small, self._workers
        self._threads.start(
            lambda: _make(opener, factor, order, small, about, stop, lambda: workers.rests)
        )

    def end(self) -> None:
        """Stop, and wait for the frame that is being decoded."""
        self._timer.stop()
        self._stop.set()
        self._threads.end(10)


def _make(
    opener: Callable[[], Source],
    factor: float,
    order: list[int],
    small: SmallFrames,
    about: Hashable,
    stop: threading.Event,
    rests: Callable[[], bool],
) -> None:
    """Decode frames in their order until it is told to stop, they turn out not to be slow, or there
    is no more room.
    """
    missing = [number for number in order if not small.holds(about, number)]
    if not missing:
        return
    try:
        source = opener()
    except Trouble:  # it was there a moment ago
        return
    try:
        _fill(source, factor, missing, small, about, stop, rests, (order[0], len(order)))
    finally:
        source.close()


def _fill(
    source: Source,
    factor: float,
    numbers: Iterable[int],
    small: SmallFrames,
    about: Hashable,
    stop: threading.Event,
    rests: Callable[[], bool],
    loop: tuple[int, int],
) -> None:
    pace = Pace()
    for made, number in enumerate(numbers):
        while not rests() and not stop.wait(LOOKS):
            pass
        if stop.is_set():
            return
        started = time.perf_counter()
        try:
            frame = source.quick_frame(number, factor)
        except Trouble:  # a damaged frame costs itself only
            continue
        pace.count(time.perf_counter() - started)
        if made == KNOWN and not pace.slow:
            small.let_go()
            return
        if stop.is_set() or not small.keep(about, number, frame, *loop):
            return
