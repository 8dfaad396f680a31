"""Edge: what cleans the mask's outline, in the order in which it is applied."""

from __future__ import annotations

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import (
    QCheckBox,
    QLabel,
    QListWidget,
    QListWidgetItem,
    QPushButton,
    QSizePolicy,
    QWidget,
)

from ...core.edge.islands import Island
from ...language import translator
from ...live.preview import Rendered
from ...live.watching import Course
from ...names import WAYS
from ...project import edits
from ...project.edits import field_of
from ...project.fields import numbers_of
from ...project.model import Edge
from ...workspace.workspace import Workspace
from ..widgets.block import Block
from ..widgets.icon import with_icon
from ..widgets.number import Number
from .page import Page, row_of

translate = translator("pages")


class EdgePage(Page):
    """The outline of the current sieve's mask, and its islands."""

    def __init__(self, workspace: Workspace) -> None:
        super().__init__(workspace)
        self._areas, self._tools, self._viewing = (
            workspace.areas,
            workspace.tools,
            workspace.viewing,
        )
        self.numbers: dict[str, Number] = {
            spec.name: self.number(f"edge.{spec.name}", add=False) for spec in numbers_of(Edge)
        }
        #: Names of the numbers that have their place.
        self._placed: set[str] = set()
        # From above to below in the order in which they act (`render.stages.every`).
        self._steps = 0
        self._noise()
        self._levels()
        self._cleaning()
        self._islands()
        self._outline()
        self._unmixing()
        self._over_time()
        self._add_what_is_left()
        self.ungrouped()
        self.reset = QPushButton(translate("Reset the edge"))
        self.reset.clicked.connect(
            lambda: workspace.work.edit_sieve(edits.without_edge, translate("Reset the edge"))
        )
        self.put(self.reset)
        self.column.addStretch(1)
        workspace.viewing.rendered.connect(self._after_render)
        workspace.areas.islands_found.connect(self._list)
        workspace.areas.fringe_found.connect(self._say_fringe)
        self.follow()

    def _step(self, name: str, title: str, folded: bool = False) -> Block:
        """Begin the group of the next step, with its number."""
        self._steps += 1
        return self.group(name, f"{self._steps}  {title}", folded)

    def _add(self, *things: str | QWidget) -> None:
        """A row of numbers, by name, and other widgets."""
        self._placed |= {thing for thing in things if isinstance(thing, str)}
        widgets = [self.numbers[thing] if isinstance(thing, str) else thing for thing in things]
        self.put(row_of(*widgets) if len(widgets) > 1 else widgets[0])

    def _add_what_is_left(self) -> None:
        """Numbers of the edge that have no place of their own stand below the others."""
        for name in [name for name in self.numbers if name not in self._placed]:
            self._add(name)

    def _cleaning(self) -> None:
        self._step("cleaning", translate("Specks and holes"))
        self.all_holes = self.check("edge.all_holes")
        self._add("specks")
        self._add("holes")
        self.put(self.all_holes)

    def _outline(self) -> None:
        self._step("outline", translate("Outline"))
        self._add("grow")
        self._add("smooth")

    def _levels(self) -> None:
        self._step("levels", translate("Levels of the mask"), folded=True)
        self._add("black", "white")
        self._add("gamma")

    def _unmixing(self) -> None:
        self._step("unmixing", translate("Fine edges"))
        self._add("follow")
        self._add("sensitivity")
        self._add("fine")
        self.band = QCheckBox(translate("Show its band"))
        self.band.setToolTip(
            translate("Marks in the view Mask where hair and fringe are worked out")
        )
        self.band.toggled.connect(lambda on: self._viewing.look(band=on))
        self.no_haze = self.check("edge.no_haze")
        self.put(self.band, self.no_haze)
        # What is done last stands last.
        self.way = self.choice("edge.way", WAYS)
        self.hard = self.check("edge.hard")
        self._add("feather", self.way)
        self.put(self.hard)
        self.fringe_check = QPushButton(translate("Fringe check"))
        self.fringe_check.setToolTip(
            translate(
                "Counts the pixels where a rim of the old colour would stay; the view Fringe "
                "check marks them",
            )
        )
        self.fringe_check.clicked.connect(self._check_fringe)
        self.put(self.fringe_check)
        self.fringe = QLabel("")
        self.fringe.setWordWrap(True)  # else its sentence would push the page out of its column
        self.fringe.setObjectName("dim")
        self.put(self.fringe)
        self._say_fringe("")

    def _noise(self) -> None:
        self._step("noise", translate("Noise and darkness"), folded=True)
        self._add("clean")
        self._add("level")

    def _over_time(self) -> None:
        self._step("time", translate("Over time"), folded=True)
        self._add("steady")
        self.flicker = QLabel("")
        self.flicker.setObjectName("dim")
        self.flicker.setVisible(False)
        self.put(self.flicker)
        self._clip.watched.connect(self._show_flicker)

    def _show_flicker(self, course: Course | None) -> None:
        """Show what Steady does for the flicker, as far as coverage over time has been watched."""
        known = course is not None and bool(course.unsteady)
        self.flicker.setVisible(known)
        if course is not None and known:
            words = course.in_words
            self.flicker.setText(words[0].upper() + words[1:])

    def _say_fringe(self, words: str) -> None:
        self.fringe.setText(words)
        self.fringe.setVisible(bool(words))

    def _check_fringe(self) -> None:
        self._say_fringe(translate("Counting…"))
        self._areas.check_fringe()

    def _islands(self) -> None:
        block = self._step("islands", translate("Islands"), folded=True)
        block.arrow.setToolTip(
            translate(
                "Pieces of the mask that hang together; when it is right, only those that are "
                "wanted are left"
            )
        )
        self.click_islands = QPushButton()
        with_icon(
            self.click_islands,
            "crosshair",
            translate(
                "Click an island in the picture to remove it, click its place again to bring it "
                "back",
            ),
            translate("Point at"),
        )
        self.click_islands.setCheckable(True)
        self.click_islands.toggled.connect(lambda on: setattr(self._tools, "island", on))
        self.count = QPushButton()
        with_icon(
            self.count,
            "list",
            translate("List the islands by size"),
            translate("List islands"),
        )
        self.count.clicked.connect(self._areas.list_islands)
        self.only, self.out, self.back = (
            QPushButton(translate("Keep only these")),
            QPushButton(translate("Remove")),
            QPushButton(translate("Restore all")),
        )
        self.only.setToolTip(
            translate("Keeps only the chosen island; with none chosen, the largest")
        )
        self.out.setToolTip(
            translate("Removes the chosen islands; with none chosen, all but the largest")
        )
        self.back.setToolTip(translate("Brings all islands back"))
        self.only.clicked.connect(self._only)
        self.out.clicked.connect(self._out)
        self.back.clicked.connect(self._areas.all_islands)
        self.put(row_of(self.click_islands, self.count))
        self.put(self.only, row_of(self.out, self.back))
        self.islands = QListWidget()
        self.islands.setSelectionMode(QListWidget.SelectionMode.ExtendedSelection)
        self.islands.setAccessibleName(translate("Islands by size"))
        self.islands.setMinimumHeight(64)
        self.islands.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.islands.setMouseTracking(True)
        self.islands.itemEntered.connect(
            lambda item: self._areas.outline_island(item.data(Qt.ItemDataRole.UserRole))
        )
        self.put(self.islands)

    def _list(self, islands: list[Island]) -> None:
        """List the pieces of the mask, the largest first."""
        self.islands.clear()
        for number, island in enumerate(islands, 1):
            item = QListWidgetItem(
                translate(
                    "{number}:  {area} px  at {x:.0f}, {y:.0f}",
                    number=number,
                    area=island.area,
                    x=island.x,
                    y=island.y,
                )
            )
            item.setData(Qt.ItemDataRole.UserRole, island)
            self.islands.addItem(item)

    def _listed(self) -> list[Island]:
        items = [self.islands.item(row) for row in range(self.islands.count())]
        return [item.data(Qt.ItemDataRole.UserRole) for item in items if item is not None]

    def _chosen(self) -> list[Island]:
        return [item.data(Qt.ItemDataRole.UserRole) for item in self.islands.selectedItems()]

    def _only(self) -> None:
        chosen = self._chosen() or self._listed()[:1]
        if chosen:
            self._areas.keep_only_island(chosen[0].x, chosen[0].y)

    def _out(self) -> None:
        self._areas.take_islands_out(self._chosen() or self._listed()[1:])

    def _after_render(self, result: Rendered) -> None:
        self._say_fringe(
            translate("Hair and fringe are being worked out…") if result.waiting else ""
        )
        if self.isVisible():
            self.follow()

    def found(self, path: str) -> tuple[float | None, str]:
        if path == "edge.follow":
            return None, ""
        last = self._viewing.last
        seen = (
            []
            if last is None
            else [sieve for sieve in last.seen.stack if sieve.id == self.work.sieve.id]
        )
        value = field_of(seen[0], path) if seen else "auto"
        return (None, "") if value == "auto" else (float(value), "")

    def follow(self) -> None:
        super().follow()
        edge = self.work.sieve.edge
        follows = edge.follow == "auto" or edge.follow > 0
        self.numbers["sensitivity"].setEnabled(follows)
        self.no_haze.setEnabled(follows or edge.fine > 0)
