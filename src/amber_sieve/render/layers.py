"""Other pictures that a project names: to be measured in place of its own, or to fill with."""

from __future__ import annotations

from ..core.frame import Frame
from ..errors import Trouble


class Layers:
    """Where no other pictures are at hand: the frame itself is measured, and nothing can be filled with a picture."""

    def at(self, path: str, like: Frame) -> Frame:
        """The frame that shows another picture of the same size at the place and scale of a frame."""
        return like

    def whole(self, path: str) -> Frame:
        """The whole of another picture; raises `Trouble` when it cannot be read."""
        raise Trouble(f"The picture {path} cannot be read here: choose another one to fill with.")


no_layers = Layers()
