"""The same jobs from a terminal. Exit 0 when done, 2 for wrong usage, 1 with one line on stderr when something is wrong."""

from __future__ import annotations

import argparse
import json
import os
import pathlib
import sys
from collections.abc import Sequence
from typing import get_args

from . import __version__
from .errors import Trouble
from .jobs.progress import Progress
from .project import storage
from .project.model import Adjust, Area, Band, Bands, Comparison, Edge, Pick, Project, Ramp, Sample, Sieve


def point(text: str) -> tuple[float, float]:
    """X,Y in full-resolution pixels."""
    x, y = text.split(",")
    return float(x), float(y)


def between(low: float, high: float):  # type: ignore[no-untyped-def]
    """A number within bounds, for argparse."""

    def number(text: str) -> float:
        value = float(text)
        if not low <= value <= high:
            raise argparse.ArgumentTypeError(f"{text} does not lie between {low:g} and {high:g}")
        return value

    return number


def frames(text: str) -> tuple[int, int]:
    """A-B, or a single frame."""
    first, _, last = text.partition("-")
    return int(first), int(last or first)


def four(text: str) -> tuple[float, ...]:
    """A,B,C,D: the corners of a band."""
    values = tuple(float(part) for part in text.split(","))
    if len(values) != 4 or list(values) != sorted(values):
        raise argparse.ArgumentTypeError(f"{text} should be four rising numbers, A,B,C,D")
    return values


def area(text: str) -> dict[str, object]:
    """MODE:KIND:NUMBERS, as in «intersect:ellipse:X,Y,W,H»."""
    try:
        mode, kind, numbers = text.split(":")
        values = [float(part) for part in numbers.split(",")]
    except ValueError:
        raise argparse.ArgumentTypeError(f"{text} should read MODE:KIND:NUMBERS, for example intersect:rect:10,10,400,300") from None
    needs = {"rect": 4, "ellipse": 4, "radial": 4, "gradient": 4}.get(kind)
    if mode not in ("add", "subtract", "intersect"):
        raise argparse.ArgumentTypeError(f"{mode} is no mode: areas add, subtract or intersect")
    if needs is None and kind != "polygon":
        raise argparse.ArgumentTypeError(f"{kind} is no shape: use rect, ellipse, radial, polygon or gradient")
    if (needs and len(values) != needs) or (kind == "polygon" and (len(values) < 6 or len(values) % 2)):
        raise argparse.ArgumentTypeError(f"{kind} takes {needs or 'an even number (six or more) of'} numbers, {len(values)} were given")
    if kind == "polygon" or kind == "gradient":
        points = tuple(zip(values[::2], values[1::2], strict=True))
    else:
        x, y, width, height = values
        middle = (x + width / 2, y + height / 2)
        points = (middle, (x + width, middle[1]), (middle[0], y + height))
    return {"mode": mode, "kind": kind, "points": points}


def _pick_options(command: argparse.ArgumentParser) -> None:
    command.add_argument("picture", type=pathlib.Path)
    command.add_argument("-o", "--out", type=pathlib.Path, required=True)
    command.add_argument("--keep", type=point, action="append", default=[], metavar="X,Y", help="a place whose colour the mask must hold")
    command.add_argument("--drop", type=point, action="append", default=[], metavar="X,Y", help="a place whose colour it must leave out")
    command.add_argument("--size", type=int, default=5, choices=range(1, 102), metavar="N", help="side of the sampled square, pixels")
    command.add_argument("--compare", choices=get_args(Comparison), default="surface")
    command.add_argument("--tolerance", type=between(0, 1000), help="by default the one at which the mask holds still")
    command.add_argument("--falloff", type=between(0, 1000), default=Sample.model_fields["falloff"].default)
    command.add_argument("--shading", type=between(0, 100), default=Pick().shading, help="per cent")
    command.add_argument("--gloss", type=between(0, 100), default=Pick().gloss, help="per cent")
    command.add_argument(
        "--connected",
        type=between(0, 200),
        nargs="?",
        const=0.0,
        metavar="BRIDGE",
        help="only what hangs together; widest gap crossed, pixels",
    )
    for name, words in (("hue", "degrees"), ("sat", "per cent"), ("lum", "L*")):
        flag = f"--{name}" if command.prog.split()[-1] == "mask" else f"--{name}-band"
        command.add_argument(
            flag, type=four, dest=f"band_{name}", metavar="A,B,C,D", help=f"a band: fade in from, full from, full to, fade out to ({words})"
        )
    command.add_argument("--ramp", action="store_true", help="the mask is the luminance itself")
    command.add_argument("--invert", action="store_true")
    bounds = {
        "black": (0, 100),
        "white": (0, 100),
        "gamma": (0.1, 10),
        "specks": (0, 1e6),
        "holes": (0, 1e6),
        "grow": (0, 200),
        "shrink": (0, 200),
        "feather": (0, 200),
        "smooth": (0, 50),
        "follow": (0, 100),
        "fine": (0, 100),
        "clean": (0, 8),
    }
    for name, (low, high) in bounds.items():
        command.add_argument(f"--{name}", type=between(low, high), metavar="N", help="see the page Edge")
    command.add_argument("--hard", action="store_true", help="no partial pixel")
    command.add_argument(
        "--area",
        type=area,
        action="append",
        default=[],
        metavar="MODE:KIND:NUMBERS",
        help="rect, ellipse, radial: X,Y,W,H; gradient: X0,Y0,X1,Y1; polygon: X,Y,X,Y,…",
    )
    command.add_argument("--frame", type=int, default=0, help="of a clip, from 0")
    command.add_argument("--save", type=pathlib.Path, metavar="PROJECT", help="also write the project")


