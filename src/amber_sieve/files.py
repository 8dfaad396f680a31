"""Reading only what is a file, and writing so that a failure leaves the earlier file whole."""

from __future__ import annotations

import contextlib
import hashlib
import os
import pathlib
import secrets
import shutil
import stat
import time
from collections.abc import Iterable, Iterator
from typing import IO

import platformdirs

from .errors import Trouble
from .language import translator

translate = translator("files")


#: Part-files begin with this, then the number of the process that writes them.
PART = ".amber-sieve-part-"
#: Seconds after which a part-file without a living owner is swept away.
OLD = 60.0
#: Bytes written at a time.
BLOCK = 1 << 20


def state_folder() -> pathlib.Path:
    """Return where the program keeps what it needs to find again after a crash (freedesktop's state
    folder).
    """
    return pathlib.Path(platformdirs.user_state_dir("amber-sieve"))


def regular_file(path: pathlib.Path) -> pathlib.Path:
    """The path, when it names a file that can be read from start to end.

    Raises
    ------
    Trouble: nothing is there, it is a folder, a pipe or a device, or the name cannot be used.
    """
    path = pathlib.Path(path)
    try:
        str(path).encode("utf-8")
        mode = path.stat().st_mode
    except (UnicodeEncodeError, ValueError):
        shown = str(path).encode("utf-8", "backslashreplace").decode()
        raise Trouble(
            translate(
                "The name {shown} holds characters that are not UTF-8: rename the file.",
                shown=shown,
            )
        ) from None
    except OSError as error:
        if isinstance(error, FileNotFoundError | NotADirectoryError):
            raise Trouble(translate("{path} does not exist: check the name.", path=path)) from None
        raise Trouble(
            translate(
                "{path} could not be read ({strerror}): check the name and its permissions.",
                path=str(path)[:120],
                strerror=error.strerror,
            )
        ) from None
    if stat.S_ISDIR(mode):
        raise Trouble(translate("{path} is a folder: give the name of a file.", path=path))
    if not stat.S_ISREG(mode):
        raise Trouble(
            translate(
                "{path} is a pipe or a device: copy what it holds into a file and open that.",
                path=path,
            )
        )
    if not os.access(path, os.R_OK):
        raise Trouble(translate("{path} may not be read: check its permissions.", path=path))
    return path


def set_aside(path: pathlib.Path) -> str:
    """Rename a damaged file of the program's own, so that nothing stumbles over it again; a
    sentence that says so, "" when it cannot be.
    """
    beside = path.with_name(f"{path.stem}-damaged-{secrets.token_hex(3)}{path.suffix}.bak")
    try:
        os.replace(path, beside)
    except OSError:
        return ""
    return translate(
        "{name} was damaged and is passed over; it lies beside as {name2}.",
        name=path.name,
        name2=beside.name,
    )


def digest_of(path: pathlib.Path) -> str:
    """Return the digest of a file; "" where it cannot be read."""
    try:
        with open(path, "rb") as held:
            return hashlib.file_digest(held, "sha256").hexdigest()
    except OSError:
        return ""


#: Bytes at either end of a file that its mark looks at.
MARKED = 65_536


def mark_of(path: pathlib.Path) -> str:
    """Return a mark that is the same for an unchanged file, wherever it lies: its length and both
    its ends, as a digest; "" for no file.
    """
    try:
        with open(path, "rb") as held:
            size = os.fstat(held.fileno()).st_size
            digest = hashlib.sha256(size.to_bytes(8, "big") + held.read(MARKED))
            held.seek(max(0, size - MARKED))
            digest.update(held.read(MARKED))
    except OSError:
        return ""
    return digest.hexdigest()[:32]


