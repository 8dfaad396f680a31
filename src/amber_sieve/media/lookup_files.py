"""Lookup tables as ``.cube`` and as ``.clf`` (Academy/ASC Common LUT Format, by OpenColorIO)."""

from __future__ import annotations

import pathlib

import numpy as np

from ..errors import Trouble
from ..files import write_text

ENDINGS = (".cube", ".clf")


def write(table: np.ndarray, path: pathlib.Path, title: str) -> None:
    """Write a table (N, N, N, 3) of coded values 0 to 1, indexed by red, green, blue.

    Raises
    ------
    Trouble: another ending, or the file could not be written (an earlier one is then still whole).
    """
    path = pathlib.Path(path)
    ending = path.suffix.lower()
    if ending not in ENDINGS:
        raise Trouble(f"{path} is no lookup table: its name should end in {' or '.join(ENDINGS)}.")
    size = table.shape[0]
    if ending == ".cube":
        rows = table.transpose(2, 1, 0, 3).reshape(-1, 3)  # red changes fastest
        plain = "".join(letter for letter in title if letter.isprintable() and letter != '"')
        head = f'TITLE "{plain}"\nLUT_3D_SIZE {size}\nDOMAIN_MIN 0 0 0\nDOMAIN_MAX 1 1 1\n'
        write_text(path, head + "\n".join(" ".join(f"{value:.7f}" for value in row) for row in rows.tolist()) + "\n")
        return
    import PyOpenColorIO as ocio  # slow to load, and rarely needed

    transform = ocio.Lut3DTransform(gridSize=size)
    transform.setData(np.ascontiguousarray(table, np.float32).reshape(-1))  # blue changes fastest
    write_text(path, ocio.GroupTransform([transform]).write("Academy/ASC Common LUT Format", ocio.Config.CreateRaw()))
