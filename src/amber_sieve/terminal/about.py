"""`explain`, `schema` and `controls`: what projects are."""

from __future__ import annotations

import argparse
import json
import pathlib
from typing import TYPE_CHECKING

from ..errors import Trouble
from ..project import storage
from ..project.controls import table
from .options import Commands
from .values import LAST_FRAME, place_of_pixel, whole

if TYPE_CHECKING:
    from ..project.model import Project

#: Bytes that the steps of a mask may take while a pixel is explained.
EXPLAIN_MEMORY = 400_000_000


def add(commands: Commands) -> None:
    """Add what tells about projects and the program."""
    explain = commands.add_parser(
        "explain", help="say in sentences what each sieve of a project does"
    )
    explain.add_argument("project", type=pathlib.Path)
    explain.add_argument(
        "--at",
        type=place_of_pixel,
        metavar="X,Y",
        help="say why this pixel is in each sieve's mask, or why not",
    )
    explain.add_argument("--frame", type=whole(0, LAST_FRAME), default=0, help="of a clip, from 0")
    schema = commands.add_parser("schema", help="print the JSON Schema of project files")
    controls = commands.add_parser(
        "controls", help="list every number of a project: name, range, what it does"
    )
    for command, run in ((explain, _explain), (schema, _schema), (controls, _controls)):
        command.set_defaults(run=run)


def _explain(arguments: argparse.Namespace) -> int:
    from ..render.explain import explained

    project = storage.load(arguments.project)
    print(
        "\n".join(
            explained(project)
            if arguments.at is None
            else _why(project, arguments.at, arguments.frame)
        )
    )
    return 0


def _why(project: Project, at: tuple[int, int], number: int) -> list[str]:
    """Explain a pixel, for every sieve of a project."""
    from ..render.cache import Cache
    from ..render.context import RenderContext
    from ..render.why import why
    from ..resolve.layers import layers_in
    from ..resolve.resolver import Resolver
    from ..resolve.sources import source_of

    source = source_of(project, pathlib.Path(project.source))
    (width, height), frames = source.about.size, source.about.frames
    if not (at[0] < width and at[1] < height):
        raise Trouble(
            f"{project.source} is {width} x {height} pixels, from 0: {at[0]},{at[1]} lies beside "
            "it."
        )
    if number >= frames:
        raise Trouble(f"{project.source} has {frames} frames, from 0: there is no frame {number}.")
    context, frame = RenderContext(Cache(EXPLAIN_MEMORY)), source.frame(number)
    stands = Resolver(source).resolve_frame(project, frame, number, context)
    return [
        line
        for sieve in stands.stack
        for line in why(frame, stands, sieve.id, at, context, layers_in(context))
    ]


def _schema(_: argparse.Namespace) -> int:
    print(json.dumps(storage.schema(), indent=1))
    return 0


def _controls(_: argparse.Namespace) -> int:
    print(table())
    return 0
