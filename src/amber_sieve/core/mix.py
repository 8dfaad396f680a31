"""The only place where a mask meets a picture: out = in + m·(A(in) − in).

Where the outline was unmixed (`edge.follow`), the surface's own colour is adjusted and mixed anew,
so that no haze of the old colour stays: I + m·(A(F') − F'). The change of chroma is mixed there by
a share of its own (`edge.colour_share`), which may reach beyond the mask.
"""

from __future__ import annotations

import functools
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from .adjust.chain import Step, chained
from .changed import ALL_RUNS, RUN, next_stretch
from .colour.screen import row_to_screen
from .edge.box import NOTHING, box_of
from .edge.colour_share import ColourShare, chroma_of, mix_chroma
from .edge.follow import EdgeMatte, surface_colours
from .frame import BRIGHTEST
from .jit.parallel import call_step, inner, kernel, one_thread, prange


@dataclass(frozen=True)
class Filling:
    """A filling of a picture.

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
    """Light that the first part of the chain has made, when detail comes before the second.

    Attributes
    ----------
    steps : the adjustments before detail.
    before, after : (3, H, W) float32, what they made of the picture, and what detail made of that.
    """

    steps: Sequence[Step]
    before: np.ndarray
    after: np.ndarray

    def of(self, foreground: np.ndarray, rows: np.ndarray, columns: np.ndarray) -> np.ndarray:
        """The same of the surface's own colours (3, 1, N) at some mixed pixels: adjusted
        themselves, then what detail did there.
        """
        done = _run(
            foreground,
            foreground,
            np.ones((1, rows.size), np.float32),
            self.steps,
            NO_FILLING,
            np.empty_like(foreground),
        )
        return np.clip(
            done + (self.after[:, rows, columns] - self.before[:, rows, columns])[:, None],
            -BRIGHTEST,
            BRIGHTEST,
        )


#: Rows that steps run over are made as long as a whole number of these: the widest vectors, two at
#: once, leave no pixels over, which would be worked one by one.
AT_ONCE = 32

#: A hole: nothing, and wholly transparent.
NO_FILLING = Filling(np.zeros((4, 1, 1), np.float32))


@inner
def _between(held: Any, part: Any, share: Any) -> Any:
    """All and nothing are exact: the formula would round. What lies between light within its bounds
    stays within them.
    """
    mixed = held + share * (part - held) if share != np.float32(1) else part
    return mixed if share != np.float32(0) else held


@kernel
def _mix(
    planes: np.ndarray,
    begun: np.ndarray,
    weights: np.ndarray,
    fill: np.ndarray,
    top: int,
    parts: int,
    addresses: np.ndarray,
    numbers: np.ndarray,
    starts: np.ndarray,
    runs: np.ndarray,
    out: np.ndarray,
) -> None:
    """As many rows as ``out`` has, from the row ``top`` of the others on; of these only what lies
    in set runs, where there are any.
    """
    for row_out in prange(out.shape[1]):
        y = top + row_out
        weight = weights[y]
        stop = 0
        while stop < weight.size:
            start, stop = (
                next_stretch(runs[y], stop, weight.size) if runs.size > 0 else (0, weight.size)
            )
            # Only the stretch of the row that is masked is worked: most masks are small.
            first, last = start, stop
            while first < last and weight[first] == np.float32(0):
                first += 1
            while last > first and weight[last - 1] == np.float32(0):
                last -= 1
            width = last - first
            padded = (width + AT_ONCE - 1) // AT_ONCE * AT_ONCE
            share = weight[first:last]
            row = np.empty(
                parts * padded, np.float32
            )  # stays in the core's own cache while one step after another runs over it
            for k in range(parts):
                row[k * padded + width : (k + 1) * padded] = np.float32(0)
            for k in range(3):
                source, target = planes[k, y], out[k, row_out]
                for x in range(start, first):
                    target[x] = source[x]
                for x in range(last, stop):
                    target[x] = source[x]
                held, part = begun[k, y, first:last], row[k * padded :]
                for x in range(width):
                    part[x] = held[x]
            if parts > 3:
                for k in range(3):
                    held, part = planes[k, y, first:last], row[(3 + k) * padded :]
                    for x in range(width):
                        part[x] = held[x]
            if parts > 6:
                line = np.int64(y) if fill.shape[1] > 1 else np.int64(0)
                for k in range(4):
                    held, part = fill[k, line], row[(6 + k) * padded : (7 + k) * padded]
                    if held.size == 1:
                        part[:] = held[0]
                    else:
                        for x in range(width):
                            part[x] = held[first + x]
            if width > 0:
                for n in range(addresses.size):
                    call_step(addresses[n], row, padded, numbers, starts[n])
            for k in range(3):
                held, part, target = (
                    planes[k, y, first:last],
                    row[k * padded :],
                    out[k, row_out, first:last],
                )
                for x in range(width):
                    target[x] = _between(held[x], part[x], share[x])


@kernel
def _mix_done(
    planes: np.ndarray, done: np.ndarray, weights: np.ndarray, runs: np.ndarray, out: np.ndarray
) -> None:
    """The same in set runs where what the steps make of every pixel is known."""
    for y in prange(weights.shape[0]):
        stop = 0
        while stop < weights.shape[1]:
            start, stop = next_stretch(runs[y], stop, weights.shape[1])
            share = weights[y, start:stop]
            for k in range(3):
                held, part, target = (
                    planes[k, y, start:stop],
                    done[k, y, start:stop],
                    out[k, y, start:stop],
                )
                for x in range(share.size):
                    target[x] = _between(held[x], part[x], share[x])


@kernel
def _draw_done(
    planes: np.ndarray,
    done: np.ndarray,
    weights: np.ndarray,
    runs: np.ndarray,
    lowers: bool,
    out: np.ndarray,
) -> None:
    """The same as pixels of the screen, while it lies in the core's own cache."""
    for y in prange(weights.shape[0]):
        light, stop = np.empty((3, weights.shape[1]), np.float32), 0
        while stop < weights.shape[1]:
            start, stop = next_stretch(runs[y], stop, weights.shape[1])
            share = weights[y, start:stop]
            for k in range(3):
                held, part, target = (
                    planes[k, y, start:stop],
                    done[k, y, start:stop],
                    light[k, start:stop],
                )
                for x in range(share.size):
                    target[x] = _between(held[x], part[x], share[x])
            row_to_screen(
                light[0, start:stop],
                light[1, start:stop],
                light[2, start:stop],
                lowers,
                out[y, start:stop],
            )


