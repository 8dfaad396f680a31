"""The views as pixels for the screen, in a table: id, label, how each is drawn, and on what it
depends.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace

import numpy as np

from ..core.bands.apply import bands_mask
from ..core.bands.interval import Interval
from ..core.colour.oklab import one_to_oklab
from ..core.edge.fine import band_for
from ..core.frame import Frame
from ..core.overlays import (
    believable_marks,
    cut_out,
    far_colour,
    fringe_marks,
    grey_pixels,
    isolate,
    mask_to_levels,
    runs_of_mask_to_levels,
    veil,
    weak_spots,
    with_band,
)
from ..core.pick.samples import distance_to, membership
from ..core.statistics import Statistics, field_colours
from ..language import translator
from ..project.model import Bands, Project, Sieve
from .believable import believable_of
from .context import RenderContext
from .evaluate import (
    MOST_OF_IT,
    after_sieves,
    apply_stack,
    changed_in,
    mask_value,
    measured,
    patched_mask,
    sieve_masked,
    working,
)
from .fringe import fringe_of
from .layers import Layers, no_layers
from .mask import probes_of
from .measuring import measures_of
from .patched import PatchedPixels
from .shown import shown
from .stack import rendered, sieve_mask

translate = translator("render")


@dataclass(frozen=True)
class Looking:
    """Options for drawing views.

    Attributes
    ----------
    veil_colour : linear light, or None for a colour far from what is covered.
    veil_opacity : 0 to 1.
    veil_outside : lay the veil over the rest instead.
    solo : id of the one sample whose mask is shown, or "".
    spot : hue (degrees) and saturation (per cent) of a place on the colour field whose pixels are
        shown, or None.
    band : mark the band in which Fine works on the mask.
    screen, proof : ICC profiles of the screen, and of what is proofed on it; "" for none.
        proof_marks : mark what is outside its gamut.
    take : name of the take that the view Other take shows, "" for the first.
    quick : it moves, see `shown`.
    """

    veil_colour: tuple[float, float, float] | None = None
    veil_opacity: float = 0.6
    veil_outside: bool = False
    solo: str = ""
    spot: tuple[float, float] | None = None
    band: bool = False
    take: str = ""
    quick: bool = False
    screen: str = ""
    proof: str = ""
    proof_marks: bool = True

    @property
    def peeking(self) -> bool:
        """Return whether something else than the sieve's mask is looked at for a moment."""
        return bool(self.solo) or self.spot is not None


def shown_mask(
    frame: Frame,
    project: Project,
    sieve_id: str,
    looking: Looking,
    context: RenderContext,
    layers: Layers = no_layers,
) -> np.ndarray:
    """The mask that the mask views show, (H, W): the sieve's, or what one sample alone takes."""
    if looking.spot is not None:
        hue, saturation = (
            looking.spot
        )  # as wide as the tip of a pointer on the field; chosen by eye
        near = [
            Interval("hue", (hue - 12, hue - 8, hue + 8, hue + 12)),
            Interval(
                "saturation",
                (max(saturation - 9, 0), max(saturation - 6, 0), saturation + 6, saturation + 9),
            ),
        ]
        return bands_mask(measures_of(frame, context, levels=False), near)
    if looking.solo:
        sieve = project.sieve(sieve_id)
        alone = tuple(
            sample.but(role="keep", on=True)
            for sample in sieve.pick.samples
            if sample.id == looking.solo
        )
        if alone:
            own = sieve.but(
                mask_from="own", of=(), joined=(), opposite=False, bands=Bands(), invert=False
            )
            project = project.with_sieve(
                own.but(pick=sieve.pick.but(samples=alone, connected=False))
            )
    return sieve_mask(frame, project, sieve_id, context, layers)


def solo_field(counted: Statistics, sieve: Sieve, looking: Looking) -> np.ndarray | None:
    """Return which cells of the colour field (CELLS, CELLS) the one sample takes that is looked at,
    by their mean colours; None for none.
    """
    alone = tuple(
        sample.but(role="keep", on=True, reach="everywhere")
        for sample in sieve.pick.samples
        if sample.id == looking.solo and sample.compare in ("surface", "colour")
    )
    if not alone:
        return None
    return membership(_lab_of(counted), probes_of(sieve.pick.but(samples=alone))) * (
        counted.field > 0
    )


def nearer_to_drop(sieve: Sieve) -> np.ndarray | None:
    """Return which cells of the colour field (CELLS, CELLS) bool lie nearer to a drop sample that
    competes than to a keep sample.

    Where that changes runs the dividing line between keep and drop, drawn for colours as light as
    the samples are on average. None where no samples compete.
    """
    probes = probes_of(sieve.pick)
    out: np.ndarray | None = None
    for compare in ("surface", "colour"):
        kept = [probe for probe in probes if probe.keep and probe.compare == compare]
        competing = [probe for probe in probes if probe.competes and probe.compare == compare]
        if kept and competing:
            lab = field_colours(
                float(np.mean([one_to_oklab(probe.colour)[0] for probe in (*kept, *competing)]))
            )
            nearer = distance_to(lab, competing) < distance_to(lab, kept)
            out = nearer if out is None else out | nearer
    return out


