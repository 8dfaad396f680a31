"""Foretell the share of a picture that each tolerance of a sample would take, before anybody moves
it.
"""

from __future__ import annotations

import numpy as np

from ..names import TOLERANCES
from ..render.mask import bounds_of, distance_plane, tones_of
from ..render.measuring import measuring_for
from .sieve_context import SieveContext

#: Steps of the curve, over the range that a drag of the tolerance covers.
STEPS = 80


def shares_by_tolerance(seen: SieveContext, sample_id: str) -> tuple[float, ...]:
    """Shares of the picture, 0 to 1, that lie within each of some tolerances of a sample alone,
    from 0 to the largest that a drag reaches.

    Areas bound what is counted. () where there is no such sample.
    """
    pick = seen.pick
    sample = next((sample for sample in pick.samples if sample.id == sample_id), None)
    if sample is None:
        return ()
    frame = seen.reduced()
    distance = distance_plane(
        frame, tones_of(sample, pick), seen.context, measuring_for(frame, seen.sieve)
    )
    within = bounds_of(frame, seen.sieve, seen.context)
    edges = np.append(np.linspace(0, TOLERANCES[sample.compare][0], STEPS), np.inf)
    counts, _ = np.histogram(distance if within is None else distance[within], edges)
    return tuple(
        float(share)
        for share in np.concatenate([[0], np.cumsum(counts[:-1])]) / max(distance.size, 1)
    )
