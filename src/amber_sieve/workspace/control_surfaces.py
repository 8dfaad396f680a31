"""Requests of a control surface: numbers of the current sieve, pages, sieves, frames; and what it
is told of them.

Messages are Open Sound Control 1.0 (opensoundcontrol.org). This takes them apart and does what they
say; the port that they arrive at is `desk.start.control_port`. What is turned many times between
two looks of the program is done once, so no flood costs a frame.
"""

from __future__ import annotations

import functools
import math
from collections.abc import Callable
from typing import Any

from PyQt6.QtCore import QObject, QTimer, pyqtSignal
from pythonosc.osc_message_builder import OscMessageBuilder

from ..language import decimals
from ..project.controls import PAGES, address_of, path_of, paths, specs
from ..project.fields import Spec
from ..project.model import Sieve
from .background.guard import guarded
from .clip.clip import ClipController
from .clip.playback import Playback
from .document.work import Work
from .osc_packet import DamagedPacket, messages_in

#: Milliseconds between two times that what has arrived is done: half a frame at 60 a second.
TOGETHER = 8
#: Milliseconds between two times that a surface is told of what has changed.
TELLS = 50
#: Milliseconds without a turn after which a surface that says nothing of touches has let go.
STILL = 400
#: Packets that wait at most; what comes beyond is dropped.
MOST_WAITING = 256


def message(address: str, *values: float | str | int) -> bytes:
    """A message as it goes over the wire."""
    builder = OscMessageBuilder(address)
    for value in values:
        builder.add_arg(value)
    return builder.build().dgram


def _numbers(values: list[Any]) -> list[float]:
    """The finite numbers among what a message holds."""
    return [
        float(value) for value in values if isinstance(value, (int, float)) and math.isfinite(value)
    ]


