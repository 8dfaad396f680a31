"""Sources that a person opens: a still, a clip or a numbered sequence, all seen as frames by
number.
"""

from __future__ import annotations

import pathlib
from collections.abc import Sequence
from dataclasses import dataclass, field
from fractions import Fraction
from typing import Any, Protocol

from ..core.frame import Frame
from .timecode import Timecode

#: Slowest and fastest frames a second that a clip may say, and what is taken where numbered
#: pictures say none: that of film (common practice, no source).
SLOWEST, FASTEST, FILM_RATE = Fraction(1, 60), Fraction(1000), Fraction(24)


def is_rate(said: Fraction) -> bool:
    """Return whether a frame rate is plausible for a clip."""
    return SLOWEST <= said <= FASTEST


#: How far the rate that a file says may be from one in use and still mean it: Matroska counts in
#: milliseconds, headers in float32.
_NEAR_RATE = Fraction(1, 10_000)


def rate_in_use(said: Fraction) -> Fraction:
    """Return the whole rate, or the one slowed by 1000/1001 (SMPTE ST 12-1), that a file means;
    else what it says.
    """
    whole = round(said)
    meant = (Fraction(whole), Fraction(whole * 1000, 1001))
    return next((rate for rate in meant if whole and abs(said / rate - 1) < _NEAR_RATE), said)


#: A cache key of one frame of a file.
Key = tuple[str, int, int, int]


@dataclass(frozen=True)
class About:
    """Properties of a file.

    Attributes
    ----------
    kind : "still", "clip" or "sequence".
    size : width, height in pixels, upright.
    depth : sample type: "uint8", "uint16", "half", "float", or the pixel format of footage.
    profile : embedded ICC profile, or b"" when there is none.
    metadata : what is carried over to files written from this one.
    frames, rate : number of frames and frames a second; of stills 1, and 0 where their header says
        no rate.
    grey : whether it holds one channel of colour only.
    tags : colour tags and codecs in words, for `info`.
    part : the one it was read from, "" for the first. parts : names of the parts of a file that
        holds several pictures.
    timecode : that of the first frame, None where the file holds none.
    mark : what the file was when it was read, see `key_of`.
    notes : what was found odd and mended when it was read, in sentences that are said once.
    """

    path: pathlib.Path
    kind: str
    size: tuple[int, int]
    depth: str
    profile: bytes = b""
    metadata: dict[str, Any] = field(default_factory=dict)
    frames: int = 1
    rate: Fraction = Fraction(0)
    grey: bool = False
    tags: dict[str, str] = field(default_factory=dict)
    notes: tuple[str, ...] = ()
    parts: tuple[str, ...] = ()
    part: str = ""
    mark: Key | None = None
    timecode: Timecode | None = None


class Source(Protocol):
    """Frames by number."""

    about: About

    @property
    def files(self) -> Sequence[pathlib.Path]:
        """The files that it is read from."""

    def about_frame(self, number: int) -> About:
        """Return the properties of frame ``number`` as a still; pictures written from it take after
        this.
        """

    def frame(self, number: int) -> Frame:
        """Frame ``number``, from 0. Raises `Trouble` when it cannot be read."""

    def quick_frame(self, number: int, factor: float) -> Frame:
        """Frame ``number`` reduced by a factor, as quickly as can be, for playing. Raises `Trouble`
        when it cannot be read.
        """

    def close(self) -> None:
        """Let go of the file."""


def key_of(path: pathlib.Path, number: int = 0) -> Key:
    """A cache key for one frame of a file, which changes when the file does."""
    stat = path.stat()
    return (str(path.absolute()), stat.st_mtime_ns, stat.st_size, number)
