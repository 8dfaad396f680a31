"""Stacks of several pictures of the tray at once: shared between them, or pasted into them."""

from __future__ import annotations

import contextlib

from ...errors import Trouble
from ...language import translator
from ...live.sampling import searched_again
from ...progress import Progress
from ...project import clippings, edits
from ...project.model import Sieve
from ...resolve.sources import source_of
from ..background.guard import guarded
from ..background.workers import Workers
from ..speech import Speech
from .tray import Entry
from .work import Work

translate = translator("workspace")


@guarded
class Sharing:
    """Gives what one picture has to others."""

    def __init__(self, work: Work, workers: Workers, speech: Speech) -> None:
        self.speech = speech
        self._work, self._workers = work, workers

    def share(self, entries: list[Entry], on: bool) -> None:
        """Let pictures have one stack between them, or each its own again."""
        for entry in sorted(entries, key=lambda one: one is not self._work.tray.current):
            self._work.tray.share(entry, on)

    @staticmethod
    def _paste_into(entry: Entry, sieves: tuple[Sieve, ...]) -> None:
        entry.document.edit(
            lambda project: edits.with_pasted(project, sieves)[0], translate("Paste")
        )

    def paste(self, entries: list[Entry], text: str, search: bool = False) -> None:
        """Add the sieves of a text to the stacks of several pictures; ``search`` finds the
        tolerances of their samples on each anew.
        """
        sieves = clippings.sieves_in(text)
        if not search:
            for entry in entries:
                self._paste_into(entry, sieves)
            self.speech.said.emit(
                translate(
                    "Pasted {sieves} into {count} pictures",
                    sieves=", ".join(sieve.name for sieve in sieves),
                    count=len(entries),
                )
            )
            return

        def work(progress: Progress) -> list[tuple[Entry, tuple[Sieve, ...] | str]]:
            found: list[tuple[Entry, tuple[Sieve, ...] | str]] = []
            for number, entry in enumerate(entries, 1):
                try:
                    with contextlib.closing(source_of(entry.document.project)) as source:
                        found.append(
                            (
                                entry,
                                tuple(searched_again(sieve, source.frame(0)) for sieve in sieves),
                            )
                        )
                except Trouble as trouble:
                    found.append((entry, str(trouble)))
                progress.step(number / len(entries))
            return found

        def then(found: list[tuple[Entry, tuple[Sieve, ...] | str]]) -> None:
            for entry, result in found:
                if isinstance(result, str):
                    self.speech.trouble.emit(result)
                else:
                    self._paste_into(entry, result)

        self._workers.wait_for(translate("Finding tolerances"), work, then)

    def bring_shared(self) -> None:
        """Give all pictures that share the stack its present state; else each gets it when it is
        shown.
        """
        for entry in self._work.tray.entries:
            self._work.tray.bring(entry)
