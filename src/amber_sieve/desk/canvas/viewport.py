"""The place that is looked at: zoom and centre, shared by both panes so that they move together."""

from __future__ import annotations

import math

from PyQt6.QtCore import QObject, QPointF, pyqtSignal

from ...live.parts import Box

#: 3200 % shows every pixel as a square of 32.
LARGEST = 32.0
#: 1 % shows 100 megapixels in a window of any size.
SMALLEST = 0.01
#: From this zoom on the pixel grid is drawn.
GRID_FROM = 8.0
#: Up to this many reduced pixels the whole picture is rendered, so that panning needs no new
#: render.
WHOLE = 2_200_000
#: Parts of a picture are rendered in steps of this many reduced pixels, so that a little panning
#: needs no new render.
GRAIN = 256
#: Pixels round what is seen that are worked on with it, so that its rim comes out as all else.
RIM = 4


class Viewport(QObject):
    """Zoom (screen pixels per picture pixel) and the picture point in the middle of a pane."""

    changed = pyqtSignal()

    def __init__(self) -> None:
        super().__init__()
        self.zoom = 1.0
        self.centre = QPointF(0, 0)
        self.fits = True
        self.picture = (0, 0)
        self.pane = (1.0, 1.0)

    def set_picture(self, width: int, height: int) -> None:
        """Another picture is shown: fit it."""
        self.picture = (width, height)
        self.fit()

    def set_pane(self, width: float, height: float) -> None:
        """The panes have this size now."""
        if (width, height) != self.pane:
            self.pane = (width, height)
            if self.fits:
                self.fit()
            else:
                self.changed.emit()

    def fit(self) -> None:
        """Show the whole picture."""
        self.fits = True
        width, height = self.picture
        if width and height:
            self.zoom = min(
                max(min((self.pane[0] - 16) / width, (self.pane[1] - 16) / height), SMALLEST),
                LARGEST,
            )
            self.centre = QPointF(width / 2, height / 2)
        self.changed.emit()

    def zoom_to(self, zoom: float, at: QPointF | None = None) -> None:
        """Change the zoom; the pane point ``at`` (from the pane's middle) stays where it is."""
        zoom = min(max(zoom, SMALLEST), LARGEST)
        at = at or QPointF(0, 0)
        held = self.centre + at / self.zoom
        self.zoom, self.fits = zoom, False
        self.centre = held - at / zoom
        self._keep_in_sight()
        self.changed.emit()

    def pan(self, by: QPointF) -> None:
        """Move the picture by screen pixels."""
        self.fits = False
        self.centre -= by / self.zoom
        self._keep_in_sight()
        self.changed.emit()

    def _keep_in_sight(self) -> None:
        self.centre = QPointF(
            min(max(self.centre.x(), 0), self.picture[0]),
            min(max(self.centre.y(), 0), self.picture[1]),
        )

    def to_picture(self, point: QPointF) -> QPointF:
        """Picture coordinates of a point in a pane."""
        return self.centre + (point - QPointF(self.pane[0] / 2, self.pane[1] / 2)) / self.zoom

    def to_pane(self, point: QPointF) -> QPointF:
        """Pane coordinates of a picture point."""
        return (point - self.centre) * self.zoom + QPointF(self.pane[0] / 2, self.pane[1] / 2)

    def reduction(self, ratio: float = 1.0) -> int:
        """The largest power of two the picture may be reduced by and still be as fine as the screen
        (``ratio`` device pixels).
        """
        return max(1, 2 ** math.floor(math.log2(max(1.0, 1 / (self.zoom * ratio)) + 1e-9)))

    def visible(self) -> tuple[float, float, float, float]:
        """Left, top, right, bottom of what a pane shows, in picture pixels, cut to the picture."""
        one, other = self.to_picture(QPointF(0, 0)), self.to_picture(QPointF(*self.pane))
        return (
            max(one.x(), 0),
            max(one.y(), 0),
            min(other.x(), self.picture[0]),
            min(other.y(), self.picture[1]),
        )

    def parts(self, factor: int) -> tuple[Box, Box]:
        """Return the part rendered of a picture that is reduced by a factor, and what of that is
        seen: boxes of reduced pixels, all 0 for all of it.
        """
        width, height = self.picture
        if width * height / factor**2 <= WHOLE:
            return (0, 0, 0, 0), (0, 0, 0, 0)
        left, top, right, bottom = (edge / factor for edge in self.visible())
        wide, high = round(width / factor), round(height / factor)
        box = (
            max(0, int(left) // GRAIN * GRAIN),
            max(0, int(top) // GRAIN * GRAIN),
            min(wide, (int(right) // GRAIN + 1) * GRAIN),
            min(high, (int(bottom) // GRAIN + 1) * GRAIN),
        )
        seen = (
            max(0, int(left) - RIM),
            max(0, int(top) - RIM),
            min(wide, math.ceil(right) + RIM),
            min(high, math.ceil(bottom) + RIM),
        )
        return box, seen
