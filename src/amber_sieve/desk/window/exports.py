"""What leaves the window: results, masks, lookup tables, batches, and the queue."""

from __future__ import annotations

import pathlib

from PyQt6.QtWidgets import QFileDialog, QMessageBox, QWidget

from ...export.batch import pictures_in
from ...media import formats
from ...workspace.workspace import Workspace
from ..dialogs.export_dialog import ExportDialog
from ..dialogs.jobs_dialog import JobsDialog

READABLE_STILLS = formats.filter_words("Pictures", formats.endings("still"))


class Exports:
    """What the window writes, with what a person is asked on the way."""

    def __init__(self, window: QWidget, workspace: Workspace) -> None:
        self.window, self.workspace = window, workspace

    def show_export(self, what: str = "") -> None:
        """Everything about what leaves: what, as what, how large, where; as it was chosen last."""
        if not self.workspace.work.opened:
            self.workspace.speech.trouble.emit("There is nothing to export yet: open a picture first.")
            return
        ExportDialog(self.window, self.workspace, what).show()

    def export_again(self) -> None:
        """Export as it was chosen last, without asking more than whether something may be written over."""
        opened = self.workspace.work.opened
        if opened is None or ("clip" if opened.source.about.frames > 1 else "still") not in self.workspace.preferences.values.last_export:
            self.show_export()
            return
        dialog = ExportDialog(self.window, self.workspace)
        dialog.export.click()
        dialog.deleteLater()

    def ask_batch(self) -> None:
        """Render many pictures: those of the tray, some files, or a folder."""
        box = QMessageBox(QMessageBox.Icon.Question, "Amber Sieve", "Which pictures?", QMessageBox.StandardButton.Cancel, self.window)
        tray, files, folder = (
            box.addButton(words, QMessageBox.ButtonRole.AcceptRole)
            for words in ("The tray, each by its stack", "Files, by this stack…", "A folder, by this stack…")
        )
        assert tray is not None
        tray.setEnabled(len(self.workspace.tray.entries) > 1)
        box.exec()
        self.batch({tray: "tray", files: "files", folder: "folder"}.get(box.clickedButton(), ""))  # type: ignore[arg-type]

    def batch(self, which: str) -> None:
        """Ask for what is left to know of a batch of the "tray", of "files" or of a "folder", and run it."""
        paths: list[pathlib.Path] = []
        if which == "files":
            names, _ = QFileDialog.getOpenFileNames(
                self.window, "Pictures to render by this project", "", f"{READABLE_STILLS};;All files (*)"
            )
            paths = [pathlib.Path(name) for name in names]
        elif which == "folder":
            name = QFileDialog.getExistingDirectory(self.window, "Folder of pictures to render by this project")
            paths = pictures_in([pathlib.Path(name)]) if name else []
        if not paths and which != "tray":
            return
        name = QFileDialog.getExistingDirectory(self.window, "Folder to write them into")
        if name and which == "tray":
            self.workspace.exports.batch_tray(pathlib.Path(name))
        elif name:
            self.workspace.exports.run_batch(paths, pathlib.Path(name))

    def show_jobs(self) -> None:
        """What is being exported and what waits for its turn."""
        JobsDialog(self.window, self.workspace).show()

    def may_stop_job(self) -> bool:
        """Whether an export that is still running may be stopped; asks when there is one."""
        job = self.workspace.workers.jobs.job
        more = f" {len(self.workspace.workers.jobs.waiting)} more wait." if self.workspace.workers.jobs.waiting else ""
        if job is None or job.title.startswith("Opening"):
            return True
        choice = QMessageBox.question(
            self.window, "Amber Sieve", f"{job.title} is not done yet.{more} Stop it and close? What it has written so far is taken away.",
            QMessageBox.StandardButton.Close | QMessageBox.StandardButton.Cancel, QMessageBox.StandardButton.Cancel,
        )  # fmt: skip
        return choice == QMessageBox.StandardButton.Close
