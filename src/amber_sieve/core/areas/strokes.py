"""Brush strokes, kept as vectors and drawn at any scale."""

from __future__ import annotations

import numpy as np

from ..parallel import inner, serial_kernel

#: Distance between dabs as a share of the brush's diameter, and its least, pixels.
SPACING, CLOSEST = 0.1, 0.5


@inner
def _profile(distance: float, radius: float, core: float) -> float:
    """How much a dab covers at a distance from its middle: full up to the core, none from the radius on."""
    edge = max(radius - core, 1.0)  # a hard brush still has an edge of one pixel
    t = min(max((radius + (0.5 if radius - core < 1.0 else 0.0) - distance) / edge, 0.0), 1.0)
    return t * t * (3 - 2 * t) if radius - core >= 1.0 else t


@serial_kernel
def _dabs(places: np.ndarray, hardness: float, flow: float, out: np.ndarray) -> None:
    height, width = out.shape
    for k in range(places.shape[0]):
        x, y, radius, strength = places[k, 0], places[k, 1], places[k, 2], places[k, 3] * flow
        core = radius * hardness
        for row in range(max(0, int(y - radius - 1)), min(height, int(y + radius + 2))):
            for column in range(max(0, int(x - radius - 1)), min(width, int(x + radius + 2))):
                away = np.sqrt((column + 0.5 - x) ** 2 + (row + 0.5 - y) ** 2)
                covers = _profile(away, radius, core)
                if covers > 0:
                    held = out[row, column]
                    # A full-flow dab sets what it covers; less flow builds up.
                    built = held + strength * covers * (1 - held)
                    out[row, column] = max(held, covers) if strength >= 0.999 else built


def dabs_along(points: np.ndarray, size: float, pressure_size: bool, pressure_flow: bool) -> np.ndarray:
    """Dabs along a stroke, (N, 4): x, y, radius, strength.

    Parameters
    ----------
    points : (M, 3): x, y and pressure (0 to 1); between them lines are straight.
    size : diameter, pixels; pressure_size, pressure_flow : what pressure acts on.
    """
    points = np.atleast_2d(np.asarray(points, float))
    steps = np.hypot(*np.diff(points[:, :2], axis=0).T) if len(points) > 1 else np.zeros(0)
    length = np.concatenate([[0.0], np.cumsum(steps)])
    spacing = max(CLOSEST, SPACING * size)
    at = np.append(np.arange(0.0, length[-1], spacing), length[-1])
    x, y, pressure = (np.interp(at, length, points[:, k]) for k in range(3))
    radius = np.maximum(size / 2 * (pressure if pressure_size else 1.0), 0.3)
    return np.stack([x, y, np.broadcast_to(radius, x.shape), pressure if pressure_flow else np.ones_like(x)], 1)


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
    """What one stroke covers, (H, W) float32 in 0 to opacity.

    Parameters
    ----------
    points : (M, 3): x, y in pixels of the mask and pressure; one point is a dab.
    hardness : 0 (soft from the middle on) to 1 (an edge of one pixel); flow : how much one dab lays on, 0 to 1.
    """
    out = np.zeros(shape, np.float32)
    if len(points):
        _dabs(dabs_along(points, size, pressure_size, pressure_flow), float(hardness), float(flow), out)
    return out * np.float32(opacity) if opacity < 1 else out
