"""The only place where a mask meets a picture: out = in + m·(A(in) − in).

Where the outline was unmixed (`edge.follow`), the surface's own colour is adjusted and mixed anew, so that no haze of the old
colour stays: I + m·(A(F') − F').
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numba import prange

from .adjust.chain import Step, chained
from .edge.follow import Unmixed, surface_colours
from .frame import BRIGHTEST
from .parallel import call_step, kernel


@dataclass(frozen=True)
class Filling:
    """What a picture is filled with.

    Attributes
    ----------
    layers : (4, H, W) float32: linear light and alpha; or (4, 1, 1) for one colour.
    behind : it lies behind what is masked, in place of the rest of the picture.
    """

    layers: np.ndarray
    behind: bool = False

    def at(self, rows: np.ndarray, columns: np.ndarray) -> Filling:
        """The filling of some pixels (N,), as one row."""
        if self.layers.shape[1:] == (1, 1):
            return self
        return Filling(np.ascontiguousarray(self.layers[:, rows, columns])[:, None], self.behind)


@dataclass(frozen=True)
class Begun:
    """What has been done already when detail comes between two parts of the chain.

    Attributes
    ----------
    steps : the adjustments before detail.
    before, after : (3, H, W) float32, what they made of the picture, and what detail made of that.
    """

    steps: Sequence[Step]
    before: np.ndarray
    after: np.ndarray

    def of(self, foreground: np.ndarray, rows: np.ndarray, columns: np.ndarray) -> np.ndarray:
        """The same of the surface's own colours (3, 1, N) at some mixed pixels: adjusted themselves, then what detail did there."""
        done = _run(foreground, foreground, np.ones((1, rows.size), np.float32), self.steps, NO_FILLING, np.empty_like(foreground))
        return np.clip(done + (self.after[:, rows, columns] - self.before[:, rows, columns])[:, None], -BRIGHTEST, BRIGHTEST)


#: A hole: nothing, and wholly transparent.
NO_FILLING = Filling(np.zeros((4, 1, 1), np.float32))


@kernel
def _mix(
    planes: np.ndarray, begun: np.ndarray, weights: np.ndarray, fill: np.ndarray, parts: int,
    addresses: np.ndarray, numbers: np.ndarray, starts: np.ndarray, out: np.ndarray,
) -> None:  # fmt: skip
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
        row = np.empty(parts * width, np.float32)  # stays in the core's own cache while one step after another runs over it
        for k in range(3):
            source, target = planes[k, y], out[k, y]
            for x in range(source.size):
                target[x] = source[x]
            held, part = begun[k, y, first:last], row[k * width : (k + 1) * width]
            for x in range(width):
                part[x] = held[x]
        if parts > 3:
            for k in range(3):
                held, part = planes[k, y, first:last], row[(3 + k) * width : (4 + k) * width]
                for x in range(width):
                    part[x] = held[x]
        if parts > 6:
            line = np.int64(y) if fill.shape[1] > 1 else np.int64(0)
            for k in range(4):
                held, part = fill[k, line], row[(6 + k) * width : (7 + k) * width]
                if held.size == 1:
                    part[:] = held[0]
                else:
                    for x in range(width):
                        part[x] = held[first + x]
        if width > 0:
            for n in range(addresses.size):
                call_step(addresses[n], row, width, numbers, starts[n])
        for k in range(3):
            held, part, target = planes[k, y, first:last], row[k * width : (k + 1) * width], out[k, y, first:last]
            for x in range(width):
                # All and nothing are exact: the formula would round. What lies between light within its bounds stays within them.
                mixed = held[x] + share[x] * (part[x] - held[x]) if share[x] != np.float32(1) else part[x]
                target[x] = mixed if share[x] != np.float32(0) else held[x]


