"""Refuse targets that are also read, unless somebody asks for that."""

from __future__ import annotations

import os
import pathlib
from collections.abc import Iterable

from ..errors import Trouble
from ..files import target_of
from ..language import translator
from ..media.source import Source
from ..project.model import Project

translate = translator("export")


def _identity(path: pathlib.Path) -> tuple[int, int] | None:
    """Return an identity that is the same for two names of one file; None where there is none."""
    try:
        held = os.stat(path)
    except (OSError, ValueError):
        return None
    return held.st_dev, held.st_ino


def inputs_of(source: Source, project: Project) -> list[pathlib.Path]:
    """The files that a render reads: those of the source, and those that the project names."""
    named = [
        text
        for s in project.stack
        for text in (s.pick.layer, s.adjust.fill.fill_picture, s.adjust.lookup.lookup_file)
        if text
    ]
    return [*source.files, *map(pathlib.Path, named)]


def spare_inputs(
    targets: Iterable[pathlib.Path], inputs: Iterable[pathlib.Path], overwrite: bool = False
) -> None:
    """Make sure that the targets can be files, and that nothing that is read would be written over.

    Raises
    ------
    Trouble: a target is a folder, a device or write-protected; or it is one of the inputs, by
        whatever name, and ``overwrite`` does not say that this is meant.
    """
    read = {_identity(path) for path in inputs} - {None}
    for target in targets:
        target_of(target)
        if not overwrite and _identity(target) in read:
            raise Trouble(
                translate(
                    "{target} is what is being read: choose another name, or say --overwrite in a "
                    "terminal.",
                    target=target,
                )
            )