def _run(
    planes: np.ndarray,
    begun: np.ndarray,
    weights: np.ndarray,
    steps: Sequence[Step],
    filling: Filling,
    out: np.ndarray,
    top: int = 0,
    runs: np.ndarray = ALL_RUNS,
) -> np.ndarray:
    """All steps over ``begun``, mixed into the planes by the weights: as many rows as ``out`` has,
    from ``top`` on, or what lies in some runs.
    """
    steps = chained(steps)
    parts = (
        10
        if any(step.fills for step in steps)
        else 6
        if any(step.looks_back for step in steps)
        else 3
    )
    addresses = np.array([step.address for step in steps], np.int64)
    starts = np.cumsum([0] + [len(step.numbers) for step in steps[:-1]]).astype(np.int64)
    numbers = np.concatenate(
        [np.zeros(0, np.float32), *(np.asarray(step.numbers, np.float32) for step in steps)]
    )
    numbers = numbers if numbers.size else np.zeros(1, np.float32)
    given = (
        planes,
        begun,
        weights,
        filling.layers,
        top,
        parts,
        addresses,
        numbers,
        starts,
        runs,
        out,
    )
    if out.shape[1] == 1:
        # a single row gives the others nothing to do, and waking them takes as long as thousands of
        # pixels
        with one_thread():
            _mix(*given)
    else:
        _mix(*given)
    return out


