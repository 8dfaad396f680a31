"""The picture as the kernels see it."""

from __future__ import annotations

from collections.abc import Callable, Hashable
from dataclasses import dataclass, field

import numpy as np

from .shrinking import Box, shrink

#: Largest light there is: that of a half float (IEEE 754 binary16). Nothing that was photographed
#: is brighter; with this bound, nothing that an adjustment works out leaves float32.
BRIGHTEST = 65504.0


class _FreshKey:
    """A key that equals no other: an array made in memory promises nothing."""


@dataclass(frozen=True, eq=False)
class Frame:
    """One picture, or one frame of a clip, or a part of either at a reduced scale.

    Attributes
    ----------
    planes : (3, H, W) float32, linear light, Rec. 709 primaries, D65, finite, within
        ±``BRIGHTEST``; white is 1.
    alpha : (H, W) float32 in 0 to 1, or None when everything is opaque.
    key : what caches know this picture by, a value that can be hashed; equal keys promise equal
        pixels.
    scale : size of this frame relative to full resolution (0.5 = half as wide).
    origin : x, y of the top left corner, in full-resolution pixels.
    whole : width and height of the whole picture, full-resolution pixels; None where this is all of
        it.
    near : gives the same place of the frame n frames later (earlier below 0), None beyond
        the ends; None for a still.
    let_go : of planes that lie in a file, gives back the memory that holds what was read of them;
        None where they lie in memory.
    """

    planes: np.ndarray
    alpha: np.ndarray | None = None
    key: Hashable = field(default_factory=_FreshKey)
    scale: float = 1.0
    origin: tuple[int, int] = (0, 0)
    whole: tuple[int, int] | None = None
    near: Callable[[int], Frame | None] | None = field(default=None, repr=False)
    let_go: Callable[[], None] | None = field(default=None, repr=False)

    def __post_init__(self) -> None:
        if self.planes.ndim != 3 or self.planes.shape[0] != 3 or self.planes.dtype != np.float32:
            raise ValueError("a frame needs (3, height, width) float32 planes")

    @property
    def corner(self) -> tuple[int, int]:
        """Row and column of the top left in pixels of the whole picture at this scale."""
        return round(self.origin[1] * self.scale), round(self.origin[0] * self.scale)

    @property
    def height(self) -> int:
        return int(self.planes.shape[1])

    @property
    def width(self) -> int:
        return int(self.planes.shape[2])

    @property
    def whole_size(self) -> tuple[int, int]:
        """Width and height of the whole picture, full-resolution pixels."""
        return self.whole or (round(self.width / self.scale), round(self.height / self.scale))

    def reduced(self, factor: float) -> Frame:
        """The whole frame shrunk by a ``factor``, each pixel the mean of those it covers."""
        return self.part(0, 0, self.width, self.height, factor) if factor > 1 else self

    def _near_too(self, change: Callable[[Frame], Frame]) -> Callable[[int], Frame | None] | None:
        """Return a function that gives this frame's neighbours, changed in the same way."""
        near = self.near
        if near is None:
            return None

        def changed(away: int) -> Frame | None:
            frame = near(away)
            return change(frame) if frame is not None else None

        return changed

    def part(self, left: int, top: int, right: int, bottom: int, factor: float = 1.0) -> Frame:
        """The pixels ``left <= x < right, top <= y < bottom`` of this frame, as a copy that kernels
        can run through, shrunk by a ``factor``.
        """
        box, columns, rows = (left, top, right, bottom), right - left, bottom - top
        size = (max(1, round(rows / factor)), max(1, round(columns / factor)))
        planes = np.empty((3, *size), np.float32)
        for plane, target in zip(self.planes, planes, strict=True):
            _cut(plane, box, target)
            if self.let_go is not None:
                self.let_go()
        alpha = None
        if self.alpha is not None:
            alpha = np.empty(size, np.float32)
            _cut(self.alpha, box, alpha)
        key, near = (
            (self.key, "part", *box, factor),
            self._near_too(lambda frame: frame.part(*box, factor)),
        )
        scale, origin = (
            self.scale * size[1] / columns,
            (self.origin[0] + round(left / self.scale), self.origin[1] + round(top / self.scale)),
        )
        return Frame(planes, alpha, key, scale, origin, self.whole_size, near)


def _cut(plane: np.ndarray, box: Box, out: np.ndarray) -> None:
    """Write a box of a plane to ``out``, shrunk where that is smaller."""
    left, top, right, bottom = box
    if out.shape == (bottom - top, right - left):
        np.copyto(out, plane[top:bottom, left:right])
    else:
        shrink(plane, box, out)


def patch(planes: np.ndarray, x: float, y: float, size: int) -> np.ndarray:
    """Pixels of the square of ``size`` round (x, y) that lie inside the picture, (3, N) float32.

    Raises
    ------
    ValueError: the point lies outside the picture.
    """
    height, width = planes.shape[1:]
    column, row, half = int(x), int(y), size // 2
    if not (0 <= column < width and 0 <= row < height):
        raise ValueError(
            f"the point {column},{row} lies outside the picture, which is {width} x {height} pixels"
        )
    part = planes[:, max(0, row - half) : row + half + 1, max(0, column - half) : column + half + 1]
    return np.ascontiguousarray(part).reshape(3, -1)
