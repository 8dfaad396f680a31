"""Functions in processes of their own, forked from one that has imported the program already: that
takes a tenth of a fresh start.
"""

import multiprocessing
import os
import pathlib
import resource
import signal
import subprocess
import sys
import tempfile
from collections.abc import Callable
from multiprocessing import forkserver
from unittest import mock

ROOT = pathlib.Path(__file__).parent.parent
_context = multiprocessing.get_context("forkserver")
_context.set_forkserver_preload(["imported"])


#: Set where this module is imported by what it has started.
MARK = "BEGUN_BY_TESTS"


def _begin() -> None:
    """Start the process that is forked now, with the environment as it is before any test changes
    it.
    """
    given = {"PYTHONPATH": os.pathsep.join((str(ROOT / "src"), str(ROOT / "tests"))), MARK: "1"}
    with mock.patch.dict(os.environ, given):
        forkserver.ensure_running()


def _within(
    folder: str,
    environment: dict[str, str],
    out: str,
    complaints: str,
    limit: int | None,
    function: Callable,
    given: tuple,
) -> None:
    """Run a function as a process of its own would: its folder, its environment, its output."""
    os.chdir(folder)
    os.environ.clear()
    os.environ.update(environment)
    for path, number in ((out, 1), (complaints, 2)):
        os.dup2(os.open(path, os.O_WRONLY | os.O_CREAT | os.O_APPEND, 0o600), number)
    if limit is not None:
        no_room(limit)
    sys.exit(function(*given))


def no_room(limit: int) -> None:
    """Let no file of this process be longer, as if the disk were full (setrlimit(2),
    RLIMIT_FSIZE).
    """
    # Python would keep half of what it compiles, and every later process would fail on that
    sys.dont_write_bytecode = True
    signal.signal(signal.SIGXFSZ, signal.SIG_IGN)
    resource.setrlimit(resource.RLIMIT_FSIZE, (limit, limit))


def command(*words: object) -> int:
    """The command line; returns the exit code."""
    from amber_sieve.terminal.main import main

    return main([os.fsdecode(word) if isinstance(word, bytes) else str(word) for word in words])


def code(text: str) -> None:
    """A piece of Python."""
    exec(compile(text, "code", "exec"), {"__name__": "__main__"})


def run(
    function: Callable,
    *given: object,
    cwd: pathlib.Path = ROOT,
    environment: dict[str, str] | None = None,
    limit: int | None = None,
    timeout: float | None = 600,
) -> subprocess.CompletedProcess:
    """Run a function of a module in a process of its own.

    Parameters
    ----------
    function, given : the function, by which the process ends, and what it is given.
    environment : on top of this process's own.
    limit : bytes that a file of it may hold, as if the disk were full (setrlimit(2), RLIMIT_FSIZE).

    Raises
    ------
    subprocess.TimeoutExpired : after so many seconds; the process is killed.
    """
    with tempfile.TemporaryDirectory() as name:
        out, complaints = (pathlib.Path(name) / kind for kind in ("out", "complaints"))
        given_environment = dict(os.environ) | (environment or {})
        process = _context.Process(
            target=_within,
            args=(str(cwd), given_environment, str(out), str(complaints), limit, function, given),
        )
        process.start()
        process.join(timeout)
        if process.exitcode is None:
            process.kill()
            process.join()
            raise subprocess.TimeoutExpired(str(given)[:200], timeout or 0)
        said = [
            path.read_text(errors="replace") if path.exists() else "" for path in (out, complaints)
        ]
        return subprocess.CompletedProcess(given, process.exitcode, *said)


if MARK not in os.environ:
    _begin()
