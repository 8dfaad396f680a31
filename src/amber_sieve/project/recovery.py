"""Work that was not saved when the program ended in a way it should not have, kept so that the next start can offer it."""

from __future__ import annotations

import contextlib
import json
import os
import pathlib
import secrets
import time
from dataclasses import dataclass

from ..errors import Trouble
from ..files import is_running, state_folder, write_text
from . import storage
from .model import Project


def recovery_folder() -> pathlib.Path:
    """Where unsaved work is kept."""
    return state_folder() / "recovery"


def _start_of(process: int) -> str:
    """When a process started, as the kernel counts (proc(5), field 22): its number may be given to another one later."""
    try:
        return pathlib.Path(f"/proc/{process}/stat").read_text().rsplit(")", 1)[1].split()[19]
    except (OSError, IndexError):
        return ""


@dataclass(frozen=True)
class Left:
    """Work that was left behind: its file, what it was called, where it was saved before ("" for never), when it was kept."""

    file: pathlib.Path
    title: str
    path: str
    when: float
    project: Project


class Recovery:
    """Keeps the unsaved work of one window."""

    def __init__(self) -> None:
        self._file = recovery_folder() / f"{os.getpid()}-{secrets.token_hex(4)}.json"

    def keep(self, project: Project, title: str, path: pathlib.Path | None) -> None:
        """Keep this work; raises `Trouble` when it cannot be written."""
        try:
            self._file.parent.mkdir(parents=True, exist_ok=True)
        except OSError as error:
            raise Trouble(f"Unsaved work cannot be kept in {self._file.parent} ({error.strerror}): save it yourself.") from None
        owner = {"process": os.getpid(), "started": _start_of(os.getpid())}
        held = {"owner": owner, "title": title, "path": str(path or ""), "when": time.time(), "project": project.model_dump(mode="json")}
        write_text(self._file, json.dumps(held))

    def forget(self) -> None:
        """Nothing is unsaved any more."""
        with contextlib.suppress(OSError):
            self._file.unlink(missing_ok=True)


def left_behind() -> list[Left]:
    """Work whose program no longer runs, the newest first. Files that cannot be read are passed over, not removed."""
    found = []
    for file in recovery_folder().glob("*.json") if recovery_folder().is_dir() else []:
        if file.name.startswith("."):  # a part-file of a write that was cut short: what it was to replace is offered
            continue
        try:
            held = storage.read_json(file, "kept work")
            owner = held["owner"]
            if is_running(int(owner["process"])) and _start_of(int(owner["process"])) == owner["started"]:
                continue
            project = storage.project_from(held["project"], file)
            found.append(Left(file, str(held["title"]), str(held["path"]), float(held["when"]), project))
        except (Trouble, KeyError, TypeError, ValueError):
            continue
    return sorted(found, key=lambda left: -left.when)


def discard(left: Left) -> None:
    """Forget work that was left behind."""
    with contextlib.suppress(OSError):
        left.file.unlink(missing_ok=True)
