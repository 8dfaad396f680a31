"""A band: an interval of a measure with a core that counts fully and a falloff on either side."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from ...names import BANDS, MEASURES, Shape

#: The columns of the row that stands for a band in the kernel.
PLANE, WRAPS, CENTRE, FULL_FROM, RISE, FULL_TO, FALL, INVERTED = range(8)
#: Stands for a side without a falloff.
STEEP = 1e9
#: Where a band reaches the end of its range, everything beyond counts too.
BEYOND = 1e9


@dataclass(frozen=True)
class Interval:
    """A band as the kernels need it.

    Attributes
    ----------
    measure : one of ``BANDS``.
    corners : fade in from, full from, full to, fade out to; in units of the measure, rising. For
        hue they may pass 360.
    inverted : count what lies outside instead.
    shape, bend : of the falloff, see `shape_table`.
    """

    measure: str
    corners: tuple[float, float, float, float]
    inverted: bool = False
    shape: Shape = "linear"
    bend: float = 0.0

    def __post_init__(self) -> None:
        a, b, c, d = self.corners
        if not a <= b <= c <= d:
            raise ValueError(
                f"the corners of the {self.measure} band must rise, they are {a:g}, {b:g}, {c:g}, "
                f"{d:g}"
            )

    @property
    def full(self) -> bool:
        """Return whether it lets everything through."""
        measure = MEASURES[self.measure]
        _, b, c, _ = self.corners
        whole = c - b >= measure.high if measure.wraps else b <= measure.low and c >= measure.high
        return whole and not self.inverted


def luminance_ramp(black: float, white: float, inverse: bool = False) -> Interval:
    """The mask is the luminance itself: 0 at ``black``, 1 from ``white`` on (L*), or the
    inverse.
    """
    return Interval("luminance", (min(black, white), max(black, white), BEYOND, BEYOND), inverse)


def numbers_of(interval: Interval) -> list[float]:
    """The row the kernel reads: plane, wraps, centre, full from, its slope, full to, its slope,
    inverted.
    """
    measure = MEASURES[interval.measure]
    low, high, wraps = measure.low, measure.high, measure.wraps
    a, b, c, d = interval.corners
    centre = (b + c) / 2 if wraps else 0.0
    if wraps and c - b >= 360:
        a, b, c, d = -BEYOND, -BEYOND, BEYOND, BEYOND
    elif not wraps:
        a, b = (-BEYOND, -BEYOND) if b <= low else (a, b)
        c, d = (BEYOND, BEYOND) if c >= high else (c, d)
    rise = 1 / max(b - a, 1 / STEEP)
    fall = 1 / max(d - c, 1 / STEEP)
    return [
        BANDS.index(interval.measure),
        wraps,
        centre,
        b - centre,
        rise,
        c - centre,
        fall,
        interval.inverted,
    ]


Corners = tuple[float, float, float, float]


def moved_corners(
    corners: Corners,
    grip: int,
    by: float,
    measure: str,
    mirror: bool = False,
    together: bool = False,
) -> Corners:
    """Corners after one of them (0 to 3), or the whole band (4), moved by some units. They always
    rise.

    Parameters
    ----------
    measure : whose corners they are: they stay in its range, or, where it wraps, within one turn.
    mirror : the other side moves as far the other way.
    together : falloff and core edge of one side move as one.
    """
    known = MEASURES[measure]
    low, high, turn = known.low, known.high, known.high - known.low
    values = list(corners)
    if grip == 4:
        shift = by if known.wraps else min(max(by, low - values[0]), high - values[3])
        values = [value + shift for value in values]
    else:
        moves = {grip: by}
        if together:
            moves[grip ^ 1] = by
        if mirror:
            moves |= {3 - k: -travel for k, travel in list(moves.items())}
        values = [value + moves.get(k, 0.0) for k, value in enumerate(values)]
        if mirror:
            # Two sides that move towards each other meet in the middle and stop there.
            middle = (values[1] + values[2]) / 2
            values = [
                min(values[0], middle),
                min(values[1], middle),
                max(values[2], middle),
                max(values[3], middle),
            ]
        # The one that is moved pushes its neighbours along.
        for k in range(grip, 3):
            values[k + 1] = max(values[k + 1], values[k])
        for k in range(grip, 0, -1):
            values[k - 1] = min(values[k - 1], values[k])
        if not known.wraps:
            values = [min(max(value, low), high) for value in values]
        elif values[3] - values[0] > turn:
            # More than a turn is no more than a turn: what is not held gives way.
            if grip < 2:
                values[0] = values[3] - turn
            else:
                values[3] = values[0] + turn
    return rising(values, measure)


def rising(values: Sequence[float], measure: str) -> Corners:
    """Four numbers as corners: in rising order, and, where the measure wraps, with the core's start
    within the first turn.
    """
    known = MEASURES[measure]
    a, b, c, d = np.maximum.accumulate(np.asarray(values, float))
    if known.wraps:
        # No more than one turn: what goes beyond it gives way.
        d = min(d, a + known.high - known.low)
        b, c = min(b, d), min(c, d)
        turns = known.high * np.floor(b / known.high)
        a, b, c, d = a - turns, b - turns, c - turns, d - turns
        # Taking whole turns off may round two equal corners apart.
        a, c, d = min(a, b), max(c, b), max(d, c, b)
    return (float(a), float(b), float(c), float(d))


def with_corner(corners: Corners, index: int, value: float, measure: str) -> Corners:
    """Corners with one of them set to a value; it pushes its neighbours along."""
    return moved_corners(corners, index, value - corners[index], measure)


def shares_by_corner(
    counts: np.ndarray, interval: Interval, index: int, places: np.ndarray
) -> tuple[float, ...]:
    """Return the share of a picture that a band would take with one of its corners elsewhere,
    linear falloff taken for all shapes.

    Parameters
    ----------
    counts : (N,) pixels by even bins of the measure, from its least value to its largest.
    index : of the corner; places : (M,) where it would be.
    """
    measure, whole = MEASURES[interval.measure], max(float(counts.sum()), 1.0)
    middles = (
        measure.low + (np.arange(counts.size) + 0.5) * (measure.high - measure.low) / counts.size
    )
    moved = np.array(
        [with_corner(interval.corners, index, float(place), interval.measure) for place in places]
    )[:, :, None]
    a, b, c, d = (moved[:, k] for k in range(4))
    taken = np.zeros((len(places), counts.size))
    for turn in (-360.0, 0.0, 360.0) if measure.wraps else (0.0,):
        rise, fall = (
            (middles + turn - a) / np.maximum(b - a, 1e-6),
            (d - middles - turn) / np.maximum(d - c, 1e-6),
        )
        np.maximum(taken, np.clip(np.minimum(rise, fall), 0, 1), out=taken)
    shares = taken @ counts / whole
    return tuple(float(share) for share in (1 - shares if interval.inverted else shares))
