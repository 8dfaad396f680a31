"""Finding the settings that part what is to be kept from what is to be dropped, from all that a
person has said.

Ours. What was clicked, boxed, scribbled and outlined gives pixels that are the thing and pixels
that are not. For every shading, gloss and weight tried, each keep sample gets the tolerance that
lies between the kept pixels nearest to it and the dropped ones; the settings whose mask holds most
of the first and least of the second win, and of equals those that changed least.
"""

from __future__ import annotations

import itertools
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

import numpy as np

from .samples import SampleParams, distance_to, membership

#: Shadings that are tried; like all of these found by search on path-traced pictures with strokes
#: laid by a robot (docs/formulas.md).
SHADINGS = (0.5, 0.7, 0.85, 0.95)
#: Shares of gloss that are tried.
GLOSSES = (0.0, 0.3, 0.6)
#: Weights of hue that are tried.
WEIGHTS = (0.6, 1.0, 1.6)
#: Share of the kept pixels that must count fully; the rest is taken as slips of the hand.
HELD = 0.97
#: Tolerances lie so far into the gap between kept and dropped pixels.
INTO = 0.35
#: Falloffs take this much of that gap.
SOFT = 0.3
#: Least tolerance that is set, hundredths of Oklab.
LEAST = 0.5
#: Largest tolerance that is set.
MOST = 30.0
#: What is left as room where nothing was dropped, as a factor of the farthest kept pixel.
ROOM = 1.3
#: What a setting away from where it stood costs, in separation.
COST = 0.002
#: The same of gloss, which lets pale backgrounds in that nobody may have named.
GLOSS_COST = 0.02


@dataclass(frozen=True)
class Settings:
    """Settings of a sieve's measure of surfaces, 0 to 1 (weights may be more)."""

    shading: float = 0.85
    gloss: float = 0.0
    hue_weight: float = 1.0
    saturation_weight: float = 1.0

    def on(self, probe: SampleParams) -> SampleParams:
        """A probe with these settings."""
        return replace(
            probe,
            shading=self.shading,
            gloss=self.gloss,
            hue_weight=self.hue_weight,
            saturation_weight=self.saturation_weight,
        )


@dataclass(frozen=True)
class FitGroup:
    """One sample as the fit sees it: its tones as probes, and some of the pixels it was taken from,
    (3, 1, N) Oklab.
    """

    probes: tuple[SampleParams, ...]
    pixels: np.ndarray


@dataclass(frozen=True)
class Fit:
    """The settings that were found.

    Attributes
    ----------
    settings : for all samples; tolerances, falloff : one tolerance for each keep group, one falloff
        for all.
    separation, before : 0 to 1: share of kept pixels inside plus share of dropped pixels outside,
        minus 1 (Youden's index), as found and as it was.
    nearest : number of the drop group whose pixels come nearest, or None without drop samples.
    """

    settings: Settings
    tolerances: tuple[float, ...]
    falloff: float
    separation: float
    before: float
    nearest: int | None


def _tried(now: Settings) -> Iterator[Settings]:
    """Settings to look at: first the ones that are, then every combination."""
    yield now
    for shading, gloss in itertools.product(SHADINGS, GLOSSES):
        for hue, saturation in itertools.product(WEIGHTS, WEIGHTS):
            yield Settings(shading, gloss, hue, saturation)


def separation_of(
    keeps: Sequence[FitGroup], drops: Sequence[FitGroup], outside: np.ndarray | None = None
) -> float:
    """Return how well the probes of some groups, as they are, part their pixels: every group counts
    alike.

    ``outside`` (3, 1, N) are pixels that are known not to be the thing without a sample of their
    own.
    """
    probes = [probe for group in (*keeps, *drops) for probe in group.probes]
    held = float(np.mean([membership(group.pixels, probes).mean(dtype=float) for group in keeps]))
    others = [group.pixels for group in drops] + ([] if outside is None else [outside])
    leaks = (
        float(np.mean([membership(pixels, probes).mean(dtype=float) for pixels in others]))
        if others
        else 0.0
    )
    return held - leaks


def _set(
    keeps: Sequence[FitGroup], others: Sequence[np.ndarray], settings: Settings
) -> tuple[list[FitGroup], float, int | None]:
    """The keep groups with the tolerances that some settings ask for, the falloff, and which of the
    others comes nearest.
    """
    made = [
        FitGroup(tuple(settings.on(probe) for probe in group.probes), group.pixels)
        for group in keeps
    ]
    kept = np.concatenate([group.pixels for group in made], axis=2)
    away = np.stack([distance_to(kept, group.probes)[0] for group in made])
    nearest_group = away.argmin(axis=0)
    ends = [
        [float(np.quantile(distance_to(pixels, group.probes), 1 - HELD)) for pixels in others]
        for group in made
    ]
    tolerances, gaps = [], []
    for number in range(len(made)):
        own = away[number][nearest_group == number]
        near = float(np.quantile(own, HELD)) if own.size else 0.0
        if ends[number]:
            gap = min(ends[number]) - near
            tolerances.append(near + INTO * gap if gap > 0 else (near + min(ends[number])) / 2)
            gaps.append(gap)
        else:
            tolerances.append(max(2.0, near * ROOM))
            gaps.append(near)
    falloff = max(LEAST, SOFT * min(gaps))
    groups = [
        FitGroup(
            tuple(
                replace(probe, tolerance=float(np.clip(tolerance, LEAST, MOST)), falloff=falloff)
                for probe in group.probes
            ),
            group.pixels,
        )
        for group, tolerance in zip(made, tolerances, strict=True)
    ]
    return groups, falloff, int(np.argmin(np.min(ends, axis=0))) if others else None


def spread_of(group: FitGroup) -> float:
    """The tolerance that holds a box or stroke by itself: nearly all of its pixels, and some
    room.
    """
    return max(2.0, ROOM * float(np.quantile(distance_to(group.pixels, group.probes), HELD)))


def fit(
    keeps: Sequence[FitGroup],
    drops: Sequence[FitGroup] = (),
    now: Settings | None = None,
    outside: np.ndarray | None = None,
) -> Fit:
    """Find what parts keep from drop best; never worse on these pixels than it was.

    Parameters
    ----------
    keeps, drops : the samples as they are.
    now : the settings as they are, those of the first keep sample when not given.
    outside : (3, 1, N) Oklab, pixels that are known not to be the thing.

    Raises
    ------
    ValueError: there is no keep sample.
    """
    if not keeps:
        raise ValueError("a fit needs at least one keep sample")
    first = keeps[0].probes[0]
    now = now or Settings(first.shading, first.gloss, first.hue_weight, first.saturation_weight)
    before = separation_of(keeps, drops, outside)
    others = [group.pixels for group in drops] + ([] if outside is None else [outside])
    best: tuple[float, Fit] | None = None
    for settings in _tried(now):
        groups, falloff, nearest = _set(keeps, others, settings)
        against = [
            FitGroup(tuple(settings.on(probe) for probe in group.probes), group.pixels)
            for group in drops
        ]
        separation = separation_of(groups, against, outside)
        changed = sum(
            getattr(settings, name) != getattr(now, name) for name in Settings.__dataclass_fields__
        )
        score = separation - COST * changed - GLOSS_COST * max(settings.gloss - now.gloss, 0)
        if best is None or score > best[0]:
            tolerances = tuple(group.probes[0].tolerance for group in groups)
            nearest = None if nearest is None or nearest >= len(drops) else nearest
            best = (score, Fit(settings, tolerances, falloff, separation, before, nearest))
    assert best is not None
    return best[1]
