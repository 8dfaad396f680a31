"""Runs all tests with unittest, two modules at a time, and ends with «N passed, N failed»."""

import os
import pathlib
import re
import subprocess
import sys
import time
import unittest
from concurrent.futures import ThreadPoolExecutor

HERE = pathlib.Path(__file__).parent
#: Modules that take longest are begun first, so that none is waited for at the end.
LONGEST = (
    "test_foundations", "test_adjust_window", "test_clip", "test_window", "test_edge_found", "test_tracks", "test_preview", "test_footage",
    "test_face", "test_harm", "test_batch", "test_long_sessions", "test_export", "test_pick_window", "test_footage_colour", "test_tray", "test_clicks",
)  # fmt: skip
AT_A_TIME = 2
#: Modules run side by side, so each keeps to one core: threads that wait for each other's cores take longer than one alone.
ALONE = {"OMP_NUM_THREADS": "1", "NUMBA_NUM_THREADS": "1", "OPENCV_FOR_THREADS_NUM": "1", "OPENBLAS_NUM_THREADS": "1"}


class Result(unittest.TextTestResult):
    """Counts what passed."""

    passed = 0

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


def run_apart(path: pathlib.Path) -> tuple[int, int, int]:
    """Run one module in a process of its own, and print what it said; returns passed, failed, skipped."""
    started = time.monotonic()
    done = subprocess.run([sys.executable, __file__, path.name], capture_output=True, text=True, errors="replace", env=os.environ | ALONE)
    counts = re.findall(r"^(\d+) passed, (\d+) failed, (\d+) skipped$", done.stdout, re.MULTILINE)
    print(f"\n== {path.stem}, {time.monotonic() - started:.0f} s\n{done.stdout}{done.stderr}", flush=True)
    if not counts:  # it ended before it could say: that is a failure too
        print(f"{path.stem} ended with code {done.returncode} and no result", flush=True)
        return 0, 1, 0
    passed, failed, skipped = (int(count) for count in counts[-1])
    return passed, failed or int(done.returncode != 0), skipped


def main() -> int:
    if len(sys.argv) > 1:
        return run_here(sys.argv[1])
    started = time.monotonic()
    modules = sorted(
        HERE.glob("test_*.py"), key=lambda path: (LONGEST.index(path.stem) if path.stem in LONGEST else len(LONGEST), path.stem)
    )
    with ThreadPoolExecutor(AT_A_TIME) as pool:
        results = list(pool.map(run_apart, modules))
    passed, failed, skipped = (sum(column) for column in zip(*results, strict=True))
    print(f"tests took {time.monotonic() - started:.0f} s", flush=True)
    print(f"{passed} passed, {failed} failed, {skipped} skipped", flush=True)
    return 1 if failed or not passed else 0


if __name__ == "__main__":
    sys.exit(main())
