"""Evaluate a stack of sieves on the frame that each measures: the picture as opened, as it arrives
at the sieve, or another picture.

Previews, sampling, Fit, Fine, haze, islands and bounds all ask here, so that they look at the same
thing.
"""

from __future__ import annotations

import functools
from collections.abc import Callable, Hashable
from dataclasses import replace
from typing import TypeVar

import numpy as np

from ..core.areas.shapes import combined
from ..core.edge.box import around
from ..core.frame import Frame
from ..core.mix import Mixture
from ..project.model import Detail, Pick, Project, Sieve
from .adjust import adjusted, adjusting
from .context import RenderContext
from .keys import JoinedMaskKey
from .layers import Layers, no_layers
from .mask import final_mask
from .masked import Masked
from .patched import PatchedLight, PatchedMask
from .resolved import found_of

T = TypeVar("T")
#: Where more than this share of a picture has changed, all of it is worked.
MOST_OF_IT = 0.8
#: What the mask of a sieve depends on by itself.
MASK_FIELDS = ("pick", "bands", "invert", "edge", "areas", "mask_from", "opposite")


def working(project: Project) -> list[Sieve]:
    """The sieves that change the picture, as strong as their groups let them be."""
    groups = {group.id: (group.strength if group.on else 0.0) for group in project.groups}
    out = []
    for sieve in project.stack:
        strength = sieve.strength * groups.get(sieve.group, 100.0) / 100
        if (
            (sieve.id == project.solo if project.solo else sieve.on)
            and not sieve.adjust.neutral
            and strength > 0
        ):
            out.append(sieve if strength == sieve.strength else sieve.but(strength=strength))
    return out


def _value(sieve: Sieve, but: tuple[str, ...] = ()) -> tuple[object, ...]:
    """A sieve as a cache key: what it is called does not matter."""
    return tuple(value for name, value in sieve if name not in ("id", "name", *but))


def made_by(project: Project, sieve_id: str) -> tuple[object, ...]:
    """All of a project that what a sieve of it makes of a frame depends on: the sieves up to it, or
    all where masks lean on others.
    """
    at = next(place for place, sieve in enumerate(project.stack) if sieve.id == sieve_id)
    stack = (
        project.stack if any(sieve.leans_on for sieve in project.stack) else project.stack[: at + 1]
    )
    return (at, project.groups, project.solo, tuple((sieve.id, *_value(sieve)) for sieve in stack))


def mask_value(project: Project, sieve: Sieve) -> tuple[object, ...]:
    """All that the mask of a sieve depends on besides what is measured, through its links."""
    own = (*(getattr(sieve, name) for name in MASK_FIELDS), found_of(sieve).around)
    if not sieve.leans_on:
        return own
    links = tuple(mask_value(project, project.sieve(other)) for other in sieve.leans_on)
    return (*own, tuple(one.mode for one in sieve.joined), links)


def _chosen(pick: Pick, original: Frame, below: Frame, layers: Layers) -> Frame:
    """Of the original, what arrives at a sieve, and a layer, the one its pick names."""
    if pick.measure == "layer" and pick.layer:
        return layers.at(pick.layer, original)
    return below if pick.measure == "result" else original


def _filled_with(sieve: Sieve, layers: Layers) -> Frame | None:
    """The picture that a sieve fills with."""
    path = sieve.adjust.fill.fill_picture if sieve.adjust.fill.fill == "picture" else ""
    return layers.whole(path) if path and not sieve.adjust.fill.neutral else None


def last_of_all(
    frame: Frame, project: Project, context: RenderContext, layers: Layers = no_layers
) -> tuple[np.ndarray | Mixture, np.ndarray | None]:
    """Planes and alpha of the picture after all sieves; what the last of them does is left to be
    worked out some rows at a time, if it can.
    """
    sieves = working(project)
    if not sieves:
        return frame.planes, frame.alpha
    below = after_sieves(frame, project, sieves[:-1], context, layers)
    seen = _chosen(sieves[-1].pick, frame, below, layers)
    return adjusting(
        below,
        _finished(frame, project, sieves[-1], seen, context, layers),
        sieves[-1],
        _filled_with(sieves[-1], layers),
    )


def after_sieves(
    frame: Frame, project: Project, sieves: list[Sieve], context: RenderContext, layers: Layers
) -> Frame:
    """The frame after some sieves of a project; the frame itself where nothing changes.

    Every stage is kept under its inputs by value: what arrives, the sieve, and what it measures.
    """
    after, patched = _after(frame, project, sieves, context, layers)
    if patched is not None:
        patched.finish()
    return after


