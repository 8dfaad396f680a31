"""Writing files so that a failure leaves the earlier file whole."""

from __future__ import annotations

import contextlib
import os
import pathlib
import secrets
from collections.abc import Iterator

from .errors import Trouble


@contextlib.contextmanager
def written_beside(target: pathlib.Path) -> Iterator[pathlib.Path]:
    """A path beside ``target`` to write to; renamed onto it when the block ends well, removed when it does not.

    Raises
    ------
    Trouble: the folder is missing or cannot be written to, or the disk is full.
    """
    target = pathlib.Path(target)
    if target.is_dir():
        raise Trouble(f"{target} is a folder: give the name of a file to write.")
    if not target.parent.is_dir():
        raise Trouble(f"The folder {target.parent} does not exist: make it, or choose another place.")
    # The ending stays last: writers choose the format by it.
    partial = target.with_name(f".{secrets.token_hex(4)}.{target.name}")
    try:
        yield partial
        os.replace(partial, target)
    except OSError as error:
        raise Trouble(f"{target} could not be written ({error.strerror or error}): choose another place or free some space.") from error
    finally:
        partial.unlink(missing_ok=True)
