"""`info`, `explain`, `schema` and `controls`: what files and projects are."""

from __future__ import annotations

import argparse
import json
import pathlib
import sys

from ..project import storage
from ..project.controls import table
from .options import Commands


def add(commands: Commands) -> None:
    """Add what tells about files, projects and the program."""
    explain = commands.add_parser("explain", help="say in sentences what each sieve of a project does")
    explain.add_argument("project", type=pathlib.Path)
    info = commands.add_parser("info", help="what a file is")
    info.add_argument("file", type=pathlib.Path)
    schema = commands.add_parser("schema", help="print the JSON Schema of project files")
    controls = commands.add_parser("controls", help="list every number of a project: name, range, what it does")
    for command, run in ((explain, _explain), (info, _info), (schema, _schema), (controls, _controls)):
        command.set_defaults(run=run)


def _explain(arguments: argparse.Namespace) -> int:
    from ..render.explain import explained

    print("\n".join(explained(storage.load(arguments.project))))
    return 0


def _schema(_: argparse.Namespace) -> int:
    print(json.dumps(storage.schema(), indent=1))
    return 0


def _controls(_: argparse.Namespace) -> int:
    print(table())
    return 0


def _info(arguments: argparse.Namespace) -> int:
    from ..media.formats import PROJECT
    from ..media.opening import about_of

    if arguments.file.suffix.lower() == PROJECT:
        project = storage.load(arguments.file)
        print(f"project of {project.source or 'no picture'}")
        for sieve in project.stack:
            print(f"  {sieve.name}: {len(sieve.pick.samples)} samples{'' if sieve.on else ', off'}")
        return 0
    about = about_of(arguments.file)
    for note in about.notes:
        print(f"amber-sieve: {note}", file=sys.stderr)
    print(f"{about.kind} of {about.size[0]} x {about.size[1]} pixels")
    if about.kind != "still":
        print(f"frames: {about.frames} at {float(about.rate):.3f} a second")
    for name, value in about.tags.items():
        print(f"{name}: {value}")
    return 0
