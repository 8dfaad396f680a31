"""Drawing and changing areas on the picture: what presses, drags and keys mean while an area tool
is in hand.
"""

from __future__ import annotations

import math
from collections.abc import Sequence

import numpy as np
from PyQt6.QtCore import QObject, QPointF, Qt, pyqtSignal
from PyQt6.QtGui import QColor, QPainter, QPen, QPolygonF

from ...core.areas.shapes import ring_of
from ...language import translator
from ...names import BOXED, AreaMode
from ...project import edits
from ...project.model import Area, Point, Stroke
from ...workspace.workspace import Workspace
from ..style import AMBER
from ..widgets.drawing import draw_edged
from .area_shape import boxed, dragged, handles_of, moved, snapped
from .area_stroke import Brush, Drawing
from .viewport import Viewport

translate = translator("canvas")


#: The tools and their icons.
ICONS = {
    "change": "mouse-pointer-2",
    "rect": "rectangle-horizontal",
    "ellipse": "circle",
    "polygon": "pentagon",
    "freehand": "lasso",
    "cling": "magnet",
    "gradient": "blend",
    "radial": "circle-dot",
    "brush": "brush",
}
#: Screen pixels within which a handle is grabbed.
GRAB = 9.0
#: Screen pixels within which a point snaps.
SNAP = 8.0
#: Dragged with the button down, the edge outline gets a corner each time it has gone this many
#: screen pixels.
LEG = 50.0
#: Points are kept within this many pixels of the picture's corner.
FARTHEST = 1e6


def inside(point: Point) -> Point:
    """A point that the model can hold: far outside the picture it makes no difference how far."""
    return (min(max(point[0], -FARTHEST), FARTHEST), min(max(point[1], -FARTHEST), FARTHEST))


