"""`cdl`: the CDL of a sieve as a file."""

from __future__ import annotations

import argparse
import pathlib

from ..errors import Trouble
from ..project import storage
from .options import Commands


def add(commands: Commands) -> None:
    """Add `cdl` to the commands."""
    cdl = commands.add_parser("cdl", help="write the CDL of a sieve as .cdl, .ccc or .cc")
    cdl.add_argument("project", type=pathlib.Path)
    cdl.add_argument("-o", "--out", type=pathlib.Path, required=True)
    cdl.add_argument("--sieve", metavar="NAME", help="by default the first one")
    cdl.set_defaults(run=run)


def run(arguments: argparse.Namespace) -> int:
    from ..media.colour import cdl_files
    from ..project.controls import left_out_of_cdl

    project = storage.load(arguments.project)
    named = [sieve for sieve in project.stack if arguments.sieve in (None, sieve.name)]
    if not named:
        raise Trouble(
            f"{arguments.project} has no sieve {arguments.sieve}: it has "
            f"{', '.join(sieve.name for sieve in project.stack)[:200]}."
        )
    cdl_files.write(
        cdl_files.correction_of(named[0].name, named[0].adjust.cdl.given), arguments.out
    )
    left = left_out_of_cdl(named[0])
    print(f"{arguments.out}: written" + (f"; left out: {', '.join(left)}" if left else ""))
    return 0