def _run(
    planes: np.ndarray, begun: np.ndarray, weights: np.ndarray, steps: Sequence[Step], filling: Filling, out: np.ndarray
) -> np.ndarray:
    """All steps over ``begun``, mixed into the planes by the weights."""
    steps = chained(steps)
    parts = 10 if any(step.fills for step in steps) else 6 if any(step.looks_back for step in steps) else 3
    addresses = np.array([step.address for step in steps], np.int64)
    starts = np.cumsum([0] + [len(step.numbers) for step in steps[:-1]]).astype(np.int64)
    numbers = np.concatenate([np.zeros(0, np.float32), *(np.asarray(step.numbers, np.float32) for step in steps)])
    numbers = numbers if numbers.size else np.zeros(1, np.float32)
    _mix(planes, begun, weights, filling.layers, parts, addresses, numbers, starts, out)
    return out


def mixed(
    planes: np.ndarray,
    weights: np.ndarray,
    steps: Sequence[Step],
    unmixed: Unmixed | None = None,
    out: np.ndarray | None = None,
    begun: Begun | None = None,
    filling: Filling = NO_FILLING,
) -> np.ndarray:
    """A picture with some adjustments mixed in by a mask.

    Parameters
    ----------
    planes : (3, H, W) float32, linear light.
    weights : (H, W) float32: how much of the adjustments every pixel gets. Where it is 0, the pixel comes out bit by bit.
    steps : the adjustments, in order; with none, and nothing begun, the planes themselves are returned.
    unmixed : what the outline was unmixed into, or None.
    out : (3, H, W) float32, optional, written to and returned.
    begun : what the steps go on from when something has been done already, else the planes.
    filling : what the steps that fill lay over.
    """
    if not steps and begun is None:
        return planes
    out = np.empty_like(planes) if out is None else out
    _run(planes, planes if begun is None else begun.after, weights, steps, filling, out)
    if unmixed is not None:
        rows, columns, foreground = surface_colours(planes, unmixed)
        start = foreground if begun is None else begun.of(foreground, rows, columns)
        change = (
            _run(foreground, start, np.ones((1, rows.size), np.float32), steps, filling.at(rows, columns), np.empty_like(foreground))
            - foreground
        )
        out[:, rows, columns] = np.clip(planes[:, rows, columns] + weights[rows, columns] * change[:, 0], -BRIGHTEST, BRIGHTEST)
    return out


def adjusted(planes: np.ndarray, steps: Sequence[Step]) -> np.ndarray:
    """A(in): a picture (3, H, W) after all steps, everywhere."""
    return mixed(planes, np.ones(planes.shape[1:], np.float32), steps)


def before_backdrop(
    planes: np.ndarray,
    mask: np.ndarray,
    steps: Sequence[Step],
    backdrop: Filling,
    strength: float = 1.0,
    unmixed: Unmixed | None = None,
    begun: Begun | None = None,
) -> tuple[np.ndarray, np.ndarray]:
    """What is masked, adjusted, before another picture in place of its own background: m·A(F') + (1 - m)·B.

    Parameters
    ----------
    mask : (H, W) float32; strength : 0 to 1, how much of the adjustments what is masked gets.
    backdrop : what lies behind; where it is transparent, so is the outcome.

    Returns
    -------
    (3, H, W) linear light, not multiplied by alpha, and alpha (H, W).
    """
    surface = mixed(planes, np.where(mask > 0, np.float32(strength), np.float32(0)), steps, None, None, begun)
    surface = surface.copy() if surface is planes else surface
    if unmixed is not None:
        rows, columns, foreground = surface_colours(planes, unmixed)
        start = foreground if begun is None else begun.of(foreground, rows, columns)
        weights = np.full((1, rows.size), strength, np.float32)
        surface[:, rows, columns] = _run(foreground, start, weights, steps, NO_FILLING, np.empty_like(foreground))[:, 0]
    beside = (1 - mask) * backdrop.layers[3]
    alpha = mask + beside
    share = np.divide(beside, alpha, out=np.zeros_like(alpha), where=alpha > 0)
    surface += share * (backdrop.layers[:3] - surface)
    return surface, alpha
