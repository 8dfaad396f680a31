"""Adjust: what is done inside the mask. Every block of the model becomes a block of the page."""

from __future__ import annotations

from PyQt6.QtWidgets import QComboBox, QPushButton

from ...names import GAMUTS
from ...project import edits
from ...project.fields import numbers_of
from ...project.model import Adjust, Adjustment, Project
from ..number import Number
from ..session import Session
from .page import Page

GAMUT_WORDS = {"lower chroma": "Out of gamut: lower chroma", "clip": "Out of gamut: clip"}


class AdjustPage(Page):
    """The adjustments of the current sieve."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        #: The numbers of all blocks, by their field's name.
        self.numbers: dict[str, Number] = {}
        for block, field in Adjust.model_fields.items():
            kind = field.annotation
            assert isinstance(kind, type) and issubclass(kind, Adjustment)
            self.heading(kind.__doc__ or block)
            for spec in numbers_of(kind):
                self.numbers[spec.name] = self.number(f"adjust.{block}.{spec.name}")
        self.heading("How much of it")
        self.strength = self.number("strength")
        self.outside = self.number("outside")
        reset = QPushButton("Reset the adjustments")
        reset.clicked.connect(lambda: session.edit_sieve(edits.without_adjustments, "Reset the adjustments"))
        self.column.addWidget(reset)
        self.heading("Of the whole project")
        self.gamut = QComboBox()
        self.gamut.addItems([GAMUT_WORDS[name] for name in GAMUTS])
        self.gamut.setAccessibleName("Gamut")
        self.gamut.setToolTip(Project.model_fields["gamut"].description or "")
        self.gamut.activated.connect(lambda index: session.set_gamut(GAMUTS[index]))
        self.column.addWidget(self.gamut)
        self.column.addStretch(1)
        self.follow()

    def follow(self) -> None:
        super().follow()
        self.gamut.setCurrentIndex(GAMUTS.index(self.session.project.gamut))
