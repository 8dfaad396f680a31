"""One window for a person: a file that is opened from outside reaches the one that runs already."""

from __future__ import annotations

import json
import os
import pathlib
from collections.abc import Callable

from PyQt6.QtCore import QObject
from PyQt6.QtNetwork import QLocalServer, QLocalSocket

#: Milliseconds to wait for a window that runs.
PATIENCE = 500


def _name() -> str:
    """Of the socket: one for each person and display."""
    display = os.environ.get("WAYLAND_DISPLAY") or os.environ.get("DISPLAY") or "offscreen"
    return f"amber-sieve-{os.getuid()}-{''.join(letter for letter in display if letter.isalnum())}"


def handed_over(paths: list[pathlib.Path]) -> bool:
    """Whether a window that runs has taken these files."""
    socket = QLocalSocket()
    socket.connectToServer(_name())
    if not socket.waitForConnected(PATIENCE):
        return False
    socket.write(json.dumps([str(path.absolute()) for path in paths]).encode() + b"\n")
    return socket.waitForBytesWritten(PATIENCE) and socket.waitForReadyRead(PATIENCE) and socket.readAll().data() == b"taken\n"


def _answers() -> bool:
    """Whether a window that runs has its door open already."""
    socket = QLocalSocket()
    socket.connectToServer(_name())
    return socket.waitForConnected(PATIENCE)


class Door(QObject):
    """Takes the files that later starts hand over."""

    def __init__(self, take: Callable[[list[pathlib.Path]], None]) -> None:
        super().__init__()
        self._take = take
        self._server = QLocalServer(self)
        self._server.setSocketOptions(QLocalServer.SocketOption.UserAccessOption)
        self._server.newConnection.connect(self._connected)
        if not self._server.listen(_name()) and not _answers():  # what a window that crashed has left
            QLocalServer.removeServer(_name())
            self._server.listen(_name())

    def close(self) -> None:
        """Take nothing more."""
        self._server.close()

    def _connected(self) -> None:
        socket = self._server.nextPendingConnection()
        if socket is not None:
            socket.readyRead.connect(lambda: self._read(socket))
            socket.disconnected.connect(socket.deleteLater)

    def _read(self, socket: QLocalSocket) -> None:
        if not socket.canReadLine():
            return
        try:
            paths = [pathlib.Path(str(path)) for path in json.loads(socket.readLine().data())]
        except (ValueError, TypeError):
            socket.disconnectFromServer()
            return
        socket.write(b"taken\n")
        socket.flush()
        self._take(paths)
