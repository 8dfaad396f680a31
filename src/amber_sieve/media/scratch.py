"""Planes too large for memory, in a file without a name: it goes with the last who holds them,
however the program ends.
"""

from __future__ import annotations

import math
import mmap
import os
import pathlib
import tempfile

import numpy as np

from ..errors import Trouble
from ..files import made_folder, state_folder
from ..language import translator

translate = translator("media")


#: Pictures of more pixels are held in a file; this many take 1.8 GB.
IN_MEMORY = 150_000_000


class Scratch:
    """Planes of float32 in a file.

    Attributes
    ----------
    planes : of the shape asked for, all 0.
    """

    def __init__(self, shape: tuple[int, ...], path: pathlib.Path) -> None:
        """Room for planes of a shape; ``path`` is the picture they are of. Raises `Trouble` when
        the disk has no room for them.
        """
        size = 4 * math.prod(shape)
        folder = made_folder(state_folder(), translate("very large pictures"))
        try:
            with tempfile.TemporaryFile(dir=folder) as held:
                os.posix_fallocate(
                    held.fileno(), 0, size
                )  # a disk that fills up later would end the process
                self._map = mmap.mmap(held.fileno(), size)
        except OSError as error:
            raise Trouble(
                translate(
                    "{path} needs {needs:.1f} GB on the disk of {folder} while it is open "
                    "({why}): free some space there.",
                    path=path,
                    needs=size / 1e9,
                    folder=folder,
                    why=error.strerror,
                )
            ) from error
        self.planes: np.ndarray = np.frombuffer(self._map, np.float32).reshape(shape)

    def let_go(self) -> None:
        """Give back the memory that holds what was read or written of it; the file has it
        (madvise(2), of a shared mapping).
        """
        self._map.madvise(mmap.MADV_DONTNEED)
