"""Under the picture of a clip: play, steps, in and out point, loop, coverage over time, and where
we are.
"""

from __future__ import annotations

from PyQt6.QtCore import QSize, Qt
from PyQt6.QtGui import QResizeEvent
from PyQt6.QtWidgets import QHBoxLayout, QLabel, QToolButton, QVBoxLayout, QWidget

from ...language import translator
from ...media.source import FILM_RATE
from ...media.timecode import first_timecode
from ...workspace.workspace import Workspace
from ..widgets.icon import with_icon
from .lanes import Lanes
from .time_bar import TimeBar

translate = translator("clip")


#: Words beside the icons that do not explain themselves.
WORDS = {
    "arrow-right-to-line": translate("In"),
    "arrow-left-to-line": translate("Out"),
    "activity": translate("Coverage"),
    "spline": translate("Curves"),
}


#: Least width that the timeline asks for, pixels.
NARROWEST = 300


class Timeline(QWidget):
    """Shown when what is open has more than one frame."""

    def __init__(self, workspace: Workspace) -> None:
        super().__init__()
        self.setObjectName("panel")
        self._clip, self._playback, self._work = workspace.clip, workspace.playback, workspace.work
        column, row = QVBoxLayout(self), QHBoxLayout()
        column.setContentsMargins(8, 4, 8, 4)
        column.setSpacing(2)
        row.setSpacing(4)
        self.bar = TimeBar(workspace)
        self.lanes = Lanes(workspace, self.bar)
        self.play, self.back, self.on, self.loop = (
            QToolButton(),
            QToolButton(),
            QToolButton(),
            QToolButton(),
        )
        self.set_in, self.set_out, self.watch, self.curves = (
            QToolButton(),
            QToolButton(),
            QToolButton(),
            QToolButton(),
        )
        for button, drawing, tip, act in (
            (
                self.play,
                "play",
                translate("Play or stop (Space)"),
                workspace.playback.toggle,
            ),
            (
                self.back,
                "chevron-left",
                translate("Previous frame (,)"),
                lambda: workspace.clip.go_to(workspace.work.number - 1),
            ),
            (
                self.on,
                "chevron-right",
                translate("Next frame (.)"),
                lambda: workspace.clip.go_to(workspace.work.number + 1),
            ),
            (
                self.loop,
                "repeat",
                translate("Loop: play from the in point to the out point again and again"),
                lambda: setattr(workspace.playback, "loop", self.loop.isChecked()),
            ),
            (
                self.set_in,
                "arrow-right-to-line",
                translate("In point here ([); again removes it"),
                self.toggle_in,
            ),
            (
                self.set_out,
                "arrow-left-to-line",
                translate("Out point here (]); again removes it"),
                self.toggle_out,
            ),
            (
                self.watch,
                "activity",
                translate(
                    "Coverage over time: how much the mask "
                    "holds on every frame, its flicker and "
                    "drift; N goes to the "
                    "next jump",
                ),
                lambda: workspace.clip.watch(self.watch.isChecked()),
            ),
            (
                self.curves,
                "spline",
                translate("Curves of what is keyed in this sieve, and how sure tracking was"),
                lambda: self.lanes.show_if(self.curves.isChecked()),
            ),
        ):
            with_icon(button, drawing, tip, WORDS.get(drawing, ""))
            button.setToolButtonStyle(Qt.ToolButtonStyle.ToolButtonTextBesideIcon)
            button.clicked.connect(lambda _, act=act: act())
            row.addWidget(button)
        self.buttons = (
            self.play,
            self.back,
            self.on,
            self.loop,
            self.set_in,
            self.set_out,
            self.watch,
            self.curves,
        )
        for button in (self.play, self.loop, self.watch, self.curves):
            button.setCheckable(True)
        self.curves.setChecked(True)
        self.loop.setChecked(workspace.playback.loop)
        self.label = QLabel("")
        row.addStretch(1)
        row.addWidget(self.label)
        column.addLayout(row)
        column.addWidget(self.bar)
        column.addWidget(self.lanes)
        workspace.work.source_changed.connect(self.follow)
        workspace.work.frame_changed.connect(self.follow)
        workspace.playback.changed.connect(self._playing)
        workspace.clip.watched.connect(self.bar.show_course)
        self.follow()

    def minimumSizeHint(self) -> QSize:
        """Return where words have no room, the icons stand alone."""
        return QSize(NARROWEST, super().minimumSizeHint().height())

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        super().resizeEvent(event)
        style = Qt.ToolButtonStyle.ToolButtonTextBesideIcon
        for button in self.buttons:
            button.setToolButtonStyle(style)
        if (
            sum(button.sizeHint().width() + 4 for button in self.buttons)
            + self.label.sizeHint().width()
            + 24
            > self.width()
        ):
            for button in self.buttons:
                button.setToolButtonStyle(Qt.ToolButtonStyle.ToolButtonIconOnly)

    def _playing(self) -> None:
        on = self._playback.playing
        self.play.setChecked(on)
        with_icon(self.play, "pause" if on else "play")
        self.follow()

    def toggle_in(self) -> None:
        """Set the in point to this frame, or take it away when it is there."""
        between, number = self._work.between, self._work.number
        last = between[1] if between else self._work.frames - 1
        self._set(0 if between and between[0] == number else number, max(last, number))

    def toggle_out(self) -> None:
        """Set the out point to this frame, or take it away when it is there."""
        between, number = self._work.between, self._work.number
        first = between[0] if between else 0
        self._set(
            min(first, number),
            self._work.frames - 1 if between and between[1] == number else number,
        )

    def _set(self, first: int, last: int) -> None:
        whole = first == 0 and last == self._work.frames - 1
        self._clip.set_between(*((None, None) if whole else (first, last)))

    def follow(self) -> None:
        """Show where we are."""
        frames = self._work.frames
        self.setVisible(frames > 1)
        if frames <= 1:
            self._playback.stop()
            return
        about = self._work.opened.source.about if self._work.opened else None
        start = about.timecode if about else None
        start = start or first_timecode(about.rate if about and about.rate else FILM_RATE)
        dropped = (
            translate("  {dropped} late", dropped=self._playback.dropped)
            if self._playback.playing and self._playback.dropped
            else ""
        )
        self.label.setText(
            translate(
                "Frame {number} (0 to {frames})   {timecode}{dropped}",
                number=self._work.number,
                frames=frames - 1,
                timecode=start.after(self._work.number),
                dropped=dropped,
            )
        )
