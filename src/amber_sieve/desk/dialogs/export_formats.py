"""Formats that can hold what is exported, and the depths, codecs or sizes of each."""

from __future__ import annotations

from ...export.lookup import SIZES
from ...language import translator
from ...media.colour import cdl_files, lookup_files
from ...media.formats import CODECS, FORMATS, Format
from .format_finder import DEPTHS

translate = translator("dialogs")

LOOKUP, CDL = "lookup table", "colour decision list"


def known_formats(kind: str, many: bool) -> list[tuple[str, str]]:
    """Return names and endings of the formats that can hold something: of one picture, or of many
    frames.
    """
    if kind == LOOKUP:
        return [(translate("Lookup table"), ending) for ending in lookup_files.ENDINGS]
    if kind == CDL:
        return [("CDL", ending) for ending in cdl_files.FORMATS]
    written = [one for one in FORMATS if one.writes]
    stills = [one for one in written if one.kind == "still"]
    if many:
        clips = [(one.name, one.endings[0]) for one in written if one.kind == "clip"]
        numbered = [one for one in stills if one.mask or kind == "result"]
        return [
            *clips,
            *(
                (translate("{name}, numbered", name=one.name), f".####{one.endings[0]}")
                for one in numbered
            ),
        ]
    grey = kind in ("mask", "every mask")
    return [
        (one.name, one.endings[0])
        for one in stills
        if (one.mask or not grey) and (one.alpha or kind != "cut-out")
    ]


def depths_of(known: Format | None, kind: str) -> list[tuple[str, str]]:
    """Return labels and ids of the depths of a format, its codecs, or the sizes of a table."""
    if kind == LOOKUP:
        return [(translate("{size} nodes on a side", size=size), str(size)) for size in SIZES]
    if known is None:
        return []
    if known.kind == "clip":
        held = [name for name in known.writes if kind != "result and mask" or CODECS[name].alpha]
        return [(codec, codec) for codec in held or known.writes]
    return [(DEPTHS[depth], depth) for depth in known.writes]
