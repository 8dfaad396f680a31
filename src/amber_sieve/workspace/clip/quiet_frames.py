"""While nobody waits for anything, the small frames of footage that is slow to decode are made, so
that it plays at its rate.
"""

from __future__ import annotations

import contextlib
import time
from collections.abc import Iterator

from PyQt6.QtCore import QObject

from ...core.frame import Frame
from ...errors import Trouble
from ...live.small_frames import Pace
from ...media.source import Source
from ...progress import Progress
from ..background.idle_task import Compute, IdleTask
from ..background.latest_only import LatestOnlyWorker
from ..background.workers import Workers
from ..document.work import Work
from ..viewing.viewing import Viewing
from .playback import Playback

#: Milliseconds of quiet before it begins, and seconds between looks whether it is quiet still.
QUIET, LOOKS = 1500, 0.1
#: After this many frames it is known whether they are slow to decode.
KNOWN = 8


class QuietFrames(QObject):
    """Makes them in a thread of its own, from the frame that is shown on, and stops when something
    is played, or another size or clip is shown.
    """

    def __init__(self, work: Work, viewing: Viewing, workers: Workers, playback: Playback) -> None:
        super().__init__()
        self._work, self._workers, self._playback = work, workers, playback
        self._worker = LatestOnlyWorker("small frames", last=True)
        #: Its key says what the frames are of, and which are played.
        self._task = IdleTask(self._worker, QUIET, self._begin)
        viewing.rendered.connect(lambda _: self._wait())
        playback.changed.connect(self._wait)
        for changed in (work.source_changed, work.frame_changed):
            changed.connect(self._wait)

    @property
    def idle(self) -> bool:
        """Return whether nothing is being made, and nothing will be soon."""
        return self._worker.idle and self._task.idle

    def _wait(self) -> None:
        """Something is shown, played or opened: what is made for something else stops."""
        about = self._playback.about if not self._playback.playing else None
        if about is None:
            self._task.forget()
        else:
            self._task.want((about, self._playback.range))

    def _begin(self) -> Compute | None:
        about, playback, workers = self._playback.about, self._playback, self._workers
        if about is None or playback.playing:
            return None
        try:
            opener = playback.opener()
        except Trouble:  # it was there a moment ago
            return None
        (first, count), head = playback.range, self._work.number
        order = [first + (head - first + ahead) % count for ahead in range(count)]
        factor, small = playback.factor, playback.small

        def make(progress: Progress) -> None:
            missing = [number for number in order if not small.holds(about, number)]
            if missing:
                with contextlib.closing(opener()) as source:
                    for number, frame in _slow_frames(source, factor, missing, progress, workers):
                        if frame is None:
                            small.let_go()
                        elif not small.keep(about, number, frame, order[0], count):
                            return

        return make

    def end(self) -> None:
        """Stop, and wait for the frame that is being decoded."""
        self._task.forget()
        self._worker.end()


def _slow_frames(
    source: Source, factor: float, numbers: list[int], progress: Progress, workers: Workers
) -> Iterator[tuple[int, Frame | None]]:
    """Decode frames in their order while nobody waits for anything; None, and no more, once it is
    known that they are not slow.
    """
    pace = Pace()
    for made, number in enumerate(numbers):
        while not workers.rests:
            progress.step(0)
            time.sleep(LOOKS)
        progress.step(0)
        started = time.perf_counter()
        try:
            frame = source.quick_frame(number, factor)
        except Trouble:  # a damaged frame costs itself only
            continue
        pace.count(time.perf_counter() - started)
        if made == KNOWN and not pace.slow:
            yield number, None
            return
        progress.step(0)
        yield number, frame
