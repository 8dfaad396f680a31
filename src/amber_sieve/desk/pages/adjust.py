"""Adjust: what is done inside the mask. Every block of the model becomes a block of the page that
folds.
"""

from __future__ import annotations

import functools
import pathlib

from PyQt6.QtCore import QTimer, pyqtSignal
from PyQt6.QtGui import QColor
from PyQt6.QtWidgets import QComboBox, QFileDialog, QLabel, QMenu, QPushButton

from ...language import translator
from ...live.preview import Rendered
from ...live.slider_colours import REFERENCE, track_of, visible
from ...media import formats
from ...names import BLENDS, FILL_KINDS, FILL_WHERES, GAMUTS
from ...project import edits
from ...project.controls import blocks
from ...project.fields import help_of
from ...project.model import Colour, Project, Sieve
from ...render.believable import Believable
from ...workspace.workspace import Workspace
from ..dialogs.picture_colour import ask_colour_of_picture
from ..widgets.block import Block
from ..widgets.colour_button import ColourButton
from ..widgets.icon import with_icon
from .drawn_blocks import BalanceBlock, CurvesBlock, HuesBlock
from .file_rows import CdlRow, LookupRow
from .page import narrow, row_of
from .rows import PAIRS, RowsPage

translate = translator("pages")
translate_label = translator("model")


GAMUT_WORDS = {
    "lower chroma": translate("Out of gamut: reduce chroma"),
    "clip": translate("Out of gamut: clip"),
}
PICTURES = formats.filter_words(translate("Pictures"), formats.endings("still"))
#: Blocks that stand first: what most people need.
FIRST = ("recolour", "light", "match", "white")
#: Of them those that stand open on a sieve that does nothing yet.
OPEN = ("recolour", "light")
#: Milliseconds that the picture rests before it is judged.
JUDGE_AFTER = 350


@functools.lru_cache(maxsize=256)
def _track(path: str, reference: Colour) -> tuple[QColor, ...]:
    """The colours of a number's track; none for one that stands for no colour."""
    codes = track_of(path, reference)
    return (
        () if codes is None else tuple(QColor.fromRgbF(*(float(v) for v in code)) for code in codes)
    )


