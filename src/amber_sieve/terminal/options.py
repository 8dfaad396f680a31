"""Shared parts of commands: options, notes, and how far the work is."""

from __future__ import annotations

import argparse
import sys
from typing import TYPE_CHECKING, TypeAlias

from ..progress import Progress
from ..project.fields import Spec
from .values import light, number_of

if TYPE_CHECKING:
    from ..media.source import Source
    from ..project.model import Project

#: Where a command adds its parser.
Commands: TypeAlias = "argparse._SubParsersAction[argparse.ArgumentParser]"


def light_option(command: argparse.ArgumentParser, default: str | None) -> None:
    """Add the light of a picture over that of the one picked on."""
    command.add_argument(
        "--light",
        type=light,
        default=default,
        metavar="auto|off|R,G,B",
        help="the picture's light over that of the one picked on, found or as gains; it is divided "
        "out before measuring",
    )


def in_light(project: Project, given: str | tuple[float, float, float] | None) -> Project:
    """The project with the light that was given for all its sieves."""
    if given is None:
        return project
    return project.but(
        stack=tuple(sieve.but(pick=sieve.pick.but(light=given)) for sieve in project.stack)
    )


def overwrite_option(command: argparse.ArgumentParser) -> None:
    """Let a command write over what it reads."""
    command.add_argument(
        "--overwrite", action="store_true", help="the output may be the file that is read"
    )


def number_option(
    command: argparse.ArgumentParser, spec: Spec, default: float | str | None, auto: bool = False
) -> None:
    """An option for a number of the model, with its range and help; ``auto``: it may be found on
    the picture.
    """
    word = ", or auto" if auto or spec.auto else ""
    limits = (
        f"{spec.low:g} to "
        f"{spec.high:g}{' ' + spec.unit.replace('%', '%%') if spec.unit else ''}{word}"
    )
    words = f"{spec.help.replace('%', '%%')} ({limits})"
    command.add_argument(
        f"--{spec.name.replace('_', '-')}",
        type=number_of(spec, auto),
        default=default,
        metavar="N",
        help=words,
    )


def progress() -> Progress:
    """Progress on one line of the terminal; none when stderr is not one."""

    def tell(share: float, left: float | None) -> None:
        words = f"{100 * share:3.0f} %" + (f", {left:.0f} s left" if left is not None else "")
        sys.stderr.write(f"\r{words:24}" if share < 1 else f"\r{'':24}\r")
        sys.stderr.flush()

    return Progress(tell if sys.stderr.isatty() else None)


def say_notes(source: Source) -> None:
    """Print what was odd about a file, one line each."""
    for note in source.about.notes:
        print(f"amber-sieve: {note}", file=sys.stderr)
