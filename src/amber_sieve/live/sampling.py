"""Taking samples from a picture, and learning settings from them."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import replace
from typing import Any

import cv2
import numpy as np

from ..core.bands.starts import around
from ..core.colour.measures import hue_saturation_luminance
from ..core.colour.oklab import from_oklab, to_oklab
from ..core.frame import Frame, patch
from ..core.pick.fit import Fit, FitGroup, Settings, fit, spread_of
from ..core.pick.measured import (
    AS_IT_IS,
    SAME_LIGHT,
    Measuring,
    as_lit,
    as_taken,
    in_light,
    measured,
)
from ..core.pick.samples import membership, needs_planes
from ..core.pick.tolerance import steady_tolerance, thinned
from ..core.pick.tones import box_pixels, mean_at, stroke_pixels, tones_of
from ..errors import Trouble
from ..language import translator
from ..names import SEEN_BANDS
from ..project.model import Bands, Pick, Sample, Sieve
from ..render.context import RenderContext
from ..render.mask import probe_of
from ..render.mask import tones_of as tones_in
from ..render.measuring import in_its_light, oklab_of
from ..render.sure import FAINT, MOSTLY_SURE, SURE

translate = translator("live")


Points = Sequence[tuple[float, float]]
#: Pixels of one sample, and outside an outline, that a fit looks at.
LABELS = 600
#: Pixels of a picture among which those outside an outline are looked for.
GRID = 60_000
#: What a fit must gain in separation to change anything.
GAIN = 0.005


def _on_frame(frame: Frame, points: Points) -> np.ndarray:
    """Full-resolution points in pixels of a frame, (N, 2)."""
    return (np.array(points, float) - frame.origin) * frame.scale


def as_sampled(frame: Frame, points: Points, room: float, measuring: Measuring) -> Frame:
    """Return a frame for sampling round full-resolution points, ``room`` pixels to every side: a
    part without its grain where grain is removed for measuring, in the light picked in; else the
    frame itself.
    """
    if not measuring.grain and measuring.light == SAME_LIGHT:
        return frame
    on_frame = _on_frame(frame, points)
    far = room * frame.scale + measuring.support_radius + 1
    (left, top), (right, bottom) = on_frame.min(axis=0) - far, on_frame.max(axis=0) + far
    left, top = max(0, int(left)), max(0, int(top))
    right, bottom = min(frame.width, int(right) + 1), min(frame.height, int(bottom) + 1)
    if left >= right or top >= bottom:  # outside the picture, which the sample says
        return frame
    part = frame.part(left, top, right, bottom)
    if not measuring.grain:
        return replace(part, planes=in_light(part.planes, measuring))
    lab = measured(to_oklab(as_lit(part.planes, measuring)), measuring, part.corner)
    return replace(part, planes=as_taken(from_oklab(lab), measuring))


def pixels_of(sample: Sample, frame: Frame) -> np.ndarray:
    """The pixels a sample was taken from, (3, N) linear light.

    Raises
    ------
    Trouble: the place lies outside the picture.
    """
    if sample.place == "stroke":
        return stroke_pixels(
            frame.planes, _on_frame(frame, sample.points), sample.size * frame.scale
        )
    if sample.place == "box":
        return box_pixels(frame.planes, _on_frame(frame, sample.points))
    x, y = _on_frame(frame, [(sample.x, sample.y)])[0]
    try:
        return patch(frame.planes, x, y, max(1, round(sample.size * frame.scale)))
    except ValueError as error:
        raise Trouble(translate("No sample can be taken there: {error}.", error=error)) from None


def _taken(sample: Sample, frame: Frame) -> Sample:
    """The sample with the colour, and for boxes and strokes the tones, that this frame has at its
    place.
    """
    pixels = pixels_of(sample, frame)
    if sample.place == "patch":
        x, y = _on_frame(frame, [(sample.x, sample.y)])[0]
        return sample.but(
            colour=tuple(float(v) for v in mean_at(pixels, frame.planes[:, int(y), int(x)]))
        )
    mean = tuple(float(v) for v in pixels.mean(axis=1, dtype=np.float64))
    return sample.but(
        colour=mean, tones=tuple(tuple(float(v) for v in tone) for tone in tones_of(pixels))
    )


def sample_at(
    frame: Frame, x: float, y: float, size: int = 5, number: int = 0, **settings: Any
) -> Sample:
    """A sample of the ``size`` x ``size`` pixels round full-resolution (x, y).

    Raises
    ------
    Trouble: the point lies outside the picture.
    """
    return _taken(Sample(x=x, y=y, frame=number, size=size, colour=(0, 0, 0), **settings), frame)


def sample_along(
    frame: Frame, place: str, points: Points, width: int = 12, number: int = 0, **settings: Any
) -> Sample:
    """A sample of a box (two corners) or a stroke (its way), full-resolution pixels."""
    middle = np.mean(points, axis=0)
    held: dict[str, Any] = {
        "place": place,
        "points": tuple(points),
        "size": width,
        "frame": number,
        "colour": (0, 0, 0),
    }
    return _taken(Sample(x=float(middle[0]), y=float(middle[1]), **held, **settings), frame)


def taken_again(sample: Sample, frame: Frame) -> Sample:
    """The sample with the colour that its place has on this frame now."""
    return _taken(sample, frame)


def lab_for_tolerances(
    frame: Frame,
    within: np.ndarray | None,
    context: RenderContext,
    measuring: Measuring = AS_IT_IS,
) -> np.ndarray:
    """Return some pixels of a frame as they are measured, Oklab (3, h, w); see `thinned`."""
    if measuring != Measuring(passes=measuring.passes):
        return thinned(oklab_of(frame, context, measuring), within)
    return to_oklab(thinned(frame.planes, within))


def with_found_tolerance(
    sample: Sample,
    frame: Frame,
    pick: Pick,
    within: np.ndarray | None = None,
    context: RenderContext | None = None,
    measuring: Measuring = AS_IT_IS,
) -> Sample:
    """The sample with a tolerance of its own: where its mask holds still on this picture, or, of a
    box or stroke, its spread.

    Only samples compared by surface are searched for, others keep theirs. ``within`` (H, W) bool
    bounds what the mask is watched on.
    """
    if sample.compare != "surface":
        return sample
    if sample.place != "patch":
        return sample.but(tolerance=round(spread_of(_group(sample, pick, frame)), 2))
    lab = lab_for_tolerances(frame, within, context or RenderContext(), measuring)
    probe = in_its_light(probe_of(sample, pick), measuring)
    return sample.but(tolerance=round(steady_tolerance(lab, probe), 2))


def searched_again(sieve: Sieve, frame: Frame) -> Sieve:
    """A sieve from another picture with the tolerances of its samples found on this one: their
    colours stay.
    """

    def found(sample: Sample) -> Sample:
        alone = with_found_tolerance(sample.but(place="patch", points=()), frame, sieve.pick)
        return sample.but(tolerance=alone.tolerance)

    return sieve.but(
        pick=sieve.pick.but(samples=tuple(found(sample) for sample in sieve.pick.samples))
    )


def _group(sample: Sample, pick: Pick, frame: Frame) -> FitGroup:
    """A sample for the fit."""
    pixels = pixels_of(sample, frame)
    return FitGroup(tuple(tones_in(sample, pick)), _some_of(pixels))


def _some_of(pixels: np.ndarray) -> np.ndarray:
    """At most about ``LABELS`` of some pixels (3, N), as Oklab (3, 1, M)."""
    every = max(1, pixels.shape[1] // LABELS)
    return to_oklab(np.ascontiguousarray(pixels[:, None, ::every], np.float32))


def outside_of(outline: Points, frame: Frame) -> np.ndarray | None:
    """Pixels outside an outline, evenly spread, (3, 1, N) Oklab; None without one."""
    if len(outline) < 3:
        return None
    inside = np.zeros((frame.height, frame.width), np.uint8)
    cv2.fillPoly(inside, [np.rint(_on_frame(frame, outline)).astype(np.int32)], 1)
    # A grid of them is enough; all of a large picture would be copied for nothing.
    every = max(1, int((frame.width * frame.height / GRID) ** 0.5))
    outside = frame.planes[:, ::every, ::every][:, inside[::every, ::every] == 0]
    return _some_of(outside) if outside.shape[1] else None


#: Gives another frame of a clip by its number, as it is measured.
Frames = Callable[[int], Frame]


def _frame_of(sample: Sample, frame: Frame, number: int, frames: Frames | None) -> Frame:
    """The frame a sample was taken on."""
    return frame if frames is None or sample.frame == number else frames(sample.frame)


def fitted(
    pick: Pick, frame: Frame, number: int = 0, frames: Frames | None = None
) -> tuple[Pick, Fit]:
    """The pick with the tolerances, falloff, shading, gloss and weights that part what is kept from
    what is dropped best.

    Labels are the places of all samples compared by surface that reach everywhere, and what lies
    outside the outline; one that reaches only here has its own piece. A pick that parts them as
    well as it is stays as it is. ``frame`` is frame ``number``; samples of others are looked at on
    theirs, where ``frames`` gives them.

    Raises
    ------
    Trouble: there is no keep sample to learn from.
    """
    working = [
        s for s in pick.samples if s.on and s.compare == "surface" and s.reach == "everywhere"
    ]
    keeps, drops = (
        [sample for sample in working if sample.role == role] for role in ("keep", "drop")
    )
    if not keeps:
        raise Trouble(translate("There is nothing to fit to: take a keep sample by surface first."))
    groups = [
        [_group(sample, pick, _frame_of(sample, frame, number, frames)) for sample in samples]
        for samples in (keeps, drops)
    ]
    now = Settings(
        pick.shading / 100, pick.gloss / 100, pick.hue_weight / 100, pick.saturation_weight / 100
    )
    found = fit(groups[0], groups[1], now, outside_of(pick.outline, frame))
    if found.separation < found.before + GAIN:
        return pick, replace(found, separation=max(found.before, 0.0))
    tolerances = {
        sample.id: round(tolerance, 2)
        for sample, tolerance in zip(keeps, found.tolerances, strict=True)
    }
    samples = tuple(
        sample.but(
            tolerance=tolerances.get(sample.id, sample.tolerance), falloff=round(found.falloff, 2)
        )
        if sample in working
        else sample
        for sample in pick.samples
    )
    return pick.but(
        samples=samples, **{name: 100 * value for name, value in vars(found.settings).items()}
    ), found


def _surely_kept(pixels: np.ndarray, pick: Pick) -> np.ndarray:
    """Those of the pixels (3, N) of a keep sample that the samples surely keep: mixed ones, and
    what a drop sample takes, say nothing of the surface. All of them where hardly any is sure.
    """
    every = [
        probe
        for sample in pick.samples
        if sample.on
        for probe in tones_in(sample, pick)
        if not needs_planes([probe])
    ]
    if not every:
        return pixels
    kept = membership(to_oklab(np.ascontiguousarray(pixels[:, None], np.float32)), every)[0]
    sure = kept >= SURE * kept.max()
    return pixels[:, sure] if kept.max() > FAINT and sure.mean() >= MOSTLY_SURE else pixels


def bands_from_samples(
    pick: Pick, bands: Bands, frame: Frame, number: int = 0, frames: Frames | None = None
) -> Bands:
    """Hue, saturation and luminance bands round what the kept samples surely hold.

    Raises
    ------
    Trouble: there is no keep sample.
    """
    kept = [
        _surely_kept(pixels_of(sample, _frame_of(sample, frame, number, frames)), pick)
        for sample in pick.samples
        if sample.on and sample.role == "keep"
    ]
    if not kept:
        raise Trouble(
            translate("There is nothing to set the bands from: take a keep sample first.")
        )
    pixels = np.ascontiguousarray(np.concatenate(kept, axis=1)[:, None], np.float32)
    corners = around(*hue_saturation_luminance(pixels, to_oklab(pixels))[:, 0])
    changes = {
        name: getattr(bands, name).but(on=True, inverted=False, corners=corners[name])
        for name in SEEN_BANDS
    }
    return bands.but(**changes, ramp=bands.ramp.but(on=False))
