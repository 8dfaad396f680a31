"""Under the picture of a clip: play, steps, in and out point, loop, coverage over time, and where we are."""

from __future__ import annotations

from fractions import Fraction

from PyQt6.QtWidgets import QHBoxLayout, QLabel, QToolButton, QVBoxLayout, QWidget

from ...media.footage.timecode import timecode
from ...workspace.session import Session
from ..widgets.icon import with_icon
from .lanes import Lanes
from .time_bar import TimeBar


class Timeline(QWidget):
    """Shown when what is open has more than one frame."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.setObjectName("panel")
        self.session = session
        column, row = QVBoxLayout(self), QHBoxLayout()
        column.setContentsMargins(8, 4, 8, 4)
        column.setSpacing(2)
        row.setSpacing(4)
        self.bar = TimeBar(session)
        self.lanes = Lanes(session, self.bar)
        self.play, self.back, self.on, self.loop = QToolButton(), QToolButton(), QToolButton(), QToolButton()
        self.set_in, self.set_out, self.watch, self.curves = QToolButton(), QToolButton(), QToolButton(), QToolButton()
        for button, drawing, tip, act in (
            (self.play, "play", "Play or stop (Space)", session.playback.toggle),
            (self.back, "chevron-left", "One frame back (,)", lambda: session.go_to(session.number - 1)),
            (self.on, "chevron-right", "One frame on (.)", lambda: session.go_to(session.number + 1)),
            (self.loop, "repeat", "Round and round", lambda: setattr(session.playback, "loop", self.loop.isChecked())),
            (self.set_in, "arrow-right-to-line", "In point here ([); again takes it away", self.toggle_in),
            (self.set_out, "arrow-left-to-line", "Out point here (]); again takes it away", self.toggle_out),
            (self.watch, "activity", "Coverage over time: how much the mask holds on every frame, its flicker and drift; N goes to the next jump",
             lambda: session.watch(self.watch.isChecked())),
            (self.curves, "spline", "Curves of what is keyed in this sieve, and how sure tracking was", lambda: self.lanes.show_if(self.curves.isChecked())),
        ):  # fmt: skip
            with_icon(button, drawing, tip)
            button.clicked.connect(lambda _, act=act: act())
            row.addWidget(button)
        for button in (self.play, self.loop, self.watch, self.curves):
            button.setCheckable(True)
        self.curves.setChecked(True)
        self.loop.setChecked(session.playback.loop)
        self.label = QLabel("")
        row.addStretch(1)
        row.addWidget(self.label)
        column.addLayout(row)
        column.addWidget(self.bar)
        column.addWidget(self.lanes)
        session.source_changed.connect(self.follow)
        session.frame_changed.connect(self.follow)
        session.playback.changed.connect(self._playing)
        session.watched.connect(self.bar.show_course)
        self.follow()

    def _playing(self) -> None:
        on = self.session.playback.playing
        self.play.setChecked(on)
        with_icon(self.play, "pause" if on else "play")
        self.follow()

    def toggle_in(self) -> None:
        """Set the in point to this frame, or take it away when it is there."""
        between, number = self.session.between, self.session.number
        last = between[1] if between else self.session.frames - 1
        self._set(0 if between and between[0] == number else number, max(last, number))

    def toggle_out(self) -> None:
        """Set the out point to this frame, or take it away when it is there."""
        between, number = self.session.between, self.session.number
        first = between[0] if between else 0
        self._set(min(first, number), self.session.frames - 1 if between and between[1] == number else number)

    def _set(self, first: int, last: int) -> None:
        whole = first == 0 and last == self.session.frames - 1
        self.session.set_between(*((None, None) if whole else (first, last)))

    def follow(self) -> None:
        """Show where we are."""
        session, frames = self.session, self.session.frames
        self.setVisible(frames > 1)
        if frames <= 1:
            session.playback.stop()
            return
        rate = session.opened.source.about.rate if session.opened else Fraction(24)
        dropped = f"  {session.playback.dropped} late" if session.playback.playing and session.playback.dropped else ""
        self.label.setText(f"{session.number} of {frames - 1}   {timecode(session.number, Fraction(rate or 24))}{dropped}")
