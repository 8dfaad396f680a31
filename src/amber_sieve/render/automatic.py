"""Amounts, and colours of the masked pixels, that are found on the picture. They are found once, on
the whole of it, and stand as numbers from there on: so a preview of a part and an export use the
same.
"""

from __future__ import annotations

import functools
from collections.abc import Callable

import numpy as np

from ..core.frame import Frame
from ..core.mix import adjusted
from ..project.model import Adjust, Project, Sieve
from .context import RenderContext
from .evaluate import arriving, made_by, of_mask
from .layers import Layers, no_layers
from .light import range_on, with_flat, with_light
from .resolved import found_of, with_found
from .stages.edging import EdgeStage
from .stages.every import BLOCKS, EDGE, steps_of
from .sure import FAINT, sure_weights

#: Means of what is masked are taken on a picture reduced to about this many pixels.
MEANS_ON = 400_000
#: Over at most this many of them.
COUNTED = 20_000
#: A mask that holds less than this many pixels of a picture has no colour of its own.
NEARLY_NOTHING = 0.5
#: Gives the amount that a stage asks for, None where it finds that itself.
Finds = Callable[[EdgeStage], float | None]


def found_amounts(
    sieve: Sieve, whole: Frame, context: RenderContext, finds: Finds | None = None
) -> Sieve:
    """The sieve with its light found, and every amount of its edge that is "auto" and one number
    for the whole picture; ``finds`` where the stages are not to be asked themselves, as for all
    frames of a clip.
    """
    sieve = with_light(sieve, whole, context)
    if sieve.pick.flat == "auto":
        sieve = with_flat(sieve, range_on(whole, context))
    amounts: dict[str, float] = {}
    for stage in EDGE:
        if stage.asks(sieve.edge):
            amount = finds(stage) if finds is not None else stage.find(whole, context)
            amounts |= {stage.automatic: amount} if amount is not None else {}
    return sieve.but(edge=sieve.edge.but(**amounts)) if amounts else sieve


def with_working(project: Project, layers: Layers) -> Project:
    """The project with the primaries of its working space found; raises `Trouble` for an unknown
    one.
    """
    if not project.working:
        return project
    held = layers.primaries(project.working)
    return project.but(stack=tuple(with_found(sieve, primaries=held) for sieve in project.stack))


def with_table(sieve: Sieve, layers: Layers) -> Sieve:
    """The sieve with its lookup table read; raises `Trouble` when it cannot be."""
    block = sieve.adjust.lookup
    return (
        sieve
        if block.neutral or found_of(sieve).table is not None
        else with_found(sieve, table=layers.table(block.lookup_file))
    )


def _sure_pixels(mask: np.ndarray) -> tuple[np.ndarray, np.ndarray] | None:
    """Return where a mask (h, w) surely masks, as places in it (N,), and how far each of them is
    masked; None where hardly any is.
    """
    if mask[mask > FAINT].sum(dtype=np.float64) < NEARLY_NOTHING:
        return None
    weights = sure_weights(mask).ravel()
    held = np.flatnonzero(weights)
    held = held[:: max(1, held.size // COUNTED)]
    return held, weights[held].astype(np.float64)


def _colours_in(
    small: Frame, project: Project, sieve_id: str, context: RenderContext, layers: Layers
) -> tuple[np.ndarray, np.ndarray] | None:
    """Light (3, 1, N) that arrives at a sieve where it surely masks, and how far each pixel is
    masked; None where hardly any is.
    """
    sure = of_mask("sure pixels", _sure_pixels, small, project, sieve_id, context, layers)
    if sure is None:
        return None
    held, weights = sure
    planes = arriving(small, project, sieve_id, context, layers).planes.reshape(3, -1)
    return np.take(planes, held, axis=1)[:, None], weights


def needs_means(sieve: Sieve) -> bool:
    """Return whether an adjustment of a sieve asks for what the masked colours are on average."""
    return any(block.wants_means(sieve) for block in BLOCKS)


def _up_to_means(sieve: Sieve) -> Sieve:
    """A sieve without the adjustments that come after the last one that asks for means: they change
    nothing of these.
    """
    last = max(number for number, block in enumerate(BLOCKS) if block.wants_means(sieve))
    plain = Adjust()
    return sieve.but(
        adjust=sieve.adjust.but(
            **{block.field: getattr(plain, block.field) for block in BLOCKS[last + 1 :]}
        )
    )


def _with_means(
    project: Project, sieve: Sieve, small: Frame, context: RenderContext, layers: Layers
) -> Sieve:
    found = _colours_in(small, project, sieve.id, context, layers)
    if found is None:
        return sieve
    planes, weights = found
    for block in BLOCKS:
        if block.wants_means(sieve):
            steps = steps_of(sieve, until=block.field)
            sieve = block.learn(sieve, adjusted(planes, steps) if steps else planes, weights)
    return sieve


def with_found_means(
    project: Project, whole: Frame, context: RenderContext, layers: Layers = no_layers
) -> Project:
    """The project with what its adjustments need to know of the masked colours found on a reduced
    whole frame, from the first sieve to the last: what a sieve does changes what arrives at the
    next.
    """
    if not any(needs_means(sieve) for sieve in project.stack):
        return project
    factor = max(1, round((whole.width * whole.height / MEANS_ON) ** 0.5))
    small = context.get(("means on", whole.key, factor), lambda: whole.reduced(factor))
    for sieve in project.stack:
        if needs_means(sieve):
            key = ("means", small.key, made_by(project.with_sieve(_up_to_means(sieve)), sieve.id))
            found = context.get(
                key, functools.partial(_with_means, project, sieve, small, context, layers)
            )
            project = project.with_sieve(with_found(sieve, **found_of(found).means))
    return project


def with_found_amounts(
    project: Project,
    whole: Frame,
    context: RenderContext,
    finds: Finds | None = None,
    layers: Layers = no_layers,
    means: bool = True,
) -> Project:
    """The project with the amounts of its sieves found on the whole frame at full resolution;
    ``means`` of colours too.
    """
    stack = tuple(
        with_table(found_amounts(sieve, whole, context, finds), layers) for sieve in project.stack
    )
    project = with_working(project if stack == project.stack else project.but(stack=stack), layers)
    return with_found_means(project, whole, context, layers) if means else project