def parser() -> argparse.ArgumentParser:
    """The command line."""
    top = argparse.ArgumentParser(prog="amber-sieve", description="Masks from sampled colours, and adjustments only inside them.")
    top.add_argument("--version", action="version", version=__version__)
    commands = top.add_subparsers(dest="command", required=True)
    mask = commands.add_parser("mask", help="write a mask as a grey picture")
    _pick_options(mask)
    recolour = commands.add_parser("recolour", help="recolour inside a mask")
    _pick_options(recolour)
    recolour.add_argument("--hue", type=between(-180, 180), default=0.0, metavar="DEG")
    recolour.add_argument("--saturation", type=between(-100, 100), default=0.0, metavar="PERCENT")
    recolour.add_argument("--lightness", type=between(-100, 100), default=0.0, metavar="PERCENT")
    render = commands.add_parser("render", help="render a project")
    render.add_argument("project", type=pathlib.Path)
    render.add_argument("-o", "--out", type=pathlib.Path, required=True)
    render.add_argument("--input", type=pathlib.Path, metavar="PICTURE_OR_CLIP", help="instead of the project's own")
    render.add_argument("--frames", type=frames, metavar="A-B", help="of a clip, from 0, both included")
    render.add_argument("--codec", choices=["H.264", "ProRes 422 HQ"], default="")
    info = commands.add_parser("info", help="what a file is")
    info.add_argument("file", type=pathlib.Path)
    commands.add_parser("schema", help="print the JSON Schema of project files")
    opened = commands.add_parser("open", help="open the window")
    opened.add_argument("file", type=pathlib.Path, nargs="?")
    return top


def _progress() -> Progress:
    """Progress on one line of the terminal; none when stderr is not one."""

    def tell(share: float, left: float | None) -> None:
        words = f"{100 * share:3.0f} %" + (f", {left:.0f} s left" if left is not None else "")
        sys.stderr.write(f"\r{words:24}" if share < 1 else f"\r{'':24}\r")
        sys.stderr.flush()

    return Progress(tell if sys.stderr.isatty() else None)


def _edge_from(arguments: argparse.Namespace) -> Edge:
    """The edge that the options describe."""
    given = {
        name: getattr(arguments, name)
        for name in ("black", "white", "gamma", "specks", "holes", "feather", "smooth", "follow", "fine", "clean")
        if getattr(arguments, name) is not None
    }
    grow = (arguments.grow or 0.0) - (arguments.shrink or 0.0)
    return Edge(**given, grow=grow, hard=arguments.hard)


def _bands_from(arguments: argparse.Namespace) -> Bands:
    """The bands that the options describe."""
    names = {"hue": arguments.band_hue, "saturation": arguments.band_sat, "luminance": arguments.band_lum}
    bands = {name: Band(on=True, corners=corners) for name, corners in names.items() if corners}
    return Bands(**bands, ramp=Ramp(on=arguments.ramp))


