"""Other pictures that a project names: to be measured in place of its own, or to fill with."""

from __future__ import annotations

from collections.abc import Hashable
from dataclasses import dataclass, field

import numpy as np

from ..core.frame import Frame
from ..errors import Trouble
from ..language import translator

translate = translator("render")


@dataclass(frozen=True)
class Table:
    """A lookup table (N, N, N, 3) float32 of coded values, known by a key that changes when its
    file does.
    """

    key: Hashable
    values: np.ndarray = field(compare=False, repr=False)


@dataclass(frozen=True)
class Display:
    """A display's rendering of light: a table over places between which light + dark grows by equal
    factors, up to bright.
    """

    values: np.ndarray
    dark: float
    bright: float


class Layers:
    """Stands in where no other pictures are at hand: the frame itself is measured, and nothing can
    be filled with a picture.
    """

    def at(self, path: str, like: Frame) -> Frame:
        """The frame that shows another picture of the same size at the place and scale of a
        frame.
        """
        return like

    def whole(self, path: str) -> Frame:
        """The whole of another picture; raises `Trouble` when it cannot be read."""
        raise Trouble(
            translate(
                "The picture {path} cannot be read here: choose another one to fill with.",
                path=path,
            )
        )

    def table(self, path: str) -> Table:
        """A lookup table; raises `Trouble` when it cannot be read."""
        raise Trouble(
            translate(
                "The lookup table {path} cannot be read here: choose another one.",
                path=path,
            )
        )

    def primaries(self, name: str) -> tuple[float, ...]:
        """The matrix from a working space to Rec. 709, row by row; raises `Trouble` when there is
        none of that name.
        """
        raise Trouble(
            translate(
                "The working space {name} is not known here: choose another one.",
                name=name,
            )
        )

    def display(self, name: str) -> Display:
        """Return a "display / view" as a table; raises `Trouble` when there is none of that
        name.
        """
        raise Trouble(
            translate("The display {name} is not known here: choose another one.", name=name)
        )

    def through_display(self, planes: np.ndarray, name: str) -> np.ndarray:
        """Light (3, H, W) as the codes of a "display / view", exactly; raises `Trouble` when there
        is none of that name.
        """
        raise Trouble(
            translate("The display {name} is not known here: choose another one.", name=name)
        )


no_layers = Layers()
