"""Note what is open in which window, so that the next start can put it on the tray again.

Every window that runs has its own row in one file, written under a lock: so two windows do not lose
each other's tray. What a window left, however it ended, is taken over by the next one that starts.
"""

from __future__ import annotations

import contextlib
import fcntl
import json
import os
import pathlib
from collections.abc import Callable, Iterator
from dataclasses import asdict, dataclass
from typing import Any

from ..errors import Trouble
from ..files import is_running, made_folder, set_aside, start_of, state_folder, write_text
from ..language import translator
from .storage import read_json

translate = translator("project")


#: Most pictures that are put on the tray again.
MOST = 10_000


@dataclass(frozen=True)
class Row:
    """One picture of the tray: paths of the picture and of its project ("" for none), whether it
    has the shared stack, and the frame.
    """

    source: str
    project: str = ""
    shared: bool = False
    frame: int = 0


@dataclass(frozen=True)
class OpenTray:
    """The pictures of a tray in their order, and which of them is in the window."""

    rows: tuple[Row, ...] = ()
    current: int = 0


def tray_file() -> pathlib.Path:
    """Return where it is noted."""
    return state_folder() / "tray.json"


@contextlib.contextmanager
def _alone() -> Iterator[None]:
    """Nobody else reads or writes the file here."""
    folder = made_folder(state_folder(), translate("what is open"))
    with open(folder / "tray.lock", "w") as held:
        fcntl.flock(held, fcntl.LOCK_EX)
        yield


def _text(value: Any) -> str:
    """A path from the file, as text that can be written again."""
    text = str(value)[:4096]
    text.encode("utf-8")
    return text


def _tray_of(held: dict[str, Any]) -> OpenTray:
    """A tray from its JSON; raises whatever is wrong with it."""
    rows = [
        Row(
            _text(row["source"]),
            _text(row["project"]),
            bool(row["shared"]),
            min(max(int(row["frame"]), 0), 1_000_000_000),
        )
        for row in held["entries"][:MOST]
    ]
    return OpenTray(tuple(rows), min(max(int(held["current"]), 0), MOST))


def _windows(tell: Callable[[str], object]) -> list[tuple[int, str, OpenTray]]:
    """The number and start of every window's process, and its tray; a damaged file is set aside and
    told of.
    """
    file = tray_file()
    if not file.exists():
        return []
    try:
        held = read_json(file, translate("what was open"))
        if "windows" not in held:  # of a version that knew one window
            return [(0, "", _tray_of(held))]
        return [
            (int(one["process"]), str(one["started"]), _tray_of(one))
            for one in held["windows"][:MOST]
        ]
    except (Trouble, KeyError, TypeError, ValueError, OverflowError):
        if words := set_aside(file):
            tell(words)
        return []


def _write(windows: list[tuple[int, str, OpenTray]]) -> None:
    rows = [
        {
            "process": process,
            "started": started,
            "entries": [asdict(row) for row in tray.rows],
            "current": tray.current,
        }
        for process, started, tray in windows
    ]
    write_text(tray_file(), json.dumps({"windows": rows}))


def _lives(process: int, started: str) -> bool:
    return process > 0 and is_running(process) and start_of(process) == started


def note(tray: OpenTray) -> None:
    """Note what is open in this window; raises `Trouble` or OSError when it cannot be written."""
    me, now = os.getpid(), start_of(os.getpid())
    with _alone():
        others = [window for window in _windows(lambda words: None) if window[:2] != (me, now)]
        # A window with nothing open leaves what was left before for the next start.
        _write([*others, (me, now, tray)] if tray.rows or not others else others)


def take_over(tell: Callable[[str], object] = lambda words: None) -> OpenTray:
    """Take over the trays of windows that no longer run; of several trays every picture once, the
    last in view.
    """
    with _alone():
        windows = _windows(tell)
        left = [window for window in windows if not _lives(*window[:2])]
        rows: dict[str, Row] = {}
        current = ""
        for _, _, tray in left:
            rows |= {row.project or row.source: row for row in tray.rows}
            if tray.rows:
                shown = tray.rows[min(tray.current, len(tray.rows) - 1)]
                current = shown.project or shown.source
        kept = tuple(rows.values())[:MOST]
        at = next(
            (place for place, row in enumerate(kept) if (row.project or row.source) == current), 0
        )
        tray = OpenTray(kept, at)
        if left:
            _write(
                [
                    *(window for window in windows if window not in left),
                    (os.getpid(), start_of(os.getpid()), tray),
                ]
            )
        return tray
