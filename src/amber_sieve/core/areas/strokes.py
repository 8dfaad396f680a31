"""Brush strokes, kept as vectors and drawn at any scale.

The work is bounded by the picture, not by the numbers in a file: only the part of a stroke that can
touch the picture is walked, and a place that a stroke comes back to again and again takes only as
many dabs as can still be seen.
"""

from __future__ import annotations

import numpy as np

from ..jit.parallel import inner, serial_kernel

#: Distance between dabs as a share of the brush's diameter: from here on the rim of a stroke is
#: smooth to the eye.
SPACING = 0.1
#: Least distance between dabs, pixels.
CLOSEST = 0.5
#: Side of a cell in which dabs are counted, as a share of their spacing.
CELL = 0.7
#: Least side of a cell, pixels.
SMALLEST = 1.0
#: Dabs that start in one cell before further ones are passed over, when each lays on all it can.
VISITS = 2
#: What is left uncovered below this cannot be seen: half an 8-bit step.
UNSEEN = 1 / 512
#: Dabs looked at of one stroke: a way so long that it would need more (25 million pixels of the
#: finest brush) is walked in larger steps.
MOST_DABS = 30_000_000
#: Places on a dab, in radii, at which it is asked whether all of it is covered already: the rim,
#: half way, the middle.
RING = np.array(
    [
        (r * np.cos(t), r * np.sin(t))
        for r, n in ((1.0, 24), (0.75, 16), (0.4, 8), (0.0, 1))
        for t in np.linspace(0, 2 * np.pi, n, endpoint=False)
    ]
)
#: Radius that a stroke pressed to nothing still has, pixels.
THINNEST = 0.3


@inner
def _profile(distance: float, radius: float, core: float) -> float:
    """Return how much a dab covers at a distance from its middle: full up to the core, none from
    the radius on.
    """
    edge = max(radius - core, 1.0)  # a hard brush still has an edge of one pixel
    t = min(max((radius + (0.5 if radius - core < 1.0 else 0.0) - distance) / edge, 0.0), 1.0)
    return t * t * (3 - 2 * t) if radius - core >= 1.0 else t


@serial_kernel
def _is_full(x: float, y: float, radius: float, ring: np.ndarray, out: np.ndarray) -> bool:
    """Return whether a dab would lie on what is full already, by the places of ``ring`` on it."""
    height, width = out.shape
    for k in range(ring.shape[0]):
        column, row = int(x + ring[k, 0] * radius), int(y + ring[k, 1] * radius)
        if 0 <= row < height and 0 <= column < width and out[row, column] < np.float32(0.999):
            return False
    return True


@serial_kernel
def _dab(
    x: float, y: float, radius: float, strength: float, hardness: float, out: np.ndarray
) -> None:
    height, width = out.shape
    core = radius * hardness
    whole, none = max(core, 0.0) ** 2 if radius - core >= 1.0 else 0.0, (radius + 0.5) ** 2
    for row in range(max(0, int(y - radius - 1)), min(height, int(y + radius + 2))):
        for column in range(max(0, int(x - radius - 1)), min(width, int(x + radius + 2))):
            square = (column + 0.5 - x) ** 2 + (row + 0.5 - y) ** 2
            if square >= none:
                continue
            covers = 1.0 if square <= whole else _profile(np.sqrt(square), radius, core)
            if covers > 0:
                held = out[row, column]
                # A full-flow dab sets what it covers; less flow builds up.
                built = held + strength * covers * (1 - held)
                out[row, column] = max(held, covers) if strength >= 0.999 else built


