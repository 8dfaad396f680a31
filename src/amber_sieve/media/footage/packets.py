"""The packets of a clip's pictures, read once without decoding: how many frames, when each is
shown.
"""

from __future__ import annotations

import bisect
import pathlib
import time
from collections import Counter
from collections.abc import Hashable
from dataclasses import dataclass, field
from fractions import Fraction
from typing import Any, NamedTuple

import av

from ..source import is_rate, rate_in_use

#: Containers whose packets carry no time of presentation: FFmpeg guesses one, which is wrong where
#: frames are stored in another order than they are shown, unless its parser reads the order.
WITHOUT_STAMPS = ("avi",)
#: Codecs whose order FFmpeg's parser reads from the pictures themselves.
ORDER_PARSED = ("mpeg1video", "mpeg2video", "mpeg4")
#: Seconds by which a container may claim to be longer than its packets before that is said: the
#: length of the last frame is not always known.
CLAIM_SLACK = Fraction(1, 5)


#: Seconds of the processor allowed for finding a clip's packets: a base, and more for each byte.
#: Clips take a tenth of it.
MAX_SECONDS, SECONDS_A_BYTE = 1.0, 4e-8
#: Packets that are read between two looks at the time.
LOOKS_EVERY = 1024


class TooManyPackets(Exception):
    """A file holds far more packets than one of its size can."""


class Packet(NamedTuple):
    """One packet of a stream: times in units of the stream's time base, place and size in the
    file.
    """

    pts: int | None
    dts: int | None
    pos: int | None
    size: int
    key: bool
    discarded: bool


def _record(packet: av.Packet) -> Packet:
    """Return what is kept of a packet that was just read."""
    return Packet(
        packet.pts, packet.dts, packet.pos, packet.size, packet.is_keyframe, packet.is_discard
    )


@dataclass
class PacketIndex:
    """Index of a clip's frames, made from its packets.

    A packet is known by its number in the file (its id); a frame by its number as it is shown.

    Attributes
    ----------
    packets : all packets of the stream, in the order of the file.
    shown : ids in the order they are shown, as far as it is known; all of them when ``stamped``.
    stamped : the order and the times come from the packets. Otherwise the order is learnt from the
        decoder, and the frames follow each other evenly.
    count : frames there are. stamps : when each is shown, in units of ``time_base`` seconds.
    """

    packets: list[Packet]
    shown: list[int]
    stamped: bool
    count: int
    stamps: list[int]
    time_base: Fraction
    #: Where each id stands in ``shown``.
    place: dict[int, int] = field(default_factory=dict)
    #: Frames of key packets, in the order they are shown.
    key_frames: list[int] = field(default_factory=list)

    def __post_init__(self) -> None:
        self.place = {packet: number for number, packet in enumerate(self.shown)}
        self.key_frames = [
            number for number, packet in enumerate(self.shown) if self.packets[packet].key
        ]
        # After a seek FFmpeg may guess other times, and may give the end of a packet it landed in.
        self._by_place_in_file = any(packet.pos is not None for packet in self.packets)
        marks = [self._mark(packet) for packet in self.packets]
        often = Counter(marks)
        self._ids = {
            mark: k for k, mark in enumerate(marks) if mark is not None and often[mark] == 1
        }

    def _mark(self, packet: Packet | av.Packet) -> Hashable:
        """Return how a packet is recognised, None where it cannot be."""
        if self._by_place_in_file:
            return None if packet.pos is None else (packet.pos, packet.size)
        return None if packet.pts is None else (packet.pts, packet.dts)

    def id_of(self, packet: av.Packet) -> int | None:
        """Return the id of a packet that was just read, None where it is not recognised."""
        return self._ids.get(self._mark(packet))

    def learn(self, packet: int) -> None:
        """Append the frame that the decoder showed after all frames that are known."""
        self.place[packet] = len(self.shown)
        if self.packets[packet].key:
            self.key_frames.append(len(self.shown))
        self.shown.append(packet)

    def keys_until(self, number: int) -> int:
        """Return how many of ``key_frames`` are shown no later than a frame.

        The key packet before a frame in the file may be shown after it, and cannot decode it then
        (open groups of pictures).
        """
        return bisect.bisect_right(self.key_frames, number)


