"""Gives the process a home of its own for state, settings and data: import it before the program.

Nothing that tests, benches and tools do may reach the work of whoever runs them. Processes that
are started from here inherit it.
"""

import os
import pathlib
import tempfile

#: Where everything is kept.
FOLDER = pathlib.Path()
_held: tempfile.TemporaryDirectory | None = None


def renew() -> None:
    """Give this process a new, empty home. A forked process that shares its parent's calls this
    first.
    """
    global FOLDER, _held
    if _held is not None:
        _held._finalizer.detach()  # the parent's folder is removed by the parent
    _held = tempfile.TemporaryDirectory(prefix="amber-sieve-home-")
    FOLDER = pathlib.Path(_held.name)
    for kind in ("STATE", "CONFIG", "DATA"):
        os.environ[f"XDG_{kind}_HOME"] = str(FOLDER / kind.lower())


def remove() -> None:
    """Remove the home: for a process that ends without Python's own clearing up."""
    assert _held is not None
    _held.cleanup()


renew()
