"""Distances of every pixel from the sampled colours, and the mask that follows.

The surface measure is ours. Under one light, body reflection scales all channels alike, so hue and
C/L hold still while L runs through the folds; what a glaze reflects adds the light's own colour and
lowers C/L (dichromatic reflection model: S. A. Shafer, "Using color to separate reflection
components", 1985). So lightness counts little, and paleness can be forgiven.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np

from ...names import COMPARISONS, MEASURES, Shape
from ..colour.measures import one_hue_saturation_luminance
from ..colour.oklab import one_to_oklab
from ..colour.transfer import one_encoded
from ..falloff import POINTS, STEEPEST, shape_table
from ..jit.parallel import index_in, inner, kernel, prange

#: Comparisons that look at the planes of `Measured.extra` (hue, saturation, luminance, red, green,
#: blue), and where.
PLAIN = {name: plane for plane, name in enumerate(MEASURES)}
SURFACE, COLOUR, LEVELS, ONE_PLANE, HUE = 0, 1, 2, 3, 4

#: How much a difference of saturation weighs. It counts relative to its own size (Weber's law): the
#: gain falls with its square root. All constants of the surface measure were found by search on
#: path-traced scenes with true coverage (docs/formulas.md).
SATURATION_GAIN = 0.45
#: Least saturation that it is divided by.
SATURATION_FLOOR = 0.05
#: Least lightness that chroma is divided by.
DARK_FLOOR = 0.06
#: Weight of a turn of hue: the same turn is a smaller difference in a dark colour, so it grows with
#: the sample's lightness.
HUE_WEIGHT = 0.55
#: Saturation below which hue loses its say.
GREY_BELOW = 0.04
#: Least lightness that counts for that.
DARKEST = 0.05
#: The columns of the row that stands for a sample in the kernel: what it is, how far it reaches,
#: and what its comparison needs.
KIND, PLANE, KEEP, TOLERANCE, SLOPE = range(5)
FIRST, SECOND, THIRD, FOURTH = range(5, 9)
WEIGHT_LIGHT, WEIGHT_RICH, WEIGHT_PALE, WEIGHT_HUE = range(9, 13)
STRAIGHT, CLASS, TAKES, GROUP = range(13, 17)
#: Half the width of the dividing line between a keep sample and a drop sample that competes with
#: it, in their distance.
DIVIDING = 0.5
#: No sample of the class has been met yet.
NOWHERE = np.float32(1e9)
#: A difference that is exactly the tolerance must count fully although it was computed in float32.
ROUNDING = 2e-3


@dataclass(frozen=True)
class SampleParams:
    """One sample as the kernels need it.

    Attributes
    ----------
    colour : (3,) linear light of the sample.
    keep : takes in what is near (True) or takes it out (False).
    compare : one of ``COMPARISONS``.
    tolerance, falloff : in the units of the comparison (hundredths of Oklab, levels, degrees, per
        cent, L*).
    shading, gloss : 0 to 1; hue_weight, saturation_weight : how much these count, from 0 on; used
        by the comparison "surface".
    shape, bend : falloff shape, see `shape_table`.
    competes : of a drop sample: it takes only what lies nearer to it than to any keep sample of the
        same comparison, in place of all within its tolerance. Where no keep sample is compared
        alike, its tolerance decides.
    """

    colour: tuple[float, float, float]
    keep: bool = True
    compare: str = "surface"
    tolerance: float = 6.0
    falloff: float = 1.0
    shading: float = 0.85
    gloss: float = 0.0
    hue_weight: float = 1.0
    saturation_weight: float = 1.0
    shape: Shape = "linear"
    bend: float = 0.0
    competes: bool = False


def _classes_of(probes: Sequence[SampleParams]) -> dict[str, int]:
    """The comparisons in which drop samples compete with keep samples, numbered."""
    kept = {probe.compare for probe in probes if probe.keep}
    competing = [
        probe.compare
        for probe in probes
        if not probe.keep and probe.competes and probe.compare in kept
    ]
    return {compare: number for number, compare in enumerate(dict.fromkeys(competing))}


def _numbers_of(probe: SampleParams) -> list[float]:
    """The row of numbers the kernel reads: kind, plane, keep, tolerance, 1/falloff, then what the
    kind needs.
    """
    light, a, b = one_to_oklab(probe.colour)
    chroma = float(np.hypot(a, b))
    hard = probe.shape == "hard"
    slope = STEEPEST if hard or probe.falloff <= 1 / STEEPEST else 1 / probe.falloff
    tolerance = probe.tolerance + (ROUNDING if probe.compare not in ("surface", "colour") else 1e-4)
    head = [probe.keep, tolerance, slope]
    if probe.compare == "surface":
        ratio = chroma / (max(light, 0.0) + DARK_FLOOR)
        gain = probe.saturation_weight * SATURATION_GAIN / np.sqrt(ratio + SATURATION_FLOOR)
        hue_weight = (
            probe.hue_weight * HUE_WEIGHT * max(light, DARKEST) * min(1.0, ratio / GREY_BELOW)
        )
        cos, sin = (a / chroma, b / chroma) if chroma > 0 else (1.0, 0.0)
        return [
            SURFACE,
            0,
            *head,
            light,
            ratio,
            cos,
            sin,
            (1 - probe.shading) ** 2,
            gain**2,
            (gain * (1 - probe.gloss)) ** 2,
            2 * hue_weight**2,
        ]
    if probe.compare == "colour":
        return [COLOUR, 0, *head, light, a, b, 0, 0, 0, 0, 0]
    levels = one_encoded(probe.colour) * 255
    if probe.compare == "levels":
        return [LEVELS, 3, *head, *levels, 0, 0, 0, 0, 0]
    if probe.compare in PLAIN:
        value = (*one_hue_saturation_luminance(np.array(probe.colour)), *levels)[
            PLAIN[probe.compare]
        ]
        return [
            HUE if probe.compare == "hue" else ONE_PLANE,
            PLAIN[probe.compare],
            *head,
            value,
            0,
            0,
            0,
            0,
            0,
            0,
            0,
        ]
    raise ValueError(
        f"samples cannot be compared by {probe.compare!r}; use one of {', '.join(COMPARISONS)}"
    )


def needs_planes(probes: Sequence[SampleParams]) -> bool:
    """Return whether any of these samples is compared by something other than Oklab."""
    return any(probe.compare not in ("surface", "colour") for probe in probes)


@inner
def taken_at(distance: Any, tolerance: Any, slope: Any) -> Any:
    """Return how far into its falloff a distance lies: 1 within the tolerance, 0 where the falloff
    has ended.
    """
    return min(max(np.float32(1) - (distance - tolerance) * slope, np.float32(0)), np.float32(1))


@inner
def take_in(into: Any, distance: Any, numbers: Any, table: Any) -> None:
    """Raise what samples of a row take (n,) to what one more takes, by its distances (n,), its row
    of numbers and its falloff.
    """
    tolerance, slope, last = numbers[TOLERANCE], numbers[SLOPE], np.float32(POINTS - 1)
    if numbers[STRAIGHT] > np.float32(0):  # a straight falloff needs no table
        for x in range(into.size):
            into[x] = max(into[x], taken_at(distance[x], tolerance, slope))
    else:
        for x in range(into.size):
            place = taken_at(distance[x], tolerance, slope) * last
            index = index_in(place, POINTS - 1)
            below = table[index]
            into[x] = max(
                into[x], below + (table[index + np.uintp(1)] - below) * (place - np.float32(index))
            )


@inner
def near_one(nearest: Any, distance: Any) -> None:
    """Lower the distances to the nearest sample (n,) to those to one more."""
    for x in range(nearest.size):
        nearest[x] = min(nearest[x], distance[x])


@inner
def divide(kept: Any, to_keep: Any, to_drop: Any) -> None:
    """Leave of what is kept (n,) what lies nearer to the keep samples of a class than to the drop
    samples that compete with them.
    """
    for x in range(kept.size):
        kept[x] *= min(
            max(
                np.float32(0.5) + (to_drop[x] - to_keep[x]) * np.float32(0.5 / DIVIDING),
                np.float32(0),
            ),
            np.float32(1),
        )


@kernel
def _qualify(
    lab: np.ndarray,
    extra: np.ndarray,
    numbers: np.ndarray,
    tables: np.ndarray,
    classes: int,
    distances: np.ndarray,
    out: np.ndarray,
) -> None:
    width = lab.shape[2]
    hundred, zero, one = np.float32(100), np.float32(0), np.float32(1)
    for y in prange(lab.shape[1]):
        lightness, green_red, blue_yellow = lab[0, y], lab[1, y], lab[2, y]
        ratio, cos, sin = (
            np.empty(width, np.float32),
            np.empty(width, np.float32),
            np.empty(width, np.float32),
        )
        distance = np.empty(width, np.float32)
        kept, dropped = np.zeros(width, np.float32), np.zeros(width, np.float32)
        # Per class of competing samples: how near the nearest keep sample is, and the nearest drop
        # sample.
        near = np.full((2 * classes, width), NOWHERE, np.float32)
        for x in range(width):
            chroma = np.sqrt(green_red[x] * green_red[x] + blue_yellow[x] * blue_yellow[x])
            share = one / max(chroma, np.float32(1e-12))
            ratio[x] = chroma / (max(lightness[x], zero) + np.float32(DARK_FLOOR))
            cos[x], sin[x] = green_red[x] * share, blue_yellow[x] * share
        for k in range(numbers.shape[0]):
            n = numbers[k]
            kind, plane = int(n[KIND]), int(n[PLANE])
            q0, q1, q2, q3 = n[FIRST], n[SECOND], n[THIRD], n[FOURTH]
            if kind == SURFACE:
                weight_light, weight_rich, weight_pale, weight_hue = (
                    n[WEIGHT_LIGHT],
                    n[WEIGHT_RICH],
                    n[WEIGHT_PALE],
                    n[WEIGHT_HUE],
                )
                for x in range(width):
                    light, rich = lightness[x] - q0, ratio[x] - q1
                    weight = weight_pale if rich < zero else weight_rich
                    apart = one - (cos[x] * q2 + sin[x] * q3)
                    distance[x] = hundred * np.sqrt(
                        max(
                            weight_light * light * light
                            + weight * rich * rich
                            + weight_hue * apart,
                            zero,
                        )
                    )
            elif kind == COLOUR:
                for x in range(width):
                    d0, d1, d2 = lightness[x] - q0, green_red[x] - q1, blue_yellow[x] - q2
                    distance[x] = hundred * np.sqrt(d0 * d0 + d1 * d1 + d2 * d2)
            elif kind == LEVELS:
                r, g, b = extra[3, y], extra[4, y], extra[5, y]
                for x in range(width):
                    distance[x] = max(abs(r[x] - q0), abs(g[x] - q1), abs(b[x] - q2))
            elif kind == HUE:
                values = extra[plane, y]
                for x in range(width):
                    turn = abs(values[x] - q0)
                    # The hue of a near-grey pixel is noise: below 2 % saturation it is as far as
                    # can be.
                    distance[x] = min(turn, np.float32(360) - turn) + np.float32(360) * max(
                        zero, one - extra[1, y, x] * np.float32(0.5)
                    )
            else:
                values = extra[plane, y]
                for x in range(width):
                    distance[x] = abs(values[x] - q0)
            keep, group, to = n[KEEP] > zero, int(n[CLASS]), int(n[GROUP])
            if group >= 0:
                near_one(near[2 * group + (0 if keep else 1)], distance)
            if to >= 0:
                near_one(distances[to, y], distance)
            if n[TAKES] > zero:
                take_in(kept if keep else dropped, distance, n, tables[k])
        for group in range(classes):
            divide(kept, near[2 * group], near[2 * group + 1])
        row = out[y]
        for x in range(width):
            row[x] = kept[x] * (one - dropped[x])


NOTHING = np.zeros((6, 1, 1), np.float32)


def rows_of(
    samples: Sequence[tuple[SampleParams, bool, int]],
) -> tuple[np.ndarray, np.ndarray, int]:
    """Return samples as kernels take them: a row of numbers and a table of its falloff for each,
    and how many classes compete. With each stands whether it takes part in the mask, and in which
    group it is measured, -1 for none.
    """
    classes = _classes_of([probe for probe, takes, _ in samples if takes])

    def flags(probe: SampleParams, takes: bool, group: int) -> list[float]:
        rivals = classes.get(probe.compare, -1) if takes and (probe.keep or probe.competes) else -1
        competes = probe.competes and not probe.keep and rivals >= 0
        return [probe.shape in ("linear", "hard"), rivals, takes and not competes, group]

    numbers = np.array(
        [[*_numbers_of(probe), *flags(probe, takes, group)] for probe, takes, group in samples],
        np.float32,
    )
    # One entry more than the points, so that the last can be interpolated from as well.
    tables = np.stack(
        [np.append(shape_table(probe.shape, probe.bend), np.float32(1)) for probe, _, _ in samples]
    )
    return numbers, tables, len(classes)


def membership(
    lab: np.ndarray,
    probes: Sequence[SampleParams],
    extra: np.ndarray | None = None,
    out: np.ndarray | None = None,
) -> np.ndarray:
    """The mask of some samples: keep samples unite by maximum, and what drop samples take is taken
    out.

    A drop sample that competes takes what lies nearer to it than to any keep sample: with d the
    distances to the nearest of each, the mask is times clip(½ + (d_drop - d_keep) / (2 ·
    ``DIVIDING``)). One that does not takes all within its tolerance.

    Parameters
    ----------
    lab : (3, H, W) float32, Oklab.
    probes : the samples. With none that keeps, the mask is empty.
    extra : (6, H, W) float32: hue, saturation, luminance and red, green, blue levels. Needed when
        `needs_planes`.
    out : (H, W) float32, optional, written to and returned.

    Returns
    -------
    (H, W) float32 in 0 to 1.
    """
    return membership_and_distances(lab, probes, (), extra, out)[0]


#: In every comparison that is as far as can be.
FARTHEST = np.float32(400)


def membership_and_distances(
    lab: np.ndarray,
    probes: Sequence[SampleParams],
    groups: Sequence[Sequence[SampleParams]],
    extra: np.ndarray | None = None,
    out: np.ndarray | None = None,
) -> tuple[np.ndarray, np.ndarray]:
    """The mask of some samples, and how far every pixel lies from the nearest of each of some
    groups, in one pass over the picture.

    Parameters
    ----------
    lab, probes, extra, out : as in `membership`.
    groups : samples that do not take part in the mask, unless they stand among ``probes`` as well.

    Returns
    -------
    (H, W) and (number of groups, H, W) float32; distances are in the units of the group's
    comparison, up to ``FARTHEST``.
    """
    every = [*probes, *(probe for group in groups for probe in group)]
    if needs_planes(every) and extra is None:
        raise ValueError(
            "these samples are compared by more than Oklab: pass the measured planes as well"
        )
    result = np.empty(lab.shape[1:], np.float32) if out is None else out
    distances = np.full((len(groups), *lab.shape[1:]), FARTHEST, np.float32)
    wanted = [(probe, number) for number, group in enumerate(groups) for probe in group]
    rows: list[tuple[SampleParams, bool, int]] = []
    for probe in probes if any(probe.keep for probe in probes) else ():
        # A sample that is in the mask and in a group is measured once.
        shared = next((pair for pair in wanted if pair[0] == probe), None)
        if shared:
            wanted.remove(shared)
        rows.append((probe, True, shared[1] if shared else -1))
    rows += [(probe, False, number) for probe, number in wanted]
    if not rows:
        result[...] = 0
        return result, distances
    _qualify(lab, NOTHING if extra is None else extra, *rows_of(rows), distances, result)
    return result, distances


def distance_to(
    lab: np.ndarray, probes: Sequence[SampleParams], extra: np.ndarray | None = None
) -> np.ndarray:
    """Return how far every pixel lies from the nearest of some samples, (H, W) float32, in the
    units of their comparison, up to ``FARTHEST``.

    ``lab`` and ``extra`` are as in `membership`. With no samples everything is as far as can be.
    """
    return membership_and_distances(lab, (), [probes], extra)[1][0]
