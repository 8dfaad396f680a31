"""The same jobs from a terminal. Exit 0 when done, 2 for wrong usage, 1 with one line on stderr when something is wrong.

The options for numbers come from the model's fields: label, range and help stand there.
"""

from __future__ import annotations

import argparse
import json
import math
import os
import pathlib
import re
import sys
import warnings
from collections.abc import Callable, Sequence
from typing import TYPE_CHECKING, Any

from pydantic import ValidationError

from . import __version__
from .errors import Trouble
from .media.formats import QUALITY, codecs
from .names import AREA_KINDS, AREA_MODES, BLENDS, BOXED, COMPARISONS, GAMUTS, REACHES, SEEN_BANDS
from .progress import Progress
from .project import edits, storage
from .project.controls import settings, table, words_of
from .project.fields import Spec, kind_of, numbers_of, spec_of
from .project.model import Adjust, Area, Band, Bands, Cdl, Edge, Pick, Project, Ramp, Recolour, Sample, Sieve

if TYPE_CHECKING:
    from .media.source import Source

#: How the bands are called in the terminal.
BAND_FLAGS = {"hue": "hue", "saturation": "sat", "luminance": "lum"}
#: Places lie within so many pixels of the picture's corner; frames have fewer digits than would ever be counted.
FARTHEST, LAST_FRAME = 1e6, 10_000_000
#: Bytes that the steps of looking for what clicks propose may take.
CLICK_MEMORY = 200_000_000


# Words into values


def finite(text: str, low: float = -FARTHEST, high: float = FARTHEST) -> float:
    """A number that lies in a range; "nan" and "inf" do not."""
    try:
        value = float(text)
    except ValueError:
        raise argparse.ArgumentTypeError(f"{text[:60]} is not a number") from None
    if not (math.isfinite(value) and low <= value <= high):
        raise argparse.ArgumentTypeError(f"{text[:60]} does not lie between {low:g} and {high:g}")
    return value


def many(text: str) -> list[float]:
    """Numbers with commas between them."""
    return [finite(part) for part in text.split(",")]


def point(text: str) -> tuple[float, float]:
    """X,Y in full-resolution pixels."""
    values = many(text)
    if len(values) != 2:
        raise argparse.ArgumentTypeError(f"{text[:60]} should be two numbers, X,Y")
    return values[0], values[1]


def place(text: str) -> tuple[float, float, str | None]:
    """X,Y of a click, and its reach when one is named: X,Y,here or X,Y,everywhere."""
    where, _, reach = text.rpartition(",")
    if reach not in REACHES:
        return *point(text), None
    return *point(where), reach


class ClickInOrder(argparse.Action):
    """Keeps and drops together in the order in which they are typed: each proposes for itself what it finds on those before it."""

    def __call__(self, _: object, held: argparse.Namespace, value: Any, flag: str | None = None) -> None:
        held.clicks = [*held.clicks, ((flag or "").lstrip("-"), *value)]


def number_of(spec: Spec, auto: bool = False) -> Callable[[str], float | str]:
    """A number in the range of a field of the model, for argparse; "auto" where it can be found on the picture."""

    def number(text: str) -> float | str:
        return text if (auto or spec.auto) and text == "auto" else finite(text, spec.low, spec.high)

    return number


def whole(low: int, high: int) -> Callable[[str], int]:
    """A whole number in a range, for argparse."""

    def number(text: str) -> int:
        value = finite(text, low, high)
        if value != int(value):
            raise argparse.ArgumentTypeError(f"{text[:60]} is not a whole number")
        return int(value)

    return number


def frames(text: str) -> tuple[int, int]:
    """A-B, or a single frame."""
    first, _, last = text.partition("-")
    count = whole(0, LAST_FRAME)
    return count(first), count(last or first)


def four(text: str) -> tuple[float, ...]:
    """A,B,C,D: the corners of a band."""
    values = [finite(part, -1e4, 1e4) for part in text.split(",")]
    if len(values) != 4 or values != sorted(values):
        raise argparse.ArgumentTypeError(f"{text[:60]} should be four rising numbers, A,B,C,D")
    return tuple(values)


