"""The mask of samples whose distances are known: a drag of a tolerance changes none of them, and
most of a picture lies wholly inside all that it takes, or wholly outside.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np

from ..jit.parallel import inner, kernel, prange
from .samples import (
    CLASS,
    KEEP,
    NOWHERE,
    SLOPE,
    TAKES,
    TOLERANCE,
    SampleParams,
    divide,
    membership_and_distances,
    near_one,
    rows_of,
    take_in,
    taken_at,
)

#: Pixels of a row that are tested as one.
RUN = 64


@kernel
def _find_ends(distances: np.ndarray, ends: np.ndarray) -> None:
    """The least and the largest distance (N, H, R, 2) of every run from every sample."""
    for y in prange(distances.shape[1]):
        for k in range(distances.shape[0]):
            for run in range(ends.shape[2]):
                here = distances[k, y, run * RUN : (run + 1) * RUN]
                least = most = here[0]
                for x in range(here.size):
                    least, most = min(least, here[x]), max(most, here[x])
                ends[k, y, run, 0], ends[k, y, run, 1] = least, most


@inner
def _all_alike(ends: Any, numbers: Any, classes: Any) -> Any:
    """Return the membership of all pixels of a run whose distances lie between two (N, 2): 0, 1, or
    -1 where they differ.
    """
    most, least, drops = np.float32(0), np.float32(0), False
    for k in range(numbers.shape[0]):
        if numbers[k, TAKES] > np.float32(0):
            nearest = taken_at(ends[k, 0], numbers[k, TOLERANCE], numbers[k, SLOPE])
            if numbers[k, KEEP] > np.float32(0):
                most, least = (
                    max(most, nearest),
                    max(least, taken_at(ends[k, 1], numbers[k, TOLERANCE], numbers[k, SLOPE])),
                )
            else:
                drops |= nearest > np.float32(0)
    whole = least == np.float32(1) and not drops and classes == 0
    return np.float32(0) if most == np.float32(0) else np.float32(1) if whole else np.float32(-1)


@kernel
def _take(
    distances: np.ndarray,
    ends: np.ndarray,
    numbers: np.ndarray,
    tables: np.ndarray,
    classes: int,
    out: np.ndarray,
) -> None:
    width, one = out.shape[1], np.float32(1)
    dropping = (numbers[:, KEEP] == np.float32(0)).any()
    for y in prange(out.shape[0]):
        row, dropped, near = (
            out[y],
            np.zeros(width if dropping else 0, np.float32),
            np.full((2 * classes, width), NOWHERE, np.float32),
        )
        first, run = 0, 0
        while first < width:
            # Runs that differ are worked together up to the next that is all alike.
            start, alike = first, np.float32(-1)
            while first < width and alike < np.float32(0):
                alike = _all_alike(ends[:, y, run], numbers, classes)
                first, run = first + RUN, run + 1
            stop = min(first, width) if alike < np.float32(0) else first - RUN
            row[start:stop] = np.float32(0)
            for k in range(numbers.shape[0] if stop > start else 0):
                n, distance = numbers[k], distances[k, y, start:stop]
                keep, group = n[KEEP] > np.float32(0), int(n[CLASS])
                if group >= 0:
                    near_one(near[2 * group + (0 if keep else 1), start:stop], distance)
                if n[TAKES] > np.float32(0):
                    take_in(
                        row[start:stop] if keep else dropped[start:stop], distance, n, tables[k]
                    )
            for group in range(classes):
                divide(
                    row[start:stop], near[2 * group, start:stop], near[2 * group + 1, start:stop]
                )
            for x in range(start, stop if dropping else start):
                row[x] *= one - dropped[x]
            row[stop:first] = alike


@dataclass(frozen=True)
class CachedDistances:
    """Distances of every pixel from each of some samples.

    Attributes
    ----------
    distances : (N, H, W) float32, as `distance_to`. ends : (N, H, R, 2) float32, the least and the
        largest of every run of `RUN` pixels.
    """

    distances: np.ndarray
    ends: np.ndarray


def distances_to_each(
    lab: np.ndarray, probes: Sequence[SampleParams], extra: np.ndarray | None = None
) -> CachedDistances:
    """Return how far every pixel lies from each of some samples, whose tolerances do not matter;
    ``lab`` and ``extra`` are as in `membership`.
    """
    distances = membership_and_distances(lab, (), [[probe] for probe in probes], extra)[1]
    count, height, width = distances.shape
    ends = np.empty((count, height, -(-width // RUN), 2), np.float32)
    _find_ends(distances, ends)
    return CachedDistances(distances, ends)


def membership_of_known(known: CachedDistances, probes: Sequence[SampleParams]) -> np.ndarray:
    """The mask (H, W) of the samples that the distances are known from, which may reach otherwise
    now: as `membership`, bit by bit.
    """
    shape = known.distances.shape[1:]
    if not any(probe.keep for probe in probes):
        return np.zeros(shape, np.float32)
    out = np.empty(shape, np.float32)
    _take(known.distances, known.ends, *rows_of([(probe, True, -1) for probe in probes]), out)
    return out
