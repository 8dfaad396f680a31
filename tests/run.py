"""Runs all tests with unittest and ends with «N passed, N failed»."""

import pathlib
import sys
import time
import unittest


class Result(unittest.TextTestResult):
    """Counts what passed, and says how long each module took."""

    passed = 0

    def addSuccess(self, test: unittest.TestCase) -> None:
        self.passed += 1
        super().addSuccess(test)


def main() -> int:
    here = pathlib.Path(__file__).parent
    sys.path[:0] = [str(here), str(here.parent / "src")]
    pattern = sys.argv[1] if len(sys.argv) > 1 else "test_*.py"
    started = time.monotonic()
    suite = unittest.defaultTestLoader.discover(str(here), pattern=pattern)
    result = unittest.TextTestRunner(verbosity=1, resultclass=Result, buffer=False).run(suite)
    assert isinstance(result, Result)
    failed = len(result.failures) + len(result.errors) + len(result.unexpectedSuccesses)
    print(f"tests took {time.monotonic() - started:.0f} s", flush=True)
    print(f"{result.passed} passed, {failed} failed, {len(result.skipped)} skipped", flush=True)
    return 1 if failed or not result.passed else 0


if __name__ == "__main__":
    sys.exit(main())
