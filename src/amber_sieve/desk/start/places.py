"""Find the demo and the guide: in the repository, or where they were installed."""

from __future__ import annotations

import os
import pathlib
import sys

#: The repository, or what the package was installed into; a package of a distribution says where.
ROOT = pathlib.Path(__file__).parents[4]
SHARED = pathlib.Path(
    os.environ.get("AMBER_SIEVE_SHARE") or pathlib.Path(sys.prefix) / "share" / "amber-sieve"
)


def _first(*places: pathlib.Path) -> pathlib.Path | None:
    return next((place for place in places if place.exists()), None)


def demo_project() -> pathlib.Path | None:
    """The demo's project; None where the demo was not installed."""
    return _first(ROOT / "demo" / "yard.sieve", SHARED / "demo" / "yard.sieve")


def guide() -> pathlib.Path | None:
    """The folder of the guide; None where it was not installed."""
    return _first(ROOT / "docs" / "guide", SHARED / "guide")


def folder_for_exports(path: pathlib.Path) -> pathlib.Path:
    """Return where what is made of a file is put if nobody says otherwise: beside it, or at home
    where that folder cannot be written to.
    """
    return path.parent if os.access(path.parent, os.W_OK) else pathlib.Path.home()
