"""Any frame of a clip by its number, in whatever order frames are asked for."""

from __future__ import annotations

import contextlib
import pathlib
from collections import OrderedDict, deque
from collections.abc import Iterator
from typing import Any

import av
from av.video.frame import VideoFrame

from .packets import PacketIndex, picture_stream

#: Frames that are decoded on the way to one a little later, where seeking would cost more.
NEAR = 2
#: Frames that a decoder may give out of order (the largest picture buffer of ITU-T H.264, A.3.1).
OUT_OF_ORDER = 16
#: Bytes of decoded frames that are kept because they were passed on the way to a later one.
PASSED_BYTES = 64_000_000
#: Decoders that read alpha, by the codec.
CODECS_WITH_ALPHA = {"vp8": "libvpx", "vp9": "libvpx-vp9"}
#: Damaged packets in a row after which a stretch is given up.
MAX_COMPLAINTS = 200


def _codec_of(stream: Any) -> Any:
    """Return the decoder of a stream: of VP8 and VP9 with alpha the one that reads it, FFmpeg's own
    does not.
    """
    alpha = CODECS_WITH_ALPHA.get(stream.codec_context.name)
    if (
        alpha is None
        or stream.metadata.get("alpha_mode") != "1"
        or alpha not in av.codecs_available
    ):
        return stream.codec_context
    codec = av.CodecContext.create(alpha, "r")
    codec.extradata = stream.codec_context.extradata
    return codec


def size_of(frame: VideoFrame) -> int:
    """Return the bytes of a decoded frame."""
    return sum(plane.buffer_size for plane in frame.planes)


class FrameDecoder:
    """Decodes frames of one stream; one thread at a time.

    Every packet is given its number in the file as its time, which the decoder hands on to the
    frame: so a frame is known by the packet it came from, whatever times the file says.
    """

    def __init__(self, path: pathlib.Path, index: PacketIndex) -> None:
        self._path, self._index = path, index
        self._passed: OrderedDict[int, VideoFrame] = OrderedDict()
        self._passed_bytes = 0
        self._open()

    def _open(self) -> None:
        """Begin at the first packet of the file."""
        self._container = av.open(str(self._path))
        self.stream = picture_stream(self._container)
        self._codec = _codec_of(self.stream)
        self._codec.thread_type = "AUTO"
        self._begin(0)

    def _begin(self, packet: int | None) -> None:
        """Go on reading where the container stands, with a packet that is not known if None."""
        self._demuxed: Iterator[av.Packet] = self._container.demux(self.stream)
        self._at = packet
        self._ready: deque[VideoFrame] = deque()
        #: The frame that was decoded last: -1 before the first of all, None when it is not known.
        self._last: int | None = -1 if packet == 0 else None
        self._ended = False

    def frame(self, number: int) -> VideoFrame | None:
        """Return a frame; None where FFmpeg cannot decode it."""
        if number in self._passed:
            return self._passed[number]
        if self._runs_to(number):
            found, _ = self._run_to(number)
            if found is not None:
                return found
        for key in self._starts(number):
            if self._seek(key):
                found, late = self._run_to(number)
                if found is not None or not late:
                    return found
        return None

    def _runs_to(self, number: int) -> bool:
        """Return whether decoding on is the quickest way to a frame."""
        if self._last is None or self._last >= number:
            return False
        near = number - self._last <= NEAR
        return near or self._index.keys_until(number) <= self._index.keys_until(self._last + 1)

    def _starts(self, number: int) -> Iterator[int]:
        """Yield frames to decode a frame from: the key frame before it, earlier ones, -1 for the
        beginning.

        A seek may land after the key frame that was meant, and what a key frame begins may need
        those before it.
        """
        nearest, back = self._index.keys_until(number) - 1, 0
        while nearest - back >= 0:
            yield self._index.key_frames[nearest - back]
            back = 2 * back + 1
        yield -1

    def _seek(self, key: int) -> bool:
        """Stand at the packet of a key frame or one before it; False where no seek lands there."""
        if key < 0:
            self._container.close()
            self._open()
            return True
        wanted = self._index.shown[key]
        packet = self._index.packets[wanted]
        for stamp in (packet.pts, packet.dts):  # containers index one or the other
            if stamp is None:
                continue
            with contextlib.suppress(av.FFmpegError):
                self._container.seek(stamp, stream=self.stream, backward=True)
                if self._codec is not self.stream.codec_context:
                    self._codec.flush_buffers()
                self._begin(None)
                if self._find_key(wanted):
                    return True
        return False

    def _find_key(self, latest: int) -> bool:
        """Read on to the first key packet that is recognised; False if it lies after ``latest``."""
        for packet in self._demuxed:
            found = self._index.id_of(packet)
            if found is not None and found > latest:
                return False
            if found is not None and self._index.packets[found].key:
                self._at = found
                self._feed(packet)
                return True
        return False

    def _feed(self, packet: av.Packet | None) -> None:
        """Give the decoder a packet, None at the end; raises `av.FFmpegError` where it is
        damaged.
        """
        if packet is None:
            self._ready.extend(self._codec.decode(None))
            return
        known = self._index.id_of(packet)
        self._at = self._at if known is None else known
        if self._at is None:
            return
        packet.pts = packet.dts = self._at
        self._at += 1
        self._ready.extend(self._codec.decode(packet))

    def _next(self) -> VideoFrame | None:
        """Return the next frame that the decoder gives, None at the end."""
        complaints = 0
        while not self._ready and not self._ended and complaints < MAX_COMPLAINTS:
            try:
                packet = next((one for one in self._demuxed if one.size), None)
                self._ended = packet is None
                self._feed(packet)
            except av.FFmpegError:  # one damaged packet costs its own frames only
                complaints += 1
                if not self._ended:
                    self._demuxed = self._container.demux(self.stream)
        return self._ready.popleft() if self._ready else None

    def _run_to(self, number: int) -> tuple[VideoFrame | None, bool]:
        """Decode on to a frame; None when it does not come, and whether that began too late for
        it.
        """
        begun = False
        while (frame := self._next()) is not None:
            place = self._place_of(frame)
            if place is None:
                continue
            if place > number and not begun:
                self._pass_by(place, frame)
                return None, True
            begun = True
            if place == number:
                return frame, False
            self._pass_by(place, frame)
            if place > number + OUT_OF_ORDER:
                return None, False
        self._last = None
        return None, not begun

    def _place_of(self, frame: VideoFrame) -> int | None:
        """Return the number of a decoded frame in the order of showing, None for one that is left
        out; sets its time.
        """
        index, packet = self._index, frame.pts
        if packet is None or not 0 <= packet < len(index.packets):
            return None
        at_front = not index.stamped and self._last == len(index.shown) - 1
        if at_front and packet not in index.place and len(index.shown) < index.count:
            index.learn(packet)
        place = index.place.get(packet)
        if place is not None:
            self._last = place
            frame.pts = index.stamps[place]
        return place

    def _pass_by(self, number: int, frame: VideoFrame) -> None:
        """Keep a frame that was decoded on the way to another: who steps backwards asks for it
        next.
        """
        if number in self._passed:
            return
        self._passed[number] = frame
        self._passed_bytes += size_of(frame)
        while self._passed_bytes > PASSED_BYTES:
            self._passed_bytes -= size_of(self._passed.popitem(last=False)[1])

    def close(self) -> None:
        """Let go of the file and of all frames."""
        self._passed.clear()
        self._ready.clear()
        self._container.close()
