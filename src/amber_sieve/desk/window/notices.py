"""Notices that stand for as long as they are true: that work came with a picture, that the mask is
inverted.
"""

from __future__ import annotations

from collections.abc import Callable

from ...language import translator
from ...live.preview import Rendered
from ...workspace.document.tray import Entry
from ...workspace.workspace import Workspace
from ..widgets.notice import Notice

translate = translator("window")


class Notices:
    """The lines above the picture and above the pages."""

    def __init__(
        self,
        workspace: Workspace,
        close_everything: Callable[[], object],
        show_reading: Callable[[], object],
    ) -> None:
        self._workspace, self._close_everything = workspace, close_everything
        self._show_reading = show_reading
        #: How what is open came here; and that the mask is inverted.
        self.opened, self.inverted = Notice(), Notice(closable=False)
        #: That pictures of the tray are not where they were.
        self.gone = Notice()
        #: What the line above the picture speaks of.
        self._told_of: object = None
        #: Pictures that were said to be flat: it is said once.
        self._told_flat: set[str] = set()
        workspace.pictures.brought.connect(self._tell_brought)
        workspace.last_tray.restored.connect(self._tell_restored)
        workspace.last_tray.gone.connect(self._tell_gone)
        workspace.work.source_changed.connect(self._forget)
        workspace.viewing.rendered.connect(self._tell_flat)
        workspace.work.changed.connect(self._tell_inverted)
        workspace.work.selection_changed.connect(self._tell_inverted)

    def _tell(self, words: str, offer: str, act: Callable[[], object]) -> None:
        self._told_of = self._workspace.tray.current
        self.opened.tell(words, offer, act)

    def _tell_brought(self, project: str) -> None:
        self._tell(
            translate("Opened with {project}, which lies beside it.", project=project),
            translate("Start fresh"),
            self._workspace.saving.start_over,
        )

    def _tell_restored(self, number: int) -> None:
        words = (
            translate("What was open last is open again.")
            if number == 1
            else translate(
                "The {number} pictures that were open last are open again.", number=number
            )
        )
        self._tell(words, translate("Close all"), self._close_everything)

    def _tell_flat(self, result: Rendered) -> None:
        """Say once that a picture looks as if a log curve had been read as sRGB."""
        project = self._workspace.work.project
        if (
            all(isinstance(sieve.pick.flat, str) for sieve in result.seen.stack)
            or project.reading.space
            or project.source in self._told_flat
            or result.wanted.hurried
        ):
            return
        self._told_flat.add(project.source)
        self._tell(
            translate(
                "This picture looks flat, as if recorded with a log curve. Samples are compared as "
                "if that were undone."
            ),
            translate("Input settings…"),
            self._show_reading,
        )

    def _tell_gone(self, gone: dict[str, Entry]) -> None:
        """Say once which pictures, or projects, of the tray have gone."""
        entries = list(gone.values())
        names = ", ".join(list(gone)[:3]) + (" …" if len(entries) > 3 else "")
        words = (
            translate("{names} is not where it was.", names=names)
            if len(entries) == 1
            else translate(
                "{number} pictures of the tray are not where they were: {names}.",
                number=len(entries),
                names=names,
            )
        )
        self.gone.tell(
            words,
            translate("Remove from the tray"),
            lambda: self._workspace.pictures.close(entries),
        )

    def _forget(self) -> None:
        """Another picture is seen: what was said of the one before goes."""
        if self._workspace.tray.current is not self._told_of:
            self.opened.hide()

    def _tell_inverted(self) -> None:
        """Said on every page, for there what is kept is what is left out."""
        work = self._workspace.work
        if work.sieve.invert and self.inverted.isHidden():
            self.inverted.tell(
                translate("The mask is inverted: what you keep is left out."),
                translate("Invert back"),
                lambda: work.set_field("invert", False, translate("Invert the mask")),
            )
        self.inverted.setVisible(work.sieve.invert)
