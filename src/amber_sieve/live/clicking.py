"""Evaluate a click: the sample it adds proposes its own tolerance and reach from what it changes;
window and terminal both ask here.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from ..core.colour.oklab import from_oklab
from ..core.frame import Frame
from ..core.pick.measured import Measuring, as_taken
from ..core.pick.pieces import HALF
from ..core.pick.propose import LOWEST, propose_drop, propose_here, propose_keep
from ..core.pick.tolerance import Steadiness
from ..language import translator
from ..names import Reach, drop_rule_for
from ..project import edits
from ..project.model import Pick, Sample, Sieve
from ..render.clicked import place_of
from ..render.context import RenderContext
from ..render.mask import bounds_of, distance_plane, probe_of, probes_of, samples_mask, tones_of
from ..render.measuring import in_its_light, measuring_for, oklab_of
from .sampling import lab_for_tolerances, with_found_tolerance

translate = translator("live")


#: Proposals are looked for on about this many pixels; more do not change them.
PROPOSED_ON = 400_000
#: A click so near to the one before, full-resolution pixels, is on the same place.
AGAIN = 8.0
#: A larger size is one whose tolerance is larger by this much.
NEXT = 1.15
#: A place is held by a click when that changes at most this many times as much: by a first click,
#: and by one that adds to others,
HOLDS_FIRST, HOLDS_LATER = 3.0, 1.5
#: and this share of the picture.
HOLDS_LEAST = 0.002
#: A click that changes less than this share of the picture says why.
NOTHING = 1e-5
#: A keep sample adds less than it should when drop samples hold back more than this share of what
#: it added.
HELD_BACK = 0.25


def looked_at(width: int, height: int) -> int:
    """By what whole factor a picture of some size is reduced to look for proposals."""
    return max(1, round((width * height / PROPOSED_ON) ** 0.5))


@dataclass(frozen=True)
class Clicked:
    """The outcome of a click.

    Attributes
    ----------
    sample : the new sample, with the tolerance and reach found for it.
    added, removed : shares of the picture that the samples now take, and no longer take.
    why : why nothing has changed, "" when something has.
    sizes : tolerances at which the mask of a first sample holds still; a click on the same place
        goes on to the next.
    held_back : share of the picture that a keep sample would take by itself, but that drop samples
        hold back.
    picked_on : the colours of the picture, of a first sample; see `core.pick.light`.
    replaced : how many samples a new pick has thrown away.
    """

    sample: Sample
    added: float
    removed: float
    why: str
    sizes: tuple[float, ...] = ()
    held_back: float = 0.0
    picked_on: str = ""
    replaced: int = 0

    @property
    def adds_less(self) -> bool:
        """Return whether drop samples hold back enough of it to be worth saying."""
        return self.held_back >= NOTHING and self.held_back > HELD_BACK * self.added


def _value_at(plane: np.ndarray, place: tuple[float, float]) -> float:
    """The value of a plane at a place, or at the pixel nearest to it."""
    x, y = (
        int(np.clip(at, 0, size - 1)) for at, size in zip(place, plane.shape[::-1], strict=True)
    )
    return float(plane[y, x])


def _taken(frame: Frame, pick: Pick, context: RenderContext, measuring: Measuring) -> np.ndarray:
    """Return the mask of a pick's samples, (H, W). Read only; kept, for the next click begins where
    this one ended.
    """
    return context.get(
        ("samples take", frame.key, pick, measuring),
        lambda: samples_mask(frame, pick, context, measuring),
    )


def _dropped_here(
    pick: Pick,
    place: tuple[float, float],
    frame: Frame,
    context: RenderContext,
    measuring: Measuring,
) -> bool:
    """Return whether a place lies in a piece that a here-only drop sample took out."""
    others = tuple(s for s in pick.samples if not (s.on and s.role == "drop" and s.reach == "here"))
    if (
        len(others) == len(pick.samples)
        or _value_at(_taken(frame, pick, context, measuring), place) > HALF
    ):
        return False
    return _value_at(_taken(frame, pick.but(samples=others), context, measuring), place) > HALF


def proposed(
    sample: Sample,
    pick: Pick,
    frame: Frame,
    context: RenderContext,
    measuring: Measuring,
    within: np.ndarray | None = None,
    reach: Reach | None = None,
) -> Sample:
    """A sample that is added to a pick, with the tolerance and reach that do most good at its place
    and least harm elsewhere.

    The first one, and one by another comparison than by surface, gets a tolerance alone. ``within``
    (H, W) bool bounds what is watched; ``reach`` is a person's own.
    """
    sample = sample.but(reach=reach or sample.reach)

    def alone() -> Sample:
        return with_found_tolerance(sample, frame, pick, within, context, measuring)

    first = not any(other.on and other.role == "keep" for other in pick.samples)
    if sample.compare != "surface" or (first and reach != "here"):
        return alone()
    place, keep = place_of(sample, frame), sample.role == "keep"
    masked = _taken(frame, pick, context, measuring) > HALF
    distance = distance_plane(frame, tones_of(sample, pick), context, measuring)
    kept = [place_of(s, frame) for s in pick.samples if s.on and s.role == "keep"]
    if reach == "here":
        found = propose_here(distance, masked, place, keep, kept)
    elif keep:
        found = propose_keep(
            distance,
            masked,
            place,
            sample.falloff,
            _dropped_here(pick, place, frame, context, measuring),
        )
    else:
        rivals = [p for p in probes_of(pick) if p.keep and p.compare == sample.compare]
        found = propose_drop(
            distance,
            distance_plane(frame, rivals, context, measuring),
            masked,
            place,
            kept,
            lambda: alone().tolerance,
        )
    tolerance = (
        min(found.tolerance, LOWEST) if found.here and reach == "everywhere" else found.tolerance
    )
    return sample.but(
        tolerance=round(tolerance, 2), reach=reach or ("here" if found.here else "everywhere")
    )


def clicked(
    sieve: Sieve,
    sample: Sample,
    frame: Frame,
    context: RenderContext,
    fresh: bool = False,
    reach: Reach | None = None,
    tolerance: float | None = None,
) -> Clicked:
    """Return the outcome of adding a sample to a sieve by a click.

    Parameters
    ----------
    sieve : as it stands on the frame, its amounts found (`render.automatic`).
    sample : as taken from the picture.
    frame : the whole of what the sieve measures, reduced by about `looked_at`.
    fresh : it starts over, in place of all others.
    reach, tolerance : a person's own; what is None is found.
    """
    before = sieve.pick.samples
    if fresh:
        sieve = edits.with_samples(sieve, ())
    measuring = measuring_for(frame, sieve)
    sample = sample.but(rule=drop_rule_for(sample.compare))
    sizes: tuple[float, ...] = ()
    if tolerance is not None:
        sample = sample.but(tolerance=tolerance, reach=reach or "everywhere")
    elif (
        sample.compare == "surface"
        and sample.place == "patch"
        and reach != "here"
        and not sieve.pick.samples
    ):
        steady = Steadiness(
            lab_for_tolerances(frame, bounds_of(frame, sieve, context), context, measuring),
            in_its_light(probe_of(sample, sieve.pick), measuring),
        )
        sizes, sample = (
            steady.sizes,
            sample.but(tolerance=round(steady.tolerance, 2), reach=reach or sample.reach),
        )
        sample = sample.but(tolerance=_next_size(sample, before, sizes))
    else:
        sample = proposed(
            sample, sieve.pick, frame, context, measuring, bounds_of(frame, sieve, context), reach
        )
    if tolerance is None and sample.place == "patch":
        sample = _held_to_its_place(sample, sieve, frame, context, measuring, reach)
    after = edits.with_sample(sieve, sample)
    old, new = (_taken(frame, one.pick, context, measuring) for one in (sieve, after))
    change = new - old
    added, removed = float(np.maximum(change, 0).mean()), float(np.maximum(-change, 0).mean())
    why = "" if max(added, removed) >= NOTHING else _why(sample, sieve, frame, old)
    inside = _value_at(old, place_of(sample, frame)) > HALF
    return Clicked(
        sample,
        added,
        removed,
        why,
        sizes,
        0.0 if inside else _held_back(after.pick, sample, frame, context, measuring, new),
    )


def _held_to_its_place(
    sample: Sample,
    sieve: Sieve,
    frame: Frame,
    context: RenderContext,
    measuring: Measuring,
    reach: Reach | None,
) -> Sample:
    """Return a sample that a click adds, with the least change that makes the clicked place its
    own: a larger tolerance, the reach of the last word, or the colour of the pixel itself.
    """
    place, keep = place_of(sample, frame), sample.role == "keep"
    before = float(_taken(frame, sieve.pick, context, measuring).sum())

    def outcome(tried: Sample) -> tuple[bool, float]:
        taken = _taken(frame, edits.with_sample(sieve, tried).pick, context, measuring)
        return (_value_at(taken, place) >= HALF) == keep, abs(float(taken.sum()) - before)

    held, changed = outcome(sample)
    if held:
        return sample
    away = _value_at(distance_plane(frame, tones_of(sample, sieve.pick), context, measuring), place)
    wider = sample.but(tolerance=max(sample.tolerance, math.ceil(100 * away) / 100))
    times = HOLDS_LATER if sieve.pick.samples else HOLDS_FIRST
    most = times * changed + HOLDS_LEAST * frame.width * frame.height
    for tried in (wider, wider.but(reach="here")) if reach is None else (wider,):
        held, changes = outcome(tried)
        if held and changes <= most:
            return tried
    # The colour of the very pixel, of its own piece alone, takes least.
    alone = sample.but(colour=_colour_at(frame, place, context, measuring), reach="here")
    alone = alone.but(tolerance=LOWEST, tones=())
    return alone if reach is None and outcome(alone)[0] else sample


def _colour_at(
    frame: Frame, place: tuple[float, float], context: RenderContext, measuring: Measuring
) -> tuple[float, float, float]:
    """The linear light of the pixel at a place, without its noise."""
    lab = oklab_of(frame, context, measuring)
    x, y = (int(np.clip(at, 0, size - 1)) for at, size in zip(place, lab.shape[:0:-1], strict=True))
    light = from_oklab(np.ascontiguousarray(lab[:, y : y + 1, x : x + 1]))
    light = as_taken(light, measuring)
    red, green, blue = (float(value) for value in light.ravel())
    return red, green, blue


def _held_back(
    pick: Pick,
    sample: Sample,
    frame: Frame,
    context: RenderContext,
    measuring: Measuring,
    mask: np.ndarray,
) -> float:
    """Share of a frame that a new keep sample of a pick would take by itself, but that the mask of
    all samples does not hold.
    """
    if sample.role != "keep" or not any(
        other.on and other.role == "drop" for other in pick.samples
    ):
        return 0.0
    alone = samples_mask(frame, pick.but(samples=(sample,)), context, measuring)
    return float(np.maximum(alone - mask, 0).mean())


def _next_size(sample: Sample, before: Sequence[Sample], sizes: Sequence[float]) -> float:
    """The tolerance of a click: its own, or where it falls on the place of the only sample there
    was, the next size at which the mask holds still; after the last one its own again.
    """
    if (
        len(before) != 1
        or before[0].reach != "everywhere"
        or before[0].compare != sample.compare
        or before[0].frame != sample.frame
    ):
        return sample.tolerance
    if max(abs(before[0].x - sample.x), abs(before[0].y - sample.y)) > AGAIN:
        return sample.tolerance
    return next((size for size in sizes if size > NEXT * before[0].tolerance), sample.tolerance)


def _why(sample: Sample, sieve: Sieve, frame: Frame, before: np.ndarray) -> str:
    """Why a sample changes nothing of what the samples take, and what Follow makes of it."""
    inside, keep = _value_at(before, place_of(sample, frame)) > HALF, sample.role == "keep"
    if keep and not inside:
        return translate("Nothing added: no pixel is near enough.")
    if inside and not keep:
        return translate(
            "Nothing removed: all of it lies nearer to a keep sample; try here only (R)."
        )
    follows = sieve.edge.follow != 0
    if keep:
        said = translate("Nothing added: this place is held already.")
        return f"{said} {translate('Follow keeps it in from now on.')}" if follows else said
    said = translate("Nothing removed: no sample holds this place.")
    return f"{said} {translate('Follow leaves it out from now on.')}" if follows else said
