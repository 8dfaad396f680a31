"""An area that follows what it lies on, frame by frame, as keyframes of its points."""

from __future__ import annotations

import contextlib
import itertools
from collections.abc import Callable, Iterable, Iterator, Sequence
from dataclasses import dataclass, field

import numpy as np

from ..core.frame import Frame
from ..core.motion.backdrop import Alignment, Backdrop, colours_of
from ..core.motion.contour import Contour
from ..core.motion.movement import motion, motion_of_rest, moved_by, moved_places, seen_in, to_grey8
from ..core.motion.piece import Colours, Piece, PieceFollower, stands_apart
from ..errors import Trouble
from ..language import translator
from ..media.source import Source
from ..names import Moves
from ..progress import Progress
from ..project.model import Area, Key, Sieve, Track
from ..project.tracks import at_frame
from ..render.context import RenderContext
from ..render.mask import qualified
from .tracked_area import inside_of, numbers_of, outline_of, places_of

translate = translator("live")


#: Frames are looked at reduced to about this many pixels.
TRACKED_ON = 600_000
#: Below this confidence the area is lost.
LEAST = 0.25
#: From this confidence on it is not looked for in another way.
ENOUGH = 0.5
#: Frames looked at before tracking begins, for the background of the thing.
AHEAD = 14
#: Up to which of them say how the area was drawn.
DRAWN = 8
#: Of what the backdrop says this much is believed.
BELIEVED = 0.15
#: And no more than this many pixels.
MOST = 0.5
#: For this many frames in a row the backdrop alone may say where a thing is.
UNTOLD = 5
#: For this many frames a thing that was seen by its piece of the mask may be covered: it goes on as
#: it went.
COVERED = 12
#: Features are astray when they say that a thing is farther from its piece than this, as a share of
#: its radius.
ASTRAY = 0.04
#: And than this many pixels.
ASTRAY_LEAST = 1.0
#: What masks in a reduced frame, (H, W) uint8.
Picks = Callable[[Frame], np.ndarray]


@dataclass
class Tracked:
    """The result of tracking.

    Attributes
    ----------
    path : way of the field that is keyed. keys : its numbers by frame. confidence : 0 to 1 by
        frame.
    lost : the frame at which the area was lost, None for nowhere.
    """

    path: str
    keys: dict[int, tuple[float, ...]] = field(default_factory=dict)
    confidence: dict[int, float] = field(default_factory=dict)
    lost: int | None = None


def _picks_of(sieve: Sieve, number: int) -> Picks | None:
    """Return a sieve's pick by colour, as it stands at a frame; None for one that picks nothing by
    colour.
    """
    stands = at_frame(sieve, number)
    everywhere = tuple(
        sample for sample in stands.pick.samples if sample.on and sample.reach != "here"
    )
    if not stands.bands.active and not any(sample.role == "keep" for sample in everywhere):
        return None
    pick = stands.pick.but(samples=everywhere, connected=False)

    def picks(frame: Frame) -> np.ndarray:
        mask = qualified(frame, pick, stands.bands, RenderContext())
        return ((mask < 0.5) if stands.invert else (mask >= 0.5)).astype(np.uint8)

    return picks


def _apart(area: Area, first: Frame, sieve: Sieve | None, number: int) -> Picks | None:
    """Return a classifier by colour of the thing in an area: the sieve, or else the colours inside;
    None where nothing does.
    """
    inside = (inside_of(area, places_of(area), first.planes.shape[1:], first.scale) > 0).astype(
        np.uint8
    )
    if not inside.any():
        return None
    own = _picks_of(sieve, number) if sieve is not None else None
    if own is not None and stands_apart(own(first), inside):
        return own
    colours = Colours(first.planes, inside)

    def picks(frame: Frame) -> np.ndarray:
        return colours.mask(frame.planes)

    return picks if stands_apart(picks(first), inside) else None


