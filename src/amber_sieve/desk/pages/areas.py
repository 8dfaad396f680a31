"""Areas: shapes and brush strokes that limit the mask."""

from __future__ import annotations

from PyQt6.QtCore import QSignalBlocker, Qt
from PyQt6.QtWidgets import (
    QButtonGroup,
    QCheckBox,
    QComboBox,
    QGridLayout,
    QListWidget,
    QListWidgetItem,
    QPushButton,
    QWidget,
)

from ...language import mid_sentence, named, translator
from ...names import AREA_MODES, BOXED, WAYS
from ...project import edits
from ...project.fields import plain_spec, spec_of
from ...project.model import Area, Stroke
from ...workspace.workspace import Workspace
from ..canvas.area_shape import numbers_of, with_number
from ..canvas.area_tools import ICONS, AreaTools
from ..widgets.icon import with_icon
from ..widgets.number import Number
from .page import Page, row_of

translate = translator("pages")


TIPS = {
    "change": translate(
        "Move, scale, turn (round handle) and skew (Ctrl) the chosen area; Shift scales about its "
        "middle",
    ),
    "rect": translate("Drag a rectangle"),
    "ellipse": translate("Drag an ellipse"),
    "polygon": translate(
        "Click corners; Backspace removes the last one, double-click or Enter closes"
    ),
    "freehand": translate("Draw round what you want"),
    "cling": translate(
        "Click along an outline: it follows the edges of the picture; Backspace removes the last "
        "point, double-click or Enter closes",
    ),
    "gradient": translate("Drag from full to nothing"),
    "radial": translate("Drag a soft round area"),
    "brush": translate(
        "Paint; Ctrl erases, Shift+click draws a straight line, [ and ] or dragging with the "
        "right button change the size",
    ),
}
WORDS = {
    "change": translate("Select"),
    "rect": translate("Rectangle"),
    "ellipse": translate("Ellipse"),
    "polygon": translate("Polygon"),
    "freehand": translate("Freehand"),
    "cling": translate("Edge outline"),
    "gradient": translate("Gradient"),
    "radial": translate("Radial"),
    "brush": translate("Brush"),
}
#: How new areas join: "" is by what is there already.
MODES = ("", *AREA_MODES)
#: The numbers of a shape, which are worked out from its three points.
SHAPE_NUMBERS = tuple(
    plain_spec(name, translate(name), 0, low, high, unit=unit, decimals=1, help=name)
    for name, low, high, unit in (
        ("X", -20000, 40000, "px"),
        ("Y", -20000, 40000, "px"),
        ("Width", 1, 40000, "px"),
        ("Height", 1, 40000, "px"),
        ("Angle", -180, 180, "°"),
    )
)
SENSITIVITY = plain_spec(
    "sensitivity",
    translate("Edge sensitivity"),
    50,
    0,
    100,
    unit="%",
    help=translate("From strong edges only to weak ones too"),
)


