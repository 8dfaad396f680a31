"""Timing as ratios to one copy of the same planes, measured in the same run; finds the sources, and
has a home of its own.
"""

import pathlib
import statistics
import sys
import time
from collections.abc import Callable

import numpy as np

ROOT = pathlib.Path(__file__).parent.parent
sys.path.insert(0, str(ROOT / "src"))
sys.path.append(str(ROOT / "tests"))  # behind this folder: both have a `common`
import own_home  # noqa: E402, F401


def seconds(work: Callable[[], object], runs: int = 9) -> float:
    """Median time of ``work`` after one run to warm up."""
    work()
    times = []
    for _ in range(runs):
        started = time.perf_counter()
        work()
        times.append(time.perf_counter() - started)
    return statistics.median(times)


class Ruler:
    """The time of copying one set of float32 planes of a size."""

    def __init__(self, width: int, height: int, runs: int = 9) -> None:
        self.planes = np.random.default_rng(1).random((3, height, width), dtype=np.float32)
        self.runs = runs
        self.spare = np.empty_like(self.planes)
        self.copy = seconds(lambda: np.copyto(self.spare, self.planes), max(runs, 9))
        print(
            f"\n{width} x {height}: one copy of three float32 planes takes {self.copy * 1e3:.2f} ms"
        )

    def tell(self, name: str, work: Callable[[], object], bound: float | None = None) -> float:
        """Print how many copies ``work`` takes."""
        ratio = seconds(work, self.runs) / self.copy
        print(
            f"  {name:54}{ratio:8.2f} copies"
            + (f"   (asked for: at most {bound:g})" if bound else ""),
            flush=True,
        )
        return ratio
