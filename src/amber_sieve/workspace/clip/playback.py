"""Playing a clip at its own rate: frames are made ahead, shown when they are due, and counted when
they come too late.

Where none has come in time for a while, the clock waits for each: footage that cannot be decoded at
its rate plays slower, frame by frame.
"""

from __future__ import annotations

import time
from collections.abc import Callable, Hashable
from dataclasses import replace

from PyQt6.QtCore import QObject, Qt, QTimer, pyqtSignal

from ...files import regular_file
from ...language import translator
from ...live.glimpse import glimpse_of
from ...live.playing import AHEAD, Picture, Played, Player
from ...live.preview import Rendered
from ...live.small_frames import SmallFrames
from ...media.source import Source
from ...resolve.sources import source_of
from ...side_by_side import WORKERS
from ..document.work import Work
from ..speech import Speech
from ..viewing.viewing import Viewing
from .sound import Sound

translate = translator("workspace")


#: Frames that are ready before the first is shown.
READY = 8
#: Seconds after which it is shown all the same.
PATIENCE = 2.0
#: Bytes of small frames that are kept of footage that is slow to decode.
SMALL = 600_000_000
#: Seconds without a frame after which the clock waits for the next.
STALLED = 0.25


class Playback(QObject):
    """`changed` when playing begins or ends; `made` when other frames are ready."""

    changed = pyqtSignal()
    made = pyqtSignal()

    def __init__(self, work: Work, viewing: Viewing, speech: Speech) -> None:
        super().__init__()
        self._work, self._viewing, self._speech = work, viewing, speech
        viewing.asked.connect(self.renew)
        self.loop = True
        self.small = SmallFrames(SMALL)
        work.source_changed.connect(self.small.let_go)
        #: Of the last time something was played: frames that were shown, that came too late, and
        #: those of them that were left out.
        self.shown, self.dropped, self.left_out = 0, 0, 0
        self._player: Player | None = None
        self._base: Rendered | None = None
        self._sound: Sound | None = None
        self._begun = self._asked = 0.0
        self._rate = 25.0
        self._start = self._at = 0
        self._last = 0
        self._timer = QTimer(self)
        self._timer.setTimerType(Qt.TimerType.PreciseTimer)
        self._timer.timeout.connect(self._tick)

    @property
    def playing(self) -> bool:
        return self._player is not None

    @property
    def ready(self) -> set[int]:
        """Numbers of the frames that are ready to be shown."""
        return self._player.ready if self._player else set()

    @property
    def range(self) -> tuple[int, int]:
        """The first frame that is played, and how many are."""
        first, last = self._work.between or (0, self._work.frames - 1)
        return first, last - first + 1

    @property
    def factor(self) -> float:
        """Return how far frames are reduced to be played."""
        return max(1.0, round(1 / self._viewing.shown.sharp, 3))

    @property
    def _clip(self) -> Hashable:
        """Return the clip that frames are of."""
        opened = self._work.opened
        return (id(opened), opened.source.about.path) if opened is not None else None

    @property
    def about(self) -> Hashable:
        """Return the key under which `small` keeps the frames that are shown; None where nothing
        can be played.
        """
        return (
            (self._clip, self.factor)
            if self._work.opened is not None and self._work.frames > 1
            else None
        )

    def opener(self) -> Callable[[], Source]:
        """Open the clip again, for another thread."""
        opened, project = self._work.opened, self._work.project
        assert opened is not None
        about = opened.source.about
        path = regular_file(about.path) if about.kind == "clip" else about.path
        return lambda: source_of(project, path)

    def toggle(self) -> None:
        """Play or stop."""
        if self.playing:
            self.stop()
        else:
            self.start()

    def start(self) -> None:
        """Play from the frame that is shown, between in and out point, round and round when `loop`
        is on.
        """
        work, opened, base = self._work, self._work.opened, self._viewing.last
        if opened is None or base is None or work.frames <= 1 or self.playing:
            return
        first, count = self.range
        last = first + count - 1
        start = work.number if first <= work.number < last else first
        about, opener = opened.source.about, self.opener()
        self._base, self._rate = glimpse_of(base), float(opened.source.about.rate) or 24.0
        self._begun, self._asked, self._start, self._at, self._last = (
            0.0,
            time.monotonic(),
            start,
            start - 1,
            last,
        )
        self.shown = self.dropped = self.left_out = 0
        self._player = Player(
            opener, opened.resolver, first, last, start, self._head, self.small, self._clip
        )
        self._viewing.plays = True
        self._sound = Sound(about.path, start / self._rate) if about.kind == "clip" else None
        self.renew()
        self._timer.start(max(1, round(1000 / self._rate / 4)))
        self.changed.emit()

    def renew(self) -> None:
        """Something has changed that the frames depend on."""
        if self._player is not None:
            work, viewing = self._work, self._viewing
            self._player.play(
                Played(
                    work.project,
                    work.sieve.id,
                    viewing.shown,
                    viewing.looking,
                    self.factor,
                    viewing.scopes,
                )
            )

    def stop(self) -> None:
        """Stop at the frame that is shown; it is rendered finely then."""
        player, self._player = self._player, None
        if player is None:
            return
        self._viewing.plays = False
        self._timer.stop()
        if self._sound is not None:
            self._sound.stop()
            self._sound = None
        player.stop()
        self._base = None
        if self.shown:
            late = (
                translate(
                    "{dropped} of {all} frames could not be shown in time",
                    dropped=self.dropped,
                    all=self.shown + self.left_out,
                )
                if self.dropped
                else translate("every frame was shown")
            )
            self._speech.said.emit(
                translate("Played {shown} frames: {late}", shown=self.shown, late=late)
            )
        self.changed.emit()
        self._viewing.ask()

    def _head(self) -> int:
        """The frame that is due, counted on without going round."""
        if (
            self._player is not None and self._player.patient
        ):  # the clock goes from frame to frame, and no farther than the next
            return min(
                self._start + int((time.monotonic() - self._begun) * self._rate), self._at + 1
            )
        return (
            self._start + int((time.monotonic() - self._begun) * self._rate)
            if self._begun
            else self._start
        )

    def _tick(self) -> None:
        player = self._player
        if player is None:
            return
        if not self._begun:
            waited = time.monotonic() - self._asked > PATIENCE
            if player.picture(self._start) is None or not (
                waited or len(player.ready) >= min(READY, AHEAD, self._last + 1)
            ):
                return
            self._begun = time.monotonic()
            if self._sound is not None:
                self._sound.start()
        count = self._head()
        if not self.loop and count > self._last:
            self.stop()
            return
        if count <= self._at:
            return
        picture = player.picture(count)
        if picture is not None:
            self._show_due(player, picture, count)
        elif count - self._at > STALLED * self._rate:
            self._wait(player, count)

    def _show_due(self, player: Player, picture: Picture, count: int) -> None:
        """Show what is due at a count, and say how late it comes."""
        left_out, due = count - self._at - 1, self._begun + (count - self._start) / self._rate
        late = player.patient and time.monotonic() - due > 1 / self._rate
        self.left_out += left_out
        self.dropped += left_out + late
        self._at = count
        self.shown += 1
        if player.patient:
            if late:
                self._begun = time.monotonic() - (count - self._start) / self._rate
            ahead = {player.frame_at(count + more) for more in range(1, READY + 1)}
            player.patient = not ahead <= player.ready
        self._show(picture)
        if (
            self._sound is not None
            and picture.number == player.frame_at(self._start)
            and count > self._start
        ):
            self._sound.seek(picture.number / self._rate)

    def _wait(self, player: Player, count: int) -> None:
        """Nothing has come in time for a while: from here on the clock waits, and what is heard
        would be of another place. It goes on with a frame that is worked on already: footage is
        slow to go back in.
        """
        behind = count + WORKERS if self.loop else min(count + WORKERS, self._last)
        self.left_out += behind - self._at - 1
        self.dropped += behind - self._at - 1
        self._at, self._begun, player.patient = (
            behind - 1,
            time.monotonic() - (behind - self._start) / self._rate,
            True,
        )
        if self._sound is not None:
            self._sound.stop()
            self._sound = None

    def _show(self, picture: Picture) -> None:
        if picture.views is not None and self._base is not None:
            self._viewing.glimpsed.emit(
                replace(
                    self._base,
                    pictures=picture.views,
                    scale=picture.scale,
                    origin=picture.origin,
                    scopes=picture.scopes,
                )
            )
        self._work.show_frame(picture.number)
