"""Every frame of a clip or sequence, from a project to a clip or to numbered pictures."""

from __future__ import annotations

import contextlib
import functools
import pathlib
from dataclasses import dataclass
from typing import TYPE_CHECKING, Literal, get_args

import numpy as np

from ..core.frame import Frame
from ..core.mix import Mixture
from ..errors import Trouble
from ..files import written_beside
from ..language import translator
from ..media import formats, stills
from ..media.footage.sequences import Pattern, pattern_of
from ..media.formats import CODECS
from ..media.source import FILM_RATE, Source
from ..progress import Progress
from ..project.model import Project
from ..render.evaluate import working
from ..render.strips import Strips
from ..resolve.resolver import Resolver
from ..side_by_side import in_order
from .frame import finished, leaving, strips_of
from .targets import inputs_of, spare_inputs

if TYPE_CHECKING:
    from av.video.frame import VideoFrame

translate = translator("export")


#: What of every frame: the result, the mask of a sieve, or the result with that mask as alpha (in
#: EXR: as a further channel).
ClipWhat = Literal["result", "mask", "result and mask"]
CLIP_WHATS: tuple[ClipWhat, ...] = get_args(ClipWhat)


@dataclass(frozen=True)
class ClipExport:
    """Options of a clip's export.

    Attributes
    ----------
    what : one of ``CLIP_WHATS``; sieve_id : whose mask, "" for the first sieve's.
    quality : of codecs that have one, 1 to 100; depth : sample type of numbered pictures, "" for
        the source's.
    resume : numbered pictures that are there already are left as they are. sound : the clip's sound
        goes along.
    overwrite : what is read may be written over.
    """

    what: ClipWhat = "result"
    sieve_id: str = ""
    quality: int = formats.QUALITY
    depth: str = ""
    resume: bool = False
    sound: bool = True
    overwrite: bool = False


def frame_range(source: Source, wanted: tuple[int, int] | None) -> range:
    """The frames to work on, from the first to the last of ``wanted``, both included.

    Raises
    ------
    Trouble: the range does not lie inside the clip.
    """
    last = source.about.frames - 1
    first, end = wanted if wanted else (0, last)
    if not 0 <= first <= end <= last:
        raise Trouble(
            translate(
                "Frames {first} to {end} cannot be rendered: {path} has frames 0 to {last}.",
                first=first,
                end=end,
                path=source.about.path,
                last=last,
            )
        )
    return range(first, end + 1)


