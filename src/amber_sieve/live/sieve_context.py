"""The frame that a sieve of a project measures: whole, reduced, or round some places."""

from __future__ import annotations

import functools
import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace

from ..core.frame import Frame
from ..names import Reach
from ..project import edits
from ..project.model import Pick, Project, Sample, Sieve
from ..render.context import RenderContext
from ..render.evaluate import measured
from ..render.light import signature_on
from ..render.measuring import measuring_for
from ..render.stack import sieve_mask
from ..render.stages.every import stack_support_radius
from ..resolve.layers import layers_in
from .clicking import Clicked, clicked, looked_at
from .parts import part_of
from .preview import Opened
from .sampling import as_sampled

#: From this value on a mask holds a pixel.
HELD = 0.5


@dataclass(frozen=True)
class SieveContext:
    """A sieve of a project, and the frame it looks at; `Opened` must be held open by the caller
    that asks.
    """

    opened: Opened
    project: Project
    sieve_id: str
    number: int
    context: RenderContext

    @functools.cached_property
    def resolved(self) -> Project:
        """The project as it stands on this frame."""
        return self.opened.resolver.resolve_frame(
            self.project, self.opened.frame(self.number), self.number, self.context
        )

    @property
    def sieve(self) -> Sieve:
        """The sieve as it stands on this frame."""
        return self.resolved.sieve(self.sieve_id)

    @property
    def pick(self) -> Pick:
        """Of the sieve, as the project has it."""
        return self.project.sieve(self.sieve_id).pick

    def _measured(self, frame: Frame) -> Frame:
        return measured(frame, self.resolved, self.sieve_id, self.context, layers_in(self.context))

    def whole(self) -> Frame:
        """All of it at full resolution."""
        return self._measured(self.opened.frame(self.number))

    def other(self, number: int) -> Frame:
        """All of another frame at full resolution, as it is measured there."""
        frame = self.opened.source.frame(number)
        stands = self.opened.resolver.resolve_frame(self.project, frame, number, self.context)
        return measured(frame, stands, self.sieve_id, self.context, layers_in(self.context))

    def reduced(self) -> Frame:
        """All of it, reduced as far as looking for what a click proposes allows."""
        width, height = self.opened.source.about.size
        return self._measured(self.opened.frame(self.number, looked_at(width, height)))

    def around(self, points: Sequence[tuple[float, float]], room: float) -> Frame:
        """Return at full resolution the surroundings of some places, without grain where that is
        removed; or all of it where that costs nothing or stages need it.
        """
        frame = self.opened.frame(self.number)
        support_radius = stack_support_radius(self.resolved)
        measuring = measuring_for(frame, self.sieve)
        if self.pick.measure != "result" or math.isinf(support_radius):
            return as_sampled(self._measured(frame), points, room, measuring)
        room += measuring.support_radius
        columns, rows = [x for x, _ in points], [y for _, y in points]
        box = (
            max(0, int(min(columns) - room)),
            max(0, int(min(rows) - room)),
            min(frame.width, int(max(columns) + room) + 1),
            min(frame.height, int(max(rows) + room) + 1),
        )
        part = self._measured(part_of(frame, box, support_radius, self.context).frame)
        return as_sampled(part, points, room, measuring)

    def click(
        self,
        take: Callable[[Frame], Sample],
        points: Sequence[tuple[float, float]],
        room: float,
        fresh: bool = False,
        reach: Reach | None = None,
        tolerance: float | None = None,
    ) -> Clicked:
        """Return the outcome of a click that takes a sample round some places; see `clicked`.
        Window and terminal both ask here.
        """
        if fresh and not isinstance(self.sieve.pick.light, str):  # the light is this picture's own
            anew = edits.without_any_sample(self.project.sieve(self.sieve_id))
            seen = replace(self, project=self.project.with_sieve(anew))
            return seen.click(take, points, room, False, reach, tolerance)
        came = clicked(
            self.sieve,
            take(self.around(points, room)),
            self.reduced(),
            self.context,
            fresh,
            reach,
            tolerance,
        )
        first = fresh or not self.pick.samples
        return replace(came, picked_on=self.colours()) if first else came

    def sieve_at(self, x: float, y: float) -> str:
        """The id of the last sieve of the stack whose mask holds a place of full resolution; "" for
        none.
        """
        frame = self.opened.frame(self.number, looked_at(*self.opened.source.about.size))
        row, column = int(y * frame.scale), int(x * frame.scale)
        for sieve in reversed(self.resolved.stack):
            mask = sieve_mask(frame, self.resolved, sieve.id, self.context, layers_in(self.context))
            if mask[min(row, frame.height - 1), min(column, frame.width - 1)] >= HELD:
                return sieve.id
        return ""

    def colours(self) -> str:
        """The colours of the picture, by which its light is told from that of others."""
        return signature_on(self.opened.frame(self.number), self.context).text
