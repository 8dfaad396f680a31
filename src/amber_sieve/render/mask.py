"""The mask of one sieve: qualify (samples times bands), connected only, invert, edge, areas."""

from __future__ import annotations

from collections.abc import Callable, Hashable, Iterator, Sequence
from dataclasses import replace

import numpy as np

from ..core.areas.shapes import combined
from ..core.bands.apply import bands_mask
from ..core.bands.interval import Interval, luminance_ramp
from ..core.colour.oklab import to_oklab
from ..core.edge.box import NOTHING, box_of
from ..core.edge.colour_share import ColourShare
from ..core.edge.feather import hardened
from ..core.edge.temporal_average import temporal_average
from ..core.frame import Frame
from ..core.motion.movement import to_grey8
from ..core.pick.cached_distances import CachedDistances, distances_to_each, membership_of_known
from ..core.pick.connected import connected_only
from ..core.pick.measured import AS_IT_IS, Measuring, in_light
from ..core.pick.pieces import Reaching, with_pieces
from ..core.pick.samples import SampleParams, membership_and_distances, needs_planes
from ..names import BANDS, CHANNEL_BANDS
from ..progress import part_of
from ..project.model import Bands, Pick, Sample, Sieve
from .areas import area_coverage
from .cache import Cache
from .clicked import clicked_places, place_of, seeds_of
from .context import RenderContext
from .edge import Edged, edge_of, outline_worked, unmixing_worked
from .keys import MaskKey, picked_key
from .masked import Masked
from .measuring import in_its_light, measures_from, measures_of, measuring_for, oklab_of
from .resolved import found_of
from .stages.edging import OnShare, Working
from .stages.every import STEADY
from .stages.unmixing import fine_key

#: Frames with more pixels than this are measured strip by strip, so that memory stays small.
LARGE = 3_000_000
#: But while something is dragged, only those with more than this: what they are measured in stays
#: from step to step.
LARGE_DRAGGED = 12_000_000
#: Bytes that the distances from all samples may take while something is dragged.
MOST_KNOWN = 120_000_000
#: Rows of a strip: all that it needs lies in the processor's cache.
ROWS = 256


def probe_of(sample: Sample, pick: Pick) -> SampleParams:
    """A sample of the model as the kernels take it."""
    return SampleParams(
        colour=sample.colour,
        keep=sample.role == "keep",
        compare=sample.compare,
        tolerance=sample.tolerance,
        falloff=sample.falloff,
        shading=pick.shading / 100,
        gloss=pick.gloss / 100,
        hue_weight=pick.hue_weight / 100,
        saturation_weight=pick.saturation_weight / 100,
        shape=sample.shape,
        bend=sample.bend,
        competes=sample.role == "drop" and sample.rule == "nearer",
    )


def tones_of(sample: Sample, pick: Pick) -> list[SampleParams]:
    """A sample for the kernels: one that was scribbled or boxed stands there once for each of its
    tones.
    """
    return [
        replace(probe_of(sample, pick), colour=tone) for tone in (sample.tones or (sample.colour,))
    ]


def probes_of(pick: Pick) -> list[SampleParams]:
    """All working samples that reach everywhere."""
    return [
        probe
        for sample in pick.samples
        if sample.on and sample.reach == "everywhere"
        for probe in tones_of(sample, pick)
    ]


def here_only(pick: Pick) -> list[Sample]:
    """All working samples that reach only the piece at their place."""
    return [sample for sample in pick.samples if sample.on and sample.reach == "here"]


def intervals_of(bands: Bands) -> list[Interval]:
    """The bands that are on, as the kernels take them."""
    pairs = [(name, getattr(bands, name)) for name in BANDS]
    intervals = [
        Interval(name, band.corners, band.inverted, band.shape, band.bend)
        for name, band in pairs
        if band.on and not (name == "luminance" and bands.ramp.on)
    ]
    if bands.ramp.on:
        intervals.append(luminance_ramp(bands.ramp.black, bands.ramp.white, bands.ramp.inverse))
    return intervals


