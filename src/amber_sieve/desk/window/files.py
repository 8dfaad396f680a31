"""Opening, saving and leaving work, with what a person is asked on the way."""

from __future__ import annotations

import functools
import pathlib

from PyQt6.QtWidgets import QFileDialog, QMenu, QMessageBox, QWidget

from ...export.batch import pictures_in
from ...language import translator
from ...media import formats
from ...media.footage.sequences import is_sequence
from ...workspace.document.opening import MissingSource
from ...workspace.document.saving import beside
from ...workspace.workspace import Workspace
from ..dialogs.alone import show_alone
from ..dialogs.unsaved_dialog import UnsavedDialog

translate = translator("window")


READABLE = formats.filter_words(
    translate("Pictures, clips, projects"), [*formats.endings(), formats.PROJECT]
)


class Files:
    """Commands for files of pictures and projects."""

    def __init__(self, window: QWidget, workspace: Workspace) -> None:
        self.window, self.workspace = window, workspace

    def ask_open(self) -> None:
        names, _ = QFileDialog.getOpenFileNames(
            self.window,
            translate("Open pictures, clips or projects"),
            "",
            translate("{readable};;All files (*)", readable=READABLE),
        )
        self.workspace.pictures.open_many([pathlib.Path(name) for name in names])

    def open_from_outside(self, paths: list[pathlib.Path]) -> None:
        """Open what a later start was given, and come to the front."""
        self.workspace.pictures.open_many(paths)
        self.window.raise_()
        self.window.activateWindow()

    def ask_again(self) -> None:
        """Go on with the same work over another file."""
        name, _ = QFileDialog.getOpenFileName(
            self.window,
            translate("Find {name}", name=pathlib.Path(self.workspace.work.project.source).name),
            "",
            translate("{readable};;All files (*)", readable=READABLE),
        )
        if name:
            self.workspace.pictures.find_again(pathlib.Path(name))

    def close_picture(self) -> None:
        """Take the picture off the tray; unsaved work is asked about."""
        if self.may_leave():
            self.workspace.pictures.close([self.workspace.tray.current])

    def close_everything(self) -> None:
        """Take all pictures off the tray; unsaved work is asked about."""
        if self.may_leave_all():
            self.workspace.pictures.close_all()

    def fill_recent(self, menu: QMenu) -> None:
        """Fill the menu of recent files, the newest first; what is not there any more cannot be
        chosen.
        """
        menu.clear()
        for name in self.workspace.preferences.values.recent:
            action = menu.addAction(pathlib.Path(name).name)
            assert action is not None
            action.setToolTip(name)
            action.setEnabled(pathlib.Path(name).exists())
            action.triggered.connect(functools.partial(self._open_recent, pathlib.Path(name)))

    def _open_recent(self, path: pathlib.Path, _: bool = False) -> None:
        self.workspace.pictures.open_many([path])

    def save(self) -> bool:
        """Write the project where it was saved before; asks where there is no such place, or its
        file was changed elsewhere.
        """
        path = self.workspace.work.path
        if path is None:
            return self.ask_save()
        if not self.workspace.work.document.changed_elsewhere:
            return bool(self.workspace.saving.save(path))
        words = translate(
            "{name} was changed by another window or program since it was opened here.",
            name=path.name,
        )
        box = QMessageBox(
            QMessageBox.Icon.Warning,
            "Amber Sieve",
            words,
            QMessageBox.StandardButton.Cancel,
            self.window,
        )
        aside = box.addButton(translate("Save beside it"), QMessageBox.ButtonRole.AcceptRole)
        over = box.addButton(translate("Overwrite it"), QMessageBox.ButtonRole.DestructiveRole)
        box.setDefaultButton(aside)
        box.exec()
        chosen = box.clickedButton()
        return (
            bool(
                self.workspace.saving.save(path, over=True)
                if chosen is over
                else self.workspace.saving.save(beside(path))
            )
            if chosen in (aside, over)
            else False
        )

    def ask_save(self) -> bool:
        start = (
            str(pathlib.Path(self.workspace.work.project.source).with_suffix(formats.PROJECT))
            if self.workspace.work.project.source
            else ""
        )
        name, _ = QFileDialog.getSaveFileName(
            self.window,
            translate("Save project"),
            start,
            translate("Projects (*{ending})", ending=formats.PROJECT),
        )
        if not name:
            return False
        return bool(
            self.workspace.saving.save(
                pathlib.Path(name if name.endswith(formats.PROJECT) else name + formats.PROJECT)
            )
        )

    def ask_missing(self, missing: MissingSource) -> None:
        """Let the person point to a picture that is not where it was."""
        box = QMessageBox(
            QMessageBox.Icon.Question,
            "Amber Sieve",
            str(missing),
            QMessageBox.StandardButton.Cancel,
            self.window,
        )
        find = box.addButton(translate("Find it…"), QMessageBox.ButtonRole.AcceptRole)
        box.exec()
        if box.clickedButton() is not find:
            return
        name, _ = QFileDialog.getOpenFileName(
            self.window,
            translate("Find {name}", name=pathlib.Path(missing.project.source).name),
            "",
            translate("{readable};;All files (*)", readable=READABLE),
        )
        if name:
            self.workspace.pictures.open_with_source(missing, pathlib.Path(name))

    def offer_unsaved(self) -> None:
        """Offer work that was left behind by a program that no longer runs, if there is any."""
        self.workspace.unsaved.look()
        if self.workspace.unsaved.found:
            self.show_unsaved()

    def show_unsaved(self) -> None:
        """Show the work that was left behind and is neither restored nor discarded."""
        show_alone(UnsavedDialog, self.window, self.workspace)

    def open_dropped(self, paths: list[pathlib.Path]) -> None:
        """Open files and what folders hold; a folder of numbered pictures may be one clip."""
        found: list[pathlib.Path] = []
        for path in paths:
            if path.is_dir() and is_sequence(path) and self._is_clip(path):
                found.append(path)
            else:
                found += pictures_in([path])
        if found:
            self.workspace.pictures.open_many(found)
        else:
            self.workspace.speech.trouble.emit(
                translate(
                    "{paths} holds no pictures: drop pictures, clips, projects, or folders that "
                    "hold some.",
                    paths=paths[0],
                )
            )

    def _is_clip(self, folder: pathlib.Path) -> bool:
        words = translate(
            "{name} holds numbered pictures. Open them as one clip?", name=folder.name
        )
        return (
            QMessageBox.question(self.window, "Amber Sieve", words)
            == QMessageBox.StandardButton.Yes
        )

    def may_leave(self) -> bool:
        """Return whether unsaved work may be left behind; asks when there is any."""
        if not self.workspace.work.history.changed:
            return True
        choice = QMessageBox.question(
            self.window,
            "Amber Sieve",
            translate("The project has changes that are not saved."),
            QMessageBox.StandardButton.Save
            | QMessageBox.StandardButton.Discard
            | QMessageBox.StandardButton.Cancel,
        )
        return (
            self.save()
            if choice == QMessageBox.StandardButton.Save
            else choice == QMessageBox.StandardButton.Discard
        )

    def may_leave_all(self) -> bool:
        """Return whether the unsaved work on all pictures of the tray may be left behind; asks when
        there is any.
        """
        self.workspace.sharing.bring_shared()
        unsaved = self.workspace.saving.unsaved
        if len(unsaved) <= 1:
            if unsaved and unsaved[0] is not self.workspace.tray.current:
                self.workspace.pictures.go_to(unsaved[0])
            return self.may_leave()
        names = ", ".join(entry.name for entry in unsaved[:5]) + (" …" if len(unsaved) > 5 else "")
        choice = QMessageBox.question(
            self.window,
            "Amber Sieve",
            translate(
                "{count} pictures have changes that "
                "are not saved: {names}. Save All "
                "writes a new project "
                "beside each picture that has none.",
                count=len(unsaved),
                names=names,
            ),
            QMessageBox.StandardButton.SaveAll
            | QMessageBox.StandardButton.Discard
            | QMessageBox.StandardButton.Cancel,
        )
        return (
            bool(self.workspace.saving.save_all())
            if choice == QMessageBox.StandardButton.SaveAll
            else choice == QMessageBox.StandardButton.Discard
        )
