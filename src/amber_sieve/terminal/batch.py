"""`batch`: one project over many pictures."""

from __future__ import annotations

import argparse
import pathlib
import sys

from ..errors import Trouble
from .options import Commands, in_light, light_option, progress
from .values import whole


def add(commands: Commands) -> None:
    """Add `batch` to the commands."""
    batch = commands.add_parser(
        "batch",
        help="render many pictures by one project; started again, it goes on where it stopped",
    )
    batch.add_argument("project", type=pathlib.Path)
    batch.add_argument("pictures", type=pathlib.Path, nargs="+", metavar="PICTURE_OR_FOLDER")
    batch.add_argument("-o", "--out", type=pathlib.Path, required=True, metavar="FOLDER")
    batch.add_argument(
        "--format",
        default="",
        metavar="ENDING",
        help="what every picture is written as, as in tif; each as it came without",
    )
    batch.add_argument(
        "--depth",
        choices=("uint8", "uint16", "half", "float"),
        default="",
        help="sample type, where the format has it",
    )
    batch.add_argument(
        "--quality", type=whole(1, 100), default=95, metavar="N", help="of JPEG and WebP; 95 else"
    )
    batch.add_argument(
        "--size", type=whole(1, 400), default=100, metavar="PERCENT", help="of width and height"
    )
    batch.add_argument(
        "--name",
        default="{name}",
        metavar="PATTERN",
        help="of the files: {name}, {sieve}, {date} and {frame}, the picture's number",
    )
    batch.add_argument(
        "--scheduler",
        default="",
        metavar="ADDRESS",
        help="of a Dask cluster that works in their place",
    )
    batch.add_argument(
        "--jobs",
        type=whole(1, 64),
        default=1,
        metavar="N",
        help="processes that work at the same time",
    )
    light_option(batch, None)
    batch.add_argument(
        "--preview",
        action="store_true",
        help="write the report alone, with each picture's mask, its coverage and its light",
    )
    batch.set_defaults(run=run)


def run(arguments: argparse.Namespace) -> int:
    from ..export.batch import BatchHow, Outcome, load_for_batch, pictures_in, run_batch
    from ..export.still_options import Export
    from ..media.formats import depth_for

    def tell(outcome: Outcome) -> None:
        if outcome.trouble:
            print(f"amber-sieve: {' '.join(outcome.trouble.split())}", file=sys.stderr)

    pictures = pictures_in(arguments.pictures)
    if not pictures:
        raise Trouble(
            "There are no pictures in what was named: name pictures, or folders that hold some."
        )
    ending = f".{arguments.format.removeprefix('.').lower()}" if arguments.format else ""
    if ending:
        depth_for(
            pathlib.Path(f"a{ending}"), "uint8"
        )  # says so where nothing can be written like that
    form = Export(depth=arguments.depth, quality=arguments.quality, size=arguments.size)
    how = BatchHow(
        ending, form, arguments.name, arguments.jobs, arguments.scheduler, arguments.preview
    )
    project = in_light(load_for_batch(arguments.project), arguments.light)
    outcomes = run_batch(project, pictures, arguments.out, how, progress(), tell)
    written = sum(not outcome.trouble for outcome in outcomes)
    done = "looked at, none written" if arguments.preview else "written"
    reused = sum(outcome.reused for outcome in outcomes)
    earlier = f", {reused} of them by an earlier run" if reused else ""
    print(f"{arguments.out}: {written} of {len(outcomes)} pictures {done}{earlier}; see batch.html")
    return 0 if written == len(outcomes) else 1
