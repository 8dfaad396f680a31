"""Project files: versioned JSON, ending in ``.sieve``."""

from __future__ import annotations

import json
import os
import pathlib
from typing import Any

from pydantic import ValidationError

from ..errors import Trouble
from ..files import written_beside
from .model import VERSION, Project


def first_complaint(error: ValidationError) -> str:
    """The first thing pydantic found wrong, as «place: what»."""
    problem = error.errors()[0]
    place = ".".join(str(part) for part in problem["loc"]) or "the whole file"
    return f"{place}: {problem['msg'][:1].lower()}{problem['msg'][1:]}"


def read_json(path: pathlib.Path, what: str) -> dict[str, Any]:
    """A JSON object from a file.

    Raises
    ------
    Trouble: no such file, unreadable, or not a JSON object.
    """
    try:
        held = json.loads(path.read_text(encoding="utf-8"))
    except FileNotFoundError:
        raise Trouble(f"{path} does not exist: check the name.") from None
    except OSError as error:
        raise Trouble(f"{path} could not be read ({error.strerror}): check its permissions.") from error
    except ValueError:
        raise Trouble(f"{path} is not {what}: it is not valid JSON. Open another file or restore a copy.") from None
    if not isinstance(held, dict):
        raise Trouble(f"{path} is not {what}: it should hold one JSON object. Open another file.")
    return held


def load(path: pathlib.Path) -> Project:
    """Read a project; its source becomes an absolute path.

    Raises
    ------
    Trouble: not a project, made by a newer version, or with a field that does not fit.
    """
    path = pathlib.Path(path)
    held = read_json(path, "a project")
    version = held.get("version")
    if not isinstance(version, int) or isinstance(version, bool):
        raise Trouble(f"{path} is not a project of Amber Sieve: it has no version number. Open another file.")
    if version > VERSION:
        raise Trouble(
            f"{path} was made by a newer version of Amber Sieve (file version {version}, this one reads up to {VERSION}): update the program to open it."
        )
    try:
        project = Project.model_validate_json(json.dumps(held))
    except ValidationError as error:
        raise Trouble(f"{path} has a wrong field ({first_complaint(error)}): correct it or open another file.") from None
    if project.source:
        project = project.but(source=os.path.normpath(path.parent.absolute() / project.source))
    return project


def save(project: Project, path: pathlib.Path) -> None:
    """Write a project; a source in or below the project's folder is stored relative to it.

    Raises
    ------
    Trouble: the file could not be written; an earlier file of that name is then still whole.
    """
    path = pathlib.Path(path)
    if project.source:
        source = os.path.relpath(project.source, path.parent.absolute())
        project = project.but(source=os.path.abspath(project.source) if source.startswith("..") else source)
    with written_beside(path) as partial:
        partial.write_text(project.model_dump_json(indent=1) + "\n", encoding="utf-8")


def schema() -> dict[str, Any]:
    """JSON Schema of the project file."""
    return Project.model_json_schema() | {"title": "Amber Sieve project", "$schema": "https://json-schema.org/draft/2020-12/schema"}
