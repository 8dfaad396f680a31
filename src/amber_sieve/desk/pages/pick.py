"""Pick: samples, and how near to them counts."""

from __future__ import annotations

from collections.abc import Callable, Sequence

import numpy as np
from PyQt6.QtCore import QEvent, QRectF, QSignalBlocker, QSize, Qt
from PyQt6.QtGui import QKeyEvent, QPainter, QPaintEvent
from PyQt6.QtWidgets import (
    QAbstractItemView,
    QButtonGroup,
    QComboBox,
    QFileDialog,
    QLabel,
    QListWidget,
    QListWidgetItem,
    QPushButton,
    QSizePolicy,
    QWidget,
)

from ...core.colour.measures import one_hue_saturation_luminance
from ...live.clicking import Clicked
from ...live.preview import Rendered
from ...names import COMPARISONS, SHAPES, TOLERANCES, DropRule
from ...project import edits
from ...project.fields import plain_spec, spec_of
from ...project.model import Sample, Sieve
from ...workspace.workspace import Workspace
from ..style import AMBER, WELL
from ..widgets.icon import with_icon
from ..widgets.number import Number
from ..widgets.swatch import swatch
from .page import Page, row_of

SIZES = (1, 3, 5, 11, 31)
#: A setting of the tool in hand, not of the project.
STROKE = plain_spec("stroke", "Stroke", 12, 1, 200, unit="px", help="Width of a scribbled sample")
RULE_WORDS: dict[DropRule, str] = {"nearer": "Drop what is nearer to it", "tolerance": "Drop all within its tolerance"}
MEASURE_WORDS = {"original": "Original", "result": "Result of the sieves above", "layer": "Another picture…"}


class MaskHistogram(QWidget):
    """How many pixels are masked how far, log-scaled; the ends are nothing and all."""

    def __init__(self) -> None:
        super().__init__()
        self.counts = np.zeros(64)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.setToolTip("Histogram of the mask: from nothing (left) to all (right)")

    def sizeHint(self) -> QSize:
        return QSize(200, 34)

    def show_counts(self, counts: np.ndarray) -> None:
        self.counts = np.log1p(counts.astype(float))
        self.update()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), WELL)
        highest, width = max(self.counts.max(), 1e-9), self.width() / len(self.counts)
        for k, count in enumerate(self.counts):
            height = count / highest * (self.height() - 2)
            painter.fillRect(
                QRectF(k * width, self.height() - height, max(width - 1, 1), height),
                AMBER if k in (0, len(self.counts) - 1) else Qt.GlobalColor.lightGray,
            )


class SampleList(QListWidget):
    """The samples; Delete takes the chosen ones out."""

    def __init__(self, page: PickPage) -> None:
        super().__init__()
        self.page = page
        self.setMouseTracking(True)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is not None and event.key() in (Qt.Key.Key_Delete, Qt.Key.Key_Backspace):
            self.page.remove_chosen()
        else:
            super().keyPressEvent(event)

    def leaveEvent(self, event: QEvent | None) -> None:
        self.page.viewing.look(solo="")
        super().leaveEvent(event)