def target_of(path: pathlib.Path) -> pathlib.Path:
    """The file that is to be written: links are followed.

    Raises
    ------
    Trouble: it is a folder or a device, or its folder is missing.
    """
    try:
        target = pathlib.Path(os.path.realpath(path))
        str(target).encode("utf-8")
        mode = target.stat().st_mode if target.exists() else None
    except (OSError, ValueError) as error:
        shown = str(path)[:120].encode("utf-8", "backslashreplace").decode()
        raise Trouble(
            translate(
                "{shown} cannot be the name of a file ({why}): choose another.",
                shown=shown,
                why=getattr(error, "strerror", None) or translate("not UTF-8"),
            )
        ) from None
    if not str(path) or mode is not None and stat.S_ISDIR(mode):
        raise Trouble(translate("{path} is a folder: give the name of a file to write.", path=path))
    if mode is not None and not stat.S_ISREG(mode):
        raise Trouble(
            translate(
                "{path} is a pipe or a device: give the name of a file to write.",
                path=path,
            )
        )
    if not target.parent.is_dir():
        raise Trouble(
            translate(
                "The folder {parent} does not exist: make it, or choose another place.",
                parent=target.parent,
            )
        )
    # Asked of the file itself: renaming another one onto it needs no permission of its own, and
    # root may do anything.
    if mode is not None and not mode & 0o222:
        raise Trouble(
            translate(
                "{path} is write-protected: choose another name, or take the protection off.",
                path=path,
            )
        )
    return target


@contextlib.contextmanager
def written_beside(path: pathlib.Path) -> Iterator[pathlib.Path]:
    """A path beside ``path`` to write to; renamed onto it when the block ends well, removed when it
    does not.

    What was written is flushed to the disk and must not be empty, or the earlier file stays. A link
    is followed, and the earlier file's permissions are kept.

    Raises
    ------
    Trouble: the folder is missing or cannot be written to, or the disk is full.
    """
    path = pathlib.Path(path)
    target = target_of(path)
    # The ending stays last: writers choose the format by it.
    partial = target.with_name(f"{PART}{os.getpid()}-{secrets.token_hex(4)}{target.suffix[:16]}")
    note = _noted(partial)
    try:
        yield partial
        with open(partial, "rb+") as written:
            os.fsync(written.fileno())
            if os.fstat(written.fileno()).st_size == 0:
                raise OSError(28, "nothing could be written")
        if target.exists():
            os.chmod(partial, stat.S_IMODE(target.stat().st_mode))
        os.replace(partial, target)
    except OSError as error:
        # A library names the part-file that it was given, and says more than one line.
        why = " ".join((error.strerror or str(error)).replace(str(partial), str(path)).split())
        raise Trouble(
            translate(
                "{path} could not be written ({why}): choose another place or free some space.",
                path=path,
                why=why,
            )
        ) from error
    finally:
        for litter in (partial, note):
            with contextlib.suppress(
                OSError
            ):  # what cannot be removed must not hide what went wrong
                if litter is not None:
                    litter.unlink(missing_ok=True)


def made_folder(folder: pathlib.Path, what: str) -> pathlib.Path:
    """A folder of the program's own, made where it is not there; raises `Trouble` when it cannot
    be. ``what``: that lies in it.
    """
    try:
        folder.mkdir(parents=True, exist_ok=True)
    except OSError as error:
        raise Trouble(
            translate(
                "The folder {folder} for {what} could not be made ({strerror}): check its "
                "permissions.",
                folder=folder,
                what=what,
                strerror=error.strerror,
            )
        ) from None
    return folder


@contextlib.contextmanager
def folder_beside(path: pathlib.Path) -> Iterator[pathlib.Path]:
    """A folder beside ``path`` for pieces of it, gone when the block ends; one that a killed
    process leaves is swept like part-files.

    Raises
    ------
    Trouble: it cannot be made there.
    """
    target = target_of(pathlib.Path(path))
    folder = target.with_name(f"{PART}{os.getpid()}-{secrets.token_hex(4)}")
    note = _noted(folder)
    try:
        folder.mkdir()
        yield folder
    except OSError as error:
        raise Trouble(
            translate(
                "{path} could not be written ({strerror}): choose another place or free some "
                "space.",
                path=path,
                strerror=error.strerror or error,
            )
        ) from error
    finally:
        shutil.rmtree(folder, ignore_errors=True)
        if note is not None:
            with contextlib.suppress(OSError):
                note.unlink(missing_ok=True)


