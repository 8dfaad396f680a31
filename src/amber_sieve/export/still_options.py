"""Options of a still's export: result, masks or a cut-out of one still, at another depth and
size.
"""

from __future__ import annotations

import datetime
import pathlib
import re
from dataclasses import dataclass, replace
from typing import Literal, get_args

import cv2
import numpy as np

from ..core.frame import Frame
from ..core.mix import Mixture
from ..errors import Trouble
from ..language import translator
from ..media import formats, stills
from ..media.source import About, Source
from ..progress import Progress
from ..project.model import Adjust, Fill, Project
from ..render.evaluate import working
from ..render.strips import Strips
from .frame import finished, leaving, strips_of
from .targets import inputs_of, spare_inputs

translate = translator("export")


What = Literal["result", "mask", "cut-out", "every mask"]
WHATS: tuple[What, ...] = get_args(What)
#: How pictures are resampled: means where they shrink and Lanczos where they grow, or one way for
#: both.
Filter = Literal["best", "mean", "Lanczos", "cubic", "linear", "nearest"]
FILTERS: tuple[Filter, ...] = get_args(Filter)
_WAYS = {
    "mean": cv2.INTER_AREA,
    "Lanczos": cv2.INTER_LANCZOS4,
    "cubic": cv2.INTER_CUBIC,
    "linear": cv2.INTER_LINEAR,
    "nearest": cv2.INTER_NEAREST,
}
#: Largest side that may be asked for, pixels.
LARGEST_SIDE = 30_000


@dataclass(frozen=True)
class Export:
    """Options of a still's export.

    Attributes
    ----------
    what : the result, the mask of a sieve as grey, what it masks as a cut-out with alpha, or the
        masks of all sieves.
    depth : sample type; "" for the picture's own, as far as the ending allows.
    quality : of JPEG and WebP, 1 to 100.
    size : per cent of the picture's width and height; filter : how it is resampled, one of
        ``FILTERS``.
    profile : one of `profiles.NAMES`, "" for the picture's own.
    premultiplied : a cut-out's colours are multiplied by its alpha, where the file can say so;
        EXR's always are.
    metadata : whether what the picture says of itself goes along.
    """

    what: What = "result"
    depth: str = ""
    quality: int = 95
    size: float = 100.0
    metadata: bool = True
    profile: str = ""
    filter: Filter = "best"
    premultiplied: bool = False

    def pixels(self, size: tuple[int, int]) -> tuple[int, int]:
        """Width and height of what is written."""
        width, height = (max(1, round(side * self.size / 100)) for side in size)
        return width, height


#: Bytes of a sample, before compression.
BYTES = {"uint8": 1, "uint16": 2, "half": 2, "float": 4}
#: Qualities at which sizes were measured; the next two are means of the two pictures of the glaze
#: yard.
QUALITIES = (50, 75, 88, 95, 100)
#: Bits that a pixel takes at them as JPEG (4:4:4).
JPEG_BITS = (0.58, 0.99, 1.86, 3.6, 11.8)
#: Bits that a pixel takes at them as WebP.
WEBP_BITS = (0.22, 0.46, 1.37, 2.7, 11.3)


def estimated_bytes(how: Export, ending: str, size: tuple[int, int]) -> str:
    """About how large a file will be, in words; what is not JPEG or WebP is at most so large."""
    pixels = size[0] * size[1]
    depth = formats.depth_for(pathlib.Path(f"a{ending}"), how.depth or "uint8")
    if ending in (".jpg", ".webp"):
        bits = float(
            np.interp(how.quality, QUALITIES, JPEG_BITS if ending == ".jpg" else WEBP_BITS)
        )
        return translate("about {megabytes}", megabytes=_megabytes(pixels * bits / 8))
    channels = 4 if how.what == "cut-out" else 1 if how.what in ("mask", "every mask") else 3
    return translate(
        "at most {megabytes}",
        megabytes=_megabytes(
            pixels * channels * BYTES[depth if how.what in ("result", "cut-out") else "uint16"]
        ),
    )


def _megabytes(size: float) -> str:
    return (
        translate("{size:.1f} MB", size=size / 1000000.0)
        if size < 1e8
        else translate("{size:.0f} MB", size=size / 1000000.0)
    )


#: What may stand in braces in the pattern of a name.
TOKENS = ("name", "sieve", "date", "frame")


def name_from(pattern: str, picture: pathlib.Path, sieve: str, frame: int = 0) -> str:
    """A file's name from a pattern with {name}, {sieve}, {date} and {frame} in it.

    Raises
    ------
    Trouble: a slash is in it, something else stands in braces, or nothing is left of the name.
    """
    if set(pattern) & set("/\\"):
        raise Trouble(
            translate(
                "A name has no slash in it: choose the folder for itself, and write the name "
                "alone.",
            )
        )
    known = {
        "name": picture.stem,
        "sieve": sieve,
        "date": datetime.date.today().isoformat(),
        "frame": f"{frame:04}",
    }
    unknown = [word for word in re.findall(r"\{([^}]*)\}", pattern) if word not in known]
    if unknown:
        raise Trouble(
            translate(
                "{{{unknown}}} means nothing in a name: use {known}.",
                unknown=unknown[0][:40],
                known=", ".join("{" + word + "}" for word in known),
            )
        )
    name = re.sub(r"\{([^}]*)\}", lambda found: known[found.group(1)], pattern)
    name = re.sub(r'[\x00-\x1f/\\<>:"|?*]', "-", name).strip(" .")
    if not name:
        raise Trouble(
            translate(
                "Nothing is left of the name: write one, or a pattern such as {name}-{sieve}.",
            )
        )
    return name[:200]


