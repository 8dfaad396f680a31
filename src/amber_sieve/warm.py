"""Compile the kernels once, in as many processes as there are cores.

Which kernels, for which arguments, stands in core/signatures.json (written by tools/signatures.py):
first those that the first picture, click, recolouring and drag need, then the rest.
"""

from __future__ import annotations

import contextlib
import importlib
import json
import multiprocessing
import os
import pathlib
import subprocess
import sys
import time
from collections.abc import Callable, Sequence
from concurrent.futures import ProcessPoolExecutor, as_completed
from importlib.metadata import version
from typing import NamedTuple

from . import HAS_KERNELS, worker_process
from .files import state_folder

CORE = pathlib.Path(__file__).parent / "core"
LIST = CORE / "signatures.json"
#: In this order.
GROUPS = ("first", "rest")
#: What a kernel's arguments are where it is compiled as its module is imported, or has only one
#: kind.
ALWAYS = ""


class Job(NamedTuple):
    """A kernel to compile: its module in ``core``, its name, its arguments, and about how many
    seconds that takes.
    """

    module: str
    name: str
    arguments: str
    seconds: float


def listed(group: str) -> list[Job]:
    """Return the kernels of a group, those that take longest first."""
    return sorted(
        (Job(*one) for one in json.loads(LIST.read_text())[group]), key=lambda job: -job.seconds
    )


def _mark(group: str) -> pathlib.Path:
    """Return the path of a file that exists once these sources' group has been compiled by this
    compiler.

    It lies where the compiler keeps its code: in a folder it is told, beside the sources, or else
    with what is kept for a person.
    """
    newest = max(path.stat().st_mtime_ns for path in CORE.rglob("*.py"))
    if told := os.environ.get("NUMBA_CACHE_DIR"):
        folder = pathlib.Path(told)
    else:
        folder = CORE / "__pycache__" if os.access(CORE, os.W_OK) else state_folder() / "compiled"
    return folder / f"{group}-{version('numba')}-{newest}"


def is_warm(group: str = "first") -> bool:
    """Return whether the kernels of a group have been compiled already, here or with the
    package.
    """
    if HAS_KERNELS:
        return True
    try:
        return _mark(group).exists()
    except OSError:
        return False


def compile_one(job: Job) -> float:
    """Compile one kernel, or find it compiled on the disk; return its ``seconds``."""
    module = importlib.import_module(f"{__package__}.core.{job.module}")
    if job.name:
        made = getattr(module, job.name)
        if job.arguments == ALWAYS:
            made.address  # noqa: B018  (a step is compiled when its address is asked for)
        else:
            from numba.core.sigutils import normalize_signature

            # Kept on the disk under what it is given: types, as a call gives them.
            made.real().compile(tuple(normalize_signature(job.arguments)[0]))
    return job.seconds


def warm(groups: Sequence[str] = GROUPS, step: Callable[[float], None] | None = None) -> None:
    """Compile the kernels of some groups, in their order; ``step`` is told the share that is done,
    and may raise to stop it.
    """
    left = [group for group in groups if not is_warm(group)]
    jobs = [job for group in left for job in listed(group)]
    if not jobs:
        return
    done, whole = 0.0, sum(job.seconds for job in jobs)
    # New processes: the compiler's threads do not outlive a fork.
    with ProcessPoolExecutor(
        os.cpu_count(), multiprocessing.get_context("spawn"), worker_process.begin
    ) as pool:
        try:
            for finished in as_completed([pool.submit(compile_one, job) for job in jobs]):
                done += finished.result()
                if step is not None:
                    step(done / whole)
        except BaseException:
            pool.shutdown(cancel_futures=True)
            raise
    with contextlib.suppress(OSError):  # compiled all the same; it will only be looked at again
        for group in left:
            mark = _mark(group)
            mark.parent.mkdir(parents=True, exist_ok=True)
            mark.touch()


def warm_rest_beside() -> None:
    """Compile what is left in a process of low priority, which outlives this one."""
    if not is_warm("rest"):
        environment = os.environ | {
            "PYTHONPATH": os.pathsep.join(path for path in sys.path if path)
        }
        subprocess.Popen(
            ["nice", "-n", "19", sys.executable, "-m", f"{__package__}.warm"],
            env=environment,
            stdin=subprocess.DEVNULL,
            stdout=subprocess.DEVNULL,
            stderr=subprocess.DEVNULL,
            start_new_session=True,
        )


def main(groups: Sequence[str]) -> None:
    """Compile groups, and tell how far they are and about how long it still takes: on one line of a
    terminal, else now and then.
    """
    began = told = time.monotonic()
    alive = sys.stdout.isatty()

    def tell(share: float) -> None:
        nonlocal told
        now = time.monotonic()
        if share < 1 and now - told < (0.5 if alive else 10):
            return
        told = now
        left = f", about {(now - began) * (1 - share) / share:.0f} s left" if share < 1 else ""
        words = f"Compiling for this computer (once): {share:.0%}{left}"
        print(
            f"\r{words:<72}" if alive else words,
            end="" if alive and share < 1 else "\n",
            flush=True,
        )

    warm(groups, tell)


if __name__ == "__main__":
    main(sys.argv[1:] or GROUPS)
