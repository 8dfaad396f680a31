"""Other pictures of the same size, to be measured in place of the one that is worked on."""

from __future__ import annotations

import pathlib

from ...core.frame import Frame
from ...errors import Trouble
from ...files import regular_file
from ...language import translator
from .. import stills
from ..source import Key, key_of

translate = translator("stills")


def layer_key(path: str) -> Key:
    """Return the cache key of a layer; it changes when its file does. Raises `Trouble` when there
    is no such file.
    """
    try:
        return key_of(regular_file(pathlib.Path(path)))
    except Trouble:
        raise Trouble(
            translate(
                "The layer {path} does not exist: choose another, or measure the original.",
                path=path,
            )
        ) from None


def table_key(path: str) -> Key:
    """Return the cache key of a lookup table; it changes when its file does. Raises `Trouble` when
    there is no such file.
    """
    try:
        return key_of(regular_file(pathlib.Path(path)))
    except Trouble:
        raise Trouble(
            translate(
                "The lookup table {path} does not exist: choose another, or take it out.",
                path=path,
            )
        ) from None


def read_layer(path: str) -> Frame:
    """The whole picture of a layer; raises `Trouble` when it cannot be read."""
    return stills.read(pathlib.Path(path)).picture


def placed(frame: Frame, path: str, like: Frame) -> Frame:
    """The part of a layer, already at the scale of ``like``, that lies at its place.

    Raises
    ------
    Trouble: it is smaller than what it should lie under.
    """
    left, top = round(like.origin[0] * frame.scale), round(like.origin[1] * frame.scale)
    if left + like.width > frame.width or top + like.height > frame.height:
        raise Trouble(
            translate(
                "The layer {path} is {width} x {height} pixels, smaller than the picture: choose "
                "one of the same size.",
                path=path,
                width=frame.width,
                height=frame.height,
            )
        )
    if (frame.width, frame.height) == (like.width, like.height):
        return frame
    return frame.part(left, top, left + like.width, top + like.height)
