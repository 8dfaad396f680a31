"""The bar at the bottom: the readout, what was just said, and how far a job is."""

from __future__ import annotations

import html
import pathlib

from PyQt6.QtCore import QEvent, Qt, QTimer, pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QLabel, QProgressBar, QPushButton, QStatusBar, QWidget

from ...language import decimals, translator
from ...workspace.background.jobs import Job
from ...workspace.workspace import Workspace
from ..style import AMBER

translate = translator("window")

#: Least height of the bar, pixels.
LOWEST = 22
#: Milliseconds for which a message stands.
MESSAGE = 8000
#: Milliseconds for which a message stands that offers something.
OFFER = 60000


class Status(QStatusBar):
    """Follows jobs; messages come by `say`. `opened` gives the path of a link that was chosen."""

    opened = pyqtSignal(object)

    def __init__(self, workspace: Workspace, readout: QWidget) -> None:
        super().__init__()
        self.setSizeGripEnabled(False)
        self._fit()
        self.addWidget(readout, 1)
        self.message = QLabel("")
        self.message.setObjectName("said")
        self.message.linkActivated.connect(lambda link: self.opened.emit(pathlib.Path(link)))
        self.addPermanentWidget(self.message)
        self._quiet = QTimer(self)
        self._quiet.setSingleShot(True)
        # No Python in between: the timer may outlive the Python side of the window.
        self._quiet.timeout.connect(self.message.clear)
        # Messages are about the picture that was open.
        workspace.work.source_changed.connect(self.message.clear)
        self._job: Job | None = None
        self._title, self._bar = QLabel(""), QProgressBar()
        self._bar.setRange(0, 1000)
        self._bar.setFixedWidth(180)
        self.stop = QPushButton(translate("Stop"))
        self.stop.clicked.connect(workspace.workers.stop_job)
        self.stop.clicked.connect(self._stopping)
        #: Shown while a job runs.
        self.job_box = QWidget()
        row = QHBoxLayout(self.job_box)
        row.setContentsMargins(0, 0, 0, 0)
        for widget in (self._title, self._bar, self.stop):
            row.addWidget(widget)
        self.addPermanentWidget(self.job_box)
        self.job_box.hide()
        workspace.workers.job_changed.connect(self._job_changed)

    def changeEvent(self, event: QEvent | None) -> None:
        super().changeEvent(event)
        if event is not None and event.type() in (
            QEvent.Type.FontChange,
            QEvent.Type.StyleChange,
        ):
            self._fit()

    def _fit(self) -> None:
        """As high as letters need, whether a job is shown or not."""
        self.setFixedHeight(max(LOWEST, self.fontMetrics().height() + 7))

    def say(self, text: str) -> None:
        """Show a message for a while."""
        self.message.setTextFormat(Qt.TextFormat.PlainText)
        self.message.setText(text)
        self._quiet.start(MESSAGE)

    def say_written(self, text: str, path: pathlib.Path) -> None:
        """Show that a file was written, with links to it and to its folder."""
        links = (
            (translate("Open"), path),
            (translate("Show in folder"), path.parent),
        )
        offered = "".join(
            f" &nbsp; <a style='color:{AMBER.name()}' href='{html.escape(str(there))}'>{word}</a>"
            for word, there in links
        )
        self.message.setTextFormat(Qt.TextFormat.RichText)
        self.message.setText(html.escape(text) + offered)
        self.message.setToolTip(str(path))
        self._quiet.start(OFFER)

    def be_quiet(self) -> None:
        """Let no timer run on after the window."""
        self._quiet.stop()

    def _job_changed(self, job: Job | None) -> None:
        self.job_box.setVisible(job is not None)
        if job is not None:
            self._title.setText(job.title)
        if job is not None and job is not self._job:
            self._bar.setValue(0)
            self._bar.setFormat("")
            self.stop.setEnabled(True)
            job.progressed.connect(lambda share, left: self._progress(job, share, left))
        self._job = job

    def _stopping(self) -> None:
        self.stop.setEnabled(False)
        self._bar.setFormat(translate("Stopping…"))

    def _progress(self, job: Job, share: float, left: float | None) -> None:
        if (
            job is not self._job or not self.stop.isEnabled()
        ):  # an export goes on behind the job that is waited for
            return
        self._bar.setValue(round(share * 1000))
        after = translate(", {left:.0f} s left", left=left) if left is not None else ""
        self._bar.setFormat(decimals(f"{share * 100:.0f} %") + after)
