"""Frames worked side by side, a core each, and handed on in their order. No Qt.

Frames side by side keep cores busier than cores that share every row of one frame: what OpenCV and
FFmpeg do with one core then runs beside what the kernels do with another.
"""

from __future__ import annotations

import os
from collections import deque
from collections.abc import Callable, Generator, Iterable
from concurrent.futures import Future, ThreadPoolExecutor
from typing import TypeVar

from .errors import Trouble

T = TypeVar("T")
R = TypeVar("R")

#: Threads that work, each with one core.
WORKERS = max(2, (os.cpu_count() or 2) // 2)
#: Frames with more pixels than this are worked one by one with all cores: several at once would
#: take too much memory.
LARGEST = 12_000_000


def one_core() -> None:
    """Let the kernels that this thread calls run on it alone."""
    import numba  # a slow import

    numba.set_num_threads(1)


def in_order(
    items: Iterable[T], work: Callable[[T], R], size: tuple[int, int]
) -> Generator[R, None, None]:
    """Yield the results of some work on items, in their order.

    Items are taken one after another by the caller that asks for the outcome, no farther ahead than
    keeps the threads busy. Close the iterator
    to leave early: work that has begun is waited for. ``size`` is the width and height of a frame.
    """
    if size[0] * size[1] > LARGEST:
        yield from map(work, items)
        return
    pending: deque[Future[R]] = deque()
    waiting, broken = iter(items), None
    pool = ThreadPoolExecutor(WORKERS, "frame", one_core)
    try:
        while broken is None:
            try:
                item = next(waiting)
            except StopIteration:
                break
            except Trouble as trouble:  # what came before it is still handed on
                broken = trouble
                break
            pending.append(pool.submit(work, item))
            if len(pending) > WORKERS:
                yield pending.popleft().result()
        while pending:
            yield pending.popleft().result()
    finally:
        pool.shutdown(cancel_futures=True)
    if broken is not None:
        raise broken
