"""Render a canvas: a pure function of the open picture, what is wanted, and a cache. No Qt."""

from __future__ import annotations

import contextlib
import dataclasses
import functools
import math
import pathlib
import threading
import time
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from .. import progress
from ..core.adjust.chain import Step as MixStep
from ..core.changed import no_runs
from ..core.colour.lookup import pixels_through
from ..core.frame import Frame
from ..core.mix import mixed
from ..core.overlays import grey_pixels
from ..core.statistics import Coverage, Statistics, coverage_of, statistics_of
from ..files import regular_file
from ..media.colour import screens
from ..media.source import Source
from ..project.model import Project, Sieve
from ..read_settings import PLAIN, Reading
from ..render.context import RenderContext
from ..render.evaluate import arriving, made_by, mask_value, measured
from ..render.layers import Layers
from ..render.mask import bounds_of, make_fine, waits_for_fine
from ..render.patched import Step
from ..render.resolved import found_of
from ..render.stack import sieve_mask
from ..render.stages.every import stack_support_radius, steps_of, while_dragged
from ..render.views import (
    VIEWS,
    Looking,
    nearer_to_drop,
    patched_pixels,
    shown_mask,
    solo_field,
    view,
)
from ..resolve.layers import layers_in
from ..resolve.resolver import Resolver
from .field import field_image, line_of
from .parts import Shown, worked_part
from .scoping import Scope, scoped
from .small_masks import SmallMask, small_mask
from .unchanged import Unchanged

#: Longer side, pixels, of the small frame on which the masks of all sieves are shown in the stack.
THUMBNAIL = 256
#: Seconds for which these, and what is counted of a mask, stay as they are while something is
#: dragged.
SMALL_EVERY = 0.1


class Opened:
    """An open source: the source itself, and the reduced frames of the newest number.

    A source is closed when it has been retired and its last reader has let go.
    """

    def __init__(self, source: Source, reading: Reading = PLAIN) -> None:
        self.source = source
        #: How it was read.
        self.reading = reading
        self.resolver = Resolver(source)
        self.unchanged = Unchanged()
        self._levels: tuple[int, dict[int, Frame]] = (-1, {})
        #: The small masks that are shown, by sieve, and what each was made of.
        self._small_masks: dict[str, tuple[np.ndarray, SmallMask]] = {}
        #: When they were made, seconds.
        self._small_made = 0.0
        #: What was learnt of the masked colours last, by sieve, and with which adjustments.
        self._learnt: tuple[object, Mapping[str, Mapping[str, Any]]] = (None, {})
        self._lock = threading.Lock()
        self._readers = 0
        self._retired = False

    @contextlib.contextmanager
    def read(self) -> Iterator[Opened]:
        """Hold the source open while something is read from it."""
        with self._lock:
            self._readers += 1
        try:
            yield self
        finally:
            with self._lock:
                self._readers -= 1
                last = self._retired and self._readers == 0
            if last:
                self.source.close()

    def retire(self) -> None:
        """Close the source, now or when its last reader lets go."""
        with self._lock:
            last = not self._retired and self._readers == 0
            self._retired = True
        if last:
            self.source.close()

    def resolve_frame(self, wanted: Wanted, whole: Frame, context: RenderContext) -> Project:
        """The project as it stands on a whole frame. While something else than an adjustment is
        dragged, what was learnt of the masked colours stays as it was.
        """
        adjusts = (wanted.number, tuple(sieve.adjust for sieve in wanted.project.stack))
        learnt = self._learnt[1] if wanted.hurried and self._learnt[0] == adjusts else None
        project = self.resolver.resolve_frame(
            wanted.project, whole, wanted.number, context, around=not wanted.hurried, learnt=learnt
        )
        if not wanted.hurried:
            self._learnt = adjusts, {sieve.id: found_of(sieve).means for sieve in project.stack}
        return while_dragged(project) if wanted.hurried else project

    def frame(self, number: int, factor: int = 1) -> Frame:
        """A frame, reduced by ``factor``; only the newest number is kept. Raises `Trouble` when it
        cannot be read.
        """
        held, levels = self._levels
        if held != number:
            levels = {1: self.source.frame(number)}
            self._levels = (number, levels)
        if factor not in levels:
            levels[factor] = levels[1].reduced(factor)
        return levels[factor]

    def small_masks(
        self, ids: Sequence[str], mask_of: Callable[[str], np.ndarray], hurried: bool
    ) -> dict[str, SmallMask]:
        """Small masks (h, w) of sieves as they are shown; the same object for the same mask. In a
        step of a drag those of a moment ago do: they are looked at a few times a second. For the
        render thread alone.
        """
        held, made, now = self._small_masks, self._small_made, time.monotonic()
        if not (hurried and list(held) == list(ids) and now - made < SMALL_EVERY):
            masks = {name: mask_of(name) for name in ids}
            self._small_made = now
            self._small_masks = {
                name: held[name]
                if name in held and held[name][0] is mask
                else (mask, small_mask(mask))
                for name, mask in masks.items()
            }
        return {name: small for name, (_, small) in self._small_masks.items()}

    def cached(self, number: int) -> Frame | None:
        """The frame at full resolution if it has been read already."""
        held, levels = self._levels
        return levels.get(1) if held == number else None


