"""Camera raw, by LibRaw: linear light in Rec. 709 primaries, white balance as shot, 16 bit, upright."""

from __future__ import annotations

import pathlib

import numpy as np

from ..core.frame import Frame
from ..errors import Trouble
from ..files import regular_file
from .source import About, key_of
from .stills import LARGEST, Still, quiet


def read(path: pathlib.Path) -> Still:
    """Develop a raw file; light beyond what the sensor held is white.

    Raises
    ------
    Trouble: missing, damaged, or of a camera that is not known.
    """
    import rawpy  # slow to load, and only needed for raw files

    path = regular_file(pathlib.Path(path))
    try:
        with quiet(), rawpy.imread(str(path)) as raw:
            if raw.sizes.width * raw.sizes.height > LARGEST:
                raise Trouble(
                    f"{path} is {raw.sizes.width} x {raw.sizes.height} pixels, more than {LARGEST // 10**6} million: cut it into parts."
                )
            samples = raw.postprocess(
                gamma=(1, 1), no_auto_bright=True, output_bps=16, use_camera_wb=True, output_color=rawpy.ColorSpace.sRGB
            )  # fmt: skip
            sensor = raw.raw_type.name
    except (rawpy.LibRawError, ValueError, RuntimeError):
        raise Trouble(f"{path} is no raw file that can be read: it is damaged, or of a camera that is not known.") from None
    height, width = samples.shape[:2]
    planes = np.ascontiguousarray(samples.transpose(2, 0, 1), np.float32)
    planes *= np.float32(1 / 65535)
    tags = {
        "format": f"camera raw ({path.suffix[1:].upper()})",
        "samples": "uint16",
        "channels": "3",
        "profile": "none (linear light)",
        "sensor": sensor,
    }
    about = About(path, "still", (width, height), "uint16", b"", {}, tags=tags)
    return Still(about, Frame(planes, None, key_of(path)))
