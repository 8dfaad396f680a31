"""Update only the runs that a step of a drag changes, in the buffers of the step before.

What changes is told in runs of pixels (`core.changed`) from the mask to the light after a sieve,
from sieve to sieve, and from the last one to the pixels of the screen: a drag of a tolerance
changes the rim of a mask, and one of an adjustment what is masked. For one thread.
"""

from __future__ import annotations

import weakref
from collections.abc import Callable
from dataclasses import dataclass, field

import numpy as np

from ..core.changed import RUN, boxes_of_runs, copy_runs, no_runs, set_differing, set_held
from ..core.colour.screen import runs_to_screen, to_screen
from ..core.edge.colour_share import ColourShare
from ..core.edge.follow import EdgeMatte
from ..core.mix import NO_FILLING, Mixture


@dataclass
class Patched:
    """Values that are written over from step to step.

    Attributes
    ----------
    written : how often it has been. changed : the runs (H, R) that the newest writing may have
        changed, None for all of them.
    """

    written: int = 0
    changed: np.ndarray | None = None

    def since(self, written: int) -> np.ndarray | None:
        """Return the runs that have changed since writing number ``written``, None where that may
        be all; read only.
        """
        if self.written == written:
            return no_runs(*self.shape)
        return self.changed if self.written == written + 1 else None

    @property
    def shape(self) -> tuple[int, int]:
        """Rows and columns."""
        raise NotImplementedError


@dataclass
class PatchedMask(Patched):
    """The newest mask (H, W) of a sieve. Masks are made whole; which runs of them differ is found
    out.
    """

    mask: np.ndarray = field(default_factory=lambda: np.zeros((0, 0), np.float32))

    @property
    def shape(self) -> tuple[int, int]:
        return self.mask.shape

    def update(self, mask: np.ndarray) -> PatchedMask:
        """Become another mask."""
        if mask is not self.mask:
            self.changed = None
            if mask.shape == self.mask.shape:
                self.changed = no_runs(*mask.shape)
                set_differing(self.changed, mask, self.mask)
            self.mask = mask
            self.written += 1
        return self


@dataclass(frozen=True)
class _Inputs:
    """Inputs of some light; arrays are compared by what they are, the rest by value.

    Attributes
    ----------
    planes : what arrived, and ``arrived``, how often that had been written. mask, masked : the
        mask, and how often that had been.
    recipe : all besides the mask.
    """

    planes: np.ndarray
    arrived: int
    mask: PatchedMask
    masked: int
    weights: np.ndarray
    unmixed: EdgeMatte | None
    colour: ColourShare | None
    recipe: tuple[object, ...]

    def same_recipe(self, other: _Inputs) -> bool:
        """Return whether the same is done with every masked pixel."""
        same = self.unmixed is other.unmixed and self.colour is other.colour
        return same and self.recipe == other.recipe


@dataclass
class _Adjusted:
    """Wholly adjusted pixels of a sieve: while only the mask changes, each is adjusted once.

    Attributes
    ----------
    made : gives it. planes : (3, H, W) what it has given. known : the runs (H, R) in which it has.
    """

    made: Mixture
    planes: np.ndarray
    known: np.ndarray

    def of(self, runs: np.ndarray) -> np.ndarray:
        """All that is known (3, H, W), some runs (H, R) of it for certain."""
        self.made.write_runs(runs & ~self.known, self.planes)
        self.known |= runs
        return self.planes


@dataclass
class PatchedLight(Patched):
    """Light (3, H, W) after a sieve. While only its mask changes it is drawn without being written
    down, until somebody asks for the light.
    """

    planes: np.ndarray = field(default_factory=lambda: np.zeros((3, 0, 0), np.float32))
    _made_of: _Inputs | None = field(default=None, repr=False)
    _adjusted: _Adjusted | None = field(default=None, repr=False)
    #: What it is made of, and the runs (H, R) of it that have not been written down.
    _made: Mixture | None = field(default=None, repr=False)
    _left: np.ndarray = field(default_factory=lambda: no_runs(0, 0), repr=False)

    @property
    def shape(self) -> tuple[int, int]:
        height, width = self.planes.shape[1:]
        return height, width

    def update(
        self,
        made: Mixture,
        under: PatchedLight | None,
        mask: PatchedMask,
        recipe: tuple[object, ...],
    ) -> None:
        """Become the outcome of a mixture by a mask; ``under`` owns its planes, where they are
        patched themselves.
        """
        now = _Inputs(
            made.planes,
            under.written if under else 0,
            mask,
            mask.written,
            made.weights,
            made.unmixed,
            made.colour,
            recipe,
        )
        was, runs, mask_alone = self._made_of, None, False
        if was is not None and was.planes is now.planes and was.mask is mask:
            pointwise = made.begun is None and made.filling is NO_FILLING
            if (was.arrived, was.masked) == (now.arrived, now.masked) and was.same_recipe(now):
                return
            runs = _to_change(now, was, under, pointwise)
            mask_alone = (
                runs is not None
                and pointwise
                and was.arrived == now.arrived
                and was.same_recipe(now)
            )
        if not mask_alone:
            self._adjusted = None
        elif self._adjusted is None:
            self._adjusted = _Adjusted(
                made.everywhere(), np.empty_like(self.planes), no_runs(*self.shape)
            )
        self._made_of, self._made = None, made  # whatever ends it early, the next one begins anew
        self.changed = runs
        self.written += 1
        if runs is None:
            made.whole(self.planes)
            self._left = no_runs(*self.shape)
        else:
            self._left |= runs
            if self._adjusted is None or made.unmixed is not None or made.colour is not None:
                self.finish()
        self._made_of = now

    def finish(self) -> None:
        """Write down all of the light."""
        if self._made is not None and self._left.any():
            self._made.write_runs(
                self._left,
                self.planes,
                self._adjusted.of(self._left) if self._adjusted is not None else None,
            )
            self._left = no_runs(*self.shape)

    def draw(self, lowers: bool) -> np.ndarray:
        """All of it as pixels of the screen (H, W), see `core.colour.screen.to_screen`."""
        self.finish()
        return to_screen(self.planes, lowers)

    def draw_runs(self, runs: np.ndarray, lowers: bool, out: np.ndarray) -> None:
        """Write some runs (H, R) of it as pixels of the screen over what stands in ``out`` (H,
        W).
        """
        if self._made is None or self._adjusted is None or not self._left.any():
            runs_to_screen(self.planes, runs, out, lowers)
        else:
            self._made.draw_runs(runs, self._adjusted.of(runs), lowers, out)

    def know_all(self) -> None:
        """Adjust all pixels now, so that no step which changes the mask alone has to."""
        if self._adjusted is not None:
            self._adjusted.of(~no_runs(*self.shape))


