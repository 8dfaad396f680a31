"""Project files: versioned JSON, ending in ``.sieve``."""

from __future__ import annotations

import os
import pathlib
from collections.abc import Callable, Iterator
from typing import Any

from pydantic import BaseModel, ValidationError
from pydantic_core import from_json, to_json

from ..errors import Trouble
from ..files import mark_of, regular_file, write_text
from ..gc_pause import gc_pause
from ..language import translator
from .limits import excess_in
from .model import VERSION, Project, Sieve
from .tracks import wrong_in

translate = translator("project")


#: Items of a row that are written at a time.
AT_ONCE = 20_000
#: Ending of a project's name.
ENDING = ".sieve"
#: Files of more bytes than this are not projects: a long day of brush strokes stays far below it.
LARGEST = 200_000_000


def first_complaint(error: ValidationError) -> str:
    """The first thing pydantic found wrong, as «place: what»."""
    problem = error.errors(include_url=False, include_context=False, include_input=False)[0]
    place = ".".join(str(part) for part in problem["loc"]) or translate("the whole file")
    words = problem["msg"].removeprefix("Value error, ")
    if problem["type"] == "too_long":
        most = error.errors(include_url=False, include_input=False)[0]["ctx"]["max_length"]
        return translate("{place}: at most {most} are possible", place=place, most=most)
    return f"{place}: {words[:1].lower()}{words[1:]}"


def read_json(path: pathlib.Path, what: str) -> dict[str, Any]:
    """A JSON object from a file.

    Raises
    ------
    Trouble: no such file, unreadable, or not a JSON object.
    """
    path = regular_file(path)
    try:
        if path.stat().st_size > LARGEST:
            raise Trouble(
                translate(
                    "{path} is not {what}: it is too large. Open another file.",
                    path=path,
                    what=what,
                )
            )
        held = _parsed(path.read_bytes())
    except OSError as error:
        raise Trouble(
            translate(
                "{path} could not be read ({strerror}): check its permissions.",
                path=path,
                strerror=error.strerror,
            )
        ) from error
    except (ValueError, RecursionError):
        raise Trouble(
            translate(
                "{path} is not {what}: it is not valid JSON. Open another file or restore a copy.",
                path=path,
                what=what,
            )
        ) from None
    if not isinstance(held, dict):
        raise Trouble(
            translate(
                "{path} is not {what}: it should hold one JSON object. Open another file.",
                path=path,
                what=what,
            )
        )
    return held


def _parsed(text: bytes) -> Any:
    """JSON as plain values. What it makes is all kept: collecting garbage among a million new
    objects would double the time.
    """
    with gc_pause():
        return from_json(text)


def load(path: pathlib.Path) -> Project:
    """Read a project; its source and layers become absolute paths.

    Raises
    ------
    Trouble: not a project, made by a newer version, or with a field that does not fit.
    """
    path = pathlib.Path(path)
    held = read_json(path, translate("a project"))
    version = held.get("version")
    if not isinstance(version, int) or isinstance(version, bool) or version < 1:
        raise Trouble(
            translate(
                "{path} is not a project of Amber Sieve: it has no version number. Open another "
                "file.",
                path=path,
            )
        )
    if version > VERSION:
        raise Trouble(
            translate(
                "{path} was made by a newer version of Amber Sieve (file version {version}, this "
                "one reads up to "
                "{newest}): update the program to open it.",
                path=path,
                version=version,
                newest=VERSION,
            )
        )
    return resolved(project_from(held, path), path.parent)