@dataclass(frozen=True)
class Mixture:
    """A picture with some adjustments mixed in by a mask, worked out when it is asked for, some
    rows at a time.

    Attributes
    ----------
    planes : (3, H, W) float32, linear light.
    weights : (H, W) float32: how much of the adjustments every pixel gets. Where it is 0, the pixel
        comes out bit by bit.
    steps : the adjustments, in order.
    unmixed : what the outline was unmixed into, or None.
    begun : what the steps go on from when something has been done already, else the planes.
    filling : what the steps that fill lay over.
    colour : where chroma is mixed by a share of its own, or None; ``strength``, 0 to 1, is how much
        of the adjustments what is wholly masked gets.
    """

    planes: np.ndarray
    weights: np.ndarray
    steps: Sequence[Step]
    unmixed: EdgeMatte | None = None
    begun: Begun | None = None
    filling: Filling = NO_FILLING
    colour: ColourShare | None = None
    strength: float = 1.0

    @property
    def height(self) -> int:
        return int(self.planes.shape[1])

    @functools.cached_property
    def _of_outline(self) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
        """Rows from top to bottom and columns (N,) of what was unmixed, and how the surface's own
        colour changes there (3, N).
        """
        assert self.unmixed is not None
        rows, columns, foreground = surface_colours(self.planes, self.unmixed)
        start = foreground if self.begun is None else self.begun.of(foreground, rows, columns)
        whole = np.ones((1, rows.size), np.float32)
        done = _run(
            foreground,
            start,
            whole,
            self.steps,
            self.filling.at(rows, columns),
            np.empty_like(foreground),
        )
        return rows, columns, (done - foreground)[:, 0]

    @functools.cached_property
    def _chroma_change(self) -> np.ndarray:
        """Changes of the surface's chroma at the pixels of the colour's share, (2, N)."""
        assert self.colour is not None
        foreground = self.colour.foreground_in(self.planes)
        rows, columns = self.colour.rows, self.colour.columns
        steps = [*(self.begun.steps if self.begun is not None else ()), *self.steps]
        done = _run(
            foreground,
            foreground,
            np.full((1, rows.size), self.strength, np.float32),
            steps,
            self.filling.at(rows, columns),
            np.empty_like(foreground),
        )
        return (chroma_of(done) - chroma_of(foreground))[:, 0]

    @property
    def changed_rows(self) -> tuple[int, int]:
        """The first row that may differ from the planes, and the first after all that may."""
        box = box_of(self.weights, NOTHING, 0)
        ends = [] if box is None else [(box[0].start, min(box[0].stop, self.height))]
        if self.colour is not None:
            ends.append((int(self.colour.rows[0]), int(self.colour.rows[-1]) + 1))
        return (min(top for top, _ in ends), max(last for _, last in ends)) if ends else (0, 0)

    def rows(self, top: int, bottom: int, out: np.ndarray | None = None) -> np.ndarray:
        """Its rows from ``top`` to before ``bottom`` (3, rows, W); written to ``out`` where that is
        given.
        """
        planes = self.planes
        out = np.empty((3, bottom - top, planes.shape[2]), np.float32) if out is None else out
        _run(
            planes,
            planes if self.begun is None else self.begun.after,
            self.weights,
            self.steps,
            self.filling,
            out,
            top,
        )
        if self.unmixed is not None:
            rows, columns, change = self._of_outline
            here = slice(*np.searchsorted(rows, (top, bottom)))
            self._write_outline(rows[here], columns[here], change[:, here], out, top)
        if self.colour is not None:
            self._write_chroma(slice(*np.searchsorted(self.colour.rows, (top, bottom))), out, top)
        return out

    def everywhere(self) -> Mixture:
        """Return a mixture in which every pixel is wholly adjusted."""
        return replace(self, weights=np.ones_like(self.weights), unmixed=None, colour=None)

    def write_runs(self, runs: np.ndarray, out: np.ndarray, done: np.ndarray | None = None) -> None:
        """Write what lies in some runs (H, R), see `changed`, over what stands in ``out`` (3, H,
        W). ``done`` is (3, H, W) what `everywhere` makes there, where that is known.
        """
        planes = self.planes
        if not runs.any():
            return
        if done is None:
            _run(
                planes,
                planes if self.begun is None else self.begun.after,
                self.weights,
                self.steps,
                self.filling,
                out,
                0,
                runs,
            )
        else:
            _mix_done(planes, done, self.weights, runs, out)
        if self.unmixed is not None:
            rows, columns, change = self._of_outline
            here = runs[rows, columns // RUN]
            self._write_outline(rows[here], columns[here], change[:, here], out)
        if self.colour is not None:
            self._write_chroma(runs[self.colour.rows, self.colour.columns // RUN], out)

    def draw_runs(self, runs: np.ndarray, done: np.ndarray, lowers: bool, out: np.ndarray) -> None:
        """Write what lies in some runs (H, R) as pixels of the screen over what stands in ``out``
        (H, W), as `write_runs` and `colour.screen.runs_to_screen` would, where nothing was unmixed.
        """
        _draw_done(self.planes, done, self.weights, runs, lowers, out)

    def _write_outline(
        self,
        rows: np.ndarray,
        columns: np.ndarray,
        change: np.ndarray,
        out: np.ndarray,
        top: int = 0,
    ) -> None:
        assert self.unmixed is not None
        mixed_anew = self.planes[:, rows, columns] + self.weights[rows, columns] * change
        if self.unmixed.feathered is not None:
            as_it_is = out[:, rows - top, columns]
            mixed_anew = as_it_is + self.unmixed.shares(rows, columns) * (mixed_anew - as_it_is)
        out[:, rows - top, columns] = np.clip(mixed_anew, -BRIGHTEST, BRIGHTEST)

    def _write_chroma(self, here: slice | np.ndarray, out: np.ndarray, top: int = 0) -> None:
        assert self.colour is not None
        rows, columns = self.colour.rows[here], self.colour.columns[here]
        out[:, rows - top, columns] = mix_chroma(
            self.planes[:, rows, columns],
            self._chroma_change[:, here],
            self.colour.share[here],
            self.colour.trust[here],
            out[:, rows - top, columns],
        )

    def whole(self, out: np.ndarray | None = None) -> np.ndarray:
        """All of it, (3, H, W)."""
        return self.rows(0, self.planes.shape[1], out)


def mixed(
    planes: np.ndarray,
    weights: np.ndarray,
    steps: Sequence[Step],
    unmixed: EdgeMatte | None = None,
    out: np.ndarray | None = None,
    begun: Begun | None = None,
    filling: Filling = NO_FILLING,
) -> np.ndarray:
    """The whole of a `Mixture`, written to ``out`` where that is given; with no steps, and nothing
    begun, the planes themselves.
    """
    if not steps and begun is None:
        return planes
    return Mixture(planes, weights, steps, unmixed, begun, filling).whole(out)


def adjusted(planes: np.ndarray, steps: Sequence[Step]) -> np.ndarray:
    """A(in): a picture (3, H, W) after all steps, everywhere."""
    return mixed(planes, np.ones(planes.shape[1:], np.float32), steps)


def before_backdrop(
    planes: np.ndarray,
    mask: np.ndarray,
    steps: Sequence[Step],
    backdrop: Filling,
    strength: float = 1.0,
    unmixed: EdgeMatte | None = None,
    begun: Begun | None = None,
) -> tuple[np.ndarray, np.ndarray]:
    """Put what is masked, adjusted, before another picture in place of its own background: m·A(F')
    + (1 - m)·B.

    Parameters
    ----------
    mask : (H, W) float32; strength : 0 to 1, how much of the adjustments what is masked gets.
    backdrop : what lies behind; where it is transparent, so is the outcome.

    Returns
    -------
    (3, H, W) linear light, not multiplied by alpha, and alpha (H, W).
    """
    surface = mixed(
        planes, np.where(mask > 0, np.float32(strength), np.float32(0)), steps, None, None, begun
    )
    surface = surface.copy() if surface is planes else surface
    if unmixed is not None:
        rows, columns, foreground = surface_colours(planes, unmixed)
        start = foreground if begun is None else begun.of(foreground, rows, columns)
        weights = np.full((1, rows.size), strength, np.float32)
        surface[:, rows, columns] = _run(
            foreground, start, weights, steps, NO_FILLING, np.empty_like(foreground)
        )[:, 0]
    beside = (1 - mask) * backdrop.layers[3]
    alpha = mask + beside
    share = np.divide(beside, alpha, out=np.zeros_like(alpha), where=alpha > 0)
    surface += share * (backdrop.layers[:3] - surface)
    return surface, alpha
