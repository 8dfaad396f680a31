"""Finding a picture that is not where its project says, because folders were moved."""

from __future__ import annotations

import pathlib

#: Folders above the project that are looked into.
UP = 4
#: Parts of the missing path that are kept at most.
DEEP = 6


def found_near(missing: pathlib.Path, project_file: pathlib.Path) -> pathlib.Path | None:
    """A file of the same name near the project: as much of its old path as possible below one of
    the project's folders.

    Where the pictures and the project lay in one folder that was moved, and where either was moved
    beside the other, that is the same file.
    """
    parts = missing.parts[1:]
    folders = list(project_file.absolute().parents)[: UP + 1]
    for kept in range(min(DEEP, len(parts)), 0, -1):
        for folder in folders:
            tail = pathlib.Path(*parts[-kept:])
            for beside in (folder / tail, *(inside / tail for inside in _folders_in(folder))):
                if beside.is_file():
                    return beside
    return None


def _folders_in(folder: pathlib.Path) -> list[pathlib.Path]:
    try:
        return sorted(
            path for path in folder.iterdir() if path.is_dir() and not path.name.startswith(".")
        )[:200]
    except OSError:
        return []
