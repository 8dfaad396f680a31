"""The simulated control surface: a strip that shows names and values, dials below it, a disc, and
keys for the five pages of the work.
"""

from __future__ import annotations

import contextlib
import functools
from collections.abc import Callable
from dataclasses import dataclass

from PyQt6.QtCore import QTimer
from PyQt6.QtNetwork import QHostAddress, QUdpSocket
from PyQt6.QtWidgets import QGridLayout, QHBoxLayout, QLabel, QPushButton, QVBoxLayout, QWidget

from ...language import translator
from ...workspace.control_surfaces import message
from ...workspace.osc_packet import DamagedPacket, messages_in
from ..window.top_row import STEPS
from .parts import Dial, Disc

translate = translator("control surface")


#: Dials in a bank.
DIALS = 6
#: Milliseconds after which it asks again, while nobody has answered.
ASKS = 500


@dataclass
class Shown:
    """A number as the program has told it."""

    address: str
    name: str
    words: str


class ControlSurfaceWindow(QWidget):
    """Speaks to the program at a port of this machine, and shows what it says."""

    def __init__(self, port: int) -> None:
        super().__init__()
        self.setWindowTitle(translate("Simulated surface – Amber Sieve"))
        self._port, self.bank, self.page = port, 0, 0
        #: The numbers of the page, by their place.
        self.numbers: dict[int, Shown] = {}
        self._socket = QUdpSocket(self)
        self._socket.bind(QHostAddress(QHostAddress.SpecialAddress.LocalHost), 0)
        self._socket.readyRead.connect(self._read)
        self.head = QLabel(
            translate(
                "Nobody answers at port {port}: switch it on in the preferences.",
                port=port,
            )
        )
        self.head.setObjectName("heading")
        self.dials: list[Dial] = []
        self.strip: list[QLabel] = []
        row, column = QHBoxLayout(), QVBoxLayout(self)
        self.disc = Disc()
        self.disc.pushed.connect(self._push)
        self.disc.touched.connect(lambda on: self._touch(0, on))
        row.addWidget(self.disc)
        grid = QGridLayout()
        for k in range(DIALS):
            dial, label = (
                Dial(translate("Dial {number}", number=k + 1)),
                QLabel(""),
            )
            label.setFixedWidth(118)
            label.setWordWrap(True)
            dial.turned.connect(lambda steps, k=k: self._turn(k, steps))
            dial.touched.connect(lambda on, k=k: self._touch(k, on))
            dial.reset.connect(lambda k=k: self._reset(k))
            grid.addWidget(label, 0, k)
            grid.addWidget(dial, 1, k)
            self.dials.append(dial)
            self.strip.append(label)
        row.addLayout(grid)
        column.addWidget(self.head)
        column.addLayout(row)
        self.pages = self._keys(
            column,
            [
                (words, functools.partial(self.send, "/page", k))
                for k, words in enumerate(STEPS.values())
            ],
        )
        for key in self.pages:
            key.setCheckable(True)
        self.keys = self._keys(
            column,
            [
                (translate("Numbers back"), lambda: self.turn_bank(-1)),
                (translate("Numbers on"), lambda: self.turn_bank(1)),
                (translate("Sieve up"), lambda: self.send("/sieves/by", -1)),
                (translate("Sieve down"), lambda: self.send("/sieves/by", 1)),
                (translate("Frame back"), lambda: self.send("/step", -1)),
                (translate("Frame on"), lambda: self.send("/step", 1)),
                (translate("Play"), lambda: self.send("/play")),
                (translate("Undo"), lambda: self.send("/undo")),
                (translate("Redo"), lambda: self.send("/redo")),
            ],
        )
        self.before = QPushButton(translate("Before"))
        self.before.setCheckable(True)
        self.before.toggled.connect(lambda on: self.send("/before", int(on)))
        column.addWidget(self.before)
        self._asks = QTimer(self)
        self._asks.setInterval(ASKS)
        self._asks.timeout.connect(lambda: self.send("/ask"))
        self._asks.start()
        self.send("/ask")

    def _keys(
        self, column: QVBoxLayout, rows: list[tuple[str, Callable[[], object]]]
    ) -> list[QPushButton]:
        row, made = QHBoxLayout(), []
        for words, act in rows:
            key = QPushButton(words)
            key.clicked.connect(lambda _, act=act: act())
            row.addWidget(key)
            made.append(key)
        column.addLayout(row)
        return made

    # Saying

    def send(self, address: str, *values: float | str | int) -> None:
        """Send a message."""
        self._socket.writeDatagram(
            message(address, *values),
            QHostAddress(QHostAddress.SpecialAddress.LocalHost),
            self._port,
        )

    def turn_bank(self, by: int) -> None:
        """Put the next numbers of the page under the dials."""
        banks = max(1, -(-len(self.numbers) // DIALS))
        self.bank = (self.bank + by) % banks
        self._show()

    def _at(self, dial: int) -> Shown | None:
        return self.numbers.get(self.bank * DIALS + dial)

    def _turn(self, dial: int, steps: int) -> None:
        shown = self._at(dial)
        if shown is not None:
            self.send(f"{shown.address}/by", float(steps))

    def _touch(self, dial: int, on: bool) -> None:
        shown = self._at(dial)
        if shown is not None:
            self.send(f"{shown.address}/touch", int(on))

    def _reset(self, dial: int) -> None:
        shown = self._at(dial)
        if shown is not None:
            self.send(f"{shown.address}/reset")

    def _push(self, across: int, up: int) -> None:
        self._turn(0, across)
        self._turn(1, up)

    # Listening

    def _read(self) -> None:
        while self._socket.hasPendingDatagrams():
            packet = bytes(self._socket.receiveDatagram().data().data())
            # Any program of this machine can send here, with any values.
            with contextlib.suppress(DamagedPacket, ValueError, TypeError, IndexError):
                for address, values in messages_in(packet):
                    self._take(address, values)
        self._show()

    def _take(self, address: str, values: list) -> None:
        self._asks.stop()
        if address == "/shown":
            page, _, sieve, frame, frames = values
            heading = list(STEPS.values())[page]
            if page != self.page:
                self.page, self.bank = page, 0
            self.numbers = {}
            place = (
                translate("frame {frame} of {last}", frame=frame, last=frames - 1)
                if frames > 1
                else ""
            )
            self.head.setText(f"{heading}   {sieve}   {place}")
        elif address == "/number":
            place, number, name, _, _, _, _, words = values
            self.numbers[int(place)] = Shown(str(number), str(name), str(words))

    def _show(self) -> None:
        for k, label in enumerate(self.strip):
            shown = self._at(k)
            label.setText(f"{shown.name}\n{shown.words}" if shown else "")
        for k, key in enumerate(self.pages):
            key.setChecked(k == self.page)
