"""A band: an interval of a measure with a core that counts fully and a falloff on either side."""

from __future__ import annotations

from dataclasses import dataclass

#: Planes of the measured picture, in this order, and the range each is worked in. Beyond its ends the end counts.
MEASURES = ("hue", "saturation", "luminance", "red", "green", "blue")
RANGES = {
    "hue": (0.0, 360.0),
    "saturation": (0.0, 125.0),
    "luminance": (0.0, 100.0),
    "red": (0.0, 255.0),
    "green": (0.0, 255.0),
    "blue": (0.0, 255.0),
}
#: Stands for a side without a falloff.
STEEP = 1e9
#: Where a band reaches the end of its range, everything beyond counts too.
BEYOND = 1e9


@dataclass(frozen=True)
class Interval:
    """A band as the kernels need it.

    Attributes
    ----------
    measure : one of ``MEASURES``.
    corners : fade in from, full from, full to, fade out to; in units of the measure, rising. For hue they may pass 360.
    inverted : count what lies outside instead.
    shape, bend : of the falloff, see `shape_table`.
    """

    measure: str
    corners: tuple[float, float, float, float]
    inverted: bool = False
    shape: str = "linear"
    bend: float = 0.0

    def __post_init__(self) -> None:
        a, b, c, d = self.corners
        if not a <= b <= c <= d:
            raise ValueError(f"the corners of the {self.measure} band must rise, they are {a:g}, {b:g}, {c:g}, {d:g}")

    @property
    def full(self) -> bool:
        """Whether it lets everything through."""
        low, high = RANGES[self.measure]
        _, b, c, _ = self.corners
        whole = c - b >= 360 if self.measure == "hue" else b <= low and c >= high
        return whole and not self.inverted


def luminance_ramp(black: float, white: float, inverse: bool = False) -> Interval:
    """The mask is the luminance itself: 0 at ``black``, 1 from ``white`` on (L*), or the inverse."""
    return Interval("luminance", (min(black, white), max(black, white), BEYOND, BEYOND), inverse)


def numbers_of(interval: Interval) -> list[float]:
    """The row the kernel reads: plane, wraps, centre, full from, its slope, full to, its slope, inverted."""
    low, high = RANGES[interval.measure]
    a, b, c, d = interval.corners
    wraps = interval.measure == "hue"
    centre = (b + c) / 2 if wraps else 0.0
    if wraps and c - b >= 360:
        a, b, c, d = -BEYOND, -BEYOND, BEYOND, BEYOND
    elif not wraps:
        a, b = (-BEYOND, -BEYOND) if b <= low else (a, b)
        c, d = (BEYOND, BEYOND) if c >= high else (c, d)
    rise = 1 / (b - a) if b > a else STEEP
    fall = 1 / (d - c) if d > c else STEEP
    return [MEASURES.index(interval.measure), wraps, centre, b - centre, rise, c - centre, fall, interval.inverted]
