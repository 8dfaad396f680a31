"""`mask` and `recolour`: a sieve from clicks, bands and areas named in the terminal."""

from __future__ import annotations

import argparse
import pathlib
from typing import TYPE_CHECKING

from pydantic import ValidationError

from ..errors import Trouble
from ..names import BLENDS, COMPARISONS, GAMUTS, SEEN_BANDS
from ..project import edits, storage
from ..project.fields import numbers_of, spec_of
from ..project.model import (
    Area,
    Band,
    Bands,
    Cdl,
    Edge,
    Pick,
    Project,
    Ramp,
    Recolour,
    Sample,
    Sieve,
)
from .options import Commands, light_option, number_option, overwrite_option, progress, say_notes
from .render import clip_options, refuse_clip_options, write_clip
from .values import LAST_FRAME, ClickInOrder, area, four, number_of, place, setting, whole

if TYPE_CHECKING:
    from ..media.source import Source

#: How the bands are called in the terminal.
BAND_FLAGS = {"hue": "hue", "saturation": "sat", "luminance": "lum"}


def add(commands: Commands) -> None:
    """Add `mask` and `recolour` to the commands."""
    mask = commands.add_parser("mask", help="write a mask as a grey picture")
    _options(mask)
    recolour = commands.add_parser("recolour", help="recolour inside a mask")
    _options(recolour)
    for spec in numbers_of(Recolour):
        number_option(recolour, spec, spec.start)
    for name in ("strength", "outside"):
        number_option(recolour, spec_of(Sieve, name), spec_of(Sieve, name).start)
    recolour.add_argument(
        "--blend",
        choices=BLENDS,
        default="normal",
        help="how what is done is laid over the picture",
    )
    recolour.add_argument(
        "--gamut",
        choices=GAMUTS,
        default=GAMUTS[0],
        help="how colours outside the output gamut are brought back",
    )
    recolour.add_argument(
        "--cdl",
        metavar="FILE[#ID]",
        help="a CDL file (.cdl, .ccc, .cc), and which of its corrections when it holds many",
    )
    recolour.add_argument(
        "--set",
        type=setting,
        action="append",
        default=[],
        metavar="NAME=VALUE",
        help="any adjustment that `controls` lists",
    )
    recolour.add_argument(
        "--dyed",
        action="store_true",
        help=(Recolour.model_fields["dyed"].description or "").lower(),
    )
    clip_options(recolour)
    for command in (mask, recolour):
        command.set_defaults(run=run)


def _options(command: argparse.ArgumentParser) -> None:
    command.add_argument("picture", type=pathlib.Path)
    command.add_argument("-o", "--out", type=pathlib.Path, required=True)
    for role, words in (
        ("keep", "a place whose colour the mask must hold"),
        ("drop", "a place whose colour it must leave out"),
    ):
        more = (
            "; ,here for only the piece at that place, ,everywhere for all of the picture, found "
            "when neither is said"
        )
        command.add_argument(
            f"--{role}",
            type=place,
            action=ClickInOrder,
            dest="clicks",
            default=[],
            metavar="X,Y[,here]",
            help=words + more,
        )
    command.add_argument(
        "--size",
        type=whole(1, 101),
        default=5,
        metavar="N",
        help="side of the sampled square, pixels",
    )
    command.add_argument("--compare", choices=COMPARISONS, default="surface")
    number_option(command, spec_of(Sample, "tolerance"), "auto", auto=True)
    number_option(command, spec_of(Sample, "falloff"), spec_of(Sample, "falloff").start)
    for name in ("shading", "gloss", "hue_weight", "saturation_weight"):
        number_option(command, spec_of(Pick, name), spec_of(Pick, name).start)
    light_option(command, "auto")
    command.add_argument(
        "--flat",
        choices=("auto", "off"),
        default="auto",
        help="whether the log curve of a flat picture is undone before samples are compared",
    )
    bridge = spec_of(Pick, "bridge")
    command.add_argument(
        "--connected",
        type=number_of(bridge),
        nargs="?",
        const=0.0,
        metavar="BRIDGE",
        help=f"only what hangs together. {bridge.help}",
    )
    recolours = command.prog.split()[-1] == "recolour"
    for name in SEEN_BANDS:
        flag = BAND_FLAGS[name] + ("-band" if recolours else "")
        words = "a band: fade in from, full from, full to, fade out to"
        command.add_argument(
            f"--{flag}", type=four, dest=f"band_{name}", metavar="A,B,C,D", help=words
        )
    command.add_argument("--ramp", action="store_true", help="the mask is the luminance itself")
    command.add_argument("--invert", action="store_true")
    for spec in numbers_of(Edge):
        number_option(command, spec, None)
    command.add_argument(
        "--shrink",
        type=number_of(spec_of(Edge, "grow")),
        metavar="N",
        help="the opposite of --grow",
    )
    command.add_argument("--hard", action="store_true", help="no partial pixel")
    command.add_argument(
        "--area", type=area, action="append", default=[], metavar="MODE:KIND:NUMBERS",
        help="rect, ellipse, radial: X,Y,W,H; gradient: X0,Y0,X1,Y1; polygon: X,Y,X,Y,…",
    )  # fmt: skip
    command.add_argument("--frame", type=whole(0, LAST_FRAME), default=0, help="of a clip, from 0")
    command.add_argument(
        "--save", type=pathlib.Path, metavar="PROJECT", help="also write the project"
    )
    overwrite_option(command)


