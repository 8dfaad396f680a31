"""The one table of formats and codecs: every dialog, reader and exporter asks here."""

from __future__ import annotations

import pathlib
from collections.abc import Mapping
from dataclasses import dataclass, field

from ..errors import Trouble
from ..language import translator

translate = translator("media")


#: Endings of project files.
PROJECT = ".sieve"


@dataclass(frozen=True)
class Format:
    """A kind of file.

    Attributes
    ----------
    name : what a person calls it; endings : the first is the usual one.
    kind : "still" or "clip".
    writes : sample types that can be written, the default first; empty when it is only read. Of
        clips: names of codecs.
    alpha, profile : whether it holds transparency, and an ICC profile.
    mask : whether a mask can be written as it (16 bit or float grey).
    straight : alpha is never multiplied into the colours, and the file does not say so.
    greys : channels of grey pictures that can be written: 1, and 2 with alpha.
    quality : whether one can be chosen, 1 to 100. encoder : name of OpenImageIO's writer, of clips
        of FFmpeg's container.
    """

    name: str
    endings: tuple[str, ...]
    kind: str = "still"
    writes: tuple[str, ...] = ()
    alpha: bool = True
    profile: bool = True
    mask: bool = False
    straight: bool = False
    greys: tuple[int, ...] = (1, 2)
    quality: bool = False
    encoder: str = ""


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
    "H.264": Codec(
        "libx264", "yuv420p", (".mp4", ".mov", ".mkv"), {"preset": "medium"}, quality=True
    ),
    "HEVC": Codec(
        "libx265",
        "yuv420p10le",
        (".mp4", ".mov", ".mkv"),
        {"preset": "medium", "x265-params": "log-level=error"},
        quality=True,
    ),
    "ProRes 422 HQ": Codec(
        "prores_ks", "yuv422p10le", (".mov", ".mkv", ".mxf"), {"profile": "3", "vendor": "apl0"}
    ),
    "ProRes 4444": Codec(
        "prores_ks",
        "yuv444p10le",
        (".mov", ".mkv"),
        {"profile": "4", "vendor": "apl0"},
        alpha="yuva444p10le",
    ),
    "DNxHR HQX": Codec("dnxhd", "yuv422p10le", (".mov", ".mxf"), {"profile": "dnxhr_hqx"}),
    "FFV1": Codec(
        "ffv1", "yuv444p16le", (".mkv",), {"level": "3", "slices": "16", "slicecrc": "1"}
    ),
}


def codecs_of(ending: str) -> tuple[str, ...]:
    """The names of the codecs that files with an ending hold, the usual one first."""
    return tuple(name for name, codec in CODECS.items() if ending in codec.endings)


def codecs_with_alpha() -> tuple[str, ...]:
    """The names of the codecs that hold alpha."""
    return tuple(name for name, codec in CODECS.items() if codec.alpha)


#: Endings of the raw files of cameras.
RAW = (".dng", ".cr2", ".cr3", ".nef", ".arw", ".raf", ".orf", ".rw2", ".pef", ".srw")

#: Endings that Pillow reads.
PILLOW = (".heic", ".heif", ".hif", ".avif", ".gif", ".tga")

FORMATS = (
    Format("PNG", (".png",), writes=("uint8", "uint16"), mask=True, encoder="png"),
    Format(
        "TIFF", (".tif", ".tiff"), writes=("uint16", "uint8", "float"), mask=True, encoder="tiff"
    ),
    Format("JPEG", (".jpg", ".jpeg"), writes=("uint8",), alpha=False, quality=True, encoder="jpeg"),
    Format(
        "OpenEXR", (".exr",), writes=("half", "float"), profile=False, mask=True, encoder="openexr"
    ),
    Format("WebP", (".webp",), writes=("uint8",), greys=(), quality=True, encoder="webp"),
    Format(
        "JPEG XL",
        (".jxl",),
        writes=("uint16", "uint8", "half", "float"),
        straight=True,
        greys=(1,),
        encoder="jpegxl",
    ),
    Format("HEIC", (".heic", ".heif", ".hif")),
    Format("AVIF", (".avif",)),
    Format("GIF", (".gif",), profile=False),
    Format("TGA", (".tga",), profile=False),
    Format("BMP", (".bmp",), alpha=False, profile=False),
    Format("JPEG 2000", (".jp2", ".j2k")),
    Format("Radiance HDR", (".hdr",), alpha=False, profile=False),
    Format("PSD", (".psd",)),
    Format(
        "DPX",
        (".dpx",),
        writes=("uint16",),
        profile=False,
        straight=True,
        greys=(1,),
        encoder="dpx",
    ),
    Format("Camera raw", RAW),
    Format("MP4", (".mp4", ".m4v"), "clip", codecs_of(".mp4"), encoder="mp4"),
    Format("QuickTime", (".mov",), "clip", codecs_of(".mov"), encoder="mov"),
    Format("Matroska", (".mkv",), "clip", codecs_of(".mkv"), encoder="matroska"),
    Format("MXF", (".mxf",), "clip", codecs_of(".mxf"), encoder="mxf"),
    Format("AVI", (".avi",), "clip"),
    Format("WebM", (".webm",), "clip"),
    Format("MPEG transport stream", (".ts", ".mts", ".m2ts"), "clip"),
    Format("MPEG programme stream", (".mpg", ".mpeg", ".vob"), "clip"),
    Format("NUT", (".nut",), "clip"),
    Format(
        "H.264, HEVC or MPEG-2 without a container",
        (".h264", ".264", ".hevc", ".265", ".h265", ".m2v"),
        "clip",
    ),
)


