"""`thumbnail`: a small PNG of a picture, a clip or the result of a project, as file managers ask
for one.
"""

from __future__ import annotations

import argparse
import pathlib
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from .options import Commands

#: Largest side that is made, pixels.
LARGEST = 1024


def add(commands: Commands) -> None:
    """Add `thumbnail` to the commands."""
    from .values import whole

    command = commands.add_parser(
        "thumbnail", help="write a small PNG of a picture, a clip or the result of a project"
    )
    command.add_argument("file", type=pathlib.Path)
    command.add_argument("-o", "--out", type=pathlib.Path, required=True)
    command.add_argument(
        "--size",
        type=whole(16, LARGEST),
        default=256,
        metavar="N",
        help=f"longest side, 16 to {LARGEST} pixels",
    )
    command.set_defaults(run=run)


def run(arguments: argparse.Namespace) -> int:
    from PIL import Image

    from ..export.frame import finished
    from ..files import written_beside
    from ..media.formats import PROJECT
    from ..media.opening import open_source
    from ..project import storage
    from ..project.model import Project
    from ..render.context import RenderContext
    from ..render.shown import shown
    from ..resolve.layers import layers_in
    from ..resolve.sources import source_of

    project = (
        storage.load(arguments.file) if arguments.file.suffix.lower() == PROJECT else Project()
    )
    source = (
        source_of(project, pathlib.Path(project.source))
        if project.source
        else open_source(arguments.file)
    )
    frame = source.frame(0)
    small = frame.reduced(max(1.0, max(frame.width, frame.height) / arguments.size))
    made = finished(source, project, 0, frame=small)
    pixels = shown(made.result.planes, made.stands, layers_in(RenderContext()))
    levels = pixels.view("uint8").reshape(*pixels.shape, 4)[
        ..., 2::-1
    ]  # stored as blue, green, red, alpha
    with written_beside(arguments.out) as partial:
        Image.fromarray(levels.copy()).save(partial, format="PNG")
    return 0
