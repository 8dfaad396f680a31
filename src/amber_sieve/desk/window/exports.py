"""Exports from the window: results, masks, lookup tables, batches, and the queue."""

from __future__ import annotations

import functools
import pathlib

from PyQt6.QtCore import QUrl
from PyQt6.QtGui import QDesktopServices
from PyQt6.QtWidgets import QMenu, QMessageBox, QWidget

from ...language import translator
from ...workspace.workspace import Workspace
from ..dialogs.alone import show_alone
from ..dialogs.batch_dialog import BatchDialog
from ..dialogs.export_dialog import ExportDialog
from ..dialogs.jobs_dialog import JobsDialog

translate = translator("window")


class Exports:
    """Commands that write files, and the questions that they ask."""

    def __init__(self, window: QWidget, workspace: Workspace) -> None:
        self.window, self.workspace = window, workspace
        workspace.speech.wrote.connect(
            lambda _, path: workspace.preferences.remember(path, "exported")
        )

    def show_export(self, what: str = "") -> None:
        """Everything about what leaves: what, as what, how large, where; as it was chosen last."""
        if not self.workspace.work.opened:
            self.workspace.speech.trouble.emit(
                translate("There is nothing to export yet: open a picture first.")
            )
            return
        show_alone(ExportDialog, self.window, self.workspace, what)

    def export_again(self) -> None:
        """Export as it was chosen last, without asking more than whether something may be written
        over.
        """
        opened = self.workspace.work.opened
        if (
            opened is None
            or ("clip" if opened.source.about.frames > 1 else "still")
            not in self.workspace.preferences.values.last_export
        ):
            self.show_export()
            return
        dialog = ExportDialog(self.window, self.workspace)
        dialog.export.click()
        dialog.deleteLater()

    def show_batch(self) -> None:
        """Many pictures at once: those of the tray, some files, or a folder."""
        show_alone(BatchDialog, self.window, self.workspace)

    def show_jobs(self) -> None:
        """Show the running export and those that wait."""
        show_alone(JobsDialog, self.window, self.workspace, beside=True)

    def may_stop_job(self) -> bool:
        """Return whether an export that is still running may be stopped; asks when there is one."""
        job = self.workspace.workers.jobs.job
        more = (
            translate(" {count} more wait.", count=len(self.workspace.workers.jobs.waiting))
            if self.workspace.workers.jobs.waiting
            else ""
        )
        if job is None or job.title.startswith("Opening"):
            return True
        choice = QMessageBox.question(
            self.window,
            "Amber Sieve",
            translate(
                "{title} is not done yet.{more} Stop it and close? What it has written so far is "
                "taken away.",
                title=job.title,
                more=more,
            ),
            QMessageBox.StandardButton.Close | QMessageBox.StandardButton.Cancel,
            QMessageBox.StandardButton.Cancel,
        )
        return choice == QMessageBox.StandardButton.Close

    def fill_recent(self, menu: QMenu) -> None:
        """Fill the menu of recent exports, the newest first; what lay in a folder that is gone
        cannot be chosen.
        """
        menu.clear()
        for name in self.workspace.preferences.values.exported:
            path = pathlib.Path(name)
            inner = menu.addMenu(path.name)
            assert inner is not None
            inner.setToolTip(name)
            inner.setEnabled(path.parent.exists())
            for words, there in (
                (translate("Open"), path),
                (translate("Show in folder"), path.parent),
            ):
                action = inner.addAction(words)
                assert action is not None
                action.triggered.connect(functools.partial(self.open_outside, there))

    def open_outside(self, path: pathlib.Path, _: bool = False) -> None:
        """Open a file or folder with what the desktop opens it with."""
        path = path if path.exists() else path.parent  # of numbered pictures
        if not QDesktopServices.openUrl(QUrl.fromLocalFile(str(path))):
            self.workspace.speech.trouble.emit(
                translate(
                    "No program opens {name} on this desktop: it lies in {folder}.",
                    name=path.name,
                    folder=path.parent,
                )
            )
