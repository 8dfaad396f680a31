"""The base of all stages of the edge, and the mask that they work on."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any, ClassVar

import numpy as np

from ...core.edge.colour_share import ColourShare
from ...core.edge.follow import EdgeMatte
from ...core.frame import Frame
from ...project.model import Edge, Place, Sieve, is_auto
from ..context import RenderContext
from .stage import Stage, changed_in_words

#: How a stage that takes long tells its progress, and is stopped; set by the code that runs it in
#: the background.
OnShare = Callable[[float], None]
#: An edge that nothing is done to.
NO_EDGE = Edge(specks=0, holes=0, follow=0, clean=0, level=0)
#: The least of a mask that is worked on.
LEAST = 1e-6


@dataclass(frozen=True)
class ClickedPlaces:
    """Places of samples, x and y in pixels of a frame: pieces that hold a kept place stay, holes
    that hold a dropped one too.
    """

    kept: tuple[tuple[float, float], ...] = ()
    dropped: tuple[tuple[float, float], ...] = ()

    def seen_from(self, corner: tuple[int, int]) -> ClickedPlaces:
        """The same places in pixels of a part whose top left is at a row and column."""
        top, left = corner
        return ClickedPlaces(
            *(tuple((x - left, y - top) for x, y in places) for places in (self.kept, self.dropped))
        )


NO_CLICKS = ClickedPlaces()


@dataclass
class Working:
    """A mask on its way through the stages of its edge.

    Attributes
    ----------
    frame : what the sieve measures. edge : the settings.
    mask : (h, w) float32, of the frame or of the part of it whose top left is at the row and column
        ``corner``.
    clicked : where samples lie, in pixels of the mask. unmixed : what its outline was unmixed into.
        colour : how much of the surface's colour is in its pixels.
        picked : the mask before that.
    owned : a mask that is nobody else's.
    context, key : where mattings are kept, and what stands there for the mask as it was picked.
        step : is told how far a matting is.
    """

    frame: Frame
    edge: Edge
    mask: np.ndarray
    clicked: ClickedPlaces = NO_CLICKS
    corner: tuple[int, int] = (0, 0)
    unmixed: EdgeMatte | None = None
    colour: ColourShare | None = None
    picked: np.ndarray | None = None
    owned: np.ndarray | None = None
    context: RenderContext = field(default_factory=RenderContext)
    key: object = None
    step: OnShare | None = None

    @property
    def scale(self) -> float:
        """Pixels of the mask to a full-resolution pixel."""
        return self.frame.scale

    @property
    def own(self) -> bool:
        """Return whether the mask is nobody else's, and may be written over."""
        return self.mask is self.owned

    def become(self, mask: np.ndarray) -> None:
        """Go on with another mask, which nothing else holds, or with the same."""
        if mask is not self.mask:
            self.mask = self.owned = mask

    def at(self, places: tuple[Place, ...]) -> list[tuple[float, float, float]]:
        """Places and how far they may have moved, in pixels of the mask."""
        (top, left), (across, down), scale = self.corner, self.frame.origin, self.frame.scale
        return [
            ((p.x - across) * scale - left, (p.y - down) * scale - top, p.radius * scale)
            for p in places
        ]


class EdgeStage(Stage):
    """A stage of the edge.

    Attributes
    ----------
    does : fields of `Edge` that make it do something; settings : those that say how.
    automatic : the one among them that may be found on the picture; "" for none. once_a_clip : it
        is found on the first frame of a clip.
    trial : values with which it has something to do.
    writes_over : it works in place on a mask that is nobody else's, and is so quick that the box
        the mask lies in need not be taken out.
    """

    does: ClassVar[tuple[str, ...]] = ()
    settings: ClassVar[tuple[str, ...]] = ()
    automatic: ClassVar[str] = ""
    once_a_clip: ClassVar[bool] = False
    trial: ClassVar[dict[str, Any]] = {}
    writes_over: ClassVar[bool] = False

    def is_noop(self, sieve: Sieve) -> bool:
        return self.is_noop_for(sieve.edge)

    def is_noop_for(self, edge: Edge) -> bool:
        """Return whether it does nothing to an edge."""
        return all(getattr(edge, name) == getattr(NO_EDGE, name) for name in self.does)

    def without(self, sieve: Sieve) -> Sieve:
        return sieve.but(
            edge=sieve.edge.but(**{name: getattr(NO_EDGE, name) for name in self.does})
        )

    def support_radius(self, sieve: Sieve) -> float:
        return 0.0 if self.is_noop(sieve) else self.edge_radius(sieve.edge)

    def edge_radius(self, edge: Edge) -> float:
        """Return how far it looks beyond a pixel, full-resolution pixels."""
        return 0.0

    def spreads(self, edge: Edge) -> float:
        """Return how far beyond a mask it may put something, full-resolution pixels."""
        return 0.0

    def asks(self, edge: Edge) -> bool:
        """Return whether its amount is to be found on the picture."""
        return bool(self.automatic) and is_auto(getattr(edge, self.automatic))

    def find(self, whole: Frame, context: RenderContext) -> float | None:
        """The amount that a whole picture at full resolution asks for; None where it is found place
        by place, as the stage works.
        """
        return None

    def find_for_all(self, first: Frame, context: RenderContext) -> float | None:
        """Return the amount for all frames of a clip, found on the first."""
        return self.find(first, context)

    def words(self, sieve: Sieve) -> list[str]:
        return changed_in_words(sieve.edge, (*self.does, *self.settings))

    def example(self, sieve: Sieve) -> Sieve:
        return sieve.but(edge=sieve.edge.but(**self.trial)) if self.trial else sieve

    def run(self, working: Working) -> None:
        """Work on a mask."""
        raise NotImplementedError
