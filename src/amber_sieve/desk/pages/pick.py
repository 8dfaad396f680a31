"""Pick: samples, and how near to them counts."""

from __future__ import annotations

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QAction
from PyQt6.QtWidgets import (
    QAbstractItemView,
    QCheckBox,
    QComboBox,
    QFileDialog,
    QLabel,
    QListWidgetItem,
    QMenu,
    QPushButton,
)

from ...language import named, translator
from ...live.clicking import Clicked
from ...live.preview import Rendered
from ...names import COMPARISONS, SHAPES, TOLERANCES
from ...project import edits
from ...project.fields import plain_spec, spec_of
from ...project.model import Sample, Sieve
from ...workspace.workspace import Workspace
from ..panels.surfaces_row import SurfacesRow
from ..widgets.icon import with_icon
from ..widgets.mask_histogram import MaskHistogram
from ..widgets.number import Number
from .light_choice import LightChoice
from .page import Page, narrow, row_of
from .sample_list import MEASURE_WORDS, RULE_WORDS, SampleList, in_words, whose

translate = translator("pages")


#: Sides of the square that a click takes, pixels: one pixel up to a coarse grain's.
SIZES = (1, 3, 5, 11, 31)
#: A setting of the tool in hand, not of the project.
STROKE = plain_spec(
    "stroke",
    translate("Stroke"),
    12,
    1,
    200,
    unit="px",
    help=translate("Width of a scribbled sample"),
)


