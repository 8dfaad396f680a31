"""Numbered pictures as a clip: ``name.####.exr``, ``name.%04d.exr``, or a folder of them."""

from __future__ import annotations

import contextlib
import pathlib
import re
from collections import OrderedDict
from dataclasses import dataclass, replace
from fractions import Fraction

from ...core.frame import Frame
from ...errors import Trouble
from ...language import translator
from ...read_settings import PLAIN, Reading
from .. import formats, stills
from ..source import FILM_RATE, About

translate = translator("footage")


#: Frames whose own words are kept: more than are ever worked on side by side.
HELD = 64

#: A run of # or a printf field stands for the number, as in name.####.exr and name.%04d.exr (common
#: practice, no source).
FIELD = re.compile(r"%(?:0(\d+))?d|(#+)")


@dataclass(frozen=True)
class Pattern:
    """A name that stands for many: what comes before and after the number, and how many digits it
    has at least.
    """

    folder: pathlib.Path
    before: str
    after: str
    digits: int

    def name(self, number: int) -> pathlib.Path:
        """The file of one number."""
        return self.folder / f"{self.before}{number:0{self.digits}}{self.after}"

    def files(self) -> list[pathlib.Path]:
        """The files there are, by their number."""
        wanted = re.compile(re.escape(self.before) + r"(\d+)" + re.escape(self.after))
        found = (
            [(wanted.fullmatch(path.name), path) for path in self.folder.iterdir()]
            if self.folder.is_dir()
            else []
        )
        return [path for _, path in sorted((int(match[1]), path) for match, path in found if match)]


def pattern_of(path: pathlib.Path) -> Pattern | None:
    """The pattern that a name is, or None: a file that is really called so is no pattern."""
    field = FIELD.search(path.name)
    if field is None or path.is_file():
        return None
    digits = len(field[2]) if field[2] else int(field[1] or 1)
    return Pattern(
        path.parent, path.name[: field.start()], path.name[field.end() :], min(digits, 12)
    )


def is_pattern(path: pathlib.Path) -> bool:
    """Return whether the name stands for many numbered pictures."""
    try:
        return path.is_dir() or pattern_of(path) is not None
    except (OSError, ValueError):  # a name that no file can have
        return False


def numbered(path: pathlib.Path) -> list[pathlib.Path]:
    """The files a pattern or folder stands for, by their number."""
    pattern = None if path.is_dir() else pattern_of(path)
    if pattern is not None:
        return pattern.files()
    known = formats.endings("still")
    try:
        inside = list(path.iterdir())
    except OSError as error:
        raise Trouble(
            translate(
                "The folder {path} could not be read ({strerror}): check its permissions.",
                path=path,
                strerror=error.strerror,
            )
        ) from None
    found = [p for p in inside if p.suffix.lower() in known and re.search(r"\d", p.stem)]
    heads = {re.sub(r"\d+$", "", p.stem) + p.suffix for p in found}
    if len(heads) > 1:
        raise Trouble(
            translate(
                "{path} holds more than one sequence: name the one to open, for example {example}.",
                path=path,
                example=sorted(heads)[0].replace(".", ".####.", 1),
            )
        )
    return sorted(found, key=lambda p: int(re.findall(r"\d+", p.stem)[-1]))


def is_sequence(folder: pathlib.Path) -> bool:
    """Return whether a folder holds numbered pictures of one name, two at least, and none else."""
    try:
        return len(numbered(folder)) > 1 and all(
            re.search(r"\d", path.stem)
            for path in folder.iterdir()
            if path.suffix.lower() in formats.endings("still")
        )
    except (Trouble, OSError):
        return False


class Sequence:
    """Numbered pictures of one size, seen as frames from 0."""

    def __init__(
        self, path: pathlib.Path, rate: Fraction | None = None, reading: Reading = PLAIN
    ) -> None:
        self._reading = reading
        self.path = pathlib.Path(path)
        self.files: list[pathlib.Path] = numbered(self.path)
        #: What the pictures read last say of themselves: who writes a frame asks for it, and should
        #: not read the picture for that again.
        self._abouts: OrderedDict[int, About] = OrderedDict()
        if not self.files:
            raise Trouble(
                translate(
                    "No numbered pictures match {path}: check the name, for example shot.####.exr.",
                    path=path,
                )
            )
        first = stills.read(self.files[0], reading)
        notes = (*first.about.notes, *self._gaps())
        rate = rate or first.about.rate or FILM_RATE
        self.about = replace(
            first.about,
            path=self.path,
            kind="sequence",
            frames=len(self.files),
            rate=rate,
            notes=notes,
        )

    def _gaps(self) -> tuple[str, ...]:
        """A sentence when numbers are missing between the first and the last."""
        numbers = [int(re.findall(r"\d+", file.stem)[-1]) for file in self.files]
        missing = (
            sorted(set(range(numbers[0], numbers[-1] + 1)) - set(numbers))
            if numbers[-1] - numbers[0] < 1_000_000
            else []
        )
        if not missing:
            return ()
        shown = ", ".join(str(number) for number in missing[:6]) + (
            " …" if len(missing) > 6 else ""
        )
        return (
            translate(
                "{name} lacks {count} of its pictures ({shown}): the others are shown one after "
                "another.",
                name=self.path.name,
                count=len(missing),
                shown=shown,
            ),
        )

    def about_frame(self, number: int) -> About:
        """Return the properties of the picture of this number; its timecode is counted on from the
        first.
        """
        held = self._abouts.get(number)
        about = self._still(number).about if held is None else held
        start = self.about.timecode
        return replace(about, timecode=start.after(number)) if start is not None else about

    def frame(self, number: int) -> Frame:
        """Frame ``number``; raises `Trouble` when it is missing, damaged or of another size."""
        return replace(self._still(number).picture, near=lambda away: self._near(number + away))

    def _near(self, number: int) -> Frame | None:
        try:
            return self._still(number).picture if 0 <= number < len(self.files) else None
        except Trouble:
            return None  # a damaged neighbour does not count

    def quick_frame(self, number: int, factor: float) -> Frame:
        """A frame reduced by a factor."""
        return self.frame(number).reduced(factor)

    def _still(self, number: int) -> stills.Still:
        if not 0 <= number < len(self.files):
            raise Trouble(
                translate(
                    "{path} has frames 0 to {count}; there is no frame {number}.",
                    path=self.path,
                    count=len(self.files) - 1,
                    number=number,
                )
            )
        still = stills.read(self.files[number], self._reading)
        if still.about.size != self.about.size:
            raise Trouble(
                translate(
                    "{files} is {size} x {down}, the sequence {width} x {height}: take it out of "
                    "the sequence.",
                    files=self.files[number],
                    size=still.about.size[0],
                    down=still.about.size[1],
                    width=self.about.size[0],
                    height=self.about.size[1],
                )
            )
        self._abouts[number] = still.about
        while len(self._abouts) > HELD:
            with contextlib.suppress(KeyError):  # another thread was quicker
                self._abouts.popitem(last=False)
        return still

    def close(self) -> None:
        """Nothing is held open."""