def _by_strips(
    frame: Frame,
    measuring: Measuring,
    context: RenderContext,
    work: Callable[[Frame, RenderContext], np.ndarray],
) -> np.ndarray:
    """Planes (…, H, W) that depend on single pixels, worked out on the whole frame or, where that
    is large, strip by strip.
    """
    if frame.width * frame.height <= (LARGE_DRAGGED if context.interactive else LARGE):
        return work(frame, context)
    strips = []
    lap = measuring.support_radius
    for top in range(0, frame.height, ROWS):
        bottom = min(top + ROWS, frame.height)
        first, last = max(0, top - lap), min(frame.height, bottom + lap)
        strip = work(frame.part(0, first, frame.width, last), RenderContext())
        strips.append(strip[..., top - first : bottom - first, :])
    return np.concatenate(strips, axis=-2)


def _measured_by(
    frame: Frame,
    probes: list[SampleParams],
    groups: list[list[SampleParams]],
    context: RenderContext,
    measuring: Measuring,
    intervals: Sequence[Interval] = (),
) -> np.ndarray:
    """The mask of some samples, times some bands, and the distances from some groups, (1 + number
    of groups, H, W).
    """

    def work(part: Frame, held: RenderContext) -> np.ndarray:
        lit = [in_its_light(probe, measuring) for probe in probes]
        groups_lit = [[in_its_light(probe, measuring) for probe in group] for group in groups]
        every = [*lit, *(probe for group in groups_lit for probe in group)]
        lab = oklab_of(part, held, measuring)
        extra = measures_of(part, held, measuring=measuring) if needs_planes(every) else None
        known = (
            _distances_while_dragged(part, lab, lit, extra, held, measuring) if not groups else None
        )
        mask, distances = (
            membership_and_distances(lab, lit, groups_lit, extra)
            if known is None
            else (membership_of_known(known, lit), lab[:0])
        )
        if intervals:
            _through_bands(part, lab, mask, intervals, held, measuring)
        return np.concatenate([mask[None], distances]) if groups else mask[None]

    return _by_strips(frame, measuring, context, work)


def _distances_while_dragged(
    part: Frame,
    lab: np.ndarray,
    probes: list[SampleParams],
    extra: np.ndarray | None,
    context: RenderContext,
    measuring: Measuring,
) -> CachedDistances | None:
    """Return how far every pixel lies from each of some samples, where a drag asks for it again and
    again: that of a tolerance changes none of it.
    """
    if not context.interactive or not probes or len(probes) * lab[0].nbytes > MOST_KNOWN:
        return None
    key = (
        "distances",
        part.key,
        measuring,
        tuple(
            replace(p, tolerance=0, falloff=0, keep=True, competes=False, shape="linear", bend=0)
            for p in probes
        ),
    )
    return (
        context.get(key, lambda: distances_to_each(lab, probes, extra))
        if context.asked_before(key)
        else None
    )


def _through_bands(
    part: Frame,
    lab: np.ndarray,
    mask: np.ndarray,
    intervals: Sequence[Interval],
    context: RenderContext,
    measuring: Measuring,
) -> None:
    """Multiply a mask by some bands, in place. Where nothing is kept for later, only what the mask
    holds is measured.
    """
    channels = any(interval.measure in CHANNEL_BANDS for interval in intervals)
    if not context.once and not context.keeps_nothing:
        mask *= bands_mask(measures_of(part, context, channels, measuring), intervals)
        return
    box = box_of(mask, NOTHING, 0)
    if box is not None:
        planes, there = (
            in_light(np.ascontiguousarray(part.planes[:, *box]), measuring),
            np.ascontiguousarray(lab[:, *box]),
        )
        there = there if measuring.flat is None else to_oklab(planes)
        mask[box] *= bands_mask(measures_from(planes, there, channels), intervals)