def area(text: str) -> dict[str, object]:
    """MODE:KIND:NUMBERS, as in «intersect:ellipse:X,Y,W,H»."""
    parts = text.split(":")
    if len(parts) != 3:
        raise argparse.ArgumentTypeError(f"{text[:60]} should read MODE:KIND:NUMBERS, for example intersect:rect:10,10,400,300")
    mode, kind, values = parts[0], parts[1], many(parts[2])
    if mode not in AREA_MODES:
        raise argparse.ArgumentTypeError(f"{mode[:60]} is no mode: areas add, subtract or intersect")
    if kind not in AREA_KINDS or kind == "brush":
        raise argparse.ArgumentTypeError(f"{kind[:60]} is no shape: use rect, ellipse, radial, polygon or gradient")
    needs = 4 if kind in BOXED or kind == "gradient" else None
    if (needs and len(values) != needs) or (not needs and (len(values) < 6 or len(values) % 2)):
        raise argparse.ArgumentTypeError(f"{kind} takes {needs or 'an even number (six or more) of'} numbers, {len(values)} were given")
    points = tuple(zip(values[::2], values[1::2], strict=True))
    if kind in BOXED:
        x, y, width, height = values
        middle = (x + width / 2, y + height / 2)
        points = (middle, (x + width, middle[1]), (middle[0], y + height))
    return {"mode": mode, "kind": kind, "points": points}


def colour(text: str) -> tuple[float, float, float]:
    """#RRGGBB, or levels R,G,B, as linear light."""
    import numpy as np

    from .core.colour.transfer import decode

    parts = [str(int(text[k : k + 2], 16)) for k in (1, 3, 5)] if re.fullmatch("#[0-9a-fA-F]{6}", text) else text.split(",")
    levels = [finite(part, -1e4, 1e4) for part in parts]
    if len(levels) != 3:
        raise argparse.ArgumentTypeError(f"{text[:60]} is no colour: write #RRGGBB, or three levels R,G,B")
    red, green, blue = (float(v) for v in decode(np.array(levels) / 255))
    return red, green, blue


def points(text: str) -> tuple[tuple[float, float], ...]:
    """X:Y,X:Y,…: the points of a curve."""
    pairs = [part.split(":") for part in text.split(",")] if text else []
    if any(len(pair) != 2 for pair in pairs):
        raise argparse.ArgumentTypeError(f"{text[:60]} should be points X:Y with commas between them")
    return tuple((finite(x), finite(y)) for x, y in pairs)


def _value(text: str, name: str) -> object:
    """The value of a setting of an adjustment, by what it is."""
    _, kind, field = settings()[name]
    form = kind_of(field)
    if not form:
        spec = spec_of(kind, name)
        return finite(text, spec.low, spec.high)
    if form in ("curve", "hues"):
        return points(text)
    if form == "colour":
        return colour(text)
    if form == "path":
        return str(pathlib.Path(text).absolute())
    words = words_of(field) if form == "words" else ("on", "off")
    if text not in words:
        raise argparse.ArgumentTypeError(f"{text[:60]} is none of {', '.join(words)}")
    return text == "on" if form == "switch" else text


def setting(text: str) -> tuple[str, object]:
    """NAME=VALUE of an adjustment, as `controls` lists them; returns the way to its field, and the value."""
    name, _, value = text.partition("=")
    if name not in settings():
        raise argparse.ArgumentTypeError(f"{name[:60]} is no adjustment: `amber-sieve controls` lists them")
    path, kind, _ = settings()[name]
    found = _value(value, name)
    try:
        kind.model_validate({name: found})
    except ValidationError as error:
        raise argparse.ArgumentTypeError(f"{value[:60]} does not fit ({storage.first_complaint(error)})") from None
    return path, found


# The command line


