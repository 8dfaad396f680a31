"""Check that the header of a picture or a clip can be read in time: tried in a process of its own,
which is ended when it cannot.

A file of a few megabytes may hold a hundred thousand attributes or text that swells to gigabytes;
libraries walk all of it, and some end the process on damage.
"""

from __future__ import annotations

import importlib
import os
import pathlib
import signal
from collections.abc import Callable
from typing import Any

from ..errors import Trouble
from ..language import translator
from .child import Child, ChildEnded, serve
from .formats import PILLOW, is_clip

translate = translator("stills")


#: Parts of a file that are looked at, at most: libraries walk all before one to come to it.
MAX_PARTS = 256
#: Seconds of the processor allowed for reading a header: a base, and more for each byte of the
#: file.
MAX_PROCESSOR_SECONDS, SECONDS_A_BYTE = 0.5, 1e-8
#: Seconds after which a disk that does not answer is given up.
MAX_SECONDS = 30.0

_child = Child(__name__)


def prepare() -> None:
    """Start the process while other things are loaded."""
    _child.start()


def check(path: pathlib.Path) -> None:
    """Make sure that the header of a picture or a clip ends; its reader tells damage.

    Raises
    ------
    Trouble: it takes too long, or ends the process that reads it.
    """
    try:
        _child.ask(str(path.absolute()), MAX_SECONDS)
    except ChildEnded:
        raise Trouble(
            translate(
                "{path} cannot be opened: what it says of itself does not end. Save it again "
                "without metadata, or restore it.",
                path=path,
            )
        ) from None


def _reader(path: pathlib.Path) -> Callable[[str], None]:
    """Return what walks through a header as the readers of such files do, with no more loaded than
    that takes.
    """
    if path.suffix.lower() in PILLOW:
        importlib.import_module(f"{__package__}.stills.phone_and_web").load_libraries(path)
        return _through_pillow
    if is_clip(path):
        importlib.import_module("av")
        return _through_ffmpeg
    importlib.import_module("OpenImageIO")
    return _through_openimageio


def _through_pillow(name: str) -> None:
    from .stills import phone_and_web

    with phone_and_web.opened(pathlib.Path(name), 1 << 62):
        pass


def _through_ffmpeg(name: str) -> None:
    import av

    with av.open(name) as container:
        container.streams.best("video")


def _through_openimageio(name: str) -> None:
    import OpenImageIO as oiio

    opened = oiio.ImageInput.open(name)
    if opened is not None:
        at = 0
        while at < MAX_PARTS and opened.seek_subimage(at, 0):
            at += 1
        opened.close()


def _answer(name: Any) -> bool:
    try:
        walk = _reader(pathlib.Path(name))  # loading a library is not the file's time
        most = MAX_PROCESSOR_SECONDS + SECONDS_A_BYTE * os.stat(name).st_size
        signal.setitimer(signal.ITIMER_PROF, most)  # its signal ends the process
        walk(name)
    except Exception:  # damaged: the reader will say so
        return False
    finally:
        signal.setitimer(signal.ITIMER_PROF, 0)
    return True


if __name__ == "__main__":
    importlib.import_module("OpenImageIO")  # before a request counts its time
    serve(_answer)
