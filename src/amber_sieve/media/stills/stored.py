"""The samples that a file of a picture stores, some rows at a time, through OpenImageIO."""

from __future__ import annotations

import contextlib
import pathlib
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

import numpy as np
import OpenImageIO as oiio

from ...errors import Trouble
from ...files import regular_file
from ...language import translator
from .. import formats
from ..header import MAX_PARTS
from ..memory import room_for
from ..quiet import quiet
from . import tiff_codecs

translate = translator("stills")


#: Pixels of the largest picture that is opened: five times what the largest cameras make.
LARGEST = 500_000_000
#: Endings of files that may hold several pictures, of which one is chosen.
PARTED = (".exr", ".tif", ".tiff")
#: Rows that are read at a time, at least.
ROWS = 256


def problem(path: pathlib.Path) -> Trouble:
    """Why a file could not be opened as a picture, in one sentence."""
    if path.stat().st_size == 0:
        return Trouble(
            translate(
                "{path} is empty (0 bytes): restore it from where it came from.",
                path=path,
            )
        )
    known = formats.endings("still")
    if path.suffix.lower() in known:
        return Trouble(
            translate(
                "{path} is not a readable {kind} picture: it is damaged or has the wrong ending.",
                path=path,
                kind=path.suffix[1:].upper(),
            )
        )
    return Trouble(
        translate(
            "{path} cannot be opened: give a picture ({known}), a clip or a project.",
            path=path,
            known=", ".join(end[1:].upper() for end in known),
        )
    )


def damaged(path: pathlib.Path) -> Trouble:
    return Trouble(
        translate(
            "{path} is cut short or damaged: restore it from where it came from.",
            path=path,
        )
    )


def opened_file(path: pathlib.Path, hints: Any) -> Any:
    """The file, opened with hints to its reader; raises `Trouble` when it is empty, damaged or no
    picture.
    """
    try:
        opened = oiio.ImageInput.open(str(path), hints) if path.stat().st_size else None
    except (RuntimeError, ValueError):
        raise damaged(path) from None
    if opened is None:
        oiio.geterror()
        raise problem(path)
    return opened


def _upright(pixels: np.ndarray, orientation: int) -> np.ndarray:
    """Undo an Exif orientation (1 to 8; Exif 2.3, tag 274)."""
    if orientation in (5, 6, 7, 8):
        pixels = pixels.transpose(1, 0, 2)
    if orientation in (2, 3, 6, 7):
        pixels = pixels[:, ::-1]
    if orientation in (3, 4, 7, 8):
        pixels = pixels[::-1]
    return pixels


def parts_of(opened: Any) -> tuple[str, ...]:
    """Names of the first parts of an opened file that holds several, each only once; nothing for
    one picture.
    """
    names: list[str] = []
    while len(names) < MAX_PARTS and opened.seek_subimage(len(names), 0):
        name = str(
            opened.spec().getattribute("oiio:subimagename")
            or opened.spec().getattribute("name")
            or translate("Part {count}", count=len(names) + 1)
        )
        names.append(name if name not in names else f"{name} {len(names) + 1}")
    opened.geterror()  # that there is no further one
    opened.seek_subimage(0, 0)
    return tuple(names) if len(names) > 1 else ()


@dataclass
class Stored:
    """A picture in an open file.

    Attributes
    ----------
    path : the file. spec : its own description. kind : the sample type that is read: "uint8",
        "uint16", "half" or "float".
    parts : the names of its parts, where it has several; at : which of them this is.
    """

    path: pathlib.Path
    spec: Any
    kind: str
    parts: tuple[str, ...]
    at: int
    _opened: Any
    _whole: np.ndarray | None = None

    @property
    def orientation(self) -> int:
        return int(self.spec.get_int_attribute("Orientation", 1))

    @property
    def size(self) -> tuple[int, int]:
        """Width and height, upright."""
        turned = self.orientation in (5, 6, 7, 8)
        return (
            (self.spec.height, self.spec.width) if turned else (self.spec.width, self.spec.height)
        )

    @property
    def _tile(self) -> int:
        """Rows of a tile, 1 where the file has none."""
        return int(self.spec.tile_height) if self.spec.tile_width else 1

    @property
    def rows_together(self) -> int:
        """Return how many rows are best asked for at a time, one such number after another."""
        return -(-ROWS // self._tile) * self._tile

    def rows(self, top: int, bottom: int) -> np.ndarray:
        """The rows from ``top`` to before ``bottom`` (rows, W, C), upright; raises `Trouble` when
        they are damaged.
        """
        if self.orientation == 1:
            return self._read(top, bottom)
        if self._whole is None:
            self._whole = _upright(self._read(0, self.spec.height), self.orientation)
        return self._whole[top:bottom]

    def _read(self, top: int, bottom: int) -> np.ndarray:
        spec, form = self.spec, self.kind if self.kind.startswith("uint") else "float"
        first, last = (
            top // self._tile * self._tile,
            min(-(-bottom // self._tile) * self._tile, spec.height),
        )
        rows = (spec.y + first, spec.y + last)
        with quiet():
            try:
                if tiff_codecs.is_ours(spec):
                    if self._whole is None:
                        self._whole = tiff_codecs.samples_of(self.path, self.at, form)
                    return self._whole[top:bottom]
                if (first, last) == (0, spec.height):
                    pixels = self._opened.read_image(self.at, 0, 0, spec.nchannels, form)
                elif spec.tile_width:
                    pixels = self._opened.read_tiles(
                        self.at,
                        0,
                        spec.x,
                        spec.x + spec.width,
                        *rows,
                        0,
                        1,
                        0,
                        spec.nchannels,
                        form,
                    )
                else:
                    pixels = self._opened.read_scanlines(
                        self.at, 0, *rows, 0, 0, spec.nchannels, form
                    )
                if pixels is None or self._opened.geterror():
                    raise damaged(self.path)
                return pixels.reshape(last - first, spec.width, spec.nchannels)[
                    top - first : bottom - first
                ]
            except (RuntimeError, ValueError, TypeError, IndexError):
                raise damaged(self.path) from None


@contextlib.contextmanager
def stored_in(path: pathlib.Path, part: str = "") -> Iterator[Stored]:
    """The stored samples of a picture, while its file is open.

    Raises
    ------
    Trouble: it is no picture, damaged, without such a part, or larger than can be worked on.
    """
    regular_file(path)
    hints = oiio.ImageSpec()
    hints.attribute("oiio:UnassociatedAlpha", 1)
    with quiet():
        opened = opened_file(path, hints)
    try:
        with quiet():
            try:
                parts = parts_of(opened) if path.suffix.lower() in PARTED else ()
                at = _found(part, parts, path)
                opened.seek_subimage(at, 0)
                spec = opened.spec()
            except (RuntimeError, ValueError, TypeError, IndexError):
                raise damaged(path) from None
        room_for(path, spec.width, spec.height, LARGEST)
        stored = str(spec.format)
        kind = (
            stored
            if stored in ("uint8", "uint16", "half")
            else "uint16"
            if "int" in stored
            else "float"
        )
        yield Stored(path, spec, kind, parts, at, opened)
    finally:
        opened.close()


def _found(part: str, parts: tuple[str, ...], path: pathlib.Path) -> int:
    """Return which of its parts is meant; raises `Trouble` when there is none of that name."""
    if part and part not in parts:
        raise Trouble(
            translate(
                "{path} has no part {part}: it has {parts}.",
                path=path,
                part=part[:80],
                parts=", ".join(parts)[:200] or translate("only one"),
            )
        )
    return parts.index(part) if part else 0
