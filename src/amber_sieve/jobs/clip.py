"""Every frame of a clip or sequence, from a project to a clip or to numbered pictures."""

from __future__ import annotations

import functools
import pathlib

from ..errors import Trouble
from ..files import written_beside
from ..media import formats, stills
from ..media.sequences import RATE, is_pattern, pattern_of
from ..media.source import Source
from ..project.model import Project
from .progress import Progress
from .resolved import Resolver
from .still import finished, strips_of


def frame_range(source: Source, wanted: tuple[int, int] | None) -> range:
    """The frames to work on, from the first to the last of ``wanted``, both included.

    Raises
    ------
    Trouble: the range does not lie inside the clip.
    """
    last = source.about.frames - 1
    first, end = wanted if wanted else (0, last)
    if not 0 <= first <= end <= last:
        raise Trouble(f"Frames {first} to {end} cannot be rendered: {source.about.path} has frames 0 to {last}.")
    return range(first, end + 1)


def export_clip(
    source: Source,
    project: Project,
    path: pathlib.Path,
    frames: tuple[int, int] | None = None,
    codec: str = "",
    progress: Progress | None = None,
) -> int:
    """Render frames of a source into a clip, or into numbered pictures when the name holds ``####``; returns their number.

    Raises
    ------
    Trouble: something cannot be read or written; an earlier file of that name is then still whole.
    Cancelled: the person stopped it.
    """
    # FFmpeg's libraries are loaded when footage is first worked on, not when the window opens.
    from ..media import footage_writing
    from ..media.footage import Footage, to_frame

    numbers = frame_range(source, frames)
    progress = progress or Progress()
    if is_pattern(path):
        return _export_pictures(source, project, path, numbers, progress)
    codec = formats.codec_for(path, codec)
    footage = source if isinstance(source, Footage) else None
    rate = source.about.rate or RATE
    resolver = Resolver(source)
    with written_beside(path) as partial:
        writer = footage_writing.ClipWriter(partial, footage, source.about.size, rate, codec, numbers[0], numbers[-1], project.gamut)
        try:
            for done, number in enumerate(numbers, 1):
                decoded = footage.decoded(number) if footage else None
                frame = to_frame(decoded, ("export", number)) if decoded else source.frame(number)
                writer.add(number, decoded, finished(frame, project, None, resolver, number).planes, frame.planes)
                progress.step(done / len(numbers))
            writer.finish()
        finally:
            writer.close()
    return len(numbers)


def _export_pictures(source: Source, project: Project, path: pathlib.Path, numbers: range, progress: Progress) -> int:
    """Numbered pictures, one a frame."""
    pattern = pattern_of(path)
    assert pattern is not None
    resolver = Resolver(source)
    for done, number in enumerate(numbers, 1):
        frame = source.frame(number)
        result = finished(frame, project, None, resolver, number)
        strips = functools.partial(strips_of, result.planes)
        stills.write(pattern.name(number), source.about_frame(number), strips, result.alpha, gamut=project.gamut)
        progress.step(done / len(numbers))
    return len(numbers)
