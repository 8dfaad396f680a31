"""The shown picture, how it is drawn, and its rendering."""

from __future__ import annotations

import math
import pathlib
from collections.abc import Callable
from dataclasses import replace
from typing import Any

import numpy as np
from PyQt6.QtCore import QObject, QTimer, pyqtSignal

from ...files import regular_file
from ...language import translator
from ...live.difference import difference_of
from ...live.parts import Shown
from ...live.preview import Opened, Rendered, Wanted, make_waiting_fine, preview
from ...live.scoping import Scope
from ...live.sieve_context import SieveContext
from ...media.colour import screens
from ...project.model import Project
from ...render.views import Looking, view
from ...resolve.layers import layers_in
from ..background.blocking_call import blocking_call
from ..background.guard import guarded
from ..background.workers import Workers
from ..document.work import Work
from ..preferences import Preferences, PreferenceStore
from ..speech import Speech

translate = translator("workspace")


#: Milliseconds after the last step of a drag from which on it rests.
REST = 250


def _looking(preferences: Preferences) -> dict[str, Any]:
    """Return how things are drawn, of what a person prefers."""
    there = pathlib.Path(preferences.screen_profile).is_file()
    screen = preferences.screen_profile if there else ""
    return {
        "veil_colour": preferences.veil_colour,
        "veil_opacity": preferences.veil_opacity / 100,
        "screen": screen,
    }


