"""The same work on many things: in this process, in several, or on the workers of a Dask
cluster.
"""

from __future__ import annotations

import builtins
import concurrent.futures
import contextlib
import multiprocessing
import os
import pickle
import time
import types
from collections.abc import Callable, Generator, Sequence
from dataclasses import dataclass
from typing import Any, Generic, TypeVar

from .. import worker_process
from ..errors import Trouble
from ..language import translator
from . import farm_task

translate = translator("export")


T = TypeVar("T")
#: How often a piece of work is begun anew when the worker that had it is gone.
RETRIES = 5
#: Seconds to wait for a scheduler.
PATIENCE = "10s"


@dataclass(frozen=True)
class Done(Generic[T]):
    """A piece of work that is done: which of those given, what came of it, by which process of
    which machine, and in how many seconds.
    """

    number: int
    answer: T
    by: str
    seconds: float


def done_in_any_order(
    work: Callable[..., T], given: Sequence[tuple[Any, ...]], jobs: int = 1, scheduler: str = ""
) -> Generator[Done[T], None, None]:
    """Yield the results of ``work(*given[number])`` for every number, as they are done.

    ``work`` is a function of a module, and what it is given and gives can be pickled, unless
    ``jobs`` is 1 and no ``scheduler`` is named. Closing the iterator drops work that has not
    begun.

    Raises
    ------
    Trouble: the scheduler cannot be reached, or a process was ended from outside.
    """
    if scheduler:
        yield from _on_cluster(work, given, scheduler)
    elif jobs > 1:
        yield from _in_processes(work, given, jobs)
    else:
        for number, one in enumerate(given):
            started = time.monotonic()
            yield Done(number, work(*one), "", time.monotonic() - started)


def _timed(work: Callable[..., T], given: tuple[Any, ...]) -> tuple[T, str, float]:
    """Return a result, the process that made it, and its seconds."""
    started = time.monotonic()
    return work(*given), f"process {os.getpid()}", time.monotonic() - started


def _in_processes(
    work: Callable[..., T], given: Sequence[tuple[Any, ...]], jobs: int
) -> Generator[Done[T], None, None]:
    # Spawned, not forked: threads of the kernels do not survive a fork. Each gets its share of the
    # cores.
    cores = max(1, (os.cpu_count() or 1) // jobs)
    with concurrent.futures.ProcessPoolExecutor(
        jobs, multiprocessing.get_context("spawn"), worker_process.begin, (cores,)
    ) as pool:
        futures = {pool.submit(_timed, work, one): number for number, one in enumerate(given)}
        try:
            for future in concurrent.futures.as_completed(futures):
                yield Done(futures[future], *future.result())
        except concurrent.futures.process.BrokenProcessPool:
            raise Trouble(
                translate(
                    "One of the processes was ended from outside: start again, it goes on where "
                    "it stopped.",
                )
            ) from None
        finally:
            pool.shutdown(wait=False, cancel_futures=True)


def _on_cluster(
    work: Callable[..., T], given: Sequence[tuple[Any, ...]], scheduler: str
) -> Generator[Done[T], None, None]:
    try:
        import distributed  # an optional extra
    except ImportError:
        raise Trouble(
            translate(
                "Working on a cluster needs the extra «farm»: install it with pip install "
                "'amber-sieve[farm]'.",
            )
        ) from None
    try:
        client = distributed.Client(scheduler, timeout=PATIENCE)
    except (
        OSError,
        ValueError,
        TimeoutError,
        TypeError,
    ):  # the last where a certificate is asked for and there is none
        words = (
            translate("The scheduler {scheduler} cannot be reached with the certificate of this "
                    "machine: check Dask's settings.",
                scheduler=scheduler,
            )
            if scheduler.startswith("tls://")
            else translate("The scheduler {scheduler} cannot be reached: check its address, as in "
                    "tcp://name:8786.", scheduler=scheduler
            )
        )  # fmt: skip
        raise Trouble(words) from None
    # A function that belongs to no module travels by value: a scheduler that looks at the work
    # needs nothing of the program.
    task = types.FunctionType(farm_task.by_name.__code__, {"__builtins__": builtins}, "by_name")
    task.__module__ = "__main__"
    with contextlib.closing(client):
        futures = {
            client.submit(
                task, work.__module__, work.__name__, one, retries=RETRIES, pure=False
            ): number
            for number, one in enumerate(given)
        }
        try:
            for future in distributed.as_completed(list(futures)):
                try:
                    done, answer, who, seconds = future.result()
                    if not done:
                        raise Trouble(
                            translate(
                                "A worker of {scheduler} has no Amber Sieve ({answer}): install "
                                "amber-sieve[farm] where workers run.",
                                scheduler=scheduler,
                                answer=answer,
                            )
                        )
                    yield Done(futures[future], pickle.loads(answer), who, seconds)
                except distributed.client.FutureCancelledError:
                    raise Trouble(
                        translate(
                            "The scheduler {scheduler} has let go of the work: start again, it "
                            "goes on where it stopped.",
                            scheduler=scheduler,
                        )
                    ) from None
                except distributed.KilledWorker:
                    raise Trouble(
                        translate(
                            "A piece of the work has ended several workers: give them more "
                            "memory, or leave that file out.",
                        )
                    ) from None
        finally:
            client.cancel(list(futures))