def format_of(path: pathlib.Path) -> Format | None:
    """The format that a name's ending stands for, None for an unknown one."""
    ending = path.suffix.lower()
    return next((known for known in FORMATS if ending in known.endings), None)


def endings(kind: str = "", writable: bool = False, mask: bool = False) -> list[str]:
    """All endings of a kind; of those that can be written, or that can hold a mask, only."""
    return [
        ending
        for known in FORMATS
        if (not kind or known.kind == kind)
        and (known.writes or not writable)
        and (known.mask or not mask)
        for ending in known.endings
    ]


def endings_of(encoder: str) -> tuple[str, ...]:
    """The endings of what an encoder writes, the usual one first."""
    return next(known.endings for known in FORMATS if known.encoder == encoder)


def is_clip(path: pathlib.Path) -> bool:
    """Return whether the ending stands for a clip."""
    known = format_of(path)
    return known is not None and known.kind == "clip"


def is_picture(path: pathlib.Path) -> bool:
    """Return whether the ending stands for a still that can be written."""
    known = format_of(path)
    return known is not None and known.kind == "still" and bool(known.writes)


def written() -> list[Format]:
    """The formats in which pictures can be written."""
    return [known for known in FORMATS if known.kind == "still" and known.writes]


def depth_for(path: pathlib.Path, wanted: str) -> str:
    """The sample type to write with this ending: the wanted one where it can be held, else the
    nearest.

    Raises
    ------
    Trouble: nothing can be written with this ending.
    """
    known = format_of(path)
    if known is None or known.kind != "still" or not known.writes:
        raise Trouble(
            translate(
                "Pictures cannot be written as «{suffix}»: end the name in {endings}.",
                suffix=path.suffix or translate("no ending"),
                endings=", ".join(endings("still", True)),
            )
        )
    if wanted in known.writes:
        return wanted
    deep = (
        "uint16"
        if wanted in ("half", "float")
        else "half"
        if wanted == "uint16"
        else known.writes[0]
    )
    return deep if deep in known.writes else known.writes[0]


def mask_depth_for(path: pathlib.Path) -> str:
    """The sample type a mask is written with; raises `Trouble` when this ending holds none."""
    known = format_of(path)
    if known is None or not known.mask:
        raise Trouble(
            translate(
                "Masks cannot be written as «{suffix}»: end the name in {endings}.",
                suffix=path.suffix or translate("no ending"),
                endings=", ".join(endings(mask=True)),
            )
        )
    return "uint16" if "uint16" in known.writes else "float"


def codec_for(path: pathlib.Path, wanted: str = "") -> str:
    """The codec of a clip: the wanted one where the ending can hold it, else the ending's first.

    Raises
    ------
    Trouble: this ending cannot hold it.
    """
    known = format_of(path)
    if (
        known is not None
        and known.kind == "clip"
        and known.writes
        and (not wanted or wanted in known.writes)
    ):
        return wanted or known.writes[0]
    holds = sorted(
        {
            e
            for f in FORMATS
            if f.kind == "clip" and f.writes and (not wanted or wanted in f.writes)
            for e in f.endings
        }
    )
    raise Trouble(
        translate(
            "{wanted} cannot be written as «{suffix}»: end the name in {holds}.",
            wanted=wanted or translate("A clip"),
            suffix=path.suffix or translate("no ending"),
            holds=", ".join(holds),
        )
    )


#: The quality that is usual for codecs of clips that have one, of 1 to 100; it is a constant rate
#: factor of 16.
QUALITY = 70


def container_of(path: pathlib.Path) -> str:
    """FFmpeg's name of the container that an ending stands for, of clips that are written."""
    known = format_of(path)
    assert known is not None and known.kind == "clip" and known.encoder
    return known.encoder


def has_quality(ending: str, codec: str = "") -> bool:
    """Return whether a quality can be chosen of files with an ending, or of a codec in them."""
    known = format_of(pathlib.Path(f"a{ending}"))
    return (known is not None and known.quality) or (codec in CODECS and CODECS[codec].quality)


def filter_words(title: str, known: list[str]) -> str:
    """A line for a file dialog, as in «Pictures (*.png *.tif)»."""
    return f"{title} ({' '.join(f'*{ending}' for ending in known)})"
