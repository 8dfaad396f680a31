"""Lookup tables as ``.cube`` and as ``.clf`` (Academy/ASC Common LUT Format, by OpenColorIO)."""

from __future__ import annotations

import pathlib
from typing import Any

import numpy as np

from ...core.frame import BRIGHTEST
from ...errors import Trouble
from ...files import regular_file, write_text
from ...language import translate
from ..quiet import quiet
from . import ocio_process

ENDINGS = (".cube", ".clf")
#: Bytes of the largest table that is read.
LARGEST = 100_000_000
#: Bytes of a file up to which it is read in this process.
SMALL = 200_000
#: Nodes on a side up to which a table is written in this process.
FEW = 17


def _ask(apart: bool, what: str, given: Any) -> Any:
    if apart:
        return ocio_process.ask(what, given)
    from . import ocio_functions

    with quiet():
        return getattr(ocio_functions, what)(given)


def read(path: pathlib.Path) -> np.ndarray:
    """A table (N, N, N, 3) float32 of coded values 0 to 1, indexed by red, green, blue; what is more than a table is made into one.

    Raises
    ------
    Trouble: it is missing, damaged, or no lookup table.
    """
    path = regular_file(pathlib.Path(path))
    if path.suffix.lower() not in ENDINGS:
        raise Trouble(
            translate(
                "colour",
                "{path} is no lookup table: give a file that ends in {endings}.",
                path=path,
                endings=translate("colour", " or ").join(ENDINGS),
            )
        )
    size = path.stat().st_size
    if size > LARGEST:
        raise Trouble(
            translate("colour", "{path} has {size} MB, more than a lookup table needs: choose another.", path=path, size=size // 10**6)
        )
    try:
        table: np.ndarray = _ask(size > SMALL, "table", str(path.absolute()))
    except Trouble as trouble:
        raise Trouble(str(trouble).replace(str(path.absolute()), str(path))) from None
    if not np.isfinite(table).all():
        raise Trouble(translate("colour", "{path} holds values that are no numbers: have it written again.", path=path))
    return np.clip(table, -BRIGHTEST, BRIGHTEST)


def _as_cube(table: np.ndarray, title: str) -> str:
    size = table.shape[0]
    plain = "".join(letter for letter in title if letter.isprintable() and letter != '"')
    parts = [f'TITLE "{plain}"\nLUT_3D_SIZE {size}\nDOMAIN_MIN 0 0 0\nDOMAIN_MAX 1 1 1\n']
    line = "%.7f %.7f %.7f\n" * size
    for blue in range(size):  # a row at a time, so that other threads get their turn
        for green in range(size):
            parts.append(line % tuple(table[:, green, blue].ravel().tolist()))  # red changes fastest
    return "".join(parts)


def write(table: np.ndarray, path: pathlib.Path, title: str) -> None:
    """Write a table (N, N, N, 3) of coded values 0 to 1, indexed by red, green, blue.

    Raises
    ------
    Trouble: another ending, or the file could not be written (an earlier one is then still whole).
    """
    path = pathlib.Path(path)
    ending = path.suffix.lower()
    if ending not in ENDINGS:
        raise Trouble(
            translate(
                "colour",
                "{path} is no lookup table: its name should end in {endings}.",
                path=path,
                endings=translate("colour", " or ").join(ENDINGS),
            )
        )
    text = _as_cube(table, title) if ending == ".cube" else str(_ask(table.shape[0] > FEW, "clf_of", table))
    write_text(path, text)