@guarded
class ControlSurfaces(QObject):
    """Does what surfaces ask for, on the interface thread and at most every ``TOGETHER``
    milliseconds.

    ``tells`` gives a packet for all listeners; ``turned`` asks for another page of the window,
    ``compared`` for before or after; ``first_damaged`` tells of the first damaged packet since the
    program started.
    """

    tells = pyqtSignal(bytes)
    turned = pyqtSignal(int)
    compared = pyqtSignal(bool)
    first_damaged = pyqtSignal()

    def __init__(self, work: Work, clip: ClipController, playback: Playback) -> None:
        super().__init__()
        self._work, self._clip, self._playback = work, clip, playback
        #: Messages that were done, and that were dropped because they were unknown, damaged or too
        #: many.
        self.done, self.dropped = 0, 0
        #: Packets that were no Open Sound Control; they are among the dropped.
        self.damaged = 0
        self.page = 0
        self._waiting: list[bytes] = []
        self._told: dict[str, float] = {}
        self._soon, self._later, self._still = QTimer(self), QTimer(self), QTimer(self)
        timers = (
            (self._soon, TOGETHER, self._work_off),
            (self._later, TELLS, self._tell_changes),
            (self._still, STILL, self._end_turn),
        )
        for timer, every, act in timers:
            timer.setSingleShot(True)
            timer.setInterval(every)
            timer.timeout.connect(act)
        work.changed.connect(self._changed)
        work.selection_changed.connect(self._changed)

    def take(self, packet: bytes) -> None:
        """A packet has arrived."""
        if len(self._waiting) >= MOST_WAITING:
            self.dropped += 1
            return
        self._waiting.append(packet)
        if not self._soon.isActive():
            self._soon.start()

    def _work_off(self) -> None:
        """Do what has arrived: turns of one number add up to one."""
        waiting, self._waiting = self._waiting, []
        turns: dict[str, float | str] = {}
        ends = False
        for address, values in self._messages(waiting):
            path, how = path_of(address) if self._work.opened is not None else ("", "")
            numbers = _numbers(values)
            if path and how == "touch" and numbers:
                ends |= not numbers[0]
            elif path and how == "reset":
                turns[path] = "auto" if specs()[path].from_auto else specs()[path].start
            elif path and how == "by" and numbers:
                spec = specs()[path]
                held = turns.get(path, self._value(path))
                turns[path] = (held if isinstance(held, float) else spec.start) + numbers[
                    0
                ] * spec.step
            elif path and numbers:
                turns[path] = numbers[0]
            elif not self._other(address, numbers):
                self.dropped += 1
                continue
            self.done += 1
        for path, value in turns.items():
            spec = specs()[path]
            bounded = (
                value if isinstance(value, str) else round(min(max(value, spec.low), spec.high), 6)
            )
            self._work.set_field(path, bounded, spec.label, group=f"control surface {path}")
        if ends:
            self._end_turn()
        elif (
            turns
        ):  # a surface that says nothing of touches has let go when it has been still for a while
            self._still.start()

    def _end_turn(self) -> None:
        """The turn is over: it is a step of its own, and the coarse preview is shown as it
        is.
        """
        self._still.stop()
        self._work.end_drag()

    def _messages(self, packets: list[bytes]) -> list[tuple[str, list[Any]]]:
        """Return the messages of whole packets; damaged ones are counted."""
        found = list[tuple[str, list[Any]]]()
        for packet in packets:
            try:
                found += messages_in(packet)
            except DamagedPacket:
                self.dropped += 1
                self.damaged += 1
                if self.damaged == 1:
                    self.first_damaged.emit()
        return found

    def _other(self, address: str, numbers: list[float]) -> bool:
        """Do what is no number of a sieve; returns whether it is known."""
        first = round(min(max(numbers[0], -1e6), 1e6)) if numbers else 0
        acts: dict[str, Callable[[], object]] = {
            "/ask": self.tell_all,
            "/page": functools.partial(self._turn, first),
            "/page/by": functools.partial(self._turn, self.page + first),
            "/sieves/by": functools.partial(self._select, first),
            "/play": self._playback.toggle,
            "/step": functools.partial(self._step, first),
            "/undo": self._work.undo,
            "/redo": self._work.redo,
            "/before": functools.partial(self.compared.emit, bool(first)),
        }
        act = acts.get(address)
        if act is not None and (
            self._work.opened is not None or address in ("/ask", "/page", "/page/by")
        ):
            act()
        return act is not None

    def _turn(self, page: int) -> None:
        self.page = page % len(PAGES)
        self.turned.emit(self.page)
        self.tell_all()

    def show_page(self, page: int) -> None:
        """The window shows another page."""
        if 0 <= page < len(PAGES) and page != self.page:
            self.page = page
            self.tell_all()

    def _select(self, by: int) -> None:
        stack = self._work.project.stack
        at = next((k for k, sieve in enumerate(stack) if sieve.id == self._work.sieve.id), 0)
        self._work.select(stack[(at + by) % len(stack)].id)
        self.tell_all()

    def _step(self, by: int) -> None:
        if self._work.frames > 1:
            self._clip.go_to(min(max(self._work.number + by, 0), self._work.frames - 1))

    # Telling

    def _value(self, path: str) -> float:
        """The value of a number now; its start where it is found on the picture."""
        held: Any = self._work.sieve
        for name in path.split("."):
            held = getattr(held, name)
        return float(held) if isinstance(held, (int, float)) else specs()[path].start

    def _packet(self, path: str, place: int) -> bytes:
        spec: Spec = specs()[path]
        value = self._value(path)
        shown = decimals(f"{value:.{spec.decimals}f}{' ' + spec.unit if spec.unit else ''}")
        return message(
            "/number",
            place,
            address_of(path),
            spec.label,
            spec.soft_low,
            spec.soft_high,
            spec.step,
            value,
            shown,
        )

    def tell_all(self) -> None:
        """Tell the page, the sieve, and every number of the page: place, address, label, range,
        step, value, and as it is read.
        """
        sieve: Sieve = self._work.sieve
        self.tells.emit(
            message(
                "/shown",
                self.page,
                PAGES[self.page],
                sieve.name,
                self._work.number,
                self._work.frames,
            )
        )
        for place, path in enumerate(paths()[PAGES[self.page]]):
            self._told[path] = self._value(path)
            self.tells.emit(self._packet(path, place))

    def _changed(self) -> None:
        if self._told and not self._later.isActive():  # else nobody has asked yet
            self._later.start()

    def _tell_changes(self) -> None:
        """Tell the numbers of the page that are others than were told."""
        for place, path in enumerate(paths()[PAGES[self.page]]):
            value = self._value(path)
            if self._told.get(path) != value:
                self._told[path] = value
                self.tells.emit(self._packet(path, place))
