"""ICC profiles that pictures can be written in, made by Little CMS from published primaries and
curves.
"""

from __future__ import annotations

import functools
import struct

import imagecodecs
import numpy as np

from ...core.colour.transfer import decode
from .management import undated

#: D65, as CIE 1931 x, y.
D65 = (0.3127, 0.3290)
#: Primaries of ITU-R BT.709: x and y of red, green and blue.
REC_709 = (0.64, 0.33, 0.30, 0.60, 0.15, 0.06)
#: SMPTE EG 432-1, with the curve of sRGB: what displays call P3.
P3 = (0.680, 0.320, 0.265, 0.690, 0.150, 0.060)
#: Primaries of opRGB (IEC 61966-2-5).
OP_RGB = (0.64, 0.33, 0.21, 0.71, 0.15, 0.06)
#: Its curve as a power (IEC 61966-2-5).
OP_RGB_POWER = 2 + 51 / 256
#: ITU-R BT.2020.
REC_2020 = (0.708, 0.292, 0.170, 0.797, 0.131, 0.046)
#: Entries of a curve that is no plain power.
ENTRIES = 1024
#: Names that can be chosen; "the picture's own" is the absence of one.
NAMES = ("sRGB", "Display P3", "opRGB", "Rec. 2020", "Linear")


def rec_709_curve(coded: np.ndarray) -> np.ndarray:
    """Light of codes 0 to 1 by the curve that ITU-R BT.709 and BT.2020 share (the inverse of their
    OETF).
    """
    coded = np.asarray(coded, np.float64)
    return np.where(
        coded < 4.5 * 0.018053968510807,
        coded / 4.5,
        ((coded + 0.09929682680944) / 1.09929682680944) ** (1 / 0.45),
    )


@functools.cache
def named(name: str) -> bytes:
    """The profile of one of ``NAMES``.

    Raises
    ------
    KeyError: there is no such profile.
    """
    grid = np.linspace(0, 1, ENTRIES)
    primaries, curve = {
        "sRGB": (REC_709, decode(grid)),
        "Display P3": (P3, decode(grid)),
        "opRGB": (OP_RGB, OP_RGB_POWER),
        "Rec. 2020": (REC_2020, rec_709_curve(grid)),
        "Linear": (REC_709, 1.0),
    }[name]
    across = [*primaries[:2], 1.0, *primaries[2:4], 1.0, *primaries[4:], 1.0]
    if isinstance(curve, float):
        made = imagecodecs.cms_profile("rgb", whitepoint=[*D65, 1.0], primaries=across, gamma=curve)
    else:
        codes = np.rint(np.asarray(curve) * 65535).astype(np.uint16)
        made = imagecodecs.cms_profile(
            "rgb", whitepoint=[*D65, 1.0], primaries=across, transferfunction=codes
        )
    return with_description(undated(bytes(made)), name)


def with_description(profile: bytes, words: str) -> bytes:
    """A profile that calls itself otherwise (ICC.1:2022: header of 128 bytes, table of tags,
    multilingual text).
    """
    count = struct.unpack_from(">I", profile, 128)[0]
    tags = [struct.unpack_from(">4sII", profile, 132 + 12 * at) for at in range(count)]
    text = words.encode("utf-16-be")
    description = b"mluc" + struct.pack(">IIIHHII", 0, 1, 12, 0x656E, 0x5553, len(text), 28) + text
    table, body, start = b"", b"", 132 + 12 * count
    places: dict[tuple[int, int], int] = {}
    for name, offset, size in tags:
        where = (-1, 0) if name == b"desc" else (offset, size)
        data = description if name == b"desc" else profile[offset : offset + size]
        if where not in places:  # tags may share what they hold
            places[where] = start + len(body)
            body += data + b"\0" * (-len(data) % 4)
        table += struct.pack(">4sII", name, places[where], len(data))
    whole = profile[:128] + struct.pack(">I", count) + table + body
    return (
        struct.pack(">I", len(whole)) + whole[4:84] + b"\0" * 16 + whole[100:]
    )  # without an MD5 that no longer holds
