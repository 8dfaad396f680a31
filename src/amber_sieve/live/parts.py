"""What part of a frame is worked on for what a canvas shows, and how finely."""

from __future__ import annotations

import math
from dataclasses import dataclass, field

from ..core.frame import Frame
from ..render.cache import Cache

#: Pixels that are rendered while something is dragged, where the screen has more: on two cores as many as thirty times a second.
DRAGGED = 600_000
#: How much fewer pixels than the screen's in a row there may be meanwhile: half of them in all.
HALF = 0.5**-0.5
#: Fewer by less than this is not worth another set of stages.
WORTH = 1.1
#: A part that holds more than this of a picture is not copied out of it.
NEARLY_ALL = 0.9
#: Left, top, right, bottom in reduced pixels; all 0 means everything.
Box = tuple[int, int, int, int]


@dataclass(frozen=True)
class Shown:
    """What a pane of the canvas needs to see: at which reduction, which part, which views."""

    factor: int = 1
    box: Box = (0, 0, 0, 0)
    views: tuple[str, ...] = ("result", "mask")
    #: Screen pixels to a picture pixel, at most 1: what plays or is dragged need be no finer. It changes nothing that is at rest.
    sharp: float = field(default=1.0, compare=False)
    #: What of the box is seen; what is dragged need be no wider. All 0 means all of it.
    seen: Box = field(default=(0, 0, 0, 0), compare=False)

    def coarseness(self, pixels: int) -> float:
        """By how much a part of so many pixels is reduced further while something is dragged: to as many as a drag can wait for, but never
        below half of the screen's; 1 where that is not worth it."""
        share = min((pixels / DRAGGED) ** 0.5, HALF / (self.sharp * self.factor))
        return share if share >= WORTH else 1.0


@dataclass(frozen=True)
class Part:
    """A part of a frame as a cache entry, and where what is shown lies in it."""

    frame: Frame
    inner: tuple[slice, slice] = field(default=(slice(None), slice(None)))

    @property
    def pixels(self) -> int:
        """How many pixels of it are shown."""
        rows, columns = (
            len(range(*one.indices(size))) for one, size in zip(self.inner, (self.frame.height, self.frame.width), strict=True)
        )
        return rows * columns


def part_of(level: Frame, box: Box, looks: float, cache: Cache) -> Part:
    """The part of a frame that is worked on so that a box of it comes out right, when stages look so far (full-resolution pixels)."""
    left, top, right, bottom = box
    if right <= left or bottom <= top:
        return Part(level)
    if math.isinf(looks):
        return Part(level, (slice(top, bottom), slice(left, right)))
    wider = math.ceil(looks * level.scale)
    one = (max(0, left - wider), max(0, top - wider), min(level.width, right + wider), min(level.height, bottom + wider))
    if (one[2] - one[0]) * (one[3] - one[1]) > NEARLY_ALL * level.width * level.height:
        return Part(level, (slice(top, bottom), slice(left, right)))
    frame = cache.get(("part", level.key, one), lambda: Part(level.part(*one))).frame
    return Part(frame, (slice(top - one[1], bottom - one[1]), slice(left - one[0], right - one[0])))


def coarse(part: Part, share: float, cache: Cache) -> Part:
    """The same part reduced by a share, for while something is dragged."""
    if share <= 1:
        return part
    rows, columns = part.inner

    def scaled(one: slice, size: int) -> slice:
        start, stop, _ = one.indices(size)
        return slice(round(start / share), max(round(start / share) + 1, round(stop / share)))

    frame = cache.get(("coarse", part.frame.key, share), lambda: part.frame.reduced(share))
    return Part(frame, (scaled(rows, part.frame.height), scaled(columns, part.frame.width)))


def worked_part(level: Frame, shown: Shown, looks: float, hurried: bool, cache: Cache) -> Part:
    """The part that is worked on for what is shown; while something is dragged, coarser where the screen has many pixels, and no wider than
    what is seen there."""
    held = part_of(level, shown.box, looks, cache)
    if not hurried or shown.coarseness(held.pixels) == 1:
        return held
    if any(shown.seen):
        held = part_of(level, shown.seen, looks, cache)
    return coarse(held, shown.coarseness(held.pixels), cache)
