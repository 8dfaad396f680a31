"""Timecode of frames, SMPTE ST 12-1: hours:minutes:seconds:frames, with dropped numbers at 29.97
and 59.94.
"""

from __future__ import annotations

import re
from dataclasses import dataclass, replace
from fractions import Fraction

#: Hours, minutes, seconds and frames; a semicolon or a full stop before the frames says that
#: numbers are dropped (common practice, no source).
TEXT = re.compile(r"(\d\d):([0-5]\d):([0-5]\d)([:;.])(\d{2,3})")
#: Bits of the word in which headers of pictures hold a timecode (SMPTE ST 268-1 and ST 12-1, as
#: OpenEXR packs it): numbers are dropped; the second frame of a pair, above 30 frames a second.
DROP_BIT, SECOND_BIT = 1 << 6, 1 << 15
#: The rate at which numbers are dropped most often.
NTSC_RATE = Fraction(30_000, 1001)
#: Frames a second up to which each frame has a number of its own in that word.
PAIRED_ABOVE = 30


def drops_numbers(rate: Fraction) -> bool:
    """Return whether timecode at a rate may drop numbers to stay with the clock: at 29.97 and
    59.94.
    """
    return rate.denominator == 1001 and round(rate) % 30 == 0


@dataclass(frozen=True)
class Timecode:
    """A frame of a day.

    Attributes
    ----------
    frames : frames since midnight. rate : frames a second.
    drop : the first two (at 59.94 four) numbers of each minute but every tenth are left out.
    """

    frames: int
    rate: Fraction
    drop: bool

    @property
    def base(self) -> int:
        """Numbers of a second."""
        return max(1, round(self.rate))

    def after(self, frames: int) -> Timecode:
        """Return the timecode some frames later; the day begins again after 24 hours."""
        day = 24 * 6 * (self.base * 600 - 9 * self._dropped)
        return replace(self, frames=(self.frames + frames) % day)

    @property
    def _dropped(self) -> int:
        """Numbers left out of a minute."""
        return self.base // 15 if self.drop else 0

    def _fields(self) -> tuple[int, int, int, int]:
        """Return hours, minutes, seconds and frames."""
        number, dropped = self.frames, self._dropped
        if dropped:
            tens, rest = divmod(number, self.base * 600 - 9 * dropped)
            in_minutes = (rest - dropped) // (self.base * 60 - dropped) if rest > dropped else 0
            number += 9 * dropped * tens + dropped * in_minutes
        seconds, frames = divmod(number, self.base)
        minutes, seconds = divmod(seconds, 60)
        hours, minutes = divmod(minutes, 60)
        return hours, minutes, seconds, frames

    def __str__(self) -> str:
        hours, minutes, seconds, frames = self._fields()
        return f"{hours:02}:{minutes:02}:{seconds:02}{';' if self.drop else ':'}{frames:02}"

    @property
    def word(self) -> int:
        """The 32 bits in which headers of pictures hold it, two decimal digits a byte."""
        hours, minutes, seconds, frames = self._fields()
        second = 0
        if self.base > PAIRED_ABOVE:
            frames, second = divmod(frames, 2)
        digits = sum(
            (value // 10 << 4 | value % 10) << place
            for value, place in ((hours, 24), (minutes, 16), (seconds, 8), (frames, 0))
        )
        return digits | (DROP_BIT if self.drop else 0) | (SECOND_BIT if second else 0)


def first_timecode(rate: Fraction) -> Timecode:
    """Return midnight at a rate, where numbers are dropped if they may be."""
    return Timecode(0, rate, drops_numbers(rate))


def from_text(text: str, rate: Fraction) -> Timecode | None:
    """Return a timecode as a file or a person writes it, None where it is none."""
    found = TEXT.fullmatch(text.strip())
    if found is None:
        return None
    hours, minutes, seconds, frames = (int(found[k]) for k in (1, 2, 3, 5))
    return _from_fields((hours, minutes, seconds, frames), rate, found[4] != ":")


def from_word(word: int, rate: Fraction) -> Timecode | None:
    """Return the timecode of a header's 32 bits, None where they hold none."""
    drop, second = bool(word & DROP_BIT), bool(word & SECOND_BIT)
    digits = [
        word >> place & mask
        for place, mask in ((28, 3), (24, 15), (20, 7), (16, 15), (12, 7), (8, 15), (4, 3), (0, 15))
    ]
    if any(units > 9 for units in digits[1::2]):
        return None
    hours, minutes, seconds, frames = (
        tens * 10 + units for tens, units in zip(digits[::2], digits[1::2], strict=True)
    )
    if round(rate) > PAIRED_ABOVE:
        frames = 2 * frames + second
    return _from_fields((hours, minutes, seconds, frames), rate, drop)


def _from_fields(fields: tuple[int, int, int, int], rate: Fraction, drop: bool) -> Timecode | None:
    hours, minutes, seconds, frames = fields
    if (
        drop and round(rate) % 30 == 0
    ):  # a rate that was measured on a few frames may be a little off
        rate = Fraction(round(rate) * 1000, 1001)
    made = Timecode(0, rate, drop and drops_numbers(rate))
    if hours > 23 or minutes > 59 or seconds > 59 or frames >= made.base:
        return None
    whole = hours * 60 + minutes
    number = (whole * 60 + seconds) * made.base + frames - made._dropped * (whole - whole // 10)
    return replace(made, frames=max(0, number))
