"""The frames of a clip: a slider, steps, and play."""

from __future__ import annotations

from PyQt6.QtCore import QSignalBlocker, Qt, QTimer
from PyQt6.QtWidgets import QHBoxLayout, QLabel, QSlider, QToolButton, QWidget

from .icon import with_icon
from .session import Session


class Timeline(QWidget):
    """Shown under the picture when what is open has more than one frame."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.setObjectName("panel")
        self.session = session
        row = QHBoxLayout(self)
        row.setContentsMargins(8, 4, 8, 4)
        self.play = QToolButton()
        with_icon(self.play, "play", "Play or stop (Space)")
        self.play.setCheckable(True)
        self.play.toggled.connect(self._run)
        back, on = QToolButton(), QToolButton()
        with_icon(back, "chevron-left", "One frame back (,)")
        back.clicked.connect(lambda: session.go_to(session.number - 1))
        with_icon(on, "chevron-right", "One frame on (.)")
        on.clicked.connect(lambda: session.go_to(session.number + 1))
        self.slider = QSlider(Qt.Orientation.Horizontal)
        self.slider.setAccessibleName("Frame")
        self.slider.valueChanged.connect(session.go_to)
        self.label = QLabel("")
        self.label.setMinimumWidth(150)
        for widget in (self.play, back, on):
            row.addWidget(widget)
        row.addWidget(self.slider, 1)
        row.addWidget(self.label)
        self._timer = QTimer(self)
        self._timer.timeout.connect(self._tick)
        session.source_changed.connect(self.follow)
        session.frame_changed.connect(self.follow)
        self.follow()

    def _run(self, on: bool) -> None:
        with_icon(self.play, "pause" if on else "play")
        if on and self.session.opened:
            rate = float(self.session.opened.source.about.rate) or 24
            self._timer.start(max(1, round(1000 / rate)))
        else:
            self._timer.stop()

    def _tick(self) -> None:
        # A frame that is still being computed holds playing back: every frame is seen, late rather than never.
        if self.session.last is not None and self.session.last.wanted.number == self.session.number and self.session.idle:
            self.session.go_to(self.session.number + 1 if self.session.number + 1 < self.session.frames else 0)

    def follow(self) -> None:
        """Show where we are."""
        frames = self.session.frames
        self.setVisible(frames > 1)
        if frames <= 1:
            self.play.setChecked(False)
            return
        with QSignalBlocker(self.slider):
            self.slider.setRange(0, frames - 1)
            self.slider.setValue(self.session.number)
        rate = (float(self.session.opened.source.about.rate) if self.session.opened else 0.0) or 24.0
        self.label.setText(f"frame {self.session.number} of 0–{frames - 1}    {self.session.number / rate:.2f} s")