def distance_plane(
    frame: Frame,
    probes: list[SampleParams],
    context: RenderContext,
    measuring: Measuring = AS_IT_IS,
) -> np.ndarray:
    """Return how far every pixel of a frame lies from the nearest of some samples, (H, W), in the
    units of their comparison.
    """
    plane: np.ndarray = _measured_by(frame, [], [probes], context, measuring)[1]
    return plane


def samples_mask(
    frame: Frame,
    pick: Pick,
    context: RenderContext,
    measuring: Measuring = AS_IT_IS,
    intervals: Sequence[Interval] = (),
) -> np.ndarray:
    """Return the mask of a pick's samples, (H, W): those that reach everywhere, then the pieces of
    those that do not, in their order; all times some bands.
    """
    probes, here = probes_of(pick), here_only(pick)
    # What a here-only sample drops must lie nearer to it than to any keep sample compared alike.
    competing = list(
        dict.fromkeys(
            sample.compare for sample in here if sample.role == "drop" and sample.rule == "nearer"
        )
    )
    rivals = {
        compare: [p for p in probes if p.keep and p.compare == compare] for compare in competing
    }
    groups = [*(tones_of(sample, pick) for sample in here), *rivals.values()]
    if not here:
        return _measured_by(frame, probes, groups, context, measuring, intervals)[0]
    planes = _measured_by(frame, probes, groups, context, measuring)
    rival_planes = dict(zip(rivals, planes[1 + len(here) :], strict=True))
    pieces = [
        Reaching(
            near, place_of(s, frame), s.role == "keep", s.tolerance, s.falloff,
            rival_planes.get(s.compare) if s.role == "drop" and s.rule == "nearer" else None,
        )
        for s, near in zip(here, planes[1:], strict=False)
    ]  # fmt: skip
    mask = with_pieces(planes[0], pieces)
    return mask * banded(frame, intervals, context, measuring) if intervals else mask


def banded(
    frame: Frame,
    intervals: Sequence[Interval],
    context: RenderContext,
    measuring: Measuring = AS_IT_IS,
) -> np.ndarray:
    """Return the mask of some bands, (H, W)."""
    channels = any(interval.measure in CHANNEL_BANDS for interval in intervals)
    return _by_strips(
        frame,
        measuring,
        context,
        lambda part, held: bands_mask(measures_of(part, held, channels, measuring), intervals),
    )


def qualified(
    frame: Frame, pick: Pick, bands: Bands, context: RenderContext, measuring: Measuring = AS_IT_IS
) -> np.ndarray:
    """Return the mask of a sieve's samples and bands, (H, W), with neither, nothing."""
    intervals = intervals_of(bands)
    sampled = any(sample.on and sample.role == "keep" for sample in pick.samples)
    by_samples = sampled or not intervals
    out = (
        samples_mask(frame, pick, context, measuring, intervals)
        if by_samples
        else banded(frame, intervals, context, measuring)
    )
    if not pick.transparent and frame.alpha is not None:
        out = out * (frame.alpha > 0)
    return out


def raw_mask(frame: Frame, sieve: Sieve, context: RenderContext) -> np.ndarray:
    """Qualified, connected only, inverted: the mask before its edge is worked on. Read only."""
    key = ("qualified", frame.key, sieve.pick, sieve.bands, measuring_for(frame, sieve))

    def make() -> np.ndarray:
        return _narrowed(frame, sieve, context.get(key, lambda: _qualified(frame, sieve, context)))

    return context.get(("picked", frame.key, picked_key(sieve)), make)


def _qualified(frame: Frame, sieve: Sieve, context: RenderContext) -> np.ndarray:
    return qualified(frame, sieve.pick, sieve.bands, context, measuring_for(frame, sieve))


def _narrowed(frame: Frame, sieve: Sieve, mask: np.ndarray) -> np.ndarray:
    """A qualified mask, connected only, inverted."""
    if sieve.pick.connected and sieve.pick.samples:
        mask = connected_only(mask, seeds_of(sieve.pick, frame), sieve.pick.bridge * frame.scale)
    return np.subtract(1, mask) if sieve.invert else mask