def _edge_from(arguments: argparse.Namespace) -> Edge:
    """The edge that the options describe."""
    given = {
        spec.name: getattr(arguments, spec.name)
        for spec in numbers_of(Edge)
        if getattr(arguments, spec.name) is not None
    }
    if arguments.shrink is not None:
        given["grow"] = given.get("grow", 0.0) - arguments.shrink
    return Edge(**given, hard=arguments.hard)


def _bands_from(arguments: argparse.Namespace) -> Bands:
    """The bands that the options describe."""
    corners = {name: getattr(arguments, f"band_{name}") for name in SEEN_BANDS}
    bands = {name: Band(on=True, corners=given) for name, given in corners.items() if given}
    return Bands(**bands, ramp=Ramp(on=arguments.ramp))


def _sieve_from(arguments: argparse.Namespace) -> Sieve:
    """The sieve that the options describe, without its samples."""
    weights = {
        name: getattr(arguments, name)
        for name in ("shading", "gloss", "hue_weight", "saturation_weight")
    }
    connected = arguments.connected is not None
    sieve = Sieve(
        name="Sieve 1",
        pick=Pick(
            **weights,
            light=arguments.light,
            flat=arguments.flat,
            connected=connected,
            bridge=arguments.connected or 0.0,
        ),
        bands=_bands_from(arguments),
        invert=arguments.invert,
        edge=_edge_from(arguments),
        areas=tuple(Area(**settings) for settings in arguments.area),
    )
    if not (arguments.clicks or sieve.bands.active or sieve.areas):
        raise Trouble(
            "Nothing says what to mask: name a place with --keep X,Y, a band, or an area."
        )
    return sieve


def _with_clicks(project: Project, arguments: argparse.Namespace, source: Source) -> Project:
    """The project with the samples that the options take, each as a click would."""
    from ..live.by_clicks import with_clicks

    found = arguments.tolerance == "auto" and arguments.compare in ("surface", "colour")
    plain = (
        spec_of(Sample, "tolerance").start if arguments.tolerance == "auto" else arguments.tolerance
    )
    settings = {"compare": arguments.compare, "falloff": arguments.falloff}
    return with_clicks(
        project,
        source,
        arguments.clicks,
        arguments.frame,
        arguments.size,
        None if found else plain,
        **settings,
    )


def _with_adjustments(sieve: Sieve, arguments: argparse.Namespace) -> Sieve:
    """The sieve with what `recolour` does inside it."""
    for spec in numbers_of(Recolour):
        sieve = edits.with_field(
            sieve, f"adjust.recolour.{spec.name}", getattr(arguments, spec.name)
        )
    sieve = edits.with_field(sieve, "adjust.recolour.dyed", arguments.dyed)
    if arguments.cdl:
        sieve = sieve.but(adjust=sieve.adjust.but(cdl=_cdl_from(arguments.cdl)))
    for path, value in arguments.set:
        sieve = edits.with_field(sieve, path, value)
    return sieve.but(strength=arguments.strength, outside=arguments.outside, blend=arguments.blend)


def _cdl_from(text: str) -> Cdl:
    """The correction of a CDL file, FILE or FILE#ID."""
    from ..media.colour import cdl_files

    name, _, wanted = text.partition("#")
    found = cdl_files.read(pathlib.Path(name))
    chosen = [one for one in found if one.name == wanted] if wanted else found
    if not chosen:
        raise Trouble(
            f"{name} holds no correction {wanted}: it holds "
            f"{', '.join(one.name or 'one without an id' for one in found)[:200]}."
        )
    try:
        return Cdl.model_validate(chosen[0].numbers)
    except ValidationError as error:
        raise Trouble(
            f"{name} holds a correction beyond what can be used "
            f"({storage.first_complaint(error)}): choose another."
        ) from None


def run(arguments: argparse.Namespace) -> int:
    """Write the mask or the recoloured picture that the options describe; returns the exit code."""
    from ..export.still import export_mask, export_still
    from ..media.footage.sequences import is_pattern
    from ..media.formats import is_picture
    from ..media.opening import open_source

    if arguments.save:
        storage.checked_name(arguments.save)
    source = open_source(arguments.picture)
    say_notes(source)
    project = Project(source=str(arguments.picture.absolute()), stack=(_sieve_from(arguments),))
    project = _with_clicks(project, arguments, source)
    if arguments.command == "recolour":
        project = project.but(
            stack=(_with_adjustments(project.stack[0], arguments),), gamut=arguments.gamut
        )
    over = arguments.overwrite
    if arguments.command == "mask":
        mean = export_mask(
            source, project, project.stack[0].id, arguments.out, arguments.frame, progress(), over
        )
        print(f"{arguments.out}: mask covers {100 * mean:.2f} % of {arguments.picture.name}")
    elif source.about.frames > 1 and (is_pattern(arguments.out) or not is_picture(arguments.out)):
        write_clip(source, project, arguments)
    else:
        refuse_clip_options(arguments, "frames")
        export_still(
            source, project, arguments.out, arguments.frame, progress=progress(), overwrite=over
        )
        print(f"{arguments.out}: written")
    if arguments.save:
        storage.save(project, arguments.save)
    return 0
