"""One window for a person: a file that is opened from outside reaches the one that runs already.

The door is a socket in a folder that only this person may enter, and either side looks at whose
process the other is: another user of the machine can neither take what is handed over nor hand over
anything.
"""

from __future__ import annotations

import functools
import json
import os
import pathlib
import socket as sockets
import stat
import struct
from collections.abc import Callable

from PyQt6.QtCore import QObject, QTimer
from PyQt6.QtNetwork import QLocalServer, QLocalSocket

from ...files import state_folder

#: Milliseconds to wait for a window that runs.
PATIENCE = 500
#: Milliseconds for all of what a later start hands over.
SLOWEST = 2000
#: Bytes that one message holds at most.
LARGEST = 10_000_000
#: Paths that it holds at most.
MOST = 10_000
#: Bytes of a socket's path at most (unix(7): 108 with the zero at its end).
LONGEST = 107
#: A process, its user and its group (unix(7), SO_PEERCRED).
CREDENTIALS = struct.Struct("3i")


def _is_private(folder: pathlib.Path) -> bool:
    """Return whether a folder is this person's, and nobody else's to enter."""
    try:
        held = folder.lstat()
    except OSError:
        return False
    return stat.S_ISDIR(held.st_mode) and held.st_uid == os.getuid() and not held.st_mode & 0o077


def _folder() -> pathlib.Path | None:
    """The folder of the door: in freedesktop's folder for what runs, or one of our own; None where
    neither is private.
    """
    given = os.environ.get("XDG_RUNTIME_DIR", "")
    places = [pathlib.Path(given)] if given and _is_private(pathlib.Path(given)) else []
    for place in (*places, state_folder()):
        folder = place / "amber-sieve-door"
        try:
            folder.mkdir(mode=0o700, parents=True, exist_ok=True)
        except OSError:
            continue
        if _is_private(folder):
            return folder
    return None


def _name() -> str:
    """Path of the socket, one for each display; "" where there can be none."""
    display = os.environ.get("WAYLAND_DISPLAY") or os.environ.get("DISPLAY") or "offscreen"
    folder = _folder()
    path = (
        str(folder / "".join(letter for letter in display if letter.isalnum())[:40])
        if folder is not None
        else ""
    )
    return path if len(os.fsencode(path)) <= LONGEST else ""


def _is_ours(connection: QLocalSocket) -> bool:
    """Return whether the process at the other end is this person's."""
    try:
        with sockets.socket(fileno=os.dup(int(connection.socketDescriptor()))) as held:  # type: ignore[call-overload]
            _, user, _ = CREDENTIALS.unpack(
                held.getsockopt(sockets.SOL_SOCKET, sockets.SO_PEERCRED, CREDENTIALS.size)
            )
    except (OSError, struct.error, TypeError):
        return False
    return bool(user == os.getuid())


def _connected() -> QLocalSocket | None:
    """A connection to a window of this person that runs."""
    name, connection = _name(), QLocalSocket()
    if not name:
        return None
    connection.connectToServer(name)
    return connection if connection.waitForConnected(PATIENCE) and _is_ours(connection) else None


def handed_over(paths: list[pathlib.Path]) -> bool:
    """Return whether a window that runs has taken these files."""
    connection = _connected()
    if connection is None:
        return False
    connection.write(
        json.dumps([str(path.absolute()) for path in paths[:MOST]]).encode("ascii") + b"\n"
    )
    return (
        connection.waitForBytesWritten(PATIENCE)
        and connection.waitForReadyRead(PATIENCE)
        and connection.readAll().data() == b"taken\n"
    )


def paths_in(message: bytes) -> list[pathlib.Path]:
    """The files that a message names; raises ValueError for anything but a list of paths."""
    held = json.loads(message) if len(message) <= LARGEST else None
    if (
        not isinstance(held, list)
        or not 0 < len(held) <= MOST
        or not all(isinstance(one, str) and one for one in held)
    ):
        raise ValueError("this is no list of paths")
    for one in held:
        one.encode("utf-8")  # a lone surrogate raises
        if "\0" in one:
            raise ValueError("no file can have this name")
    found = [pathlib.Path(one) for one in held]
    if not all(path.is_absolute() for path in found):
        raise ValueError("these are no absolute paths")
    return found


class Door(QObject):
    """Takes the files that later starts hand over."""

    def __init__(self, take: Callable[[list[pathlib.Path]], None]) -> None:
        super().__init__()
        self._take = take
        self._server = QLocalServer(self)
        self._server.setSocketOptions(QLocalServer.SocketOption.UserAccessOption)
        self._server.newConnection.connect(self._opened)
        name = _name()
        if (
            name and not self._server.listen(name) and _connected() is None
        ):  # what a window that crashed has left
            QLocalServer.removeServer(name)
            self._server.listen(name)

    def close(self) -> None:
        """Take no more files from later starts, and remove the socket."""
        self._server.close()

    def _opened(self) -> None:
        connection = self._server.nextPendingConnection()
        if connection is None:
            return
        connection.disconnected.connect(connection.deleteLater)
        if not _is_ours(connection):
            connection.abort()
            return
        connection.setReadBufferSize(LARGEST + 1)
        connection.readyRead.connect(functools.partial(self._read, connection))
        # A child of the connection: it goes with it.
        patience = QTimer(connection)
        patience.setSingleShot(True)
        patience.timeout.connect(connection.abort)
        patience.start(SLOWEST)

    def _read(self, connection: QLocalSocket) -> None:
        if not connection.canReadLine():
            if connection.bytesAvailable() > LARGEST:
                connection.abort()
            return
        try:
            paths = paths_in(connection.readLine().data().strip())
        except (ValueError, RecursionError):
            connection.abort()
            return
        connection.write(b"taken\n")
        connection.flush()
        self._take(paths)