def _overwrite_option(command: argparse.ArgumentParser) -> None:
    command.add_argument("--overwrite", action="store_true", help="the output may be the file that is read")


def _number_option(command: argparse.ArgumentParser, spec: Spec, default: float | str | None, auto: bool = False) -> None:
    word = ", or auto" if auto or spec.auto else ""
    limits = f"{spec.low:g} to {spec.high:g}{' ' + spec.unit.replace('%', '%%') if spec.unit else ''}{word}"
    words = f"{spec.help.replace('%', '%%')} ({limits})"
    command.add_argument(f"--{spec.name.replace('_', '-')}", type=number_of(spec, auto), default=default, metavar="N", help=words)


def _pick_options(command: argparse.ArgumentParser) -> None:
    command.add_argument("picture", type=pathlib.Path)
    command.add_argument("-o", "--out", type=pathlib.Path, required=True)
    for role, words in (("keep", "a place whose colour the mask must hold"), ("drop", "a place whose colour it must leave out")):
        more = "; ,here for only the piece at that place, ,everywhere for all of the picture, found when neither is said"
        command.add_argument(
            f"--{role}", type=place, action=ClickInOrder, dest="clicks", default=[], metavar="X,Y[,here]", help=words + more
        )
    command.add_argument("--size", type=whole(1, 101), default=5, metavar="N", help="side of the sampled square, pixels")
    command.add_argument("--compare", choices=COMPARISONS, default="surface")
    _number_option(command, spec_of(Sample, "tolerance"), "auto", auto=True)
    _number_option(command, spec_of(Sample, "falloff"), spec_of(Sample, "falloff").start)
    for name in ("shading", "gloss", "hue_weight", "saturation_weight"):
        _number_option(command, spec_of(Pick, name), spec_of(Pick, name).start)
    bridge = spec_of(Pick, "bridge")
    command.add_argument(
        "--connected",
        type=number_of(bridge),
        nargs="?",
        const=0.0,
        metavar="BRIDGE",
        help=f"only what hangs together. {bridge.help}, pixels",
    )
    recolours = command.prog.split()[-1] == "recolour"
    for name in SEEN_BANDS:
        flag = BAND_FLAGS[name] + ("-band" if recolours else "")
        words = "a band: fade in from, full from, full to, fade out to"
        command.add_argument(f"--{flag}", type=four, dest=f"band_{name}", metavar="A,B,C,D", help=words)
    command.add_argument("--ramp", action="store_true", help="the mask is the luminance itself")
    command.add_argument("--invert", action="store_true")
    for spec in numbers_of(Edge):
        _number_option(command, spec, None)
    command.add_argument("--shrink", type=number_of(spec_of(Edge, "grow")), metavar="N", help="the opposite of --grow")
    command.add_argument("--hard", action="store_true", help="no partial pixel")
    command.add_argument(
        "--area", type=area, action="append", default=[], metavar="MODE:KIND:NUMBERS",
        help="rect, ellipse, radial: X,Y,W,H; gradient: X0,Y0,X1,Y1; polygon: X,Y,X,Y,…",
    )  # fmt: skip
    command.add_argument("--frame", type=whole(0, LAST_FRAME), default=0, help="of a clip, from 0")
    command.add_argument("--save", type=pathlib.Path, metavar="PROJECT", help="also write the project")
    _overwrite_option(command)


