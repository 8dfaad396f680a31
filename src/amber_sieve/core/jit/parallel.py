"""Declare kernels. The compiler comes with the first that is called: most commands, and a start of
the window, call none.
"""

from __future__ import annotations

import contextlib
import functools
import threading
from collections.abc import Callable, Iterator
from types import FunctionType
from typing import Any

import numpy as np

#: Held while something is made; kernels make those that they use.
_MAKING = threading.RLock()


class _Named:
    """Stands for something of the `compiler`, by its name, until a kernel that uses it is made."""

    def __init__(self, name: str) -> None:
        self._name = name

    def real(self) -> Any:
        """Return the object of the compiler that it stands for."""
        from . import compiler

        return getattr(compiler, self._name)


class Kernel:
    """A function that is compiled, or taken from the disk, when it is first called."""

    def __init__(self, function: Callable[..., Any], **how: Any) -> None:
        functools.update_wrapper(self, function)
        self._function, self._how = function, how
        self._made: Callable[..., Any] | None = None

    def __call__(self, *given: Any, **named: Any) -> Any:
        return (self._made or self.real())(*given, **named)

    @property
    def made(self) -> bool:
        """Return whether it is compiled for anything."""
        return bool(getattr(self._made, "overloads", ()))

    def real(self) -> Callable[..., Any]:
        """The compiler's function."""
        with _MAKING:
            if self._made is None:
                from . import compiler

                self._made = compiler.dispatcher(_ready(self._function), **self._how)
            return self._made


def _ready(function: Callable[..., Any]) -> FunctionType:
    """The function with what its names stand for in the place of kernels not made yet: the compiler
    knows only its own.
    """
    assert isinstance(function, FunctionType)
    known = function.__globals__
    used = {
        name: known[name].real()
        for name in function.__code__.co_names
        if isinstance(known.get(name), Kernel | _Named)
    }
    return FunctionType(
        function.__code__,
        known | used,
        function.__name__,
        function.__defaults__,
        function.__closure__,
    )


def kernel(function: Callable[..., Any]) -> Kernel:
    """Compile a kernel whose outer loop is a ``prange`` over rows; kept on disk between runs.

    Kernels may assume finite input: what is read from a file is made finite there (`media`).
    """
    return Kernel(function, parallel=True, nogil=True)


def serial_kernel(function: Callable[..., Any]) -> Kernel:
    """Compile a kernel that runs on one core because its steps build on each other."""
    return Kernel(function, nogil=True)


def inner(function: Callable[..., Any]) -> Kernel:
    """Compile a small function that kernels take into their loops."""
    return Kernel(function, inline="always")


def threads() -> int:
    """Return the number of threads that kernels which this thread calls share their rows among."""
    import numba  # a slow import

    return int(numba.get_num_threads())


@contextlib.contextmanager
def one_thread() -> Iterator[None]:
    """Kernels that this thread calls meanwhile do not share their rows."""
    import numba  # a slow import

    before = numba.get_num_threads()
    numba.set_num_threads(1)
    try:
        yield
    finally:
        numba.set_num_threads(before)


#: Loops whose turns share the threads, in a kernel; an array at a pointer, in a step.
prange: Any = _Named("prange")
carray: Any = _Named("carray")
#: See `compiler`.
call_step: Any = _Named("call_step")
bits_of: Any = _Named("bits_of")
float_of: Any = _Named("float_of")
lerp_rgba4: Any = _Named("lerp_rgba4")
more_than: Any = _Named("more_than")
set_bits: Any = _Named("set_bits")
lowest_bit: Any = _Named("lowest_bit")
weighed_corners: Any = _Named("weighed_corners")


@inner
def index_in(place: Any, last: Any) -> Any:
    """Return where in a table of ``last`` + 1 entries a float32 points, cut off at both ends as an
    integer.

    Comparing floats is not enough: with ``fastmath`` a NaN may pass any comparison, and would point
    outside the table.
    """
    return np.uintp(min(max(np.int32(place), np.int32(0)), np.int32(last)))


#: A pointwise step: red, green and blue of a row one after another (3 · n float32), n, and the
#: step's own numbers.
STEP_SIGNATURE = "void(CPointer(float32), int64, CPointer(float32))"


class RowStep:
    """A pointwise step that changes one row in place; compiled, or taken from the disk, when its
    address is first asked for.
    """

    def __init__(self, function: Callable[..., Any]) -> None:
        self._function = function
        self._made: Any = None

    @property
    def made(self) -> bool:
        """Return whether it is compiled."""
        return self._made is not None

    @property
    def address(self) -> int:
        """Return where the compiled step stands; `compiler.call_step` runs it from there."""
        with _MAKING:
            if self._made is None:
                from . import compiler

                self._made = compiler.callback(_ready(self._function), STEP_SIGNATURE)
            return int(self._made.address)


def row_step(function: Callable[..., Any]) -> RowStep:
    """Make a pointwise step of a function of a row, its width and its numbers."""
    return RowStep(function)
