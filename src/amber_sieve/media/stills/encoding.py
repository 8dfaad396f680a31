"""Pictures encoded in memory: some libraries end the process when the disk is full, so none of them writes to it."""

from __future__ import annotations

import os
import resource
from typing import Any

import numpy as np
import OpenImageIO as oiio


def encoded(encoder: str, spec: Any, pixels: np.ndarray) -> bytes:
    """A picture (H, W, C) as the bytes of its file; raises OSError when the encoder fails.

    Encoders write into a file in memory, which takes whatever they give it. A pipe with a reader of ours at its end would not: some of
    them hold Python's lock while they write, and once the pipe is full nobody could read it any more.
    """
    held = os.memfd_create("picture")
    try:
        if encoder == "jpeg":  # its library ends the process when it may not write on
            _refuse_more_than_allowed(pixels.nbytes)
        _write(encoder, f"/proc/self/fd/{held}", spec, pixels)
        _refuse_more_than_allowed(os.fstat(held).st_size)  # some encoders do not notice that the rest is missing
        return os.pread(held, os.fstat(held).st_size, 0) if os.fstat(held).st_size < 2**31 else b"".join(_blocks(held))
    finally:
        os.close(held)


def _refuse_more_than_allowed(size: int) -> None:
    """Raise OSError when so many bytes are not fewer than the largest file this process may write (setrlimit(2), RLIMIT_FSIZE)."""
    most = resource.getrlimit(resource.RLIMIT_FSIZE)[0]
    if most != resource.RLIM_INFINITY and size >= most:
        raise OSError(27, os.strerror(27))


def _blocks(held: int) -> list[bytes]:
    """A large file in memory, in parts: one read gives at most two gigabytes."""
    size, part = os.fstat(held).st_size, 1 << 30
    return [os.pread(held, part, at) for at in range(0, size, part)]


def _write(encoder: str, name: str, spec: Any, pixels: np.ndarray) -> None:
    out = oiio.ImageOutput.create(encoder)
    if out is None or not out.open(name, spec):
        raise OSError(22, f"no {encoder} encoder: {(out or oiio).geterror()}")
    done = out.write_image(np.ascontiguousarray(pixels))
    complaint = out.geterror()
    if not (out.close() and done):
        raise OSError(28, complaint or "the encoder failed")
