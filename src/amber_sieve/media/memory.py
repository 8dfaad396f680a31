"""Compare the memory that a picture takes with what there is, before it is taken."""

from __future__ import annotations

import pathlib

from ..errors import Trouble
from ..language import translator
from .scratch import IN_MEMORY

translate = translator("media")


#: Bytes that a pixel takes while a picture is opened: three planes of float32, the samples of one
#: that is stored on its side, and a strip being worked on. Of one that is held in a file, its alpha
#: and a mask.
BYTES_A_PIXEL = 3 * 4 + 8
BYTES_IN_FILE = 2 * 4
#: Share of what is free that opening may take: the rest is for what is done with the picture.
SHARE = 0.9
#: Where Linux says how much memory there is.
_MEMINFO = pathlib.Path("/proc/meminfo")
#: Where it says how much of that this group of processes may have.
_GROUP = pathlib.Path("/sys/fs/cgroup")


def available() -> int:
    """Bytes of memory that can be had: of the machine (proc(5), MemAvailable), or of the control
    group where that has less left.
    """
    found = [1 << 62]
    try:
        line = next(
            line for line in _MEMINFO.read_text().splitlines() if line.startswith("MemAvailable:")
        )
        found.append(int(line.split()[1]) * 1024)
    except (OSError, StopIteration, ValueError, IndexError):
        pass
    try:
        found.append(
            int((_GROUP / "memory.max").read_text()) - int((_GROUP / "memory.current").read_text())
        )
    except (OSError, ValueError):  # there is no limit
        pass
    return min(found)


def room_for(path: pathlib.Path, width: int, height: int, largest: int) -> None:
    """Make sure that a picture of this size can be opened.

    Raises
    ------
    Trouble: it has more than ``largest`` pixels, or takes more memory than there is.
    """
    pixels = width * height
    if pixels > largest:
        raise Trouble(
            translate(
                "{path} is {width} x {height} pixels, more than {most} million: cut it into parts.",
                path=path,
                width=width,
                height=height,
                most=largest // 10**6,
            )
        )
    needs, free = pixels * (BYTES_A_PIXEL if pixels <= IN_MEMORY else BYTES_IN_FILE), available()
    if needs > SHARE * free:
        raise Trouble(
            translate(
                "{path} is {width} x {height} pixels and takes {needs:.1f} GB to open, {free:.1f} "
                "GB are free: close "
                "other programs, or make it smaller.",
                path=path,
                width=width,
                height=height,
                needs=needs / 1000000000.0,
                free=max(free, 0) / 1000000000.0,
            )
        )
