"""What the kernels need of the compiler. It is imported with the first kernel that is called: it takes a third of a second."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import llvmlite.binding
import numba
from llvmlite import ir
from numba.core.ccallback import CFunc
from numba.core.sigutils import normalize_signature
from numba.extending import intrinsic

from .kernel_cache import KernelCache

# Numba's own work queue aborts the process when two Python threads enter it at once (a preview and an export do).
# OpenMP and TBB are safe; OpenMP needs only the compiler's run-time library, which set-up installs.
numba.config.THREADING_LAYER_PRIORITY = ["omp", "tbb", "workqueue"]

# Where a processor takes sixteen numbers at once, the compiler on its own takes eight: a caution that costs powers a third of their speed.
_HAS = llvmlite.binding.get_host_cpu_features()
if numba.config.CPU_FEATURES is None and _HAS.get("avx512f"):
    numba.config.CPU_FEATURES = f"{_HAS.flatten()},-prefer-256-bit"

#: Loops whose turns share the threads.
prange: Any = numba.prange
#: An array at a pointer.
carray: Any = numba.carray
#: The compiler's names of kinds.
types: Any = numba.types


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


def compiled_in(code: Callable[..., Any]) -> Any:
    """What a kernel calls to have some code of the compiler's own put there; ``code`` gives its kinds, and who writes it."""
    return intrinsic(code)


@compiled_in
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


@compiled_in
def bits_of(typing_context: Any, value: Any) -> Any:
    """The 32 bits of a float32 as an int32."""

    def code(context: Any, builder: Any, signature: Any, arguments: Any) -> Any:
        return builder.bitcast(arguments[0], ir.IntType(32))

    return types.int32(types.float32), code


@compiled_in
def float_of(typing_context: Any, value: Any) -> Any:
    """The float32 with these 32 bits."""

    def code(context: Any, builder: Any, signature: Any, arguments: Any) -> Any:
        return builder.bitcast(arguments[0], ir.FloatType())

    return types.float32(types.int32), code


@compiled_in
def set_bits(typing_context: Any, value: Any) -> Any:
    """How many bits of a uint64 are set."""
    return types.uint64(types.uint64), lambda context, builder, signature, arguments: builder.ctpop(arguments[0])


@compiled_in
def lowest_bit(typing_context: Any, value: Any) -> Any:
    """Which bit of a uint64 that is not 0 is the lowest that is set."""
    never_zero = ir.Constant(ir.IntType(1), 1)
    return types.uint64(types.uint64), lambda context, builder, signature, arguments: builder.cttz(arguments[0], never_zero)


@compiled_in
def weighed_corners(
    typing_context: Any, table: Any, one: Any, two: Any, three: Any, four: Any, first: Any, second: Any, third: Any, fourth: Any
) -> Any:
    """Sum of four colours of a (N,) float32 table with their weights; a colour is four numbers at once, of which three come back."""

    def code(context: Any, builder: Any, signature: Any, arguments: Any) -> Any:
        data = context.make_array(signature.args[0])(context, builder, arguments[0]).data
        colour, lane = ir.VectorType(ir.FloatType(), 4), ir.IntType(32)
        nothing, everywhere = ir.Constant(colour, ir.Undefined), ir.Constant(ir.VectorType(lane, 4), [0] * 4)
        total: Any = ir.Constant(colour, [0.0] * 4)
        for place, weight in zip(arguments[1:5], arguments[5:], strict=True):
            held = builder.load(builder.bitcast(builder.gep(data, [place]), colour.as_pointer()))
            held.align = 4
            share = builder.shuffle_vector(builder.insert_element(nothing, weight, lane(0)), nothing, everywhere)
            total = builder.fadd(total, builder.fmul(share, held, flags=("fast",)), flags=("fast",))
        return context.make_tuple(builder, signature.return_type, [builder.extract_element(total, lane(k)) for k in range(3)])

    place, weight = types.uintp, types.float32
    return types.UniTuple(weight, 3)(table, place, place, place, place, weight, weight, weight, weight), code
