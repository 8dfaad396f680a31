"""The three parts of the package pymatting that closed-form matting needs. Slow to import: wanted
by Fine alone.

The package as a whole compiles all its methods when it is imported for the first time, 50 s of
which 8 are for these; so each is loaded by itself, under its own name, which the compiler's cache
looks for.
"""

from __future__ import annotations

import importlib.util
import pathlib
import sys
from types import ModuleType


def _loaded(name: str) -> ModuleType:
    """A module of the package, without the package around it."""
    package = importlib.util.find_spec("pymatting")
    assert package is not None and package.origin is not None
    path = pathlib.Path(package.origin).parent.joinpath(*name.split(".")).with_suffix(".py")
    full_name = f"pymatting.{name}"
    spec = importlib.util.spec_from_file_location(full_name, path)
    assert spec is not None and spec.loader is not None
    module = sys.modules[full_name] = importlib.util.module_from_spec(spec)
    spec.loader.exec_module(module)
    return module


def _not_said(*words: object) -> None:
    """In place of the library's ``print``: that a decomposition is tried again with other numbers
    is nothing for the terminal.
    """


_preconditioner = _loaded("preconditioner.ichol")
vars(_preconditioner)["print"] = _not_said
ichol = _preconditioner.ichol
cg = _loaded("solver.cg").cg
cf_laplacian = _loaded("laplacian.cf_laplacian").cf_laplacian
