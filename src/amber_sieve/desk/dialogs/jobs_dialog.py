"""The queue of exports: what runs, what waits, their order, pause and stop."""

from __future__ import annotations

from PyQt6.QtWidgets import (
    QDialog,
    QHBoxLayout,
    QLabel,
    QListWidget,
    QProgressBar,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from ...language import decimals, translator
from ...workspace.background.jobs import Job, Waiting
from ...workspace.workspace import Workspace
from ..widgets.icon import with_icon

translate = translator("dialogs")


class JobsDialog(QDialog):
    """Stays open beside the window."""

    def __init__(self, parent: QWidget, workspace: Workspace) -> None:
        super().__init__(parent)
        self.setWindowTitle(translate("Exports"))
        self.runner = workspace.workers.jobs
        self.title, self.bar = QLabel(), QProgressBar()
        self.bar.setRange(0, 1000)
        self.pause, self.stop = (
            QPushButton(translate("Pause")),
            QPushButton(translate("Stop")),
        )
        self.list = QListWidget()
        self.list.setAccessibleName(translate("Waiting"))
        self.up, self.down, self.remove = (
            QPushButton(),
            QPushButton(),
            QPushButton(translate("Remove")),
        )
        with_icon(self.up, "arrow-up", translate("Move up"))
        with_icon(self.down, "arrow-down", translate("Move down"))
        running, order, column = QHBoxLayout(), QHBoxLayout(), QVBoxLayout(self)
        for widget in (self.bar, self.pause, self.stop):
            running.addWidget(widget)
        for widget in (self.up, self.down, self.remove):
            order.addWidget(widget)
        order.addStretch(1)
        column.addWidget(self.title)
        column.addLayout(running)
        column.addWidget(QLabel(translate("Waiting")))
        column.addWidget(self.list, 1)
        column.addLayout(order)
        self.pause.clicked.connect(lambda: self.runner.pause(not self._paused))
        self.stop.clicked.connect(lambda: self.runner.stop())
        self.up.clicked.connect(lambda: self._move(-1))
        self.down.clicked.connect(lambda: self._move(1))
        self.remove.clicked.connect(self._remove)
        self._job: Job | None = None
        self.runner.queued.connect(self.follow)
        self.runner.changed.connect(self._job_changed)
        self.resize(460, 320)
        self.follow()

    @property
    def _paused(self) -> bool:
        return self.runner.job is not None and self.runner.job.progress.paused

    @property
    def chosen(self) -> Waiting | None:
        """Return the chosen row of the waiting jobs."""
        row = self.list.currentRow()
        return self.runner.waiting[row] if 0 <= row < len(self.runner.waiting) else None

    def _job_changed(self, _: Job | None) -> None:
        self.follow()

    def follow(self) -> None:
        """Show the queue as it is."""
        job, row = self.runner.job, max(self.list.currentRow(), 0)
        self.title.setText(
            (f"{job.title}{' (paused)' if self._paused else ''}")
            if job
            else translate("Nothing is being exported")
        )
        for widget in (self.pause, self.stop, self.bar):
            widget.setEnabled(job is not None)
        self.pause.setText(translate("Resume") if self._paused else translate("Pause"))
        if job is not self._job:
            self.bar.setValue(0)
            self._job = job
            if job is not None:
                job.progressed.connect(self._progress)
        self.list.clear()
        self.list.addItems([waiting.title for waiting in self.runner.waiting])
        self.list.setCurrentRow(min(row, self.list.count() - 1))
        for button in (self.up, self.down, self.remove):
            button.setEnabled(bool(self.runner.waiting))

    def _progress(self, share: float, left: float | None) -> None:
        self.bar.setValue(round(share * 1000))
        self.bar.setFormat(
            decimals(f"{share * 100:.0f} %")
            + (translate(", {left:.0f} s left", left=left) if left is not None else "")
        )

    def _move(self, by: int) -> None:
        chosen = self.chosen
        if chosen is not None:
            row = self.list.currentRow()
            self.list.setCurrentRow(min(max(row + by, 0), self.list.count() - 1))
            self.runner.move(chosen, by)

    def _remove(self) -> None:
        chosen = self.chosen
        if chosen is not None:
            self.runner.forget(chosen)
