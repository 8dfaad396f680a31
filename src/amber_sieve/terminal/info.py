"""`info`: what a file is. It is asked of many files in a row, so it loads as little as it can."""

from __future__ import annotations

import argparse
import pathlib
import sys
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from .options import Commands


def add(commands: Commands) -> None:
    """Add `info` to the commands."""
    info = commands.add_parser("info", help="what a file is")
    info.add_argument("file", type=pathlib.Path)
    info.set_defaults(run=run)


def run(arguments: argparse.Namespace) -> int:
    from ..media.formats import PROJECT
    from ..media.opening import about_of

    if arguments.file.suffix.lower() == PROJECT:
        from ..project import storage

        project = storage.load(arguments.file)
        print(f"project of {project.source or 'no picture'}")
        for sieve in project.stack:
            print(f"  {sieve.name}: {len(sieve.pick.samples)} samples{'' if sieve.on else ', off'}")
        return 0
    about = about_of(arguments.file)
    for note in about.notes:
        print(f"amber-sieve: {note}", file=sys.stderr)
    print(f"{about.kind} of {about.size[0]} x {about.size[1]} pixels")
    if about.kind != "still":
        print(f"frames: {about.frames} at {float(about.rate):.3f} a second")
    for name, value in about.tags.items():
        print(f"{name}: {value}")
    return 0
