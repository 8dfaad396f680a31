"""Lookup tables as ``.cube`` and as ``.clf`` (Academy/ASC Common LUT Format, by OpenColorIO)."""

from __future__ import annotations

import math
import pathlib
import re
from typing import Any

import numpy as np

from ...core.frame import BRIGHTEST
from ...errors import Trouble
from ...files import regular_file, write_text
from ...language import translator
from ..quiet import quiet
from . import ocio_process

translate = translator("colour")


ENDINGS = (".cube", ".clf")
#: Bytes of the largest table that is read.
LARGEST = 100_000_000
#: Bytes of a file up to which it is read in this process.
SMALL = 200_000
#: Nodes of a table that is refused: a hundred on a side.
MAX_NODES = 1_000_000
#: Sizes that a .cube says (Cube LUT Specification 1.0): of a grid, of a row; and that a .clf says
#: (Academy S-2014-006).
GRID_SIZE = re.compile(rb"^[ \t]*LUT_3D_SIZE\s+(\d{1,12})", re.MULTILINE)
ROW_SIZE = re.compile(rb"^[ \t]*LUT_1D_SIZE\s+(\d{1,12})", re.MULTILINE)
ARRAY_SIZE = re.compile(rb"""<Array[^>]*\bdim\s*=\s*["']([\d ]{1,60})""")
#: A row of numbers, or an array of them, with a comma in it.
COMMA = re.compile(rb"^[ \t]*[-+.\d][-+.\deE \t]*,|<Array[^>]*>[-+.\deE\s]*,", re.MULTILINE)
#: The ends of the domain of a .cube.
DOMAIN_MIN = re.compile(rb"^[ \t]*DOMAIN_MIN([^\r\n]*)", re.MULTILINE)
DOMAIN_MAX = re.compile(rb"^[ \t]*DOMAIN_MAX([^\r\n]*)", re.MULTILINE)
#: Nodes on a side up to which a table is written in this process.
FEW = 17


def _ask(apart: bool, what: str, given: Any) -> Any:
    if apart:
        return ocio_process.ask(what, given)
    from . import ocio_functions

    with quiet():
        return getattr(ocio_functions, what)(given)


def read(path: pathlib.Path) -> np.ndarray:
    """A table (N, N, N, 3) float32 of coded values 0 to 1, indexed by red, green, blue; what is
    more than a table is made into one.

    Raises
    ------
    Trouble: it is missing, damaged, or no lookup table.
    """
    path = regular_file(pathlib.Path(path))
    if path.suffix.lower() not in ENDINGS:
        raise Trouble(
            translate(
                "{path} is no lookup table: give a file that ends in {endings}.",
                path=path,
                endings=translate(" or ").join(ENDINGS),
            )
        )
    size = path.stat().st_size
    if size > LARGEST:
        raise Trouble(
            translate(
                "{path} has {size} MB, more than a lookup table needs: choose another.",
                path=path,
                size=size // 10**6,
            )
        )
    _check(path)
    try:
        table: np.ndarray = _ask(size > SMALL, "table", str(path.absolute()))
    except Trouble as trouble:
        raise Trouble(str(trouble).replace(str(path.absolute()), str(path))) from None
    if not np.isfinite(table).all():
        raise Trouble(
            translate(
                "{path} holds values that are no numbers: have it written again.",
                path=path,
            )
        )
    return np.clip(table, -BRIGHTEST, BRIGHTEST)


def _nodes_in(data: bytes) -> int:
    """Return the nodes of the largest table that a file says it holds, or its lines where those are
    more.
    """
    nodes = [data.count(b"\n")]
    nodes += [int(size) ** 3 for size in GRID_SIZE.findall(data)]
    nodes += [int(size) for size in ROW_SIZE.findall(data)]
    for size in ARRAY_SIZE.findall(data):  # the last number counts the channels
        nodes.append(math.prod(int(side) for side in size.split()[:-1]))
    return max(nodes)


def _ends(found: re.Match[bytes] | None, usual: float) -> list[float]:
    """Return one end of a domain for each channel; the usual one where a file says none that can be
    read.
    """
    try:
        return [float(end) for end in found[1].split()] if found is not None else [usual] * 3
    except ValueError:
        return [usual] * 3


def _check(path: pathlib.Path) -> None:
    """Refuse what OpenColorIO takes long over, or reads otherwise than it was meant.

    Raises
    ------
    Trouble: too many nodes, decimal commas, or a domain whose lower end is not below its upper one.
    """
    data = path.read_bytes()
    if _nodes_in(data) >= MAX_NODES:
        raise Trouble(
            translate(
                "{path} has a million nodes or more: make it again with at most 65 on a side.",
                path=path,
            )
        )
    if COMMA.search(data):
        raise Trouble(
            translate(
                "{path} has decimal commas: have it written with decimal points.",
                path=path,
            )
        )
    low, high = _ends(DOMAIN_MIN.search(data), 0.0), _ends(DOMAIN_MAX.search(data), 1.0)
    if any(one >= other for one, other in zip(low, high, strict=False)):
        raise Trouble(
            translate(
                "{path} has a DOMAIN_MIN that is not below its DOMAIN_MAX: have it written again.",
                path=path,
            )
        )


def _as_cube(table: np.ndarray, title: str) -> str:
    size = table.shape[0]
    plain = "".join(letter for letter in title if letter.isprintable() and letter != '"')
    parts = [f'TITLE "{plain}"\nLUT_3D_SIZE {size}\nDOMAIN_MIN 0 0 0\nDOMAIN_MAX 1 1 1\n']
    line = "%.7f %.7f %.7f\n" * size
    for blue in range(size):  # a row at a time, so that other threads get their turn
        for green in range(size):
            parts.append(
                line % tuple(table[:, green, blue].ravel().tolist())
            )  # red changes fastest
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
                "{path} is no lookup table: its name should end in {endings}.",
                path=path,
                endings=translate(" or ").join(ENDINGS),
            )
        )
    text = (
        _as_cube(table, title)
        if ending == ".cube"
        else str(_ask(table.shape[0] > FEW, "clf_of", table))
    )
    write_text(path, text)
