"""The blocks of adjustments. One that is pointwise needs nothing here: its formula is the file of
``core/adjust`` that is called as its field.
"""

from __future__ import annotations

import importlib
from typing import Any, ClassVar

import numpy as np

from ...core.adjust import body, detail, dye
from ...core.adjust.chain import Step
from ...core.adjust.even import found_means
from ...core.adjust.match import found_match
from ...core.adjust.primaries import within
from ...core.mix import adjusted
from ...language import translator
from ...project.fields import kind_of
from ...project.model import Adjustment, Sieve
from ..layers import Table
from ..resolved import found_of, with_found
from .stage import WHOLE, Stage, changed_in_words, moved_a_little

translate = translator("stages")


#: What curves, curves over hue and colours are given, so that they have something to do.
TRIALS = {
    "curve": ((0.3, 0.4),),
    "hues": ((40.0, 10.0), (200.0, -10.0)),
    "colour": (0.4, 0.1, 0.05),
}


class BlockStage(Stage):
    """A block of adjustments by the name of its field; a pointwise one unless it says otherwise.

    Attributes
    ----------
    by_channel : it works channel by channel, in the primaries of the working space.
    """

    by_channel: ClassVar[bool] = False
    pointwise = True

    def __init__(self, field: str) -> None:
        self.field = field

    def of(self, sieve: Sieve) -> Adjustment:
        """The block of a sieve."""
        held: Adjustment = getattr(sieve.adjust, self.field)
        return held

    def put(self, sieve: Sieve, block: Adjustment) -> Sieve:
        """The sieve with another block in its place."""
        return sieve.but(adjust=sieve.adjust.but(**{self.field: block}))

    def is_noop(self, sieve: Sieve) -> bool:
        return self.of(sieve).neutral

    def without(self, sieve: Sieve) -> Sieve:
        return self.put(sieve, self.of(sieve).but(on=False))

    def told(self, sieve: Sieve) -> dict[str, Any]:
        """Return the inputs of its formula: settings, and what was found."""
        return self.of(sieve).given

    def steps(self, sieve: Sieve) -> list[Step]:
        """Its steps in the chain of pointwise adjustments."""
        made: list[Step] = importlib.import_module(f"....core.adjust.{self.field}", __name__).steps(
            **self.told(sieve)
        )
        primaries = found_of(sieve).primaries
        return within(made, primaries) if primaries and self.by_channel else made

    def wants_means(self, sieve: Sieve) -> bool:
        """Return whether it asks for what the masked colours are on average, and does not know that
        yet.
        """
        return False

    def learn(self, sieve: Sieve, planes: np.ndarray, weights: np.ndarray) -> Sieve:
        """The sieve with what it asks for found on colours (3, 1, N) as they arrive at this block,
        and how far each is masked (N,).
        """
        return sieve

    def words(self, sieve: Sieve) -> list[str]:
        return changed_in_words(self.of(sieve))

    def example(self, sieve: Sieve) -> Sieve:
        block = self.of(sieve)
        fields = type(block).model_fields.items()
        bent = {name: TRIALS[kind_of(field)] for name, field in fields if kind_of(field) in TRIALS}
        return self.put(sieve, block.but(**moved_a_little(block), **bent))


class ByChannelStage(BlockStage):
    """A block that works channel by channel."""

    by_channel = True


class RecolourStage(BlockStage):
    """Changes every pixel, or the thing's own colour alone; learns what that is."""

    def told(self, sieve: Sieve) -> dict[str, Any]:
        return {name: value for name, value in self.of(sieve).given.items() if name != "dyed"}

    def steps(self, sieve: Sieve) -> list[Step]:
        made, body = super().steps(sieve), found_of(sieve).recolour
        if not sieve.adjust.recolour.dyed or body is None or not made:
            return made
        mean = np.array(body.mean, np.float32)[:, None, None]
        return dye.steps(dye.redyed(body, adjusted(mean, made)[:, 0, 0]))

    def wants_means(self, sieve: Sieve) -> bool:
        return (
            not self.is_noop(sieve)
            and sieve.adjust.recolour.dyed
            and found_of(sieve).recolour is None
        )

    def learn(self, sieve: Sieve, planes: np.ndarray, weights: np.ndarray) -> Sieve:
        return with_found(sieve, recolour=body.found_body(planes[:, 0], weights))


