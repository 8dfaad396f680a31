"""`render`: a project over its picture or clip."""

from __future__ import annotations

import argparse
import os
import pathlib
from typing import TYPE_CHECKING

from ..errors import Trouble
from ..files import write_text
from ..media.formats import CODECS, QUALITY, codecs_with_alpha
from ..names import GAMUTS
from ..project import storage
from .options import Commands, in_light, light_option, overwrite_option, progress, say_notes
from .values import frames, whole

if TYPE_CHECKING:
    from ..export.clip import ClipWhat
    from ..media.source import Source
    from ..project.model import Project


def add(commands: Commands) -> None:
    """Add `render` to the commands."""
    render = commands.add_parser("render", help="render a project")
    render.add_argument("project", type=pathlib.Path)
    render.add_argument("-o", "--out", type=pathlib.Path, required=True)
    render.add_argument(
        "--input", type=pathlib.Path, metavar="PICTURE_OR_CLIP", help="instead of the project's own"
    )
    render.add_argument(
        "--mask-only",
        action="store_true",
        help="the mask of the first sieve in place of the result",
    )
    render.add_argument(
        "--with-mask",
        action="store_true",
        help=(
            f"the mask as alpha ({', '.join((*codecs_with_alpha(), 'PNG', 'TIFF'))}), in OpenEXR "
            "as a channel"
        ),
    )
    clip_options(render)
    render.add_argument("--gamut", choices=GAMUTS, help="in place of the project's own")
    light_option(render, None)
    overwrite_option(render)
    render.set_defaults(run=run)


def clip_options(command: argparse.ArgumentParser) -> None:
    """Add what says how a clip is written."""
    command.add_argument(
        "--frames", type=frames, metavar="A-B", help="of a clip, from 0, both included"
    )
    command.add_argument("--codec", choices=tuple(CODECS), default="")
    command.add_argument(
        "--quality",
        type=whole(1, 100),
        help=(
            f"of {' and '.join(name for name, codec in CODECS.items() if codec.quality)}; "
            f"{QUALITY} else"
        ),
    )
    command.add_argument(
        "--resume", action="store_true", help="leave numbered pictures that are there already"
    )
    command.add_argument(
        "--jobs",
        type=whole(1, 64),
        default=1,
        metavar="N",
        help="pieces of a clip that are rendered at the same time",
    )
    command.add_argument(
        "--scheduler",
        default="",
        metavar="ADDRESS",
        help="of a Dask cluster that renders the pieces",
    )
    command.add_argument(
        "--page",
        type=pathlib.Path,
        metavar="FILE.html",
        help="a page that says who rendered which piece",
    )


def refuse_clip_options(arguments: argparse.Namespace, *more: str) -> None:
    """Refuse what says how a clip is written, and more such options, where one picture is."""
    named = {
        "codec": arguments.codec,
        "quality": arguments.quality,
        "resume": arguments.resume,
        "jobs": arguments.jobs > 1,
    }
    named |= {"scheduler": arguments.scheduler, "page": arguments.page} | {
        name: getattr(arguments, name) for name in more
    }
    given = [f"--{name.replace('_', '-')}" for name, value in named.items() if value]
    if given:
        raise Trouble(
            f"{arguments.out} is one picture: {' and '.join(given)} "
            f"{'goes' if len(given) == 1 else 'go'} with clips and numbered pictures."
        )


def write_clip(
    source: Source, project: Project, arguments: argparse.Namespace, what: ClipWhat = "result"
) -> None:
    """Write the frames that the options ask for to a clip or numbered pictures, and say how many
    they are.
    """
    from ..export.clip import ClipExport, export_clip
    from ..export.pieces import export_in_pieces
    from ..export.report_page import Worked, page, who_worked
    from ..export.targets import inputs_of, spare_inputs

    apart, worked = arguments.jobs > 1 or bool(arguments.scheduler), list[Worked]()
    if arguments.page:
        if not apart:
            raise Trouble(
                "--page says who rendered which piece: it goes with --jobs or --scheduler."
            )
        if os.path.realpath(arguments.page) == os.path.realpath(arguments.out):
            raise Trouble(f"{arguments.page} is the clip itself: choose another name for the page.")
        spare_inputs([arguments.page], inputs_of(source, project), arguments.overwrite)
    how = ClipExport(
        what,
        quality=arguments.quality or QUALITY,
        resume=arguments.resume,
        overwrite=arguments.overwrite,
    )
    given = (source, project, arguments.out, arguments.frames, arguments.codec, progress(), how)
    count = (
        export_in_pieces(*given, arguments.jobs, arguments.scheduler, worked.append)
        if apart
        else export_clip(*given)
    )
    if arguments.page:
        write_text(
            arguments.page,
            page("Amber Sieve", f"{arguments.out.name}: {count} frames", who_worked(worked)),
        )
    print(f"{arguments.out}: {count} frames written")


def run(arguments: argparse.Namespace) -> int:
    from ..export.still import export_mask, export_still
    from ..media.footage.sequences import is_pattern
    from ..media.formats import is_picture
    from ..resolve.sources import source_of

    project = in_light(storage.load(arguments.project), arguments.light)
    if arguments.gamut:
        project = project.but(gamut=arguments.gamut)
    path = arguments.input or pathlib.Path(project.source)
    if not str(path) or str(path) == ".":
        raise Trouble(f"{arguments.project} names no picture: give one with --input.")
    source = source_of(project, path)
    say_notes(source)
    one = arguments.frames is not None and arguments.frames[0] == arguments.frames[1]
    picture = is_picture(arguments.out) and not is_pattern(arguments.out)
    if picture and (source.about.frames == 1 or one):
        number = arguments.frames[0] if arguments.frames else 0
        refuse_clip_options(arguments)
        if arguments.with_mask:
            raise Trouble(
                f"{arguments.out} is one picture: --with-mask goes with clips and numbered "
                "pictures; write the mask with --mask-only."
            )
        if arguments.mask_only:
            export_mask(
                source,
                project,
                project.stack[0].id,
                arguments.out,
                number,
                progress(),
                arguments.overwrite,
            )
        else:
            export_still(
                source,
                project,
                arguments.out,
                number,
                progress=progress(),
                overwrite=arguments.overwrite,
            )
        print(f"{arguments.out}: written")
    elif picture:
        ending = arguments.out.suffix
        raise Trouble(
            f"{arguments.out} can hold one frame: name one with --frames N, or write numbered "
            f"pictures (name.####{ending}) or a clip."
        )
    else:
        what: ClipWhat = (
            "mask"
            if arguments.mask_only
            else "result and mask"
            if arguments.with_mask
            else "result"
        )
        write_clip(source, project, arguments, what)
    return 0
