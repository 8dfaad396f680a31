"""The stages of the edge that look at the picture again: what is measured is cleaned, the outline
unmixed, hair matted, frames averaged.
"""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from ...core.colour.oklab import to_oklab
from ...core.edge.box import box_of
from ...core.edge.clean import BLOCK
from ...core.edge.clicked_regions import restore_clicked_regions
from ...core.edge.colour_share import COLOUR_SUPPORT, colour_share
from ...core.edge.feather import feathered, hardened
from ...core.edge.fine import closed_form_matte, prior_of
from ...core.edge.follow import SUPPORT_PER_REACH, follow
from ...core.edge.follow_reach import FOUND_SUPPORT, REACHES, follow_found
from ...core.edge.morphology import longest_of, without_crumbs
from ...core.edge.refine_alpha import REFINE_SUPPORT, refine_alpha
from ...core.frame import Frame
from ...core.pick.flat import undone
from ...core.pick.grain_at_half import SUPPORT_AT_HALF
from ...core.pick.measured import FROM_GRAIN, MOST, cleaning_for, measuring_of, stops_for
from ...language import translator
from ...project.model import Edge, Sieve, amount, is_auto
from ..context import RenderContext
from ..light import range_on
from .edging import LEAST, NO_EDGE, EdgeStage, Working
from .outline import DEVIATIONS
from .stage import WHOLE

translate = translator("stages")


#: Pieces of at most this many full-resolution pixels that Follow leaves by themselves are noise,
#: where specks go at all.
CRUMBS = 16.0
#: So far round a clicked place the picked mask stands where Follow would turn it round,
#: full-resolution pixels.
STANDS = REACHES[-1]
#: Noise is measured on neighbouring pixels of the middle of the picture, a square of this side.
SEEN = 904
#: From this feather on, full-resolution pixels, the colour's own share is left out; with a smaller
#: one some of it is.
FEATHERED = 2.0
#: Parts of frames reduced further than this may differ by a little at their borders in grain.
LEAST_SCALE = 0.25


def _brightened(whole: Frame, context: RenderContext) -> float:
    return float(context.get(("stops", whole.key), lambda: stops_for(whole.planes)))


class Level(EdgeStage):
    """A dark picture is measured brighter (`core.pick.measured`)."""

    name, does, automatic, once_a_clip = (
        translate("a brightened source"),
        ("level",),
        "level",
        True,
    )
    trial = {"level": 1}
    pointwise = True

    def find(self, whole: Frame, context: RenderContext) -> float:
        return _brightened(whole, context)