def apply_stack(
    frame: Frame, project: Project, context: RenderContext, layers: Layers
) -> tuple[Frame, PatchedLight | None]:
    """The frame after all sieves; while something is dragged, what it is kept in from step to step,
    if it is: its light must be finished before it is looked at.
    """
    return _after(frame, project, working(project), context, layers)


def _after(
    frame: Frame, project: Project, sieves: list[Sieve], context: RenderContext, layers: Layers
) -> tuple[Frame, PatchedLight | None]:
    below, patched = frame, None
    for sieve in sieves:
        if patched is not None:
            patched.finish()
        seen, filling = _chosen(sieve.pick, frame, below, layers), _filled_with(sieve, layers)
        links = mask_value(project, sieve) if sieve.leans_on else ()
        key: Hashable = (
            "result",
            below.key,
            _value(sieve, ("of", "joined")),
            links,
            seen.key,
            filling.key if filling else None,
        )

        def finished() -> Masked:
            return _kept_finished(frame, project, sieve, seen, context, layers)  # noqa: B023  (called at once)

        if context.interactive and not context.holds(key):
            planes, alpha, patched = _after_step(
                below, patched, finished(), sieve, filling, frame, context
            )
        else:
            planes, alpha = context.get(key, lambda: adjusted(below, finished(), sieve, filling))  # noqa: B023  (called at once)
            patched = patched if planes is below.planes else None
        if planes is not below.planes or alpha is not below.alpha:
            below = replace(below, planes=planes, alpha=alpha, key=key, near=None)
    return below, patched


def _after_step(
    below: Frame,
    under: PatchedLight | None,
    masked: Masked,
    sieve: Sieve,
    filling: Frame | None,
    frame: Frame,
    context: RenderContext,
) -> tuple[np.ndarray, np.ndarray | None, PatchedLight | None]:
    """Planes and alpha after a sieve at a step of a drag, and what they are kept in."""
    mask = patched_mask(frame, sieve.id, masked.mask, context)

    def recipe(sieve: Sieve) -> tuple[object, ...]:
        return _value(sieve, ("of", "joined", *MASK_FIELDS))

    def follow(name: str, mixture: Mixture, *by: object) -> PatchedLight:
        light = context.get(
            (name, frame.key, sieve.id), lambda: PatchedLight(planes=np.empty_like(below.planes))
        )
        light.update(mixture, under, mask, by)
        return light

    def begin(mixture: Mixture) -> np.ndarray:
        light = follow(
            "patched before detail",
            mixture,
            recipe(sieve.but(adjust=sieve.adjust.but(detail=Detail()))),
        )
        light.finish()
        return light.planes

    made, alpha = adjusting(below, masked, sieve, filling, begin)
    if made is below.planes:
        return made, alpha, under
    if not isinstance(made, Mixture) or alpha is not below.alpha:
        return made.whole() if isinstance(made, Mixture) else made, alpha, None
    light = follow("patched light", made, filling and filling.key, recipe(sieve))
    return light.planes, alpha, light


def adjust_ahead(frame: Frame, project: Project, context: RenderContext) -> None:
    """Adjust all pixels of a frame on which steps of a drag have been made, where only masks differ
    between them.
    """
    for key in [("patched light", frame.key, sieve.id) for sieve in project.stack]:
        context.check()
        if context.holds(key):
            context.get(key, PatchedLight).know_all()


def patched_mask(
    frame: Frame, sieve_id: str, mask: np.ndarray, context: RenderContext
) -> PatchedMask:
    """Return the tracker of where the mask of a sieve differs from that of the step before, while
    something is dragged.
    """
    return context.get(("patched mask", frame.key, sieve_id), PatchedMask).update(mask)


def changed_in(
    frame: Frame, project: Project, context: RenderContext, layers: Layers
) -> tuple[slice, slice] | None:
    """Rows and columns outside which the picture after all sieves is the frame bit by bit; None
    where that is all of it.
    """
    sieves = working(project)
    if any(sieve.outside > 0 or sieve.adjust.fill.fill_where == "behind" for sieve in sieves):
        return None

    def find() -> tuple[slice, slice] | None:
        masked = [sieve_masked(frame, project, sieve.id, context, layers) for sieve in sieves]
        box = around([one.box for one in masked if one.box is not None])
        if box is None:
            return slice(0, 0), slice(0, 0)
        size = (box[0].stop - box[0].start) * (box[1].stop - box[1].start)
        return box if size < MOST_OF_IT * frame.width * frame.height else None

    # What arrives at a sieve matters only where it measures that.
    but = (
        ()
        if any(sieve.pick.measure == "result" for sieve in project.stack)
        else ("adjust", "strength", "blend", "found")
    )
    values = tuple(
        (_value(sieve, (*but, "of", "joined")), mask_value(project, sieve)) for sieve in sieves
    )
    return context.get(("changed in", frame.key, values), find)


