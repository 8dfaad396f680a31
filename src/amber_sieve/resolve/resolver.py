"""Resolve a project for one frame of a source: amounts that are found on the picture, and places
that follow the motion.
"""

from __future__ import annotations

import threading
from collections.abc import Mapping
from typing import Any

from ..core.frame import Frame
from ..core.motion.place import Patch, followed, patch_at
from ..core.pick.flat import Range
from ..media.source import Source
from ..project.model import Pick, Project, Sample, Sieve
from ..project.tracks import at_frame
from ..render.automatic import MEANS_ON, needs_means, with_found_amounts
from ..render.cache import Cache
from ..render.context import RenderContext
from ..render.light import range_on, with_flat
from ..render.mask import NEIGHBOURS
from ..render.resolved import found_of, with_found
from ..render.stages.edging import EdgeStage
from ..render.stages.every import STEADY
from .layers import layers_in

#: Places are followed on frames reduced to about this many pixels.
FOLLOWED_ON = 500_000
#: Bytes that what is found of a clip's colours may take.
MEANS_MEMORY = 100_000_000
#: Of this many frames around the masks are kept for each other.
FRAMES_ACROSS = len(NEIGHBOURS) + 4
#: Bytes that a pixel of such a mask takes, with what its outline was unmixed into.
BYTES_ACROSS = 16


class Resolver:
    """Finds what is automatic, once for a source where it must not change from frame to frame.

    The same project, frame and source always give the same, in whatever order frames are looked at:
    so a preview is the export.
    """

    def __init__(self, source: Source) -> None:
        self._source = source
        #: Amounts of stages that must not change from frame to frame.
        self._of_all: dict[str, float | None] = {}
        self._patches: dict[tuple[int, float, float], Patch] = {}
        #: The first frame of a clip, reduced, and what was found on it.
        self._first: Frame | None = None
        self._means = RenderContext(Cache(MEANS_MEMORY))
        #: The range of codes of the first frame, once that was looked at, None where it is not
        #: flat.
        self._flat: list[Range | None] = []
        self._lock = threading.RLock()
        width, height = source.about.size
        #: Masks that frames which are rendered one after another ask each other for.
        self.across = Cache(FRAMES_ACROSS * BYTES_ACROSS * width * height)

    @property
    def _factor(self) -> int:
        width, height = self._source.about.size
        return max(1, round((width * height / FOLLOWED_ON) ** 0.5))

    def resolve_frame(
        self,
        project: Project,
        whole: Frame,
        number: int,
        context: RenderContext,
        around: bool = True,
        learnt: Mapping[str, Mapping[str, Any]] | None = None,
    ) -> Project:
        """The project as it stands on a whole frame: "auto" as numbers, here-only samples where
        their places lie now, or off.

        ``around``: where they lie on the frames around too, for Steady; a drag, which leaves Steady
        out, does without. ``learnt``: what of the masked colours is taken as known already, by
        sieve.
        """
        stands = _with_tracks_at(project, number)
        if learnt is not None:
            stands = stands.but(
                stack=tuple(with_found(sieve, **learnt.get(sieve.id, {})) for sieve in stands.stack)
            )
        if self._source.about.frames <= 1:
            return with_found_amounts(
                _without_steady(stands),
                whole,
                context,
                layers=layers_in(context),
                means=learnt is None,
            )
        if learnt is None and any(needs_means(sieve) for sieve in stands.stack):
            stands = self._with_means_of_all(stands, whole, number)
        stands = self._with_places(_with_grain_of(stands, number), whole, number, context)

        def finds(stage: EdgeStage) -> float | None:
            return (
                self._found_for_all(stage, whole, number)
                if stage.once_a_clip
                else stage.find(whole, context)
            )

        stands = self._with_flat_of_all(stands, whole, number)
        stands = with_found_amounts(stands, whole, context, finds, layers_in(context), means=False)
        return (
            self._with_picks_around(stands, project, whole, number, context) if around else stands
        )

    def lost_on(self, project: Project, resolved: Project) -> tuple[str, ...]:
        """Names of the samples whose place was lost: they are on in the project and off where it is
        resolved.
        """
        pairs = [
            pair
            for one, other in zip(project.stack, resolved.stack, strict=True)
            for pair in _pairs(one, other)
        ]
        return tuple(name for sample, there, name in pairs if sample.on and not there.on)

    def _found_for_all(self, stage: EdgeStage, whole: Frame, number: int) -> float | None:
        """The amount of a stage for the whole clip, found on its first frame: it must not change
        from frame to frame.
        """
        with self._lock:
            if stage.automatic not in self._of_all:
                first = whole if number == 0 and whole.scale == 1 else self._source.frame(0)
                self._of_all[stage.automatic] = stage.find_for_all(first, RenderContext())
            return self._of_all[stage.automatic]

    def _with_flat_of_all(self, project: Project, whole: Frame, number: int) -> Project:
        """The range of codes of a flat clip, found on its first frame."""
        if all(sieve.pick.flat != "auto" for sieve in project.stack):
            return project
        with self._lock:
            if not self._flat:
                first = whole if number == 0 and whole.scale == 1 else self._source.frame(0)
                self._flat.append(range_on(first, RenderContext()))
            held = self._flat[0]

        def there(sieve: Sieve) -> Sieve:
            if sieve.pick.flat != "auto":
                return sieve
            return with_flat(sieve, held) if held else sieve.but(pick=sieve.pick.but(flat="off"))

        return project.but(stack=tuple(there(sieve) for sieve in project.stack))

    def _with_means_of_all(self, project: Project, whole: Frame, number: int) -> Project:
        """Means of masked colours for the whole clip, found on its first frame: what is done must
        not change from frame to frame.
        """
        with self._lock:
            if self._first is None:
                frame = whole if number == 0 and whole.scale == 1 else self._source.frame(0)
                self._first = frame.reduced(
                    max(1, round((frame.width * frame.height / MEANS_ON) ** 0.5))
                )
            layers = layers_in(self._means)
            # Amounts of the edge, which are found from frame to frame, are found on the first one
            # here.
            stands = with_found_amounts(
                self._with_places(project, self._first, 0, self._means),
                self._first,
                self._means,
                layers=layers,
            )
            learnt = [found_of(sieve) for sieve in stands.stack]
        pairs = zip(project.stack, learnt, strict=True)
        return project.but(stack=tuple(with_found(sieve, **found.means) for sieve, found in pairs))

    def _with_places(
        self, project: Project, whole: Frame, number: int, context: RenderContext
    ) -> Project:
        if not any(
            _moves(sample, number) for sieve in project.stack for sample in sieve.pick.samples
        ):
            return project
        small = context.get(
            ("followed on", whole.key, self._factor), lambda: whole.reduced(self._factor)
        )

        def placed(sieve: Sieve) -> Sieve:
            samples = tuple(
                self._followed(s, small, number) if _moves(s, number) else s
                for s in sieve.pick.samples
            )
            return sieve.but(pick=sieve.pick.but(samples=samples))

        return project.but(stack=tuple(placed(sieve) for sieve in project.stack))

    def _with_picks_around(
        self, stands: Project, project: Project, whole: Frame, number: int, context: RenderContext
    ) -> Project:
        """Return a project with the picks that Steady asks for as they stand on the frames around;
        ``project`` has its tracks still.
        """

        def there(sieve: Sieve, away: int) -> Pick | None:
            frame = whole.near(away) if whole.near is not None else None
            if frame is None:
                return None
            alone = Project(stack=(sieve,))
            return (
                self._with_places(
                    _with_tracks_at(alone, number + away), frame, number + away, context
                )
                .stack[0]
                .pick
            )

        def found(here: Sieve, sieve: Sieve) -> Sieve:
            keyed = any(track.path.startswith(("samples.", "pick.")) for track in sieve.tracks)
            moves = keyed or any(
                sample.on and sample.reach == "here" for sample in sieve.pick.samples
            )
            return (
                with_found(here, around=tuple(there(sieve, away) for away in NEIGHBOURS))
                if here.edge.steady and moves
                else here
            )

        return stands.but(
            stack=tuple(
                found(here, sieve) for here, sieve in zip(stands.stack, project.stack, strict=True)
            )
        )

    def _followed(self, sample: Sample, small: Frame, number: int) -> Sample:
        scale = small.scale
        there = followed(
            self._patch(sample),
            small.planes,
            sample.x * scale,
            sample.y * scale,
            abs(number - sample.frame),
        )
        if there is None:
            return sample.but(on=False)
        across, down = there[0] / scale - sample.x, there[1] / scale - sample.y
        points = tuple((x + across, y + down) for x, y in sample.points)
        return sample.but(x=sample.x + across, y=sample.y + down, points=points)

    def _patch(self, sample: Sample) -> Patch:
        """Return the surroundings of a sample's place, read once from the frame on which it was
        taken.
        """
        key = (sample.frame, sample.x, sample.y)
        with self._lock:
            if key not in self._patches:
                taken_on = min(sample.frame, self._source.about.frames - 1)
                frame = self._source.frame(taken_on).reduced(self._factor)
                self._patches[key] = patch_at(
                    frame.planes, sample.x * frame.scale, sample.y * frame.scale
                )
            return self._patches[key]


