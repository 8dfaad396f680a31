"""A line that stands while its sentence is true, with one button that does something about it."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtWidgets import QFrame, QHBoxLayout, QLabel, QPushButton, QSizePolicy, QToolButton

from ...language import translator
from .icon import with_icon

translate = translator("widgets")


class Notice(QFrame):
    """Words, a button that does something about them, and where it may be put away a cross; hidden
    while there is nothing to say.
    """

    def __init__(self, closable: bool = True) -> None:
        super().__init__()
        self.setObjectName("notice")
        self._act: Callable[[], object] = self.hide
        row = QHBoxLayout(self)
        row.setContentsMargins(8, 3, 4, 3)
        row.setSpacing(6)
        self.words, self.button, self.cross = QLabel(""), QPushButton(""), QToolButton()
        self.words.setWordWrap(True)
        self.words.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Preferred)
        with_icon(self.cross, "x", translate("Put this line away"))
        self.cross.setVisible(closable)
        self.cross.setAutoRaise(True)
        self.cross.setObjectName("bare")
        self.cross.clicked.connect(self.hide)
        self.button.clicked.connect(lambda: self._act())
        row.addWidget(self.words, 1)
        row.addWidget(self.button)
        row.addWidget(self.cross)
        self.hide()

    def tell(self, words: str, offer: str, act: Callable[[], object]) -> None:
        """Say something, and offer something to do."""

        def once() -> None:
            self.hide()
            act()

        self.words.setText(words)
        self.button.setText(offer)
        self._act = once
        self.show()
