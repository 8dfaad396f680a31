"""Clips, through PyAV (FFmpeg's libraries): any frame by number, matrix and range as the stream
says.
"""

from __future__ import annotations

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
from ...language import translator
from ...read_settings import CHOICES, PLAIN, Reading
from ..formats import codecs_with_alpha
from ..source import About, key_of
from ..timecode import Timecode, from_text
from .decoded import (
    MATRIX_NAMES,
    RANGE_NAMES,
    alpha_of,
    is_luma_chroma,
    light_of,
    matrix_of,
    to_rgb16,
)
from .decoder import FrameDecoder
from .packets import USUAL_RATE, TooManyPackets, claimed_frames, even_rate, read_index, said_rate

translate = translator("footage")


#: Pixels on a side of a clip at most: what moves is found by OpenCV, which counts in 15 bits.
LONGEST_SIDE = 32_766
#: Frames that are kept for their neighbours.
BESIDE = 8
#: Frames that are tried before a clip is given up.
TRIED = 12


def _chosen(kind: str, word: str, said: int, path: pathlib.Path) -> int:
    if word and word not in CHOICES[kind]:
        raise Trouble(
            translate("{path} cannot be read with the {kind} «{word}»: choose one of {known}.",
                path=path, kind=kind, word=word[:40], known=", ".join(CHOICES[kind]),
            )
        )  # fmt: skip
    return CHOICES[kind].get(word, said)


def _timecode_of(stream: Any, first: VideoFrame | None, rate: Fraction) -> Timecode | None:
    """Return the timecode of the first frame: of a track or a tag of the file, else of the
    picture.
    """
    held = (stream, *stream.container.streams, stream.container)
    said = [
        text for one in held for name, text in one.metadata.items() if name.lower() == "timecode"
    ]
    said += [first.metadata.get("timecode", "")] if first is not None else []
    return next((found for text in said if (found := from_text(text, rate)) is not None), None)


