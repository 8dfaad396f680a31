"""Under the bar of frames: a small curve for everything that is keyed in the current sieve, and how
sure tracking was.
"""

from __future__ import annotations

import math

import numpy as np
from PyQt6.QtCore import QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import QColor, QContextMenuEvent, QMouseEvent, QPainter, QPen, QPixmap, QPolygonF
from PyQt6.QtWidgets import QMenu, QSizePolicy, QWidget

from ...core.colour.oklab import one_to_oklab
from ...language import translator
from ...live.tracking import LEAST
from ...project.fields import field_at, title_of
from ...project.model import Sieve, Track
from ...project.tracks import value_at
from ...workspace.workspace import Workspace
from ..pages.areas import WORDS
from ..style import AMBER, DIM, WELL
from ..widgets.painting import painting, paints
from .key_menu import fill_key_menu
from .time_bar import TROUBLE, TimeBar

translate = translator("clip")


#: Height of a lane, pixels.
LANE = 22
#: Most of them: more would take the picture's room.
MOST = 5
#: How far beside a key it can be taken hold of, pixels.
GRIP = 5.0
#: Steps in which a smooth way between two keys is drawn.
STEPS = 12
SURE = QColor(120, 170, 230, 70)


def name_of(sieve: Sieve, path: str) -> str:
    """Return the name of a keyed field."""
    kind, _, rest = path.partition(".")
    part, _, name = rest.partition(".")
    if kind == "areas":
        at = next((n for n, area in enumerate(sieve.areas) if area.id == part), None)
        if at is None:
            return translate("An area that is gone")
        words = sieve.areas[at].name or f"{WORDS[sieve.areas[at].kind]} {at + 1}"
        return f"{words}: {'feather' if name == 'feather' else 'place'}"
    if kind == "samples":
        at = next((n for n, sample in enumerate(sieve.pick.samples) if sample.id == part), None)
        return (
            translate("A sample that is gone")
            if at is None
            else translate(
                "{name}: lightness",
                name=sieve.pick.samples[at].name or translate("Sample {at}", at=at + 1),
            )
        )
    return title_of(field_at(Sieve, path)) or path


def measured(path: str, value: tuple[float, ...], first: tuple[float, ...]) -> float:
    """One number to draw of a keyed value: itself, the lightness of a colour, how far a shape has
    moved since its first key, pixels.
    """
    if len(value) == 1:
        return value[0]
    if path.endswith(".colour"):
        return float(one_to_oklab(np.array(value[:3]))[0]) * 100
    step = 3 if path.endswith(".strokes") else 2
    count = len(value) // step
    across, down = (sum(value[k::step]) / count - sum(first[k::step]) / count for k in (0, 1))
    return math.hypot(across, down)


