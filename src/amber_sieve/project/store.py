"""A person's own presets: one store for every kind, each preset a JSON file by its name."""

from __future__ import annotations

import contextlib
import hashlib
import pathlib
import re
from collections.abc import Callable, Iterator
from typing import Generic, Protocol, TypeVar

import platformdirs

from ..errors import Trouble
from ..files import made_folder, write_text
from ..language import translator

translate = translator("project")


#: Most characters of a name.
LONGEST_NAME = 60


class Named(Protocol):
    """Anything that can be stored under a name."""

    @property
    def name(self) -> str: ...

    def model_dump_json(self, *, indent: int | None = None) -> str: ...


T = TypeVar("T", bound=Named)


def folder_of_presets() -> pathlib.Path:
    """Return where all kinds live."""
    return pathlib.Path(platformdirs.user_data_dir("amber-sieve")) / "presets"


def checked_name(name: str) -> str:
    """A name without the spaces around it; raises `Trouble` when it is none."""
    name = name.strip()
    if not 1 <= len(name) <= LONGEST_NAME:
        raise Trouble(
            translate(
                "The name of a preset has 1 to {most} characters, this one {count}: give another "
                "name.",
                most=LONGEST_NAME,
                count=len(name),
            )
        )
    return name


def file_name_of(name: str) -> str:
    """The name of a preset's file: its own as far as that goes, and with a digest where that would
    not tell it from others.
    """
    plain = re.sub(r"[^\w-]+", "-", name.strip().lower()).strip("-") or "preset"
    return (
        f"{plain}.json"
        if plain == name
        else f"{plain}-{hashlib.sha256(name.encode('utf-8', 'surrogatepass')).hexdigest()[:8]}.json"
    )


def write(preset: Named, path: pathlib.Path) -> None:
    """Write a preset as a file; raises `Trouble` when that fails."""
    write_text(path, preset.model_dump_json(indent=1) + "\n")


class Store(Generic[T]):
    """The presets of one kind, in a folder of their own; ``read`` gives the one that a file holds,
    or raises `Trouble`.
    """

    def __init__(self, folder: str, read: Callable[[pathlib.Path], T]) -> None:
        self._folder, self._read = folder, read

    @property
    def folder(self) -> pathlib.Path:
        """Return where they live."""
        return folder_of_presets() / self._folder

    def _stored(self) -> Iterator[tuple[pathlib.Path, T]]:
        for path in sorted(self.folder.glob("*.json")) if self.folder.is_dir() else []:
            with contextlib.suppress(Trouble):
                yield path, self._read(path)

    def all(self) -> list[T]:
        """All that are stored, by the names of their files; files that are none are passed over."""
        return [preset for _, preset in self._stored()]

    def _path_of(self, name: str) -> pathlib.Path:
        """The file that holds the preset of this name already, or a new one."""
        return next(
            (path for path, preset in self._stored() if preset.name == name),
            self.folder / file_name_of(name),
        )

    def keep(self, preset: T) -> pathlib.Path:
        """Store one; one of the same name is replaced. Raises `Trouble` when that fails."""
        checked_name(preset.name)
        path = self._path_of(preset.name)
        made_folder(path.parent, "presets")
        write(preset, path)
        return path

    def remove(self, name: str) -> None:
        """Take the preset with this name out; one that is not there, or cannot be removed, is
        passed over.
        """
        with contextlib.suppress(OSError):
            self._path_of(name).unlink(missing_ok=True)
