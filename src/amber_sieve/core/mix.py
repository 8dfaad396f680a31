"""The only place where a mask meets a picture: out = in + m·(A(in) − in).

Where the outline was unmixed (`edge.follow`), the surface's own colour is adjusted and mixed anew, so that no haze of the old
colour stays: I + m·(A(F') − F').
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numba import prange

from .edge.follow import Unmixed, surface_colours
from .parallel import call_step, kernel


@dataclass(frozen=True)
class Step:
    """One pointwise adjustment: the address of its compiled row function (`parallel.row_step`), and its numbers."""

    address: int
    numbers: tuple[float, ...]


@kernel
def _mix(planes: np.ndarray, weights: np.ndarray, addresses: np.ndarray, numbers: np.ndarray, starts: np.ndarray, out: np.ndarray) -> None:
    for y in prange(planes.shape[1]):
        weight = weights[y]
        # Only the stretch of the row that is masked is worked: most masks are small.
        first, last = 0, weight.size
        while first < last and weight[first] == np.float32(0):
            first += 1
        while last > first and weight[last - 1] == np.float32(0):
            last -= 1
        width = last - first
        share = weight[first:last]
        row = np.empty(3 * width, np.float32)  # stays in the core's own cache while one step after another runs over it
        for k in range(3):
            source, target = planes[k, y], out[k, y]
            for x in range(source.size):
                target[x] = source[x]
            held, part = source[first:last], row[k * width : (k + 1) * width]
            for x in range(width):
                part[x] = held[x]
        if width > 0:
            for n in range(addresses.size):
                call_step(addresses[n], row, width, numbers, starts[n])
        for k in range(3):
            held, part, target = planes[k, y, first:last], row[k * width : (k + 1) * width], out[k, y, first:last]
            for x in range(width):
                # All and nothing are exact: the sum would round.
                mixed = held[x] + share[x] * (part[x] - held[x]) if share[x] != np.float32(1) else part[x]
                target[x] = mixed if share[x] != np.float32(0) else held[x]


def mixed(
    planes: np.ndarray, weights: np.ndarray, steps: Sequence[Step], unmixed: Unmixed | None = None, out: np.ndarray | None = None
) -> np.ndarray:
    """A picture with some adjustments mixed in by a mask.

    Parameters
    ----------
    planes : (3, H, W) float32, linear light.
    weights : (H, W) float32: how much of the adjustments every pixel gets. Where it is 0, the pixel comes out bit by bit.
    steps : the adjustments, in order; with none the planes themselves are returned.
    unmixed : what the outline was unmixed into, or None.
    out : (3, H, W) float32, optional, written to and returned.
    """
    if not steps:
        return planes
    out = np.empty_like(planes) if out is None else out
    addresses = np.array([step.address for step in steps], np.int64)
    starts = np.cumsum([0] + [len(step.numbers) for step in steps[:-1]]).astype(np.int64)
    numbers = np.array([number for step in steps for number in step.numbers] or [0.0], np.float64)
    _mix(planes, weights, addresses, numbers, starts, out)
    if unmixed is not None:
        at_rows, at_columns, front = surface_colours(planes, unmixed)
        change = adjusted(front, steps) - front
        out[:, at_rows, at_columns] = planes[:, at_rows, at_columns] + weights[at_rows, at_columns] * change[:, 0]
    return out


def adjusted(planes: np.ndarray, steps: Sequence[Step]) -> np.ndarray:
    """A(in): a picture (3, H, W) after all steps, everywhere."""
    return mixed(planes, np.ones(planes.shape[1:], np.float32), steps)