def parser() -> argparse.ArgumentParser:
    """The command line."""
    top = argparse.ArgumentParser(prog="amber-sieve", description="Masks from sampled colours, and adjustments only inside them.")
    top.add_argument("--version", action="version", version=__version__)
    commands = top.add_subparsers(dest="command", required=True)
    mask = commands.add_parser("mask", help="write a mask as a grey picture")
    _pick_options(mask)
    recolour = commands.add_parser("recolour", help="recolour inside a mask")
    _pick_options(recolour)
    for spec in numbers_of(Recolour):
        _number_option(recolour, spec, spec.start)
    for name in ("strength", "outside"):
        _number_option(recolour, spec_of(Sieve, name), spec_of(Sieve, name).start)
    recolour.add_argument("--blend", choices=BLENDS, default="normal", help="how what is done is laid over the picture")
    recolour.add_argument("--gamut", choices=GAMUTS, default=GAMUTS[0], help="how colours outside the output gamut are brought back")
    recolour.add_argument(
        "--cdl", metavar="FILE[#ID]", help="a CDL file (.cdl, .ccc, .cc), and which of its corrections when it holds many"
    )
    recolour.add_argument(
        "--set", type=setting, action="append", default=[], metavar="NAME=VALUE", help="any adjustment that `controls` lists"
    )
    render = commands.add_parser("render", help="render a project")
    render.add_argument("project", type=pathlib.Path)
    render.add_argument("-o", "--out", type=pathlib.Path, required=True)
    render.add_argument("--input", type=pathlib.Path, metavar="PICTURE_OR_CLIP", help="instead of the project's own")
    render.add_argument("--frames", type=frames, metavar="A-B", help="of a clip, from 0, both included")
    render.add_argument("--codec", choices=codecs(), default="")
    render.add_argument("--quality", type=whole(1, 100), default=QUALITY, help="of H.264 and HEVC")
    render.add_argument("--mask-only", action="store_true", help="the mask of the first sieve in place of the result")
    render.add_argument("--with-mask", action="store_true", help="the mask as alpha (ProRes 4444, PNG, TIFF), in OpenEXR as a channel")
    render.add_argument("--resume", action="store_true", help="leave numbered pictures that are there already")
    render.add_argument("--jobs", type=whole(1, 64), default=1, metavar="N", help="pieces of a clip that are rendered at the same time")
    render.add_argument("--scheduler", default="", metavar="ADDRESS", help="of a Dask cluster that renders the pieces")
    render.add_argument("--gamut", choices=GAMUTS, help="in place of the project's own")
    _overwrite_option(render)
    cdl = commands.add_parser("cdl", help="write the CDL of a sieve as .cdl, .ccc or .cc")
    cdl.add_argument("project", type=pathlib.Path)
    cdl.add_argument("-o", "--out", type=pathlib.Path, required=True)
    cdl.add_argument("--sieve", metavar="NAME", help="by default the first one")
    lookup = commands.add_parser("lookup", help="write sieves that depend on colour alone as a 3D lookup table")
    lookup.add_argument("project", type=pathlib.Path)
    lookup.add_argument("-o", "--out", type=pathlib.Path, required=True, help="FILE.cube or FILE.clf, over sRGB-coded values")
    lookup.add_argument("--size", type=int, choices=(17, 33, 65), default=33)
    batch = commands.add_parser("batch", help="render many pictures by one project; started again, it goes on where it stopped")
    batch.add_argument("project", type=pathlib.Path)
    batch.add_argument("pictures", type=pathlib.Path, nargs="+", metavar="PICTURE_OR_FOLDER")
    batch.add_argument("-o", "--out", type=pathlib.Path, required=True, metavar="FOLDER")
    batch.add_argument("--scheduler", default="", metavar="ADDRESS", help="of a Dask cluster that works in their place")
    batch.add_argument("--jobs", type=whole(1, 64), default=1, metavar="N", help="processes that work at the same time")
    explain = commands.add_parser("explain", help="say in sentences what each sieve of a project does")
    explain.add_argument("project", type=pathlib.Path)
    info = commands.add_parser("info", help="what a file is")
    info.add_argument("file", type=pathlib.Path)
    commands.add_parser("schema", help="print the JSON Schema of project files")
    commands.add_parser("controls", help="list every number of a project: name, range, what it does")
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


def _say_notes(source: Source) -> None:
    """What was found odd when a file was read, one line each."""
    for note in source.about.notes:
        print(f"amber-sieve: {note}", file=sys.stderr)


# Commands