@dataclass(frozen=True)
class Wanted:
    """All that a preview depends on besides the source.

    ``hurried``: something is being dragged, and Follow does not look for its reach until it rests.
    ``counts_mask``: the colours inside the mask are counted too.
    """

    project: Project
    sieve_id: str
    number: int = 0
    shown: Shown = Shown()
    looking: Looking = Looking()
    counts_view: bool = False
    hurried: bool = False
    counts_mask: bool = False
    scopes: tuple[Scope, ...] = ()


@dataclass(frozen=True, kw_only=True)
class Rendered:
    """A finished preview: the pictures of the views, the mask they were made with, and what is
    counted.

    ``frame`` is the part of the picture that was worked on, wider than what is shown where
    something looks around; ``waiting`` are the sieves whose matting was not there yet, ``steps``
    say how the pictures of a drag differ from those before, and ``seen`` is the project as it was
    rendered, without them. ``field`` and
    ``divided`` are cells of the colour field: what the sample looked at takes, and what lies nearer
    to a drop sample; ``density`` and ``dividing_line`` are the pixels that it is drawn with.
    ``lost`` names the here-only samples whose place was not found on this frame. ``scopes`` are
    those that were asked for, as screen pixels. ``covered`` is the share of the whole picture that
    the mask of the sieve covers, 0 to 1, while ``coverage`` counts what is in view. ``within``
    holds what is counted inside the mask as it arrives at the blocks of adjustments that are drawn
    over it.
    """

    wanted: Wanted
    scale: float
    origin: tuple[float, float]
    pictures: dict[str, np.ndarray]
    steps: dict[str, Step]
    mask: np.ndarray
    coverage: Coverage
    covered: float
    statistics: Statistics
    frame: Frame
    whole: Frame
    seen: Project
    waiting: tuple[Sieve, ...]
    thumbnails: dict[str, SmallMask]
    density: np.ndarray
    field: np.ndarray | None
    divided: np.ndarray | None
    dividing_line: np.ndarray | None
    lost: tuple[str, ...] = ()
    scopes: dict[Scope, np.ndarray] = dataclasses.field(default_factory=dict)
    within: dict[str, Statistics] | None = None
    density_within: np.ndarray | None = None


#: Coverage is counted on the whole picture, reduced to this many pixels or fewer.
COVERED_ON = 1_000_000


def preview(opened: Opened, wanted: Wanted, context: RenderContext) -> Rendered:
    """Render what is wanted, a step of a drag if that says so; raises `Trouble` when something
    cannot be read.
    """
    context = replace(context, interactive=wanted.hurried)
    with (
        opened.read(),
        context.cache.transient_round() if wanted.hurried else contextlib.nullcontext(),
    ):
        return _preview(opened, wanted, context)


def _with_take_resolved(
    project: Project, opened: Opened, wanted: Wanted, whole: Frame, context: RenderContext
) -> Project:
    """The project with only the take that is shown beside it, as it stands on a frame: it shows
    what going on with it would.
    """
    take = next(
        (take for take in project.takes if take.name == wanted.looking.take),
        project.takes[0] if project.takes else None,
    )
    if take is None:
        return project
    stands = opened.resolver.resolve_frame(
        project.but(stack=take.stack, solo="", takes=()), whole, wanted.number, context
    )
    return project.but(takes=(take.but(stack=stands.stack),))