class AdjustPage(RowsPage):
    """The adjustments of the current sieve."""

    mend = pyqtSignal(str)

    def __init__(self, workspace: Workspace) -> None:
        super().__init__(workspace)
        self._adjust, self._viewing, self._workers = (
            workspace.adjust,
            workspace.viewing,
            workspace.workers,
        )
        #: The blocks by name.
        self.blocks: dict[str, Block] = {}
        self._shown_sieve = ""
        self.column.setSpacing(2)
        builders = {
            "recolour": self._recolour,
            "match": self._match,
            "cdl": self._cdl,
            "fill": self._fill,
            "white": self._white,
            "lookup": self._lookup,
        }
        known = dict(blocks())
        for name in (*FIRST, *(name for name in known if name not in FIRST)):
            kind = known[name]
            block = self._block(name, translate_label(kind.label))
            for row in PAIRS.get(name, ()):
                self.row(block, name, row)
            if name in builders:
                builders[name](block)
        self.curves = CurvesBlock(self, self.blocks["curve"])
        self.balance = BalanceBlock(self, self.blocks["balance"])
        self.hues = HuesBlock(self, self.blocks["hues"])
        self._build_believable()
        self.group("amount", translate("Amount"))
        self.strength = self.number("strength")
        self.outside = self.number("outside")
        self.blend = self.choice("blend", BLENDS)
        self.put(row_of(QLabel(translate("Blend mode")), self.blend))
        reset = QPushButton(translate("Reset the adjustments"))
        reset.clicked.connect(
            lambda: workspace.work.edit_sieve(
                edits.without_adjustments, translate("Reset the adjustments")
            )
        )
        self.put(reset)
        self.group("project", translate("Whole project"), folded=True)
        self.gamut = QComboBox()
        narrow(self.gamut)
        self.gamut.addItems([GAMUT_WORDS[name] for name in GAMUTS])
        self.gamut.setAccessibleName(translate("Gamut"))
        self.gamut.setToolTip(help_of(Project.model_fields["gamut"]))
        self.gamut.activated.connect(lambda index: workspace.reading.set_gamut(GAMUTS[index]))
        self.put(self.gamut)
        self.column.addStretch(1)
        workspace.viewing.rendered.connect(self._rendered)
        workspace.work.source_changed.connect(self._forget)
        self.follow()

    # Building

    def _block(self, name: str, title: str) -> Block:
        block = Block(title)
        block.switched.connect(lambda on: self._adjust.set_block(name, on))
        block.reset.connect(lambda: self._adjust.reset_block(name))
        block.set_menu(lambda menu: self._fill_menu(menu, name))
        block.folded.connect(lambda _: self._count())
        self.blocks[name] = block
        self.column.addWidget(block)
        return block

    def _fill_menu(self, menu: QMenu, name: str) -> None:
        others = [sieve for sieve in self.work.project.stack if sieve.id != self.work.sieve.id]
        copy = menu.addMenu(translate("Copy to another sieve"))
        assert copy is not None
        copy.setEnabled(bool(others))
        for sieve in others:
            action = copy.addAction(sieve.name)
            assert action is not None
            action.triggered.connect(lambda _, to=sieve.id: self._adjust.copy_block(name, to))
        action = menu.addAction(translate("Reset"))
        assert action is not None
        action.triggered.connect(lambda _: self._adjust.reset_block(name))

    def _build_believable(self) -> None:
        self.believable = Block(translate("Realism check"), plain=True)
        self.judged, self.warned = QLabel("–"), QLabel("")
        for label in (self.judged, self.warned):
            label.setWordWrap(True)
        self.judged.setObjectName("dim")
        self.warned.setOpenExternalLinks(False)
        self.warned.linkActivated.connect(self.mend)
        self.warned.hide()
        self.believable.add(self.judged, self.warned)
        self.believable.folded.connect(lambda _: self._judge_soon())
        self._adjust.believable_found.connect(self._judged)
        self._resting = QTimer(self)
        self._resting.setSingleShot(True)
        self._resting.setInterval(JUDGE_AFTER)
        self._resting.timeout.connect(self._adjust.judge)
        self.column.addWidget(self.believable)

    def _white(self, block: Block) -> None:
        self.neutral = QPushButton()
        with_icon(
            self.neutral,
            "pipette",
            translate(
                "Click a place in the picture that should be grey: temperature and tint make it so",
            ),
            translate("Pick a neutral"),
        )
        self.neutral.clicked.connect(
            lambda: self._adjust.pick_colour(
                self._adjust.make_neutral, translate("Click what should be grey")
            )
        )
        block.add(self.neutral)

    def _recolour(self, block: Block) -> None:
        words = translate("Highlights that keep their colour: Gloss")
        gloss = QLabel(f'<a href="pick.gloss">{words}</a>')
        gloss.setToolTip(
            translate("Goes to Gloss on the page Pick, which takes pale highlights into the mask")
        )
        gloss.linkActivated.connect(self.mend)
        block.add(self.check("adjust.recolour.dyed"), gloss)

    def _match(self, block: Block) -> None:
        self.target = ColourButton(
            translate("Target"),
            translate(
                "Colour that the mean of what is masked becomes; light, shade and texture stay",
            ),
        )
        self.target.chosen.connect(self._aim)
        self.from_here, self.from_other, self.no_target = (
            QPushButton(),
            QPushButton(),
            QPushButton(),
        )
        with_icon(
            self.from_here,
            "pipette",
            translate("Click the target in the picture"),
            translate("Pick in this picture"),
        )
        with_icon(
            self.from_other,
            "image",
            translate("Click the target in another picture"),
            translate("Pick in another picture…"),
        )
        with_icon(self.no_target, "circle-minus", translate("No target"))
        self.from_here.clicked.connect(
            lambda: self._adjust.pick_colour(
                self._aim, translate("Click the colour that the masked should become")
            )
        )
        self.from_other.clicked.connect(
            lambda: ask_colour_of_picture(self, self._workers, self._aim)
        )
        self.no_target.clicked.connect(
            lambda: self.work.set_field("adjust.match.target", None, translate("Target"))
        )
        self.no_target.setFixedWidth(36)
        self.nearest = self.check("adjust.match.nearest")
        block.add(
            row_of(self.target, self.no_target), self.from_here, self.from_other, self.nearest
        )

    def _aim(self, colour: tuple[float, float, float]) -> None:
        self.work.set_field("adjust.match.target", colour, translate("Target"))

    def _cdl(self, block: Block) -> None:
        block.add(CdlRow(self._adjust, lambda: self.work.sieve.name))

    def _lookup(self, block: Block) -> None:
        self.lookup = LookupRow(
            self._adjust.read_table,
            lambda: self.work.set_field("adjust.lookup.lookup_file", "", translate("Lookup table")),
        )
        block.add(self.lookup)

    def _fill(self, block: Block) -> None:
        self.fill_kind = self.choice("adjust.fill.fill", FILL_KINDS)
        self.fill_where = self.choice("adjust.fill.fill_where", FILL_WHERES)
        block.add(row_of(self.fill_kind, self.fill_where))
        self.fill_colour = ColourButton(
            translate("Colour"),
            translate("Colour that fills, or begins the gradient"),
        )
        self.fill_to = ColourButton(translate("To"), translate("Colour that ends the gradient"))
        self.fill_colour.chosen.connect(
            lambda colour: self.work.set_field(
                "adjust.fill.fill_colour", colour, translate("Fill colour")
            )
        )
        self.fill_to.chosen.connect(
            lambda colour: self.work.set_field(
                "adjust.fill.fill_to", colour, translate("Fill colour")
            )
        )
        self.fill_picture = QPushButton(translate("Choose a picture…"))
        with_icon(
            self.fill_picture,
            "image",
            translate("The picture that fills"),
            translate("Choose a picture…"),
        )
        self.fill_picture.clicked.connect(self._choose_picture)
        block.add(self.fill_colour, self.fill_to, self.fill_picture)
        for row in (
            ("fill_angle",),
            ("fill_across", "fill_down"),
            ("fill_scale",),
            ("fill_opacity",),
        ):
            self.row(block, "fill", row)
        self.fill_blend = self.choice("adjust.fill.fill_blend", BLENDS)
        self.fill_blend_row = row_of(QLabel(translate("Blend mode")), self.fill_blend)
        block.add(self.fill_blend_row)

    def _choose_picture(self) -> None:
        name, _ = QFileDialog.getOpenFileName(self, translate("Fill with a picture"), "", PICTURES)
        if name:
            self.fill_with(pathlib.Path(name))

    def fill_with(self, path: pathlib.Path) -> None:
        """Fill with a picture."""

        def change(sieve: Sieve) -> Sieve:
            block = sieve.adjust.fill.but(fill="picture", fill_picture=str(path.absolute()))
            return sieve.but(adjust=sieve.adjust.but(fill=block))

        self.work.edit_sieve(change, translate("Fill with a picture"))

    # Following

    def show_number(self, path: str) -> None:
        for name in path.split(".")[1:2]:
            self.show_block(name)
        super().show_number(path)

    def show_block(self, name: str) -> None:
        """Open a block and bring it into sight."""
        if name in self.blocks:
            self.blocks[name].set_open(True)
            self.ensureWidgetVisible(self.blocks[name])

    def _count(self) -> None:
        """Colours inside the mask are counted only while something is drawn over them."""
        drawn = any(
            self.blocks[name].open for name in ("curve", "balance", "hues") if name in self.blocks
        )
        self._viewing.count_mask(drawn and self.isVisible())

    def _forget(self) -> None:
        """Another picture: the blocks in use are open, and those that most people need."""
        self._shown_sieve = ""
        self._something_changed()

    def hideEvent(self, event: object) -> None:
        self._viewing.count_mask(False)

    def _rendered(self, result: Rendered) -> None:
        if result.within is not None:
            self.curves.show_counted(result.within["curve"])
            if result.density_within is not None:
                self.balance.show_density(result.density_within)
            self.hues.show_counted(result.within["hues"])
        self._judge_soon()

    def _judge_soon(self) -> None:
        if self.believable.open and self.isVisible():
            self._resting.start()

    def _judged(self, found: Believable) -> None:
        self.judged.setText(found.line)
        words = "<br>".join(
            f'<a href="{warned.control}">{warned.words}</a>' for warned in found.warnings
        )
        self.warned.setText(words)
        self.warned.setVisible(bool(words))

    def follow(self) -> None:
        super().follow()
        sieve, project = self.work.sieve, self.work.project
        self.gamut.setCurrentIndex(GAMUTS.index(project.gamut))
        fresh = sieve.id != self._shown_sieve
        if fresh:  # what was said of another sieve
            self.judged.setText("–")
            self.warned.hide()
        self._shown_sieve = sieve.id
        for name, held in sieve.adjust.blocks():
            block, used = self.blocks[name], held.moved
            if fresh or (used and not block.mark.text()):
                block.set_open(
                    used
                    or (name in OPEN and not any(other.moved for _, other in sieve.adjust.blocks()))
                )
            block.show_use(used, held.on)
        if (
            self.isVisible()
        ):  # made when the page is first looked at: a start need not wait for them
            self._follow_colours()
        fill = sieve.adjust.fill
        self.target.show_colour(sieve.adjust.match.target)
        self.no_target.setEnabled(sieve.adjust.match.target is not None)
        self.fill_colour.show_colour(fill.fill_colour)
        self.fill_to.show_colour(fill.fill_to)
        self.fill_picture.setText(
            pathlib.Path(fill.fill_picture).name
            if fill.fill_picture
            else translate("Choose a picture…")
        )
        table = sieve.adjust.lookup.lookup_file
        self.lookup.show_table(table)
        for widget, kinds in (
            (self.fill_colour, ("colour", "gradient")),
            (self.fill_to, ("gradient",)),
            (self.numbers["fill_angle"], ("gradient",)),
            (self.fill_picture, ("picture",)),
            (self.numbers["fill_across"], ("picture",)),
            (self.numbers["fill_down"], ("picture",)),
            (self.numbers["fill_scale"], ("picture",)),
            (self.numbers["fill_opacity"], FILL_KINDS[1:]),
            (self.fill_where, tuple(kind for kind in FILL_KINDS[1:] if kind != "surroundings")),
            (self.fill_blend_row, FILL_KINDS[1:4] if fill.fill_where == "inside" else ()),
        ):
            widget.setVisible(fill.fill in kinds)
        self.curves.follow()
        self.balance.follow()
        self.hues.follow()
        self._count()

    def _follow_colours(self) -> None:
        """Tracks show what the colour that was sampled would become."""
        kept = [
            sample.colour
            for sample in self.work.sieve.pick.samples
            if sample.on and sample.role == "keep"
        ]
        reference = visible(kept[0]) if kept else REFERENCE
        for number, path in self._bound_numbers:
            if path.startswith("adjust."):
                number.set_colours(_track(path, reference))
