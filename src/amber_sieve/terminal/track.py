"""`track`: an area of a project follows what it lies on, as keys."""

from __future__ import annotations

import argparse
import pathlib

from ..errors import Trouble
from ..names import MOVES
from ..project import storage
from ..project.model import Project, Sieve
from .options import Commands, overwrite_option, progress, say_notes
from .values import LAST_FRAME, whole

#: The ways that can be asked for, and the steps from frame to frame that each takes.
DIRECTIONS = {"both": (1, -1), "forwards": (1,), "backwards": (-1,)}


def add(commands: Commands) -> None:
    """Add `track` to the commands."""
    command = commands.add_parser("track", help="track an area of a project over its clip")
    command.add_argument("project", type=pathlib.Path)
    command.add_argument(
        "-o",
        "--out",
        type=pathlib.Path,
        required=True,
        metavar="PROJECT",
        help="the project with the keys",
    )
    command.add_argument(
        "--sieve",
        default="",
        metavar="NAME",
        help="whose area it is; the first sieve when it is not said",
    )
    command.add_argument(
        "--area", type=whole(1, 1000), default=1, metavar="N", help="which of its areas, from 1"
    )
    command.add_argument(
        "--from",
        dest="start",
        type=whole(0, LAST_FRAME),
        required=True,
        metavar="FRAME",
        help="where the area lies right",
    )
    command.add_argument(
        "--move",
        choices=MOVES,
        default="position, size and rotation",
        help="what the motion may be made of",
    )
    command.add_argument("--way", choices=tuple(DIRECTIONS), default="both")
    overwrite_option(command)
    command.set_defaults(run=run)


def _sieve_of(project: Project, name: str) -> Sieve:
    """The sieve of some name, or the first; raises `Trouble` where there is none."""
    found = [sieve for sieve in project.stack if not name or sieve.name == name]
    if not found:
        raise Trouble(
            f"The project has no sieve {name}: it has "
            f"{', '.join(sieve.name for sieve in project.stack)[:200]}."
        )
    return found[0]


def run(arguments: argparse.Namespace) -> int:
    """Track, write the project, and say how far it came; returns the exit code."""
    from ..export.targets import spare_inputs
    from ..live.tracking import track, with_tracked
    from ..project.tracks import at_frame
    from ..resolve.sources import source_of

    storage.checked_name(arguments.out)
    project = storage.load(arguments.project)
    sieve, number = _sieve_of(project, arguments.sieve), arguments.start
    areas = at_frame(sieve, number).areas
    if arguments.area > len(areas):
        there = (
            f"it has {len(areas)}, from 1"
            if areas
            else "draw one first, as with mask --area and --save"
        )
        raise Trouble(f"{sieve.name} has no area {arguments.area}: {there}.")
    spare_inputs([arguments.out], [arguments.project], arguments.overwrite)
    source = source_of(project, pathlib.Path(project.source))
    say_notes(source)
    if not number < source.about.frames or source.about.frames == 1:
        raise Trouble(
            f"{project.source} has {source.about.frames} frames, from 0: there is no frame "
            f"{number} to track from."
        )
    said = []
    for direction in DIRECTIONS[arguments.way]:
        found = track(
            source, areas[arguments.area - 1], number, direction, arguments.move, progress(), sieve
        )
        sieve = with_tracked(sieve, found)
        said += [f"lost at frame {found.lost}"] if found.lost is not None else []
    source.close()
    storage.save(project.with_sieve(sieve), arguments.out)
    keys = next(one for one in sieve.tracks if one.path == found.path).keys
    print(
        f"{arguments.out}: frames {keys[0].frame} to {keys[-1].frame} tracked"
        + "".join(f", {words}" for words in said)
    )
    return 0
