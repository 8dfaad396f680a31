"""The stack: the sieves in the order the picture falls through them."""

from __future__ import annotations

from PyQt6.QtCore import QModelIndex, QSignalBlocker, QSize, Qt, QTimer, pyqtSignal
from PyQt6.QtGui import QColor, QIcon, QPainter, QPixmap
from PyQt6.QtWidgets import (
    QHBoxLayout,
    QLabel,
    QLineEdit,
    QListWidget,
    QListWidgetItem,
    QMenu,
    QMessageBox,
    QPushButton,
    QStyledItemDelegate,
    QToolButton,
    QVBoxLayout,
    QWidget,
)

from ...live.preview import Rendered, SmallMask
from ...project.edits import leaning_on
from ...project.model import Project, Sieve
from ...workspace.workspace import Workspace
from ..widgets.drawing import image_of
from ..widgets.icon import with_icon
from ..widgets.swatch import screen_colour
from .stack_menu import fill_mask_menu

#: Sizes of a sieve's chip and of the small picture of its mask; what stands between its name and its coverage.
CHIP, WIDE, HIGH, GAP = 8, 42, 30, "\n"
#: Milliseconds after which the small pictures follow.
SOON = 120


class NameEditor(QStyledItemDelegate):
    """Renaming a row shows its name alone, without what is noted under it."""

    def setEditorData(self, editor: QWidget | None, index: QModelIndex) -> None:
        if isinstance(editor, QLineEdit):
            editor.setText(str(index.data()).split(GAP)[0])


def mask_words(project: Project, sieve: Sieve) -> str:
    """Where the mask of a sieve comes from, when it is not its own."""
    names = ", ".join(project.sieve(other).name for other in sieve.of) if sieve.mask_from != "own" else ""
    if sieve.mask_from == "own":
        return "opposite" if sieve.opposite else ""
    if sieve.mask_from == "left":
        return f"left by {names}"
    return f"opposite of {names}" if sieve.opposite else f"same as {names}"


