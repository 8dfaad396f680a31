"""Gives the process a home of its own for state, settings and data: import it before the program.

Nothing that tests, benches and tools do may reach the work of whoever runs them. Processes that
are started from here inherit it.
"""

import os
import pathlib
import tempfile

_HELD = tempfile.TemporaryDirectory(prefix="amber-sieve-home-")
#: Where everything is kept.
FOLDER = pathlib.Path(_HELD.name)
for _kind in ("STATE", "CONFIG", "DATA"):
    os.environ[f"XDG_{_kind}_HOME"] = str(FOLDER / _kind.lower())