def track(
    source: Source,
    area: Area,
    start: int,
    direction: int,
    moves: Moves,
    progress: Progress | None = None,
    sieve: Sieve | None = None,
) -> Tracked:
    """Follow an area from frame ``start`` to the last (``direction`` 1) or the first (-1), until it
    is lost or leaves the picture.

    ``sieve``: the one it belongs to; the piece of its mask that meets the area says where a thing
        without texture is.

    Raises
    ------
    Trouble: the area has no inside. Cancelled: the person stopped it.
    """
    progress = progress or Progress()
    places = places_of(area)
    if len(places) < 1 or area.kind == "gradient":
        raise Trouble(
            translate(
                "A gradient has no inside that could be tracked: choose a shape or a brush stroke.",
            )
        )
    path = f"areas.{area.id}.{'strokes' if area.kind == 'brush' else 'points'}"
    found = Tracked(path, {start: numbers_of(area, places)}, {start: 1.0})
    numbers = range(start + direction, source.about.frames if direction > 0 else -1, direction)
    factor = max(1.0, (source.about.size[0] * source.about.size[1] / TRACKED_ON) ** 0.5)
    if not numbers:
        return found
    began = source.quick_frame(start, factor)
    picks = _apart(area, began, sieve, start)
    first = _Looked.of(began, picks)
    frames = _looked(source, numbers, factor, picks)
    steps = len(numbers) + 2 * min(
        AHEAD, len(numbers)
    )  # those that are looked at before count three times
    ahead = []
    for number, look in itertools.islice(frames, AHEAD):
        ahead.append((number, look))
        progress.step(len(ahead) / steps)
    follower = _Follower(area, places, first, moves)
    follower.look_ahead([look for _, look in ahead], lambda: progress.step(len(ahead) / steps))
    for done, (number, look) in enumerate(itertools.chain(ahead, frames), 1 + steps - len(numbers)):
        confidence = follower.to(look)
        if confidence < LEAST:
            found.lost = number
            break
        found.keys[number], found.confidence[number] = numbers_of(area, follower.places), confidence
        progress.step(done / steps)
    return found


@dataclass(frozen=True)
class _Looked:
    """A frame, reduced: its levels (H, W) and colours (3, H, W), what has the thing's colours (H,
    W), all uint8, and its scale.
    """

    levels: np.ndarray
    colours: np.ndarray
    picked: np.ndarray | None
    scale: float

    @staticmethod
    def of(frame: Frame, picks: Picks | None) -> _Looked:
        """A frame as it is looked at."""
        return _Looked(
            to_grey8(frame.planes),
            colours_of(frame.planes),
            picks(frame) if picks else None,
            frame.scale,
        )


def _looked(
    source: Source, numbers: Iterable[int], factor: float, picks: Picks | None
) -> Iterator[tuple[int, _Looked]]:
    """Frames by number; damaged ones are passed over."""
    for number in numbers:
        with contextlib.suppress(Trouble):
            yield number, _Looked.of(source.quick_frame(number, factor), picks)


