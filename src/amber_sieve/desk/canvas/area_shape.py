"""Moving, scaling, turning and skewing areas by their handles: plain functions from an area to an
area.
"""

from __future__ import annotations

import math

from ...names import BOXED
from ...project.model import Area, Point

#: How far outside a shape its turning handle stands, picture pixels at 100 %.
TURN_OUT = 26.0


def plus(a: Point, b: Point, times: float = 1.0) -> Point:
    return (a[0] + b[0] * times, a[1] + b[1] * times)


def minus(a: Point, b: Point) -> Point:
    return (a[0] - b[0], a[1] - b[1])


def scaled_by(a: Point, times: float) -> Point:
    return (a[0] * times, a[1] * times)


def boxed(kind: str, one: Point, other: Point, **settings: object) -> Area:
    """A rectangle, ellipse or radial gradient between two corners."""
    middle = ((one[0] + other[0]) / 2, (one[1] + other[1]) / 2)
    half = (max(abs(one[0] - other[0]) / 2, 0.5), max(abs(one[1] - other[1]) / 2, 0.5))
    points = (middle, (middle[0] + half[0], middle[1]), (middle[0], middle[1] + half[1]))
    return Area(kind=kind, points=points, **settings)  # type: ignore[arg-type]


def handles_of(area: Area, zoom: float = 1.0) -> dict[str, Point]:
    """The handles of an area by name, in picture pixels."""
    if area.kind in BOXED:
        middle, one, other = area.points
        u, v = minus(one, middle), minus(other, middle)
        found = {"middle": middle}
        for name, across, down in (
            ("right", 1, 0),
            ("left", -1, 0),
            ("bottom", 0, 1),
            ("top", 0, -1),
        ):
            found[name] = plus(plus(middle, u, across), v, down)
        for name, across, down in (
            ("bottom right", 1, 1),
            ("bottom left", -1, 1),
            ("top right", 1, -1),
            ("top left", -1, -1),
        ):
            found[name] = plus(plus(middle, u, across), v, down)
        length = max(math.hypot(*u), 1e-6)
        found["turn"] = plus(middle, u, 1 + TURN_OUT / zoom / length)
        return found
    if area.kind == "gradient":
        return {"full": area.points[0], "empty": area.points[1]}
    return (
        {f"corner {k}": point for k, point in enumerate(area.points)}
        if area.kind == "polygon"
        else {}
    )


def moved(area: Area, by: Point) -> Area:
    """The area moved."""
    strokes = tuple(
        stroke.but(points=tuple((x + by[0], y + by[1], p) for x, y, p in stroke.points))
        for stroke in area.strokes
    )
    return area.but(points=tuple(plus(point, by) for point in area.points), strokes=strokes)


def turned(area: Area, degrees: float) -> Area:
    """The area turned about its middle."""
    middle = middle_of(area)
    c, s = math.cos(math.radians(degrees)), math.sin(math.radians(degrees))

    def turn(point: Point) -> Point:
        x, y = minus(point, middle)
        return (middle[0] + c * x - s * y, middle[1] + s * x + c * y)

    return area.but(points=tuple(turn(point) for point in area.points))


def middle_of(area: Area) -> Point:
    """The middle of an area."""
    if area.kind in BOXED:
        return area.points[0]
    points = (
        area.points
        or tuple((x, y) for stroke in area.strokes for x, y, _ in stroke.points)
        or ((0.0, 0.0),)
    )
    return (sum(p[0] for p in points) / len(points), sum(p[1] for p in points) / len(points))


