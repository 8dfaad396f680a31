"""Gestures of a pressed button on the picture: samples, tolerances, boxes, strokes, areas, islands,
the line of the wipe.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from PyQt6.QtCore import QPointF, Qt

from ...language import translator
from ...workspace.clip.ahead import Place
from ...workspace.workspace import Workspace
from .area_tools import AreaTools
from .pane import Pane
from .viewport import Viewport

translate = translator("canvas")


#: Screen pixels before a press becomes a drag: hands shake less.
DRAG_FROM = 6.0
#: Tolerance for each screen pixel after that: the whole slider is a hand's width.
PER_PIXEL = 0.12


@dataclass
class _Gesture:
    """The gesture of the pressed button."""

    kind: str
    start: QPointF
    role: str = "keep"
    fresh: bool = False
    sample: str = ""
    moved: bool = False


class Gestures:
    """Turns presses, drags and releases on the panes into what the tool in hand does."""

    def __init__(
        self, workspace: Workspace, viewport: Viewport, panes: list[Pane], area_tools: AreaTools
    ) -> None:
        self._samples, self._areas, self._adjust = (
            workspace.samples,
            workspace.areas,
            workspace.adjust,
        )
        self._ahead = workspace.ahead
        self._work, self._tools = workspace.work, workspace.tools
        self._viewport, self._panes, self._area_tools = viewport, panes, area_tools
        self._gesture: _Gesture | None = None
        #: Told when an outline was drawn: the next click is a plain one again.
        self.outlined: Callable[[], object] = lambda: None
        #: Told which pane is pressed.
        self.presses: Callable[[Pane], object] = lambda pane: None
        for number, pane in enumerate(panes):
            pane.pressed.connect(lambda at, held, number=number: self.press(number, at, held))
            pane.dragged.connect(lambda at, held, number=number: self.drag(number, at, held))
            pane.released.connect(lambda at, held, number=number: self.release(number, at, held))
            pane.doubled.connect(area_tools.close_outline)
            pane.tablet.connect(self._tablet)
            pane.sized.connect(
                lambda by: area_tools.resize_brush(area_tools.brush.size + by / viewport.zoom)
            )

    def _role(self, held: Qt.KeyboardModifier) -> tuple[str, bool]:
        """Return a gesture's role, and whether it starts over. Plain starts over, Shift keeps too,
        Ctrl drops; where nothing is kept yet, all keep.
        """
        if not any(sample.on and sample.role == "keep" for sample in self._work.sieve.pick.samples):
            return "keep", not self._work.sieve.pick.samples
        role = "drop" if held & Qt.KeyboardModifier.ControlModifier else "keep"
        adding = bool(
            held & (Qt.KeyboardModifier.ControlModifier | Qt.KeyboardModifier.ShiftModifier)
        )
        if self._tools.role and not adding:
            return self._tools.role, False
        return role, not adding

    def _stays(self, fresh: bool) -> bool:
        """Return whether a pick is not to be replaced by a click."""
        return fresh and not self._tools.picks and bool(self._work.sieve.pick.samples)

    def hover(self, at: QPointF | None, held: Qt.KeyboardModifier) -> None:
        """The pointer is at a place of the picture, or beside it: a click there may be looked at
        before it is made.
        """
        tools = self._tools
        if (
            at is None
            or tools.place != "patch"
            or tools.picker is not None
            or tools.island
            or self._area_tools.tool
            or self._stays(self._role(held)[1])
        ):
            self._ahead.drop()
        elif self._gesture is None:
            self._ahead.rest(Place(at.x(), at.y(), *self._role(held)))

    def press(self, number: int, at: QPointF, held: Qt.KeyboardModifier) -> None:
        """The button goes down at a place of the picture, in a pane."""
        pane = self._panes[number]
        self.presses(pane)
        if pane.wipe is not None and abs(self._viewport.to_pane(at).x() - pane.wipe_x()) < 6:
            self._gesture = _Gesture("wipe", at)
            return
        if self._tools.picker is not None:
            self._adjust.give_colour(at.x(), at.y())
            return
        if self._area_tools.tool:
            self._area_tools.press(at, held)
            return
        if self._tools.island:
            self._areas.toggle_island(at.x(), at.y())
            return
        role, fresh = self._role(held)
        if self._stays(fresh):
            self._samples.choose_at(at.x(), at.y())
        elif self._tools.place == "patch":
            taken = self._ahead.take(Place(at.x(), at.y(), role, fresh))
            self._gesture = _Gesture("tolerance", at, sample=taken) if taken else None
        else:
            self._gesture = _Gesture("place", at, role, fresh)
            pane.drawn = [at]

    def drag(self, number: int, at: QPointF, held: Qt.KeyboardModifier) -> None:
        """It moves with the button down."""
        gesture, pane = self._gesture, self._panes[number]
        if gesture is None:
            if self._area_tools.tool:
                self._area_tools.move(at, held)
            return
        if gesture.kind == "wipe":
            pane.wipe = min(max(self._viewport.to_pane(at).x() / max(pane.width(), 1), 0.02), 0.98)
            pane.update()
        elif gesture.kind == "place":
            pane.drawn = [pane.drawn[0], at] if self._tools.place == "box" else [*pane.drawn, at]
            pane.update()
        else:
            away = (at - gesture.start) * self._viewport.zoom
            distance = float(np.hypot(away.x(), away.y()))
            if distance > DRAG_FROM or gesture.moved:
                # Pressing on the colour and pulling outwards widens the tolerance with the
                # distance.
                gesture.moved = True
                self._samples.edit(
                    {"tolerance": float(min(distance * PER_PIXEL, 255.0))},
                    translate("Tolerance"),
                    translate("Drag tolerance"),
                    ids=(gesture.sample,),
                )

    def release(self, number: int, at: QPointF, held: Qt.KeyboardModifier) -> None:
        """The button comes up."""
        gesture, pane = self._gesture, self._panes[number]
        self._gesture = None
        if gesture is None:
            if self._area_tools.tool:
                self._area_tools.release(at, held)
            return
        if gesture.kind == "place":
            points = [
                (point.x(), point.y())
                for point in (pane.drawn if len(pane.drawn) > 1 else [gesture.start, gesture.start])
            ]
            pane.drawn = []
            if self._tools.place == "outline":
                self._samples.take_outlined(points)
                self.outlined()
            else:
                self._samples.take_place(self._tools.place, points, gesture.role, gesture.fresh)
            pane.update()
        elif gesture.moved:
            self._work.end_drag()

    def keys(self) -> dict[int, Callable[[], object]]:
        """Handle keys while a pane has the focus: pan, zoom, and click in the middle of it."""

        def pan(x: float, y: float) -> Callable[[], None]:
            return lambda: self._viewport.pan(QPointF(x, y))

        def zoom(by: float) -> Callable[[], None]:
            return lambda: self._viewport.zoom_to(self._viewport.zoom * by)

        def click() -> None:
            centre = self._viewport.centre
            role, fresh = self._role(Qt.KeyboardModifier.NoModifier)
            if self._stays(fresh):
                self._samples.choose_at(centre.x(), centre.y())
            else:
                self._samples.take(centre.x(), centre.y(), role, fresh)

        key = Qt.Key
        return {
            key.Key_Left: pan(40, 0),
            key.Key_Right: pan(-40, 0),
            key.Key_Up: pan(0, 40),
            key.Key_Down: pan(0, -40),
            key.Key_Plus: zoom(2),
            key.Key_Minus: zoom(0.5),
            key.Key_Return: click,
            key.Key_Enter: click,
        }

    def _tablet(self, kind: str, at: QPointF, held: Qt.KeyboardModifier, pressure: float) -> None:
        """A pen on a tablet: the brush takes its pressure."""
        if kind == "press":
            self._area_tools.press(at, held, pressure)
        elif kind == "move":
            self._area_tools.move(at, held, pressure)
        else:
            self._area_tools.release(at, held)
