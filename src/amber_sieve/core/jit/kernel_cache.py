"""Keep compiled kernels between runs: where the compiler keeps them, and before that what a package
brings with it.
"""

from __future__ import annotations

import contextlib
import hashlib
import os
from collections.abc import Callable, Iterator
from types import CodeType
from typing import Any

import numpy as np
from numba.core.caching import (
    CompileResultCacheImpl,
    FunctionCache,
    IndexDataCacheFile,
    UserProvidedCacheLocator,
)

from ... import HAS_KERNELS
from ...compiled import PLACE

#: Set while a package is made: kernels are put where they are shipped.
MAKES_PACKAGE = bool(os.environ.get("AMBER_SIEVE_MAKES_PACKAGE"))


class _ShippedPlace(UserProvidedCacheLocator):
    """The folder of a package's kernels; nothing is written there but while one is made."""

    def __init__(self, function: Callable[..., Any], path: str) -> None:
        super().__init__(function, path)
        self._cache_path = os.path.join(PLACE, os.path.relpath(os.path.dirname(path), PLACE.parent))

    def ensure_cache_path(self) -> None:
        if MAKES_PACKAGE:
            super().ensure_cache_path()

    @classmethod
    def from_function(cls, function: Callable[..., Any], path: str) -> _ShippedPlace:
        return cls(function, path)


class _ShippedCode(CompileResultCacheImpl):
    _locator_classes = (_ShippedPlace,)


class _KeptCode(CompileResultCacheImpl):
    # The last is taken where nothing can be written anywhere.
    _locator_classes = (
        (_ShippedPlace,)
        if MAKES_PACKAGE
        else (*CompileResultCacheImpl._locator_classes, _ShippedPlace)
    )


class _CodeFiles(IndexDataCacheFile):
    """The files of a kernel. What is compiled for one kind of arguments has a name of its own, and
    is there before the index names it.

    By numbers, in the order of being written, two processes that compile for two kinds at once can
    give both the same; and what is ended in between leaves an index that names what lay there
    before. Code for other arguments would be run on these: it ends the program.
    """

    def save(self, key: Any, data: Any) -> None:
        kind = hashlib.sha256(repr(key[:2]).encode()).hexdigest()[:16]
        name = f"{os.path.splitext(self._index_name)[0]}.{kind}.nbc"
        self._save_data(name, data)
        named = self._load_index()
        if named.get(key) != name:
            self._save_index(named | {key: name})


def _said_by(code: CodeType) -> Iterator[object]:
    """Yield the bytecode, names and constants of some code and of the functions in it."""
    yield code.co_code
    yield code.co_names
    for one in code.co_consts:
        yield from _said_by(one) if isinstance(one, CodeType) else (one,)


def _taken_in(function: Any, seen: set[str]) -> Iterator[object]:
    """Yield what a kernel takes in, most of it from other files: the code of what it calls, and
    numbers that it names.
    """
    for name in function.__code__.co_names:
        held = function.__globals__.get(name)
        called = getattr(held, "py_func", None) or getattr(held, "_defn", None)
        whose = f"{called.__module__}.{called.__qualname__}" if called is not None else ""
        if called is not None and whose not in seen:
            seen.add(whose)
            yield from _said_by(called.__code__)
            yield from _taken_in(called, seen)
        elif isinstance(held, bool | int | float | tuple | np.generic | np.ndarray):
            yield name, _exactly(held)


def _exactly(held: object) -> object:
    """A number, or a tuple of them, so that its ``repr`` is the same in every process: NumPy's is
    as its print options are.
    """
    if isinstance(held, np.generic | np.ndarray):
        return held.dtype.str, held.tobytes()
    return tuple(_exactly(one) for one in held) if isinstance(held, tuple) else held


class _Readable(FunctionCache):
    """Kernels on a disk. What cannot be read, because it was cut off or is another program's, is
    compiled anew; and so is what takes in something that has changed, for which the compiler itself
    looks in the kernel's own file alone; and what was compiled in another way.
    """

    def __init__(self, function: Callable[..., Any], way: str) -> None:
        super().__init__(function)
        said = hashlib.sha256(repr([way, *_taken_in(function, set())]).encode()).hexdigest()
        stamp = self._impl.locator.get_source_stamp(), said
        self._cache_file = _CodeFiles(self._cache_path, self._impl.filename_base, stamp)

    def load_overload(self, signature: Any, context: Any) -> Any:
        try:
            return super().load_overload(signature, context)
        except Exception:  # unpickling raises anything
            return None


class _Shipped(_Readable):
    """Kernels that came with a package."""

    _impl_class = _ShippedCode


class KernelCache(_Readable):
    """Keeps a compiled kernel on disk, or goes on without: on a full or read-only disk the kernel
    itself is as good.
    """

    _impl_class = _KeptCode

    def __init__(self, function: Callable[..., Any], way: str) -> None:
        super().__init__(function, way)
        self._shipped = _Shipped(function, way) if HAS_KERNELS else None

    def load_overload(self, signature: Any, context: Any) -> Any:
        shipped = None if self._shipped is None else self._shipped.load_overload(signature, context)
        return shipped if shipped is not None else super().load_overload(signature, context)

    def save_overload(self, signature: Any, compiled: Any) -> None:
        with contextlib.suppress(Exception):  # it will be compiled again next time
            super().save_overload(signature, compiled)
