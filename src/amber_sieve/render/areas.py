"""Areas of the model at the scale of a frame."""

from __future__ import annotations

import numpy as np

from ..core.areas.shapes import coverage
from ..core.areas.strokes import stroke_coverage
from ..core.frame import Frame
from ..core.pick.samples import SampleParams, membership
from ..project.model import Area, Stroke
from .context import RenderContext
from .measuring import oklab_of

#: Surface tolerance of a brush that paints only where the picture resembles its start.
LIKE_TOLERANCE = 7.0
#: Its falloff.
LIKE_FALLOFF = 3.0


def _drawn(frame: Frame, stroke: Stroke, context: RenderContext) -> np.ndarray:
    """Return the coverage of one stroke on a frame, (H, W)."""

    def make() -> np.ndarray:
        points = np.array(stroke.points, float).reshape(-1, 3)
        points[:, :2] = (points[:, :2] - frame.origin) * frame.scale
        shape = (frame.height, frame.width)
        pressure = stroke.pressure
        covered = stroke_coverage(
            points,
            stroke.size * frame.scale,
            shape,
            stroke.hardness / 100,
            stroke.flow / 100,
            stroke.opacity / 100,
            pressure == "size",
            pressure == "flow",
        )
        if stroke.like is not None:
            lab = oklab_of(frame, context)
            covered *= membership(
                lab, [SampleParams(stroke.like, tolerance=LIKE_TOLERANCE, falloff=LIKE_FALLOFF)]
            )
        return covered

    return context.get(("stroke", frame.key, stroke), make)


def area_coverage(frame: Frame, area: Area, context: RenderContext) -> np.ndarray:
    """Return the coverage of an area on a frame, (H, W) float32, not inverted. Read only."""

    def make() -> np.ndarray:
        shape = (frame.height, frame.width)
        if area.kind == "brush":
            out = np.zeros(shape, np.float32)
            for stroke in area.strokes:
                drawn = _drawn(frame, stroke, context)
                if stroke.erase:
                    out *= 1 - drawn
                else:
                    np.maximum(out, drawn, out=out)
            return out
        points = [
            ((x - frame.origin[0]) * frame.scale, (y - frame.origin[1]) * frame.scale)
            for x, y in area.points
        ]
        return coverage(area.kind, points, shape, area.feather * frame.scale, area.way)

    return context.get(
        ("area", frame.key, area.but(id="", name="", mode="add", inverted=False, on=True)), make
    )