def write_blocks(path: pathlib.Path, blocks: Iterable[bytes]) -> None:
    """Write some bytes after others to a part-file and see that all of them arrived; raises OSError
    when they did not.
    """
    size = 0
    with open(path, "wb") as out:
        for block in blocks:
            size += len(block)
            out.write(block)
        out.flush()
        os.fsync(out.fileno())
    if path.stat().st_size != size:
        raise OSError(28, "it is shorter than what was written")


def write_text(path: pathlib.Path, text: str) -> None:
    """Write a text file whole, or leave the earlier one; raises `Trouble`."""
    with written_beside(path) as partial:
        write_blocks(
            partial, [text.encode("utf-8", "backslashreplace")]
        )  # names of files need not be text


class Checked:
    """A file that encoders write to and that never fails them: some libraries end the process when
    a write fails.

    The first error is kept in ``error``; what comes after it is dropped. Ask `check` after writing.
    """

    def __init__(self, path: pathlib.Path) -> None:
        self._file: IO[bytes] = open(path, "wb")  # noqa: SIM115  (closed by `close`)
        self._at = 0
        self.error: OSError | None = None

    def write(self, data: bytes) -> int:
        if self.error is None:
            try:
                self._file.write(data)
            except OSError as error:
                self.error = error
        self._at += len(data)
        return len(data)

    def seek(self, offset: int, whence: int = 0) -> int:
        if self.error is None:
            try:
                self._at = self._file.seek(offset, whence)
            except OSError as error:
                self.error = error
        elif whence != 2:
            self._at = offset + (self._at if whence == 1 else 0)
        return self._at

    def tell(self) -> int:
        return self._at

    def check(self) -> None:
        """Raise the first error there was."""
        if self.error is not None:
            raise self.error

    def close(self) -> None:
        """Flush, and raise OSError when anything did not reach the disk."""
        try:
            if self.error is None and not self._file.closed:
                self._file.flush()
                os.fsync(self._file.fileno())
        except OSError as error:
            self.error = error
        finally:
            with contextlib.suppress(OSError):
                self._file.close()
        self.check()


# Part-files that a killed process left behind


def _notes() -> pathlib.Path:
    return state_folder() / "parts"


def _noted(partial: pathlib.Path) -> pathlib.Path | None:
    """Note where a part-file is being written, so that a later start can sweep it; None when that
    cannot be noted.
    """
    note = _notes() / partial.name
    try:
        note.parent.mkdir(parents=True, exist_ok=True)
        note.write_text(str(partial), encoding="utf-8")
    except OSError:
        return None
    return note


def is_running(process: int) -> bool:
    """Return whether a process of this number lives."""
    try:
        os.kill(process, 0)
    except ProcessLookupError:
        return False
    except (PermissionError, OverflowError):
        return True
    return True


def start_of(process: int) -> str:
    """When a process started, as the kernel counts (proc(5), field 22): its number may be given to
    another one later.
    """
    try:
        return pathlib.Path(f"/proc/{process}/stat").read_text().rsplit(")", 1)[1].split()[19]
    except (OSError, IndexError):
        return ""


def sweep_parts(now: float | None = None) -> int:
    """Remove part-files of our own that are old enough and whose writer no longer lives; returns
    how many.
    """
    now = time.time() if now is None else now
    swept = 0
    notes: list[pathlib.Path] = []
    with contextlib.suppress(OSError):  # a folder that may not be looked into holds nothing of ours
        notes = list(_notes().glob(f"{PART}*")) if _notes().is_dir() else []
    for note in notes:
        with contextlib.suppress(OSError, ValueError):
            owner = int(note.name.removeprefix(PART).split("-")[0])
            if is_running(owner) or now - note.stat().st_mtime < OLD:
                continue
            partial = pathlib.Path(note.read_text(encoding="utf-8"))
            if partial.name == note.name and partial.is_file() and not partial.is_symlink():
                partial.unlink()
                swept += 1
            elif partial.name == note.name and partial.is_dir() and not partial.is_symlink():
                shutil.rmtree(partial, ignore_errors=True)
                swept += 1
            note.unlink()
    return swept