def _lab_of(counted: Statistics) -> np.ndarray:
    """The mean colours of the cells, Oklab."""
    return np.ascontiguousarray(counted.colours, np.float32)


def _with_box(pixels: np.ndarray, box: tuple[slice, slice], made: np.ndarray) -> np.ndarray:
    """Screen pixels (H, W) with others in a box of them."""
    rows, columns = box
    out = np.empty_like(pixels)
    out[: rows.start], out[rows.stop :] = pixels[: rows.start], pixels[rows.stop :]
    out[rows, : columns.start], out[rows, columns.stop :] = (
        pixels[rows, : columns.start],
        pixels[rows, columns.stop :],
    )
    out[box] = made
    return out


def _seen_once(frame: Frame, scene: Scene) -> np.ndarray:
    """A frame as screen pixels, kept: they must not be written to."""
    project, looking = scene.project, scene.looking
    key = ("shown", frame.key, project.gamut, project.display, looking.quick)
    return scene.context.get(key, lambda: scene.shown(frame.planes))


def _over_the_last(result: Frame, scene: Scene, sieves: list[Sieve]) -> np.ndarray:
    """The result as screen pixels when the last of several sieves is worked on: what the others
    made is turned into screen pixels once, and only what the last one masks is anew.
    """
    last, frame, project, context, layers = (
        sieves[-1],
        scene.frame,
        scene.project,
        scene.context,
        scene.layers,
    )
    below = after_sieves(frame, project, sieves[:-1], context, layers)
    masked = sieve_masked(frame, project, last.id, context, layers)
    seen = measured(frame, project, last.id, context, layers)
    # Looking for the masked pixels takes longer than working on them, and they stay the same while
    # an adjustment is dragged.
    held = context.get(
        ("held pixels", below.key, seen.key, mask_value(project, last)),
        lambda: masked.changed_pixels,
    )
    if (
        last.outside > 0
        or last.adjust.fill.fill_where == "behind"
        or held.size > MOST_OF_IT * masked.mask.size
    ):
        return scene.shown(result.planes)
    pixels = _seen_once(below, scene).copy()
    part = np.stack([np.take(plane.ravel(), held) for plane in result.planes])[:, None]
    pixels.ravel()[held] = scene.shown(part)[0]
    return pixels


def patched_pixels(name: str, frame: Frame, context: RenderContext) -> PatchedPixels:
    """Return the buffer of a view's pixels while something is dragged."""
    return context.get(("patched pixels", name, frame.key), PatchedPixels)


@dataclass(frozen=True)
class Scene:
    """The inputs of a view: its id, a frame, a resolved project, the sieve that is worked on, and
    how it is looked at.
    """

    view: str
    frame: Frame
    project: Project
    sieve_id: str
    looking: Looking
    context: RenderContext
    layers: Layers

    @property
    def rendered(self) -> Frame:
        """The picture after all sieves."""
        return rendered(self.frame, self.project, self.context, self.layers)

    @property
    def mask(self) -> np.ndarray:
        """The mask that is shown, (H, W)."""
        return shown_mask(
            self.frame, self.project, self.sieve_id, self.looking, self.context, self.layers
        )

    def shown(
        self,
        planes: np.ndarray,
        alpha: np.ndarray | None = None,
        box: tuple[slice, slice] | None = None,
    ) -> np.ndarray:
        """Light (3, H, W) as screen pixels, see `shown`."""
        return shown(
            planes, self.project, self.layers, alpha, box, self.frame.corner, self.looking.quick
        )


def _result(scene: Scene) -> np.ndarray:
    frame, project, context, layers = scene.frame, scene.project, scene.context, scene.layers
    result, patched = apply_stack(frame, project, context, layers)
    planes = result.planes
    if patched is not None and not project.display and result.alpha is frame.alpha:
        lowers = project.gamut == "lower chroma"
        return patched_pixels(scene.view, frame, context).update(
            patched,
            lambda: patched.draw(lowers),
            lambda runs, out: patched.draw_runs(runs, lowers, out),
            lowers,
        )
    if patched is not None:
        patched.finish()
    if planes is frame.planes and result.alpha is frame.alpha:
        return _original(scene)
    alpha = result.alpha if result.alpha is not frame.alpha else None
    sieves = working(project)
    last = sieves[-1] if sieves else None
    if last is not None and len(sieves) > 1 and last.id == scene.sieve_id and alpha is None:
        return _over_the_last(result, scene, sieves)
    box = changed_in(frame, project, context, layers)
    if box is None:
        return scene.shown(planes, alpha)
    # Outside the masks the picture is as it was: that is turned into screen pixels once.
    return _with_box(_original(scene), box, scene.shown(planes, alpha, box))


