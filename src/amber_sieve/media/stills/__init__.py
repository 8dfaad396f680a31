"""Pictures: read into light, written from it."""

from .reader import about, read
from .still import Still
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
