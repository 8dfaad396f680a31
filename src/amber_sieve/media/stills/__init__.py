"""Pictures: read into light, written from it."""

from .reader import about, parts_of, read, samples_of
from .still import Still
from .writer import AS_READ, StillForm, is_grey, store, write, write_mask, write_masks

__all__ = [
    "AS_READ",
    "Still",
    "StillForm",
    "about",
    "is_grey",
    "parts_of",
    "read",
    "samples_of",
    "store",
    "write",
    "write_mask",
    "write_masks",
]
