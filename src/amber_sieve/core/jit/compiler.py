"""The compiler for the kernels. It is imported with the first kernel that is called: it takes a
third of a second.
"""

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

# Numba's own work queue aborts the process when two Python threads enter it at once (a preview and
# an export do). OpenMP and TBB are safe; OpenMP needs only the compiler's run-time library, which
# set-up installs.
numba.config.THREADING_LAYER_PRIORITY = ["omp", "tbb", "workqueue"]

# Where a processor takes sixteen numbers at once, the compiler on its own takes eight: a caution
# that costs powers a third of their speed.
_HAS = llvmlite.binding.get_host_cpu_features()
if numba.config.CPU_FEATURES is None and _HAS.get("avx512f"):
    numba.config.CPU_FEATURES = f"{_HAS.flatten()},-prefer-256-bit"

#: Loops work on two vectors at once: the steps that a pixel goes through wait for each other, and
#: the processor does not look far enough ahead to find others. Four would need more numbers at hand
#: than it holds.
LOOPS = "-force-vector-interleave=2"
llvmlite.binding.set_option("", LOOPS)

#: Loops whose turns share the threads.
prange: Any = numba.prange
#: An array at a pointer.
carray: Any = numba.carray
#: The compiler's names of kinds.
types: Any = numba.types


def dispatcher(function: Callable[..., Any], **how: Any) -> Callable[..., Any]:
    """The function, compiled for each kind of arguments when it is first called with them."""
    made: Any = numba.njit(fastmath=True, error_model="numpy", **how)(function)
    made._cache = KernelCache(function, LOOPS)
    return made


def callback(function: Callable[..., Any], signature: str) -> Any:
    """The function, compiled so that it has an ``address`` at which it can be called from
    anywhere.
    """
    made: Any = CFunc(
        function,
        normalize_signature(signature),
        locals={},
        options={"nopython": True, "fastmath": True, "error_model": "numpy"},
    )
    made._cache = KernelCache(function, LOOPS)
    made.compile()
    return made


def compiled_in(code: Callable[..., Any]) -> Any:
    """Make a function that puts the compiler's own code into a kernel; ``code`` gives its kinds,
    and who writes it.
    """
    return intrinsic(code)


@compiled_in
def call_step(
    typing_context: Any, address: Any, row: Any, width: Any, numbers: Any, start: Any
) -> Any:
    """Run the step at ``address`` over a row (3 · width,) float32, with its numbers from ``start``
    on in a (N,) float32 array.
    """

    def code(context: Any, builder: Any, signature: Any, arguments: Any) -> Any:
        where, row_value, size, numbers_value, first = arguments
        row_data = context.make_array(signature.args[1])(context, builder, row_value).data
        numbers_data = context.make_array(signature.args[3])(context, builder, numbers_value).data
        kind = ir.FunctionType(ir.VoidType(), [row_data.type, ir.IntType(64), numbers_data.type])
        builder.call(
            builder.inttoptr(where, kind.as_pointer()),
            [row_data, size, builder.gep(numbers_data, [first])],
        )
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
def lerp_rgba4(
    typing_context: Any, row: Any, firsts: Any, shares: Any, place: Any, out: Any
) -> Any:
    """Write four screen pixels from ``place`` on, (N,) uint32, each mixed of two that stand side by
    side in a row.

    ``row`` has the four channels of its pixels, (4 · W,) int16 up to 255 · 2⁷; ``firsts`` (N,)
    int32 says which is the first of the two, ``shares`` (N,) int32 what part of each is taken, of
    2¹⁴: of the first in the low half, of the second in the high one.
    """

    def code(context: Any, builder: Any, signature: Any, arguments: Any) -> Any:
        byte, short, whole = ir.IntType(8), ir.IntType(16), ir.IntType(32)
        at = arguments[3]
        row_data, first_data, share_data, out_data = (
            context.make_array(signature.args[k])(context, builder, arguments[k]).data
            for k in (0, 1, 2, 4)
        )

        def at_once(kind: Any, count: int) -> Any:
            return ir.VectorType(kind, count)

        def shuffled(one: Any, other: Any, order: list[int]) -> Any:
            return builder.shuffle_vector(
                one, other, ir.Constant(at_once(whole, len(order)), order)
            )

        def alone(held: Any, order: list[int]) -> Any:
            return shuffled(held, ir.Constant(held.type, ir.Undefined), order)

        def loaded(data: Any, where: Any, kind: Any, align: int) -> Any:
            held = builder.load(builder.bitcast(builder.gep(data, [where]), kind.as_pointer()))
            held.align = align
            return held

        sides = []
        for pixel in range(4):
            first = builder.zext(
                builder.load(builder.gep(first_data, [builder.add(at, at.type(pixel))])), at.type
            )
            sides.append(loaded(row_data, builder.mul(first, at.type(4)), at_once(short, 8), 2))
        one, other = (shuffled(sides[k], sides[k + 1], list(range(16))) for k in (0, 2))
        channels = alone(
            shuffled(one, other, list(range(32))),
            [8 * pixel + 4 * side + n for pixel in range(4) for n in range(4) for side in (0, 1)],
        )
        taken = builder.bitcast(
            alone(
                loaded(share_data, at, at_once(whole, 4), 4),
                [pixel for pixel in range(4) for _ in range(4)],
            ),
            channels.type,
        )
        parts = builder.mul(*(builder.sext(held, at_once(whole, 32)) for held in (channels, taken)))
        both = builder.add(alone(parts, list(range(0, 32, 2))), alone(parts, list(range(1, 32, 2))))
        # 7 bits of the row's and 14 of the shares go.
        levels = builder.lshr(builder.add(both, both.type([1 << 20] * 16)), both.type([21] * 16))
        stored = builder.store(
            builder.trunc(levels, at_once(byte, 16)),
            builder.bitcast(builder.gep(out_data, [at]), at_once(byte, 16).as_pointer()),
        )
        stored.align = 4
        return context.get_dummy_value()

    return types.void(row, firsts, shares, types.int64, out), code