class AreasPage(Page):
    """The tools, the list of areas, and the numbers of the chosen one."""

    def __init__(self, workspace: Workspace, tools: AreaTools) -> None:
        super().__init__(workspace)
        self._areas = workspace.areas
        self.tools = tools
        box, group = QWidget(), QButtonGroup(self)
        grid = QGridLayout(box)
        grid.setContentsMargins(0, 0, 0, 0)
        grid.setSpacing(4)
        self.buttons: dict[str, QPushButton] = {}
        for number, tool in enumerate(ICONS):
            button = QPushButton()
            with_icon(button, ICONS[tool], TIPS[tool], WORDS[tool])
            button.setCheckable(True)
            button.clicked.connect(lambda _, tool=tool: tools.take(tool))
            group.addButton(button)
            grid.addWidget(button, number // 2, number % 2)
            self.buttons[tool] = button
        self.put(box)
        self.mode = QComboBox()
        self.mode.addItems(
            [
                translate("New areas: limit first, then add"),
                translate("New areas: add"),
                translate("New areas: subtract"),
                translate("New areas: limit to"),
            ]
        )
        self.mode.setAccessibleName(translate("How new areas join"))
        self.mode.activated.connect(lambda index: setattr(tools, "mode", MODES[index] or None))
        self.put(self.mode)
        self._tools_own()
        self._list()
        self._numbers()
        self.column.addStretch(1)
        tools.changed.connect(self.follow)
        self.follow()

    def _list(self) -> None:
        self.areas = QListWidget()
        self.areas.setAccessibleName(translate("Areas"))
        self.areas.setToolTip(
            translate("Applied from top to bottom; the tick switches an area, F2 renames it")
        )
        self.areas.setMinimumHeight(70)
        self.areas.currentRowChanged.connect(self._select)
        self.areas.itemChanged.connect(self._edited)
        self.column.addWidget(self.areas, 1)
        self.remove, self.duplicate, self.up, self.down = (
            QPushButton(),
            QPushButton(),
            QPushButton(),
            QPushButton(),
        )
        with_icon(self.remove, "trash-2", translate("Remove the chosen area (Delete)"))
        with_icon(self.duplicate, "copy", translate("Duplicate the chosen area"))
        with_icon(self.up, "arrow-up", translate("Apply the chosen area earlier"))
        with_icon(self.down, "arrow-down", translate("Apply the chosen area later"))
        self.remove.clicked.connect(lambda: self.tools.key(Qt.Key.Key_Delete))
        self.duplicate.clicked.connect(self._duplicate)
        self.up.clicked.connect(lambda: self._shift(-1))
        self.down.clicked.connect(lambda: self._shift(1))
        self.put(row_of(self.remove, self.duplicate, self.up, self.down))
        self.chosen = self.group("chosen", translate("Chosen area"))
        self.joins = QComboBox()
        self.joins.addItems(
            [
                translate("Add"),
                translate("Subtract"),
                translate("Limit to"),
            ]
        )
        self.joins.setAccessibleName(translate("How this area joins"))
        self.joins.activated.connect(
            lambda index: self._change(translate("Area mode"), mode=MODES[index + 1])
        )
        self.inverted = QCheckBox(translate("Inverted"))
        self.inverted.toggled.connect(
            lambda on: self._change(translate("Invert area"), inverted=on)
        )
        self.put(row_of(self.joins, self.inverted))

    def _numbers(self) -> None:
        self.feather = Number(spec_of(Area, "feather"))
        self.feather.moved.connect(
            lambda value: self._change(
                translate("Area feather"),
                translate("Area feather"),
                feather=value,
            )
        )
        self.feather.settled.connect(self.work.end_drag)
        self.way = QComboBox()
        self.way.addItems([named(way) for way in WAYS])
        self.way.setAccessibleName(translate("Area feather which way"))
        self.way.activated.connect(
            lambda index: self._change(translate("Area feather"), way=WAYS[index])
        )
        self.put(row_of(self.feather, self.way))
        self.numbers: dict[str, Number] = {}
        for spec in SHAPE_NUMBERS:
            number, name = Number(spec), spec.name
            number.moved.connect(lambda value, name=name: self._shape(name, value))
            number.settled.connect(self.work.end_drag)
            self.numbers[name] = number
        self.shape_rows = (
            row_of(self.numbers["X"], self.numbers["Y"]),
            row_of(self.numbers["Width"], self.numbers["Height"]),
            self.numbers["Angle"],
        )
        self.put(*self.shape_rows)
        self.snap = QCheckBox(translate("Snap"))
        self.snap.setToolTip(translate("Pull points to borders, middle lines and other areas"))
        self.snap.toggled.connect(lambda on: setattr(self.tools, "snap", on))
        self.put(self.snap)

    def _tools_own(self) -> None:
        """Make the settings of the tool in hand: of the brush, and of the edge outline."""
        brush = self.tools.brush
        self.brush_group = self.group("brush", translate("Brush"))
        self.brush: dict[str, Number] = {}
        for name in ("size", "hardness", "flow", "opacity"):
            number = Number(spec_of(Stroke, name))
            number.moved.connect(lambda value, name=name: setattr(brush, name, value))
            self.brush[name] = number
        self.put(
            row_of(self.brush["size"], self.brush["hardness"]),
            row_of(self.brush["flow"], self.brush["opacity"]),
        )
        self.pressure = QComboBox()
        self.pressure.addItems(
            [
                translate("Pen pressure: off"),
                translate("Pen pressure: size"),
                translate("Pen pressure: flow"),
            ]
        )
        self.pressure.setAccessibleName(translate("What tablet pressure acts on"))
        self.pressure.activated.connect(
            lambda index: setattr(brush, "pressure", ("nothing", "size", "flow")[index])
        )
        self.alike = QCheckBox(translate("Similar colours only"))
        self.alike.setToolTip(
            translate("Paint only where the picture resembles the place the stroke began")
        )
        self.alike.toggled.connect(lambda on: setattr(brush, "alike", on))
        self.put(self.pressure, self.alike)
        self.ungrouped()
        self.cling = Number(SENSITIVITY)
        self.cling.moved.connect(lambda value: setattr(self.tools, "sensitivity", value))
        self.put(self.cling)

    # Editing

    def _change(self, what: str, group: str = "", **changes: object) -> None:
        if self.tools.area is not None:
            self._areas.put(self.tools.area.but(**changes), what, group)

    def _shape(self, name: str, value: float) -> None:
        if self.tools.area is not None and self.tools.area.kind in (*BOXED, "polygon"):
            self._areas.put(
                with_number(self.tools.area, name, value),
                translate("Area {name}", name=mid_sentence(translate(name))),
                group=f"Area {name}",
            )

    def _select(self, row: int) -> None:
        areas = self.work.sieve.areas
        self.tools.selected = areas[row].id if 0 <= row < len(areas) else ""
        self.tools.changed.emit()

    def _edited(self, item: QListWidgetItem) -> None:
        row = self.areas.row(item)
        if not 0 <= row < len(self.work.sieve.areas):
            return
        area = self.work.sieve.areas[row]
        name = "" if item.text() == self._words(area) else item.text().strip()
        self._areas.put(
            area.but(on=item.checkState() == Qt.CheckState.Checked, name=(name or area.name)[:200]),
            translate("Switch or rename area"),
        )

    def _duplicate(self) -> None:
        if self.tools.area is not None:
            copy = edits.duplicate_of(self.tools.area)
            self._areas.edit(
                lambda sieve: edits.with_area(sieve, copy), translate("Duplicate area")
            )
            self.tools.selected = copy.id
            self.follow()

    def _shift(self, by: int) -> None:
        chosen = self.tools.selected
        if self.tools.area is not None:
            self._areas.edit(
                lambda sieve: edits.with_area_moved(sieve, chosen, by),
                translate("Reorder areas"),
            )

    # Following

    @staticmethod
    def _words(area: Area) -> str:
        modes = {
            "add": translate("add"),
            "subtract": translate("subtract"),
            "intersect": translate("limit to"),
        }
        return area.name or f"{WORDS[area.kind]}, {modes[area.mode]}"

    def follow(self) -> None:
        super().follow()
        tools = self.tools
        with QSignalBlocker(self.areas):
            self.areas.clear()
            for area in self.work.sieve.areas:
                item = QListWidgetItem(
                    self._words(area) + (", inverted" if area.inverted and not area.name else "")
                )
                item.setFlags(
                    item.flags() | Qt.ItemFlag.ItemIsUserCheckable | Qt.ItemFlag.ItemIsEditable
                )
                item.setCheckState(Qt.CheckState.Checked if area.on else Qt.CheckState.Unchecked)
                self.areas.addItem(item)
                if area.id == tools.selected:
                    self.areas.setCurrentItem(item)
        chosen = tools.area
        self.brush_group.setVisible(tools.tool == "brush")
        self.cling.setVisible(tools.tool == "cling")
        self.chosen.setVisible(chosen is not None)
        for widget in (
            self.remove,
            self.duplicate,
            self.up,
            self.down,
            self.joins,
            self.inverted,
            self.feather,
            self.way,
        ):
            widget.setEnabled(chosen is not None)
        boxed = chosen is not None and bool(chosen.points) and chosen.kind in (*BOXED, "polygon")
        for row in self.shape_rows:
            row.setVisible(boxed)
        here = numbers_of(chosen) if boxed and chosen is not None else {}
        for name, number in self.numbers.items():
            number.setEnabled(name in here)
            if name in here:
                number.show_value(round(here[name], 3))
        if chosen is not None:
            self.feather.show_value(chosen.feather)
            self.way.setCurrentIndex(WAYS.index(chosen.way))
            self.joins.setCurrentIndex(MODES.index(chosen.mode) - 1)
            with QSignalBlocker(self.inverted):
                self.inverted.setChecked(chosen.inverted)
        self.brush["size"].show_value(round(tools.brush.size, 1))
        for tool, button in self.buttons.items():
            button.setChecked(tool == tools.tool)
