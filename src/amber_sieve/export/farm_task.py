"""Tasks for a cluster: the name of a function, not the function. It travels by value, so a
scheduler needs nothing but Dask.

Imports nothing of the program, for the scheduler has none of it.
"""

from __future__ import annotations

from typing import Any


def by_name(module: str, function: str, given: tuple[Any, ...]) -> tuple[bool, Any, str, float]:
    """Call a function of a module of the program, which is installed where this runs.

    Returns
    -------
    False and a word when this worker has no Amber Sieve, else True and what the function gives,
    pickled: nobody on the way reads it. Then the machine and process that did it, and the seconds
    it took.
    """
    import importlib
    import os
    import pickle
    import socket
    import time

    who, started = f"{socket.gethostname()} ({os.getpid()})", time.monotonic()
    try:
        found = getattr(importlib.import_module(module), function)
    except ImportError as error:
        return False, str(error), who, 0.0
    return True, pickle.dumps(found(*given)), who, time.monotonic() - started