class StackPanel(QWidget):
    """A list of sieves with a swatch and a switch each, and buttons to add, remove and move; ``menu_wanted`` comes with a right click."""

    menu_wanted = pyqtSignal(object)

    def __init__(self, workspace: Workspace) -> None:
        super().__init__()
        self.setObjectName("panel")
        self._stack, self._work = workspace.stack, workspace.work
        column = QVBoxLayout(self)
        column.setContentsMargins(8, 6, 8, 8)
        heading = QLabel("Stack")
        heading.setObjectName("heading")
        column.addWidget(heading)
        self.list = QListWidget()
        self.list.setIconSize(QSize(CHIP + 2 + WIDE, HIGH))
        self._thumbnails: dict[str, SmallMask] = {}
        # While something is dragged, the small pictures follow a few times a second, not with every event.
        self._soon = QTimer(self)
        self._soon.setSingleShot(True)
        self._soon.setInterval(SOON)
        self._soon.timeout.connect(self._catch_up)
        workspace.viewing.rendered.connect(self._take)
        self.list.setAccessibleName("Stack of sieves")
        self.list.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.list.setToolTip(
            "The picture falls through these from top to bottom; drag to reorder, the tick switches a sieve, F2 renames it"
        )
        self.list.setDragDropMode(QListWidget.DragDropMode.InternalMove)
        model = self.list.model()
        assert model is not None
        # The list is put together anew from the project, which must wait until the drop is over.
        model.rowsMoved.connect(lambda *_: QTimer.singleShot(0, self._reordered))
        self.list.setItemDelegate(NameEditor(self.list))
        self.list.setContextMenuPolicy(Qt.ContextMenuPolicy.CustomContextMenu)
        self.list.customContextMenuRequested.connect(lambda at: self.menu_wanted.emit(self.list.mapToGlobal(at)))
        column.addWidget(self.list, 1)
        self.mask_from = QPushButton("Mask: its own")
        self.mask_from.setToolTip("Where the mask of this sieve comes from: its own pick, or other sieves' masks, live")
        self.mask_menu = QMenu(self)
        self.mask_menu.aboutToShow.connect(lambda: fill_mask_menu(self.mask_menu, workspace))
        self.mask_from.setMenu(self.mask_menu)
        self.mask_from.setMinimumWidth(20)
        column.addWidget(self.mask_from)
        row = QHBoxLayout()
        row.setSpacing(4)
        self.buttons = {}
        for name, drawing, tip, act in (
            ("Add", "plus", "A new sieve; it changes nothing until you move something (Ctrl+Shift+N)", workspace.stack.add),
            ("Remove", "trash-2", "Take this sieve off the stack", self.remove),
            ("Up", "arrow-up", "Move up the stack", lambda: workspace.stack.move(workspace.work.sieve.id, -1)),
            ("Down", "arrow-down", "Move down the stack", lambda: workspace.stack.move(workspace.work.sieve.id, 1)),
        ):
            button = QToolButton()
            with_icon(button, drawing, tip)
            button.clicked.connect(act)
            row.addWidget(button)
            self.buttons[name] = button
        column.addLayout(row)
        self.list.currentRowChanged.connect(self._select)
        self.list.itemChanged.connect(self._edited)
        workspace.work.changed.connect(self._project_changed)
        workspace.work.selection_changed.connect(self.follow)
        self.follow()

    def _select(self, row: int) -> None:
        if 0 <= row < len(self._work.project.stack):
            self._work.select(self._work.project.stack[row].id)

    def _reordered(self) -> None:
        items = [self.list.item(row) for row in range(self.list.count())]
        self._stack.order([item.data(Qt.ItemDataRole.UserRole) for item in items if item is not None])
        self.follow()

    def remove(self) -> None:
        """Take the current sieve off the stack; when others lean on its mask, say which, and offer to give them copies of it."""
        project, sieve = self._work.project, self._work.sieve
        leaning = leaning_on(project, sieve.id)
        if leaning:
            names = ", ".join(other.name for other in leaning)
            words = (
                f"The mask of {names} is made from {sieve.name}. Remove {sieve.name}? Masks that are the same or its opposite keep a copy; "
                "where it is one of several, the others go on without it."
            )
            if QMessageBox.question(self, "Amber Sieve", words) != QMessageBox.StandardButton.Yes:
                return
        self._stack.remove(sieve.id)

    def _edited(self, item: QListWidgetItem) -> None:
        row = self.list.row(item)
        if not 0 <= row < len(self._work.project.stack):
            return
        sieve = self._work.project.stack[row]
        on, name = item.checkState() == Qt.CheckState.Checked, item.text().split(GAP)[0].strip()[:200] or sieve.name
        what = ("Switch sieve on" if on else "Switch sieve off") if on != sieve.on else "Rename sieve"
        self._work.edit(lambda project: project.with_sieve(sieve.but(on=on, name=name)), what)

    def _take(self, result: Rendered) -> None:
        if not result.wanted.looking.peeking:
            self._thumbnails = result.thumbnails
            if not self._soon.isActive():
                self._soon.start()

    def _project_changed(self) -> None:
        if not self._same_rows():
            self.follow()
        elif not self._soon.isActive():
            self._soon.start()

    def _same_rows(self) -> bool:
        """Whether the list still shows the sieves there are, so that following can wait."""
        stack = self._work.project.stack
        return self.list.count() == len(stack) and all(
            self.list.item(k).text().split(GAP)[0] == s.name and (self.list.item(k).checkState() == Qt.CheckState.Checked) == s.on  # type: ignore[union-attr]
            for k, s in enumerate(stack)
        )

    def _catch_up(self) -> None:
        if self.list.state() != QListWidget.State.EditingState:
            self.follow()

    def _chips(self, sieve: Sieve, depth: int = 0) -> list[QColor]:
        """The colours it keeps, three at most; of a mask made from others', the first of each of them."""
        if sieve.mask_from == "own" or depth > 8:
            return [screen_colour(sample.colour) for sample in sieve.pick.samples if sample.role == "keep"][:3]
        others = [self._chips(self._work.project.sieve(other), depth + 1)[:1] for other in sieve.of]
        return [colour for colours in others for colour in colours][:3]

    def _picture(self, sieve: Sieve, mask: SmallMask | None) -> QIcon:
        """A chip of the kept colours beside a small picture of the mask."""
        pixmap = QPixmap(CHIP + 2 + WIDE, HIGH)
        pixmap.fill(QColor(24, 24, 24))
        painter = QPainter(pixmap)
        chips = self._chips(sieve)
        for number, colour in enumerate(chips):
            top = HIGH * number // len(chips)
            painter.fillRect(0, top, CHIP, HIGH * (number + 1) // len(chips) - top, colour)
        if mask is not None:
            image = image_of(mask.pixels)
            fitted = image.scaled(WIDE, HIGH, Qt.AspectRatioMode.KeepAspectRatio, Qt.TransformationMode.SmoothTransformation)
            painter.drawImage(CHIP + 2 + (WIDE - fitted.width()) // 2, (HIGH - fitted.height()) // 2, fitted)
        painter.end()
        icon = QIcon(pixmap)
        icon.addPixmap(pixmap, QIcon.Mode.Selected)  # a chosen row must not tint it
        return icon

    def follow(self) -> None:
        """Show the stack as it is now."""
        solo = self._work.project.solo
        groups = {group.id: f"in {group.name}{'' if group.on else ' (off)'}" for group in self._work.project.groups}
        self.mask_from.setText(f"Mask: {mask_words(self._work.project, self._work.sieve) or 'its own'}"[:30])
        with QSignalBlocker(self.list):
            self.list.clear()
            for sieve in self._work.project.stack:
                item = QListWidgetItem(sieve.name)
                item.setFlags(item.flags() | Qt.ItemFlag.ItemIsUserCheckable | Qt.ItemFlag.ItemIsEditable)
                item.setCheckState(Qt.CheckState.Checked if sieve.on else Qt.CheckState.Unchecked)
                mask = self._thumbnails.get(sieve.id)
                item.setData(Qt.ItemDataRole.UserRole, sieve.id)
                notes = [f"{100 * mask.coverage:.1f} %"] if mask is not None else []
                group = groups.get(sieve.group, "")
                more = (mask_words(self._work.project, sieve), group, "solo" if sieve.id == solo else "")
                notes += [words for words in more if words]
                item.setText(GAP.join([sieve.name, " · ".join(notes)]) if notes else sieve.name)
                item.setIcon(self._picture(sieve, mask))
                self.list.addItem(item)
                if sieve.id == self._work.sieve.id:
                    self.list.setCurrentItem(item)
