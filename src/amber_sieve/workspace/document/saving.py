"""Saving projects, and keeping what is not saved."""

from __future__ import annotations

import itertools
import pathlib

from ...language import translator
from ...media.formats import PROJECT
from ...project.model import Project
from ..background.guard import guarded
from ..preferences import PreferenceStore
from ..speech import Speech
from .tray import Entry
from .work import Work

translate = translator("workspace")


def beside(source: pathlib.Path) -> pathlib.Path:
    """A name for a project beside its picture that is not taken yet."""
    names = itertools.chain(
        [source.with_suffix(PROJECT)],
        (source.with_name(f"{source.stem}-{k}{PROJECT}") for k in itertools.count(2)),
    )
    return next(name for name in names if not name.exists())


@guarded
class Saving:
    """Saves what is in the window, or all that is on the tray."""

    def __init__(self, work: Work, preferences: PreferenceStore, speech: Speech) -> None:
        self.speech = speech
        self._work, self._preferences = work, preferences

    def save(self, path: pathlib.Path, over: bool = False) -> bool:
        """Write the project; not True when it could not be written (it is said why). ``over``:
        whatever its file holds by now.
        """
        self._work.document.save(path, over, self._work.tray.current.replaced)
        self._preferences.remember(path)
        self.speech.said.emit(translate("Saved {name}", name=path.name))
        return True

    def start_over(self) -> None:
        """Put the stack back to one empty sieve; it can be undone, and the project's file stays as
        it is until it is saved.
        """
        source, reading = self._work.project.source, self._work.project.reading
        self._work.edit(
            lambda _: Project(source=source, reading=reading),
            translate("Reset the stack"),
        )

    def keep_now(self) -> None:
        """Keep all unsaved work before this returns."""
        for entry in self._work.tray.entries:
            entry.document.keep_now()

    @property
    def unsaved(self) -> list[Entry]:
        """The pictures of the tray with work that is not saved."""
        return [entry for entry in self._work.tray.entries if entry.document.history.changed]

    def save_all(self) -> bool:
        """Save all unsaved work: where it was saved before, else beside its picture; not True when
        something could not be written. What was changed elsewhere meanwhile is saved beside that,
        and it is said.
        """
        for entry in self.unsaved:
            path = entry.document.path
            if path is not None and entry.document.changed_elsewhere:
                entry.document.save(beside(path), replaced=entry.replaced)
                self.speech.trouble.emit(
                    translate(
                        "{name} was changed by another window or program: your work is saved "
                        "beside it as {name2}.",
                        name=path.name,
                        name2=entry.name,
                    )
                )
            else:
                entry.document.save(
                    path or beside(pathlib.Path(entry.source)), replaced=entry.replaced
                )
        return True
