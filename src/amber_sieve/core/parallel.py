"""How the kernels are compiled and which thread pool runs them."""

from __future__ import annotations

import threading
from collections.abc import Callable
from typing import Any

import numba
import numpy as np
from llvmlite import ir
from numba.core import types
from numba.core.ccallback import CFunc
from numba.core.sigutils import normalize_signature
from numba.extending import intrinsic

from .kernel_cache import KernelCache

# Numba's own work queue aborts the process when two Python threads enter it at once (a preview and an export do).
# OpenMP and TBB are safe; OpenMP needs only the compiler's run-time library, which set-up installs.
numba.config.THREADING_LAYER_PRIORITY = ["omp", "tbb", "workqueue"]


def _compiled(function: Callable[..., Any], **how: Any) -> Callable[..., Any]:
    made: Any = numba.njit(fastmath=True, error_model="numpy", **how)(function)
    made._cache = KernelCache(function)
    return made


def kernel(function: Callable[..., Any]) -> Callable[..., Any]:
    """Compile a kernel whose outer loop is a ``prange`` over rows; kept on disk between runs.

    Kernels may assume finite input: what is read from a file is made finite there (`media`).
    """
    return _compiled(function, parallel=True, nogil=True)


def serial_kernel(function: Callable[..., Any]) -> Callable[..., Any]:
    """Compile a kernel that runs on one core because its steps build on each other."""
    return _compiled(function, nogil=True)


def inner(function: Callable[..., Any]) -> Callable[..., Any]:
    """Compile a small function that kernels take into their loops."""
    return _compiled(function, inline="always")


@inner
def index_in(place: Any, last: Any) -> Any:
    """Where in a table of ``last`` + 1 entries a float32 points, cut off at both ends as an integer.

    Comparing floats is not enough: with ``fastmath`` a NaN may pass any comparison, and would point outside the table.
    """
    return np.uintp(min(max(np.int32(place), np.int32(0)), np.int32(last)))


#: A pointwise step: red, green and blue of a row one after another (3 · n float32), n, and the step's own numbers.
STEP_SIGNATURE = "void(CPointer(float32), int64, CPointer(float32))"


class RowStep:
    """A pointwise step that changes one row in place; compiled, or taken from the disk, when its address is first asked for: a start of the
    program uses none of them."""

    def __init__(self, function: Callable[..., Any]) -> None:
        self._function = function
        self._lock = threading.Lock()
        self._made: Any = None

    @property
    def made(self) -> bool:
        """Whether it is compiled."""
        return self._made is not None

    @property
    def address(self) -> int:
        """Where the compiled step stands; `call_step` runs it from there."""
        with self._lock:
            if self._made is None:
                options = {"nopython": True, "fastmath": True, "error_model": "numpy"}
                made: Any = CFunc(self._function, normalize_signature(STEP_SIGNATURE), locals={}, options=options)
                made._cache = KernelCache(self._function)
                made.compile()
                self._made = made
            return int(self._made.address)


def row_step(function: Callable[..., Any]) -> RowStep:
    """Make a pointwise step of a function of a row, its width and its numbers."""
    return RowStep(function)


@intrinsic  # type: ignore[untyped-decorator]
def call_step(typing_context: Any, address: Any, row: Any, width: Any, numbers: Any, start: Any) -> Any:
    """Run the step at ``address`` over a row (3 · width,) float32, with its numbers from ``start`` on in a (N,) float32 array."""

    def code(context: Any, builder: Any, signature: Any, arguments: Any) -> Any:
        where, row_value, size, numbers_value, first = arguments
        row_data = context.make_array(signature.args[1])(context, builder, row_value).data
        numbers_data = context.make_array(signature.args[3])(context, builder, numbers_value).data
        kind = ir.FunctionType(ir.VoidType(), [row_data.type, ir.IntType(64), numbers_data.type])
        builder.call(builder.inttoptr(where, kind.as_pointer()), [row_data, size, builder.gep(numbers_data, [first])])
        return context.get_dummy_value()

    return types.void(types.int64, row, types.int64, numbers, types.int64), code


@intrinsic  # type: ignore[untyped-decorator]
def bits_of(typing_context: Any, value: Any) -> Any:
    """The 32 bits of a float32 as an int32."""

    def code(context: Any, builder: Any, signature: Any, arguments: Any) -> Any:
        return builder.bitcast(arguments[0], ir.IntType(32))

    return types.int32(types.float32), code


@intrinsic  # type: ignore[untyped-decorator]
def float_of(typing_context: Any, value: Any) -> Any:
    """The float32 with these 32 bits."""

    def code(context: Any, builder: Any, signature: Any, arguments: Any) -> Any:
        return builder.bitcast(arguments[0], ir.FloatType())

    return types.float32(types.int32), code
