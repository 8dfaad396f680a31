"""Timecode of frames, SMPTE ST 12-1: hours:minutes:seconds:frames, with dropped numbers at 29.97 and 59.94."""

from __future__ import annotations

from fractions import Fraction


def timecode(number: int, rate: Fraction) -> str:
    """The timecode of a frame counted from 0; a semicolon before the frames says that numbers are dropped.

    At 30000/1001 and 60000/1001 frames a second the first two (four) numbers of every minute but each tenth are left out, so that the code
    stays with the clock.
    """
    base = max(1, round(rate)) if rate else 24
    drops = base // 15 if rate.denominator == 1001 and base % 30 == 0 else 0
    if drops:
        tens, rest = divmod(number, base * 600 - 9 * drops)
        number += 9 * drops * tens + (drops * ((rest - drops) // (base * 60 - drops)) if rest > drops else 0)
    seconds, frames = divmod(number, base)
    minutes, seconds = divmod(seconds, 60)
    hours, minutes = divmod(minutes, 60)
    return f"{hours:02}:{minutes:02}:{seconds:02}{';' if drops else ':'}{frames:02}"