def _edge_from(arguments: argparse.Namespace) -> Edge:
    """The edge that the options describe."""
    given = {spec.name: getattr(arguments, spec.name) for spec in numbers_of(Edge) if getattr(arguments, spec.name) is not None}
    if arguments.shrink is not None:
        given["grow"] = given.get("grow", 0.0) - arguments.shrink
    return Edge(**given, hard=arguments.hard)


def _bands_from(arguments: argparse.Namespace) -> Bands:
    """The bands that the options describe."""
    corners = {name: getattr(arguments, f"band_{name}") for name in SEEN_BANDS}
    bands = {name: Band(on=True, corners=given) for name, given in corners.items() if given}
    return Bands(**bands, ramp=Ramp(on=arguments.ramp))


def _project_from(arguments: argparse.Namespace, source: Source) -> Project:
    """The project that the options of `mask` and `recolour` describe."""
    from .live.clicking import clicked, looked_at
    from .live.sampling import sample_at
    from .render.cache import Cache
    from .resolve.resolver import Resolver

    connected = arguments.connected is not None
    adjust = Adjust()
    sieve = Sieve(
        name="Sieve 1",
        pick=Pick(
            shading=arguments.shading, gloss=arguments.gloss, hue_weight=arguments.hue_weight, saturation_weight=arguments.saturation_weight,
            connected=connected, bridge=arguments.connected or 0.0,
        ),
        bands=_bands_from(arguments), invert=arguments.invert, edge=_edge_from(arguments),
        areas=tuple(Area(**settings) for settings in arguments.area), adjust=adjust,
    )  # fmt: skip
    if not (arguments.clicks or sieve.bands.active or sieve.areas):
        raise Trouble("Nothing says what to mask: name a place with --keep X,Y, a band, or an area.")
    frame = source.frame(arguments.frame)
    resolver, cache, seen = Resolver(source), Cache(CLICK_MEMORY), frame.reduced(looked_at(frame.width, frame.height))
    found = arguments.tolerance == "auto" and arguments.compare in ("surface", "colour")
    plain = spec_of(Sample, "tolerance").start if arguments.tolerance == "auto" else arguments.tolerance
    for role, x, y, reach in arguments.clicks:
        settings = {"role": role, "compare": arguments.compare, "falloff": arguments.falloff, "tolerance": plain}
        taken = sample_at(frame, x, y, arguments.size, arguments.frame, **settings)
        stands = resolver.project_on(Project(stack=(sieve,)), frame, arguments.frame, cache).stack[0]
        sieve = edits.with_sample(sieve, clicked(stands, taken, seen, cache, reach=reach, tolerance=None if found else plain).sample)
    if arguments.command == "recolour":
        for spec in numbers_of(Recolour):
            sieve = edits.with_field(sieve, f"adjust.recolour.{spec.name}", getattr(arguments, spec.name))
        if arguments.cdl:
            sieve = sieve.but(adjust=sieve.adjust.but(cdl=_cdl_from(arguments.cdl)))
        for path, value in arguments.set:
            sieve = edits.with_field(sieve, path, value)
        sieve = sieve.but(strength=arguments.strength, outside=arguments.outside, blend=arguments.blend)
    gamut = arguments.gamut if arguments.command == "recolour" else GAMUTS[0]
    return Project(source=str(arguments.picture.absolute()), stack=(sieve,), gamut=gamut)


def _cdl_from(text: str) -> Cdl:
    """The correction of a CDL file, FILE or FILE#ID."""
    from .media import cdl_files

    name, _, wanted = text.partition("#")
    found = cdl_files.read(pathlib.Path(name))
    chosen = [one for one in found if one.name == wanted] if wanted else found
    if not chosen:
        raise Trouble(f"{name} holds no correction {wanted}: it holds {', '.join(one.name or 'one without an id' for one in found)[:200]}.")
    try:
        return Cdl.model_validate(chosen[0].numbers)
    except ValidationError as error:
        raise Trouble(f"{name} holds a correction beyond what can be used ({storage.first_complaint(error)}): choose another.") from None


