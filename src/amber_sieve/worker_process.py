"""Begin a worker of a process pool."""

from __future__ import annotations

import multiprocessing
import os
import threading


def begin(cores: int = 0) -> None:
    """End this worker with its parent, and limit the cores of its kernels; 0 for all. Called
    before any kernel is imported.

    A pool's own worker sleeps for ever when its parent is killed: the other workers hold its pipe
    open.
    """
    if cores:
        os.environ["NUMBA_NUM_THREADS"] = os.environ["OMP_NUM_THREADS"] = str(cores)
    parent = multiprocessing.parent_process()
    assert parent is not None

    def follow() -> None:
        parent.join()
        os._exit(1)

    threading.Thread(target=follow, name="follows its parent", daemon=True).start()
