"""Pieces of a clip joined without encoding them again."""

from __future__ import annotations

import pathlib
from collections.abc import Sequence
from fractions import Fraction

import av

from ...errors import Trouble
from ...files import Checked
from ...language import translator
from ..formats import container_of
from .clip import Footage
from .writing import SoundTrack

translate = translator("footage")


def join(
    pieces: Sequence[pathlib.Path],
    starts: Sequence[Fraction],
    path: pathlib.Path,
    sound: SoundTrack | None,
    timecode: str = "",
) -> None:
    """Write pieces one after another, with the sound of the whole stretch.

    Parameters
    ----------
    pieces : clips of one codec and size, each of which begins with a key picture.
    starts : seconds at which each begins in the whole. timecode : of the first frame, "" for none.

    Raises
    ------
    Trouble: a piece is missing or damaged. OSError: not all of it reached the disk.
    """
    file = Checked(path)
    out = av.open(file, "w", format=container_of(path))
    try:
        with av.open(str(pieces[0])) as first:
            video = out.add_stream_from_template(first.streams.video[0])
            video.time_base = first.streams.video[0].time_base
            video.codec_context.framerate = first.streams.video[
                0
            ].average_rate  # a timecode is counted by it
            if timecode:
                video.metadata["timecode"] = timecode
        if sound is not None:
            sound.open(out)
        for piece, start in zip(pieces, starts, strict=True):
            with av.open(str(piece)) as held:
                stream = held.streams.video[0]
                base = stream.time_base or Fraction(1, 24)
                shift = round(start / base)
                packets = (packet for packet in held.demux(stream) if packet.pts is not None)
                for packet, decoded_at in zip(packets, _decoding_times(piece), strict=True):
                    packet.pts += shift
                    packet.dts = decoded_at + shift
                    packet.stream = video
                    out.mux(packet)
            file.check()
        if sound is not None:
            sound.mux(out)
        out.close()
    except av.FFmpegError as error:
        raise Trouble(
            translate(
                "The pieces of {name} could not be joined ({strerror}): render it in one go.",
                name=path.name,
                strerror=error.strerror,
            )
        ) from None
    finally:
        if sound is not None:
            sound.close()
        file.close()
    file.check()


def _decoding_times(piece: pathlib.Path) -> list[int]:
    """When each packet of a piece is decoded, in units of its stream: some containers keep only
    when pictures are shown, and may show one before others that were coded ahead of it.
    """
    with av.open(str(piece)) as held:
        shown = [
            packet.pts for packet in held.demux(held.streams.video[0]) if packet.pts is not None
        ]
    in_order = sorted(shown)
    early = max((time - own for time, own in zip(in_order, shown, strict=True)), default=0)
    return [time - early for time in in_order]


def begins(
    footage: Footage | None, rate: Fraction, numbers: Sequence[int], first: int
) -> list[Fraction]:
    """Seconds at which frames begin, from frame ``first`` on."""
    if footage is None:
        return [(number - first) / rate for number in numbers]
    base = footage.time_base
    return [(footage.stamps[number] - footage.stamps[first]) * base for number in numbers]