def _to_change(
    now: _Inputs, was: _Inputs, under: PatchedLight | None, pointwise: bool
) -> np.ndarray | None:
    """The runs (H, R) of what was made of some inputs that may come out otherwise from others; None
    where that is not known.
    """
    runs = no_runs(*now.weights.shape)
    below = under.since(was.arrived) if under is not None else runs
    masked = now.mask.since(was.masked)
    if below is None or masked is None:
        return None
    runs |= below
    if pointwise and was.same_recipe(now):
        runs |= masked
        return runs
    set_held(runs, now.weights)
    if was.weights is not now.weights:
        set_held(runs, was.weights)
    for one in (now.colour, was.colour):
        if one is not None:
            runs[one.rows, one.columns // RUN] = True
    return runs


class _Lease:
    """Stands between borrowed arrays and their memory: it lives as long as any of them."""

    def __init__(self, memory: np.ndarray) -> None:
        self.memory = memory
        self.__array_interface__ = memory.__array_interface__


class _Buffer:
    """Memory that is lent as an array, and may be written over once nothing holds that."""

    def __init__(self, memory: np.ndarray) -> None:
        self.memory = memory
        self._lease: Callable[[], _Lease | None] = lambda: None

    def lend(self) -> np.ndarray:
        """Return the memory as an array; its slices keep it lent too."""
        lease = _Lease(self.memory)
        self._lease = weakref.ref(lease)
        return np.asarray(lease)

    @property
    def free(self) -> bool:
        """Return whether no borrowed array is left."""
        return self._lease() is None


@dataclass
class PatchedPixels(Patched):
    """The pixels of the screen (H, W) uint32, or levels of grey uint8, that are drawn of something
    patched. Those of the last step are still being shown, so two pictures take turns.
    """

    pixels: np.ndarray = field(default_factory=lambda: np.zeros((0, 0), np.uint32))
    #: What the newest pixels and those of the step before are lent from.
    _lent: _Buffer | None = None
    _spare: _Buffer | None = None
    _of: Patched | None = None
    _drawn: int = 0
    _recipe: object = None

    @property
    def shape(self) -> tuple[int, int]:
        return self.pixels.shape

    def update(
        self,
        of: Patched,
        draw: Callable[[], np.ndarray],
        draw_runs: Callable[[np.ndarray, np.ndarray], None],
        recipe: object = None,
    ) -> np.ndarray:
        """Return the present pixels of ``of``, drawn whole or only in the runs (H, R) that have
        changed.
        """
        same = self._of is of and self._recipe == recipe
        if same and self._drawn == of.written:
            return self.pixels
        runs = of.since(self._drawn) if same else None
        if runs is None:
            memory, self._spare = draw(), None
        else:
            spare, self._spare = self._spare, self._lent
            if spare is not None and self.changed is not None and spare.free:
                memory = spare.memory
                copy_runs(self.pixels, self.changed & ~runs, memory)
            else:
                memory = self.pixels.copy()
            draw_runs(runs, memory)
        self._lent = _Buffer(memory)
        self.pixels = self._lent.lend()
        self._of, self._drawn, self._recipe, self.changed = of, of.written, recipe, runs
        self.written += 1
        return self.pixels


@dataclass(frozen=True)
class Step:
    """The difference of a view's pixels from those of the step before.

    Attributes
    ----------
    of, number : whose pixels, and which step of theirs. runs : the runs (H, R) that may differ.
        inner : what of them is shown.
    """

    of: PatchedPixels
    number: int
    runs: np.ndarray
    inner: tuple[slice, slice]

    def follows(self, other: Step | None) -> bool:
        """Return whether it is the step after another one, of the same part."""
        return (
            other is not None
            and self.of is other.of
            and self.number == other.number + 1
            and self.inner == other.inner
        )

    @property
    def shown_runs(self) -> tuple[np.ndarray, int]:
        """The runs of the rows that are shown, and how many pixels of the first run are left of
        what is.
        """
        rows, columns = self.inner
        return self.runs[rows], columns.start or 0

    def boxes(self) -> list[tuple[int, int, int, int]]:
        """Some boxes (top, left, bottom, right) of the view outside which nothing differs."""
        return boxes_of_runs(self.runs, self.inner)