def export_clip(
    source: Source,
    project: Project,
    path: pathlib.Path,
    frames: tuple[int, int] | None = None,
    codec: str = "",
    progress: Progress | None = None,
    how: ClipExport | None = None,
) -> int:
    """Render frames of a source into a clip, or into numbered pictures when the name holds
    ``####``; returns their number.

    ``how`` says what of every frame, and how well; by default the result.

    Raises
    ------
    Trouble: something cannot be read or written; an earlier file of that name is then still whole.
    Cancelled: the person stopped it.
    """
    # FFmpeg's libraries are loaded when footage is first worked on, not when the window opens.
    from ..media.footage import writing as footage_writing
    from ..media.footage.clip import Footage

    numbers = frame_range(source, frames)
    progress, how = progress or Progress(), how or ClipExport()
    pattern = pattern_of(path)
    spare_inputs(
        [path] if pattern is None else map(pattern.name, numbers),
        inputs_of(source, project),
        how.overwrite,
    )
    if pattern is not None:
        return _export_pictures(source, project, pattern, numbers, progress, how)
    codec = formats.codec_for(path, codec)
    footage = source if isinstance(source, Footage) else None
    rate = source.about.rate or FILM_RATE
    resolver = Resolver(source)
    with written_beside(path) as partial:
        transparent = (
            how.what == "result"
            and bool(CODECS[codec].alpha)
            and _may_be_transparent(source, project, numbers[0])
        )
        alpha = transparent or how.what == "result and mask"
        start = source.about.timecode
        timecode = str(start.after(numbers[0])) if start is not None else ""
        form = footage_writing.ClipForm(
            source.about.size,
            rate,
            codec,
            how.quality,
            alpha,
            how.sound,
            project.gamut,
            project.display,
            timecode,
        )
        writer = footage_writing.ClipWriter(partial, footage, form, numbers[0], numbers[-1])
        untouched = (
            footage is not None
            and footage.plain
            and how.what == "result"
            and not working(project)
            and not project.display
        )

        def made(item: tuple[int, VideoFrame | None]) -> tuple[int, VideoFrame]:
            number, decoded = item
            if untouched and decoded is not None:
                return number, writer.untouched(decoded)
            frame = (
                footage.to_frame(decoded, number) if footage and decoded else source.frame(number)
            )
            result, opacity, mask = _of_frame(source, frame, project, resolver, number, how)
            if how.what == "mask" and mask is not None:
                return number, writer.mask_pictured(mask[1])
            same = decoded if footage and footage.plain else None
            result = result.whole() if isinstance(result, Strips) else result
            if transparent:
                opacity = (
                    np.ones(frame.planes.shape[1:], np.float32) if opacity is None else opacity
                )
            else:
                opacity = mask[1] if mask else None
            return number, writer.pictured(same, result, frame.planes, opacity)

        try:
            items = ((number, footage.whole(number) if footage else None) for number in numbers)
            with contextlib.closing(in_order(items, made, source.about.size)) as frames_made:
                for done, (number, frame) in enumerate(frames_made, 1):
                    writer.add(number, frame)
                    progress.step(done / len(numbers))
            writer.finish()
        finally:
            writer.close()
    return len(numbers)


def _may_be_transparent(source: Source, project: Project, number: int) -> bool:
    """Return whether frames have alpha, by a frame of the source, or get it from a sieve."""
    filling = any(sieve.on and sieve.adjust.fill.fill == "nothing" for sieve in project.stack)
    return filling or source.frame(number).alpha is not None


def _of_frame(
    source: Source, frame: Frame, project: Project, resolver: Resolver, number: int, how: ClipExport
) -> tuple[np.ndarray | Mixture | Strips, np.ndarray | None, tuple[str, np.ndarray] | None]:
    """The result of a frame and its alpha, and the mask that goes along, with its sieve's name."""
    if how.what == "result":
        left = leaving(source, project, number, frame=frame, resolver=resolver)
        return left.result, left.alpha, None
    sieve = project.sieve(how.sieve_id) if how.sieve_id else project.stack[0]
    made = finished(
        source,
        project,
        number,
        frame=frame,
        resolver=resolver,
        result=how.what != "mask",
        masks=[sieve.id],
    )
    return made.result.planes, made.result.alpha, (sieve.name, made.masks[sieve.id])


def _export_pictures(
    source: Source,
    project: Project,
    pattern: Pattern,
    numbers: range,
    progress: Progress,
    how: ClipExport,
) -> int:
    """Numbered pictures, one a frame."""
    resolver = Resolver(source)

    def write(number: int) -> None:
        target = pattern.name(number)
        if how.resume and target.exists():
            return
        frame = source.frame(number)
        result, alpha, mask = _of_frame(source, frame, project, resolver, number, how)
        if how.what == "mask" and mask is not None:
            stills.write_mask(target, mask[1])
            return
        strips = functools.partial(strips_of, result)
        form = stills.StillForm(how.depth, project.gamut, display=project.display)
        stills.write(
            target,
            source.about_frame(number),
            strips,
            form,
            alpha,
            masks=dict([mask]) if mask else None,
        )

    with contextlib.closing(in_order(numbers, write, source.about.size)) as written:
        for done, _ in enumerate(written, 1):
            progress.step(done / len(numbers))
    return len(numbers)
