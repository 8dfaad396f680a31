"""The one table of codecs that clips are written with."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field


@dataclass(frozen=True)
class Codec:
    """A codec and its encoder's options.

    Attributes
    ----------
    encoder, pixels : FFmpeg's names of the encoder and of its pixel format.
    endings : of the files that hold it.
    options : what the encoder is told.
    quality : whether a quality can be chosen.
    alpha : pixel format with an alpha channel; "" where there is none.
    """

    encoder: str
    pixels: str
    endings: tuple[str, ...]
    options: Mapping[str, str] = field(default_factory=dict)
    quality: bool = False
    alpha: str = ""


#: By the name that a person knows; where an ending holds several, the first is the usual one.
CODECS: dict[str, Codec] = {
    "H.264": Codec("libx264", "yuv420p", (".mp4", ".mov", ".mkv"), {"preset": "medium"}, quality=True),
    "HEVC": Codec("libx265", "yuv420p10le", (".mp4", ".mov", ".mkv"), {"preset": "medium", "x265-params": "log-level=error"}, quality=True),
    "ProRes 422 HQ": Codec("prores_ks", "yuv422p10le", (".mov", ".mkv", ".mxf"), {"profile": "3", "vendor": "apl0"}),
    "ProRes 4444": Codec("prores_ks", "yuv444p10le", (".mov", ".mkv"), {"profile": "4", "vendor": "apl0"}, alpha="yuva444p10le"),
    "DNxHR HQX": Codec("dnxhd", "yuv422p10le", (".mov", ".mxf"), {"profile": "dnxhr_hqx"}),
    "FFV1": Codec("ffv1", "yuv444p16le", (".mkv",), {"level": "3", "slices": "16", "slicecrc": "1"}),
}


def codecs_of(ending: str) -> tuple[str, ...]:
    """The names of the codecs that files with an ending hold, the usual one first."""
    return tuple(name for name, codec in CODECS.items() if ending in codec.endings)


def codecs_with_alpha() -> tuple[str, ...]:
    """The names of the codecs that hold alpha."""
    return tuple(name for name, codec in CODECS.items() if codec.alpha)
