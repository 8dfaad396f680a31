"""TIFF in compressions that OpenImageIO leaves out (LZMA, ZSTD, JPEG XL and others): by tifffile
and imagecodecs.
"""

from __future__ import annotations

import pathlib
from typing import Any

import numpy as np

from ...errors import Trouble
from ...language import translator

translate = translator("stills")


#: Values of the tag Compression that OpenImageIO reads (TIFF 6.0 and later registrations).
READ_BY_OIIO = frozenset((1, 2, 3, 4, 5, 6, 7, 8, 32773, 32946, 50001))
#: Values of PhotometricInterpretation whose samples are light as they stand: greys and RGB.
PLAIN = (1, 2)


def is_ours(spec: Any) -> bool:
    """Return whether a TIFF is compressed in a way that OpenImageIO cannot read."""
    compression = spec.getattribute("tiff:Compression")
    return compression is not None and int(compression) not in READ_BY_OIIO


def samples_of(path: pathlib.Path, at: int, kind: str) -> np.ndarray:
    """Return the samples (H, W, C) of one directory of a file, of the sample type ``kind``.

    Raises
    ------
    Trouble: its compression, or what its numbers stand for, is not known. RuntimeError: it is
        damaged.
    """
    try:
        return _read(path, at, kind)
    except Trouble:
        raise
    except Exception as error:  # whatever its many decoders raise
        raise RuntimeError(str(error)) from None


def _read(path: pathlib.Path, at: int, kind: str) -> np.ndarray:
    import tifffile  # needed by few files

    with tifffile.TiffFile(path) as held:
        page = held.pages[at]
        compression = int(page.compression)
        if int(page.photometric) not in PLAIN or page.dtype is None or not _is_known(compression):
            raise _unknown(path, compression)
        pixels = page.asarray()
    pixels = pixels[..., None] if pixels.ndim == 2 else pixels
    if int(page.planarconfig) == 2 and page.samplesperpixel > 1:
        pixels = np.moveaxis(pixels, 0, -1)
    if kind.startswith("uint"):
        most, wanted = np.iinfo(pixels.dtype).max, np.dtype(kind)
        scale = np.iinfo(wanted).max / most
        return pixels if pixels.dtype == wanted else np.rint(pixels * scale).astype(wanted)
    return np.asarray(pixels, np.float32)


def _is_known(compression: int) -> bool:
    from tifffile import TIFF

    return compression in TIFF.DECOMPRESSORS


def _unknown(path: pathlib.Path, compression: int) -> Trouble:
    return Trouble(
        translate(
            "{path} has an unknown compression ({compression}): save it again with ZIP or LZW.",
            path=path,
            compression=compression,
        )
    )
