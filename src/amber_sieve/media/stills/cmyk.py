"""Pictures in printing inks, as light: through their own ICC profile, by Little CMS."""

from __future__ import annotations

import io
import pathlib
from typing import Any

import imagecodecs
import numpy as np
from PIL import Image, ImageCms, UnidentifiedImageError

from ...core.colour.transfer import decode
from ...errors import Trouble
from ...language import translator
from ..colour.management import INTENT, linear_profile, space_of
from ..quiet import quiet

translate = translator("stills")


#: Endings of files that may hold inks.
ENDINGS = (".jpg", ".jpeg", ".tif", ".tiff")
#: What OpenImageIO says of files in inks.
INKS = frozenset(("CMYK", "YCbCrK", "YCCK", "color separated"))
#: Rows that are worked at a time, so that no second full-size picture is made.
ROWS = 256


def holds_inks(path: pathlib.Path, spec: Any) -> bool:
    """Return whether a file is in cyan, magenta, yellow and black."""
    said = {str(spec.getattribute(name) or "") for name in ("jpeg:ColorSpace", "tiff:ColorSpace")}
    if path.suffix.lower() not in ENDINGS or not said & INKS:
        return False
    try:
        with quiet(), Image.open(path) as picture:
            return bool(picture.mode == "CMYK")
    except (UnidentifiedImageError, OSError, ValueError, Image.DecompressionBombError):
        return False  # what this library does not know, the other one may


def _profile_of(picture: Image.Image) -> bytes:
    profile = bytes(picture.info.get("icc_profile") or b"")
    return profile if space_of(profile) == "cmyk" else b""


def tags_of(path: pathlib.Path) -> dict[str, str]:
    """Return the properties of a picture in inks."""
    with Image.open(path) as picture:
        profile = _profile_of(picture)
    name = (
        ImageCms.getProfileDescription(ImageCms.ImageCmsProfile(io.BytesIO(profile))).strip()
        if profile
        else "none (plain inks)"
    )
    return {
        "format": path.suffix[1:].upper(),
        "samples": "uint8",
        "channels": "4 (inks)",
        "profile": name,
    }


def read(path: pathlib.Path) -> np.ndarray:
    """Light (3, H, W) of a picture in inks, upright; without a profile each ink takes all of its
    light.

    Raises
    ------
    Trouble: it is damaged.
    """
    from PIL import ImageOps

    try:
        with Image.open(path) as picture:
            profile = _profile_of(picture)
            inks = np.asarray(ImageOps.exif_transpose(picture))
    except (OSError, ValueError, SyntaxError):
        raise Trouble(
            translate(
                "{path} is cut short or damaged: restore it from where it came from.",
                path=path,
            )
        ) from None
    planes = np.empty((3, *inks.shape[:2]), np.float32)
    for top in range(0, inks.shape[0], ROWS):
        part = np.ascontiguousarray(inks[top : top + ROWS])
        if profile:
            try:
                light = imagecodecs.cms_transform(
                    part,
                    profile,
                    linear_profile(),
                    colorspace="cmyk",
                    outcolorspace="rgb",
                    outdtype="float32",
                    intent=INTENT,
                )
            except Exception:  # Little CMS says only that it failed
                raise Trouble(
                    translate(
                        "The profile of {path} is damaged: have it saved again, or convert it to "
                        "RGB.",
                        path=path,
                    )
                ) from None
        else:
            share = 1 - part.astype(np.float32) / 255
            light = decode(share[..., :3] * share[..., 3:])
        planes[:, top : top + ROWS] = np.moveaxis(light, -1, 0)
    return planes
