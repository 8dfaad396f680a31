"""Adjust: what is done inside the mask."""

from __future__ import annotations

from PyQt6.QtWidgets import QPushButton

from ...project.model import Adjust
from ..number import Number
from ..session import Session
from .page import Page


class AdjustPage(Page):
    """The adjustments of the current sieve."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.heading("Recolour")
        self.hue = self.field("adjust", "hue", Number("Hue", -180, 180, 0, 1, "°"), "Hue")
        self.saturation = self.field("adjust", "saturation", Number("Saturation", -100, 100, 0, 1, "%"), "Saturation")
        self.lightness = self.field("adjust", "lightness", Number("Lightness", -100, 100, 0, 1, "%"), "Lightness")
        self.heading("How much of it")
        self.strength = self.bind(
            Number("Strength", 0, 100, 100, 1, "%"), lambda s: s.strength, lambda s, value: s.but(strength=value), "Strength"
        )
        self.outside = self.bind(
            Number("Outside level", 0, 100, 0, 1, "%"), lambda s: s.outside, lambda s, value: s.but(outside=value), "Outside level"
        )
        reset = QPushButton("Reset the adjustments")
        reset.clicked.connect(
            lambda: session.edit_sieve(lambda s: s.but(adjust=Adjust(), strength=100.0, outside=0.0), "Reset the adjustments")
        )
        self.column.addWidget(reset)
        self.column.addStretch(1)
        self.follow()
