"""The quick stages of the edge, in the part of the picture that the mask lies in: from levels to
smoothing, a class each.
"""

from __future__ import annotations

from ...core.edge.feather import smoothed
from ...core.edge.follow_reach import REACHES
from ...core.edge.islands import without_islands
from ...core.edge.levels import mask_levels
from ...core.edge.morphology import grown, longest_of, without_holes, without_specks
from ...core.frame import Frame
from ...language import translator
from ...project.model import Edge, Sieve, amount, is_auto
from ..context import RenderContext
from .edging import EdgeStage, Working
from .stage import WHOLE

translate = translator("stages")


#: A Gaussian is cut off at this many standard deviations (`core.edge.feather.blurred`).
DEVIATIONS = 4
#: Share of a picture under which a piece or hole is a speck: found by search with a clicking robot,
#: see docs/formulas.md.
SMALL = 3e-4


def small_pieces(frame: Frame) -> int:
    """Full-resolution pixels up to which a piece or hole of a whole picture is a speck."""
    return round(SMALL * frame.width * frame.height / frame.scale**2)


#: While something is dragged, pieces are cut off this far outside the visible part, full-resolution
#: pixels.
NEAR_DRAGGED = 96.0


class Levels(EdgeStage):
    """Black point, white point and gamma of the mask."""

    name, pointwise = translate("levels of the mask"), True
    does = ("black", "white", "gamma")

    def run(self, working: Working) -> None:
        edge = working.edge
        working.mask = mask_levels(working.mask, edge.black / 100, edge.white / 100, edge.gamma)


class Specks(EdgeStage):
    """Small pieces go, unless a sample lies in them or they lie within Follow's reach of a larger
    one.
    """

    name, does, automatic, support_radius_dragged, writes_over = (
        "specks",
        ("specks",),
        "specks",
        NEAR_DRAGGED,
        True,
    )

    def edge_radius(self, edge: Edge) -> float:
        near = REACHES[-1] if is_auto(edge.follow) else amount(edge.follow)
        return WHOLE if self.asks(edge) else 2 * longest_of(amount(edge.specks)) + near

    def find(self, whole: Frame, context: RenderContext) -> float:
        return float(small_pieces(whole))

    def run(self, working: Working) -> None:
        most = amount(working.edge.specks) * working.scale**2
        if most >= 1:
            follow = working.edge.follow
            near = REACHES[-1] if is_auto(follow) else amount(follow)
            working.become(
                without_specks(
                    working.mask, most, working.clicked.kept, near * working.scale, working.own
                )
            )


class Holes(EdgeStage):
    """Small holes, or all, are filled, unless a dropped place lies in them."""

    name, does, automatic, support_radius_dragged, writes_over = (
        "holes",
        ("holes", "all_holes"),
        "holes",
        NEAR_DRAGGED,
        True,
    )

    def words(self, sieve: Sieve) -> list[str]:
        return [translate("all holes filled")] if sieve.edge.all_holes else super().words(sieve)

    def edge_radius(self, edge: Edge) -> float:
        return WHOLE if edge.all_holes or self.asks(edge) else longest_of(amount(edge.holes)) + 2

    def find(self, whole: Frame, context: RenderContext) -> float:
        return float(small_pieces(whole))

    def run(self, working: Working) -> None:
        most = amount(working.edge.holes) * working.scale**2
        if working.edge.all_holes or most >= 1:
            working.become(
                without_holes(
                    working.mask, most, working.edge.all_holes, working.clicked.dropped, working.own
                )
            )


class Islands(EdgeStage):
    """Pieces that were clicked go, or stay alone."""

    name, does = "islands", ("islands_out", "islands_only")

    def words(self, sieve: Sieve) -> list[str]:
        out, only = len(sieve.edge.islands_out), len(sieve.edge.islands_only)
        return [translate("{n} islands kept alone", "{n} island kept alone", only)] * bool(only) + [
            translate("{n} islands taken out", "{n} island taken out", out)
        ] * bool(out)

    def edge_radius(self, edge: Edge) -> float:
        return WHOLE

    def run(self, working: Working) -> None:
        out, only = working.at(working.edge.islands_out), working.at(working.edge.islands_only)
        working.mask = without_islands(working.mask, out, only)


class Grow(EdgeStage):
    """The outline moves outwards, or inwards."""

    name, does = "grow", ("grow",)

    def edge_radius(self, edge: Edge) -> float:
        return abs(edge.grow) + 1

    def spreads(self, edge: Edge) -> float:
        return max(edge.grow, 0.0)

    def run(self, working: Working) -> None:
        working.mask = grown(working.mask, working.edge.grow * working.scale)


class Smooth(EdgeStage):
    """A jagged outline is rounded without being softened."""

    name, does = "smooth", ("smooth",)

    def edge_radius(self, edge: Edge) -> float:
        return DEVIATIONS * edge.smooth + 2

    def spreads(self, edge: Edge) -> float:
        return DEVIATIONS * edge.smooth

    def run(self, working: Working) -> None:
        working.mask = smoothed(working.mask, working.edge.smooth * working.scale)
