"""`lookup`: sieves as a 3D lookup table."""

from __future__ import annotations

import argparse
import pathlib

from ..errors import Trouble
from ..project import storage
from .options import Commands, progress


def add(commands: Commands) -> None:
    """Add `lookup` to the commands."""
    lookup = commands.add_parser(
        "lookup", help="write sieves that depend on colour alone as a 3D lookup table"
    )
    lookup.add_argument("project", type=pathlib.Path)
    lookup.add_argument(
        "-o",
        "--out",
        type=pathlib.Path,
        required=True,
        help="FILE.cube or FILE.clf, over sRGB-coded values",
    )
    lookup.add_argument("--size", type=int, choices=(17, 33, 65), default=33)
    lookup.set_defaults(run=run)


def run(arguments: argparse.Namespace) -> int:
    from ..export.lookup import write_lookup
    from ..resolve.sources import source_of

    project = storage.load(arguments.project)
    if not project.source:
        raise Trouble(
            f"{arguments.project} names no picture, which is needed to compare the table on: open "
            "it and save it again."
        )
    source = source_of(project)
    written = write_lookup(project, source.frame(0), arguments.out, arguments.size, progress())
    for line in written.left_out:
        print(f"left out of the table: {line}")
    print(
        f"{arguments.out}: written; ΔE2000 from the render with colour alone: mean "
        f"{written.mean:.2f}, largest {written.largest:.1f}"
    )
    return 0