def _cdl(arguments: argparse.Namespace) -> None:
    from .media import cdl_files

    project = storage.load(arguments.project)
    named = [sieve for sieve in project.stack if arguments.sieve in (None, sieve.name)]
    if not named:
        raise Trouble(
            f"{arguments.project} has no sieve {arguments.sieve}: it has {', '.join(sieve.name for sieve in project.stack)[:200]}."
        )
    cdl_files.write(cdl_files.correction_of(named[0].name, named[0].adjust.cdl.given), arguments.out)
    print(f"{arguments.out}: written")


def _pick(arguments: argparse.Namespace) -> None:
    """`mask` and `recolour`."""
    from .export.still import export_mask, export_still
    from .media.opening import open_source

    if arguments.save:
        storage.checked_name(arguments.save)
    source = open_source(arguments.picture)
    _say_notes(source)
    project = _project_from(arguments, source)
    over = arguments.overwrite
    if arguments.command == "mask":
        mean = export_mask(source, project, project.stack[0].id, arguments.out, arguments.frame, _progress(), over)
        print(f"{arguments.out}: mask covers {100 * mean:.2f} % of {arguments.picture.name}")
    else:
        export_still(source, project, arguments.out, arguments.frame, progress=_progress(), overwrite=over)
        print(f"{arguments.out}: written")
    if arguments.save:
        storage.save(project, arguments.save)


def _render(arguments: argparse.Namespace) -> None:
    from .export.clip import ClipExport, ClipWhat, export_clip
    from .export.pieces import export_in_pieces
    from .export.still import export_mask, export_still
    from .media.formats import is_picture
    from .media.sequences import is_pattern
    from .resolve.sources import source_of

    project = storage.load(arguments.project)
    if arguments.gamut:
        project = project.but(gamut=arguments.gamut)
    path = arguments.input or pathlib.Path(project.source)
    if not str(path) or str(path) == ".":
        raise Trouble(f"{arguments.project} names no picture: give one with --input.")
    source = source_of(project, path)
    _say_notes(source)
    one = arguments.frames is not None and arguments.frames[0] == arguments.frames[1]
    picture = is_picture(arguments.out) and not is_pattern(arguments.out)
    if picture and (source.about.frames == 1 or one):
        number = arguments.frames[0] if arguments.frames else 0
        if arguments.with_mask:
            raise Trouble(
                f"{arguments.out} is one picture: --with-mask goes with clips and numbered pictures; write the mask with --mask-only."
            )
        if arguments.mask_only:
            export_mask(source, project, project.stack[0].id, arguments.out, number, _progress(), arguments.overwrite)
        else:
            export_still(source, project, arguments.out, number, progress=_progress(), overwrite=arguments.overwrite)
        print(f"{arguments.out}: written")
    elif picture:
        ending = arguments.out.suffix
        raise Trouble(
            f"{arguments.out} can hold one frame: name one with --frames N, or write numbered pictures (name.####{ending}) or a clip."
        )
    else:
        what: ClipWhat = "mask" if arguments.mask_only else "result and mask" if arguments.with_mask else "result"
        how = ClipExport(what, quality=arguments.quality, resume=arguments.resume, overwrite=arguments.overwrite)
        given = (source, project, arguments.out, arguments.frames, arguments.codec, _progress(), how)
        apart = arguments.jobs > 1 or arguments.scheduler
        count = export_in_pieces(*given, arguments.jobs, arguments.scheduler) if apart else export_clip(*given)
        print(f"{arguments.out}: {count} frames written")


def _lookup(arguments: argparse.Namespace) -> None:
    from .export.lookup import write_lookup
    from .resolve.sources import source_of

    project = storage.load(arguments.project)
    if not project.source:
        raise Trouble(f"{arguments.project} names no picture, which is needed to compare the table on: open it and save it again.")
    source = source_of(project)
    written = write_lookup(project, source.frame(0), arguments.out, arguments.size, _progress())
    for line in written.left_out:
        print(f"left out of the table: {line}")
    print(f"{arguments.out}: written; ΔE2000 from the render with colour alone: mean {written.mean:.2f}, largest {written.largest:.1f}")


