"""Places, outline and keyed numbers of an area that is tracked."""

from __future__ import annotations

import cv2
import numpy as np

from ..core.areas.shapes import ring_of
from ..language import translator
from ..names import BOXED
from ..project.model import Area

translate = translator("live")


def outline_of(area: Area, places: np.ndarray) -> np.ndarray:
    """The corners (N, 2) of what an area covers, of its places (N, 2)."""
    if area.kind in BOXED:
        return ring_of(area.kind, places[:3])
    return places


def places_of(area: Area) -> np.ndarray:
    if area.kind == "brush":
        return np.array(
            [point[:2] for stroke in area.strokes for point in stroke.points], np.float64
        ).reshape(-1, 2)
    return np.array(area.points, np.float64).reshape(-1, 2)


def numbers_of(area: Area, places: np.ndarray) -> tuple[float, ...]:
    """The area's keyed numbers with other places."""
    if area.kind != "brush":
        return tuple(float(v) for v in places.ravel())
    rest = iter(places)
    return tuple(
        float(v)
        for stroke in area.strokes
        for point in stroke.points
        for v in (*next(rest), point[2])
    )


def inside_of(area: Area, places: np.ndarray, shape: tuple[int, int], scale: float) -> np.ndarray:
    out = np.zeros(shape, np.uint8)
    if area.kind == "brush":
        at = 0
        for stroke in area.strokes:
            line = np.rint(places[at : at + len(stroke.points)] * scale).astype(np.int32)
            at += len(stroke.points)
            cv2.polylines(
                out, [line.reshape(-1, 1, 2)], False, 255, max(1, round(stroke.size * scale))
            )
    else:
        cv2.fillPoly(out, [np.rint(outline_of(area, places) * scale).astype(np.int32)], 255)
    return out
