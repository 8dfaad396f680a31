"""Choose the part of a frame that is rendered for a canvas, and its scale."""

from __future__ import annotations

import math
from dataclasses import dataclass, field

from ..core.frame import Frame
from ..render.context import RenderContext

#: Pixels that are rendered while something is dragged, where the screen has more: on two cores as
#: many as thirty times a second.
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
    """The request of a pane of the canvas: at which reduction, which part, which views."""

    factor: int = 1
    box: Box = (0, 0, 0, 0)
    views: tuple[str, ...] = ("result", "mask")
    #: Screen pixels to a picture pixel, at most 1: what plays or is dragged need be no finer. It
    #: changes nothing that is at rest.
    sharp: float = field(default=1.0, compare=False)
    #: What of the box is seen; what is dragged need be no wider. All 0 means all of it.
    seen: Box = field(default=(0, 0, 0, 0), compare=False)

    def coarseness(self, pixels: int) -> float:
        """Return how much further a part is reduced while something is dragged: to as
        many as a drag can wait for, but never below half of the screen's; 1 where that is not worth
        it.
        """
        share = min((pixels / DRAGGED) ** 0.5, HALF / (self.sharp * self.factor))
        return share if share >= WORTH else 1.0


@dataclass(frozen=True)
class Part:
    """A part of a frame as a cache entry, and where what is shown lies in it."""

    frame: Frame
    inner: tuple[slice, slice]


@dataclass(frozen=True)
class _Place:
    """A part's box in a frame, and the box that is shown in it; both in its pixels."""

    box: Box
    shown: Box

    @property
    def pixels(self) -> int:
        """Return how many pixels are shown."""
        left, top, right, bottom = self.shown
        return (right - left) * (bottom - top)

    def inner(self, share: float = 1.0) -> tuple[slice, slice]:
        """Return where what is shown lies in the part, when that has been reduced by a share."""
        left, top, right, bottom = self.shown

        def between(start: int, stop: int) -> slice:
            first = round(start / share)
            return slice(first, max(first + 1, round(stop / share)))

        return between(top - self.box[1], bottom - self.box[1]), between(
            left - self.box[0], right - self.box[0]
        )


def _place_of(level: Frame, box: Box, looks: float) -> _Place:
    """The part of a frame that is worked on so that a box of it comes out right, when stages look
    so far (full-resolution pixels).
    """
    everything = (0, 0, level.width, level.height)
    left, top, right, bottom = box
    if right <= left or bottom <= top:
        return _Place(everything, everything)
    if math.isinf(looks):
        return _Place(everything, box)
    wider = math.ceil(looks * level.scale)
    one = (
        max(0, left - wider),
        max(0, top - wider),
        min(level.width, right + wider),
        min(level.height, bottom + wider),
    )
    nearly_all = (one[2] - one[0]) * (one[3] - one[1]) > NEARLY_ALL * level.width * level.height
    return _Place(everything if nearly_all else one, box)


def _taken_out(level: Frame, place: _Place, context: RenderContext) -> Part:
    whole = place.box == (0, 0, level.width, level.height)
    return Part(
        level
        if whole
        else context.get(("part", level.key, place.box), lambda: level.part(*place.box)),
        place.inner(),
    )


def part_of(level: Frame, box: Box, looks: float, context: RenderContext) -> Part:
    """The part of a frame that is worked on so that a box of it comes out right, when stages look
    so far (full-resolution pixels).
    """
    return _taken_out(level, _place_of(level, box, looks), context)


def worked_part(
    level: Frame, shown: Shown, looks: float, hurried: bool, context: RenderContext
) -> Part:
    """The part that is worked on for the view; while something is dragged, coarser where the
    screen has many pixels, and no wider than what is seen there.
    """
    place = _place_of(level, shown.box, looks)
    if hurried and shown.coarseness(place.pixels) > 1:
        if any(shown.seen):
            place = _place_of(level, shown.seen, looks)
        share = shown.coarseness(place.pixels)
        if share > 1:
            frame = context.get(
                ("coarse", level.key, place.box, share), lambda: level.part(*place.box, share)
            )
            return Part(frame, place.inner(share))
    return _taken_out(level, place, context)