def _sized(plane: np.ndarray, size: tuple[int, int], way: Filter = "best") -> np.ndarray:
    """A plane (H, W) at another size."""
    if plane.shape[::-1] == size:
        return plane
    best = "mean" if size[0] < plane.shape[1] else "Lanczos"
    return cv2.resize(plane, size, interpolation=_WAYS[best if way == "best" else way])


def with_cut_out(project: Project, sieve_id: str) -> Project:
    """The project that leaves only what a sieve masks, and nothing behind it; its outline keeps no
    colour of the background.
    """
    at = next(place for place, sieve in enumerate(project.stack) if sieve.id == sieve_id)
    sieve = project.stack[at]
    # A sieve that is off, or gives nothing, still says what is cut out.
    gives = any(one.id == sieve_id for one in working(project.but(solo="")))
    adjust = (sieve.adjust if gives else Adjust()).but(
        fill=Fill(fill="nothing", fill_where="behind")
    )
    cut = (
        sieve.but(on=True, adjust=adjust)
        if gives
        else sieve.but(on=True, adjust=adjust, strength=100.0, group="")
    )
    return project.but(stack=(*project.stack[:at], cut, *project.stack[at + 1 :]), solo="")


def possible_size(how: Export, came: tuple[int, int]) -> tuple[int, int]:
    """Return the width and height of what is written of a picture of some size; raises `Trouble`
    where that is more than can be.
    """
    size = how.pixels(came)
    if max(size) > LARGEST_SIDE:
        raise Trouble(
            translate(
                "{size} x {down} pixels are more than can be written: ask for less than {most} on "
                "a side.",
                size=size[0],
                down=size[1],
                most=LARGEST_SIDE,
            )
        )
    return size


def export(
    source: Source,
    project: Project,
    sieve_id: str,
    path: pathlib.Path,
    how: Export,
    number: int = 0,
    progress: Progress | None = None,
) -> list[pathlib.Path]:
    """Write one frame of a source as asked; returns what was written.

    Raises
    ------
    Trouble: it cannot be read or written so.
    Cancelled: the person stopped it; nothing half-written is left.
    """
    progress = progress or Progress()
    path = pathlib.Path(path)
    grey = how.what in ("mask", "every mask")
    formats.mask_depth_for(path) if grey else formats.depth_for(path, how.depth or "uint8")
    spare_inputs([path], inputs_of(source, project))
    frame = source.frame(number)
    size = possible_size(how, (frame.width, frame.height))
    progress.step(0.1)
    wanted = with_cut_out(project, sieve_id) if how.what == "cut-out" else project
    ids = [sieve_id] if how.what == "mask" else [sieve.id for sieve in wanted.stack]

    def step(share: float) -> None:
        progress.step(0.1 + 0.5 * share)

    if grey:
        made = finished(source, wanted, number, frame=frame, result=False, masks=ids, step=step)
        masks = {
            project.sieve(one).name: np.clip(_sized(mask, size, how.filter), 0, 1)
            for one, mask in made.masks.items()
        }
        progress.step(0.7)
        return (
            stills.write_masks(path, masks) if how.what == "every mask" else _one_mask(path, masks)
        )
    result = leaving(source, wanted, number, frame=frame, step=step)
    progress.step(0.6)
    write_result(
        path,
        source.about_frame(number),
        (result.result, result.alpha),
        frame if source.about.kind != "clip" else None,
        how,
        project,
        progress,
    )
    return [path]


def write_result(
    path: pathlib.Path,
    about: About,
    made: tuple[np.ndarray | Mixture | Strips, np.ndarray | None],
    original: Frame | None,
    how: Export,
    project: Project,
    progress: Progress | None = None,
) -> None:
    """Write planes (3, H, W) and alpha (H, W) that were made, as large and in the form asked for.

    ``original`` is the frame they were made from, where it is a still: pixels that did not change
    are written as they were read. Raises `Trouble` when it cannot be written.
    """
    (planes, alpha), came = made, about.size
    size = how.pixels(came)
    about = replace(about, size=size)
    if not how.metadata:
        about = replace(about, metadata={})
    if size != came:
        planes = np.stack(
            [
                _sized(plane, size, how.filter)
                for plane in (planes if isinstance(planes, np.ndarray) else planes.whole())
            ]
        )
        alpha = None if alpha is None else np.clip(_sized(alpha, size, how.filter), 0, 1)
        original = None
    display = "" if how.profile else project.display
    form = stills.StillForm(
        how.depth, project.gamut, how.quality, how.profile, display, how.premultiplied
    )
    stills.write(path, about, lambda: strips_of(planes, progress, 0.6), form, alpha, original)


def _one_mask(path: pathlib.Path, masks: dict[str, np.ndarray]) -> list[pathlib.Path]:
    stills.write_mask(path, next(iter(masks.values())))
    return [path]