class PickPage(Page):
    """The samples of the current sieve and what they are compared by."""

    def __init__(self, workspace: Workspace) -> None:
        super().__init__(workspace)
        self._samples, self._tools, self.viewing = workspace.samples, workspace.tools, workspace.viewing
        self._places()
        self._list()
        self._comparing()
        self._limits()
        self.histogram = MaskHistogram()
        self.column.addWidget(self.histogram)
        self.coverage = QLabel("")
        self.coverage.setObjectName("dim")
        self.column.addWidget(self.coverage)
        #: By sample, the tolerances at which its mask holds still.
        self._sizes: dict[str, tuple[float, ...]] = {}
        workspace.samples.clicked.connect(self._take_sizes)
        workspace.work.source_changed.connect(self._plain_mode)
        workspace.viewing.rendered.connect(self._cover)
        self.follow()

    # Building

    def _choice(self, rows: Sequence[tuple[str, str, str, str]], act: Callable[[str], object]) -> dict[str, QPushButton]:
        """Buttons of which one is down."""
        group = QButtonGroup(self)
        made: dict[str, QPushButton] = {}
        for name, value, drawing, tip in rows:
            button = QPushButton()
            with_icon(button, drawing, tip, name)
            button.setCheckable(True)
            button.setChecked(not made)
            button.clicked.connect(lambda _, value=value: act(value))
            group.addButton(button)
            made[value] = button
        self.column.addWidget(row_of(*made.values()))
        return made

    def _places(self) -> None:
        tools = self._tools
        self.modes = self._choice(
            (
                ("Start over", "", "rotate-ccw", "A click replaces all samples"),
                ("Keep", "keep", "circle-plus", "A click adds a keep sample (Shift+click)"),
                ("Drop", "drop", "circle-minus", "A click adds a drop sample (Ctrl+click)"),
            ),
            lambda role: setattr(tools, "role", role),
        )
        self.places = self._choice(
            (
                ("Point", "patch", "pipette", "Click; drag outwards to widen the tolerance"),
                ("Box", "box", "square-dashed", "Drag a box"),
                ("Stroke", "stroke", "pencil-line", "Scribble over a textured thing"),
            ),
            self._place,
        )
        self.patch_size = QComboBox()
        self.patch_size.addItems([f"{size} px" for size in SIZES])
        self.patch_size.setCurrentIndex(SIZES.index(tools.sample_size))
        self.patch_size.setAccessibleName("Sample size")
        self.patch_size.setToolTip("Side of the square whose mean is taken")
        self.patch_size.activated.connect(lambda index: setattr(tools, "sample_size", SIZES[index]))
        self.stroke = Number(STROKE)
        self.stroke.moved.connect(lambda value: setattr(tools, "stroke_width", round(value)))
        outline = QPushButton()
        with_icon(outline, "lasso", "Outline: draw loosely round a thing; samples that hold it, and not what is outside, are found")
        outline.setCheckable(True)
        outline.setAccessibleName("Outline")
        outline.clicked.connect(lambda: self._place("outline"))
        group = self.places["patch"].group()
        assert group is not None
        group.addButton(outline)
        self.places["outline"] = outline
        self.column.addWidget(row_of(self.patch_size, self.stroke, outline))

    def _place(self, place: str) -> None:
        self._tools.place = place

    def _list(self) -> None:
        self.samples = SampleList(self)
        self.samples.setAccessibleName("Samples")
        self.samples.setSelectionMode(QAbstractItemView.SelectionMode.ExtendedSelection)
        self.samples.setToolTip(
            "The tick switches a sample, F2 renames it, Delete takes it out; with none chosen the settings below go to all"
        )
        self.samples.setMinimumHeight(84)
        self.samples.itemSelectionChanged.connect(self._follow_chosen)
        self.samples.itemChanged.connect(self._edited)
        self.samples.itemEntered.connect(lambda item: self.viewing.look(solo=item.data(Qt.ItemDataRole.UserRole)))
        self.column.addWidget(self.samples, 1)
        self.remove, self.clear, self.again, self.swap = QPushButton(), QPushButton(), QPushButton(), QPushButton()
        with_icon(self.remove, "trash-2", "Take the chosen samples out (Delete)")
        with_icon(self.clear, "eraser", "Take all samples out")
        with_icon(self.again, "refresh-cw", "Sample again: take the colours of the same places from this frame")
        with_icon(self.swap, "arrow-left-right", "Make keep samples drop samples, and the other way round")
        self.remove.clicked.connect(self.remove_chosen)
        self.here = QPushButton()
        with_icon(
            self.here, "map-pin", "Here only: the chosen samples, or the last, reach the piece at their place, not the whole picture (R)"
        )
        self.here.setCheckable(True)
        self.here.clicked.connect(self.toggle_reach)
        self.clear.clicked.connect(lambda: self.work.edit_sieve(edits.without_any_sample, "Clear samples"))
        self.again.clicked.connect(lambda: self._samples.take_again(self.chosen()))
        self.swap.clicked.connect(self._swap)
        self.column.addWidget(row_of(self.here, self.swap, self.again, self.remove, self.clear))

    def _comparing(self) -> None:
        self.compare = QComboBox()
        self.compare.addItems([f"Compare by {name}" for name in COMPARISONS])
        self.compare.setAccessibleName("Compare by")
        self.compare.setToolTip("Surface: the same thing, however it is lit. Colour: exactly this colour. The others: that one measure")
        self.compare.activated.connect(lambda index: self._change({"compare": COMPARISONS[index]}, f"Compare by {COMPARISONS[index]}"))
        self.column.addWidget(self.compare)
        self.rule = QComboBox()
        self.rule.addItems(RULE_WORDS.values())
        self.rule.setAccessibleName("Drop rule")
        self.rule.setToolTip("What a drop sample takes: all that lies nearer to it than to any keep sample, or all within its tolerance")
        self.rule.activated.connect(lambda index: self._change({"rule": list(RULE_WORDS)[index]}, "Drop rule"))
        self.column.addWidget(self.rule)
        self.tolerance = self._of_chosen("tolerance")
        self.falloff = self._of_chosen("falloff")
        self.shape = QComboBox()
        self.shape.addItems([shape.capitalize() for shape in SHAPES])
        self.shape.setAccessibleName("Falloff shape")
        self.shape.setToolTip("Shape of the falloff; hard leaves no partial pixel")
        self.shape.activated.connect(lambda index: self._change({"shape": SHAPES[index]}, "Falloff shape"))
        self.bend = self._of_chosen("bend", add=False)
        self.column.addWidget(row_of(self.shape, self.bend))
        self.shading, self.gloss = self.number("pick.shading"), self.number("pick.gloss")
        self.hue_weight, self.saturation_weight = self.number("pick.hue_weight"), self.number("pick.saturation_weight")
        self.fit = QPushButton()
        with_icon(self.fit, "wand-sparkles", "Find tolerance, falloff, shading and gloss that part keep from drop samples best", "Fit")
        self.fit.clicked.connect(self._samples.fit)
        self.invert = self.check("invert")
        self.column.addWidget(row_of(self.fit, self.invert))

    def _limits(self) -> None:
        self.connected = self.check("pick.connected")
        self.bridge = self.number("pick.bridge", add=False)
        self.column.addWidget(row_of(self.connected, self.bridge))
        self.transparent = self.check("pick.transparent")
        self.column.addWidget(self.transparent)
        self.measure = QComboBox()
        self.measure.addItems([f"Measure: {words.lower()}" for words in MEASURE_WORDS.values()])
        self.measure.setAccessibleName("Measure from")
        self.measure.activated.connect(self._measure)
        self.column.addWidget(self.measure)

    def _of_chosen(self, name: str, add: bool = True) -> Number:
        """A number that shows a field of the first chosen sample and changes it in all chosen ones."""
        number = Number(spec_of(Sample, name))
        number.moved.connect(lambda value: self._change({name: value}, number.name, group=number.name))
        number.settled.connect(self.work.end_drag)
        if add:
            self.column.addWidget(number)
        return number

    # Editing

    def chosen(self) -> tuple[str, ...]:
        """Ids of the chosen samples; none means all."""
        return tuple(item.data(Qt.ItemDataRole.UserRole) for item in self.samples.selectedItems())

    def _change(self, changes: dict[str, object], what: str, group: str = "") -> None:
        self._samples.edit(changes, what, group, self.chosen())

    def remove_chosen(self) -> None:
        """Take out the chosen samples, or the last one."""
        samples = self.work.sieve.pick.samples
        self._samples.remove(self.chosen() or tuple(sample.id for sample in samples[-1:]))

    def toggle_reach(self) -> None:
        """Let the chosen samples, or the last one, reach everywhere or only the piece at their place."""
        samples = self.work.sieve.pick.samples
        ids = self.chosen() or tuple(sample.id for sample in samples[-1:])
        first = next((s for s in samples if s.id in ids), None)
        if first is not None:
            reach = "everywhere" if first.reach == "here" else "here"
            self._samples.edit({"reach": reach}, "Reach of a sample", ids=ids)

    def _swap(self) -> None:
        ids = self.chosen()
        self.work.edit_sieve(lambda sieve: edits.with_roles_swapped(sieve, ids), "Swap keep and drop")

    def _edited(self, item: QListWidgetItem) -> None:
        sample = next((s for s in self.work.sieve.pick.samples if s.id == item.data(Qt.ItemDataRole.UserRole)), None)
        if sample is None:
            return
        on = item.checkState() == Qt.CheckState.Checked
        name = "" if item.text() == self._words(sample) else item.text().strip()
        self._samples.edit(
            {"on": on, "name": (name or sample.name)[:200]}, "Switch sample" if on != sample.on else "Rename sample", ids=(sample.id,)
        )

    def _measure(self, index: int) -> None:
        kind, layer = list(MEASURE_WORDS)[index], self.work.sieve.pick.layer
        if kind == "layer":
            layer, _ = QFileDialog.getOpenFileName(self, "Measure another picture of the same size")
            if not layer:
                self.follow()
                return
        self.work.edit_sieve(lambda s: s.but(pick=s.pick.but(measure=kind, layer=layer)), "Measure from")

    # Following

    @staticmethod
    def _words(sample: Sample) -> str:
        if sample.name:
            return sample.name
        hue, saturation, luminance = one_hue_saturation_luminance(np.array(sample.colour))
        place = ("" if sample.place == "patch" else f" {sample.place}") + (" here" if sample.reach == "here" else "")
        return f"{sample.role.capitalize()}{place}  H {hue:.0f}° S {saturation:.0f} L {luminance:.0f}  ±{sample.tolerance:.1f}"

    def _cover(self, result: Rendered) -> None:
        if not result.wanted.looking.peeking:
            self.histogram.show_counts(result.coverage.histogram)
            self.coverage.setText(f"Covers {100 * result.coverage.whole:.1f} %; partial pixels {100 * result.coverage.partial:.1f} %")

    def _plain_mode(self) -> None:
        """Another picture begins with a plain click: a mode is not carried along."""
        self._tools.role = ""
        self.modes[""].setChecked(True)

    def _take_sizes(self, clicked: Clicked) -> None:
        """Remember at which tolerances the mask of a sample holds still, to mark them; of samples that are there."""
        there = {sample.id for sieve in self.work.project.stack for sample in sieve.pick.samples}
        self._sizes = {key: sizes for key, sizes in self._sizes.items() if key in there} | {clicked.sample.id: clicked.sizes}
        self._follow_chosen()

    def _follow_chosen(self) -> None:
        samples, ids = self.work.sieve.pick.samples, self.chosen()
        shown = next((s for s in samples if s.id in ids), samples[-1] if samples else None)
        self.tolerance.mark(self._sizes.get(shown.id, ()) if shown is not None else ())
        for widget in (
            self.remove,
            self.clear,
            self.again,
            self.swap,
            self.compare,
            self.tolerance,
            self.falloff,
            self.shape,
            self.bend,
            self.fit,
            self.here,
        ):
            widget.setEnabled(shown is not None)
        self.rule.setEnabled(shown is not None and shown.role == "drop")
        if shown is not None:
            self.here.setChecked(shown.reach == "here")
            self.rule.setCurrentIndex(list(RULE_WORDS).index(shown.rule))
            self.tolerance.show_value(shown.tolerance)
            self.falloff.show_value(shown.falloff)
            self.bend.show_value(shown.bend)
            self.bend.setEnabled(shown.shape == "bend")
            self.compare.setCurrentIndex(COMPARISONS.index(shown.compare))
            self.shape.setCurrentIndex(SHAPES.index(shown.shape))
            most, unit = TOLERANCES[shown.compare]
            for number, name in ((self.tolerance, "tolerance"), (self.falloff, "falloff")):
                spec = spec_of(Sample, name)
                number.set_range(spec.low, most, spec.start, unit)
                number.high = spec.high

    def follow(self) -> None:
        super().follow()
        sieve: Sieve = self.work.sieve
        ids = self.chosen()
        with QSignalBlocker(self.samples):
            self.samples.clear()
            for sample in sieve.pick.samples:
                item = QListWidgetItem(swatch(sample.colour), self._words(sample))
                item.setData(Qt.ItemDataRole.UserRole, sample.id)
                item.setFlags(item.flags() | Qt.ItemFlag.ItemIsUserCheckable | Qt.ItemFlag.ItemIsEditable)
                item.setCheckState(Qt.CheckState.Checked if sample.on else Qt.CheckState.Unchecked)
                self.samples.addItem(item)
                item.setSelected(sample.id in ids)
        self._follow_chosen()
        surfaces = any(sample.compare == "surface" for sample in sieve.pick.samples)
        for number in (self.shading, self.gloss, self.hue_weight, self.saturation_weight):
            number.setEnabled(surfaces or not sieve.pick.samples)
        self.bridge.setEnabled(sieve.pick.connected)
        self.measure.setCurrentIndex(list(MEASURE_WORDS).index(sieve.pick.measure))
