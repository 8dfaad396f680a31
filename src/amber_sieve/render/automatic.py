"""Amounts that are found on the picture. They are found once, on the whole of it at full resolution, and stand as numbers from
there on: so a preview of a part and an export use the same."""

from __future__ import annotations

import functools

import numpy as np

from ..core.adjust.even import found_means
from ..core.adjust.match import found_match
from ..core.colour.oklab import to_oklab
from ..core.edge.clean import BLOCK, fitting_amount
from ..core.frame import Frame
from ..core.mix import adjusted
from ..project.model import Project, Sieve
from .adjust import steps_of
from .cache import Cache
from .evaluate import arriving, made_by, sieve_masked
from .layers import Layers, no_layers

#: Noise is measured on neighbouring pixels of the middle of the picture, a square of this side.
SEEN = 904
#: Share of a picture under which a piece or hole is a speck: found by search with a clicking robot, see docs/sums.md.
SMALL = 3e-4


def found_clean(frame: Frame, cache: Cache) -> int:
    """Passes of chroma smoothing that the noise of a whole picture asks for."""

    def find() -> int:
        top, left = (max(0, (size - SEEN) // 2) // BLOCK * BLOCK for size in (frame.height, frame.width))
        return fitting_amount(to_oklab(np.ascontiguousarray(frame.planes[:, top : top + SEEN, left : left + SEEN])))

    return cache.get(("noise", frame.key), find)


def small_pieces(frame: Frame) -> int:
    """Full-resolution pixels up to which a piece or hole of a whole picture is a speck."""
    return round(SMALL * frame.width * frame.height / frame.scale**2)


def found_amounts(sieve: Sieve, whole: Frame, cache: Cache, clean: int | None = None) -> Sieve:
    """The sieve with every amount of its edge that is "auto" and one number for the whole picture found. Follow finds its own, place by
    place. ``clean`` is the passes of cleaning when they are known already, as for all frames of a clip."""
    edge = sieve.edge
    found: dict[str, float] = {name: float(small_pieces(whole)) for name in ("specks", "holes") if getattr(edge, name) == "auto"}
    if edge.clean == "auto":
        found["clean"] = float(found_clean(whole, cache) if clean is None else clean)
    return sieve.but(edge=edge.but(**found)) if found else sieve


def with_working(project: Project, layers: Layers) -> Project:
    """The project with the primaries of its working space found; raises `Trouble` for an unknown one."""
    if not project.working:
        return project
    held = layers.primaries(project.working)
    return project.but(stack=tuple(sieve.but(adjust=sieve.adjust.but(primaries=held)) for sieve in project.stack))


def with_table(sieve: Sieve, layers: Layers) -> Sieve:
    """The sieve with its lookup table read; raises `Trouble` when it cannot be."""
    block = sieve.adjust.lookup
    if block.neutral or block.table is not None:
        return sieve
    return sieve.but(adjust=sieve.adjust.but(lookup=block.but(table=layers.table(block.lookup_file))))


#: Means of what is masked are taken on a picture reduced to about so many pixels, over at most so many of them.
MEANS_ON, COUNTED = 400_000, 20_000
#: What is masked less does not count, and a mask that holds less than so many pixels of a picture has no colour of its own.
FAINT, NEARLY_NOTHING = 0.02, 0.5


def _colours_in(small: Frame, project: Project, sieve_id: str, cache: Cache, layers: Layers) -> tuple[np.ndarray, np.ndarray] | None:
    """Light (3, 1, N) that arrives at a sieve where it masks, and how far each pixel is masked; None where hardly any is."""
    mask = sieve_masked(small, project, sieve_id, cache, layers).mask.ravel()
    held = np.flatnonzero(mask > FAINT)
    if mask[held].sum(dtype=np.float64) < NEARLY_NOTHING:
        return None
    held = held[:: max(1, held.size // COUNTED)]
    planes = arriving(small, project, sieve_id, cache, layers).planes.reshape(3, -1)
    return np.ascontiguousarray(planes[:, held])[:, None], mask[held].astype(np.float64)


def needs_means(sieve: Sieve) -> bool:
    """Whether an adjustment of a sieve asks for what the masked colours are on average."""
    adjust = sieve.adjust
    return (not adjust.match.neutral and adjust.match.found is None) or (not adjust.even.neutral and adjust.even.mean is None)


def _with_means(project: Project, sieve: Sieve, small: Frame, cache: Cache, layers: Layers) -> Sieve:
    found = _colours_in(small, project, sieve.id, cache, layers)
    if found is None:
        return sieve
    planes, weights = found
    for name in ("match", "even"):
        block = getattr(sieve.adjust, name)
        if block.neutral:
            continue
        steps = steps_of(sieve.adjust, until=name)
        there = adjusted(planes, steps) if steps else planes
        if name == "match":
            block = block.but(found=found_match(there, weights, block.target, block.nearest))
        else:
            block = block.but(mean=found_means(there, weights))
        sieve = sieve.but(adjust=sieve.adjust.but(**{name: block}))
    return sieve


def with_found_means(project: Project, whole: Frame, cache: Cache, layers: Layers = no_layers) -> Project:
    """The project with what its adjustments need to know of the masked colours found on a reduced whole frame, from the first sieve to the
    last: what a sieve does changes what arrives at the next."""
    if not any(needs_means(sieve) for sieve in project.stack):
        return project
    factor = max(1, round((whole.width * whole.height / MEANS_ON) ** 0.5))
    small = cache.get(("means on", whole.key, factor), lambda: whole.reduced(factor))
    for sieve in project.stack:
        if needs_means(sieve):
            key = ("means", small.key, made_by(project, sieve.id))
            found = cache.get(key, functools.partial(_with_means, project, sieve, small, cache, layers))
            project = project.with_sieve(sieve.but(adjust=found.adjust))
    return project


def with_found_amounts(
    project: Project, whole: Frame, cache: Cache, clean: int | None = None, layers: Layers = no_layers, means: bool = True
) -> Project:
    """The project with the amounts of its sieves found on the whole frame at full resolution; ``means`` of colours too."""
    stack = tuple(with_table(found_amounts(sieve, whole, cache, clean), layers) for sieve in project.stack)
    project = with_working(project if stack == project.stack else project.but(stack=stack), layers)
    return with_found_means(project, whole, cache, layers) if means else project