class MatchStage(BlockStage):
    """Brings the mean to a target; learns how far that is."""

    def told(self, sieve: Sieve) -> dict[str, Any]:
        return {"found": found_of(sieve).match}

    def wants_means(self, sieve: Sieve) -> bool:
        return not self.is_noop(sieve) and found_of(sieve).match is None

    def learn(self, sieve: Sieve, planes: np.ndarray, weights: np.ndarray) -> Sieve:
        block = sieve.adjust.match
        if block.target is None:
            return sieve
        return with_found(sieve, match=found_match(planes, weights, block.target, block.nearest))

    def example(self, sieve: Sieve) -> Sieve:
        return with_found(super().example(sieve), match=dye.Dye())


class EvenStage(BlockStage):
    """Draws colours towards their mean; learns what that is."""

    def told(self, sieve: Sieve) -> dict[str, Any]:
        return {**self.of(sieve).given, "mean": found_of(sieve).even}

    def wants_means(self, sieve: Sieve) -> bool:
        return not self.is_noop(sieve) and found_of(sieve).even is None

    def learn(self, sieve: Sieve, planes: np.ndarray, weights: np.ndarray) -> Sieve:
        return with_found(sieve, even=found_means(planes, weights))

    def example(self, sieve: Sieve) -> Sieve:
        return with_found(super().example(sieve), even=(50.0, 40.0))


class LookupStage(BlockStage):
    """A lookup table, read where the project is resolved."""

    def told(self, sieve: Sieve) -> dict[str, Any]:
        table = found_of(sieve).table
        return {"table": table.values if table is not None else None}

    def example(self, sieve: Sieve) -> Sieve:
        sieve = self.put(sieve, sieve.adjust.lookup.but(lookup_file="example.cube"))
        return with_found(sieve, table=Table("example", np.zeros((2, 2, 2, 3), np.float32)))


class DetailStage(BlockStage):
    """Noise, blur, local contrast, sharpness and grain: it looks around, after the chain."""

    name, pointwise = "detail", False

    def told(self, sieve: Sieve) -> dict[str, Any]:
        return {**self.of(sieve).given, "frame": found_of(sieve).frame}

    def support_radius(self, sieve: Sieve) -> float:
        return 0.0 if self.is_noop(sieve) else detail.support_radius(**self.told(sieve))

    def example(self, sieve: Sieve) -> Sieve:
        return self.put(
            sieve,
            sieve.adjust.detail.but(noise=20, blur=2, local_contrast=20, sharpen=20, grain=20),
        )


class FillStage(BlockStage):
    """Fills what is masked; only one colour inside the mask depends on colour alone."""

    name, pointwise = translate("its filling"), False

    def support_radius(self, sieve: Sieve) -> float:
        return (
            WHOLE
            if not self.is_noop(sieve) and self.of(sieve).given["fill"] == "surroundings"
            else 0.0
        )

    def without(self, sieve: Sieve) -> Sieve:
        return self.put(sieve, sieve.adjust.fill.but(fill="off"))

    def carried(self, sieve: Sieve) -> Sieve:
        fill = sieve.adjust.fill
        return (
            sieve
            if fill.fill in ("off", "colour") and fill.fill_where != "behind"
            else self.without(sieve)
        )

    def example(self, sieve: Sieve) -> Sieve:
        return self.put(sieve, sieve.adjust.fill.but(fill="gradient", fill_blend="overlay"))


#: Blocks that say more of themselves than that they are pointwise.
SPECIAL: dict[str, type[BlockStage]] = {
    "curve": ByChannelStage,
    "recolour": RecolourStage,
    "match": MatchStage,
    "even": EvenStage,
    "cdl": ByChannelStage,
    "lookup": LookupStage,
    "detail": DetailStage,
    "fill": FillStage,
}