def _project_from(arguments: argparse.Namespace, source) -> Project:  # type: ignore[no-untyped-def]
    """The project that the options of `mask` and `recolour` describe."""
    from .jobs.sampling import sample_at, with_found_tolerance

    bands = _bands_from(arguments)
    if not (arguments.keep or bands.active or arguments.area):
        raise Trouble("Nothing says what to mask: name a place with --keep X,Y, a band, or an area.")
    frame = source.frame(arguments.frame)
    settings = {"compare": arguments.compare, "falloff": arguments.falloff} | (
        {"tolerance": arguments.tolerance} if arguments.tolerance is not None else {}
    )
    samples = [
        sample_at(frame, x, y, arguments.size, arguments.frame, role=role, **settings)
        for role in ("keep", "drop")
        for x, y in getattr(arguments, role)
    ]
    connected = arguments.connected is not None
    pick = Pick(shading=arguments.shading, gloss=arguments.gloss, connected=connected, bridge=arguments.connected or 0.0)
    if arguments.tolerance is None:
        samples = [with_found_tolerance(sample, frame, pick) for sample in samples]
    adjust = Adjust()
    if arguments.command == "recolour":
        adjust = Adjust(hue=arguments.hue, saturation=arguments.saturation, lightness=arguments.lightness)
    sieve = Sieve(
        name="Sieve 1", pick=pick.but(samples=tuple(samples)), bands=bands, invert=arguments.invert, edge=_edge_from(arguments),
        areas=tuple(Area(**settings) for settings in arguments.area), adjust=adjust,
    )  # fmt: skip
    return Project(source=str(arguments.picture.absolute()), stack=(sieve,))


def _pick(arguments: argparse.Namespace) -> None:
    """`mask` and `recolour`."""
    from .jobs.still import export_mask, export_still
    from .media.opening import open_source

    source = open_source(arguments.picture)
    project = _project_from(arguments, source)
    if arguments.command == "mask":
        mean = export_mask(source, project, project.stack[0].id, arguments.out, arguments.frame, _progress())
        print(f"{arguments.out}: mask covers {100 * mean:.2f} % of {arguments.picture.name}")
    else:
        export_still(source, project, arguments.out, arguments.frame, progress=_progress())
        print(f"{arguments.out}: written")
    if arguments.save:
        storage.save(project, arguments.save)


def _render(arguments: argparse.Namespace) -> None:
    from .jobs.clip import export_clip
    from .jobs.still import export_still
    from .media.opening import open_source
    from .media.sequences import is_pattern

    project = storage.load(arguments.project)
    path = arguments.input or pathlib.Path(project.source)
    if not str(path) or str(path) == ".":
        raise Trouble(f"{arguments.project} names no picture: give one with --input.")
    source = open_source(path)
    one = arguments.frames is not None and arguments.frames[0] == arguments.frames[1]
    picture = arguments.out.suffix.lower() in (".png", ".jpg", ".jpeg", ".tif", ".tiff", ".exr") and not is_pattern(arguments.out)
    if picture and (source.about.kind == "still" or one):
        export_still(source, project, arguments.out, arguments.frames[0] if arguments.frames else 0, progress=_progress())
        print(f"{arguments.out}: written")
    elif picture:
        raise Trouble(
            f"{arguments.out} can hold one frame: name one with --frames N, or write numbered pictures (name.####{arguments.out.suffix}) or a clip."
        )
    else:
        print(
            f"{arguments.out}: {export_clip(source, project, arguments.out, arguments.frames, arguments.codec, _progress())} frames written"
        )


def _info(arguments: argparse.Namespace) -> None:
    from .media.opening import open_source

    if arguments.file.suffix.lower() == ".sieve":
        project = storage.load(arguments.file)
        print(f"project of {project.source or 'no picture'}")
        for sieve in project.stack:
            print(f"  {sieve.name}: {len(sieve.pick.samples)} samples{'' if sieve.on else ', off'}")
        return
    about = open_source(arguments.file).about
    print(f"{about.kind} of {about.size[0]} x {about.size[1]} pixels")
    if about.kind != "still":
        print(f"frames: {about.frames} at {float(about.rate):.3f} a second")
    for name, value in about.tags.items():
        print(f"{name}: {value}")


def _open(arguments: argparse.Namespace) -> int:
    from .desk.app import main as desk

    return desk([str(arguments.file)] if arguments.file else [])


def main(words: Sequence[str] | None = None) -> int:
    """Run one command; returns the exit code."""
    arguments = parser().parse_args(words)
    try:
        if arguments.command in ("mask", "recolour"):
            _pick(arguments)
        elif arguments.command == "render":
            _render(arguments)
        elif arguments.command == "info":
            _info(arguments)
        elif arguments.command == "schema":
            print(json.dumps(storage.schema(), indent=1))
        else:
            return _open(arguments)
    except Trouble as trouble:
        print(f"amber-sieve: {' '.join(str(trouble).split())}", file=sys.stderr)
        return 1
    except BrokenPipeError:
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())
        return 0
    except KeyboardInterrupt:
        print("amber-sieve: stopped", file=sys.stderr)
        return 1
    return 0


if __name__ == "__main__":
    sys.exit(main())
