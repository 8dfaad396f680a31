"""How the kernels are compiled and which thread pool runs them."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import numba
from llvmlite import ir
from numba.core import types
from numba.extending import intrinsic

# Numba's own work queue aborts the process when two Python threads enter it at once (a preview and an export do).
# OpenMP and TBB are safe; OpenMP needs only the compiler's run-time library, which set-up installs.
numba.config.THREADING_LAYER_PRIORITY = ["omp", "tbb", "workqueue"]


def kernel(function: Callable[..., Any]) -> Callable[..., Any]:
    """Compile a kernel whose outer loop is a ``prange`` over rows; kept on disk between runs.

    Kernels may assume finite input: what is read from a file is made finite there (`media`).
    """
    compiled: Callable[..., Any] = numba.njit(parallel=True, fastmath=True, cache=True, error_model="numpy")(function)
    return compiled


def serial_kernel(function: Callable[..., Any]) -> Callable[..., Any]:
    """Compile a kernel that runs on one core because its steps build on each other."""
    compiled: Callable[..., Any] = numba.njit(fastmath=True, cache=True, nogil=True, error_model="numpy")(function)
    return compiled


def inner(function: Callable[..., Any]) -> Callable[..., Any]:
    """Compile a small function that kernels take into their loops."""
    compiled: Callable[..., Any] = numba.njit(fastmath=True, cache=True, inline="always", error_model="numpy")(function)
    return compiled


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
