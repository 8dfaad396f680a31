"""Runs all tests with unittest, three modules at a time, and ends with «N passed, N failed»."""

import contextlib
import faulthandler
import importlib
import os
import pathlib
import re
import signal
import sys
import tempfile
import time
import unittest
from typing import IO

HERE = pathlib.Path(__file__).parent
sys.path[:0] = [str(HERE), str(HERE.parent / "src")]
importlib.import_module("own_home")
#: Modules that take longest are begun first, so that none is waited for at the end.
LONGEST = (
    "test_tracks", "test_edge", "test_foundations", "test_preview", "test_footage", "test_adjust_window", "test_clip", "test_edge_found",
    "test_clicks_window", "test_batch", "test_clicks", "test_long_sessions", "test_guide", "test_window", "test_export", "test_tray",
)  # fmt: skip
AT_A_TIME = 3
#: Seconds after which a module hangs: it says where, fails, and is ended. The longest takes half of this beside two others.
HANGS = 600
#: Tests that take more seconds than this are named.
LONG = 5.0
#: Modules run side by side, so each keeps to one core: threads that wait for each other's cores take longer than one alone.
ALONE = {"OMP_NUM_THREADS": "1", "NUMBA_NUM_THREADS": "1", "OPENCV_FOR_THREADS_NUM": "1", "OPENBLAS_NUM_THREADS": "1"}


class Result(unittest.TextTestResult):
    """Counts what passed, and says which tests took long."""

    passed = 0
    began = 0.0

    def startTest(self, test: unittest.TestCase) -> None:
        self.began = time.monotonic()
        super().startTest(test)

    def stopTest(self, test: unittest.TestCase) -> None:
        super().stopTest(test)
        if (took := time.monotonic() - self.began) > LONG:
            print(f"{took:.0f} s: {test.id()}", flush=True)

    def addSuccess(self, test: unittest.TestCase) -> None:
        self.passed += 1
        super().addSuccess(test)


def run_here(pattern: str) -> int:
    """Run the modules of a pattern in this process."""
    sys.path[:0] = [str(HERE), str(HERE.parent / "src")]
    suite = unittest.defaultTestLoader.discover(str(HERE), pattern=pattern)
    result = unittest.TextTestRunner(verbosity=1, resultclass=Result, buffer=False).run(suite)
    assert isinstance(result, Result)
    failed = len(result.failures) + len(result.errors) + len(result.unexpectedSuccesses)
    print(f"{result.passed} passed, {failed} failed, {len(result.skipped)} skipped", flush=True)
    return 1 if failed or not result.passed else 0


def begin(path: pathlib.Path, said: IO[bytes]) -> int:
    """Run one module in a copy of this process, which has imported what all need; what it says goes to a file. Returns its number."""
    sys.stdout.flush()
    sys.stderr.flush()
    child = os.fork()
    if child:
        return child
    os.dup2(said.fileno(), 1)
    os.dup2(said.fileno(), 2)
    os.setsid()
    faulthandler.enable()
    faulthandler.dump_traceback_later(HANGS, exit=True)
    code = run_here(path.name)
    sys.stdout.flush()
    sys.stderr.flush()
    # As the program itself ends: at exit PyQt takes objects apart in an order in which it may read what is gone already.
    os._exit(code)


def counted(path: pathlib.Path, status: int, took: float, said: str) -> tuple[int, int, int]:
    """Print what a module said; returns passed, failed, skipped."""
    print(f"\n== {path.stem}, {took:.0f} s\n{said}", flush=True)
    counts = re.findall(r"^(\d+) passed, (\d+) failed, (\d+) skipped$", said, re.MULTILINE)
    if not counts:  # it ended before it could say: that is a failure too
        print(f"{path.stem} ended with status {status} and no result", flush=True)
        return 0, 1, 0
    passed, failed, skipped = (int(count) for count in counts[-1])
    return passed, failed or int(status != 0), skipped


def run_all(modules: list[pathlib.Path]) -> list[tuple[int, int, int]]:
    """Run modules, each in a process of its own and so many at a time."""
    waiting, running, results = list(modules), {}, []
    with contextlib.ExitStack() as files:
        while waiting or running:
            while waiting and len(running) < AT_A_TIME:
                path, said = waiting.pop(0), files.enter_context(tempfile.TemporaryFile())
                running[begin(path, said)] = path, said, time.monotonic()
            child, status = os.wait()
            path, said, started = running.pop(child)
            with contextlib.suppress(ProcessLookupError):
                os.killpg(child, signal.SIGKILL)  # whatever it began and left behind ends with it
            said.seek(0)
            results.append(counted(path, status, time.monotonic() - started, said.read().decode(errors="replace")))
    return results


def main() -> int:
    if len(sys.argv) > 1:
        return run_here(sys.argv[1])
    started = time.monotonic()
    os.environ.update(ALONE)
    sys.path[:0] = [str(HERE), str(HERE.parent / "src")]
    for module in (
        "amber_sieve.desk.app",
        "amber_sieve.core.compiler",
    ):  # once for all test modules: it takes seconds, and starts no thread
        importlib.import_module(module)
    modules = sorted(
        HERE.glob("test_*.py"), key=lambda path: (LONGEST.index(path.stem) if path.stem in LONGEST else len(LONGEST), path.stem)
    )
    passed, failed, skipped = (sum(column) for column in zip(*run_all(modules), strict=True))
    print(f"tests took {time.monotonic() - started:.0f} s", flush=True)
    print(f"{passed} passed, {failed} failed, {skipped} skipped", flush=True)
    return 1 if failed or not passed else 0


if __name__ == "__main__":
    sys.exit(main())
