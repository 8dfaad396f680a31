"""The stack: the sieves in the order the picture falls through them."""

from __future__ import annotations

import itertools
from dataclasses import dataclass, replace

import numpy as np
from PyQt6.QtCore import (
    QRect,
    QSignalBlocker,
    QSize,
    Qt,
    QTimer,
    pyqtSignal,
)
from PyQt6.QtGui import QColor, QIcon, QPainter, QPixmap, QResizeEvent
from PyQt6.QtWidgets import (
    QGridLayout,
    QLabel,
    QListWidget,
    QListWidgetItem,
    QMenu,
    QMessageBox,
    QPushButton,
    QSizePolicy,
    QToolButton,
    QVBoxLayout,
    QWidget,
)

from ...language import decimals, translator
from ...live.preview import Rendered
from ...live.small_masks import SmallMask
from ...project.edits import leaning_on
from ...project.model import Sieve
from ...workspace.workspace import Workspace
from ..widgets.drawing import image_of
from ..widgets.icon import with_icon
from ..widgets.painting import painting
from ..widgets.rows import SOON, rows_for, set_icon, tick
from ..widgets.swatch import screen_colour
from .sieve_rows import BETWEEN, CHIP, GAP, LISTED, RAILED, SieveDelegate, mask_words
from .stack_menu import fill_mask_menu

translate = translator("panels")


#: Up to this width it is a rail, one chip a sieve; from there on a list, pixels.
RAIL_TO = 130


@dataclass(frozen=True)
class _Pictured:
    """The small picture of a sieve, and what it was drawn of: pixels (h, w) of its mask, None for
    none, and the rest.
    """

    pixels: np.ndarray | None
    of: object
    icon: QIcon