def arriving(
    frame: Frame,
    project: Project,
    sieve_id: str,
    context: RenderContext,
    layers: Layers = no_layers,
) -> Frame:
    """The frame as it arrives at a sieve, after those above it."""
    at = next(place for place, sieve in enumerate(project.stack) if sieve.id == sieve_id)
    above = {sieve.id for sieve in project.stack[:at]}
    return (
        after_sieves(
            frame,
            project,
            [sieve for sieve in working(project) if sieve.id in above],
            context,
            layers,
        )
        if above
        else frame
    )


def measured(
    frame: Frame,
    project: Project,
    sieve_id: str,
    context: RenderContext,
    layers: Layers = no_layers,
) -> Frame:
    """The frame that a sieve of the stack measures, at the place and scale of ``frame``."""
    sieve = project.sieve(sieve_id)
    below = (
        arriving(frame, project, sieve_id, context, layers)
        if sieve.pick.measure == "result"
        else frame
    )
    return _chosen(sieve.pick, frame, below, layers)


def _finished(
    frame: Frame,
    project: Project,
    sieve: Sieve,
    seen: Frame,
    context: RenderContext,
    layers: Layers,
) -> Masked:
    """The finished mask of a sieve that measures ``seen``, with what it takes from others."""

    def of(other: str) -> Masked:
        return sieve_masked(frame, project, other, context, layers)

    if sieve.mask_from == "own":
        held = final_mask(seen, sieve, context)
    elif len(sieve.of) == 1:
        held = of(sieve.of[0])
    else:
        held = Masked(functools.reduce(np.maximum, (of(other).mask for other in sieve.of)), None)
    if sieve.opposite != (sieve.mask_from == "left"):
        held = Masked(
            np.subtract(1, held.mask), held.unmixed.opposite if held.unmixed is not None else None
        )
    mask = held.mask
    for one in sieve.joined:
        mask = combined(mask, of(one.of).mask, one.mode)
    return held if mask is held.mask else Masked(mask, held.unmixed)


def _mask_key(frame: Frame, project: Project, sieve: Sieve, seen: Frame) -> JoinedMaskKey:
    """Return all that the finished mask of a sieve that measures ``seen`` depends on."""
    # What those it leans on measure is the frame, or what arrives there, which hangs on all
    # adjustments.
    others = (
        project.stack
        if sieve.leans_on and any(other.pick.measure == "result" for other in project.stack)
        else ()
    )
    return JoinedMaskKey(
        frame.key, seen.key, mask_value(project, sieve), tuple(_value(other) for other in others)
    )


def sieve_masked(
    frame: Frame,
    project: Project,
    sieve_id: str,
    context: RenderContext,
    layers: Layers = no_layers,
) -> Masked:
    """The finished mask of one sieve of the stack, before strength, with what its outline was
    unmixed into.
    """
    sieve = project.sieve(sieve_id)
    seen = (
        measured(frame, project, sieve_id, context, layers) if sieve.mask_from == "own" else frame
    )
    return _kept_finished(frame, project, sieve, seen, context, layers)


def _kept_finished(
    frame: Frame,
    project: Project,
    sieve: Sieve,
    seen: Frame,
    context: RenderContext,
    layers: Layers,
) -> Masked:
    """As `_finished`, the same object for the same inputs."""
    if not (sieve.leans_on or sieve.opposite):
        return final_mask(seen, sieve, context)
    key = _mask_key(frame, project, sieve, seen)
    return context.get(key, lambda: _finished(frame, project, sieve, seen, context, layers))


def of_mask(
    name: str,
    make: Callable[[np.ndarray], T],
    frame: Frame,
    project: Project,
    sieve_id: str,
    context: RenderContext,
    layers: Layers = no_layers,
) -> T:
    """Return what ``make`` gives for the finished mask (h, w) of one sieve and of nothing else; it
    stays while only adjustments change.
    """
    sieve = project.sieve(sieve_id)
    seen = (
        measured(frame, project, sieve_id, context, layers) if sieve.mask_from == "own" else frame
    )
    key = (name, _mask_key(frame, project, sieve, seen))
    return context.get(
        key, lambda: make(sieve_masked(frame, project, sieve_id, context, layers).mask)
    )
