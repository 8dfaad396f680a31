"""A short tour over the demo: six steps, each waits for the person to do it."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from PyQt6.QtCore import QObject

from ...language import translator
from ...project.model import Sieve
from ...workspace.document.tray import Entry
from ...workspace.workspace import Workspace
from ..widgets.notice import Notice
from .places import demo_project

translate = translator("start")


@dataclass(frozen=True)
class Step:
    """A step of the tour: what is asked for, the page that it is done on, and whether it is done:
    asked of the sieve as it was when the step began, and as it is.
    """

    words: str
    page: str
    done: Callable[[Sieve, Sieve], bool]


def _samples(sieve: Sieve, role: str) -> int:
    return sum(sample.role == role for sample in sieve.pick.samples)


STEPS = (
    Step(
        translate("1 of 6: click the turquoise jar. Its mask appears in the other view."),
        "pick",
        lambda before, now: bool(now.pick.samples) and now.pick != before.pick,
    ),
    Step(
        translate(
            "2 of 6: hold Shift and click the green bottle. It is kept too.",
        ),
        "pick",
        lambda before, now: _samples(now, "keep") > _samples(before, "keep"),
    ),
    Step(
        translate(
            "3 of 6: drag Tolerance, and watch the mask. The hill behind it shows how much each "
            "value "
            "takes.",
        ),
        "pick",
        lambda before, now: (
            [s.tolerance for s in now.pick.samples] != [s.tolerance for s in before.pick.samples]
        ),
    ),
    Step(
        translate("4 of 6: on the page Edge, drag Grow a little. The outline moves."),
        "edge",
        lambda before, now: now.edge.grow != before.edge.grow,
    ),
    Step(
        translate(
            "5 of 6: on the page Adjust, drag Hue under Recolour. Only jar and bottle change."
        ),
        "adjust",
        lambda before, now: now.adjust.recolour != before.adjust.recolour,
    ),
    Step(
        translate(
            "6 of 6: press Ctrl+E, choose a folder, and export. Ending the tour takes back what it "
            "did."
        ),
        "adjust",
        lambda before, now: False,
    ),
)


class Tour(QObject):
    """Leads through the steps in a line above the picture; it can be left at any moment."""

    def __init__(self, workspace: Workspace, turn_to: Callable[[str], object]) -> None:
        super().__init__()
        self._work, self._pictures, self._stack, self._turn_to = (
            workspace.work,
            workspace.pictures,
            workspace.stack,
            turn_to,
        )
        self.notice = Notice(closable=False)
        #: The step that is asked for, None while nothing is.
        self.step: int | None = None
        self._before = workspace.work.sieve
        workspace.work.changed.connect(self._look)
        workspace.work.stale.connect(self._look)  # a drag has ended
        workspace.work.source_changed.connect(self._begin)
        workspace.speech.wrote.connect(self._exported)
        self._waits = False
        #: The entry of the tray that the tour works on, whether it was there before, and the step
        #: of its history at which it began.
        self._entry: Entry | None = None
        self._was_open, self._began_at = False, 0

    def start(self) -> None:
        """Open the demo's picture, and ask for the first step once it is there."""
        project = demo_project()
        if project is not None:
            self._waits = True
            picture = str(project.with_suffix(".png").absolute())
            self._was_open = self._pictures.entry_of(picture) is not None
            self._pictures.open(project.with_suffix(".png"))
            self._begin()

    def _begin(self) -> None:
        if self._waits and self._work.opened is not None:
            self._waits = False
            self._entry = self._work.tray.current
            self._began_at = self._work.history.at
            self._stack.add()
            self._ask(0)
        elif self.step is not None and self._work.opened is None:
            self.leave()

    def _ask(self, step: int) -> None:
        self.step, self._before = step, self._work.sieve
        self._turn_to(STEPS[step].page)
        last = step == len(STEPS) - 1
        self.notice.tell(
            STEPS[step].words,
            translate("End the tour") if last else translate("Leave the tour"),
            self.leave,
        )

    def _look(self) -> None:
        if (
            self.step is not None
            and not self._work.dragging
            and STEPS[self.step].done(self._before, self._work.sieve)
        ):
            self._ask(self.step + 1)

    def _exported(self, words: str) -> None:
        if self.step == len(STEPS) - 1:
            self.notice.tell(
                translate("That was the tour. {words}.", words=words),
                translate("End the tour"),
                self.leave,
            )

    def leave(self) -> None:
        """Ask for nothing more, and take back what the tour has done: its sieve, and its picture
        where that was not open before.
        """
        self.step, entry, self._entry = None, self._entry, None
        self.notice.hide()
        if entry is None or entry not in self._work.tray.entries:
            return
        if not self._was_open:
            self._pictures.close([entry])
        elif entry is self._work.tray.current:
            self._work.go_to_step(self._began_at)