def project_from(held: dict[str, Any], path: pathlib.Path) -> Project:
    """A project from what its file holds, of any version up to this one; raises `Trouble`."""
    try:
        if held.get("version") == 1:
            held = _from_version_1(held)
        if held.get("version") == 2:
            held = _from_version_2(held)
        if held.get("version") in (
            3,
            4,
        ):  # 4 has more adjustments, 5 ways to read a picture and lookup tables; they change none
            held = held | {"version": 5}
        if held.get("version") == 5:
            held = _from_version_5(held)
        if words := excess_in(Project, held):
            raise Trouble(
                translate(
                    "{path} holds more than can be worked on ({words}): correct it or open "
                    "another file.",
                    path=path,
                    words=words,
                )
            )
        project = Project.model_validate(held)
    except ValidationError as error:
        raise Trouble(
            translate(
                "{path} has a wrong field ({complaint}): correct it or open another file.",
                path=path,
                complaint=first_complaint(error),
            )
        ) from None
    except (AttributeError, TypeError, ValueError, RecursionError):
        raise Trouble(
            translate(
                "{path} is not a project of Amber Sieve: its fields are not what they should be. "
                "Open another file.",
                path=path,
            )
        ) from None
    for sieve in [*project.stack, *(sieve for take in project.takes for sieve in take.stack)]:
        if words := wrong_in(sieve):
            raise Trouble(
                translate(
                    "{path} has a key that does not fit ({words}): correct it or open another "
                    "file.",
                    path=path,
                    words=words,
                )
            )
    return project


def _from_version_5(held: dict[str, Any]) -> dict[str, Any]:
    """Interlaced footage was read by one field alone."""
    reading = dict(held.get("reading", {}))
    if "one_field" in reading:
        reading["deinterlaced"] = reading.pop("one_field")
    return held | {"version": 6, "reading": reading}


def edge_from_version_1(held: dict[str, Any]) -> dict[str, Any]:
    """The switch for the automatic Clean source as the amount it stood for."""
    edge = {name: value for name, value in held.items() if name != "clean_auto"}
    return edge | ({"clean": "auto"} if held.get("clean_auto") else {})


def _from_version_1(held: dict[str, Any]) -> dict[str, Any]:
    """Version 1 had the numbers of Recolour straight in ``adjust``, and a switch for the automatic
    Clean source.
    """

    def sieve(old: dict[str, Any]) -> dict[str, Any]:
        return old | {
            "edge": edge_from_version_1(old.get("edge", {})),
            "adjust": {"recolour": old.get("adjust", {})},
        }

    stack = {"stack": [sieve(old) for old in held["stack"]]} if "stack" in held else {}
    return held | {"version": 2} | stack


def edge_from_version_2(held: dict[str, Any]) -> dict[str, Any]:
    """Switch off what is automatic from version 3 on, where nothing else was said."""
    return {"specks": 0, "holes": 0, "follow": 0, "clean": 0} | held


def pick_from_version_2(held: dict[str, Any]) -> dict[str, Any]:
    """Drop samples took all within their tolerance."""
    return held | {
        "samples": [sample | {"rule": "tolerance"} for sample in held.get("samples", [])]
    }


def _from_version_2(held: dict[str, Any]) -> dict[str, Any]:
    """Version 2 had no automatic edge and no drop samples that compete."""

    def sieve(old: dict[str, Any]) -> dict[str, Any]:
        return old | {
            "edge": edge_from_version_2(old.get("edge", {})),
            "pick": pick_from_version_2(old.get("pick", {})),
        }

    stack = {"stack": [sieve(old) for old in held["stack"]]} if "stack" in held else {}
    return held | {"version": 3} | stack


def _with_paths(project: Project, change: Callable[[str], str]) -> Project:
    """The project with every path in it changed."""

    def sieve(held: Sieve) -> Sieve:
        if held.pick.layer:
            held = held.but(pick=held.pick.but(layer=change(held.pick.layer)))
        fill, lookup = held.adjust.fill, held.adjust.lookup
        if fill.fill_picture:
            held = held.but(
                adjust=held.adjust.but(fill=fill.but(fill_picture=change(fill.fill_picture)))
            )
        if lookup.lookup_file:
            held = held.but(
                adjust=held.adjust.but(lookup=lookup.but(lookup_file=change(lookup.lookup_file)))
            )
        return held

    takes = tuple(take.but(stack=tuple(sieve(s) for s in take.stack)) for take in project.takes)
    source = change(project.source) if project.source else ""
    return project.but(source=source, stack=tuple(sieve(s) for s in project.stack), takes=takes)