class StackPanel(QWidget):
    """A list of sieves with a swatch and a switch each, and buttons to add, remove and move;
    ``menu_wanted`` comes with a right click.
    """

    menu_wanted = pyqtSignal(object)

    def __init__(self, workspace: Workspace) -> None:
        super().__init__()
        self.setObjectName("panel")
        self._stack, self._work = workspace.stack, workspace.work
        column = QVBoxLayout(self)
        column.setContentsMargins(4, 0, 4, 4)
        column.setSpacing(4)
        heading = QLabel(translate("Stack ↓"))
        heading.setObjectName("heading")
        heading.setToolTip(
            translate(
                "The sieves of this picture. The picture falls through them from top to bottom. "
                "Drag the border for the full list",
            )
        )
        column.addWidget(heading)
        self.list = QListWidget()
        self._thumbnails: dict[str, SmallMask] = {}
        self._pictured: dict[str, _Pictured] = {}
        # While something is dragged, the small pictures follow a few times a second, not with every
        # event.
        self._soon = QTimer(self)
        self._soon.setSingleShot(True)
        self._soon.setInterval(SOON)
        self._soon.timeout.connect(self._catch_up)
        workspace.viewing.rendered.connect(self._take)
        self.list.setAccessibleName(translate("Stack of sieves"))
        self.list.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.list.setToolTip(
            translate(
                "The picture falls through these from top to bottom; drag to reorder, the tick "
                "switches a sieve, F2 renames it",
            )
        )
        self.list.setDragDropMode(QListWidget.DragDropMode.InternalMove)
        model = self.list.model()
        assert model is not None
        # The list is put together anew from the project, which must wait until the drop is over.
        model.rowsMoved.connect(lambda *_: QTimer.singleShot(0, self._reordered))
        self._delegate = SieveDelegate(self.list)
        self.list.setItemDelegate(self._delegate)
        self.list.setMinimumWidth(CHIP + RAILED.width() + 8)
        self.list.setContextMenuPolicy(Qt.ContextMenuPolicy.CustomContextMenu)
        self.list.customContextMenuRequested.connect(
            lambda at: self.menu_wanted.emit(self.list.mapToGlobal(at))
        )
        column.addWidget(self.list, 1)
        self.mask_from = QPushButton(translate("Mask: own pick"))
        self.mask_menu = QMenu(self)
        self.mask_menu.aboutToShow.connect(lambda: fill_mask_menu(self.mask_menu, workspace))
        self.mask_from.setMenu(self.mask_menu)
        self.mask_from.setMinimumWidth(20)
        column.addWidget(self.mask_from)
        self._grid = QGridLayout()
        self._grid.setSpacing(3)
        stack, work = workspace.stack, workspace.work
        #: The buttons by what they do.
        self.buttons: dict[str, QToolButton] = {}
        add = translate("A new sieve; it changes nothing until you move something (Ctrl+Shift+N)")
        for name, drawing, tip, act in (
            ("add", "plus", add, stack.add),
            ("remove", "trash-2", translate("Remove this sieve"), self.remove),
            (
                "up",
                "arrow-up",
                translate("Move up the stack"),
                lambda: stack.move(work.sieve.id, -1),
            ),
            (
                "down",
                "arrow-down",
                translate("Move down the stack"),
                lambda: stack.move(work.sieve.id, 1),
            ),
        ):
            button = QToolButton()
            with_icon(button, drawing, tip)
            button.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Fixed)
            button.clicked.connect(act)
            self.buttons[name] = button
        column.addLayout(self._grid)
        self._arrange()
        self.list.currentRowChanged.connect(self._select)
        self.list.itemChanged.connect(self._edited)
        workspace.work.changed.connect(self._project_changed)
        workspace.work.selection_changed.connect(self.follow)
        self.follow()

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        super().resizeEvent(event)
        if (self.width() <= RAIL_TO) != self._delegate.railed:
            self._delegate.railed = self.width() <= RAIL_TO
            self._arrange()
            self.follow()

    def _arrange(self) -> None:
        """As a rail or as a list."""
        railed, across = self._delegate.railed, 2 if self._delegate.railed else 4
        size = RAILED if railed else LISTED
        self.list.setIconSize(QSize(CHIP + size.width(), size.height()))
        for number, button in enumerate(self.buttons.values()):
            self._grid.addWidget(button, number // across, number % across)

    def _select(self, row: int) -> None:
        if 0 <= row < len(self._work.project.stack):
            self._work.select(self._work.project.stack[row].id)

    def _reordered(self) -> None:
        items = [self.list.item(row) for row in range(self.list.count())]
        self._stack.order(
            [item.data(Qt.ItemDataRole.UserRole) for item in items if item is not None]
        )
        self.follow()

    def rename(self) -> None:
        """Type another name for the current sieve."""
        self.list.editItem(self.list.currentItem())

    def remove(self) -> None:
        """Take the current sieve off the stack; when others lean on its mask, say which, and offer
        to give them copies of it.
        """
        project, sieve = self._work.project, self._work.sieve
        leaning = leaning_on(project, sieve.id)
        if leaning:
            names = ", ".join(other.name for other in leaning)
            words = translate(
                "The mask of {names} is made from {name}. Remove {name}? Masks that are the same "
                "or its opposite keep"
                " a copy; where it is one of several, the others go on without it.",
                names=names,
                name=sieve.name,
            )
            if QMessageBox.question(self, "Amber Sieve", words) != QMessageBox.StandardButton.Yes:
                return
        self._stack.remove(sieve.id)

    def _edited(self, item: QListWidgetItem) -> None:
        row = self.list.row(item)
        if not 0 <= row < len(self._work.project.stack):
            return
        sieve = self._work.project.stack[row]
        on, name = (
            item.checkState() == Qt.CheckState.Checked,
            item.text().split(GAP)[0].strip()[:200] or sieve.name,
        )
        what = (
            (translate("Switch sieve on") if on else translate("Switch sieve off"))
            if on != sieve.on
            else translate("Rename sieve")
        )
        self._work.edit(lambda project: project.with_sieve(sieve.but(on=on, name=name)), what)

    def _take(self, result: Rendered) -> None:
        if not result.wanted.looking.peeking:
            # All figures of the window are the same.
            here = result.thumbnails.get(result.wanted.sieve_id)
            counted = (
                {result.wanted.sieve_id: replace(here, coverage=result.covered)}
                if here is not None
                else {}
            )
            self._thumbnails = result.thumbnails | counted
            if not self._soon.isActive():
                self._soon.start()

    def _project_changed(self) -> None:
        if not self._same_rows():
            self.follow()
        elif not self._soon.isActive():
            self._soon.start()

    def _same_rows(self) -> bool:
        """Return whether the list still shows the sieves there are, so that following can wait."""
        stack = self._work.project.stack
        rows = [self.list.item(k) for k in range(self.list.count())]
        shown = [
            (row.text().split(GAP)[0], row.checkState() == Qt.CheckState.Checked)
            for row in rows
            if row is not None
        ]
        return shown == [(s.name, s.on) for s in stack]

    def _catch_up(self) -> None:
        if self.list.state() != QListWidget.State.EditingState:
            self.follow()

    def _chips(self, sieve: Sieve, depth: int = 0) -> list[QColor]:
        """The colours it keeps, three at most; of a mask made from others', the first of each of
        them.
        """
        if sieve.mask_from == "own" or depth > 8:
            kept = (sample for sample in sieve.pick.samples if sample.role == "keep")
            return [screen_colour(sample.colour) for sample in itertools.islice(kept, 3)]
        others = [self._chips(self._work.project.sieve(other), depth + 1)[:1] for other in sieve.of]
        return [colour for colours in others for colour in colours][:3]

    def _picture(self, sieve: Sieve, mask: SmallMask | None) -> _Pictured:
        """A chip of the kept colours beside a small picture of the mask; the one there is where it
        is the same.
        """
        size, ratio = RAILED if self._delegate.railed else LISTED, self.devicePixelRatioF()
        chips = self._chips(sieve)
        of = (size, ratio, [chip.rgb() for chip in chips])
        pixels, held = mask.pixels if mask is not None else None, self._pictured.get(sieve.id)
        if held is not None and held.pixels is pixels and held.of == of:
            return held
        wide, high = size.width(), size.height()
        pixmap = QPixmap(round((CHIP + wide) * ratio), round(high * ratio))
        pixmap.setDevicePixelRatio(ratio)
        pixmap.fill(QColor(24, 24, 24))
        with painting(pixmap) as painter:
            for number, colour in enumerate(chips):
                top = high * number // len(chips)
                painter.fillRect(0, top, CHIP - 2, high * (number + 1) // len(chips) - top, colour)
            if pixels is not None:
                image = image_of(pixels)
                shown = image.size().scaled(size, Qt.AspectRatioMode.KeepAspectRatio)
                place = QRect(
                    CHIP + (wide - shown.width()) // 2,
                    (high - shown.height()) // 2,
                    shown.width(),
                    shown.height(),
                )
                painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
                painter.drawImage(place, image)
        icon = QIcon(pixmap)
        icon.addPixmap(pixmap, QIcon.Mode.Selected)  # a chosen row must not tint it
        return _Pictured(pixels, of, icon)

    def follow(self) -> None:
        """Show the stack as it is now."""
        solo = self._work.project.solo
        groups = {
            group.id: translate(
                "in {name}{off}",
                name=group.name,
                off="" if group.on else translate(" (off)"),
            )
            for group in self._work.project.groups
        }
        source = mask_words(self._work.project, self._work.sieve) or translate("own pick")
        self.mask_from.setText(
            translate("Mask")
            if self._delegate.railed
            else translate("Mask: {source}", source=source)
        )
        self.mask_from.setToolTip(
            translate(
                "Where the mask of this sieve comes from, live: now {source}",
                source=source,
            )
        )
        stack = self._work.project.stack
        self._pictured = {
            sieve.id: self._picture(sieve, self._thumbnails.get(sieve.id)) for sieve in stack
        }
        with QSignalBlocker(self.list):
            for item, sieve in zip(
                rows_for(self.list, [sieve.id for sieve in stack]), stack, strict=True
            ):
                mask = self._thumbnails.get(sieve.id)
                notes = [decimals(f"{100 * mask.coverage:.1f} %")] if mask is not None else []
                group = groups.get(sieve.group, "")
                more = (
                    mask_words(self._work.project, sieve),
                    group,
                    "solo" if sieve.id == solo else "",
                )
                notes += [words for words in more if words]
                tick(item, sieve.on)
                item.setText(GAP.join([sieve.name, BETWEEN.join(notes)]) if notes else sieve.name)
                item.setToolTip(
                    "\n".join(
                        [
                            sieve.name,
                            *notes,
                            translate("The box switches it, F2 renames it, drag to reorder"),
                        ]
                    )
                )
                set_icon(item, self._pictured[sieve.id].icon)
                if sieve.id == self._work.sieve.id:
                    self.list.setCurrentItem(item)
