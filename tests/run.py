"""Runs all tests with unittest, several modules at a time, and ends with «N passed, N failed».

``run.py`` runs all; ``run.py FILE…`` runs those alone; ``run.py --record`` runs all and writes
the seconds of each module to seconds.json, by which the longest are begun first.
"""

import contextlib
import faulthandler
import importlib
import json
import os
import pathlib
import re
import signal
import sys
import tempfile
import time
import unittest
from typing import IO

import own_home

HERE = pathlib.Path(__file__).parent

#: Seconds that each module took when they were last recorded.
SECONDS = HERE / "seconds.json"
AT_A_TIME = (os.cpu_count() or 2) + 1
#: Seconds after which a module hangs: it says where, fails, and is ended.
HANGS = 900
#: Tests that take more seconds than this are named.
LONG = 5.0
#: Modules run side by side, so each keeps to one core: threads that wait for each other's cores
#: take longer than one alone.
ALONE = dict.fromkeys(
    ("OMP_NUM_THREADS", "NUMBA_NUM_THREADS", "OPENCV_FOR_THREADS_NUM", "OPENBLAS_NUM_THREADS"), "1"
)


class Result(unittest.TextTestResult):
    """Counts what passed, and names the tests that took long."""

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


def name_of(path: pathlib.Path) -> str:
    """Return a module's path below tests/, without its ending."""
    return str(path.relative_to(HERE).with_suffix(""))


def run_here(path: pathlib.Path) -> int:
    """Run one module in this process."""
    suite = unittest.TestLoader().discover(str(path.parent), pattern=path.name)
    result = unittest.TextTestRunner(resultclass=Result).run(suite)
    assert isinstance(result, Result)
    failed = len(result.failures) + len(result.errors) + len(result.unexpectedSuccesses)
    print(f"{result.passed} passed, {failed} failed, {len(result.skipped)} skipped", flush=True)
    return 1 if failed or not result.passed else 0


def begin(path: pathlib.Path, said: IO[bytes]) -> int:
    """Run one module in a fork of this process, which has imported what all need.

    Its output goes to the file ``said``. Returns the process's number.
    """
    sys.stdout.flush()
    sys.stderr.flush()
    child = os.fork()
    if child:
        return child
    os.dup2(said.fileno(), 1)
    os.dup2(said.fileno(), 2)
    os.setsid()
    own_home.renew()  # preferences of one module are not another's
    faulthandler.enable()
    faulthandler.dump_traceback_later(HANGS, exit=True)
    code = run_here(path)
    sys.stdout.flush()
    sys.stderr.flush()
    own_home.remove()
    # As the program itself ends: at exit PyQt takes objects apart in an order in which it may
    # read what is gone already.
    os._exit(code)


def counted(path: pathlib.Path, status: int, took: float, said: str) -> tuple[int, int, int]:
    """Print what a module said; return passed, failed, skipped."""
    said = said.replace("This plugin does not support propagateSizeHints()\n", "")
    print(f"\n== {name_of(path)}, {took:.0f} s\n{said}", flush=True)
    counts = re.findall(r"^(\d+) passed, (\d+) failed, (\d+) skipped$", said, re.MULTILINE)
    if not counts:  # it ended before it could say: that is a failure too
        print(f"{path.stem} ended with status {status} and no result", flush=True)
        return 0, 1, 0
    passed, failed, skipped = (int(count) for count in counts[-1])
    return passed, failed or int(status != 0), skipped


def run_all(modules: list[pathlib.Path], seconds: dict[str, float]) -> list[tuple[int, int, int]]:
    """Run modules, each in a process of its own; their seconds go into ``seconds``."""
    waiting, running, results = list(modules), {}, []
    with contextlib.ExitStack() as files:
        while waiting or running:
            while waiting and len(running) < AT_A_TIME:
                path, said = waiting.pop(0), files.enter_context(tempfile.TemporaryFile())
                running[begin(path, said)] = path, said, time.monotonic()
            child, status = os.wait()
            path, said, started = running.pop(child)
            with contextlib.suppress(ProcessLookupError):
                os.killpg(child, signal.SIGKILL)  # what it began and left behind ends with it
            said.seek(0)
            took = seconds[name_of(path)] = round(time.monotonic() - started, 1)
            results.append(counted(path, status, took, said.read().decode(errors="replace")))
    return results


def main() -> int:
    files = [pathlib.Path(word).resolve() for word in sys.argv[1:] if word != "--record"]
    if missing := [str(path) for path in files if not path.is_file()]:
        print(
            f"There is no {missing[0]}. Give the path of a test file, as tests/core/test_frame.py.",
            file=sys.stderr,
        )
        return 2
    if len(files) == 1:
        return run_here(files[0])
    started = time.monotonic()
    os.environ.update(ALONE)
    for module in ("imported", "amber_sieve.desk.app"):
        importlib.import_module(
            module
        )  # once for all test modules: it takes seconds, and starts no thread
    recorded = json.loads(SECONDS.read_text()) if SECONDS.exists() else {}
    modules = sorted(
        files or HERE.rglob("test_*.py"), key=lambda path: -recorded.get(name_of(path), HANGS)
    )
    seconds: dict[str, float] = {}
    passed, failed, skipped = (
        sum(column) for column in zip(*run_all(modules, seconds), strict=True)
    )
    if "--record" in sys.argv:
        SECONDS.write_text(json.dumps(dict(sorted(seconds.items())), indent=1) + "\n")
    print(f"tests took {time.monotonic() - started:.0f} s", flush=True)
    print(f"{passed} passed, {failed} failed, {skipped} skipped", flush=True)
    return 1 if failed or not passed else 0


if __name__ == "__main__":
    sys.exit(main())
