"""Pictures of phones and of the web, through Pillow and libheif: HEIC, AVIF, GIF, and TGA, whose
rows may run either way.
"""

from __future__ import annotations

import functools
import pathlib
import warnings
from collections.abc import Iterator
from contextlib import contextmanager
from typing import Any

import numpy as np
from PIL import Image, ImageOps, UnidentifiedImageError

from ...errors import Trouble
from ...language import translator
from ..formats import PILLOW
from ..memory import room_for

translate = translator("stills")


HEIC = (".heic", ".heif", ".hif")
#: Modes that hold more than 8 bits, and what they are read as.
DEEP = ("I;16", "I;16L", "I;16B", "I;16N", "I")


@functools.cache
def _with_heic() -> None:
    """Let Pillow open HEIC too."""
    import pillow_heif  # brings libheif in: only needed for these files

    pillow_heif.register_heif_opener()


def load_libraries(path: pathlib.Path) -> None:
    """Load what reads a picture, which `opened` would do at its first."""
    Image.init()
    if path.suffix.lower() in HEIC:
        _with_heic()


@contextmanager
def opened(path: pathlib.Path, largest: int) -> Iterator[Image.Image]:
    """A picture whose header has been read and whose size can be worked on.

    Raises
    ------
    Trouble: it is damaged, or too large.
    """
    if path.suffix.lower() in HEIC:
        _with_heic()
    Image.MAX_IMAGE_PIXELS = None  # how large is too large is said by `room_for`, from the header
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("ignore")
            with Image.open(path) as picture:
                room_for(path, *picture.size, largest)
                yield picture
    except (
        UnidentifiedImageError,
        OSError,
        ValueError,
        SyntaxError,
        EOFError,
        RuntimeError,
        IndexError,
        KeyError,
        TypeError,
    ):
        kind = path.suffix[1:].upper()
        raise Trouble(
            translate(
                "{path} is not a readable {kind} picture: it is damaged or has the wrong ending.",
                path=path,
                kind=kind,
            )
        ) from None


def is_ours(path: pathlib.Path) -> bool:
    """Return whether a file's ending says that it is read here."""
    return path.suffix.lower() in PILLOW


def _deep_heic(path: pathlib.Path) -> np.ndarray | None:
    """Samples (H, W, C) uint16 of a HEIC picture that holds more than 8 bits, upright; None for one
    that does not.
    """
    import pillow_heif

    held = pillow_heif.open_heif(path, convert_hdr_to_8bit=False)
    if ";16" not in held.mode:
        return None
    return np.array(np.asarray(held), np.uint16)


def samples_of(
    path: pathlib.Path, largest: int
) -> tuple[np.ndarray, np.ndarray | None, bytes, str, dict[str, Any]]:
    """Return the samples of a picture.

    Returns
    -------
    Colours (H, W, 1 or 3), upright, uint8 or uint16; alpha (H, W) of the same kind or None; the ICC
    profile, b"" for none; the sample type; and what is worth carrying over of its metadata.

    Raises
    ------
    Trouble: it is damaged, or too large.
    """
    with opened(path, largest) as picture:
        profile = bytes(picture.info.get("icc_profile") or b"")
        deep = _deep_heic(path) if picture.format == "HEIF" else None
        if deep is not None:
            samples = deep
        else:
            upright = ImageOps.exif_transpose(picture)
            if upright.mode in DEEP:
                samples = np.asarray(upright).astype(np.uint16)[..., None]
            else:
                transparent = "A" in upright.getbands() or "transparency" in upright.info
                grey = upright.mode in ("L", "LA", "1")
                samples = np.asarray(
                    upright.convert(
                        ("LA" if transparent else "L") if grey else "RGBA" if transparent else "RGB"
                    )
                )
                samples = samples[..., None] if samples.ndim == 2 else samples
    alpha = samples[..., -1] if samples.shape[2] in (2, 4) else None
    colours = samples[..., : 1 if samples.shape[2] < 3 else 3]
    return np.ascontiguousarray(colours), alpha, profile, str(samples.dtype), {}
