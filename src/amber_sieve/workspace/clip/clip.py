"""A clip over time: the frame that is shown, in and out point, keyframes, tracking, coverage."""

from __future__ import annotations

from PyQt6.QtCore import QObject, pyqtSignal

from ...errors import Trouble
from ...language import translator
from ...live.sampling import taken_again
from ...live.sieve_context import SieveContext
from ...live.tracking import Tracked, track, with_tracked
from ...live.watching import Course
from ...names import Between, Moves
from ...progress import Progress
from ...project import tracks
from ...project.model import Sieve
from ...render.evaluate import mask_value
from ...resolve.sources import source_of
from ..background.guard import guarded
from ..background.workers import Workers
from ..document.work import Work
from ..speech import Speech
from ..viewing.viewing import Viewing
from .playback import Playback
from .watcher import Watcher

translate = translator("workspace")


@guarded
class ClipController(QObject):
    """Changes from frame to frame. `watched` comes with the `Course` of the coverage as it grows,
    or None.
    """

    watched = pyqtSignal(object)

    def __init__(
        self, work: Work, viewing: Viewing, workers: Workers, playback: Playback, speech: Speech
    ) -> None:
        super().__init__()
        self.speech = speech
        self._work, self._viewing, self._workers, self._playback = work, viewing, workers, playback
        self.watcher = Watcher(lambda: workers.rests and not playback.playing)
        self.watcher.found.connect(self._take_course)
        workers.rested.connect(self.watcher.go_on)
        playback.changed.connect(self.watcher.go_on)
        self._watches, self._course = False, Course()
        #: What the course that is watched was begun for.
        self._watched_for: tuple[object, ...] = ()
        viewing.rendered.connect(lambda _: self._watch_on())

    def go_to(self, number: int) -> None:
        """Show another frame, by its number from 0; one beyond the ends is the last at that end."""
        self._playback.stop()
        number = min(max(number, 0), max(self._work.frames - 1, 0))
        if number != self._work.number:
            self._work.show_frame(number)
            if self._work.document.sieve.tracks:
                self._work.selection_changed.emit()
            self._viewing.ask()

    def set_between(self, first: int | None, last: int | None) -> None:
        """Set the in and the out point; None and None for all frames."""
        end = max(self._work.frames - 1, 0)
        if first is None and last is None:
            self._work.tray.current.between = None
        else:
            low, high = sorted(
                (min(max(first or 0, 0), end), min(end if last is None else max(last, 0), end))
            )
            self._work.tray.current.between = (low, high)
        self._work.frame_changed.emit()

    @property
    def keyframes(self) -> tuple[int, ...]:
        """Frames at which something of the current sieve has a key."""
        return tracks.keyframes_of(self._work.document.sieve)

    def set_key(self, path: str, how: Between | None = None) -> None:
        """Give a field of the current sieve a key at the frame that is shown: from then on,
        changing it changes it there.
        """
        frame = self._work.number
        self._work.edit_tracks(
            lambda sieve: tracks.with_key(sieve, path, frame, how),
            translate("Keyframe"),
        )

    def move_key(self, path: str, frame: int, to: int) -> int:
        """Move a field's key to another frame, as far as the keys beside it let it go; where it
        lies now.
        """
        before = self._work.document.sieve
        after = tracks.with_key_moved(before, path, frame, max(0, min(to, self._work.frames - 1)))
        self._work.edit_tracks(lambda _: after, translate("Move a keyframe"), f"key {path}")
        fresh = set(tracks.frames_of(after, path)) - set(tracks.frames_of(before, path))
        return fresh.pop() if fresh else frame

    def remove_key(self, path: str, everywhere: bool = False) -> None:
        """Take a field's key away at this frame, or all of them: it then stays as it is now."""
        frame = self._work.number
        last = tracks.keyed(self._work.document.sieve, path)
        if last is not None and (everywhere or len(last.keys) == 1):
            self._work.edit_tracks(
                lambda sieve: tracks.without_key(tracks.at_frame(sieve, frame), path),
                translate("No keyframes"),
            )
        else:
            self._work.edit_tracks(
                lambda sieve: tracks.without_key(sieve, path, frame),
                translate("No keyframe"),
            )

    def key_samples(self) -> None:
        """Measure the samples of the current sieve on this frame, as keyframes of their colours:
        the light has changed for good.
        """
        opened, number, sieve = self._work.opened, self._work.number, self._work.sieve
        if opened is None or self._work.frames <= 1 or not sieve.pick.samples:
            raise Trouble(
                translate("Take a sample in a clip first: its colour is what gets a key.")
            )

        def work(seen: SieveContext) -> Sieve:
            frame, stands = seen.whole(), seen.sieve
            # Where they lie on this frame: here-only samples have moved along.
            taken = {
                sample.id: taken_again(sample.but(frame=number), frame)
                for sample in stands.pick.samples
                if sample.on
            }
            return stands.but(
                pick=stands.pick.but(
                    samples=tuple(taken.get(sample.id, sample) for sample in stands.pick.samples)
                )
            )

        def then(found: Sieve) -> None:
            colours = {sample.id: sample.colour for sample in found.pick.samples}

            def change(held: Sieve) -> Sieve:
                for sample in held.pick.samples:
                    path = f"samples.{sample.id}.colour"
                    if tracks.keyed(held, path) is None:  # until now it was the same everywhere
                        held = tracks.with_key(held, path, min(sample.frame, number), "hold")
                    now = tracks.at_frame(held, number)
                    samples = tuple(
                        s.but(colour=colours.get(s.id, s.colour)) if s.id == sample.id else s
                        for s in now.pick.samples
                    )
                    held = tracks.with_key(
                        tracks.recorded(held, now.but(pick=now.pick.but(samples=samples)), number),
                        path,
                        number,
                    )
                return held

            self._work.edit_tracks(change, translate("Key the samples"))

        self._work.ask_about(work, then)

    def next_key(self, by: int) -> None:
        """Go to the next keyframe of the current sieve, or the one before."""
        keys = [
            key
            for key in self.keyframes
            if (key > self._work.number if by > 0 else key < self._work.number)
        ]
        if keys:
            self.go_to(keys[0 if by > 0 else -1])

    def track_area(self, area_id: str, direction: int, moves: Moves) -> None:
        """Follow what an area lies on from this frame to the last (``direction`` 1) or the first
        (-1), until it is lost.
        """
        opened, sieve, number = self._work.opened, self._work.sieve, self._work.number
        area = next((area for area in sieve.areas if area.id == area_id), None)
        if opened is None or area is None or self._work.frames <= 1:
            raise Trouble(translate("Choose an area of a clip first: it is what is tracked."))
        path, project, sieve_id = opened.source.about.path, self._work.project, sieve.id

        def work(progress: Progress) -> Tracked:
            source = source_of(project, path)
            try:
                return track(source, area, number, direction, moves, progress, sieve)
            finally:
                source.close()

        def then(found: Tracked) -> None:
            held = next((one for one in self._work.project.stack if one.id == sieve_id), None)
            if held is not None and found.keys:
                self._work.edit(
                    lambda now: now.with_sieve(with_tracked(now.sieve(sieve_id), found)),
                    translate("Track"),
                )
            last = max(found.keys, key=lambda frame: frame * direction) if found.keys else number
            lost = (
                translate(
                    "lost at frame {lost}: set it there by hand and track on",
                    lost=found.lost,
                )
                if found.lost is not None
                else translate("to the end")
            )
            self.speech.said.emit(
                translate(
                    "Tracked to frame {last}, {lost}; least confidence {values:.0f} %",
                    last=last,
                    lost=lost,
                    values=100 * min(found.confidence.values(), default=0),
                )
            )

        self._workers.wait_for(translate("Tracking"), work, then)

    def watch(self, on: bool) -> None:
        """Watch the current sieve's mask over all frames, while nothing else is done; or not."""
        self._watches = on
        if on:
            self._watch_on()
        else:
            self.forget_course()
            self.watched.emit(None)

    def forget_course(self) -> None:
        """Stop watching what was watched until now."""
        self.watcher.end()
        self._watched_for = ()

    def _watch_on(self) -> None:
        """Begin anew when what is watched has changed."""
        opened, sieve = self._work.opened, self._work.sieve
        if not self._watches or opened is None or self._work.frames <= 1:
            return
        wanted = (
            opened,
            mask_value(self._work.project, sieve),
            tuple(one.tracks for one in self._work.project.stack),
        )
        if wanted != self._watched_for:
            self._watched_for = wanted
            project, path = self._work.project, opened.source.about.path
            self.watched.emit(Course())
            self.watcher.watch(lambda: source_of(project, path), opened.resolver, project, sieve.id)

    def _take_course(self, course: Course) -> None:
        if self._watches:
            self._course = course
            self.watched.emit(course)
            if len(course.seen) == self._work.frames:
                self.speech.said.emit(
                    translate(
                        "Watched {frames} frames: {in_words}, {count} jumps",
                        frames=self._work.frames,
                        in_words=course.in_words,
                        count=len(course.troubles),
                    )
                )

    def next_trouble(self, by: int = 1) -> None:
        """Go to the next frame, or the one before, at which the coverage jumps."""
        troubles = self._course.troubles
        later = [
            number
            for number in troubles
            if (number > self._work.number if by > 0 else number < self._work.number)
        ]
        if not self._watches:
            self.speech.said.emit(
                translate("Switch coverage over time on first: it finds the jumps")
            )
        elif not troubles:
            self.speech.said.emit(
                translate("No jump was found")
                if not self.watcher.watching
                else translate("No jump was found yet")
            )
        else:
            self.go_to((later or troubles)[0 if by > 0 else -1])