def _original(scene: Scene) -> np.ndarray:
    return _seen_once(scene.frame, scene)


def _banded(pixels: np.ndarray, mask: np.ndarray, scene: Scene) -> np.ndarray:
    """A view of the mask, with the band in which Fine works where that is asked for."""
    width = scene.project.sieve(scene.sieve_id).edge.fine * scene.frame.scale
    if not scene.looking.band or width <= 0:
        return pixels
    return with_band(
        grey_pixels(pixels) if pixels.dtype == np.uint8 else pixels, band_for(mask, max(1.0, width))
    )


def _mask(scene: Scene) -> np.ndarray:
    mask, looking = scene.mask, scene.looking
    if scene.context.interactive and not looking.band and not looking.peeking:
        held = patched_mask(scene.frame, scene.sieve_id, mask, scene.context)
        return patched_pixels(scene.view, scene.frame, scene.context).update(
            held,
            lambda: mask_to_levels(mask),
            lambda runs, out: runs_of_mask_to_levels(mask, runs, out),
        )
    return _banded(mask_to_levels(mask), mask, scene)


def _weak_spots(scene: Scene) -> np.ndarray:
    mask = scene.mask
    return _banded(weak_spots(mask), mask, scene)


def _veil(scene: Scene) -> np.ndarray:
    planes, mask, looking = scene.rendered.planes, scene.mask, scene.looking
    colour = looking.veil_colour or far_colour(planes, mask)
    return scene.shown(veil(planes, mask, colour, looking.veil_opacity, looking.veil_outside))


def _isolate(scene: Scene) -> np.ndarray:
    return scene.shown(isolate(scene.rendered.planes, scene.mask))


def _cut_out(scene: Scene) -> np.ndarray:
    return scene.shown(cut_out(scene.rendered.planes, scene.mask, scene.frame.corner))


def _haze(scene: Scene) -> np.ndarray:
    found = fringe_of(scene.frame, scene.project, scene.sieve_id, scene.context, scene.layers)
    return fringe_marks(scene.rendered.planes, found.pixels)


def _believable(scene: Scene) -> np.ndarray:
    found = believable_of(scene.frame, scene.project, scene.sieve_id, scene.context, scene.layers)
    return believable_marks(scene.rendered.planes, found.marks)


def _other_take(scene: Scene) -> np.ndarray:
    takes = {take.name: take for take in scene.project.takes}
    other = takes.get(scene.looking.take) or next(iter(takes.values()), None)
    return _result(
        replace(scene, project=scene.project.but(stack=other.stack, solo="")) if other else scene
    )


@dataclass(frozen=True)
class View:
    """A view: what a person reads, and how it is drawn.

    Attributes
    ----------
    label : its name. draw : a scene into pixels (H, W) uint32 0xFFRRGGBB, or into levels of grey
        uint8.
    proofed : a soft proof is laid over it.
    of : what it shows alone, so that it stays while anything else changes: "mask", "picture" (as it
        was), or "" for everything.
    """

    label: str
    draw: Callable[[Scene], np.ndarray]
    proofed: bool = False
    of: str = ""


#: Every view by its id, in the order of the keys 1 to 9 and 0.
VIEWS: dict[str, View] = {
    "result": View(translate("Result"), _result, proofed=True),
    "original": View(translate("Original"), _original, proofed=True, of="picture"),
    "mask": View(translate("Mask"), _mask, of="mask"),
    "veil": View(translate("Veil"), _veil),
    "isolate": View(translate("Isolate"), _isolate),
    "cut-out": View(translate("Cut-out"), _cut_out),
    "weak spots": View(translate("Weak spots"), _weak_spots, of="mask"),
    "fringe": View(translate("Fringe check"), _haze),
    "realism": View(translate("Realism check"), _believable),
    "other take": View(translate("Other take"), _other_take, proofed=True),
}


def view(
    name: str,
    frame: Frame,
    project: Project,
    sieve_id: str,
    looking: Looking,
    context: RenderContext,
    layers: Layers = no_layers,
) -> np.ndarray:
    """One view of a frame, (H, W) uint32 pixels 0xFFRRGGBB; a view that has no colours may be
    levels of grey uint8.

    Parameters
    ----------
    name : id of one of ``VIEWS``.
    sieve_id : whose mask the mask views show.
    """
    return VIEWS[name].draw(Scene(name, frame, project, sieve_id, looking, context, layers))
