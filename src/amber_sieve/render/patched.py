"""While something is dragged, only what a step of it changes is worked anew, and written over what the step before has left.

What changes is told in runs of pixels (`core.changed`) from sieve to sieve, and from the last one to the pixels of the screen: a drag of a
tolerance changes the rim of a mask, and one of an adjustment what is masked.
"""

from __future__ import annotations

from dataclasses import dataclass, field

import numpy as np

from ..core.changed import no_runs, set_differing, set_held
from ..core.colour.screen import runs_to_screen, to_screen
from ..core.edge.follow import Unmixed
from ..core.mix import NO_FILLING, Mixture


@dataclass(frozen=True)
class _Inputs:
    """What some light was made of: arrays are compared by what they are.

    Attributes
    ----------
    planes : what arrived, and ``written``, how often that had been written. recipe : all besides the mask.
    """

    planes: np.ndarray
    written: int
    weights: np.ndarray
    unmixed: Unmixed | None
    recipe: tuple[object, ...]

    def same(self, other: _Inputs) -> bool:
        """Whether the same comes out."""
        arrived = self.planes is other.planes and self.written == other.written
        return arrived and self.weights is other.weights and self.same_recipe(other)

    def same_recipe(self, other: _Inputs) -> bool:
        """Whether the same is done with every masked pixel."""
        return self.unmixed is other.unmixed and self.recipe == other.recipe


@dataclass
class PatchedLight:
    """Light (3, H, W) after a sieve, written over from step to step; for one thread.

    Attributes
    ----------
    written : how often. changed : the runs (H, R) that the newest writing may have changed, None for all.
    """

    planes: np.ndarray
    written: int = 0
    changed: np.ndarray | None = None
    _made_of: _Inputs | None = field(default=None, repr=False)

    def follow(self, made: Mixture, under: PatchedLight | None, recipe: tuple[object, ...]) -> None:
        """Become what a mixture comes to; ``under`` is what its planes belong to, where they are patched themselves."""
        now, was = _Inputs(made.planes, under.written if under else 0, made.weights, made.unmixed, recipe), self._made_of
        self._made_of = now
        if was is not None and was.same(now):
            return
        self.changed = self._to_change(now, was, under, made.begun is None and made.filling is NO_FILLING) if was is not None else None
        self.written += 1
        if self.changed is None:
            made.whole(self.planes)
        else:
            made.write_runs(self.changed, self.planes)

    @staticmethod
    def _to_change(now: _Inputs, was: _Inputs, under: PatchedLight | None, pointwise: bool) -> np.ndarray | None:
        if was.planes is not now.planes or now.written - was.written > 1:
            return None
        runs = no_runs(*now.weights.shape)
        if under is not None and now.written != was.written:
            if under.changed is None:
                return None
            runs |= under.changed
        if pointwise and was.same_recipe(now):
            if was.weights is not now.weights:
                set_differing(runs, now.weights, was.weights)
        else:
            set_held(runs, now.weights)
            if was.weights is not now.weights:
                set_held(runs, was.weights)
        return runs


@dataclass
class PatchedPixels:
    """The screen pixels of some patched light; each step has pixels of its own, for those of the last one are still being shown."""

    _pixels: np.ndarray | None = None
    _of: PatchedLight | None = None
    _written: int = 0

    def of(self, light: PatchedLight, lowers: bool) -> np.ndarray:
        """The pixels (H, W) uint32 of some light as it is now."""
        before = self._pixels
        if before is not None and self._of is light and self._written == light.written:
            return before
        if before is None or self._of is not light or light.written - self._written > 1 or light.changed is None:
            pixels = to_screen(light.planes, lowers)
        else:
            pixels = before.copy()
            runs_to_screen(light.planes, light.changed, pixels, lowers)
        self._pixels, self._of, self._written = pixels, light, light.written
        return pixels
