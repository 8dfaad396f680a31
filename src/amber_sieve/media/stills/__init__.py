"""Pictures: read into light, written from it.

What reads and writes them is loaded when it is first asked for: its libraries are large, and the
window is painted before.
"""

from __future__ import annotations

import importlib
from typing import TYPE_CHECKING, Any

from .still import Still

if TYPE_CHECKING:
    from .reader import about, read
    from .stored import parts_of
    from .writer import AS_READ, StillForm, is_grey, store, write, write_mask, write_masks

__all__ = [
    "AS_READ",
    "Still",
    "StillForm",
    "about",
    "is_grey",
    "parts_of",
    "read",
    "store",
    "write",
    "write_mask",
    "write_masks",
]
#: The module that each lies in, where that is not the writer.
_PLACES = {"about": "reader", "read": "reader", "parts_of": "stored"}


def __getattr__(name: str) -> Any:
    if name not in __all__:
        raise AttributeError(f"module {__name__!r} has no attribute {name!r}")
    globals()[name] = found = getattr(
        importlib.import_module(f".{_PLACES.get(name, 'writer')}", __name__), name
    )
    return found
