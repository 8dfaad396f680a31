"""Sets that have nothing in common and are united again and again: each is known by one of its
members, its root.

B. A. Galler, M. J. Fisher, "An improved equivalence algorithm" (1964; from memory); ways to a root
are halved as they are gone.
"""

from __future__ import annotations

import numpy as np

from .jit.parallel import inner


@inner
def find_root(parents: np.ndarray, member: int) -> int:
    """The member that stands for the set of another one, by the next member on the way there of
    each (N,); the way is made shorter.
    """
    while parents[member] != member:
        parents[member] = parents[parents[member]]
        member = parents[member]
    return member
