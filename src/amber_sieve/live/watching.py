"""Coverage over time: what a sieve's mask holds on every frame, how much it flickers, and how far
its colours drift from the samples.
"""

from __future__ import annotations

from dataclasses import dataclass, field, replace

import numpy as np

from ..core.colour.oklab import one_to_oklab, to_oklab
from ..core.frame import Frame
from ..core.motion.movement import along, flow_between, to_grey8
from ..language import translator
from ..project.model import Project
from ..render.cache import Cache
from ..render.context import RenderContext
from ..render.stack import sieve_mask
from ..render.stages.every import while_dragged
from ..resolve.layers import layers_in
from ..resolve.resolver import Resolver

translate = translator("live")


#: Frames are watched reduced to about this many pixels.
WATCHED_ON = 60_000
#: A jump: the coverage differs from the median of the frames around by more than this share of it.
SHARE = 0.15
#: And by more than this many of their own deviations.
DEVIATIONS = 5.0
#: Frames to either side that count as around.
AROUND = 6


@dataclass(frozen=True)
class WatchedFrame:
    """One frame: coverage 0 to 1; chroma distance (Oklab, times 100) between what is masked and the
    samples; the mask itself and the levels of its frame, small, 0 to 255 (None: as if nothing
    moved, or not needed any more); and the mask without Steady, where that is on.
    """

    coverage: float
    drift: float
    mask: np.ndarray | None
    levels: np.ndarray | None = None
    unsteady: np.ndarray | None = None


@dataclass
class Course:
    """Coverage that was watched so far, by frame number."""

    seen: dict[int, WatchedFrame] = field(default_factory=dict)
    flickers: dict[int, float] = field(default_factory=dict)
    #: The same without Steady, where that is on.
    unsteady: dict[int, float] = field(default_factory=dict)
    troubles: list[int] = field(default_factory=list)

    def add(self, number: int, seen: WatchedFrame) -> None:
        """A frame has been watched: what changed since the frame before is found, and masks that no
        neighbour asks for any more go.
        """
        self.seen[number] = seen
        for later in (number, number + 1):
            if later - 1 in self.seen and later in self.seen:
                one, other = self.seen[later - 1], self.seen[later]
                self.flickers[later] = flicker_between(
                    one.mask, other.mask, one.levels, other.levels
                )
                if other.unsteady is not None:
                    self.unsteady[later] = flicker_between(
                        one.unsteady, other.unsteady, one.levels, other.levels
                    )
        for at in (number - 1, number, number + 1):
            if at in self.seen and at + 1 in self.flickers and (at in self.flickers or at == 0):
                self.seen[at] = replace(self.seen[at], mask=None, levels=None, unsteady=None)

    def flicker(self, number: int) -> float:
        """Return how much of the mask changed since the frame before, the motion set aside, per
        cent of what either holds; 0 where that is not known.
        """
        return self.flickers.get(number, 0.0)

    @property
    def mean_flicker(self) -> float:
        """The mean over all frames of which it is known, per cent."""
        return _mean(self.flickers)

    @property
    def in_words(self) -> str:
        """The mean flicker, before and after Steady where that is on."""
        before = (
            translate(", {mean:.1f} % without Steady", mean=_mean(self.unsteady))
            if self.unsteady
            else ""
        )
        return translate(
            "flicker {mean_flicker:.1f} % a frame{before}",
            mean_flicker=self.mean_flicker,
            before=before,
        )

    def copy(self) -> Course:
        """Copy the course, with the frames at which the coverage jumps, while another thread adds
        to it.
        """
        return Course(
            dict(self.seen),
            dict(self.flickers),
            dict(self.unsteady),
            jumps({number: seen.coverage for number, seen in self.seen.items()}),
        )


def _mean(by_frame: dict[int, float]) -> float:
    return sum(by_frame.values()) / len(by_frame) if by_frame else 0.0


def flicker_between(
    one: np.ndarray | None,
    other: np.ndarray | None,
    levels: np.ndarray | None = None,
    later: np.ndarray | None = None,
) -> float:
    """Return how much of a mask changed from a frame to the next, the motion set aside, per cent of
    what either holds; the motion is found on the levels of both frames.
    """
    if one is None or other is None or one.shape != other.shape:
        return 0.0
    before, now = one.astype(np.float32), other.astype(np.float32)
    if levels is not None and later is not None:
        before = along(before, flow_between(later, levels))
    return (
        100.0 * float(np.abs(before - now).sum()) / max(float(before.sum()), float(now.sum()), 1.0)
    )


def jumps(coverage: dict[int, float]) -> list[int]:
    """Numbers of frames whose coverage stands out from that of the frames around them; of a run of
    such frames, the first.
    """
    numbers = sorted(coverage)
    out: list[int] = []
    values = np.array([coverage[number] for number in numbers])
    before = -2
    for at, number in enumerate(numbers):
        near = np.delete(values[max(0, at - AROUND) : at + AROUND + 1], min(at, AROUND))
        if near.size < 3:
            continue
        middle = float(np.median(near))
        spread = float(np.median(np.abs(near - middle)))
        far = abs(values[at] - middle)
        if far > SHARE * max(middle, 0.002) and far > DEVIATIONS * spread:
            if at != before + 1:
                out.append(number)
            before = at
    return out


def factor_for(width: int, height: int) -> int:
    """Return how far frames of a size are reduced to be watched."""
    return max(1, round((width * height / WATCHED_ON) ** 0.5))


def watchable(project: Project) -> Project:
    """The project without Follow, which a small picture hardly shows; Steady is what is watched
    for.
    """
    steady = {sieve.id: sieve.edge.steady for sieve in project.stack}
    quick = while_dragged(project)
    return quick.but(
        stack=tuple(
            sieve.but(edge=sieve.edge.but(steady=steady[sieve.id])) for sieve in quick.stack
        )
    )


def watched(
    frame: Frame, project: Project, sieve_id: str, number: int, resolver: Resolver
) -> WatchedFrame:
    """Return the coverage of a sieve's mask on a reduced frame; raises `Trouble` when something
    cannot be read.
    """
    context = RenderContext(Cache(100_000_000))
    stands = resolver.resolve_frame(watchable(project), frame, number, context)
    mask = sieve_mask(frame, stands, sieve_id, context, layers_in(context))
    total = float(mask.sum(dtype=np.float64))
    kept = [
        one_to_oklab(sample.colour)
        for sample in project.sieve(sieve_id).pick.samples
        if sample.on and sample.role == "keep"
    ]
    drift = 0.0
    if kept and total > 0:
        lab = to_oklab(frame.planes)
        mean = np.array([float((plane * mask).sum(dtype=np.float64)) / total for plane in lab])
        drift = 100 * min(float(np.linalg.norm((mean - np.asarray(colour))[1:])) for colour in kept)
    unsteady = None
    sieve = stands.sieve(sieve_id)
    if sieve.edge.steady > 0:
        plain = stands.with_sieve(sieve.but(edge=sieve.edge.but(steady=0.0)))
        unsteady = _small(sieve_mask(frame, plain, sieve_id, context, layers_in(context)))
    return WatchedFrame(total / mask.size, drift, _small(mask), to_grey8(frame.planes), unsteady)


def _small(mask: np.ndarray) -> np.ndarray:
    """A mask as bytes."""
    return np.rint(np.clip(mask, 0, 1) * 255).astype(np.uint8)