def resolved(project: Project, folder: pathlib.Path) -> Project:
    """The project with its paths absolute, as seen from a folder."""
    return _with_paths(project, lambda held: os.path.normpath(folder.absolute() / held))


def related(project: Project, folder: pathlib.Path) -> Project:
    """The project with its paths relative to a folder, so that both can move together."""
    return _with_paths(
        project, lambda held: os.path.relpath(os.path.abspath(held), folder.absolute())
    )


def _parts(value: object) -> Iterator[str]:
    """JSON in parts: written in one go, a long day of brush strokes would hold Python's lock for
    half a second.
    """
    if isinstance(value, BaseModel):
        names = [name for name, field in type(value).model_fields.items() if not field.exclude]
        for place, name in enumerate(names):
            yield f'{"," if place else "{"}"{name}":'
            yield from _parts(getattr(value, name))
        yield "}"
    elif isinstance(value, tuple) and value and isinstance(value[0], BaseModel):
        for place, one in enumerate(value):
            yield "," if place else "["
            yield from _parts(one)
        yield "]"
    elif isinstance(value, tuple) and len(value) > AT_ONCE:
        for start in range(0, len(value), AT_ONCE):
            yield f"{',' if start else '['}{to_json(value[start : start + AT_ONCE]).decode()[1:-1]}"
        yield "]"
    else:
        yield to_json(value).decode()


def json_of(project: Project) -> str:
    """A project as compact JSON; other threads get their turn meanwhile."""
    return "".join(_parts(project))


def _is_long(project: Project) -> bool:
    """Return whether a project is large enough to be written compactly, and in parts."""
    stacks = (project.stack, *(take.stack for take in project.takes))
    sieves = [sieve for stack in stacks for sieve in stack]
    strokes = sum(
        len(stroke.points) for sieve in sieves for area in sieve.areas for stroke in area.strokes
    )
    return (
        strokes
        + sum(len(key.value) for sieve in sieves for track in sieve.tracks for key in track.keys)
        > AT_ONCE
    )


def text_of(project: Project) -> str:
    """A project as the text of its file."""
    return (json_of(project) if _is_long(project) else project.model_dump_json(indent=1)) + "\n"


def checked_name(path: pathlib.Path) -> pathlib.Path:
    """The name that a project is to be saved under; raises `Trouble` for one that belongs to
    another kind of file.
    """
    if path.suffix.lower() != ENDING:
        raise Trouble(
            translate(
                "A project cannot be saved as {name}: end its name in {ending}.",
                name=path.name or path,
                ending=ENDING,
            )
        )
    return path


#: Stands for the mark of a picture that was replaced while it was worked on: no file has it.
REPLACED = "replaced"


def save(project: Project, path: pathlib.Path, replaced: bool = False) -> None:
    """Write a project; its source and layers are stored relative to the project's folder.

    ``replaced``: the picture that was worked on is not what lies there now; the next opening says
        so.

    Raises
    ------
    Trouble: the name does not end as a project's does, or the file could not be written; an earlier
        one is then still whole.
    """
    path = checked_name(pathlib.Path(path))
    mark = REPLACED if replaced else mark_of(pathlib.Path(project.source)) if project.source else ""
    marked = project.but(source_mark=mark) if project.source else project
    write_text(path, text_of(related(marked, path.parent)))


def schema() -> dict[str, Any]:
    """JSON Schema of the project file."""
    return Project.model_json_schema() | {
        "title": translate("Amber Sieve project"),
        "$schema": "https://json-schema.org/draft/2020-12/schema",
    }
