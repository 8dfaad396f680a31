"""Stages of the pick: what samples take, and only what hangs together."""

from __future__ import annotations

from ...language import translator
from ...project.model import Sieve
from .stage import WHOLE, Stage

translate = translator("stages")


class HereOnly(Stage):
    """Samples that reach only the piece at their place."""

    name = translate("samples that reach only here")

    def is_noop(self, sieve: Sieve) -> bool:
        return not any(sample.on and sample.reach == "here" for sample in sieve.pick.samples)

    def without(self, sieve: Sieve) -> Sieve:
        samples = tuple(sample for sample in sieve.pick.samples if sample.reach == "everywhere")
        return sieve.but(pick=sieve.pick.but(samples=samples))

    def support_radius(self, sieve: Sieve) -> float:
        return 0.0 if self.is_noop(sieve) else WHOLE


class Connected(Stage):
    """Only what hangs together with a kept place."""

    name = translate("connected only")

    def is_noop(self, sieve: Sieve) -> bool:
        return not (sieve.pick.connected and sieve.pick.samples)

    def without(self, sieve: Sieve) -> Sieve:
        return sieve.but(pick=sieve.pick.but(connected=False))

    def support_radius(self, sieve: Sieve) -> float:
        return 0.0 if self.is_noop(sieve) else WHOLE

    def words(self, sieve: Sieve) -> list[str]:
        return (
            [translate("as far as it hangs together with what was clicked")]
            if sieve.pick.connected
            else []
        )

    def example(self, sieve: Sieve) -> Sieve:
        return sieve.but(pick=sieve.pick.but(connected=True, bridge=1))


class MeasuredLayer(Stage):
    """Another picture that is measured in place of one's own."""

    name = translate("a layer that is measured")

    def is_noop(self, sieve: Sieve) -> bool:
        return sieve.pick.measure != "layer"

    def without(self, sieve: Sieve) -> Sieve:
        return sieve.but(pick=sieve.pick.but(measure="original"))


class AreasStage(Stage):
    """Shapes that add to the mask, take from it, or limit it; they are drawn where they are, only
    their softening looks around.
    """

    name = "areas"
    #: A Gaussian is cut off at this many standard deviations (`core.edge.feather.blurred`).
    DEVIATIONS = 4

    def is_noop(self, sieve: Sieve) -> bool:
        return not any(area.on for area in sieve.areas)

    def without(self, sieve: Sieve) -> Sieve:
        return sieve.but(areas=())

    def support_radius(self, sieve: Sieve) -> float:
        return max(
            (self.DEVIATIONS * area.feather + 1 for area in sieve.areas if area.on), default=0.0
        )

    def words(self, sieve: Sieve) -> list[str]:
        return [
            f"{area.name or area.kind} ({area.mode}{', inverted' if area.inverted else ''})"
            for area in sieve.areas
            if area.on
        ]
