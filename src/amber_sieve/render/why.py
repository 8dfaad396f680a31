"""Why a pixel is in a mask or not: what decided it at every stage, and which control would change
it.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

import numpy as np

from ..core.colour.measures import hue_saturation_luminance
from ..core.colour.oklab import to_oklab
from ..core.colour.transfer import to_levels
from ..core.frame import Frame
from ..core.pick.measured import SAME_LIGHT
from ..core.pick.pieces import HALF
from ..core.pick.samples import FARTHEST, SampleParams, distance_to, membership
from ..language import decimals, mid_sentence, named, translator
from ..names import BANDS, MEASURES, TOLERANCES
from ..project.model import Project, Sample, Sieve
from .areas import area_coverage
from .context import RenderContext
from .evaluate import measured, sieve_masked
from .layers import Layers, no_layers
from .mask import final_mask, qualified, raw_mask, samples_mask, tones_of, with_areas
from .measuring import measuring_for
from .stages.every import EDGE

translate = translator("render")


#: Values of a mask that differ by less are the same to a person.
SAME = 0.005


def _per_cent(value: float) -> str:
    return decimals(f"{100 * value:.0f} %")


def _name(sample: Sample, number: int) -> str:
    return sample.name or f"{sample.role} {number}"


class _Pixel:
    """One pixel of what a sieve measures, with the stages of its mask."""

    def __init__(self, frame: Frame, sieve: Sieve, x: int, y: int, context: RenderContext) -> None:
        self.frame, self.sieve, self.context = frame, sieve, context
        self.row = int(np.clip((y + 0.5 - frame.origin[1]) * frame.scale, 0, frame.height - 1))
        self.column = int(np.clip((x + 0.5 - frame.origin[0]) * frame.scale, 0, frame.width - 1))
        light = np.ascontiguousarray(
            frame.planes[:, self.row, self.column].reshape(3, 1, 1), np.float32
        )
        self.lab = to_oklab(light)
        self.measures = np.concatenate(
            [hue_saturation_luminance(light, self.lab), to_levels(light)]
        )

    def of(self, plane: np.ndarray) -> float:
        """The value of a plane (H, W) there."""
        return float(plane[self.row, self.column])

    def distance(self, sample: Sample) -> float:
        """Return how far it lies from a sample, in the units of its comparison."""
        return float(distance_to(self.lab, tones_of(sample, self.sieve.pick), self.measures)[0, 0])


def _of_samples(pixel: _Pixel) -> list[str]:
    """Explain the nearest keep and drop samples."""
    rows = [
        (pixel.distance(sample), number, sample)
        for number, sample in enumerate(pixel.sieve.pick.samples, 1)
        if sample.on
    ]  # a tie is decided by the order in which they were taken
    # The keep sample that decides is the one whose tolerance goes farthest beyond the pixel; a drop
    # sample competes by its distance.
    keeps = sorted(
        (row for row in rows if row[2].role == "keep"), key=lambda row: row[0] - row[2].tolerance
    )
    nearest = {
        "keep": keeps[0] if keeps else None,
        "drop": min((row for row in rows if row[2].role == "drop"), default=None),
    }
    closest = min((row[0] for row in keeps), default=0.0)
    lines = []
    for role, near in nearest.items():
        if near is None:
            continue
        distance, number, sample = near
        unit, name = TOLERANCES[sample.compare][1], _name(sample, number)
        most = sample.tolerance + (0 if sample.shape == "hard" else sample.falloff)
        where = translate(" (only where it was taken)") if sample.reach == "here" else ""
        away = (
            decimals(f"{distance:.1f}{unit}")
            if distance < FARTHEST
            else translate("more than can be measured")
        )
        line = translate(
            "The {role} sample that decides is {name}{where}, at a distance of {away} by "
            "{compare}; its tolerance is {tolerance:g}",
            role=mid_sentence(named(role)),
            name=name,
            where=where,
            away=away,
            compare=mid_sentence(named(sample.compare)),
            tolerance=sample.tolerance,
        )
        competes = role == "drop" and sample.rule == "nearer" and nearest["keep"] is not None
        if competes and nearest["keep"] is not None:
            farther = distance - closest
            side = (
                translate("nearer than the keep sample, so it takes this pixel out")
                if farther < 0
                else translate("farther than the keep sample, so it leaves this pixel in")
            )
            lines.append(
                translate(
                    "{line}. It is {farther:.1f} {side}.",
                    line=line,
                    farther=abs(farther),
                    side=side,
                )
            )
        elif distance <= sample.tolerance:
            lines.append(
                translate(
                    "{line}, so it keeps this pixel. A tolerance under {distance:.1f} would not.",
                    line=line,
                    distance=distance,
                )
                if role == "keep"
                else translate(
                    "{line}, so it drops this pixel. A tolerance under {distance:.1f} would not.",
                    line=line,
                    distance=distance,
                )
            )
        elif distance < most:
            lines.append(
                translate(
                    "{line} and it fades over {falloff:g}, so this pixel is in part. A tolerance "
                    "of {distance:.1f} would hold it wholly.",
                    line=line,
                    falloff=sample.falloff,
                    distance=distance,
                )
            )
        else:
            lines.append(
                translate(
                    "{line}, so it does not reach this pixel. A tolerance of {distance:.1f} would.",
                    line=line,
                    distance=distance,
                )
            )
    return lines


def _of_bands(pixel: _Pixel) -> list[str]:
    """Explain each band that is on."""
    lines = []
    for place, name in enumerate(BANDS):
        band = getattr(pixel.sieve.bands, name)
        if not band.on:
            continue
        value, unit = float(pixel.measures[place, 0, 0]), MEASURES[name].unit
        out_from, full_from, full_to, out_to = band.corners
        turn = 360 if MEASURES[name].wraps else 0
        shifted = next(
            (value + by for by in (0, -turn, turn) if out_from <= value + by <= out_to), None
        )
        inside = shifted is not None and full_from <= shifted <= full_to
        words = (
            "inside"
            if inside
            else translate("in the fade of")
            if shifted is not None
            else "outside"
        )
        turned = translate(", which is inverted") if band.inverted else ""
        reach = (
            translate(
                " A band that goes to {value:.0f}{unit} would hold it.",
                value=value,
                unit=unit,
            )
            if not inside and not band.inverted
            else ""
        )
        lines.append(
            translate(
                "Its {name} is {value:.0f}{unit}, {words} the band from {full_from:g} to "
                "{full_to:g}{turned}.{reach}",
                name=name,
                value=value,
                unit=unit,
                words=words,
                full_from=full_from,
                full_to=full_to,
                turned=turned,
                reach=reach,
            )
        )
    if pixel.sieve.bands.ramp.on:
        lines.append(translate("The mask is the luminance itself here (the ramp)."))
    return lines


def _of_areas(pixel: _Pixel) -> list[str]:
    """Explain each area that is on."""
    does = {
        "add": "adds",
        "subtract": translate("takes away"),
        "intersect": translate("lets through"),
    }
    lines = []
    working = [area for area in pixel.sieve.areas if area.on]
    for number, area in enumerate(working, start=1):
        covered = pixel.of(area_coverage(pixel.frame, area, pixel.context))
        covered = 1 - covered if area.inverted else covered
        lines.append(
            translate(
                "Area {name} {does} {per_cent} here.",
                name=area.name or f"{number} ({mid_sentence(named(area.kind))})",
                does=does[area.mode],
                per_cent=_per_cent(covered),
            )
        )
    return lines


def _edged(frame: Frame, sieve: Sieve, context: RenderContext) -> np.ndarray:
    """The mask of a sieve with its edge worked on, before its areas."""
    return final_mask(frame, sieve.but(areas=()), context).mask


def _of_own_mask(pixel: _Pixel) -> tuple[list[str], float]:
    """Explain a mask of its own, stage by stage, and its value before strength."""
    sieve, frame, context = pixel.sieve, pixel.frame, pixel.context
    lines = _of_samples(pixel) + _of_bands(pixel)
    if not lines:
        lines.append(translate("No sample and no band is set, so nothing is picked by colour."))
    measuring = measuring_for(frame, sieve)
    if measuring.light != SAME_LIGHT:
        red, green, blue = measuring.light
        lines.append(
            translate(
                "The light here is red {red:.2f}, green {green:.2f}, blue {blue:.2f} times that of "
                "the picture picked on; it is measured without it.",
                red=red,
                green=green,
                blue=blue,
            )
        )
    if measuring.flat is not None:
        lines.append(translate("The picture is flat: samples are compared without its log curve."))
    by_colour = pixel.of(qualified(frame, sieve.pick, sieve.bands, context, measuring))
    everywhere = tuple(sample for sample in sieve.pick.samples if sample.reach == "everywhere")
    if len(everywhere) != len(sieve.pick.samples):
        without = pixel.of(
            samples_mask(frame, sieve.pick.but(samples=everywhere), context, measuring)
        )
        held = pixel.of(samples_mask(frame, sieve.pick, context, measuring))
        if abs(held - without) > SAME:
            lines.append(
                translate(
                    "Samples that reach only where they were taken make it {per_cent}; without "
                    "them it is {without}.",
                    per_cent=_per_cent(held),
                    without=_per_cent(without),
                )
            )
    lines.append(translate("By colour it is {per_cent}.", per_cent=_per_cent(by_colour)))
    found = pixel.of(raw_mask(frame, sieve, context))
    if sieve.pick.connected and (by_colour > HALF) != (
        (1 - found if sieve.invert else found) > HALF
    ):
        lines.append(
            translate(
                "It does not hang together with a sample, and only what is connected counts: "
                "bridging larger gaps may reach it.",
            )
        )
    if sieve.invert:
        lines.append(translate("The mask is inverted: {per_cent}.", per_cent=_per_cent(found)))
    edged = pixel.of(_edged(frame, sieve, context))
    if abs(edged - found) > SAME:
        does = [stage.name for stage in EDGE if stage.name and not stage.is_noop(sieve)]
        lines.append(
            translate("The edge makes it {per_cent}", per_cent=_per_cent(edged))
            + (f" ({', '.join(does)})." if does else ".")
        )
    lines += _of_areas(pixel)
    return lines, pixel.of(with_areas(frame, _edged(frame, sieve, context), sieve, context))


def why(
    frame: Frame,
    project: Project,
    sieve_id: str,
    at: tuple[int, int],
    context: RenderContext,
    layers: Layers = no_layers,
) -> list[str]:
    """Explain a pixel of a sieve's mask, a sentence a stage, the outcome first.

    Parameters
    ----------
    frame : the picture, with the project as it stands on it. at : column and row of the pixel at
        full resolution.
    """
    sieve = project.sieve(sieve_id)
    pixel = _Pixel(measured(frame, project, sieve_id, context, layers), sieve, *at, context)
    final = pixel.of(sieve_masked(frame, project, sieve_id, context, layers).mask)
    says = (
        translate("wholly in")
        if final > 1 - SAME
        else "out"
        if final < SAME
        else translate("partly in")
    )
    lines = [
        translate(
            "Pixel {at}, {at2} is {says}: the mask of {name} is {per_cent} there.",
            at=at[0],
            at2=at[1],
            says=says,
            name=sieve.name,
            per_cent=_per_cent(final),
        )
    ]
    if sieve.mask_from != "own":
        others = translate(" and ").join(project.sieve(other).name for other in sieve.of)
        return [
            *lines,
            translate("Its mask is made from {others}: ask there.", others=others),
        ]
    own, value = _of_own_mask(pixel)
    lines += own
    if sieve.opposite or sieve.joined:
        lines.append(translate("Other sieves' masks are laid on it, or it is turned round."))
    if abs(final - value) > SAME:
        lines.append(translate("With that it is {per_cent}.", per_cent=_per_cent(final)))
    if sieve.strength != 100:
        lines.append(
            translate(
                "Strength is {strength:g} %: so much of the adjustments is laid on.",
                strength=sieve.strength,
            )
        )
    if sieve.outside:
        lines.append(
            translate(
                "The rest of the picture gets {outside:g} % of the adjustments.",
                outside=sieve.outside,
            )
        )
    return lines


def deciding_sample(
    light: tuple[float, float, float] | np.ndarray, sieve: Sieve, masked: float | None = None
) -> str:
    """Name of the sample that decides about a pixel.

    The keep sample that holds it most; the drop sample that takes most of that, when it takes more
    than half; and where the mask is not what those that reach everywhere make of it, the nearest
    sample that reaches only here.

    Parameters
    ----------
    light : (3,) linear light.
    masked : the mask at the pixel, 0 to 1, when it is known.

    Returns
    -------
    Its name, or its role and number; "" when no sample decides.
    """
    planes = np.asarray(light, np.float32).reshape(3, 1, 1)
    lab = to_oklab(planes)
    extra = np.concatenate([hue_saturation_luminance(planes, lab), to_levels(planes)])

    def mask_of(probes: Sequence[SampleParams]) -> float:
        return float(membership(lab, probes, extra)[0, 0])

    working = [
        (sample, tones_of(sample, sieve.pick), number)
        for number, sample in enumerate(sieve.pick.samples, 1)
        if sample.on
    ]
    keeps, drops = (
        [row for row in working if row[0].reach == "everywhere" and row[0].role == role]
        for role in ("keep", "drop")
    )
    kept = [probe for _, probes, _ in keeps for probe in probes]
    held = mask_of(kept)
    decided: Sample | None = None
    if held > 0:
        decided = max(keeps, key=lambda row: mask_of(row[1]))[0]
    left = {number: mask_of([*kept, *probes]) for _, probes, number in drops}
    for sample, probes, number in drops:
        alone = [
            replace(probe, keep=True) for probe in probes
        ]  # how far it covers a pixel that none keeps
        if (left[number] == min(left.values()) and left[number] < HALF * held) or (
            not held and mask_of(alone) > HALF
        ):
            decided = sample
    inside = held > HALF and min(left.values(), default=held) >= HALF * held
    if masked is not None and (masked > HALF) != inside:
        role = "keep" if masked > HALF else "drop"
        here = [
            (float(distance_to(lab, probes, extra)[0, 0]), sample)
            for sample, probes, _ in working
            if sample.reach == "here" and sample.role == role
        ]
        near = min(here, key=lambda row: row[0], default=None)
        if near is not None and near[0] <= near[1].tolerance + near[1].falloff:
            decided = near[1]
    return "" if decided is None else sieve.pick.name_of(decided.id)
