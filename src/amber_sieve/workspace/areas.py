"""Limits of a mask: its islands, shapes drawn on the picture, and outlines that cling to its
edges.
"""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QObject, pyqtSignal

from ..core.areas.scissors import clinging_path
from ..core.edge.islands import Island, islands_of
from ..language import mid_sentence, named, translator
from ..live.preview import Rendered
from ..project import edits
from ..project.model import Area, Sieve
from ..render.fringe import fringe_of
from ..render.stack import sieve_mask
from ..resolve.layers import layers_in
from .background.guard import guarded
from .document.work import Work
from .speech import Speech
from .viewing.viewing import Viewing

translate = translator("workspace")


@guarded
class AreasController(QObject):
    """The areas and islands of the current sieve. `islands_found` and `fringe_found` answer what
    was asked; `outline_changed` when another island is to be outlined.
    """

    islands_found = pyqtSignal(list)
    fringe_found = pyqtSignal(str)
    outline_changed = pyqtSignal()

    def __init__(self, work: Work, viewing: Viewing, speech: Speech) -> None:
        super().__init__()
        self.speech = speech
        self._work, self._viewing = work, viewing
        #: The island whose place is shown, None for none.
        self.outlined: Island | None = None
        work.source_changed.connect(lambda: self.outline_island(None))

    def list_islands(self) -> None:
        """Find the connected pieces of the mask before any was taken out, the largest first;
        `islands_found` follows.
        """
        context = self._work.context

        def question(last: Rendered) -> list[Island]:
            frame, scale = last.frame, last.frame.scale
            sieve = last.seen.sieve(last.wanted.sieve_id)
            every = sieve.but(edge=sieve.edge.but(islands_out=(), islands_only=(), fine=0.0))
            mask = sieve_mask(
                frame, last.seen.with_sieve(every), every.id, context, layers_in(context)
            )
            left, top = frame.origin
            return [
                Island(
                    left + (i.x + 0.5) / scale,
                    top + (i.y + 0.5) / scale,
                    round(i.area / scale**2),
                    (
                        round(i.box[0] / scale) + left,
                        round(i.box[1] / scale) + top,
                        round(i.box[2] / scale),
                        round(i.box[3] / scale),
                    ),
                )
                for i in islands_of(mask)
            ]

        self._viewing.ask_about_last(question, self.islands_found.emit)

    def toggle_island(self, x: float, y: float) -> None:
        """Take the island at a place out, or bring it back."""
        self._work.edit_sieve(
            lambda sieve: edits.with_island_toggled(sieve, x, y),
            translate("Island out or back"),
        )

    def outline_island(self, island: Island | None) -> None:
        """Show where an island lies."""
        self.outlined = island
        self.outline_changed.emit()

    def take_islands_out(self, islands: list[Island]) -> None:
        """Take many islands out at once."""
        places = [edits.place_of(island.x, island.y, island.area) for island in islands]
        self._work.edit_sieve(
            lambda sieve: edits.with_islands_out(sieve, places),
            translate("Take islands out"),
        )

    def keep_only_island(self, x: float, y: float) -> None:
        """Keep only the island at a place."""
        self._work.edit_sieve(
            lambda sieve: edits.with_only_island(sieve, x, y),
            translate("Keep only this island"),
        )

    def all_islands(self) -> None:
        """Bring every island back."""
        self._work.edit_sieve(edits.with_all_islands, translate("Bring all islands back"))

    def check_fringe(self) -> None:
        """Count the partial pixels that keep a rim of the old colour, over the view;
        `fringe_found` follows with a line.
        """
        context = self._work.context

        def question(last: Rendered) -> str:
            found = fringe_of(
                last.frame, last.seen, last.wanted.sieve_id, context, layers_in(context)
            )
            return translate(
                "Colour fringe on {handled} pixels; {unhandled} without the correction",
                handled=found.handled,
                unhandled=found.unhandled,
            )

        self._viewing.ask_about_last(question, self.fringe_found.emit)

    def edit(self, change: Callable[[Sieve], Sieve], what: str, group: str = "") -> None:
        """Change the list of areas of the current sieve."""
        self._work.edit_sieve(change, what, group)

    def add(self, area: Area) -> str:
        """Add an area to the current sieve; returns its id."""
        self._work.edit_sieve(
            lambda sieve: edits.with_area(sieve, area),
            translate("Add {kind}", kind=mid_sentence(named(area.kind))),
        )
        return area.id

    def put(self, area: Area, what: str, group: str = "") -> None:
        """Put a changed area in the place of the one with the same id."""
        self._work.edit_sieve(lambda sieve: edits.with_area(sieve, area), what, group)

    def clinging(
        self,
        start: tuple[float, float],
        end: tuple[float, float],
        sensitivity: float,
        then: Callable[[list[tuple[float, float]]], None],
    ) -> None:
        """Find the way between two places that runs along the picture's edges, full-resolution
        pixels; ``then`` gets it.
        """

        def question(last: Rendered) -> list[tuple[float, float]]:
            frame, (left, top), scale = last.frame, last.frame.origin, last.frame.scale
            one, other = (((x - left) * scale, (y - top) * scale) for x, y in (start, end))
            return [
                (left + x / scale, top + y / scale)
                for x, y in clinging_path(frame.planes, one, other, sensitivity)
            ]

        if not self._viewing.ask_about_last(question, then):
            then([start, end])