class AreaTools(QObject):
    """The tools of the Areas page on the panes of the canvas."""

    changed = pyqtSignal()

    def __init__(self, workspace: Workspace, viewport: Viewport) -> None:
        super().__init__()
        self._areas, self._work = workspace.areas, workspace.work
        self.viewport = viewport
        self.tool = ""
        self.mode: AreaMode | None = None
        self.brush = Brush()
        self.sensitivity = 50.0
        self.snap = False
        self.selected = ""
        self.outline: list[Point] = []
        #: Where its last corner was set.
        self._corner: Point = (0.0, 0.0)
        self._clicks: list[int] = []
        self._drawing: Drawing | None = None
        self._last_dab: Point | None = None
        self._pointer: Point | None = None

    @property
    def area(self) -> Area | None:
        """The chosen area."""
        return next((area for area in self._work.sieve.areas if area.id == self.selected), None)

    def take(self, tool: str) -> None:
        """Take a tool in hand; "" puts it away."""
        self.tool = tool
        self.outline, self._clicks = [], []
        self.changed.emit()

    def next_mode(self) -> AreaMode:
        """Return how the next area joins: the chosen way; else «only here» for the first on a sieve
        that picks something, add for brushes after.
        """
        if self.mode:
            return self.mode
        return "intersect" if not self._work.sieve.areas else "add"

    def _snapped(self, point: Point) -> Point:
        if not self.snap:
            return point
        others = [
            p
            for area in self._work.sieve.areas
            if area.id != self.selected
            for p in handles_of(area).values()
        ]
        return snapped(point, self._work.size, others, SNAP / self.viewport.zoom)

    # Gestures

    def press(self, at: QPointF, held: Qt.KeyboardModifier, pressure: float = 1.0) -> None:
        """A press at a picture point."""
        point = self._snapped((at.x(), at.y()))
        if self.tool == "change":
            self._grab(point)
        elif self.tool in ("polygon", "cling"):
            self._add_corner(point)
        elif self.tool == "brush":
            erase = bool(held & Qt.KeyboardModifier.ControlModifier)
            self._drawing = Drawing(point, points=[(*point, pressure)], erase=erase)
            if held & Qt.KeyboardModifier.ShiftModifier and self._last_dab is not None:
                # Shift+click: a straight line from where the last stroke ended.
                self._drawing.points.insert(0, (*self._last_dab, pressure))
        else:
            self._drawing = Drawing(point, points=[(*point, 1.0)])
        self.changed.emit()

    def _grab(self, point: Point) -> None:
        area = self.area
        near = None
        if area is not None:
            offers = [
                (np.hypot(p[0] - point[0], p[1] - point[1]) * self.viewport.zoom, name)
                for name, p in handles_of(area, self.viewport.zoom).items()
            ]
            near = min(offers, default=None)
        if area is not None and near is not None and near[0] <= GRAB:
            self._drawing = Drawing(point, near[1], area)
        elif area is not None:
            self._drawing = Drawing(point, "whole", area)

    def move(self, at: QPointF, held: Qt.KeyboardModifier, pressure: float = 1.0) -> None:
        """The pointer moved with the button down."""
        drawing = self._drawing
        point = (at.x(), at.y())
        self._pointer = point
        if drawing is None:
            if (
                self.tool == "cling"
                and self.outline
                and math.dist(point, self._corner) * self.viewport.zoom >= LEG
            ):
                self._add_corner(self._snapped(point))
                self.changed.emit()
            return
        if self.tool in ("brush", "freehand"):
            drawing.points.append((*point, pressure))
        elif self.tool == "change" and drawing.before is not None:
            point = self._snapped(point)
            if drawing.handle == "whole":
                area = moved(
                    drawing.before, (point[0] - drawing.start[0], point[1] - drawing.start[1])
                )
            else:
                about = bool(held & Qt.KeyboardModifier.ShiftModifier)
                area = dragged(
                    drawing.before,
                    drawing.handle,
                    point,
                    about,
                    bool(held & Qt.KeyboardModifier.ControlModifier),
                )
            self._areas.put(area, translate("Change area"), group="Change area")
        else:
            drawing.points = [drawing.points[0], (*self._snapped(point), 1.0)]
        self.changed.emit()

    def release(self, at: QPointF, held: Qt.KeyboardModifier) -> None:
        """The button came up."""
        drawing, self._drawing = self._drawing, None
        if drawing is None:
            return
        if self.tool == "change":
            self._work.end_drag()
        elif self.tool == "brush":
            self._paint(drawing)
        elif self.tool == "freehand":
            if len(drawing.points) > 2:
                self._add_polygon(
                    [p[:2] for p in drawing.points],
                    self.next_mode(),
                    translate("Freehand"),
                )
        elif len(drawing.points) > 1:
            one, other = drawing.points[0][:2], drawing.points[-1][:2]
            if self.tool in BOXED:
                self._add(boxed(self.tool, one, other, mode=self.next_mode()))
            elif self.tool == "gradient":
                self._add(Area(kind="gradient", mode=self.next_mode(), points=(one, other)))  # type: ignore[arg-type]
        self.changed.emit()

    def _add(self, area: Area) -> None:
        self.selected = self._areas.add(area)
        self.changed.emit()

    def _paint(self, drawing: Drawing) -> None:
        """Lay a finished stroke into the chosen brush area, or a new one."""
        brush = self.brush
        like = None
        if brush.alike:
            x, y = (int(v) for v in drawing.points[0][:2])
            like = self._work.light_at(x, y)
        values = {
            name: getattr(brush, name)
            for name in ("size", "hardness", "flow", "opacity", "pressure")
        }
        points = tuple((*inside((x, y)), pressure) for x, y, pressure in drawing.points)
        stroke = Stroke(points=points, erase=drawing.erase, like=like, **values)  # type: ignore[arg-type]
        self._last_dab = drawing.points[-1][:2]
        area = self.area
        if area is not None and area.kind == "brush":
            self._areas.put(
                area.but(strokes=(*area.strokes, stroke)),
                translate("Erase stroke") if drawing.erase else translate("Brush stroke"),
            )
        else:
            mode = self.mode or ("subtract" if drawing.erase else "add")
            self._add(Area(kind="brush", mode=mode, strokes=(stroke.but(erase=False),)))  # type: ignore[arg-type]

    # Outlines by clicks

    def _add_corner(self, point: Point) -> None:
        """One more corner; the edge outline runs along the picture's edges to it."""
        # From the corner before, not from where the line has come to: a path may still be looked
        # for.
        before, self._corner = self._corner, point
        if self.tool == "cling" and self.outline:
            outline = self.outline

            def then(path: list[Point]) -> None:
                if self.outline is outline:  # not closed or put away meanwhile
                    self._clicks.append(len(outline))
                    outline.extend(path[1:])
                    self.changed.emit()

            self._areas.clinging(before, point, self.sensitivity / 100, then)
        else:
            self._clicks.append(len(self.outline))
            self.outline.append(point)

    def undo_corner(self) -> None:
        """Take back the last corner."""
        if self._clicks:
            del self.outline[self._clicks.pop() :]
            self._corner = self.outline[-1] if self.outline else self._corner
            self.changed.emit()

    def close_outline(self) -> None:
        """Finish the outline that is being drawn as a polygon, from three corners on."""
        points, mode = self.outline, self.next_mode()
        if len(points) >= 3 and self.tool == "cling":
            self._areas.clinging(
                points[-1],
                points[0],
                self.sensitivity / 100,
                lambda path: self._add_polygon(
                    [*points, *path[1:-1]], mode, translate("Edge outline")
                ),
            )
        elif len(points) >= 3:
            self._add_polygon(points, mode)
        self.outline, self._clicks = [], []
        self.changed.emit()

    def _add_polygon(self, points: Sequence[Point], mode: AreaMode, name: str = "") -> None:
        self._add(
            Area(
                kind="polygon",
                name=name,
                mode=mode,
                points=tuple(inside(point) for point in points),
            )
        )

    def key(self, key: int) -> bool:
        """A key while a tool is in hand; whether it meant something."""
        if key == Qt.Key.Key_Escape:
            self.outline, self._clicks, self._drawing = [], [], None
            self.changed.emit()
        elif key == Qt.Key.Key_Backspace and self.outline:
            self.undo_corner()
        elif key in (Qt.Key.Key_Return, Qt.Key.Key_Enter) and self.outline:
            self.close_outline()
        elif key in (Qt.Key.Key_BracketLeft, Qt.Key.Key_BracketRight) and self.tool == "brush":
            self.resize_brush(
                self.brush.size * (1.15 if key == Qt.Key.Key_BracketRight else 1 / 1.15)
            )
        elif key == Qt.Key.Key_Delete and self.area is not None:
            gone = self.selected
            self._areas.edit(
                lambda sieve: edits.without_area(sieve, gone), translate("Remove area")
            )
        else:
            return False
        return True

    def resize_brush(self, size: float) -> None:
        """Another brush size, picture pixels."""
        self.brush.size = min(max(size, 1.0), 5000.0)
        self.changed.emit()

    def hover(self, at: QPointF | None) -> None:
        """The pointer moved without a button."""
        self._pointer = None if at is None else (at.x(), at.y())
        if self.tool in ("brush", "polygon", "cling"):
            self.changed.emit()

    # Painting

    def paint(self, painter: QPainter) -> None:
        """Outlines, handles and what is being drawn; dark-edged to show on anything."""
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        for area in self._work.sieve.areas:
            if area.on and (area.id == self.selected or self.tool == "change"):
                self._paint_area(painter, area, area.id == self.selected)
        drawing = self._drawing
        if self.outline:
            extra = [self._pointer] if self._pointer else []
            self._line(painter, [*self.outline, *extra], False)
        if drawing is not None and self.tool == "brush":
            self._paint_stroke(painter, drawing)
        elif drawing is not None and self.tool == "freehand":
            self._line(painter, [p[:2] for p in drawing.points], False)
        elif drawing is not None and len(drawing.points) > 1:
            one, other = drawing.points[0][:2], drawing.points[-1][:2]
            self._paint_area(
                painter,
                boxed(self.tool, one, other)
                if self.tool in BOXED
                else Area(kind="gradient", points=(one, other)),
                False,
            )
        if self.tool == "brush" and self._pointer is not None:
            at, radius = (
                self.viewport.to_pane(QPointF(*self._pointer)),
                self.brush.size / 2 * self.viewport.zoom,
            )
            draw_edged(
                painter, lambda: painter.drawEllipse(at, radius, radius), QColor(240, 240, 240), 1.2
            )

    def _paint_stroke(self, painter: QPainter, drawing: Drawing) -> None:
        pen = QPen(
            QColor(245, 245, 245, 130) if drawing.erase else QColor(232, 158, 32, 130),
            self.brush.size * self.viewport.zoom,
        )
        pen.setCapStyle(Qt.PenCapStyle.RoundCap)
        pen.setJoinStyle(Qt.PenJoinStyle.RoundJoin)
        painter.setPen(pen)
        places = [self.viewport.to_pane(QPointF(x, y)) for x, y, _ in drawing.points]
        painter.drawPolyline(QPolygonF(places)) if len(places) > 1 else painter.drawPoint(places[0])

    def _line(self, painter: QPainter, points: list[Point], closed: bool) -> None:
        places = QPolygonF([self.viewport.to_pane(QPointF(*point)) for point in points])
        draw_edged(
            painter,
            lambda: painter.drawPolygon(places) if closed else painter.drawPolyline(places),
            width=1.5,
        )

    def _paint_area(self, painter: QPainter, area: Area, handles: bool) -> None:
        if area.kind in BOXED:
            self._line(
                painter, [(x, y) for x, y in ring_of(area.kind, np.array(area.points))], True
            )
        elif area.kind in ("polygon", "gradient"):
            self._line(painter, list(area.points), area.kind == "polygon")
        else:
            for stroke in area.strokes:
                self._line(painter, [(x, y) for x, y, _ in stroke.points], False)
        if handles:
            few = area.kind != "polygon" or len(area.points) <= 60
            for name, point in handles_of(area, self.viewport.zoom).items() if few else ():
                at = self.viewport.to_pane(QPointF(*point))
                painter.setPen(QPen(QColor(20, 20, 20), 1))
                painter.setBrush(AMBER if name in ("turn", "middle") else QColor(245, 245, 245))
                if name in ("turn", "middle"):
                    painter.drawEllipse(at, 4, 4)
                else:
                    painter.drawRect(int(at.x()) - 3, int(at.y()) - 3, 6, 6)
            painter.setBrush(Qt.BrushStyle.NoBrush)
