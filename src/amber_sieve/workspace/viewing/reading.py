"""Choices in reading and seeing the picture: its part, its colour space, the working space, the
display, what is outside the gamut.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from typing import Any

from PyQt6.QtCore import QObject

from ...errors import Trouble
from ...language import translator
from ...live.preview import Opened
from ...media.colour import spaces as colour_spaces
from ...media.source import Source
from ...resolve.sources import source_of
from ..background.guard import guarded
from ..background.workers import Workers
from ..document.work import Work
from ..speech import Speech
from .viewing import Viewing

translate = translator("workspace")


@guarded
class SourceReading(QObject):
    """Reads the picture otherwise when the project says so."""

    def __init__(self, work: Work, viewing: Viewing, workers: Workers, speech: Speech) -> None:
        super().__init__()
        self.speech = speech
        self._work, self._viewing, self._workers = work, viewing, workers
        work.reading_changed.connect(self._read_anew)

    def _read_anew(self) -> None:
        """The picture is to be read otherwise: until it is, nothing is rendered; when it cannot be,
        that step is taken back.
        """
        opened, project = self._work.opened, self._work.project
        assert opened is not None
        path = opened.source.about.path

        def work() -> Callable[[], Source | Trouble]:
            def read() -> Source | Trouble:
                try:
                    source = source_of(project, path)
                    source.frame(0)
                except Trouble as trouble:
                    return trouble
                return source

            return read

        def then(source: Source | Trouble) -> None:
            if self._work.opened is not opened or self._work.project.reading != project.reading:
                if not isinstance(source, Trouble):
                    source.close()  # something else is wanted by now
                return
            if isinstance(source, Trouble):
                self._work.edit(
                    lambda now: now.but(reading=opened.reading),
                    translate("Read as before"),
                )
                self.speech.trouble.emit(str(source))
                return
            opened.retire()
            self._work.tray.current.opened = Opened(source, project.reading)
            self._viewing.forget()
            self._work.source_changed.emit()
            self._viewing.ask()

        self._workers.questions.ask(work, then)

    def change(self, **changes: Any) -> None:
        """Read the picture otherwise: its part, its colour space, the white balance of a raw
        file.
        """
        reading = replace(self._work.project.reading, **changes)
        if reading != self._work.project.reading:
            self._work.edit(
                lambda project: project.but(reading=reading),
                translate("Read the picture otherwise"),
            )

    def name_colour_spaces(self, then: Callable[[dict[str, list[str]]], None]) -> None:
        """Read the names of the colour configuration in a thread, for ``then``."""
        self._workers.openings.queue(
            translate("Reading the colour configuration"),
            lambda progress: colour_spaces.names(),
            then,
        )

    def set_working(self, name: str) -> None:
        """The linear space in whose channels CDL and curves work; "" for Rec. 709."""
        if name != self._work.project.working:
            self._work.edit(lambda project: project.but(working=name), translate("Working space"))

    def set_display(self, name: str) -> None:
        """See and write the picture through a "display / view"; "" for none."""
        if name != self._work.project.display:
            self._work.edit(lambda project: project.but(display=name), translate("Display"))

    def set_gamut(self, gamut: str) -> None:
        """Set how colours outside the output gamut are brought back."""
        self._work.edit(lambda project: project.but(gamut=gamut), translate("Gamut"))