class Footage:
    """A clip file. Frames are numbered from 0 in the order they are shown."""

    def __init__(self, path: pathlib.Path, reading: Reading = PLAIN) -> None:
        self.path = regular_file(pathlib.Path(path))
        if self.path.stat().st_size == 0:
            raise Trouble(
                translate(
                    "{path} is empty (0 bytes): restore it from where it came from.",
                    path=path,
                )
            )
        try:
            self._index = read_index(self.path)
            self._decoder = FrameDecoder(self.path, self._index)
        except (av.FFmpegError, IndexError, ValueError, OSError):
            raise Trouble(
                translate(
                    "{path} is not a readable clip: it is damaged or holds no pictures.",
                    path=path,
                )
            ) from None
        except TooManyPackets:
            raise Trouble(
                translate(
                    "{path} cannot be opened: finding its frames does not end. Restore it, or "
                    "write it again.",
                    path=path,
                )
            ) from None
        stream = self._decoder.stream
        self._lock = threading.Lock()
        self._closed = False
        #: When each frame is shown, in steps of ``time_base`` seconds.
        self.stamps, self.time_base = self._index.stamps, self._index.time_base
        if not self.stamps:
            raise Trouble(
                translate(
                    "{path} holds no frames: it is cut short. Restore it from where it came from.",
                    path=path,
                )
            )
        #: Frames a second; where the clip says what no clip has, the usual number, and its frames
        #: follow each other at an even pace.
        self.rate = even_rate(stream)
        self.odd_rate = said_rate(stream) != self.rate
        if not stream.codec_context.width or not stream.codec_context.height:
            raise Trouble(
                translate(
                    "{path} is not a readable clip: it does not say how large its pictures are.",
                    path=path,
                )
            )
        context = stream.codec_context
        if max(context.width, context.height) > LONGEST_SIDE:
            raise Trouble(
                translate(
                    "{path} is {width} x {height} pixels: clips of up to {most} on a side are "
                    "read. Make it smaller.",
                    path=path,
                    width=context.width,
                    height=context.height,
                    most=LONGEST_SIDE,
                )
            )
        matrix = self.matrix = _chosen("matrix", reading.matrix, int(context.colorspace), self.path)
        self.range = _chosen("range", reading.range, int(context.color_range), self.path)
        self._deinterlaced, self._reading = reading.deinterlaced, reading
        #: Frames just decoded, of which whole ones are made.
        self._recent: OrderedDict[int, VideoFrame] = OrderedDict()
        self._beside: Footage | None = None
        self._beside_frames: OrderedDict[int, Frame] = OrderedDict()
        self._beside_lock = threading.Lock()
        #: Numbers of H.273 by which codes are read; unknown ones are read by the sRGB curve, in
        #: Rec. 709.
        self.curve = _chosen("curve", reading.curve, int(context.color_trc), self.path)
        self.primaries = _chosen(
            "primaries", reading.primaries, int(context.color_primaries), self.path
        )
        self.tags = {
            "codec": context.name,
            "pixel format": str(context.pix_fmt),
            "matrix": MATRIX_NAMES.get(matrix, "")
            or translate(
                "not said (read as {matrix})",
                matrix=MATRIX_NAMES[matrix_of(matrix, context.height)],
            ),
            "range": RANGE_NAMES.get(self.range, translate("not said (read as limited)")),
            "curve": encodings.CURVE_NAMES.get(self.curve, translate("not said (read as sRGB)")),
            "primaries": encodings.PRIMARY_NAMES.get(
                self.primaries, translate("not said (read as BT.709)")
            ),
            "sound": ", ".join(audio.codec_context.name for audio in stream.container.streams.audio)
            or "none",
        }
        #: Quarter turns, against the clock, that make its frames upright.
        self.turns, interlaced = 0, False
        first = self._first_decoded()
        if first is not None:
            self.turns, interlaced = (
                round((getattr(first, "rotation", 0) or 0) / 90) % 4,
                bool(first.interlaced_frame),
            )
        elif context.pix_fmt is None:
            raise Trouble(
                translate(
                    "{path} holds {count} frames, none of which can be decoded: restore the clip.",
                    path=path,
                    count=len(self.stamps),
                )
            )
        self._pixels = first.format if first is not None else context.format
        alpha = alpha_of(first) if first is not None else None
        size = (
            (context.width, context.height)
            if self.turns % 2 == 0
            else (context.height, context.width)
        )
        timecode = _timecode_of(stream, first, self.rate)
        if timecode is not None:
            self.tags["timecode"] = str(timecode)
        self.tags["lines"] = "interlaced" if interlaced else "progressive"
        self.about = About(
            self.path,
            "clip",
            size,
            str(self._pixels.name),
            frames=len(self.stamps),
            rate=self.rate,
            tags=self.tags,
            timecode=timecode,
            mark=key_of(self.path),
            notes=self._notes(
                interlaced and not reading.deinterlaced, alpha is not None and bool(alpha.min() < 1)
            ),
        )
        self._key: Hashable = (
            (key_of(self.path), reading) if reading != PLAIN else key_of(self.path)
        )

    def _first_decoded(self) -> VideoFrame | None:
        """Return the first frame that can be decoded, of some spread over the clip; None where none
        of them can.
        """
        for number in sorted(
            {round(k * (len(self.stamps) - 1) / (TRIED - 1)) for k in range(TRIED)}
        ):
            with contextlib.suppress(Trouble):
                return self.decoded(number)
        return None

    def _notes(self, interlaced: bool, transparent: bool) -> tuple[str, ...]:
        """Return sentences about what is odd with the clip."""
        name, notes = self.path.name, list(self._what_is_missing())
        if self.odd_rate:
            notes.append(
                translate("{name} says a rate that no clip has: it is played and written at {rate} "
                        "frames a second.",
                    name=name, rate=USUAL_RATE,
                )
            )  # fmt: skip
        if interlaced:
            notes.append(
                translate(
                    "{name} is interlaced: File > Input settings… deinterlaces it.",
                    name=name,
                )
            )
        if transparent:
            codecs = translate(" or ").join(codecs_with_alpha())
            notes.append(
                translate("{name} is partly transparent: export it as {codecs} to keep that. Other "
                        "codecs hold no alpha.",
                    name=name, codecs=codecs,
                )
            )  # fmt: skip
        return tuple(notes)

    def _what_is_missing(self) -> tuple[str, ...]:
        """A sentence when the file promises more frames than it holds."""
        held, promised = len(self.stamps), claimed_frames(self.path, self._index, self.rate)
        if promised <= held:
            return ()
        return (
            translate(
                "{name} ends early: it holds {held} of {promised} frames. Restore it to have the "
                "rest.",
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
                translate("{path} has frames 0 to {count}; there is no frame {number}.",
                    path=self.path, count=len(self.stamps) - 1, number=number,
                )
            )  # fmt: skip
        with self._lock:
            if self._closed:
                raise Trouble(translate("{path} has been closed: open it again.", path=self.path))
            found = self._decoder.frame(number)
            if found is not None:
                found.colorspace = self.matrix  # how it is to be read
                if self.range in (1, 2):
                    found.color_range = self.range
                return found
        raise Trouble(
            translate(
                "Frame {number} of {path} is damaged: leave it out of the range, or restore the "
                "clip.",
                number=number,
                path=self.path,
            )
        )

    def whole(self, number: int) -> VideoFrame:
        """Frame ``number`` to be looked at: as it was decoded or, when asked for, made of its
        fields by FFmpeg's bwdif, which weaves them where nothing moves and fills lines in where
        something does. Raises `Trouble` as `decoded` does.
        """
        if not self._deinterlaced:
            return self.decoded(number)
        around = [self._held(n) for n in (number - 1, number, number + 1)]
        frame = around[1] or self.decoded(number)
        graph = Graph()
        source = graph.add_buffer(
            width=frame.width, height=frame.height, format=frame.format, time_base=self.time_base
        )
        graph.link_nodes(
            source, graph.add("bwdif", "mode=send_frame:deint=all"), graph.add("buffersink")
        ).configure()
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
                    "Frame {number} of {path} cannot be deinterlaced: read the clip as it is.",
                    number=number,
                    path=self.path,
                )
            )
        made.colorspace, made.color_range = frame.colorspace, frame.color_range
        whole: VideoFrame = made
        return whole

    def _held(self, number: int) -> VideoFrame | None:
        """A frame that was decoded lately, or is now; None where there is none."""
        held = self._recent.get(
            number
        )  # several threads ask: what one puts in another may push out
        if held is None:
            try:
                held = self._recent[number] = self.decoded(number)
            except Trouble:
                return None
            while len(self._recent) > BESIDE:
                self._recent.popitem(last=False)
        return held

    @property
    def files(self) -> list[pathlib.Path]:
        """The clip's own file."""
        return [self.path]

    def about_frame(self, number: int) -> About:
        """Return the properties of a picture taken from the clip: 8 bits, no profile, the timecode
        of its frame.
        """
        start = self.about.timecode
        timecode = start.after(number) if start is not None else None
        return About(
            self.path, "still", self.about.size, "uint8", rate=self.rate, timecode=timecode
        )

    def frame(self, number: int) -> Frame:
        """Frame ``number`` as linear light."""
        return self.to_frame(self.whole(number), number)

    def _near(self, number: int) -> Frame | None:
        """Frame ``number`` for those that look at a neighbour, by a decoder of its own; the newest
        few are kept. None where there is none.
        """
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
        """The frame reduced by a factor for playing: shrunk while it is still coded, which is quick
        and near enough for the eye.
        """
        width, height = self.about.size
        size = (max(1, round(width / factor)), max(1, round(height / factor)))
        if factor <= 1:
            return self.frame(number)
        turned = size if self.turns % 2 == 0 else size[::-1]
        whole = self.whole(number)
        key = (self._key, number, "quick", factor)
        return Frame(
            self._light(whole, turned),
            self._alpha(whole, turned),
            key,
            size[0] / width,
            (0, 0),
            (width, height),
        )

    def to_frame(self, decoded: VideoFrame, number: int) -> Frame:
        """A decoded frame as linear light, by the curve and primaries of the stream (see
        `core.colour.encodings`).
        """
        return Frame(
            self._light(decoded),
            self._alpha(decoded),
            (self._key, number),
            near=lambda away: self._near(number + away),
        )

    def _alpha(self, frame: VideoFrame, size: tuple[int, int] | None = None) -> np.ndarray | None:
        """Upright alpha of a frame, None where the clip has none."""
        alpha = alpha_of(frame, size)
        return (
            np.ascontiguousarray(np.rot90(alpha, self.turns))
            if alpha is not None and self.turns
            else alpha
        )

    def _light(self, decoded: VideoFrame, size: tuple[int, int] | None = None) -> np.ndarray:
        """Upright light of a frame, by what was chosen or said."""
        if is_luma_chroma(decoded.format):
            planes = light_of(decoded, self.curve, self.primaries, size)
        else:
            planes = encodings.decoded(to_rgb16(decoded, size), self.curve, self.primaries)
        return np.ascontiguousarray(np.rot90(planes, self.turns, (1, 2))) if self.turns else planes

    @property
    def plain(self) -> bool:
        """Return whether the samples of its frames stand where they are seen and mean what they
        will, so that they can be carried over.
        """
        pixels = self._pixels
        limited = self.range != 2 and not pixels.name.startswith("yuvj")
        return self.turns == 0 and not self._deinterlaced and limited and is_luma_chroma(pixels)

    def close(self) -> None:
        """Let go of the file, once a frame that is being decoded is done."""
        with self._lock:
            if not self._closed:
                self._closed = True
                self._decoder.close()
                if self._beside is not None:
                    self._beside.close()
