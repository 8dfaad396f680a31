"""What the kernels need of the compiler. It is imported with the first kernel that is called: it takes a third of a second."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import numba
from llvmlite import ir
from numba.core import types
from numba.core.ccallback import CFunc
from numba.core.sigutils import normalize_signature
from numba.extending import intrinsic

from .kernel_cache import KernelCache

# Numba's own work queue aborts the process when two Python threads enter it at once (a preview and an export do).
# OpenMP and TBB are safe; OpenMP needs only the compiler's run-time library, which set-up installs.
numba.config.THREADING_LAYER_PRIORITY = ["omp", "tbb", "workqueue"]

#: Loops whose turns share the threads.
prange: Any = numba.prange
#: An array at a pointer.
carray: Any = numba.carray


def dispatcher(function: Callable[..., Any], **how: Any) -> Callable[..., Any]:
    """The function, compiled for each kind of arguments when it is first called with them."""
    made: Any = numba.njit(fastmath=True, error_model="numpy", **how)(function)
    made._cache = KernelCache(function)
    return made


def callback(function: Callable[..., Any], signature: str) -> Any:
    """The function, compiled so that it has an ``address`` at which it can be called from anywhere."""
    made: Any = CFunc(
        function, normalize_signature(signature), locals={}, options={"nopython": True, "fastmath": True, "error_model": "numpy"}
    )
    made._cache = KernelCache(function)
    made.compile()
    return made


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
