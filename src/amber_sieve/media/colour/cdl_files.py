"""CDL files: ``.cdl``, ``.ccc`` and ``.cc`` of ASC CDL 1.2, read and written by OpenColorIO."""

from __future__ import annotations

import math
import pathlib
from dataclasses import dataclass

from ...errors import Trouble
from ...files import regular_file, write_text
from ...language import translator

translate = translator("colour")


#: Endings, and what OpenColorIO calls the format.
FORMATS = {
    ".cdl": "ColorDecisionList",
    ".ccc": "ColorCorrectionCollection",
    ".cc": "ColorCorrection",
}
#: A list of corrections of more bytes than this is none.
LARGEST = 4_000_000


@dataclass(frozen=True)
class Correction:
    """One correction: its id (may be ""), slope, offset and power of red, green and blue, and
    saturation.
    """

    name: str
    slope: tuple[float, float, float]
    offset: tuple[float, float, float]
    power: tuple[float, float, float]
    saturation: float

    @property
    def numbers(self) -> dict[str, float]:
        """By the names that the model has for them."""
        rows = {"slope": self.slope, "offset": self.offset, "power": self.power}
        named = {
            f"{kind}_{name}": value
            for kind, row in rows.items()
            for name, value in zip(("red", "green", "blue"), row, strict=True)
        }
        return named | {"cdl_saturation": self.saturation}


def correction_of(name: str, numbers: dict[str, float]) -> Correction:
    """The correction that some numbers of the model make."""

    def row(kind: str) -> tuple[float, float, float]:
        return numbers[f"{kind}_red"], numbers[f"{kind}_green"], numbers[f"{kind}_blue"]

    return Correction(name, row("slope"), row("offset"), row("power"), numbers["cdl_saturation"])


def _known(path: pathlib.Path) -> str:
    if path.suffix.lower() not in FORMATS:
        raise Trouble(
            translate(
                "{path} is no CDL file: its name should end in {endings}.",
                path=path,
                endings=", ".join(FORMATS),
            )
        )
    return FORMATS[path.suffix.lower()]


def read(path: pathlib.Path) -> list[Correction]:
    """All corrections of a file, at least one.

    Raises
    ------
    Trouble: no such file, or it holds no correction that can be used.
    """
    import PyOpenColorIO as ocio  # slow to load, and rarely needed

    path = regular_file(pathlib.Path(path))
    _known(path)
    try:
        text = path.read_bytes() if path.stat().st_size <= LARGEST else b""
        # A list of corrections declares nothing; entities are only there to do harm.
        if not text or b"<!" in text.replace(b"<!--", b""):
            raise ValueError
        ocio.ClearAllCaches()  # it would remember what the file once held
        found = [
            Correction(
                one.getID(),
                tuple(one.getSlope()),
                tuple(one.getOffset()),
                tuple(one.getPower()),
                one.getSat(),
            )
            for one in ocio.CDLTransform.CreateGroupFromFile(str(path))
        ]
        if not found or not all(
            math.isfinite(value) for one in found for value in one.numbers.values()
        ):
            raise ValueError
    except OSError as error:
        raise Trouble(
            translate(
                "{path} could not be read ({strerror}): check its permissions.",
                path=path,
                strerror=error.strerror,
            )
        ) from None
    except (ocio.Exception, ValueError, UnicodeDecodeError):
        raise Trouble(
            translate("{path} holds no CDL that can be read: choose another file.", path=path)
        ) from None
    return found


def write(correction: Correction, path: pathlib.Path) -> None:
    """Write one correction, in the format its ending names.

    Raises
    ------
    Trouble: another ending, or the file could not be written (an earlier one is then still whole).
    """
    import PyOpenColorIO as ocio

    path = pathlib.Path(path)
    kind = _known(path)
    one = ocio.CDLTransform(
        list(correction.slope),
        list(correction.offset),
        list(correction.power),
        correction.saturation,
    )
    if correction.name:
        one.setID(correction.name)
    group = ocio.GroupTransform([one])
    write_text(path, group.write(kind, ocio.Config.CreateRaw()))