def on_screen(pixels: np.ndarray, name: str, looking: Looking) -> np.ndarray:
    """Return drawn pixels as the screen's profile and the proof want them: screen pixels (H, W)
    uint32, or where neither is given levels of grey uint8 too.
    """
    proofed = bool(looking.proof) and VIEWS[name].proofed
    if pixels.dtype == np.uint8 and (proofed or looking.screen):
        pixels = grey_pixels(pixels)
    if proofed:
        table, far = screens.proof_tables(looking.proof, _changed_at(looking.proof))
        pixels = pixels_through(pixels, table, far if looking.proof_marks else None)
    return (
        pixels_through(pixels, screens.screen_table(looking.screen, _changed_at(looking.screen)))
        if looking.screen
        else pixels
    )


def _changed_at(path: str) -> int:
    return regular_file(pathlib.Path(path)).stat().st_mtime_ns


def _preview(opened: Opened, wanted: Wanted, context: RenderContext) -> Rendered:
    layers = layers_in(context)
    whole = opened.frame(wanted.number)
    level = opened.frame(wanted.number, wanted.shown.factor)
    shown, looking = wanted.shown, replace(wanted.looking, quick=wanted.hurried)
    project = opened.resolve_frame(wanted, whole, context)
    looks = stack_support_radius(project, wanted.hurried)
    if "other take" in shown.views:
        project = _with_take_resolved(project, opened, wanted, whole, context)
        looks = max(
            [
                looks,
                *(
                    stack_support_radius(project.but(stack=take.stack, solo=""), wanted.hurried)
                    for take in project.takes
                ),
            ]
        )
    held = worked_part(level, shown, looks, wanted.hurried, context)
    frame, inner = held.frame, held.inner
    # Matting takes seconds: what waits for it is shown without it, while it is made in the
    # background.
    waiting = tuple(
        s
        for s in project.stack
        if s.on
        and s.mask_from == "own"
        and s.edge.fine
        and waits_for_fine(measured(frame, project, s.id, context, layers), s, context)
    )
    seen = project
    for sieve in waiting:
        seen = seen.with_sieve(sieve.but(edge=sieve.edge.but(fine=0.0)))

    def cut(values: np.ndarray) -> np.ndarray:
        return np.ascontiguousarray(values[inner])

    whole_mask = shown_mask(frame, seen, wanted.sieve_id, looking, context, layers)
    mask = opened.unchanged.get("mask", (whole_mask, inner), lambda: whole_mask[inner])
    every = 4 if wanted.hurried else 1  # a step of a drag counts some of the rows
    lasts = SMALL_EVERY if wanted.hurried else 0.0
    coverage = opened.unchanged.get(
        "coverage", (mask, every), lambda: coverage_of(whole_mask, inner, every), lasts
    )

    def picture(name: str) -> np.ndarray:
        def make() -> np.ndarray:
            pixels = view(name, frame, seen, wanted.sieve_id, looking, context, layers)
            # What is drawn next and gone may lie in wider rows: it is not copied out of them.
            return on_screen(
                pixels[inner]
                if wanted.hurried and not (looking.screen or looking.proof)
                else cut(pixels),
                name,
                looking,
            )

        # The views of the mask alone, and of the picture as it was, stay while an adjustment is
        # dragged.
        of = VIEWS[name].of
        if of == "mask" and not looking.band:
            return opened.unchanged.get(f"view {name}", (whole_mask, inner, looking), make)
        return (
            opened.unchanged.get(
                f"view {name}", (frame.planes, inner, looking, seen.display, seen.gamut), make
            )
            if of == "picture"
            else make()
        )

    pictures = {name: picture(name) for name in shown.views}
    steps = {
        name: step
        for name, pixels in pictures.items()
        if (step := _step_of(name, pixels, frame, inner, context)) is not None
    }
    counted, sieve = (frame if wanted.counts_view else whole), project.sieve(wanted.sieve_id)
    statistics = context.get(
        ("statistics", counted.key, sieve.areas),
        lambda: statistics_of(counted.planes, bounds_of(counted, sieve, context)),
    )
    tiny = opened.frame(
        wanted.number, max(1, 2 ** math.ceil(math.log2(max(whole.width, whole.height) / THUMBNAIL)))
    )
    thumbnails = opened.small_masks(
        [s.id for s in project.stack],
        lambda name: sieve_mask(tiny, seen, name, context, layers),
        wanted.hurried,
    )
    divided = opened.unchanged.get("divided", (sieve.pick,), lambda: nearer_to_drop(sieve))
    within = (
        _counted_within(frame, seen, wanted.sieve_id, context, layers)
        if wanted.counts_mask and not wanted.hurried
        else None
    )
    corner = (inner[1].start or 0) / frame.scale, (inner[0].start or 0) / frame.scale
    return Rendered(
        wanted=wanted,
        scale=frame.scale,
        origin=(frame.origin[0] + corner[0], frame.origin[1] + corner[1]),
        pictures=pictures,
        steps=steps,
        mask=mask,
        coverage=coverage,
        covered=_covered(opened, coverage, thumbnails, seen, wanted, context),
        statistics=statistics,
        frame=frame,
        whole=whole,
        seen=seen,
        waiting=waiting,
        thumbnails=thumbnails,
        density=opened.unchanged.get(
            "density", (statistics.field,), lambda: field_image(statistics)
        ),
        field=solo_field(statistics, sieve, looking),
        divided=divided,
        dividing_line=opened.unchanged.get(
            "line", (divided,), lambda: None if divided is None else line_of(divided)
        ),
        lost=opened.resolver.lost_on(wanted.project, project),
        scopes=scoped(wanted.scopes, frame, seen, wanted.sieve_id, context, layers),
        within=within,
        density_within=opened.unchanged.get(
            "density within",
            (within and within["balance"].field,),
            lambda: field_image(within["balance"]) if within else None,
        ),
    )


