"""Pictures encoded in memory: some libraries end the process when the disk is full, so none of them
writes to a disk that may fill up.
"""

from __future__ import annotations

import contextlib
import ctypes
import errno
import os
import pathlib
import resource
from collections.abc import Iterable, Iterator
from typing import Any

import numpy as np
import OpenImageIO as oiio

from ...files import BLOCK, write_blocks

#: Pictures of more bytes are encoded into their part-file, in room that was taken for them on the
#: disk.
IN_MEMORY = 1_000_000_000
#: How much larger than what goes in an encoded picture may become: deflate (RFC 1951) adds five
#: bytes to each block it cannot make smaller.
GROWS, BESIDES = 1.01, 1 << 20
#: Room is taken without making the file longer (fallocate(2), FALLOC_FL_KEEP_SIZE).
_KEEP_SIZE = 1


def encode(encoder: str, spec: Any, rows: Iterable[np.ndarray], path: pathlib.Path) -> None:
    """Encode a picture, given as some rows (h, W, C) after others, into a part-file; raises OSError
    when the encoder or the disk fails.

    Encoders write into a file in memory, which takes whatever they give it. A pipe with a reader of
    ours at its end would not: some of them hold Python's lock while they write, and once the pipe
    is full nobody could read it any more.
    """
    if encoder == "jpeg":  # its library ends the process when it may not write on
        _refuse_more_than_allowed(spec.image_bytes())
    elif spec.image_bytes() > IN_MEMORY:
        _refuse_more_than_allowed(int(spec.image_bytes() * GROWS + BESIDES))
        try:
            return _write(encoder, str(path), spec, rows, path)
        except OSError as error:
            if error.errno != errno.EOPNOTSUPP:  # a disk of a kind that takes no room beforehand
                raise
    held = os.memfd_create("picture")
    try:
        _write(encoder, f"/proc/self/fd/{held}", spec, rows)
        _refuse_more_than_allowed(
            os.fstat(held).st_size
        )  # some encoders do not notice that the rest is missing
        write_blocks(path, _blocks(held))
    finally:
        os.close(held)


@contextlib.contextmanager
def _room(path: pathlib.Path, size: int) -> Iterator[None]:
    """Reserve ``size`` bytes of the disk for a file; unused ones are given back. Raises OSError
    when there are fewer.
    """
    held = os.open(path, os.O_RDWR)
    try:
        if ctypes.CDLL(None, use_errno=True).fallocate(
            held, _KEEP_SIZE, ctypes.c_int64(0), ctypes.c_int64(size)
        ):
            raise OSError(ctypes.get_errno(), os.strerror(ctypes.get_errno()))
        yield
        os.ftruncate(held, os.fstat(held).st_size)
    finally:
        os.close(held)


def _refuse_more_than_allowed(size: int) -> None:
    """Raise OSError when a number of bytes reaches the largest file this process may write
    (setrlimit(2), RLIMIT_FSIZE).
    """
    most = resource.getrlimit(resource.RLIMIT_FSIZE)[0]
    if most != resource.RLIM_INFINITY and size >= most:
        raise OSError(27, os.strerror(27))


def _blocks(held: int) -> Iterator[bytes]:
    """Yield the contents of a file in memory, a block at a time."""
    for at in range(0, os.fstat(held).st_size, BLOCK):
        yield os.pread(held, BLOCK, at)


def _write(
    encoder: str,
    name: str,
    spec: Any,
    rows: Iterable[np.ndarray],
    on_disk: pathlib.Path | None = None,
) -> None:
    out = oiio.ImageOutput.create(encoder)
    if out is None or not out.open(name, spec):
        raise OSError(22, f"no {encoder} encoder: {(out or oiio).geterror()}")
    room = (
        _room(on_disk, int(spec.image_bytes() * GROWS + BESIDES))
        if on_disk is not None
        else contextlib.nullcontext()
    )
    with room:
        top, done = 0, True
        for pixels in rows:
            done = out.write_scanlines(top, top + len(pixels), 0, np.ascontiguousarray(pixels))
            top += len(pixels)
            if not done:  # the rest would be worked out for nothing
                break
        complaint = out.geterror()
        if not (out.close() and done):
            raise OSError(28, complaint or "the encoder failed")