def _picked_once(frame: Frame, sieve: Sieve, context: RenderContext) -> np.ndarray | None:
    """The same, nobody else's, where it is not asked for again: by a step of a drag that changes
    it. None where it may be.
    """
    if not context.interactive or context.asked_before(("picked", frame.key, picked_key(sieve))):
        return None
    return _narrowed(frame, sieve, _qualified(frame, sieve, context))


def final_mask(frame: Frame, sieve: Sieve, context: RenderContext) -> Masked:
    """The finished mask of a sieve over a frame, before outside level and strength.

    ``frame`` is what the sieve measures. Connected only, islands and holes need all of the frame to
    be there.
    """

    def make() -> Masked:
        steady = sieve.edge.steady and frame.near is not None
        edged = _steady(frame, sieve, context) if steady else _edged(frame, sieve, context, context)
        mask, colour = with_areas(frame, edged.mask, sieve, context), edged.colour
        if mask is not edged.mask and colour is not None:
            colour = _within_areas(colour, frame, sieve, context)
        return Masked(mask, edged.unmixed, colour)

    return context.get(
        MaskKey(frame.key, picked_key(sieve), sieve.edge, sieve.areas, found_of(sieve).around), make
    )


def _on_the_way(
    frame: Frame,
    sieve: Sieve,
    context: RenderContext,
    step: OnShare | None,
    mask: np.ndarray | None = None,
) -> Working:
    """The mask of a frame by itself, before its edge is worked on, or as far as it was worked
    already.
    """
    owned = _picked_once(frame, sieve, context) if mask is None else None
    mask = owned if owned is not None else raw_mask(frame, sieve, context) if mask is None else mask
    clicked, key = clicked_places(sieve.pick, frame), picked_key(sieve)
    return Working(
        frame,
        STEADY.kept(sieve.edge),
        mask,
        clicked,
        owned=owned,
        context=context,
        key=key,
        step=step,
    )


def refined_key(sieve: Sieve) -> Hashable:
    """Return what `refined_mask` depends on besides the frame."""
    return picked_key(sieve), STEADY.kept(sieve.edge)


def refined_mask(frame: Frame, sieve: Sieve, context: RenderContext) -> np.ndarray:
    """The mask of a frame by itself after the stages that may have to see all of it: all but
    unmixing and areas. Read only.
    """
    return outline_worked(_on_the_way(frame, sieve, context, None))


def _edged_key(frame: Frame, sieve: Sieve) -> tuple[object, ...]:
    """Under what the mask of a frame by itself, with its edge worked on, is kept."""
    return ("edged", frame.key, picked_key(sieve), STEADY.kept(sieve.edge))


def _edged(
    frame: Frame,
    sieve: Sieve,
    context: RenderContext,
    held: Cache | RenderContext,
    step: OnShare | None = None,
) -> Edged:
    """The mask of a frame by itself, with its edge worked on; kept in ``held``, its stages in
    ``context``.
    """

    def make() -> Edged:
        whole = context.refined.get(refined_key(sieve))
        if whole is None:
            return edge_of(_on_the_way(frame, sieve, context, step))
        return unmixing_worked(
            _on_the_way(
                frame, sieve, context, step, whole.part(*frame.corner, frame.height, frame.width)
            )
        )

    return held.get(_edged_key(frame, sieve), make)


#: Frames around that steady a mask, the latest first: of frames that are worked side by side each
#: then makes what no other has made.
NEIGHBOURS = (3, 2, 1, -1, -2, -3)


def _neighbours(frame: Frame, sieve: Sieve) -> Iterator[tuple[Frame, Sieve]]:
    """The frames around, and the sieve as it stands there; none where the picture is no footage, or
    not as it came.
    """
    for away, pick in zip(
        NEIGHBOURS, found_of(sieve).around or (sieve.pick,) * len(NEIGHBOURS), strict=True
    ):
        other = frame.near(away) if frame.near is not None else None
        if other is not None and pick is not None:
            yield other, sieve.but(pick=pick)