class PickPage(Page):
    """The samples of the current sieve and what they are compared by."""

    def __init__(self, workspace: Workspace) -> None:
        super().__init__(workspace)
        self._samples, self._tools, self.viewing = (
            workspace.samples,
            workspace.tools,
            workspace.viewing,
        )
        self._places()
        self._list()
        self._tolerances()
        self._surface()
        self._comparing()
        self._limits()
        self._mask()
        self.ungrouped()
        self.surfaces = SurfacesRow(workspace)
        self.put(self.surfaces)
        #: By sample, the tolerances at which its mask holds still.
        self._sizes: dict[str, tuple[float, ...]] = {}
        self._tolerance_hints = workspace.tolerance_hints
        workspace.tolerance_hints.found.connect(self._show_shares)
        workspace.samples.clicked.connect(self._take_sizes)
        workspace.work.source_changed.connect(self.plain_mode)
        workspace.viewing.rendered.connect(self._cover)
        self.follow()

    # Building

    def _places(self) -> None:
        tools = self._tools
        self.modes = self.exclusive(
            (
                (
                    translate("New pick"),
                    "",
                    "rotate-ccw",
                    translate("A click replaces all samples"),
                ),
                (
                    translate("Keep"),
                    "keep",
                    "circle-plus",
                    translate("A click adds a keep sample (Shift+click)"),
                ),
                (
                    translate("Drop"),
                    "drop",
                    "circle-minus",
                    translate("A click adds a drop sample (Ctrl+click)"),
                ),
            ),
            lambda role: setattr(tools, "role", role),
        )
        self.places = self.exclusive(
            (
                (
                    translate("Point"),
                    "patch",
                    "",
                    translate("Click; drag outwards to widen the tolerance"),
                ),
                (
                    translate("Box"),
                    "box",
                    "",
                    translate("Drag a box: its main tones together"),
                ),
                (
                    translate("Stroke"),
                    "stroke",
                    "",
                    translate("Scribble over a textured thing: its main tones together"),
                ),
                (
                    translate("Outline"),
                    "outline",
                    "",
                    translate(
                        "Draw loosely round a thing: samples that hold it, and not what is "
                        "outside, are found",
                    ),
                ),
            ),
            self._place,
        )
        self.patch_size = QComboBox()
        self.patch_size.addItems([translate("Sample size: {size} px", size=size) for size in SIZES])
        self.patch_size.setCurrentIndex(SIZES.index(tools.sample_size))
        self.patch_size.setAccessibleName(translate("Sample size"))
        self.patch_size.setToolTip(translate("Side of the square whose mean is taken"))
        self.patch_size.activated.connect(lambda index: setattr(tools, "sample_size", SIZES[index]))
        self.stroke = Number(STROKE)
        self.stroke.moved.connect(lambda value: setattr(tools, "stroke_width", round(value)))
        self.stroke.hide()
        self.put(self.stroke)

    def _place(self, place: str) -> None:
        if place == "outline":
            self.plain_mode()
        self._tools.place = place
        self.stroke.setVisible(place == "stroke")

    def _list(self) -> None:
        self.samples = SampleList(self.remove_chosen, lambda: self.viewing.look(solo=""))
        self.samples.setAccessibleName(translate("Samples"))
        self.samples.setSelectionMode(QAbstractItemView.SelectionMode.ExtendedSelection)
        self.samples.setToolTip(
            translate(
                "The tick switches a sample on and off, F2 renames it, Delete removes it. With "
                "none chosen, the "
                "settings below apply to all",
            )
        )
        self.samples.itemSelectionChanged.connect(self._follow_chosen)
        self.samples.itemChanged.connect(self._edited)
        self.samples.itemEntered.connect(
            lambda item: self.viewing.look(solo=item.data(Qt.ItemDataRole.UserRole))
        )
        self.column.addWidget(self.samples, 1)
        self.here, self.remove, self.more = (
            QPushButton(translate("Here only")),
            QPushButton(),
            QPushButton(translate("More")),
        )
        self.here.setToolTip(
            translate(
                "On: the sample takes only the piece at its place. Off: its colour counts "
                "wherever it lies in the picture (R)",
            )
        )
        self.here.setCheckable(True)
        self.here.clicked.connect(self.toggle_reach)
        with_icon(
            self.remove,
            "trash-2",
            translate("Remove the chosen samples (Delete)"),
            translate("Remove"),
        )
        self.remove.clicked.connect(self.remove_chosen)
        menu = QMenu(self)
        self.again, self.swap, self.clear = (
            QAction(translate("Sample again from this frame")),
            QAction(translate("Swap keep and drop")),
            QAction(translate("Remove all samples")),
        )
        self.again.setToolTip(translate("The colours of the same places as they are on this frame"))
        for action, act in (
            (self.again, lambda: self._samples.take_again(self.chosen())),
            (self.swap, self._swap),
            (
                self.clear,
                lambda: self.work.edit_sieve(edits.without_any_sample, translate("Clear samples")),
            ),
        ):
            action.triggered.connect(lambda _, act=act: act())
            menu.addAction(action)
        self.more.setMenu(menu)
        self.put(row_of(self.here, self.remove, self.more))

    def _tolerances(self) -> None:
        self.whose = self.group("tolerance", translate("Tolerance"))
        self.tolerance = self._of_chosen("tolerance")
        self.falloff = self._of_chosen("falloff")
        self.all_samples = QCheckBox(translate("Set all samples"))
        self.all_samples.setToolTip(
            translate(
                "What is set here goes to every sample, not only to the one that is named above",
            )
        )
        self.all_samples.toggled.connect(lambda _: self._follow_chosen())
        self.put(self.all_samples)

    def _surface(self) -> None:
        self.group("surface", translate("Surface"))
        self.shading, self.gloss = self.number("pick.shading"), self.number("pick.gloss")

    def _comparing(self) -> None:
        self.group("comparing", translate("How colours are compared"), folded=True)
        self.compare = QComboBox()
        narrow(self.compare)
        self.compare.addItems([translate("Compare by {name}", name=name) for name in COMPARISONS])
        self.compare.setAccessibleName(translate("Compare by"))
        self.compare.setToolTip(
            translate(
                "Surface: the same thing, however it is lit. Colour: exactly this colour. The "
                "others: that one measure",
            )
        )
        self.compare.activated.connect(
            lambda index: self._change(
                {"compare": COMPARISONS[index]},
                translate("Compare by {comparison}", comparison=COMPARISONS[index]),
            )
        )
        self.rule = QComboBox()
        narrow(self.rule)
        self.rule.addItems(RULE_WORDS.values())
        self.rule.setAccessibleName(translate("Drop rule"))
        self.rule.setToolTip(
            translate(
                "What a drop sample takes: all that lies nearer to it than to any keep sample, or "
                "all within its tolerance",
            )
        )
        self.rule.activated.connect(
            lambda index: self._change({"rule": list(RULE_WORDS)[index]}, translate("Drop rule"))
        )
        self.put(self.compare, self.rule)
        self.hue_weight, self.saturation_weight = (
            self.number("pick.hue_weight"),
            self.number("pick.saturation_weight"),
        )
        self.shape = QComboBox()
        self.shape.addItems([named(shape) for shape in SHAPES])
        self.shape.setAccessibleName(translate("Falloff shape"))
        self.shape.setToolTip(translate("Shape of the falloff, from full to nothing"))
        self.shape.activated.connect(
            lambda index: self._change({"shape": SHAPES[index]}, translate("Falloff shape"))
        )
        self.bend = self._of_chosen("bend", add=False)
        self.put(row_of(self.shape, self.bend))
        self.fit = QPushButton()
        with_icon(
            self.fit,
            "wand-sparkles",
            translate(
                "Finds tolerance, falloff, shading and gloss that tell keep and drop samples "
                "apart best",
            ),
            translate("Fit to samples"),
        )
        self.fit.clicked.connect(self._samples.fit)
        self.put(self.fit)

    def _limits(self) -> None:
        self.group("limits", translate("What is measured"), folded=True)
        self.put(self.patch_size)
        self.connected = self.check("pick.connected")
        self.put(self.connected)
        self.bridge = self.number("pick.bridge")
        self.transparent = self.check("pick.transparent")
        self.put(self.transparent)
        self.measure = QComboBox()
        self.measure.addItems(
            [
                translate("Measure on: {words}{words2}", words=words[0].lower(), words2=words[1:])
                for words in MEASURE_WORDS.values()
            ]
        )
        self.measure.setAccessibleName(translate("Measure on"))
        self.measure.setToolTip(
            translate(
                "The colours that samples are compared with: those of the original, of the result "
                "so far, or of another picture",
            )
        )
        self.measure.activated.connect(self._measure)
        self.light = LightChoice(self.work, self._samples.speech)
        self.put(self.measure, self.light)

    def _mask(self) -> None:
        self.group("mask", translate("Mask"))
        self.coverage = QLabel("")
        self.coverage.setObjectName("dim")
        self.histogram = MaskHistogram()
        self.invert = self.check("invert")
        self.put(self.coverage, row_of(self.histogram, self.invert))

    def _of_chosen(self, name: str, add: bool = True) -> Number:
        """A number that shows a field of the first chosen sample and changes it in all chosen
        ones.
        """
        number = Number(spec_of(Sample, name))
        number.moved.connect(
            lambda value: self._change({name: value}, number.name, group=number.name)
        )
        number.settled.connect(self.work.end_drag)
        if add:
            self.put(number)
        return number

    # Editing

    def chosen(self) -> tuple[str, ...]:
        """Ids of the samples that are chosen in the list."""
        return tuple(item.data(Qt.ItemDataRole.UserRole) for item in self.samples.selectedItems())

    def meant(self) -> tuple[str, ...]:
        """Ids of the samples that the settings belong to: all of them, the chosen ones, or the
        last.
        """
        samples = self.work.sieve.pick.samples
        if self.all_samples.isChecked():
            return tuple(sample.id for sample in samples)
        return self.chosen() or tuple(sample.id for sample in samples[-1:])

    def _change(self, changes: dict[str, object], what: str, group: str = "") -> None:
        self._samples.edit(changes, what, group, self.meant())

    def remove_chosen(self) -> None:
        """Take out the chosen samples, or the last one."""
        samples = self.work.sieve.pick.samples
        self._samples.remove(self.chosen() or tuple(sample.id for sample in samples[-1:]))

    def toggle_reach(self) -> None:
        """Let the samples that the settings belong to reach everywhere, or only the piece at their
        place.
        """
        samples, ids = self.work.sieve.pick.samples, self.meant()
        first = next((s for s in samples if s.id in ids), None)
        if first is not None:
            reach = "everywhere" if first.reach == "here" else "here"
            self._samples.edit({"reach": reach}, translate("Reach of a sample"), ids=ids)

    def _swap(self) -> None:
        ids = self.chosen()
        self.work.edit_sieve(
            lambda sieve: edits.with_roles_swapped(sieve, ids),
            translate("Swap keep and drop"),
        )

    def _edited(self, item: QListWidgetItem) -> None:
        sample = next(
            (
                s
                for s in self.work.sieve.pick.samples
                if s.id == item.data(Qt.ItemDataRole.UserRole)
            ),
            None,
        )
        if sample is None:
            return
        on = item.checkState() == Qt.CheckState.Checked
        name = "" if item.text() == in_words(sample, self.work.sieve.pick) else item.text().strip()
        self._samples.edit(
            {"on": on, "name": (name or sample.name)[:200]},
            translate("Switch sample") if on != sample.on else translate("Rename sample"),
            ids=(sample.id,),
        )

    def _measure(self, index: int) -> None:
        kind, layer = list(MEASURE_WORDS)[index], self.work.sieve.pick.layer
        if kind == "layer":
            layer, _ = QFileDialog.getOpenFileName(
                self, translate("Measure another picture of the same size")
            )
            if not layer:
                self.follow()
                return
        self.work.edit_sieve(
            lambda s: s.but(pick=s.pick.but(measure=kind, layer=layer)),
            translate("Measure on"),
        )

    # Following

    def _cover(self, result: Rendered) -> None:
        if not result.wanted.looking.peeking:
            self.histogram.show_counts(result.coverage.histogram)
            self.coverage.setText(
                translate("Covers {whole:.1f} % of the picture", whole=100 * result.covered)
            )

    def plain_place(self) -> None:
        """A click takes a point again."""
        self.places["patch"].setChecked(True)
        self._place("patch")

    def plain_mode(self) -> None:
        """A plain click is a new pick: on another picture a mode is not carried along, and an
        outline is a new pick too.
        """
        self._tools.role = ""
        self.modes[""].setChecked(True)

    def _take_sizes(self, clicked: Clicked) -> None:
        """Remember at which tolerances the mask of a sample holds still, to mark them; of samples
        that are there.
        """
        there = {sample.id for sieve in self.work.project.stack for sample in sieve.pick.samples}
        found = tuple(sorted({*clicked.sizes, clicked.sample.tolerance}))
        self._sizes = {key: sizes for key, sizes in self._sizes.items() if key in there} | {
            clicked.sample.id: found
        }
        self._follow_chosen()

    def _show_shares(self, sample_id: str, shares: tuple[float, ...]) -> None:
        self.tolerance.set_curve(shares)

    def _follow_chosen(self) -> None:
        samples, ids = self.work.sieve.pick.samples, self.meant()
        shown = next((s for s in samples if s.id in (self.chosen() or ids[-1:])), None)
        self.whose.set_title(
            translate("Tolerance {whose}", whose=whose(ids, self.work.sieve.pick))
            if samples
            else translate("Tolerance")
        )
        self._tolerance_hints.want(shown.id if shown is not None else "")
        self.tolerance.mark(self._sizes.get(shown.id, ()) if shown is not None else ())
        for widget in (
            self.remove,
            self.more,
            self.compare,
            self.tolerance,
            self.falloff,
            self.shape,
            self.fit,
            self.here,
        ):
            widget.setEnabled(shown is not None)
        self.rule.setEnabled(shown is not None and shown.role == "drop")
        self.bend.setEnabled(shown is not None and shown.shape == "bend")
        if shown is not None:
            self.here.setChecked(shown.reach == "here")
            self.rule.setCurrentIndex(list(RULE_WORDS).index(shown.rule))
            self.tolerance.show_value(shown.tolerance)
            self.falloff.show_value(shown.falloff)
            self.bend.show_value(shown.bend)
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
        self.samples.show_samples(sieve.pick, self.chosen(), self.work.dragging)
        self.all_samples.setVisible(len(sieve.pick.samples) > 1)
        self._follow_chosen()
        surfaces = any(sample.compare == "surface" for sample in sieve.pick.samples)
        for number in (self.shading, self.gloss, self.hue_weight, self.saturation_weight):
            number.setEnabled(surfaces or not sieve.pick.samples)
        self.bridge.setEnabled(sieve.pick.connected)
        self.measure.setCurrentIndex(list(MEASURE_WORDS).index(sieve.pick.measure))
        self.light.follow()