@guarded
class Viewing(QObject):
    """`rendered` comes with the newest `Rendered`, `glimpsed` with one to show until that is made,
    `changed_mask` with what a click has changed; `asked` when something else is to be seen.
    """

    rendered = pyqtSignal(object)
    glimpsed = pyqtSignal(object)
    changed_mask = pyqtSignal(object)
    asked = pyqtSignal()

    def __init__(
        self, work: Work, workers: Workers, preferences: PreferenceStore, speech: Speech
    ) -> None:
        super().__init__()
        self.speech = speech
        self._work, self._workers, self._preferences = work, workers, preferences
        self.shown = Shown()
        self.looking = Looking(**_looking(preferences.values))
        self.last: Rendered | None = None
        #: A clip plays: its frames are made by others.
        self.plays = False
        self.counts_view = False
        self._counts_mask = False
        #: The scopes that are seen.
        self.scopes: tuple[Scope, ...] = ()
        #: A project that is shown in place of another for as long as that is the one there is, on a
        #: frame.
        self._trial: tuple[Project, int, Project] | None = None
        self._trial_hurries = False
        #: What was shown before the last click, until what came of it is shown.
        self._before: Rendered | None = None
        #: A click is first shown as coarsely as a step of a drag: it is there in half the time.
        self._first_look = False
        #: A drag that stops without an end rests by itself.
        self._calm = QTimer(self)
        self._calm.setSingleShot(True)
        self._calm.timeout.connect(work.rest)
        work.stale.connect(self.ask)
        preferences.changed.connect(lambda: self.look(**_looking(preferences.values)))
        workers.renders.done.connect(self._take)
        workers.renders.rested.connect(lambda: self._calm.start(REST) if work.dragging else None)

    def show(self, shown: Shown) -> None:
        """The canvas wants to see this."""
        before, self.shown = self.shown, shown
        # While something is dragged, no more is there than was seen.
        if shown != before or self.plays or (self._work.dragging and shown.seen != before.seen):
            self.ask()

    def look(self, **changes: Any) -> None:
        """Draw the views otherwise from now on: see `Looking`."""
        looking = replace(self.looking, **changes)
        if looking != self.looking:
            self.looking = looking
            self.ask()

    def proof(self, path: pathlib.Path | None) -> None:
        """Show the picture as an ICC profile would; None for not."""
        if path is not None:
            blocking_call(
                lambda: screens.proof_tables(str(path), regular_file(path).stat().st_mtime_ns)
            )
        self.look(proof=str(path) if path else "")
        self.speech.said.emit(
            translate("Soft proof of {name}; magenta is outside its gamut", name=path.name)
            if path
            else translate("No soft proof")
        )

    def use_screen_profile(self, path: pathlib.Path | None) -> None:
        """Draw everything as the screen's profile wants it, from now on."""
        if path is not None:
            blocking_call(
                lambda: screens.screen_table(str(path), regular_file(path).stat().st_mtime_ns)
            )
        self._preferences.change(screen_profile=str(path) if path else "")

    def count_view(self, on: bool) -> None:
        """Count colours over the visible part, or over the whole picture."""
        self.counts_view = on
        self.ask()

    def count_mask(self, on: bool) -> None:
        """Set whether the colours inside the mask are counted, for what is drawn over them."""
        if on != self._counts_mask:
            self._counts_mask = on
            self.ask()

    def show_scopes(self, scopes: tuple[Scope, ...]) -> None:
        """Make other scopes with every picture from now on."""
        if scopes != self.scopes:
            self.scopes = scopes
            self.ask()

    def wanted(self) -> Wanted:
        """All that the next render depends on besides the source."""
        work, project, hurried = self._work, self._work.project, self._work.dragging
        if self._trial is not None and self._trial[0] is project and self._trial[1] == work.number:
            project, hurried = self._trial[2], self._trial_hurries
        elif self._first_look:
            hurried = hurried or not self._is_shown(project)
        return Wanted(
            project,
            work.sieve.id,
            work.number,
            self.shown,
            self.looking,
            self.counts_view,
            hurried,
            self._counts_mask,
            self.scopes,
        )

    def _is_shown(self, project: Project) -> bool:
        """Return whether a project is what is seen already, finely: a click that was looked at
        before it was made.
        """
        return (
            self.last is not None
            and not self.last.wanted.hurried
            and self.last.wanted.project == project
        )

    def ask(self) -> None:
        """Render what is shown, with the newest state."""
        renders, opened = self._workers.renders, self._work.opened
        context = replace(self._workers.context, cancelled=renders.superseded)
        if opened is None:
            renders.forget()
        elif not self.plays:
            wanted = self.wanted()

            def render() -> tuple[Opened, Rendered]:
                return opened, preview(opened, wanted, context)

            self._calm.stop()  # it counts from when the newest step is seen
            renders.ask(render, opened, wanted.hurried)
        self.asked.emit()

    def try_out(self, project: Project | None) -> None:
        """Show another project until the open one changes, coarsely first and then finely; None
        ends it.
        """
        self._trial_hurries = True
        self._trial = (
            (self._work.project, self._work.number, project) if project is not None else None
        )
        self.ask()

    def forget(self) -> None:
        """Drop what was rendered."""
        self.last = None

    def forget_place(self) -> None:
        """Another picture comes: which part of it is seen, and how large, is not known yet."""
        self.shown = Shown(views=self.shown.views)

    def note_before(self) -> None:
        """A click is about to change the mask: `changed_mask` will follow."""
        self._before, self._first_look = self.last, True

    def _take(self, answer: tuple[Opened, Rendered] | None) -> None:
        if answer is None:  # made for later
            return
        opened, result = answer
        if opened is not self._work.opened:  # another picture has been opened meanwhile
            return
        if result.lost and (
            self.last is None
            or self.last.lost != result.lost
            or self.last.wanted.number != result.wanted.number
        ):
            self.speech.said.emit(
                translate(
                    "Place lost on this frame: {lost}; take the sample again here.",
                    lost=", ".join(result.lost),
                )
            )
        if self.plays:  # asked for before playing began
            return
        self.last = result
        self.rendered.emit(result)
        hurried, now = result.wanted.hurried, result.wanted.project == self._work.project
        if self._before is not None and now and not hurried:
            self.changed_mask.emit(difference_of(self._before, result))
            self._before = None
        if (
            self._trial_hurries
            and self._trial is not None
            and result.wanted.project is self._trial[2]
        ):
            self._trial_hurries = False
            self.ask()
        elif self._first_look and now:
            self._first_look = False
            if hurried and not self._work.dragging:
                self.ask()
        if result.waiting and now:
            context = self._workers.context
            self._workers.jobs.run_quietly(
                translate("Hair and fringe"),
                lambda progress: make_waiting_fine(result, context, progress.step),
                lambda _: self.ask(),
            )

    def picture_of(self, name: str, longest: int, then: Callable[[np.ndarray], None]) -> None:
        """A view of the whole picture at most ``side`` pixels wide and high, as screen pixels (H,
        W) uint32 or levels of grey uint8, for ``then``.
        """

        def question(seen: SieveContext) -> np.ndarray:
            whole = seen.opened.source.about.size
            frame = seen.opened.frame(seen.number, max(1, math.ceil(max(whole) / longest)))
            return view(
                name,
                frame,
                seen.resolved,
                seen.sieve_id,
                self.looking,
                seen.context,
                layers_in(seen.context),
            )

        self._work.ask_about(question, then)

    def ask_about_last(
        self, question: Callable[[Rendered], Any], then: Callable[[Any], None]
    ) -> bool:
        """Ask something of the view, in a thread; ``then`` gets the answer here. False where
        nothing is shown yet.
        """
        last = self.last
        if last is None:
            return False
        self._workers.questions.ask(lambda: lambda: question(last), then)
        return True