def _with_tracks_at(project: Project, number: int) -> Project:
    """Return the project with keyed fields at their values on a frame."""
    if not any(sieve.tracks for sieve in project.stack):
        return project

    def there(sieve: Sieve) -> Sieve:
        stands = at_frame(sieve, number).but(tracks=())
        # Colours that are keyed have been measured in the light of their frames.
        if any(track.path.startswith("samples.") for track in sieve.tracks):
            return stands.but(pick=stands.pick.but(light="off"))
        return stands

    return project.but(
        stack=tuple(there(sieve) if sieve.tracks else sieve for sieve in project.stack)
    )


def _without_steady(project: Project) -> Project:
    """The project for a still, which has no frames around: what looks for them would have to see
    all of it.
    """
    if all(STEADY.is_noop(sieve) for sieve in project.stack):
        return project
    return project.but(stack=tuple(STEADY.without(sieve) for sieve in project.stack))


def _with_grain_of(project: Project, number: int) -> Project:
    """The project with its grain as it lies on a frame."""
    if not any(sieve.adjust.detail.grain for sieve in project.stack):
        return project
    return project.but(stack=tuple(with_found(sieve, frame=number) for sieve in project.stack))


def _moves(sample: Sample, number: int) -> bool:
    """Return whether the place of a sample must be looked for on a frame."""
    return sample.on and sample.reach == "here" and sample.frame != number


def _pairs(sieve: Sieve, resolved: Sieve) -> list[tuple[Sample, Sample, str]]:
    both = zip(sieve.pick.samples, resolved.pick.samples, strict=True)
    return [
        (one, other, one.name or f"{one.role} {number}")
        for number, (one, other) in enumerate(both, 1)
    ]