def _steady(frame: Frame, sieve: Sieve, context: RenderContext) -> Edged:
    """The mask of a frame temporal_average by those of the frames around."""
    held = context.across

    def levels(one: Frame) -> np.ndarray:
        return held.get(("levels", one.key), lambda: to_grey8(one.planes))

    # Of other frames nothing but the mask is kept: it is all that is asked for again.
    others = (
        (levels(other), _edged(other, there, RenderContext(), held).mask)
        for other, there in _neighbours(frame, sieve)
    )
    edged = _edged(frame, sieve, context, held)
    mask = temporal_average(levels(frame), edged.mask, others, sieve.edge.steady / 100)
    if sieve.edge.hard:
        mask = hardened(mask)
    unmixed = edged.unmixed.with_mask(mask) if edged.unmixed is not None else None
    return Edged(mask, unmixed, edged.colour)


def waits_for_fine(frame: Frame, sieve: Sieve, context: RenderContext) -> bool:
    """Return whether the mask of a sieve needs a matting that has not been made yet, of its frame
    or of those that steady it.
    """
    if not sieve.edge.fine:
        return False
    around = _neighbours(frame, sieve) if sieve.edge.steady else ()
    held = (context.across.holds(_edged_key(other, there)) for other, there in around)
    return not (context.holds(fine_key(frame, picked_key(sieve), sieve.edge)) and all(held))


def make_fine(frame: Frame, sieve: Sieve, context: RenderContext, step: OnShare) -> None:
    """Make the mattings that the mask of a sieve waits for, and keep them."""
    around = list(_neighbours(frame, sieve)) if sieve.edge.steady else []
    for number, (other, there) in enumerate(around):
        _edged(
            other, there, RenderContext(), context.across, part_of(step, number, len(around) + 1)
        )
    told = part_of(step, len(around), len(around) + 1)
    edge_of(_on_the_way(frame, sieve, context, told))


def with_areas(frame: Frame, mask: np.ndarray, sieve: Sieve, context: RenderContext) -> np.ndarray:
    """The mask with its areas; an area on a sieve that picks nothing starts from an empty mask, or
    a full one to cut from.
    """
    working = [area for area in sieve.areas if area.on]
    if not working:
        return mask
    nothing_picked = (
        not any(sample.on for sample in sieve.pick.samples)
        and not sieve.bands.active
        and not sieve.invert
    )
    if nothing_picked and working[0].mode != "add":
        mask = np.ones_like(mask)
    for area in working:
        covered = area_coverage(frame, area, context)
        mask = combined(mask, 1 - covered if area.inverted else covered, area.mode)
    return mask


def _within_areas(
    colour: ColourShare, frame: Frame, sieve: Sieve, context: RenderContext
) -> ColourShare | None:
    """The share of the colour where the areas of a sieve let anything be; None where an area masks
    pixels of its own.
    """
    if any(area.on and area.mode == "add" for area in sieve.areas):
        return None
    everything = np.ones((frame.height, frame.width), np.float32)
    return colour.limited(with_areas(frame, everything, sieve, context))


def bounds_of(frame: Frame, sieve: Sieve, context: RenderContext) -> np.ndarray | None:
    """Return where the areas of a sieve let anything be, (H, W) bool: colours are learnt from there
    alone. None without areas.
    """
    if not any(area.on and area.mode != "add" for area in sieve.areas):
        return None
    return context.get(
        ("bounds", frame.key, sieve.areas),
        lambda: (
            with_areas(frame, np.ones((frame.height, frame.width), np.float32), sieve, context)
            > 0.5
        ),
    )


def mask_of(frame: Frame, sieve: Sieve, context: RenderContext) -> np.ndarray:
    """The finished mask alone, (H, W) float32 in 0 to 1. Read only."""
    return final_mask(frame, sieve, context).mask
