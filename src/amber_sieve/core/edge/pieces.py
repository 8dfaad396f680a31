"""Pieces of a mask, what of it hangs together, held as runs of pixels in rows: a label for every
pixel would take as much memory as the mask, and several times as long.

Runs that touch are united as in C. Fiorio, J. Gustedt, "Two linear time Union-Find strategies for
image processing" (1996; from memory): the earlier root becomes the root of both, and ways to roots
are halved.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from ..disjoint import find_root
from ..jit.parallel import kernel, lowest_bit, more_than, prange, serial_kernel, set_bits

Places = Sequence[tuple[float, float]]
#: Pixels of a row in a word of bits.
WORD = 64
ONE, LAST = np.uint64(1), np.uint64(63)


@kernel
def _mark(
    mask: np.ndarray, level: float, below: bool, bits: np.ndarray, counts: np.ndarray
) -> None:
    """Mark the pixels that are held, as bits (H, words), and how many runs of them begin in each
    row (H,).
    """
    least, width, turned = (
        np.float32(level),
        mask.shape[1],
        ~np.uint64(0) if below else np.uint64(0),
    )
    for y in prange(mask.shape[0]):
        row, words, found, before = mask[y], bits[y], np.uint64(0), np.uint64(0)
        for n in range(words.size):
            first = n * WORD
            if first + WORD <= width:
                word = more_than(row, first, least) ^ turned
            else:
                word = np.uint64(0)
                for x in range(first, width):
                    word |= np.uint64((row[x] > least) != below) << np.uint64(x - first)
            words[n] = word
            found += set_bits(word & ~(word << ONE | before))
            before = word >> LAST
        counts[y] = found


@kernel
def _find(
    bits: np.ndarray, width: int, rows: np.ndarray, starts: np.ndarray, stops: np.ndarray
) -> None:
    for y in prange(bits.shape[0]):
        words, run, inside, before = bits[y], rows[y], False, np.uint64(0)
        for n in range(words.size):
            word = words[n]
            changes = word ^ (word << ONE | before)
            before = word >> LAST
            while changes != np.uint64(0):
                x = n * WORD + np.int64(lowest_bit(changes))
                changes &= changes - ONE
                if inside:
                    stops[run] = x
                    run += 1
                else:
                    starts[run] = x
                inside = not inside
        if inside:
            stops[run] = width


@serial_kernel
def _unite(
    rows: np.ndarray, starts: np.ndarray, stops: np.ndarray, reach: int, piece: np.ndarray
) -> int:
    """Number the pieces from 0, each run (N,) with that of its own: how many there are. ``reach``:
    1 where corners touch too.
    """
    for run in range(piece.size):
        piece[run] = run
    for y in range(1, rows.size - 1):
        above, last_above, run, last = rows[y - 1], rows[y], rows[y], rows[y + 1]
        while above < last_above and run < last:
            if starts[run] < stops[above] + reach and starts[above] < stops[run] + reach:
                one, other = find_root(piece, above), find_root(piece, run)
                piece[max(one, other)] = min(one, other)
            if stops[above] < stops[run]:
                above += 1
            else:
                run += 1
    count = 0
    for run in range(
        piece.size
        # a root is the earliest run of its piece, so its number is known before the others ask for
        # it
    ):
        if piece[run] == run:
            piece[run] = count
            count += 1
        else:
            piece[run] = piece[piece[run]]
    return count


@serial_kernel
def _measure(
    rows: np.ndarray,
    starts: np.ndarray,
    stops: np.ndarray,
    piece: np.ndarray,
    sizes: np.ndarray,
    boxes: np.ndarray,
) -> None:
    for y in range(rows.size - 1):
        for run in range(rows[y], rows[y + 1]):
            number = piece[run]
            sizes[number] += stops[run] - starts[run]
            box = boxes[number]
            box[0], box[1] = min(box[0], y), min(box[1], starts[run])
            box[2], box[3] = max(box[2], y + 1), max(box[3], stops[run])


@kernel
def _write(
    rows: np.ndarray,
    starts: np.ndarray,
    stops: np.ndarray,
    piece: np.ndarray,
    which: np.ndarray,
    value: float,
    out: np.ndarray,
) -> None:
    for y in prange(out.shape[0]):
        row = out[y]
        for run in range(rows[y], rows[y + 1]):
            if which[piece[run]]:
                row[starts[run] : stops[run]] = value


@serial_kernel
def _nearest(
    rows: np.ndarray,
    starts: np.ndarray,
    stops: np.ndarray,
    piece: np.ndarray,
    which: np.ndarray,
    away: np.ndarray,
    near: float,
    out: np.ndarray,
) -> None:
    for y in range(away.shape[0]):
        for run in range(rows[y], rows[y + 1]):
            if which[piece[run]]:
                for x in range(starts[run], stops[run]):
                    if away[y, x] <= near:
                        out[piece[run]] = True


@dataclass(frozen=True)
class Pieces:
    """The pieces of a mask (H, W).

    Attributes
    ----------
    shape : of the mask. rows : (H + 1,) int64, where the runs of each row begin among all of them.
    starts, stops : (N,) int32, the first pixel of a run and the first after it. piece : (N,) int32,
        which piece a run belongs to.
    sizes : (P,) int64, pixels of each piece. boxes : (P, 4) int32, top, left, bottom, right.
    """

    shape: tuple[int, int]
    rows: np.ndarray
    starts: np.ndarray
    stops: np.ndarray
    piece: np.ndarray
    sizes: np.ndarray
    boxes: np.ndarray

    @property
    def longest(self) -> np.ndarray:
        """The longer side of the box of each, (P,)."""
        found: np.ndarray = np.maximum(
            self.boxes[:, 2] - self.boxes[:, 0], self.boxes[:, 3] - self.boxes[:, 1]
        )
        return found

    @property
    def at_border(self) -> np.ndarray:
        """Return which of them touch the border of the picture, (P,) bool."""
        top, left, bottom, right = self.boxes.T
        found: np.ndarray = (
            (top == 0) | (left == 0) | (bottom == self.shape[0]) | (right == self.shape[1])
        )
        return found

    def holding(self, places: Places) -> np.ndarray:
        """Return which of them hold one of some places (x, y in pixels), (P,) bool."""
        found = np.zeros(self.sizes.size, np.bool_)
        for x, y in places:
            if 0 <= x < self.shape[1] and 0 <= y < self.shape[0]:
                first, last = self.rows[int(y)], self.rows[int(y) + 1]
                run = first + int(np.searchsorted(self.starts[first:last], int(x), "right")) - 1
                if run >= first and x < self.stops[run]:
                    found[self.piece[run]] = True
        return found

    def write(self, which: np.ndarray, value: float, out: np.ndarray, top: int = 0) -> None:
        """Write a value wherever one of some pieces (P,) bool lies, over what stands in ``out`` (h,
        W): the rows of the mask from ``top`` on.
        """
        _write(
            self.rows[top : top + len(out) + 1],
            self.starts,
            self.stops,
            self.piece,
            which,
            value,
            out,
        )

    def within(
        self, which: np.ndarray, away: np.ndarray, near: float, found: np.ndarray, top: int = 0
    ) -> None:
        """Set in ``found`` (P,) those of some pieces that have a pixel at which ``away`` (h, W) is
        at most ``near``.
        """
        _nearest(
            self.rows[top : top + len(away) + 1],
            self.starts,
            self.stops,
            self.piece,
            which,
            away,
            near,
            found,
        )


def pieces_of(mask: np.ndarray, level: float, corners: bool, below: bool = False) -> Pieces:
    """The pieces of what is more than a level in a mask (H, W) float32, or with ``below`` of all
    else; with ``corners`` pixels that touch at a corner hang together.
    """
    mask = np.ascontiguousarray(mask, np.float32)
    (height, width), rows = mask.shape, np.zeros(mask.shape[0] + 1, np.int64)
    bits = np.empty((height, -(-width // WORD)), np.uint64)
    _mark(mask, level, below, bits, rows[1:])
    np.cumsum(rows, out=rows)
    starts, stops, piece = (np.empty(int(rows[-1]), np.int32) for _ in range(3))
    _find(bits, width, rows, starts, stops)
    count = _unite(rows, starts, stops, int(corners), piece)
    sizes, boxes = np.zeros(count, np.int64), np.empty((count, 4), np.int32)
    boxes[:, :2], boxes[:, 2:] = np.iinfo(np.int32).max, 0
    _measure(rows, starts, stops, piece, sizes, boxes)
    return Pieces((height, width), rows, starts, stops, piece, sizes, boxes)
