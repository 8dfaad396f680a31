"""Edge: what cleans the mask's outline, in the order in which it is applied."""

from __future__ import annotations

from PyQt6.QtCore import QSignalBlocker, Qt
from PyQt6.QtWidgets import QCheckBox, QComboBox, QLabel, QListWidget, QListWidgetItem, QPushButton

from ...core.edge.feather import WAYS
from ...core.edge.islands import Island
from ...project.model import Edge
from ..number import Number
from ..session import Rendered, Session
from .page import Page, row_of


class EdgePage(Page):
    """The outline of the current sieve's mask, and its islands."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self._checks: list[tuple[QCheckBox, str]] = []
        self.numbers: dict[str, Number] = {}
        self._levels()
        self._outline()
        self._unmixing()
        self._islands()
        reset = QPushButton("Reset the edge")
        reset.clicked.connect(lambda: session.edit_sieve(lambda s: s.but(edge=Edge()), "Reset the edge"))
        self.column.addWidget(reset)
        self.column.addStretch(1)
        session.rendered.connect(self._after_render)
        self.follow()

    def _number(self, name: str, number: Number) -> Number:
        self.numbers[name] = self.field("edge", name, number, number.name)
        return number

    def _pair(self, *widgets) -> None:  # type: ignore[no-untyped-def]
        for widget in widgets:
            self.column.removeWidget(widget)
        self.column.addWidget(row_of(*widgets))

    def _check(self, name: str, words: str, tip: str = "") -> QCheckBox:
        box = QCheckBox(words)
        box.setToolTip(tip or words)
        box.toggled.connect(lambda on: self.session.edit_sieve(lambda s: s.but(edge=s.edge.but(**{name: on})), words))
        self._checks.append((box, name))
        return box

    def _levels(self) -> None:
        self._pair(
            self._number("black", Number("Black point", 0, 100, 0, 1, "%")),
            self._number("white", Number("White point", 0, 100, 100, 1, "%")),
        )
        self.all_holes = self._check("all_holes", "All holes", "Fill every hole, whatever its size")
        self._pair(self._number("gamma", Number("Gamma", 0.1, 10, 1, 0.1, "", 2)), self.all_holes)
        self._pair(
            self._number("specks", Number("Specks", 0, 5000, 0, 5, "px")), self._number("holes", Number("Holes", 0, 5000, 0, 5, "px"))
        )

    def _outline(self) -> None:
        self._number("grow", Number("Grow", -60, 60, 0, 0.5, "px", 1, "Grow; below zero it shrinks"))
        self.way = QComboBox()
        self.way.addItems([way.capitalize() for way in WAYS])
        self.way.setAccessibleName("Feather which way")
        self.way.activated.connect(
            lambda index: self.session.edit_sieve(lambda s: s.but(edge=s.edge.but(way=WAYS[index])), "Feather which way")
        )
        self._pair(self._number("feather", Number("Feather", 0, 100, 0, 0.5, "px", 1)), self.way)
        self.hard = self._check("hard", "Hard edge", "No partial pixel")
        self._pair(self._number("smooth", Number("Smooth", 0, 50, 0, 0.5, "px", 1)), self.hard)

    def _unmixing(self) -> None:
        self._number(
            "follow", Number("Follow", 0, 100, 0, 1, "px", 0, "Unmix the outline into surface and background, so far outside the mask")
        )
        self._number(
            "sensitivity", Number("Sensitivity", 0, 100, 50, 1, "%", 0, "How alike surface and background may be and still be told apart")
        )
        self.band = QCheckBox("Band")
        self.band.setToolTip("Mark the band in which Fine works, in the view Mask")
        self.band.toggled.connect(lambda on: self.session.look(band=on))
        self._pair(
            self._number("fine", Number("Fine", 0, 100, 0, 1, "px", 0, "Matting in a band of this width: hair, fringe, leaves")), self.band
        )
        self.no_haze = self._check(
            "no_haze", "No haze", "With Follow or Fine: adjust the unmixed colours, so that no rim of the old colour stays"
        )
        self.check = QPushButton("Haze check")
        self.check.setToolTip("Count and mark the pixels where a rim of the old colour would stay")
        self.check.clicked.connect(lambda: self.haze.setText(self.session.haze() or "Still working: try again in a moment"))
        self._pair(self.no_haze, self.check)
        self.haze = QLabel("")
        self.haze.setObjectName("dim")
        self.column.addWidget(self.haze)
        self.clean_auto = self._check("clean_auto", "Auto", "As much as the measured noise asks for")
        self._pair(
            self._number("clean", Number("Clean source", 0, 8, 0, 1, "", 0, "Smooth the chroma of what is measured, never of the picture")),
            self.clean_auto,
        )

    def _islands(self) -> None:
        self.heading("Islands")
        self.click_islands = QPushButton("Click")
        self.click_islands.setCheckable(True)
        self.click_islands.setToolTip("Click an island in a view to take it out, click its place again to bring it back")
        self.click_islands.toggled.connect(lambda on: setattr(self.session, "island_tool", on))
        self.count, self.only, self.out, self.back = QPushButton("List"), QPushButton("Only"), QPushButton("Out"), QPushButton("All")
        self.count.clicked.connect(self.list_islands)
        self.back.setToolTip("Bring all islands back")
        self.only.setToolTip("Keep only the chosen island")
        self.out.setToolTip("Take the chosen islands out; with none chosen, all but the largest")
        self.only.clicked.connect(self._only)
        self.out.clicked.connect(self._out)
        self.back.clicked.connect(self.session.all_islands)
        self.column.addWidget(row_of(self.click_islands, self.count, self.only, self.out, self.back))
        self.islands = QListWidget()
        self.islands.setSelectionMode(QListWidget.SelectionMode.ExtendedSelection)
        self.islands.setAccessibleName("Islands by size")
        self.islands.setFixedHeight(84)
        self.islands.setMouseTracking(True)
        self.islands.itemEntered.connect(lambda item: self.session.outline_island(item.data(Qt.ItemDataRole.UserRole)))
        self.column.addWidget(self.islands)

    def list_islands(self) -> None:
        """List the pieces of the mask, the largest first."""
        self.islands.clear()
        for number, island in enumerate(self.session.islands(), 1):
            item = QListWidgetItem(f"{number}:  {island.area} px  at {island.x:.0f}, {island.y:.0f}")
            item.setData(Qt.ItemDataRole.UserRole, island)
            self.islands.addItem(item)

    def _chosen(self) -> list[Island]:
        return [item.data(Qt.ItemDataRole.UserRole) for item in self.islands.selectedItems()]

    def _only(self) -> None:
        chosen = self._chosen() or ([self.islands.item(0).data(Qt.ItemDataRole.UserRole)] if self.islands.count() else [])  # type: ignore[union-attr]
        if chosen:
            self.session.keep_only_island(chosen[0].x, chosen[0].y)

    def _out(self) -> None:
        everything = [self.islands.item(k).data(Qt.ItemDataRole.UserRole) for k in range(self.islands.count())]  # type: ignore[union-attr]
        self.session.take_islands_out(self._chosen() or everything[1:])

    def _after_render(self, result: Rendered) -> None:
        self.haze.setText("Fine is being worked out…" if result.waiting else "")

    def follow(self) -> None:
        super().follow()
        edge = self.session.sieve.edge
        for box, name in self._checks:
            with QSignalBlocker(box):
                box.setChecked(getattr(edge, name))
        self.way.setCurrentIndex(WAYS.index(edge.way))
        self.numbers["sensitivity"].setEnabled(edge.follow > 0)
        self.numbers["clean"].setEnabled(not edge.clean_auto)
        self.no_haze.setEnabled(edge.follow > 0 or edge.fine > 0)
