"""One picture as a source."""

from __future__ import annotations

import pathlib
from dataclasses import dataclass

from ...core.frame import Frame
from ..source import About


@dataclass
class Still:
    """One picture file."""

    about: About
    picture: Frame

    @property
    def files(self) -> list[pathlib.Path]:
        """The picture's own file."""
        return [self.about.path]

    def about_frame(self, number: int) -> About:
        """Return the picture's properties."""
        return self.about

    def frame(self, number: int) -> Frame:
        """The picture; it has only frame 0."""
        return self.picture

    def quick_frame(self, number: int, factor: float) -> Frame:
        """The picture reduced by a factor."""
        return self.picture.reduced(factor)

    def close(self) -> None:
        """Nothing is held open."""
