"""Say beside the pointer what a click did, or why nothing, for a moment, with one press for what
usually comes next.
"""

from __future__ import annotations

import html
from collections.abc import Callable

from PyQt6.QtCore import QPointF, QRect, Qt, QTimer
from PyQt6.QtGui import QCursor
from PyQt6.QtWidgets import QFrame, QHBoxLayout, QLabel, QPushButton, QToolTip, QWidget

from ...language import decimals, translator
from ...live.clicking import Clicked
from ...workspace.workspace import Workspace
from .viewport import Viewport

translate = translator("canvas")


#: Milliseconds for which an answer stands: two short lines are read.
STANDS = 3500
#: The same for one that offers something to press.
OFFERS = 8000
#: The same for the answer to why a pixel is masked.
WHY_STAYS = 30_000
#: Room between it and the pane's border, and the least width of its words, screen pixels.
MARGIN, NARROWEST = 2, 80
#: A widget that may be as wide as it likes (Qt).
FREE = 16777215
#: How far from the place of the click it stands, screen pixels.
AWAY = 16
#: A share of the picture under this would read 0.0 %.
LEAST_SHARE = 5e-4


def in_words(clicked: Clicked) -> str:
    """Return a click's outcome in words."""
    says_less = clicked.adds_less and clicked.held_back >= LEAST_SHARE
    if clicked.why and says_less:
        return translate(
            "Nothing added: drop samples hold back the {held_back:.1f} % that it would take.",
            held_back=100 * clicked.held_back,
        )
    if clicked.why:
        return clicked.why
    parts = [
        decimals(f"{word} {100 * share:.1f} %")
        for word, share in (
            (translate("Added"), clicked.added),
            (translate("removed"), clicked.removed),
        )
        if share >= LEAST_SHARE
    ]
    words = translate(" and ").join(parts) or translate("Changed less than 0.1 %")
    here = translate(", this piece only") if clicked.sample.reach == "here" else ""
    less = (
        translate(
            ". Drop samples hold back {held_back:.1f} % more",
            held_back=100 * clicked.held_back,
        )
        if says_less
        else ""
    )
    gone = (
        translate(". {n} samples were replaced", n=clicked.replaced) if clicked.replaced > 1 else ""
    )
    return words[0].upper() + words[1:] + here + less + gone


def tell_why(lines: list[str], beside: QWidget) -> None:
    """Say beside the pointer what decided about the pixel there."""
    words = "".join(f"<p style='margin:2px'>{html.escape(line)}</p>" for line in lines)
    words = f"<div style='width:360px'>{words}</div>"
    QToolTip.showText(QCursor.pos(), words, beside, QRect(), WHY_STAYS)


class Answer(QFrame):
    """Stands in the pane that was clicked. It goes after a moment, or with the next action: another
    click, undo, another picture.
    """

    def __init__(self, workspace: Workspace, viewport: Viewport, pane: QWidget) -> None:
        super().__init__(pane)
        self.setObjectName("answer")
        self._samples, self._work, self._viewport = workspace.samples, workspace.work, viewport
        #: What the button does.
        self._offer: Callable[[], object] = self.hide
        #: The project that is spoken of.
        self._said_of: object = None
        workspace.readout.explained.connect(lambda lines: tell_why(lines, pane))
        row = QHBoxLayout(self)
        row.setContentsMargins(8, 4, 4, 4)
        self.label, self.button = QLabel(""), QPushButton("")
        self.label.setTextFormat(Qt.TextFormat.PlainText)
        self.button.clicked.connect(lambda: self._offer())
        row.addWidget(self.label)
        row.addWidget(self.button)
        self._ends = QTimer(self)
        self._ends.setSingleShot(True)
        self._ends.timeout.connect(self.hide)
        workspace.samples.clicked.connect(self._clicked)
        workspace.samples.looking.connect(self.tell)
        workspace.work.changed.connect(self._changed)
        workspace.work.source_changed.connect(self.hide)
        self.hide()

    def stand_in(self, pane: QWidget) -> None:
        """Answer in another pane from now on."""
        if pane is not self.parent():
            self.setParent(pane)
            self.hide()

    def _clicked(self, clicked: Clicked) -> None:
        sample = clicked.sample
        offer = ""
        if clicked.why:
            offer, self._offer = (
                translate("Remove the sample"),
                lambda: self._samples.remove((sample.id,)),
            )
        elif clicked.replaced > 1:
            offer, self._offer = translate("Undo"), self._work.undo
        elif sample.role == "keep" and sample.reach == "here":
            offer = translate("Take it everywhere")
            self._offer = lambda: self._samples.edit(
                {"reach": "everywhere"}, translate("Reach of a sample"), ids=(sample.id,)
            )
        self.tell((sample.x, sample.y), in_words(clicked), offer)

    def tell(self, at: tuple[float, float], words: str, offer: str = "") -> None:
        """Say something of a place of the picture, and offer what can be done about it."""
        self.label.setText(words)
        self.button.setText(offer)
        self.button.setVisible(bool(offer))
        self._said_of = self._work.project
        pane = self.parentWidget()
        assert pane is not None
        self.label.setWordWrap(False)
        self.label.setMinimumWidth(0)
        self.label.setMaximumWidth(FREE)
        layout = self.layout()
        assert layout is not None
        layout.activate()
        self.adjustSize()
        beyond = self.width() + 2 * MARGIN - pane.width()
        if beyond > 0:
            self.label.setWordWrap(True)
            self.label.setFixedWidth(max(NARROWEST, self.label.width() - beyond))
            self.adjustSize()
        place = self._viewport.to_pane(QPointF(*at)) + QPointF(AWAY, AWAY)
        x, y = (max(MARGIN, min(round(v), room - size - MARGIN)) for v, room, size in (
            (place.x(), pane.width(), self.width()), (place.y(), pane.height(), self.height()),
        ))  # fmt: skip
        self.move(x, y)
        self.show()
        self.raise_()
        self._ends.start(OFFERS if offer else STANDS)

    def _changed(self) -> None:
        if self._work.project is not self._said_of:
            self.hide()