class Clean(EdgeStage):
    """The noise of what is measured is removed before anything is picked."""

    name, does, automatic, once_a_clip = (
        translate("a cleaned source"),
        ("clean",),
        "clean",
        True,
    )
    trial = {"clean": 1}

    def edge_radius(self, edge: Edge) -> float:
        most = MOST if self.asks(edge) else amount(edge.clean)
        if most >= FROM_GRAIN:  # reduced frames are looked at as far, in pixels of their own
            return SUPPORT_AT_HALF / LEAST_SCALE
        return measuring_of(most, 0).support_radius

    def find(self, whole: Frame, context: RenderContext) -> float:
        def cleaning() -> float:
            top, left = (
                max(0, (size - SEEN) // 2) // BLOCK * BLOCK for size in (whole.height, whole.width)
            )
            part = np.ascontiguousarray(whole.planes[:, top : top + SEEN, left : left + SEEN])
            codes = range_on(whole, context)
            part = undone(part, codes) if codes else part
            gain = np.float32(np.cbrt(2.0 ** _brightened(whole, context)))
            return cleaning_for(to_oklab(part) * gain)

        return float(context.get(("noise", whole.key), cleaning))


class Follow(EdgeStage):
    """The outline is unmixed into surface and background, so far as is set or as is found place by
    place.
    """

    name, does, settings, automatic = "follow", ("follow",), ("sensitivity",), "follow"
    trial = {"follow": 4}

    def edge_radius(self, edge: Edge) -> float:
        return FOUND_SUPPORT if self.asks(edge) else SUPPORT_PER_REACH * amount(edge.follow)

    def while_dragged(self, sieve: Sieve) -> Sieve:
        return self.without(sieve) if self.asks(sieve.edge) else sieve

    def words(self, sieve: Sieve) -> list[str]:
        return [] if self.is_noop(sieve) and not self.asks(sieve.edge) else super().words(sieve)

    def run(self, working: Working) -> None:
        edge, frame = working.edge, working.frame
        if is_auto(edge.follow):
            found = follow_found(
                frame.planes,
                working.mask,
                frame.scale,
                edge.sensitivity / 100,
                frame.corner,
                working.context.check,
            )
        else:
            reach = max(1.0, amount(edge.follow) * frame.scale)
            found = follow(frame.planes, working.mask, reach, edge.sensitivity / 100, frame.corner)
        working.picked, (working.mask, working.unmixed) = working.mask, found


class Crumbs(EdgeStage):
    """Removes what noise has left of the background, alone in the unmixed band."""

    def is_noop_for(self, edge: Edge) -> bool:
        return edge.specks == NO_EDGE.specks or edge.follow == NO_EDGE.follow

    def edge_radius(self, edge: Edge) -> float:
        return longest_of(CRUMBS) + 3

    def carried(self, sieve: Sieve) -> Sieve:
        return sieve  # it goes with Follow

    def run(self, working: Working) -> None:
        most = min(amount(working.edge.specks), CRUMBS) * working.scale**2
        if working.unmixed is not None and most >= 1:
            working.mask = without_crumbs(working.mask, most, working.clicked.kept)
            working.unmixed = replace(working.unmixed, alpha=working.mask)


class Settle(EdgeStage):
    """Settles the unmixed mask along the picture's lines; clicked places stand."""

    def is_noop_for(self, edge: Edge) -> bool:
        return edge.follow == NO_EDGE.follow

    def edge_radius(self, edge: Edge) -> float:
        return 2 * STANDS + REFINE_SUPPORT

    def carried(self, sieve: Sieve) -> Sieve:
        return sieve  # it goes with Follow

    def run(self, working: Working) -> None:
        unmixed, picked = working.unmixed, working.picked
        if unmixed is None or picked is None:
            return
        working.context.check()
        mask = refine_alpha(working.frame.planes, unmixed, working.frame.scale)
        mask = restore_clicked_regions(
            mask, picked, working.clicked.kept, working.clicked.dropped, STANDS * working.scale
        )
        working.mask, working.unmixed, working.picked = mask, replace(unmixed, alpha=mask), None


class Fine(EdgeStage):
    """Matting in a band, solved in tiles that start at the picture's corner; where Follow has
    unmixed, its word counts.
    """

    name, does = "fine", ("fine",)

    def edge_radius(self, edge: Edge) -> float:
        return WHOLE

    def run(self, working: Working) -> None:
        frame, edge, mask, unmixed = working.frame, working.edge, working.mask, working.unmixed

        def make() -> np.ndarray:
            prior = None if unmixed is None else prior_of(unmixed, mask.shape)
            return closed_form_matte(
                frame.planes,
                mask,
                max(1.0, edge.fine * frame.scale),
                working.step or working.context.step,
                prior,
            )

        matted = working.context.get(fine_key(frame, working.key, edge), make)
        if unmixed is None:
            unmixed = follow(
                frame.planes, matted, max(1.0, edge.fine * frame.scale), 1.0, frame.corner
            )[1]
        working.mask, working.unmixed = (
            matted,
            replace(unmixed, alpha=matted) if unmixed is not None else None,
        )


def fine_key(frame: Frame, key: object, edge: Edge) -> tuple[object, ...]:
    """Under what the matting of a frame is kept: everything it depends on, and nothing else.
    ``key`` stands for the picked mask.
    """
    kept = NoFringe().kept(Steady().kept(edge)).but(feather=NO_EDGE.feather, way=NO_EDGE.way)
    return ("fine", frame.key, key, kept)


class ColourReach(EdgeStage):
    """Finds how far the surface's colour reaches, where the outline was unmixed."""

    def is_noop_for(self, edge: Edge) -> bool:
        return (
            not edge.no_haze
            or edge.hard
            or edge.feather >= FEATHERED
            or (edge.follow == NO_EDGE.follow and edge.fine == NO_EDGE.fine)
        )

    def edge_radius(self, edge: Edge) -> float:
        return COLOUR_SUPPORT

    def carried(self, sieve: Sieve) -> Sieve:
        return sieve  # it goes with Follow and Fine

    def without(self, sieve: Sieve) -> Sieve:
        return sieve

    def run(self, working: Working) -> None:
        if working.unmixed is not None:
            working.context.check()
            frame = working.frame
            working.colour = colour_share(frame.planes, working.mask, frame.scale, frame.corner)


class Feather(EdgeStage):
    """Softens the finished outline; mixed pixels keep the colours they were unmixed into."""

    name, does, settings = "feather", ("feather",), ("way",)

    def edge_radius(self, edge: Edge) -> float:
        return DEVIATIONS * edge.feather

    def run(self, working: Working) -> None:
        edge, mask, unmixed = working.edge, working.mask, working.unmixed
        far = edge.feather * working.scale
        box = box_of(mask, LEAST, DEVIATIONS * far)
        if box is None:
            return
        soft = mask.copy()
        soft[box] = feathered(np.ascontiguousarray(mask[box]), far, edge.way)
        working.mask = soft
        working.unmixed = None if unmixed is None else replace(unmixed, feathered=soft)
        if working.colour is not None:
            working.colour = working.colour.fainter(1 - edge.feather / FEATHERED)


class Hard(EdgeStage):
    """The last word: no partial pixel, and so nothing that would have to be unmixed."""

    name, does, pointwise = translate("hard edge"), ("hard",), True

    def words(self, sieve: Sieve) -> list[str]:
        return [self.name] if sieve.edge.hard else []

    def run(self, working: Working) -> None:
        working.mask, working.unmixed = hardened(working.mask), None


class NoFringe(EdgeStage):
    """Without it, the colours of mixed pixels are adjusted as they are."""

    name, settings, pointwise = "no haze", ("no_haze",), True

    def is_noop_for(self, edge: Edge) -> bool:
        return edge.no_haze

    def without(self, sieve: Sieve) -> Sieve:
        return sieve.but(edge=self.kept(sieve.edge))

    def kept(self, edge: Edge) -> Edge:
        """The edge as those before this stage see it."""
        return edge.but(no_haze=True)

    def run(self, working: Working) -> None:
        working.unmixed = None


class Steady(EdgeStage):
    """Masks of the frames around, brought here along the motion, weigh in (`render.mask`, which has
    the frames).
    """

    name, does = "steady", ("steady",)

    def edge_radius(self, edge: Edge) -> float:
        return WHOLE if edge.steady else 0.0

    def while_dragged(self, sieve: Sieve) -> Sieve:
        return sieve if self.is_noop(sieve) else self.without(sieve)

    def kept(self, edge: Edge) -> Edge:
        """The edge of a frame by itself."""
        return edge.but(steady=0.0) if edge.steady else edge
