"""Camera raw, by LibRaw: linear light in Rec. 709 primaries, white balance as shot or picked, 16
bit, upright.
"""

from __future__ import annotations

import pathlib
from typing import Any

import numpy as np

from ...core.frame import Frame, patch
from ...errors import Trouble
from ...files import regular_file
from ...language import translator
from ...read_settings import PLAIN, Reading
from ..colour import spaces as colour_spaces
from ..quiet import quiet
from ..source import About, key_of
from .still import Still
from .stored import LARGEST

translate = translator("stills")


#: Side of the patch a white balance is picked from, pixels.
PATCH = 11


def read(path: pathlib.Path, reading: Reading = PLAIN) -> Still:
    """Develop a raw file; light beyond what the sensor held is white.

    Raises
    ------
    Trouble: missing, damaged, of a camera that is not known, or nothing can be picked at the place
        of ``reading.white``.
    """
    import rawpy  # slow to load, and only needed for raw files

    path = regular_file(pathlib.Path(path))
    try:
        with quiet(), rawpy.imread(str(path)) as raw:
            if raw.sizes.width * raw.sizes.height > LARGEST:
                raise Trouble(
                    translate(
                        "{path} is {width} x {height} pixels, more than {most} million: cut it "
                        "into parts.",
                        path=path,
                        width=raw.sizes.width,
                        height=raw.sizes.height,
                        most=LARGEST // 10**6,
                    )
                )
            white = _picked(rawpy, raw, reading.white, path) if reading.white else None
            samples = raw.postprocess(
                gamma=(1, 1),
                no_auto_bright=True,
                output_bps=16,
                use_camera_wb=white is None,
                user_wb=white,
                output_color=rawpy.ColorSpace.sRGB,
            )
            sensor = raw.raw_type.name
    except (rawpy.LibRawError, ValueError, RuntimeError):
        raise Trouble(
            translate(
                "{path} is no raw file that can be read: it is damaged, or of a camera that is "
                "not known.",
                path=path,
            )
        ) from None
    height, width = samples.shape[:2]
    if reading.space:
        planes = colour_spaces.to_light(
            samples.transpose(2, 0, 1).astype(np.float32) / np.float32(65535), reading.space
        )
    else:
        planes = np.ascontiguousarray(samples.transpose(2, 0, 1), np.float32)
        planes *= np.float32(1 / 65535)
    tags = {
        "format": translate("camera raw ({kind})", kind=path.suffix[1:].upper()),
        "samples": "uint16",
        "channels": "3",
        "profile": translate("none (linear light)"),
        "sensor": sensor,
        "white balance": "picked" if reading.white else translate("as shot"),
    }
    about = About(path, "still", (width, height), "uint16", b"", {}, tags=tags)
    return Still(
        about, Frame(planes, None, (key_of(path), reading) if reading != PLAIN else key_of(path))
    )


def _picked(rawpy: Any, raw: Any, place: tuple[float, float], path: pathlib.Path) -> list[float]:
    """Return the factors of red, green, blue and green that make a place grey."""
    sensor = raw.postprocess(
        gamma=(1, 1),
        no_auto_bright=True,
        output_bps=16,
        user_wb=[1, 1, 1, 1],
        output_color=rawpy.ColorSpace.raw,
        user_sat=None,
    )
    try:
        pixels = patch(np.ascontiguousarray(sensor.transpose(2, 0, 1), np.float32), *place, PATCH)
    except ValueError:
        raise Trouble(
            translate(
                "{path} has no pixel at {place:.0f},{down:.0f}: pick the white balance anew.",
                path=path,
                place=place[0],
                down=place[1],
            )
        ) from None
    red, green, blue = (float(v) for v in pixels.mean(axis=1, dtype=np.float64))
    if min(red, green, blue) < 1 or max(red, green, blue) > 65_000:
        raise Trouble(
            translate(
                "{path} is black or burnt out at {place:.0f},{down:.0f}: pick the white balance "
                "at another place.",
                path=path,
                place=place[0],
                down=place[1],
            )
        )
    return [green / red, 1.0, green / blue, 1.0]
