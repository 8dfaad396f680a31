"""Whatever a person names, opened as frames."""

from __future__ import annotations

import importlib
import pathlib

from ..files import regular_file
from ..read_settings import PLAIN, Reading
from . import formats, header, stills
from .footage import sequences
from .source import About, Source


def about_of(path: pathlib.Path) -> About:
    """Return the properties of a file; of a still only the header is read. Raises what
    `open_source` does.
    """
    path = pathlib.Path(path)
    if (
        not sequences.is_pattern(path)
        and not formats.is_clip(path)
        and path.suffix.lower() not in formats.RAW
    ):
        _check_header(path)
        return stills.about(path)
    source = open_source(path)
    try:
        return source.about
    finally:
        source.close()


def open_source(path: pathlib.Path, reading: Reading = PLAIN) -> Source:
    """A still, a clip or a sequence, by what the name stands for.

    Raises
    ------
    Trouble: it cannot be opened; the message says why.
    """
    path = pathlib.Path(path)
    if sequences.is_pattern(path):
        return sequences.Sequence(path, reading=reading)
    if formats.is_clip(path):
        _check_header(path, "footage.clip")
        from .footage import clip as footage

        return footage.Footage(path, reading)
    if path.suffix.lower() in formats.RAW:
        regular_file(path)
        from .stills import raw

        return raw.read(path, reading)
    _check_header(path)
    return stills.read(path, reading)


def _check_header(path: pathlib.Path, reader: str = "stills.reader") -> None:
    """Make sure that the header of a file ends; what reads it is loaded meanwhile. Raises
    `Trouble`.
    """
    regular_file(path)
    header.prepare()
    importlib.import_module(f"{__package__}.{reader}")
    header.check(path)
