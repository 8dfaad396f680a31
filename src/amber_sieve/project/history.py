"""Undo and redo: a walk along the list of projects."""

from __future__ import annotations

import datetime
from collections.abc import Sequence
from dataclasses import dataclass, field, replace

import numpy as np

from ..language import translator
from .model import Project

translate = translator("project")


#: Projects share what did not change, so a step costs little; this bounds a very long session.
LONGEST = 2000


def _now() -> tuple[int, int, int]:
    moment = datetime.datetime.now()
    return moment.hour, moment.minute, moment.second


@dataclass(frozen=True, eq=False)
class HistoryStep:
    """A project, and what was done to get there.

    Attributes
    ----------
    group : of one drag. time : hour, minute and second. picture : its result, small, as pixels of
        the screen (h, w) uint32; None while it was not rendered.
    """

    project: Project
    what: str
    group: str = ""
    time: tuple[int, int, int] = field(default_factory=_now)
    picture: np.ndarray | None = None


class History:
    """The projects of a session, and where in their list we stand."""

    def __init__(self, project: Project) -> None:
        self._steps = [HistoryStep(project, translate("Open"))]
        self._at = 0
        self._saved = 0

    @property
    def project(self) -> Project:
        return self._steps[self._at].project

    @property
    def changed(self) -> bool:
        """Return whether anything differs from what was last saved."""
        return self._at != self._saved and self._steps[self._at].project != (
            self._steps[self._saved].project if 0 <= self._saved < len(self._steps) else None
        )

    @property
    def undoes(self) -> str | None:
        """Return the name of what undo takes back."""
        return self._steps[self._at].what if self._at else None

    @property
    def redoes(self) -> str | None:
        """Return the name of what redo does again."""
        return self._steps[self._at + 1].what if self._at + 1 < len(self._steps) else None

    @property
    def steps(self) -> Sequence[HistoryStep]:
        """All steps, the oldest first."""
        return self._steps

    @property
    def at(self) -> int:
        """Return where we stand among them."""
        return self._at

    def go_to(self, number: int) -> bool:
        """Stand at another of them; False when there is none of that number, or we stand there."""
        if not 0 <= number < len(self._steps) or number == self._at:
            return False
        self._at = number
        return True

    def push(self, project: Project, what: str, group: str = "") -> None:
        """Go on to ``project``. Steps in a row with the same ``group`` (one drag) become one
        step.
        """
        if project == self.project:
            return
        follows = group and self._steps[self._at].group == group and self._at != self._saved
        if follows and self._at > 0 and project == self._steps[self._at - 1].project:
            # The drag has come back to where it began: there is nothing to undo.
            del self._steps[self._at :]
            self._at -= 1
            return
        if not follows:
            self._at += 1
        if self._saved >= self._at:
            self._saved = -1
        del self._steps[self._at :]
        self._steps.append(HistoryStep(project, what, group))
        if len(self._steps) > LONGEST:
            del self._steps[0]
            self._at, self._saved = self._at - 1, self._saved - 1

    def close_group(self) -> None:
        """End a drag: the next step stands by itself."""
        step = self._steps[self._at]
        self._steps[self._at] = replace(step, group="")

    def keep_picture(self, project: Project, picture: np.ndarray) -> None:
        """Keep a small picture of where we stand, if that is what was rendered."""
        step = self._steps[self._at]
        if step.project is project:
            self._steps[self._at] = replace(step, picture=picture)

    def undo(self) -> bool:
        """Step back; False when there is nothing to take back."""
        if self._at == 0:
            return False
        self._at -= 1
        return True

    def redo(self) -> bool:
        """Step forward; False when there is nothing to do again."""
        if self._at + 1 >= len(self._steps):
            return False
        self._at += 1
        return True

    def mark_saved(self) -> None:
        self._saved = self._at

    def mark_never_saved(self) -> None:
        """Note that this differs from every file."""
        self._saved = -1