def _batch(arguments: argparse.Namespace) -> int:
    from .export.batch import Outcome, load_for_batch, pictures_in, run_batch

    def tell(outcome: Outcome) -> None:
        if outcome.trouble:
            print(f"amber-sieve: {' '.join(outcome.trouble.split())}", file=sys.stderr)

    pictures = pictures_in(arguments.pictures)
    if not pictures:
        raise Trouble("There are no pictures in what was named: name pictures, or folders that hold some.")
    outcomes = run_batch(load_for_batch(arguments.project), pictures, arguments.out, arguments.jobs, _progress(), tell, arguments.scheduler)
    written = sum(not outcome.trouble for outcome in outcomes)
    print(f"{arguments.out}: {written} of {len(outcomes)} pictures written; see batch.html")
    return 0 if written == len(outcomes) else 1


def _info(arguments: argparse.Namespace) -> None:
    from .media.formats import PROJECT
    from .media.opening import about_of

    if arguments.file.suffix.lower() == PROJECT:
        project = storage.load(arguments.file)
        print(f"project of {project.source or 'no picture'}")
        for sieve in project.stack:
            print(f"  {sieve.name}: {len(sieve.pick.samples)} samples{'' if sieve.on else ', off'}")
        return
    about = about_of(arguments.file)
    for note in about.notes:
        print(f"amber-sieve: {note}", file=sys.stderr)
    print(f"{about.kind} of {about.size[0]} x {about.size[1]} pixels")
    if about.kind != "still":
        print(f"frames: {about.frames} at {float(about.rate):.3f} a second")
    for name, value in about.tags.items():
        print(f"{name}: {value}")


def _open(arguments: argparse.Namespace) -> int:
    from .desk.app import main as desk

    return desk([str(arguments.file)] if arguments.file else [])


def _run(arguments: argparse.Namespace) -> int:
    if arguments.command in ("mask", "recolour"):
        _pick(arguments)
    elif arguments.command == "render":
        _render(arguments)
    elif arguments.command == "batch":
        return _batch(arguments)
    elif arguments.command == "explain":
        from .project.explain import explained

        print("\n".join(explained(storage.load(arguments.project))))
    elif arguments.command == "lookup":
        _lookup(arguments)
    elif arguments.command == "cdl":
        _cdl(arguments)
    elif arguments.command == "info":
        _info(arguments)
    elif arguments.command == "schema":
        print(json.dumps(storage.schema(), indent=1))
    elif arguments.command == "controls":
        print(table())
    else:
        return _open(arguments)
    return 0


def _complain(words: str) -> int:
    print(f"amber-sieve: {' '.join(words.split())}", file=sys.stderr)
    return 1


def main(words: Sequence[str] | None = None) -> int:
    """Run one command; returns the exit code."""
    for stream in (sys.stdout, sys.stderr):
        if hasattr(stream, "reconfigure"):
            stream.reconfigure(errors="backslashreplace")  # names need not be text
    if not sys.warnoptions:
        warnings.simplefilter("ignore")
    arguments = parser().parse_args(words)
    try:
        if arguments.command not in ("info", "schema", "controls", "open"):
            from .files import sweep_parts

            sweep_parts()
        return _run(arguments)
    except Trouble as trouble:
        return _complain(str(trouble))
    except BrokenPipeError:
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())
        return 0
    except KeyboardInterrupt:
        return _complain("stopped")
    except MemoryError:
        return _complain("There is not enough memory for this: close other programs or work on a smaller picture.")
    except Exception as error:  # the last resort: a mistake of ours, told in one line
        return _complain(f"something went wrong inside the program ({type(error).__name__}: {error}). Please report it with this line.")


if __name__ == "__main__":
    sys.exit(main())
