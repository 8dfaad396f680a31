"""The port at which control surfaces are listened to: on this machine only, and only where a person
has switched it on.
"""

from __future__ import annotations

from PyQt6.QtCore import QObject
from PyQt6.QtNetwork import QHostAddress, QUdpSocket

from ...language import translator
from ...workspace.workspace import Workspace

translate = translator("start")


#: Packets that are read at a time, so that a flood leaves room for what else is to be done.
AT_ONCE = 64
#: How many surfaces are told of changes.
MOST_LISTENERS = 4


class ControlPort(QObject):
    """Open while the preferences say so."""

    def __init__(self, workspace: Workspace, parent: QObject) -> None:
        super().__init__(parent)
        self._preferences, self._remote, self._speech = (
            workspace.preferences,
            workspace.control_surfaces,
            workspace.speech,
        )
        self._socket: QUdpSocket | None = None
        self._port = 0
        #: Where the newest surfaces listen.
        self._listeners: list[int] = []
        workspace.control_surfaces.tells.connect(self._tell)
        workspace.control_surfaces.first_damaged.connect(self._tell_damaged)
        workspace.preferences.changed.connect(self.follow)
        self.follow()

    @property
    def port(self) -> int:
        """Return where it listens, 0 where it does not."""
        return self._socket.localPort() if self._socket is not None else 0

    def follow(self) -> None:
        """Open or close as it is preferred."""
        values = self._preferences.values
        wanted = round(values.control_surface_port) if values.control_surface else 0
        if wanted == self._port:
            return
        self.close()
        self._port = wanted
        if wanted:
            socket = QUdpSocket(self)
            if not socket.bind(QHostAddress(QHostAddress.SpecialAddress.LocalHost), wanted):
                self._speech.trouble.emit(
                    translate(
                        "Port {port} cannot be listened to: another program uses it. Choose "
                        "another.",
                        port=wanted,
                    )
                )
                return
            socket.readyRead.connect(self._read)
            self._socket = socket

    def close(self) -> None:
        """Listen no more."""
        if self._socket is not None:
            self._socket.close()
            self._socket.deleteLater()
        self._socket, self._listeners, self._port = None, [], 0

    def _read(self) -> None:
        for _ in range(AT_ONCE):
            if self._socket is None or not self._socket.hasPendingDatagrams():
                return
            held = self._socket.receiveDatagram()
            sender = held.senderPort()
            if sender > 0 and sender not in self._listeners:
                self._listeners = [*self._listeners, sender][-MOST_LISTENERS:]
            self._remote.take(bytes(held.data().data()))

    def _tell_damaged(self) -> None:
        """Say once that something sends what is no Open Sound Control; later packets are only
        counted.
        """
        self._speech.said.emit(
            translate(
                "Port {port} receives packets that are not Open Sound Control: they are ignored. "
                "Check what sends to it.",
                port=self.port,
            )
        )

    def _tell(self, packet: bytes) -> None:
        if self._socket is not None:
            for port in self._listeners:
                self._socket.writeDatagram(
                    packet, QHostAddress(QHostAddress.SpecialAddress.LocalHost), port
                )
