"""Numbered pictures as a clip: ``name.####.exr``, ``name.%04d.exr``, or a folder of them."""

from __future__ import annotations

import pathlib
import re
from dataclasses import replace
from fractions import Fraction

from ..core.frame import Frame
from ..errors import Trouble
from . import stills

#: Pictures carry no rate; this one is used unless another is asked for (common practice for film, no source).
RATE = Fraction(24)


def is_pattern(path: pathlib.Path) -> bool:
    """Whether the name stands for many numbered pictures."""
    return path.is_dir() or re.search(r"%0?\d*d|#+", path.name) is not None


def numbered(path: pathlib.Path) -> list[pathlib.Path]:
    """The files a pattern or folder stands for, by their number."""
    if path.is_dir():
        found = [p for p in path.iterdir() if p.suffix.lower() in stills.READS and re.search(r"\d", p.stem)]
        heads = {re.sub(r"\d+$", "", p.stem) + p.suffix for p in found}
        if len(heads) > 1:
            raise Trouble(
                f"{path} holds more than one sequence: name the one to open, for example {sorted(heads)[0].replace('.', '.####.', 1)}."
            )
    else:
        before, after = re.split(r"%0?\d*d|#+", path.name, maxsplit=1)
        wanted = re.compile(re.escape(before) + r"\d+" + re.escape(after))
        found = [p for p in path.parent.iterdir() if wanted.fullmatch(p.name)] if path.parent.is_dir() else []
    return sorted(found, key=lambda p: int(re.findall(r"\d+", p.stem)[-1]))


class Sequence:
    """Numbered pictures of one size, seen as frames from 0."""

    def __init__(self, path: pathlib.Path, rate: Fraction = RATE) -> None:
        self.path = pathlib.Path(path)
        self.files = numbered(self.path)
        if not self.files:
            raise Trouble(f"No numbered pictures match {path}: check the name, for example shot.####.exr.")
        first = stills.read(self.files[0])
        self.about = replace(first.about, path=self.path, kind="sequence", frames=len(self.files), rate=rate)

    def frame(self, number: int) -> Frame:
        """Frame ``number``; raises `Trouble` when it is missing, damaged or of another size."""
        if not 0 <= number < len(self.files):
            raise Trouble(f"{self.path} has frames 0 to {len(self.files) - 1}; there is no frame {number}.")
        still = stills.read(self.files[number])
        if still.about.size != self.about.size:
            raise Trouble(
                f"{self.files[number]} is {still.about.size[0]} x {still.about.size[1]}, the sequence {self.about.size[0]} x {self.about.size[1]}: take it out of the sequence."
            )
        return still.picture

    def close(self) -> None:
        """Nothing is held open."""
