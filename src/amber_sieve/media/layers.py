"""Other pictures of the same size, to be measured in place of the one that is worked on."""

from __future__ import annotations

import pathlib
from functools import lru_cache

from ..core.frame import Frame
from ..errors import Trouble
from . import stills


@lru_cache(maxsize=4)
def _read(path: str, changed: int) -> Frame:
    return stills.read(pathlib.Path(path)).picture


@lru_cache(maxsize=8)
def _reduced(path: str, changed: int, factor: int) -> Frame:
    return _read(path, changed).reduced(factor)


def layer(path: str, like: Frame) -> Frame:
    """The picture at ``path``, at the place and scale of the frame ``like``.

    Raises
    ------
    Trouble: it cannot be read, or is smaller than what it should lie under.
    """
    held = pathlib.Path(path)
    if not held.exists():
        raise Trouble(f"The layer {path} does not exist: choose another, or measure the original.")
    changed = held.stat().st_mtime_ns
    frame = _reduced(path, changed, max(1, round(1 / like.scale)))
    left, top = round(like.origin[0] * frame.scale), round(like.origin[1] * frame.scale)
    if left + like.width > frame.width or top + like.height > frame.height:
        raise Trouble(f"The layer {path} is {frame.width} x {frame.height} pixels, smaller than the picture: choose one of the same size.")
    if (frame.width, frame.height) == (like.width, like.height):
        return frame
    return frame.part(left, top, left + like.width, top + like.height)
