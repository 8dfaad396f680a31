"""Kernels that come compiled with a package, so that the compiler need not run: where they lie,
and whether they run here.
"""

from __future__ import annotations

import contextlib
import os
import pathlib
import sys

#: Where they lie, each by the folder of its source; only `tools/package` puts some there.
PLACE = pathlib.Path(__file__).parent / "kernels"
#: Says by which versions they were made; kernels of others cannot be used.
MADE_BY = PLACE / "made-by"
#: What they are compiled for, and by which names of the kernel's list (proc(5), cpuinfo) a
#: processor can be told to run it.
PROCESSOR = "x86-64-v3"
NEEDED = frozenset({"abm", "avx2", "bmi1", "bmi2", "f16c", "fma", "movbe"})


def versions() -> str:
    """The versions of Python and its compiler that kernels hang on."""
    from importlib.metadata import (
        version,
    )  # slow, and asked for only where a package brought kernels

    return (
        f"Python {sys.version_info[0]}.{sys.version_info[1]}, numba {version('numba')}, llvmlite "
        f"{version('llvmlite')}\n"
    )


def _processor_runs_them() -> bool:
    with open("/proc/cpuinfo", encoding="ascii", errors="replace") as lines:
        flags = next((line for line in lines if line.startswith("flags")), "")
    return set(flags.split()) >= NEEDED


def use() -> bool:
    """Return whether kernels that came with the package can be used here. If so, other kernels are
    compiled for the same processors.

    To be called before the compiler is imported: it looks at the environment then.
    """
    if "NUMBA_CPU_NAME" in os.environ:
        return os.environ["NUMBA_CPU_NAME"] == PROCESSOR and MADE_BY.is_file()
    with contextlib.suppress(OSError, ImportError):
        if (
            MADE_BY.is_file()
            and MADE_BY.read_text(encoding="utf-8") == versions()
            and _processor_runs_them()
        ):
            os.environ["NUMBA_CPU_NAME"], os.environ["NUMBA_CPU_FEATURES"] = PROCESSOR, ""
            return True
    return False
