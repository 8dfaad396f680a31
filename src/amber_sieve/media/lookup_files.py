"""Lookup tables as ``.cube`` and as ``.clf`` (Academy/ASC Common LUT Format, by OpenColorIO)."""

from __future__ import annotations

import pathlib

import numpy as np

from ..core.frame import BRIGHTEST
from ..errors import Trouble
from ..files import regular_file, write_text
from .quiet import quiet

ENDINGS = (".cube", ".clf")


#: Bytes of the largest table that is read, and nodes on a side of one made from what is no plain table.
LARGEST, NODES = 100_000_000, 65


def read(path: pathlib.Path) -> np.ndarray:
    """A table (N, N, N, 3) float32 of coded values 0 to 1, indexed by red, green, blue; what is more than a table is made into one.

    Raises
    ------
    Trouble: it is missing, damaged, or no lookup table.
    """
    import PyOpenColorIO as ocio  # slow to load, and rarely needed

    path = regular_file(pathlib.Path(path))
    if path.suffix.lower() not in ENDINGS:
        raise Trouble(f"{path} is no lookup table: give a file that ends in {' or '.join(ENDINGS)}.")
    if path.stat().st_size > LARGEST:
        raise Trouble(f"{path} has {path.stat().st_size // 10**6} MB, more than a lookup table needs: choose another.")
    try:
        with quiet():
            transform = ocio.FileTransform(str(path), interpolation=ocio.INTERP_TETRAHEDRAL)
            made = ocio.Config.CreateRaw().getProcessor(transform)
            parts = list(made.createGroupTransform())
            if len(parts) == 1 and isinstance(parts[0], ocio.Lut3DTransform) and parts[0].getDirection() == ocio.TRANSFORM_DIR_FORWARD:
                size = parts[0].getGridSize()
                table = np.array(parts[0].getData(), np.float32).reshape(size, size, size, 3)
            else:
                nodes = np.linspace(0, 1, NODES, dtype=np.float32)
                table = np.stack(np.meshgrid(nodes, nodes, nodes, indexing="ij"), -1)
                table = np.ascontiguousarray(table.reshape(-1, 3))
                made.getDefaultCPUProcessor().applyRGB(table)
                table = table.reshape(NODES, NODES, NODES, 3)
    except (ocio.Exception, ocio.ExceptionMissingFile, ValueError, UnicodeDecodeError):
        raise Trouble(f"{path} is not a readable lookup table: it is damaged or of a kind that is not known.") from None
    if not np.isfinite(table).all():
        raise Trouble(f"{path} holds values that are no numbers: have it written again.")
    return np.clip(table, -BRIGHTEST, BRIGHTEST)


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