def _covered(
    opened: Opened,
    coverage: Coverage,
    small: dict[str, SmallMask],
    seen: Project,
    wanted: Wanted,
    context: RenderContext,
) -> float:
    """Return the share of the whole picture that the mask of the sieve covers, 0 to 1.

    It is counted on the picture reduced by one factor, so that it does not change with the zoom.
    In a step of a drag it is that of the view, or of the small mask where a part is in view.
    """
    if not any(wanted.shown.box) and (wanted.hurried or wanted.looking.peeking):
        return coverage.whole
    number, name = wanted.number, wanted.sieve_id
    whole = opened.frame(number)
    key = ("covered", whole.key, mask_value(seen, seen.sieve(name)))
    if wanted.hurried and not context.holds(key):
        return small[name].coverage

    def count() -> float:
        factor = 2 ** math.ceil(math.log2(max(1, whole.width * whole.height / COVERED_ON)) / 2)
        mask = sieve_mask(opened.frame(number, factor), seen, name, context, layers_in(context))
        return float(mask.mean())

    return float(context.get(key, count))


def _step_of(
    name: str, pixels: np.ndarray, frame: Frame, inner: tuple[slice, slice], context: RenderContext
) -> Step | None:
    """Return how the pixels of a view differ from those of the step of a drag before."""
    held = patched_pixels(name, frame, context) if context.interactive else None
    if held is None or not np.may_share_memory(held.pixels, pixels):
        return None
    return Step(
        held, held.written, ~no_runs(*held.shape) if held.changed is None else held.changed, inner
    )


#: Blocks of adjustments that are drawn over the colours that arrive at them.
COUNTED = ("curve", "balance", "hues")


def _counted_within(
    frame: Frame, project: Project, sieve_id: str, context: RenderContext, layers: Layers
) -> dict[str, Statistics]:
    """Count colours inside the mask of a sieve, as it arrives at some blocks of its adjustments."""
    below, mask = (
        arriving(frame, project, sieve_id, context, layers),
        sieve_mask(frame, project, sieve_id, context, layers),
    )
    sieve, out = project.sieve(sieve_id), {}
    for block in COUNTED:
        steps = steps_of(sieve, until=block)
        key = ("within", block, frame.key, made_by(project, sieve_id))
        out[block] = context.get(key, functools.partial(_counted, below.planes, mask > 0.5, steps))
    return out


def _counted(planes: np.ndarray, inside: np.ndarray, steps: Sequence[MixStep]) -> Statistics:
    """Count colours inside a mask (H, W) bool after some steps of the adjustments."""
    return statistics_of(
        mixed(planes, inside.astype(np.float32), steps) if steps else planes, inside
    )


def make_waiting_fine(
    result: Rendered, context: RenderContext, step: Callable[[float], None]
) -> None:
    """Make the mattings that a preview waits for, and keep them; ``step`` is told the share done,
    and may raise to stop.
    """
    layers = layers_in(context)
    for number, sieve in enumerate(result.waiting):
        seen = measured(result.frame, result.seen, sieve.id, context, layers)
        make_fine(seen, sieve, context, progress.part_of(step, number, len(result.waiting)))