@serial_kernel
def _draw(
    points: np.ndarray,
    size: float,
    hardness: float,
    flow: float,
    by_size: bool,
    by_flow: bool,
    most: int,
    spacing: float,
    ring: np.ndarray,
    visits: np.ndarray,
    cell: float,
    out: np.ndarray,
) -> None:
    height, width = out.shape
    room = size / 2 + 2
    until = 0.0  # length of way left to the next dab
    for k in range(points.shape[0]):
        last = k == points.shape[0] - 1
        x0, y0, p0 = points[k, 0], points[k, 1], points[k, 2]
        x1, y1, p1 = (
            (x0, y0, p0) if last else (points[k + 1, 0], points[k + 1, 1], points[k + 1, 2])
        )
        length = np.sqrt((x1 - x0) ** 2 + (y1 - y0) ** 2)
        # The stretch of the segment, as shares of its way, that comes near the picture (Liang and
        # Barsky 1984).
        first, end = 0.0, 1.0
        for axis in range(2):
            start, travel, far = (x0, x1 - x0, width) if axis == 0 else (y0, y1 - y0, height)
            if travel == 0:
                if start < -room or start > far + room:
                    end = -1.0
            else:
                a, b = (-room - start) / travel, (far + room - start) / travel
                first, end = max(first, min(a, b)), min(end, max(a, b))
        at = until
        if last:
            at, length = 0.0, 0.0
        elif first <= end and first * length > at:
            at += np.ceil((first * length - at) / spacing) * spacing
        stop = length if last else min(length, end * length)
        while first <= end and (at < stop or (last and at <= stop)):
            share = at / length if length > 0 else 0.0
            x, y, pressure = x0 + share * (x1 - x0), y0 + share * (y1 - y0), p0 + share * (p1 - p0)
            row, column = int((y + room) / cell), int((x + room) / cell)
            if (
                0 <= row < visits.shape[0]
                and 0 <= column < visits.shape[1]
                and visits[row, column] < most
            ):
                visits[row, column] += 1
                radius = max(size / 2 * (pressure if by_size else 1.0), THINNEST)
                strength = flow * (pressure if by_flow else 1.0)
                if strength < 0.999 or not _is_full(x, y, radius, ring, out):
                    _dab(x, y, radius, strength, hardness, out)
            at += spacing
        if not last:
            # Where the next dab falls does not depend on what lay outside the picture.
            until = until + np.ceil(max(length - until, 0.0) / spacing) * spacing - length


def stroke_coverage(
    points: np.ndarray,
    size: float,
    shape: tuple[int, int],
    hardness: float = 1.0,
    flow: float = 1.0,
    opacity: float = 1.0,
    pressure_size: bool = False,
    pressure_flow: bool = False,
) -> np.ndarray:
    """Return the coverage of one stroke, (H, W) float32 in 0 to opacity.

    Parameters
    ----------
    points : (M, 3): x, y in pixels of the mask and pressure (0 to 1); between them lines are
        straight, one point is a dab.
    size : diameter, pixels; pressure_size, pressure_flow : what pressure acts on.
    hardness : 0 (soft from the middle on) to 1 (an edge of one pixel); flow : how much one dab lays
        on, 0 to 1.
    """
    out = np.zeros(shape, np.float32)
    if len(points):
        cell = max(CELL * SPACING * size, SMALLEST)
        room = size / 2 + 2
        visits = np.zeros(
            (int((shape[0] + 2 * room) / cell) + 1, int((shape[1] + 2 * room) / cell) + 1),
            np.uint16,
        )
        # Less flow builds up over more dabs, until nothing is left to cover.
        most = (
            VISITS
            if flow >= 0.999 and not pressure_flow
            else int(
                min(max(np.log(UNSEEN) / np.log(1 - min(max(flow, 0.002), 0.9)), VISITS), 60_000)
            )
        )
        held = np.ascontiguousarray(np.atleast_2d(points), np.float64)
        way = (
            float(np.hypot(*np.clip(np.diff(held[:, :2], axis=0), -sum(shape), sum(shape)).T).sum())
            if len(held) > 1
            else 0.0
        )
        spacing = max(CLOSEST, SPACING * size, way / MOST_DABS)
        _draw(
            held,
            float(size),
            float(hardness),
            float(flow),
            pressure_size,
            pressure_flow,
            most,
            spacing,
            RING,
            visits,
            cell,
            out,
        )
    return out * np.float32(opacity) if opacity < 1 else out
