"""All stages, in the order in which they are applied, and what is asked of all of them."""

from __future__ import annotations

from ...core.adjust.chain import Step
from ...project.model import Adjust, Edge, Project, Sieve
from .adjusting import SPECIAL, BlockStage
from .outline import Grow, Holes, Islands, Levels, Smooth, Specks
from .picking import AreasStage, Connected, HereOnly, MeasuredLayer
from .stage import Stage
from .unmixing import (
    Clean,
    ColourReach,
    Crumbs,
    Feather,
    Fine,
    Follow,
    Hard,
    Level,
    NoFringe,
    Settle,
    Steady,
)

#: What a mask goes through that its samples and bands have made: quick ones in the box it lies in,
#: then those that unmix it.
OUTLINE = (Levels(), Specks(), Holes(), Islands(), Grow(), Smooth())
UNMIXING = (Follow(), Settle(), Crumbs(), Fine(), ColourReach(), Feather(), Hard(), NoFringe())
STEADY = Steady()
EDGE = (Level(), Clean(), *OUTLINE, *UNMIXING, STEADY)
CONNECTED, AREAS = Connected(), AreasStage()
MASK: tuple[Stage, ...] = (MeasuredLayer(), HereOnly(), CONNECTED, *EDGE, AREAS)
#: Those among them that come before the outline is unmixed: some must see all of the mask.
BEFORE_UNMIXING: tuple[Stage, ...] = (HereOnly(), CONNECTED, Level(), Clean(), *OUTLINE)
#: The blocks of adjustments: pointwise ones as one chain, then detail, then fill.
BLOCKS: tuple[BlockStage, ...] = tuple(
    SPECIAL.get(name, BlockStage)(name) for name in Adjust.model_fields
)
DETAIL = next(block for block in BLOCKS if block.field == "detail")
ALL: tuple[Stage, ...] = (*MASK, *BLOCKS)


def steps_of(sieve: Sieve, until: str = "") -> list[Step]:
    """The steps of all pointwise blocks in use, or of those before one."""
    steps: list[Step] = []
    for block in BLOCKS:
        if block.field == until:
            break
        if block.pointwise and not block.is_noop(sieve):
            steps += block.steps(sieve)
    return steps


def mask_support_radius(sieve: Sieve, hurried: bool = False) -> float:
    """Return how far the mask of a sieve looks beyond a pixel: the stages' sum, full-resolution
    pixels.
    """
    return sum(
        min(stage.support_radius(sieve), stage.support_radius_dragged)
        if hurried
        else stage.support_radius(sieve)
        for stage in MASK
    )


def stack_support_radius(project: Project, hurried: bool = False) -> float:
    """Return how far the picture after all sieves looks: an adjustment looks at what the sieves
    above have made, a sieve that measures the result at what those above it saw. ``hurried``: while
    something is dragged, some stages look less far.
    """
    farthest = before = 0.0
    for sieve in project.stack:
        adjusting = sum(block.support_radius(sieve) for block in BLOCKS)
        own = mask_support_radius(sieve, hurried) + adjusting
        farthest = max(
            farthest, own + before if sieve.pick.measure == "result" else own, before + adjusting
        )
        before = max(before, farthest) if sieve.on else before
    return farthest


def support_radius_after_outline(project: Project) -> float:
    """Return how far the picture after all sieves looks beyond a pixel when every mask is known up
    to where its outline is unmixed.
    """

    def left_to_do(sieve: Sieve) -> Sieve:
        for stage in BEFORE_UNMIXING:
            sieve = stage.without(sieve)
        return sieve

    return stack_support_radius(
        project.but(stack=tuple(left_to_do(sieve) for sieve in project.stack))
    )


def while_dragged(project: Project) -> Project:
    """The project without what takes longer than a drag, or a frame that plays, can wait for."""

    def hurried(sieve: Sieve) -> Sieve:
        for stage in ALL:
            sieve = stage.while_dragged(sieve)
        return sieve

    stack = tuple(hurried(sieve) for sieve in project.stack)
    return project if stack == project.stack else project.but(stack=stack)


def carried(sieve: Sieve) -> Sieve:
    """The sieve with only what depends on colour, which a lookup table can carry."""
    for stage in ALL:
        sieve = stage.carried(sieve)
    return sieve


def left_out(sieve: Sieve) -> list[str]:
    """Names of the stages of which a lookup table carries less than all."""
    return [stage.name for stage in ALL if stage.carried(sieve) != sieve]


def automatic(edge: Edge) -> list[str]:
    """Fields of an edge that are found on the picture."""
    return [stage.automatic for stage in EDGE if stage.asks(edge)]


def example(sieve: Sieve) -> Sieve:
    """The sieve with every stage having something to do, for set-up to compile."""
    for stage in ALL:
        sieve = stage.example(sieve)
    return sieve
