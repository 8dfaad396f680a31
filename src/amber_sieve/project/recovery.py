"""Work that was not saved when the program ended in a way it should not have, kept so that the next
start can offer it.
"""

from __future__ import annotations

import contextlib
import json
import os
import pathlib
import secrets
import time
from collections.abc import Callable
from dataclasses import dataclass

from ..errors import Trouble
from ..files import is_running, set_aside, start_of, state_folder, write_text
from ..language import translator
from . import storage
from .model import Project, Sieve, Take

translate = translator("project")


def recovery_folder() -> pathlib.Path:
    """Return where unsaved work is kept."""
    return state_folder() / "recovery"


@dataclass(frozen=True)
class Left:
    """Work that was left behind: its file, what it was called, where it was saved before ("" for
    never), when it was kept, and how often it was resumed without being saved or closed since: the
    number of crashes that it may have caused.
    """

    file: pathlib.Path
    title: str
    path: str
    when: float
    project: Project
    falls: int = 0

    @property
    def offered(self) -> Project:
        """Return the work to go on with. After two crashes its sieves are off; after three its
        stack is a take, with an empty one in its place: so it can always be reached.
        """
        if self.falls < 2:
            return self.project
        if self.falls == 2:
            return self.project.but(
                stack=tuple(sieve.but(on=False) for sieve in self.project.stack), solo=""
            )
        fell = Take(name=translate("As it was"), stack=self.project.stack)
        return self.project.but(
            stack=(Sieve(name=translate("Sieve 1")),),
            takes=(fell, *self.project.takes[:63]),
            solo="",
            groups=(),
        )

    @property
    def words(self) -> str:
        """Return what is to be known of it before going on; "" for nothing."""
        if self.falls < 2:
            return ""
        how = (
            translate("its sieves are off, switch them on one by one")
            if self.falls == 2
            else translate("its stack is the take «As it was»")
        )
        return translate(
            "The program has ended {falls} times with this work open, so {how}.",
            falls=self.falls,
            how=how,
        )


def plain(words: object) -> str:
    """Words from a file that can be shown and written again: without what is no text."""
    return str(words)[:4096].encode("utf-8", "replace").decode()


class Recovery:
    """Keeps the unsaved work of one window."""

    def __init__(self) -> None:
        self._file = recovery_folder() / f"{os.getpid()}-{secrets.token_hex(4)}.json"
        #: How often work of this origin was left behind before.
        self.falls = 0

    def keep(self, project: Project, title: str, path: pathlib.Path | None) -> None:
        """Keep this work; raises `Trouble` when it cannot be written."""
        try:
            self._file.parent.mkdir(parents=True, exist_ok=True)
        except OSError as error:
            raise Trouble(
                translate(
                    "Unsaved work cannot be kept in {parent} ({strerror}): save it yourself.",
                    parent=self._file.parent,
                    strerror=error.strerror,
                )
            ) from None
        owner = {"process": os.getpid(), "started": start_of(os.getpid())}
        held = {
            "owner": owner,
            "title": title,
            "path": str(path or ""),
            "when": time.time(),
            "falls": self.falls,
        }
        write_text(self._file, f'{json.dumps(held)[:-1]}, "project": {storage.json_of(project)}}}')

    def forget(self) -> None:
        """Nothing is unsaved any more."""
        with contextlib.suppress(OSError):
            self._file.unlink(missing_ok=True)


def left_behind(tell: Callable[[str], object] = lambda words: None) -> list[Left]:
    """Work whose program no longer runs, the newest first. A damaged file is set aside, and
    ``tell`` is given a sentence that says so.
    """
    found = []
    files: list[pathlib.Path] = []
    with contextlib.suppress(OSError):  # a folder that may not be looked into holds nothing of ours
        files = list(recovery_folder().glob("*.json")) if recovery_folder().is_dir() else []
    for file in files:
        if file.name.startswith(
            "."
        ):  # a part-file of a write that was cut short: what it was to replace is offered
            continue
        try:
            held = storage.read_json(file, translate("kept work"))
            owner = held["owner"]
            if (
                is_running(int(owner["process"]))
                and start_of(int(owner["process"])) == owner["started"]
            ):
                continue
            project = storage.project_from(held["project"], file)
            when, falls = float(held["when"]), int(held.get("falls", 0)) + 1
            time.localtime(when)  # it will be shown
            found.append(
                Left(
                    file,
                    plain(held["title"]),
                    plain(held["path"]),
                    when,
                    project,
                    min(max(falls, 1), 1000),
                )
            )
        except (Trouble, KeyError, TypeError, ValueError, OverflowError, OSError):
            if words := set_aside(file):
                tell(words)
    return sorted(found, key=lambda left: -left.when)


def discard(left: Left) -> None:
    """Forget work that was left behind."""
    with contextlib.suppress(OSError):
        left.file.unlink(missing_ok=True)
