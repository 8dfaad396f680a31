"""Pictures encoded in memory: some libraries end the process when the disk is full, so none of them writes to it."""

from __future__ import annotations

import os
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
        _write(encoder, f"/proc/self/fd/{held}", spec, pixels)
        return os.pread(held, os.fstat(held).st_size, 0) if os.fstat(held).st_size < 2**31 else b"".join(_blocks(held))
    finally:
        os.close(held)


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
