"""The history: every step of the work with its time, its numbers and a small picture."""

from __future__ import annotations

from PyQt6.QtCore import QLocale, QSignalBlocker, QSize, QTime
from PyQt6.QtGui import QIcon
from PyQt6.QtWidgets import QDialog, QListWidget, QListWidgetItem, QVBoxLayout, QWidget

from ...language import translator
from ...project.changes import changed_numbers
from ...project.history import HistoryStep
from ...workspace.workspace import Workspace
from ..widgets.drawing import pixmap_of

translate = translator("dialogs")

#: Width and height of the small pictures, pixels.
SMALL = QSize(72, 48)


class HistoryDialog(QDialog):
    """Every step of the work; the chosen one is where the work stands."""

    def __init__(self, parent: QWidget, workspace: Workspace) -> None:
        super().__init__(parent)
        self.setWindowTitle(translate("History"))
        self.resize(340, 480)
        self._work = workspace.work
        #: The steps that are listed.
        self._listed: list[HistoryStep] = []
        self.list = QListWidget()
        self.list.setIconSize(SMALL)
        self.list.setUniformItemSizes(True)
        self.list.setAccessibleName(translate("History"))
        self.list.currentRowChanged.connect(self._go)
        QVBoxLayout(self).addWidget(self.list)
        workspace.work.changed.connect(self._follow)
        workspace.viewing.rendered.connect(self._take)
        self._follow()

    def _follow(self) -> None:
        """List the steps there are now; those that stand already are not drawn again."""
        history = self._work.history
        with QSignalBlocker(self.list):
            del self._listed[len(history.steps) :]
            while self.list.count() > len(history.steps):
                self.list.takeItem(self.list.count() - 1)
            for row, step in enumerate(history.steps):
                if row < len(self._listed) and self._listed[row] is step:
                    continue
                item = self._item_of(step, history.steps[row - 1] if row else None)
                if row < len(self._listed):
                    self.list.takeItem(row)
                    self._listed[row] = step
                else:
                    self._listed.append(step)
                self.list.insertItem(row, item)
            self.list.setCurrentRow(history.at)

    def _item_of(self, step: HistoryStep, before: HistoryStep | None) -> QListWidgetItem:
        numbers = changed_numbers(before.project, step.project) if before is not None else []
        time = QLocale().toString(QTime(*step.time), QLocale.FormatType.ShortFormat)
        # A number's own name stands in its change already.
        named = bool(numbers) and numbers[0].startswith(step.what)
        lines = ["" if named else step.what, "; ".join(numbers), time]
        item = QListWidgetItem("\n".join(line for line in lines if line))
        if step.picture is not None:
            icon = QIcon(pixmap_of(step.picture))
            icon.addPixmap(pixmap_of(step.picture), QIcon.Mode.Selected)  # not tinted: it is colour
            item.setIcon(icon)
        item.setSizeHint(QSize(0, max(SMALL.height() + 6, 3 * self.fontMetrics().height() + 6)))
        return item

    def _take(self, _: object) -> None:
        self._follow()  # the newest step may have got its picture

    def _go(self, row: int) -> None:
        if row >= 0:
            self._work.go_to_step(row)
