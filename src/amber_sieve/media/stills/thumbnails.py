"""Small pictures of files, read as cheaply as the kind of file allows."""

from __future__ import annotations

import pathlib

import cv2
import numpy as np

from ...core.colour.screen import to_screen
from ...errors import Trouble
from ...language import translator
from ...read_settings import PLAIN, Reading
from ..opening import open_source

translate = translator("stills")


#: Longer side, pixels.
SIDE = 112


def size_within(width: int, height: int) -> tuple[int, int]:
    """Width and height of the thumbnail of a picture."""
    share = SIDE / max(width, height, 1)
    return max(1, round(width * share)), max(1, round(height * share))


def thumbnail(path: pathlib.Path, reading: Reading = PLAIN) -> np.ndarray:
    """Words 0xFFRRGGBB (H, W) uint32 of a picture, or of the first frame of a clip; raises
    `Trouble` when it cannot be read.
    """
    if path.suffix.lower() in (".jpg", ".jpeg"):
        from PIL import Image, ImageOps  # slow to load

        try:
            with Image.open(path) as picture:
                picture.draft("RGB", (2 * SIDE, 2 * SIDE))  # decoded at a fraction of its size
                small = ImageOps.exif_transpose(picture).convert("RGB")
                codes = np.asarray(
                    small.resize(size_within(*small.size), Image.Resampling.BOX), np.uint32
                )
                return np.ascontiguousarray(
                    0xFF000000 | codes[..., 0] << 16 | codes[..., 1] << 8 | codes[..., 2]
                ).astype(np.uint32)
        except (OSError, ValueError, SyntaxError):
            raise Trouble(
                translate(
                    "{path} is cut short or damaged: restore it from where it came from.",
                    path=path,
                )
            ) from None
    source = open_source(path, reading)
    try:
        return thumbnail_of(source.frame(0).planes)
    finally:
        source.close()


def thumbnail_of(planes: np.ndarray) -> np.ndarray:
    """The same of a picture that has been read, (3, H, W) linear light."""
    size = size_within(planes.shape[2], planes.shape[1])
    return to_screen(
        np.stack([cv2.resize(plane, size, interpolation=cv2.INTER_AREA) for plane in planes])
    )
