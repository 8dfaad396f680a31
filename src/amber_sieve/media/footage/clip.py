"""Clips, through PyAV (FFmpeg's libraries): any frame by number, matrix and range as the stream says."""

from __future__ import annotations

import bisect
import contextlib
import pathlib
import threading
from collections import OrderedDict
from collections.abc import Hashable
from fractions import Fraction
from typing import Any

import av
import numpy as np
from av.filter import Graph
from av.video.frame import VideoFrame

from ...core.colour import encodings
from ...core.frame import Frame
from ...errors import Trouble
from ...files import regular_file
from ...language import translate
from ...reading import CHOICES, PLAIN, Reading
from ..source import About, key_of
from .decoded import MATRIX_NAMES, RANGE_NAMES, is_luma_chroma, light_of, matrix_of, to_rgb16

#: Frames that are decoded on the way to one a little later, where seeking would cost more.
NEAR = 24
INTERLACED = translate("footage", "{} is interlaced: File > Input settings… deinterlaces it.")
#: Frames that are kept for their neighbours.
BESIDE = 8
#: Slowest rate that a clip may say (common practice, no source).
SLOWEST = Fraction(1, 60)
#: Fastest rate that it may say (common practice, no source).
FASTEST = Fraction(1000)
#: The rate that is taken where it says another (common practice, no source).
USUAL_RATE = Fraction(25)
#: Frames that are tried before a clip is given up.
TRIED = 12
#: Bytes of decoded frames that are kept because they were passed on the way to a later one.
PASSED = 64_000_000
#: Damaged packets in a row after which a stretch is given up.
MOST_COMPLAINTS = 200


def _size_of(frame: VideoFrame) -> int:
    return sum(plane.buffer_size for plane in frame.planes)


def _chosen(kind: str, word: str, said: int, path: pathlib.Path) -> int:
    if word and word not in CHOICES[kind]:
        raise Trouble(
            translate(
                "footage", "{path} cannot be read with the {kind} «{word}»: choose one of {known}.",
                path=path, kind=kind, word=word[:40], known=", ".join(CHOICES[kind]),
            )
        )  # fmt: skip
    return CHOICES[kind].get(word, said)