@compiled_in
def more_than(typing_context: Any, row: Any, first: Any, level: Any) -> Any:
    """Return which of the 64 numbers of a (N,) float32 row from ``first`` on are more than a level,
    as the bits of a uint64, the first the lowest.
    """

    def code(context: Any, builder: Any, signature: Any, arguments: Any) -> Any:
        row_value, place, least = arguments
        numbers, lane = ir.VectorType(ir.FloatType(), 64), ir.IntType(32)
        nothing, everywhere = (
            ir.Constant(numbers, ir.Undefined),
            ir.Constant(ir.VectorType(lane, 64), [0] * 64),
        )
        data = context.make_array(signature.args[0])(context, builder, row_value).data
        held = builder.load(builder.bitcast(builder.gep(data, [place]), numbers.as_pointer()))
        held.align = 4
        levels = builder.shuffle_vector(
            builder.insert_element(nothing, least, lane(0)), nothing, everywhere
        )
        return builder.bitcast(builder.fcmp_ordered(">", held, levels), ir.IntType(64))

    return types.uint64(row, types.int64, types.float32), code


@compiled_in
def set_bits(typing_context: Any, value: Any) -> Any:
    """Return how many bits of a uint64 are set."""
    return types.uint64(types.uint64), lambda context, builder, signature, arguments: builder.ctpop(
        arguments[0]
    )


@compiled_in
def lowest_bit(typing_context: Any, value: Any) -> Any:
    """Return which bit of a uint64 that is not 0 is the lowest that is set."""
    never_zero = ir.Constant(ir.IntType(1), 1)
    return types.uint64(types.uint64), lambda context, builder, signature, arguments: builder.cttz(
        arguments[0], never_zero
    )


@compiled_in
def weighed_corners(
    typing_context: Any,
    table: Any,
    one: Any,
    two: Any,
    three: Any,
    four: Any,
    first: Any,
    second: Any,
    third: Any,
    fourth: Any,
) -> Any:
    """Sum of four colours of a (N,) float32 table with their weights; a colour is four numbers at
    once, of which three come back.
    """

    def code(context: Any, builder: Any, signature: Any, arguments: Any) -> Any:
        data = context.make_array(signature.args[0])(context, builder, arguments[0]).data
        colour, lane = ir.VectorType(ir.FloatType(), 4), ir.IntType(32)
        nothing, everywhere = (
            ir.Constant(colour, ir.Undefined),
            ir.Constant(ir.VectorType(lane, 4), [0] * 4),
        )
        total: Any = ir.Constant(colour, [0.0] * 4)
        for place, weight in zip(arguments[1:5], arguments[5:], strict=True):
            held = builder.load(builder.bitcast(builder.gep(data, [place]), colour.as_pointer()))
            held.align = 4
            share = builder.shuffle_vector(
                builder.insert_element(nothing, weight, lane(0)), nothing, everywhere
            )
            total = builder.fadd(total, builder.fmul(share, held, flags=("fast",)), flags=("fast",))
        return context.make_tuple(
            builder,
            signature.return_type,
            [builder.extract_element(total, lane(k)) for k in range(3)],
        )

    place, weight = types.uintp, types.float32
    return types.UniTuple(weight, 3)(
        table, place, place, place, place, weight, weight, weight, weight
    ), code