def read_index(path: pathlib.Path) -> PacketIndex:
    """Return the index of the first picture stream of a file.

    Raises
    ------
    av.FFmpegError, IndexError, OSError: it is no clip, or holds no pictures. TooManyPackets: it
    would take too long.
    """
    until = time.thread_time() + MAX_SECONDS + SECONDS_A_BYTE * path.stat().st_size
    with av.open(str(path)) as container:
        stream = picture_stream(container)
        packets: list[Packet] = []
        for packet in container.demux(stream):
            if packet.size:
                packets.append(_record(packet))
            if len(packets) % LOOKS_EVERY == 0 and time.thread_time() > until:
                raise TooManyPackets
        rate = even_rate(stream)
        unsure = container.format.name in WITHOUT_STAMPS and stream.codec_context.has_b_frames
        if unsure and stream.codec_context.name not in ORDER_PARSED:
            return _unstamped(packets, rate, 0)
        return index_of(packets, Fraction(stream.time_base or 1 / rate), rate)


def picture_stream(container: Any) -> Any:
    """Return the stream of moving pictures; a picture of the cover is the last choice."""
    return container.streams.best("video") or container.streams.video[0]


#: The rate that is taken where a clip says one that none has (common practice, no source).
USUAL_RATE = Fraction(25)


def said_rate(stream: Any) -> Fraction:
    """Return the frames a second that a stream says."""
    return rate_in_use(Fraction(stream.average_rate or stream.guessed_rate or USUAL_RATE))


def even_rate(stream: Any) -> Fraction:
    """Return the frames a second that a stream says, or the usual ones where no clip has those."""
    said = said_rate(stream)
    return said if is_rate(said) else USUAL_RATE


def index_of(packets: list[Packet], time_base: Fraction, rate: Fraction) -> PacketIndex:
    """Return the index of packets that mostly carry times of presentation."""
    shown = [
        k for k, packet in enumerate(packets) if packet.pts is not None and not packet.discarded
    ]
    halves = _second_fields(packets)
    stamps = {packets[k].pts for k in shown}
    missing = sum(packet.pts is None for packet in packets) - len(halves)
    if missing or len(stamps) < len(shown):
        known = [
            stamp
            for packet in packets[:1]
            for stamp in (packet.pts, packet.dts)
            if stamp is not None
        ]
        return _unstamped(packets, rate, round(known[0] * time_base * rate) if known else 0)
    shown.sort(key=lambda k: packets[k].pts or 0)
    index = PacketIndex(
        packets, shown, True, len(shown), [packets[k].pts or 0 for k in shown], time_base
    )
    index.place |= {k: index.place[k - 1] for k in halves if k - 1 in index.place}
    return index


def _second_fields(packets: list[Packet]) -> list[int]:
    """Return the ids of packets that hold the second field of the frame before them.

    In transport streams each field of a frame may be a packet of its own, of which the first
    alone carries a time: then no two without a time follow each other.
    """
    halves = [k for k, packet in enumerate(packets) if packet.pts is None]
    alone = all(k > 0 and packets[k - 1].pts is not None for k in halves)
    return halves if alone and len(halves) * 10 >= 4 * len(packets) else []


def _unstamped(packets: list[Packet], rate: Fraction, start: int) -> PacketIndex:
    """Return the index of packets whose times cannot be relied on: one frame each, evenly paced."""
    kept = sum(not packet.discarded for packet in packets)
    return PacketIndex(packets, [], False, kept, list(range(start, start + kept)), 1 / rate)


def claimed_frames(path: pathlib.Path, index: PacketIndex, rate: Fraction) -> int:
    """Return the frames that the container claims, or those it holds where it claims no more.

    Compared is only what a container says of itself in its header: a number of frames, or in
    Matroska the time at which its last packet ends, of whatever stream.
    """
    with av.open(str(path)) as container:
        stream = picture_stream(container)
        name, said, base, length = (
            container.format.name,
            stream.frames,
            stream.time_base,
            container.duration,
        )
    if said > len(index.packets):
        return index.count + max(0, said - _packets_without_edits(path))
    if not name.startswith("matroska") or not length:
        return index.count
    claimed_end = Fraction(length, av.time_base)
    last = max((packet.pts for packet in index.packets if packet.pts is not None), default=0)
    if claimed_end <= last * base + 2 / rate + CLAIM_SLACK:
        return index.count
    with av.open(str(path)) as container:
        ends = [
            (one.pts + (one.duration or 0)) * one.time_base
            for one in container.demux()
            if one.pts is not None
        ]
    missing = claimed_end - max(ends, default=0)
    return index.count + (round(missing * rate) if missing > CLAIM_SLACK else 0)


def _packets_without_edits(path: pathlib.Path) -> int:
    """Return how many packets there are when the edit list, which may leave some out, is
    ignored.
    """
    with av.open(str(path), options={"ignore_editlist": "1"}) as container:
        return sum(packet.size > 0 for packet in container.demux(picture_stream(container)))