class Footage:
    """A clip file. Frames are numbered from 0 in the order they are shown."""

    def __init__(self, path: pathlib.Path, reading: Reading = PLAIN) -> None:
        self.path = regular_file(pathlib.Path(path))
        if self.path.stat().st_size == 0:
            raise Trouble(translate("footage", "{path} is empty (0 bytes): restore it from where it came from.", path=path))
        try:
            self._container = av.open(str(self.path))
            stream = self._container.streams.video[0]
            self.stamps = self._stamps_of(self.path)
        except (av.FFmpegError, IndexError, ValueError, OSError):
            raise Trouble(translate("footage", "{path} is not a readable clip: it is damaged or holds no pictures.", path=path)) from None
        self._stream = stream
        stream.thread_type = "AUTO"
        self._lock = threading.Lock()
        self._closed = False
        if not self.stamps:
            raise Trouble(translate("footage", "{path} holds no frames: it is cut short. Restore it from where it came from.", path=path))
        said = Fraction(stream.average_rate or stream.guessed_rate or USUAL_RATE)
        #: Frames a second; what cannot be one is taken for the usual, and the frames follow each other at an even pace.
        self.rate = said if SLOWEST <= said <= FASTEST else USUAL_RATE
        self.odd_rate = said != self.rate
        if not stream.codec_context.width or not stream.codec_context.height:
            raise Trouble(translate("footage", "{path} is not a readable clip: it does not say how large its pictures are.", path=path))
        context = stream.codec_context
        #: The frame that the decoder gives next, None when it must be sought; and one that it gave early.
        self._next: int | None = None
        self._ahead: VideoFrame | None = None
        self._frames = self._container.decode(stream)
        #: Frames that were decoded on the way to others.
        self._passed: OrderedDict[int, VideoFrame] = OrderedDict()
        self._passed_bytes = 0
        matrix = self.matrix = _chosen("matrix", reading.matrix, int(context.colorspace), self.path)
        self.range = _chosen("range", reading.range, int(context.color_range), self.path)
        self._deinterlaced, self._reading = reading.deinterlaced, reading
        #: Frames just decoded, of which whole ones are made.
        self._recent: OrderedDict[int, VideoFrame] = OrderedDict()
        self._beside: Footage | None = None
        self._beside_frames: OrderedDict[int, Frame] = OrderedDict()
        self._beside_lock = threading.Lock()
        #: Seconds that one step of a time stamp lasts.
        self.time_base = Fraction(stream.time_base or Fraction(1, 1000))
        #: Numbers of H.273 by which codes are read; those that are not told apart are read by the sRGB curve, in Rec. 709.
        self.curve = _chosen("curve", reading.curve, int(context.color_trc), self.path)
        self.primaries = _chosen("primaries", reading.primaries, int(context.color_primaries), self.path)
        self.tags = {
            "codec": context.name, "pixel format": str(context.pix_fmt),
            "matrix": MATRIX_NAMES.get(matrix, "") or translate('footage', 'not said (read as {matrix})', matrix=MATRIX_NAMES[matrix_of(matrix, context.height)]),
            "range": RANGE_NAMES.get(self.range, translate('footage', 'not said (read as limited)')),
            "curve": encodings.CURVE_NAMES.get(self.curve, translate('footage', 'not said (read as sRGB)')),
            "primaries": encodings.PRIMARY_NAMES.get(self.primaries, translate('footage', 'not said (read as BT.709)')),
            "sound": ", ".join(audio.codec_context.name for audio in self._container.streams.audio) or "none",
        }  # fmt: skip
        #: Quarter turns, against the clock, that make its frames upright.
        self.turns, interlaced = self._looked_at_first()
        if context.pix_fmt is None and not self._decodes():
            raise Trouble(
                translate(
                    "footage",
                    "{path} holds {count} frames, none of which can be decoded: restore the clip.",
                    path=path,
                    count=len(self.stamps),
                )
            )
        size = (context.width, context.height) if self.turns % 2 == 0 else (context.height, context.width)
        self.tags["lines"] = "interlaced" if interlaced else "progressive"
        self.about = About(
            self.path,
            "clip",
            size,
            str(context.pix_fmt),
            frames=len(self.stamps),
            rate=self.rate,
            tags=self.tags,
            notes=(
                *self._what_is_missing(),
                *self._what_is_odd(),
                *(INTERLACED.format(self.path.name) for _ in range(interlaced and not reading.deinterlaced)),
            ),
        )
        self._key: Hashable = (key_of(self.path), reading) if reading != PLAIN else key_of(self.path)

    def _looked_at_first(self) -> tuple[int, bool]:
        """What the first frame says of itself: quarter turns that make it upright, and whether it is interlaced."""
        try:
            first = self.decoded(0)
        except Trouble:
            return 0, False
        return round((getattr(first, "rotation", 0) or 0) / 90) % 4, bool(first.interlaced_frame)

    @staticmethod
    def _stamps_of(path: pathlib.Path) -> list[int]:
        """Presentation times of all frames, in order, read from the packets without decoding."""
        with av.open(str(path)) as container:
            stream = container.streams.video[0]
            return sorted(
                packet.pts for packet in container.demux(stream) if packet.pts is not None and packet.size and not packet.is_discard
            )

    def _what_is_odd(self) -> tuple[str, ...]:
        """A sentence when the file says a rate at which nothing could be played or written."""
        return (
            (
                translate(
                    "footage",
                    "{name} says a rate that no clip has: it is played and written at {rate} frames a second.",
                    name=self.path.name,
                    rate=USUAL_RATE,
                ),
            )
            if self.odd_rate
            else ()
        )

    def _decodes(self) -> bool:
        """Whether any of some frames spread over the clip can be decoded."""
        for number in sorted({round(k * (len(self.stamps) - 1) / (TRIED - 1)) for k in range(TRIED)}):
            try:
                self.decoded(number)
            except Trouble:
                continue
            return True
        return False

    def _what_is_missing(self) -> tuple[str, ...]:
        """A sentence when the file promises more frames than it holds."""
        held, promised = len(self.stamps), self._stream.frames
        if not promised and self._container.duration and self._stream.time_base:
            # Some formats promise a duration instead; the last frame's own is not known, so two may be missing.
            lasts = self._container.duration / av.time_base - float((self.stamps[-1] - self.stamps[0]) * self._stream.time_base)
            promised = held + max(0, round(lasts * float(self.rate)) - 2)
        if promised <= held:
            return ()
        return (
            translate(
                "footage",
                "{name} ends early: it holds {held} of {promised} frames. Restore it to have the rest.",
                name=self.path.name,
                held=held,
                promised=promised,
            ),
        )

    def decoded(self, number: int) -> VideoFrame:
        """Frame ``number`` as it was decoded.

        Raises
        ------
        Trouble: there is no such frame, or it is damaged; others can still be read.
        """
        if not 0 <= number < len(self.stamps):
            raise Trouble(
                translate(
                    "footage", "{path} has frames 0 to {count}; there is no frame {number}.",
                    path=self.path, count=len(self.stamps) - 1, number=number,
                )
            )  # fmt: skip
        with self._lock:
            if self._closed:
                raise Trouble(translate("footage", "{path} has been closed: open it again.", path=self.path))
            if number in self._passed:
                return self._passed[number]
            near = self._next is not None and 0 <= number - self._next <= NEAR
            found = self._run_to(number) if near else None
            if found is None:
                # From the keyframe before, also when running on did not come by: a damaged stretch may have been skipped.
                self._seek(self.stamps[number])
                found = self._run_to(number)
            if found is not None:
                return found
        raise Trouble(
            translate(
                "footage",
                "Frame {number} of {path} is damaged: leave it out of the range, or restore the clip.",
                number=number,
                path=self.path,
            )
        )

    def whole(self, number: int) -> VideoFrame:
        """Frame ``number`` to be looked at: as it was decoded or, when asked for, made of its fields by FFmpeg's bwdif, which weaves them
        where nothing moves and fills lines in where something does. Raises `Trouble` as `decoded` does."""
        if not self._deinterlaced:
            return self.decoded(number)
        around = [self._held(n) for n in (number - 1, number, number + 1)]
        frame = around[1] or self.decoded(number)
        graph = Graph()
        source = graph.add_buffer(width=frame.width, height=frame.height, format=frame.format, time_base=self.time_base)
        graph.link_nodes(source, graph.add("bwdif", "mode=send_frame:deint=all"), graph.add("buffersink")).configure()
        for held in around:
            if held is not None:
                graph.push(held)
        graph.push(None)
        made: Any = None
        with contextlib.suppress(av.FFmpegError):  # there are no more
            for held in around[:2]:
                made = graph.pull() if held is not None else made
        if made is None:
            raise Trouble(
                translate(
                    "footage", "Frame {number} of {path} cannot be deinterlaced: read the clip as it is.", number=number, path=self.path
                )
            )
        made.colorspace, made.color_range = frame.colorspace, frame.color_range
        whole: VideoFrame = made
        return whole

    def _held(self, number: int) -> VideoFrame | None:
        """A frame that was decoded lately, or is now; None where there is none."""
        held = self._recent.get(number)  # several threads ask: what one puts in another may push out
        if held is None:
            try:
                held = self._recent[number] = self.decoded(number)
            except Trouble:
                return None
            while len(self._recent) > BESIDE:
                self._recent.popitem(last=False)
        return held

    def _seek(self, stamp: int) -> None:
        self._next = self._ahead = None
        with contextlib.suppress(av.FFmpegError):
            self._container.seek(stamp, stream=self._stream, backward=True)
            self._frames = self._container.decode(self._stream)
            self._next = 0

    def _run_to(self, number: int) -> VideoFrame | None:
        """Decode on until a frame comes up; None when the decoder passes it by or gives out."""
        wanted = self.stamps[number]
        complaints = 0
        ahead, self._ahead = self._ahead, None
        while complaints < MOST_COMPLAINTS:
            try:
                if ahead is None:
                    ahead = next(self._frames)
            except StopIteration:
                break
            except av.FFmpegError:
                complaints += 1  # one damaged packet costs its own frames only
                self._frames = self._container.decode(self._stream)
                continue
            frame, ahead = ahead, None
            if frame.pts is None:
                continue
            frame.colorspace = self.matrix  # how it is to be read, while nobody else holds it
            if self.range in (1, 2):
                frame.color_range = self.range
            at = bisect.bisect_left(self.stamps, frame.pts)
            if frame.pts < wanted:
                self._pass_by(at, frame)
                continue
            if frame.pts > wanted:
                self._next, self._ahead = at, frame
                return None
            self._next = at + 1
            return frame
        self._next = None
        return None

    def _pass_by(self, number: int, frame: VideoFrame) -> None:
        """Keep a frame that was decoded on the way to another: whoever goes backwards asks for it next."""
        if number in self._passed:
            return
        self._passed[number] = frame
        self._passed_bytes += _size_of(frame)
        while self._passed_bytes > PASSED:
            self._passed_bytes -= _size_of(self._passed.popitem(last=False)[1])

    @property
    def files(self) -> list[pathlib.Path]:
        """The clip's own file."""
        return [self.path]

    def about_frame(self, number: int) -> About:
        """What a picture taken from the clip says of itself: 8 bits, no profile."""
        return About(self.path, "still", self.about.size, "uint8")

    def frame(self, number: int) -> Frame:
        """Frame ``number`` as linear light."""
        return self.to_frame(self.whole(number), number)

    def _near(self, number: int) -> Frame | None:
        """Frame ``number`` for those that look at a neighbour, by a decoder of its own; the newest few are kept. None where there is none."""
        if not 0 <= number < len(self.stamps):
            return None
        with self._beside_lock:
            if number not in self._beside_frames:
                if self._beside is None:
                    self._beside = Footage(self.path, self._reading)
                try:
                    self._beside_frames[number] = self._beside.frame(number)
                except Trouble:
                    return None  # a damaged neighbour does not count
                while len(self._beside_frames) > BESIDE:
                    self._beside_frames.popitem(last=False)
            return self._beside_frames[number]

    def quick_frame(self, number: int, factor: float) -> Frame:
        """The frame reduced by a factor for playing: shrunk while it is still coded, which is quick and near enough for the eye."""
        width, height = self.about.size
        size = (max(1, round(width / factor)), max(1, round(height / factor)))
        if factor <= 1:
            return self.frame(number)
        turned = size if self.turns % 2 == 0 else size[::-1]
        return Frame(
            self._light(self.whole(number), turned), None, (self._key, number, "quick", factor), size[0] / width, (0, 0), (width, height)
        )

    def to_frame(self, decoded: VideoFrame, number: int) -> Frame:
        """A decoded frame as linear light, by the curve and primaries of the stream (see `core.colour.encodings`)."""
        return Frame(self._light(decoded), None, (self._key, number), near=lambda away: self._near(number + away))

    def _light(self, decoded: VideoFrame, size: tuple[int, int] | None = None) -> np.ndarray:
        """Upright light of a frame, by what was chosen or said."""
        if is_luma_chroma(decoded.format):
            planes = light_of(decoded, self.curve, self.primaries, size)
        else:
            planes = encodings.decoded(to_rgb16(decoded, size), self.curve, self.primaries)
        return np.ascontiguousarray(np.rot90(planes, self.turns, (1, 2))) if self.turns else planes

    @property
    def plain(self) -> bool:
        """Whether the samples of its frames stand where they are seen and mean what they will, so that they can be carried over."""
        pixels = self._stream.codec_context.format
        limited = self.range != 2 and not pixels.name.startswith("yuvj")
        return self.turns == 0 and not self._deinterlaced and limited and is_luma_chroma(pixels)

    def close(self) -> None:
        """Let go of the file, once a frame that is being decoded is done."""
        with self._lock:
            if not self._closed:
                self._closed = True
                self._ahead = None
                self._passed.clear()
                self._container.close()
                if self._beside is not None:
                    self._beside.close()