def dragged(
    area: Area, handle: str, to: Point, about_middle: bool = False, skew: bool = False
) -> Area:
    """The area with a handle dragged to a place.

    Parameters
    ----------
    about_middle : scale about the middle instead of the opposite side.
    skew : let an edge handle slide sideways as well.
    """
    if area.kind == "gradient":
        return area.but(points=(to, area.points[1]) if handle == "full" else (area.points[0], to))
    if area.kind == "polygon":
        number = int(handle.split()[1])
        return area.but(
            points=tuple(to if k == number else point for k, point in enumerate(area.points))
        )
    middle, one, other = area.points
    u, v = minus(one, middle), minus(other, middle)
    if handle == "middle":
        return moved(area, minus(to, middle))
    if handle == "turn":
        away = minus(to, middle)
        return turned(area, math.degrees(math.atan2(away[1], away[0]) - math.atan2(u[1], u[0])))
    across = {"right": 1, "left": -1}.get(handle.split()[-1], 0)
    down = {"bottom": 1, "top": -1}.get(handle.split()[0], 0)
    if skew and (across == 0) != (down == 0):
        if down:
            v = scaled_by(minus(to, middle), down)
        else:
            u = scaled_by(minus(to, middle), across)
        return area.but(points=(middle, plus(middle, u), plus(middle, v)))
    # The place in the shape's own axes: how many half-axes away it lies.
    determinant = u[0] * v[1] - u[1] * v[0] or 1e-9
    x, y = minus(to, middle)
    along_u, along_v = (x * v[1] - y * v[0]) / determinant, (u[0] * y - u[1] * x) / determinant

    def scaled(side: int, along: float) -> tuple[float, float]:
        """New half-axis and shift of the middle, both in old half-axes."""
        if side == 0:
            return 1.0, 0.0
        if about_middle:
            return max(abs(along), 0.01), 0.0
        return max((along * side + 1) / 2, 0.01), side * ((along * side + 1) / 2 - 1)

    (grow_u, shift_u), (grow_v, shift_v) = scaled(across, along_u), scaled(down, along_v)
    fresh = plus(plus(middle, u, shift_u), v, shift_v)
    return area.but(points=(fresh, plus(fresh, u, grow_u), plus(fresh, v, grow_v)))


def _box_of(area: Area) -> tuple[Point, Point]:
    """Middle and size of the box round an outline."""
    xs, ys = [x for x, _ in area.points], [y for _, y in area.points]
    return ((min(xs) + max(xs)) / 2, (min(ys) + max(ys)) / 2), (
        max(xs) - min(xs),
        max(ys) - min(ys),
    )


def numbers_of(area: Area) -> dict[str, float]:
    """Position, size and angle of a boxed area, or position and size of an outline, as numbers a
    person types.
    """
    if area.kind not in BOXED:
        (x, y), (width, height) = _box_of(area)
        return {"X": x, "Y": y, "Width": width, "Height": height}
    middle, one, other = area.points
    u, v = minus(one, middle), minus(other, middle)
    return {
        "X": middle[0],
        "Y": middle[1],
        "Width": 2 * math.hypot(*u),
        "Height": 2 * math.hypot(*v),
        "Angle": math.degrees(math.atan2(u[1], u[0])),
    }


def with_number(area: Area, name: str, value: float) -> Area:
    """An area with one of those numbers changed."""
    middle = _box_of(area)[0] if area.kind not in BOXED else area.points[0]
    if name in ("Width", "Height") and area.kind not in BOXED:
        at = 0 if name == "Width" else 1
        grown = max(value, 1) / max(numbers_of(area)[name], 1e-9)
        stretch = (grown, 1.0) if at == 0 else (1.0, grown)
        return area.but(
            points=tuple(
                (middle[0] + (x - middle[0]) * stretch[0], middle[1] + (y - middle[1]) * stretch[1])
                for x, y in area.points
            )
        )
    if name in ("X", "Y"):
        return moved(area, (value - middle[0], 0) if name == "X" else (0, value - middle[1]))
    middle, one, other = area.points
    u, v = minus(one, middle), minus(other, middle)
    if name == "Angle":
        return turned(area, value - numbers_of(area)["Angle"])
    axis = u if name == "Width" else v
    axis = scaled_by(axis, max(value, 1) / 2 / max(math.hypot(*axis), 1e-9))
    return area.but(
        points=(middle, plus(middle, axis), other)
        if name == "Width"
        else (middle, one, plus(middle, axis))
    )


def snapped(point: Point, size: tuple[int, int], others: list[Point], within: float) -> Point:
    """The point pulled to the picture's borders and middle lines, or to other areas' handles, when
    it is near.
    """
    x, y = point
    xs = [0.0, size[0] / 2, float(size[0]), *(p[0] for p in others)]
    ys = [0.0, size[1] / 2, float(size[1]), *(p[1] for p in others)]
    near_x, near_y = min(xs, key=lambda v: abs(v - x)), min(ys, key=lambda v: abs(v - y))
    return (near_x if abs(near_x - x) <= within else x, near_y if abs(near_y - y) <= within else y)