class Lanes(QWidget):
    """Drawn like the bar above it; press and drag to scrub, or a key to move it in time; its menu
    says how it goes on.
    """

    def __init__(self, workspace: Workspace, bar: TimeBar) -> None:
        super().__init__()
        self._clip, self._work = workspace.clip, workspace.work
        self.bar = bar
        self._wanted = True
        #: The key that is being dragged: its field's way, and the frame it lies at.
        self._dragged: tuple[str, int] | None = None
        #: The curves as they were drawn last, and of what.
        self._drawn: QPixmap | None = None
        self._of: object = None
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.setAccessibleName(translate("Curves of what is keyed"))
        self.setMouseTracking(True)
        workspace.work.frame_changed.connect(self.update)
        workspace.work.changed.connect(self.follow)
        self.follow()

    @property
    def tracks(self) -> tuple[Track, ...]:
        """Return the tracks that are drawn, from top to bottom."""
        return self._work.document.sieve.tracks[:MOST] if self._work.frames > 1 else ()

    def show_if(self, wanted: bool) -> None:
        """Show the curves where there are any, or none."""
        self._wanted = wanted
        self.follow()

    def follow(self) -> None:
        """Have a lane for everything that is keyed."""
        self.setVisible(self._wanted and bool(self.tracks))
        self.updateGeometry()
        self.update()

    def sizeHint(self) -> QSize:
        return QSize(200, LANE * len(self.tracks))

    def _track_at(self, place: QPointF) -> Track | None:
        row = int(place.y()) // LANE
        return self.tracks[row] if 0 <= row < len(self.tracks) else None

    def key_at(self, place: QPointF) -> tuple[str, int] | None:
        """The key that is drawn at a place: its field's way, and its frame."""
        track = self._track_at(place)
        drawn = [key.frame for key in track.keys if key.confidence is None] if track else []
        frame = min(
            drawn, key=lambda frame: abs(self.bar.place_of(frame) - place.x()), default=None
        )
        if track is None or frame is None or abs(self.bar.place_of(frame) - place.x()) > GRIP:
            return None
        return track.path, frame

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is None or event.button() != Qt.MouseButton.LeftButton:
            return
        self._dragged = self.key_at(event.position())
        if self._dragged is not None:
            self._clip.go_to(self._dragged[1])
        else:
            self.bar.mousePressEvent(event)

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is None:
            return
        place, number = event.position(), self.bar.frame_at(event.position().x())
        if event.buttons() & Qt.MouseButton.LeftButton:
            if self._dragged is not None:
                path, frame = self._dragged
                number = self._clip.move_key(path, frame, number)
                self._dragged = path, number
            self._clip.go_to(number)
            return
        track, key = self._track_at(place), self.key_at(place)
        self.setCursor(
            Qt.CursorShape.SizeHorCursor if key is not None else Qt.CursorShape.ArrowCursor
        )
        if track is not None:
            self.setToolTip(
                self.words_for(track, number)
                + (translate(" (drag the key to move it in time)") if key is not None else "")
            )

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        if self._dragged is not None:
            self._dragged = None
            self._work.end_drag()

    def contextMenuEvent(self, event: QContextMenuEvent | None) -> None:
        place = QPointF(event.pos()) if event is not None else QPointF()
        track, key = self._track_at(place), self.key_at(place)
        if event is not None and track is not None:
            self._clip.go_to(key[1] if key is not None else self.bar.frame_at(place.x()))
            menu = QMenu(self)
            fill_key_menu(menu, self._work, self._clip, track.path)
            menu.popup(event.globalPos())

    def words_for(self, track: Track, number: int) -> str:
        """Return a track's value at a frame, in words."""
        keys = [(key.frame, key.value, key.how) for key in track.keys]
        value = measured(track.path, value_at(keys, number), track.keys[0].value)
        key = next((key for key in track.keys if key.frame == number), None)
        sure = (
            translate(
                ", tracked with {confidence:.0f} % confidence",
                confidence=100 * key.confidence,
            )
            if key is not None and key.confidence is not None
            else ""
        )
        unit = (
            translate(" px from its first key")
            if track.path.startswith("areas.") and not track.path.endswith("feather")
            else ""
        )
        return translate(
            "{name}, frame {number}: {value:.4g}{unit}{sure}",
            name=name_of(self._work.document.sieve, track.path),
            number=number,
            value=value,
            unit=unit,
            sure=sure,
        )

    # Drawing

    @paints
    def paintEvent(self, painter: QPainter) -> None:
        tracks, ratio = self.tracks, self.devicePixelRatioF()
        more = len(self._work.document.sieve.tracks) - len(tracks)
        of = (tracks, more, self.size(), ratio, self._work.frames)
        if self._drawn is None or self._of != of:
            self._of, self._drawn = of, QPixmap(self.size() * ratio)
            self._drawn.setDevicePixelRatio(ratio)
            self._drawn.fill(WELL)
            with painting(self._drawn) as inner:
                inner.setRenderHint(QPainter.RenderHint.Antialiasing)
                for row, track in enumerate(tracks):
                    self._draw(inner, track, row * LANE)
                if more > 0:
                    words = translate("and {more} more", more=more)
                    wide = inner.fontMetrics().horizontalAdvance(words) + 12
                    last = QRectF(self.width() - wide, LANE * (len(tracks) - 1) + 2, wide, LANE - 4)
                    inner.fillRect(last, WELL)
                    inner.setPen(QPen(DIM))
                    inner.drawText(last, Qt.AlignmentFlag.AlignCenter, words)
        painter.drawPixmap(0, 0, self._drawn)
        head = self.bar.place_of(self._work.number)
        painter.setPen(QPen(QColor(255, 255, 255), 1.6))
        painter.drawLine(QPointF(head, 0), QPointF(head, self.height()))

    def _draw(self, painter: QPainter, track: Track, top: int) -> None:
        low, room = top + LANE - 3.0, LANE - 6.0
        sure = [key for key in track.keys if key.confidence is not None]
        if sure:
            # How sure tracking was fills the lane from below; the line is where it counts as lost.
            line = [
                QPointF(self.bar.place_of(key.frame), low - room * float(key.confidence or 0))
                for key in sure
            ]
            ends = [QPointF(line[-1].x(), low), QPointF(line[0].x(), low)]
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(SURE)
            painter.drawPolygon(QPolygonF([*line, *ends]))
            painter.setPen(QPen(TROUBLE, 1, Qt.PenStyle.DotLine))
            painter.drawLine(
                QPointF(line[0].x(), low - room * LEAST), QPointF(line[-1].x(), low - room * LEAST)
            )
        points = self._way(track)
        least, most = min(value for _, value in points), max(value for _, value in points)
        wide = (most - least) or 1.0
        places = [
            QPointF(
                self.bar.place_of(frame),
                low - room * ((value - least) / wide if most > least else 0.5),
            )
            for frame, value in points
        ]
        places = [QPointF(0, places[0].y()), *places, QPointF(self.width(), places[-1].y())]
        painter.setPen(QPen(AMBER, 1.3))
        painter.drawPolyline(QPolygonF(places))
        painter.setBrush(AMBER)
        painter.setPen(Qt.PenStyle.NoPen)
        for key in track.keys:
            if key.confidence is None:  # those of tracking lie on every frame
                value = measured(track.path, key.value, track.keys[0].value)
                y = low - room * ((value - least) / wide if most > least else 0.5)
                painter.drawEllipse(QPointF(self.bar.place_of(key.frame), y), 2.6, 2.6)
        words = name_of(self._work.document.sieve, track.path)
        box = painter.fontMetrics().boundingRect(words)
        painter.fillRect(QRectF(2, top + 3, box.width() + 8, LANE - 6), QColor(0, 0, 0, 150))
        painter.setPen(QPen(QColor(214, 214, 214)))
        painter.drawText(
            QRectF(6, top, box.width() + 8, LANE), Qt.AlignmentFlag.AlignVCenter, words
        )
        painter.setPen(QPen(DIM.darker(200), 1))
        painter.drawLine(QPointF(0, top + LANE - 0.5), QPointF(self.width(), top + LANE - 0.5))

    def _way(self, track: Track) -> list[tuple[float, float]]:
        """Frames and what is drawn there, from key to key as the track goes."""
        first = track.keys[0].value
        at = [(key.frame, measured(track.path, key.value, first), key.how) for key in track.keys]
        out: list[tuple[float, float]] = []
        for (frame, value, how), (later, other, _) in zip(at, at[1:], strict=False):
            out.append((frame, value))
            if how == "hold":
                out.append((later, value))
            elif how == "smooth":
                for step in range(1, STEPS):
                    share = step / STEPS
                    out.append(
                        (
                            frame + share * (later - frame),
                            value + share * share * (3 - 2 * share) * (other - value),
                        )
                    )
        return [*out, (at[-1][0], at[-1][1])]