class _Follower:
    """Follows an area from frame to frame by what lies inside it.

    It is kept on the thing it was drawn round: by what stands out from the backdrop, or where that
    is not known, by the thing's outline.
    """

    def __init__(self, area: Area, places: np.ndarray, first: _Looked, moves: Moves) -> None:
        self._area, self._scale, self._moves = area, first.scale, moves
        #: Where it lay at first; how it has moved from there; the last frame, and the step to it.
        #: Pixels of reduced frames.
        self._first, self._matrix, self._last, self._step = (
            places * first.scale,
            np.eye(3),
            first,
            np.zeros(2),
        )
        drawn_round = area.kind != "brush"
        self._contour = (
            Contour(first.levels, outline_of(area, self._first)) if drawn_round else None
        )
        self._backdrop = Backdrop(first.levels.shape) if drawn_round else None
        #: How the area was drawn on the thing, as the backdrop says it.
        self._drawn: Alignment | None = None
        #: How the rest of the picture has moved to the last frame, None where nobody knows.
        self._rest: np.ndarray | None = None
        #: For this many frames features have not told where it is.
        self._unsure = 0
        inside = (inside_of(area, places, first.levels.shape, first.scale) > 0).astype(np.uint8)
        followed = PieceFollower(first.picked, inside) if first.picked is not None else None
        #: The piece of the mask that it is, None where nothing tells it by colour.
        self._piece = followed if followed is not None and followed.first is not None else None

    @property
    def places(self) -> np.ndarray:
        """Return where it lies, full-resolution pixels."""
        return moved_places(self._first, self._matrix) / self._scale

    def look_ahead(self, ahead: Sequence[_Looked], step: Callable[[], None]) -> None:
        """Learn from the frames that come next, looked at backwards, what lies behind the thing
        now, and how the area lies on it; ``step`` is called at each, and may raise to stop it.
        """
        if self._backdrop is None:
            return
        rough = _Follower(self._area, self._first / self._scale, self._last, self._moves)
        rough._backdrop = rough._contour = None
        seen: list[tuple[_Looked, np.ndarray, np.ndarray | None]] = [
            (self._last, self._outline, None)
        ]
        for look in ahead:
            step()
            if rough.to(look) < LEAST:
                break
            seen.append((look, rough._outline, rough._rest))
        alignments = []
        for number in range(len(seen) - 1, -1, -1):
            step()
            look, corners, _ = seen[number]
            if number < len(seen) - 1:
                back = seen[number + 1][2]
                self._backdrop.moved(None if back is None else np.linalg.inv(back))
                alignment = (
                    self._backdrop.alignment(look.colours, corners) if number <= DRAWN else None
                )
                alignments += [alignment] if alignment is not None else []
            self._backdrop.add(look.colours, corners)
        if alignments:
            margin = float(np.median([alignment.margin for alignment in alignments]))
            self._drawn = Alignment(
                np.median([alignment.step for alignment in alignments], axis=0), margin
            )

    @property
    def _outline(self) -> np.ndarray:
        """The corners of the area, pixels of reduced frames."""
        return outline_of(self._area, self.places * self._scale)

    def to(self, look: _Looked) -> float:
        """Look for it in the next frame; how confident that is, 0 where it is lost."""
        before = self.places
        inside = inside_of(self._area, before, self._last.levels.shape, self._scale)
        seen = seen_in(self._last.levels, inside)
        best, confidence = np.eye(3), 0.0
        for step in (
            (self._step, np.zeros(2)) if seen is not None else ()
        ):  # it goes on as it went, or else stays
            assert seen is not None
            found = motion(seen, look.levels, self._moves, moved_by(*step))
            if found is not None and found[1] > confidence:
                best, confidence = found
            if confidence >= ENOUGH:
                break
        sure = confidence >= LEAST and bool(
            np.isfinite(moved_places(self._first, best @ self._matrix)).all()
        )
        piece = (
            self._piece.to(look.picked)
            if self._piece is not None and look.picked is not None
            else None
        )
        if piece is not None and not (sure and self._agree(best, piece)):
            assert self._piece is not None
            self._unsure = 0
            self._matrix = self._piece.matrix(self._moves)
            return self._arrived(look, inside, before, max(confidence, ENOUGH))
        if not sure and self._piece is not None and self._unsure < COVERED:
            self._unsure += 1
            self._matrix = moved_by(*self._step) @ self._matrix
            return self._arrived(look, inside, before, LEAST)
        if not sure and self._unsure >= UNTOLD:
            return 0.0
        self._unsure = 0 if sure else self._unsure + 1
        self._matrix = (best if sure else moved_by(*self._step)) @ self._matrix
        self._rest = motion_of_rest(self._last.levels, look.levels, inside)
        pull = self._pull(look, sure)
        if pull is None:
            return 0.0
        self._matrix = moved_by(*pull) @ self._matrix
        self._last = look
        self._step = (self.places - before).mean(axis=0) * self._scale
        return max(confidence, LEAST)

    def _agree(self, matrix: np.ndarray, piece: Piece) -> bool:
        """Return whether features and the piece of the mask say of a step (3, 3) the same; a piece
        that is not all of the thing has no say in it.
        """
        assert self._piece is not None and self._piece.first is not None
        if not self._piece.whole:
            return True
        there = moved_places(self._piece.first.middle[None], matrix @ self._matrix)[0]
        return float(np.linalg.norm(there - piece.middle)) <= max(
            ASTRAY_LEAST, ASTRAY * piece.radius
        )

    def _arrived(
        self, look: _Looked, inside: np.ndarray, before: np.ndarray, confidence: float
    ) -> float:
        """It lies where the matrix says in a frame: what comes next starts there; ``inside`` and
        places ``before`` are of the last frame.
        """
        self._rest = motion_of_rest(self._last.levels, look.levels, inside)
        if self._backdrop is not None:
            self._backdrop.moved(self._rest)
            self._backdrop.add(look.colours, self._outline)
        self._last, self._step = look, (self.places - before).mean(axis=0) * self._scale
        return confidence

    def _pull(self, look: _Looked, sure: bool) -> np.ndarray | None:
        """The step (2,) that keeps the area on the thing: a small one, for noise must not shake it,
        or where features have not ``sure`` where the thing is, all that the backdrop says of it,
        and None where that says nothing either.
        """
        pull = None
        if self._backdrop is not None:
            self._backdrop.moved(self._rest)
            alignment = self._backdrop.alignment(
                look.colours, self._outline, self._drawn.margin if self._drawn else None
            )
            if alignment is not None:
                self._drawn = self._drawn or alignment
                pull = alignment.step - self._drawn.step
                pull = np.clip(BELIEVED * pull, -MOST, MOST) if sure else pull
        if pull is None and not sure:
            return None
        if pull is None and self._contour is not None:
            pull = self._contour.shift(look.levels, self._matrix)
        pull = np.zeros(2) if pull is None else pull
        if self._backdrop is not None:
            self._backdrop.add(look.colours, self._outline + pull)
        return pull


def with_tracked(sieve: Sieve, found: Tracked) -> Sieve:
    """The sieve with what was tracked as keys; earlier keys at other frames stay."""
    held = next((track for track in sieve.tracks if track.path == found.path), None)
    length = len(next(iter(found.keys.values())))
    keys = {key.frame: key for key in held.keys if len(key.value) == length} if held else {}
    keys |= {
        frame: Key(frame=frame, value=value, confidence=found.confidence[frame])
        for frame, value in found.keys.items()
    }
    fresh = Track(path=found.path, keys=tuple(keys[frame] for frame in sorted(keys)))
    return sieve.but(tracks=(*(track for track in sieve.tracks if track.path != found.path), fresh))
