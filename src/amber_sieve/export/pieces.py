"""A clip rendered in pieces, by several processes or a Dask cluster, and joined without encoding it
again.
"""

from __future__ import annotations

import contextlib
import pathlib
from collections.abc import Callable
from dataclasses import asdict, replace
from typing import Any

from ..errors import Trouble
from ..files import folder_beside, written_beside
from ..media import formats
from ..media.footage.sequences import is_pattern
from ..media.source import FILM_RATE, Source
from ..progress import Progress
from ..project.model import Project
from ..resolve.sources import source_of
from .clip import ClipExport, export_clip, frame_range
from .many import done_in_any_order
from .report_page import Worked
from .targets import inputs_of, spare_inputs

#: Frames of a piece at least: opening a clip takes about as long as decoding them.
SHORTEST = 12
#: Pieces for each that works, so that none waits long for the last.
EACH = 3


def cut(first: int, last: int, workers: int) -> list[tuple[int, int]]:
    """The first and last frame of every piece of a stretch."""
    frames = last - first + 1
    count = max(1, min(frames // SHORTEST, workers * EACH))
    edges = [first + frames * k // count for k in range(count + 1)]
    return [(one, other - 1) for one, other in zip(edges, edges[1:], strict=False)]


def _piece(
    project: str, source: str, out: str, frames: tuple[int, int], codec: str, how: dict[str, Any]
) -> str:
    """Render one piece; what is wrong with it in a sentence, or ""."""
    held = Project.model_validate_json(project)
    try:
        opened = source_of(held, pathlib.Path(source))
        try:
            export_clip(opened, held, pathlib.Path(out), frames, codec, how=ClipExport(**how))
        finally:
            opened.close()
    except Trouble as trouble:
        return str(trouble)
    return ""


def export_in_pieces(
    source: Source,
    project: Project,
    path: pathlib.Path,
    frames: tuple[int, int] | None = None,
    codec: str = "",
    progress: Progress | None = None,
    how: ClipExport | None = None,
    jobs: int = 2,
    scheduler: str = "",
    tell: Callable[[Worked], None] = lambda worked: None,
) -> int:
    """The same as `export_clip`, by ``jobs`` processes or the workers of a cluster; returns the
    number of frames.

    ``tell`` hears of every piece that is done who did it.

    Codecs that code every frame by itself give the same frames as one process; others begin anew
    with every piece.

    Raises
    ------
    Trouble: something cannot be read or written; an earlier file of that name is then still whole.
    """
    progress, how = progress or Progress(), how or ClipExport()
    numbers = frame_range(source, frames)
    pieces = cut(numbers[0], numbers[-1], max(jobs, 2))
    spare_inputs([path] if not is_pattern(path) else (), inputs_of(source, project), how.overwrite)
    text, name = project.model_dump_json(), str(source.about.path.absolute())
    if is_pattern(path):
        _all_done(
            text,
            name,
            [(str(path.absolute()), piece) for piece in pieces],
            "",
            how,
            progress,
            jobs,
            scheduler,
            tell,
        )
        return len(numbers)
    from ..media.footage.clip import Footage
    from ..media.footage.joining import begins, join
    from ..media.footage.writing import SoundTrack

    codec = formats.codec_for(path, codec)
    footage = source if isinstance(source, Footage) else None
    with folder_beside(path) as folder:
        parts = [folder.absolute() / f"{number:04}{path.suffix}" for number in range(len(pieces))]
        given = [(str(part), piece) for part, piece in zip(parts, pieces, strict=True)]
        _all_done(
            text, name, given, codec, replace(how, sound=False), progress, jobs, scheduler, tell
        )
        with written_beside(path) as partial:
            sound = (
                SoundTrack(footage, numbers[0], numbers[-1], path.suffix.lower() == ".mxf")
                if footage and how.sound
                else None
            )
            starts = begins(
                footage, source.about.rate or FILM_RATE, [piece[0] for piece in pieces], numbers[0]
            )
            start = source.about.timecode
            join(
                parts,
                starts,
                partial,
                sound,
                str(start.after(numbers[0])) if start is not None else "",
            )
    return len(numbers)


def _all_done(
    project: str,
    source: str,
    pieces: list[tuple[str, tuple[int, int]]],
    codec: str,
    how: ClipExport,
    progress: Progress,
    jobs: int,
    scheduler: str,
    tell: Callable[[Worked], None],
) -> None:
    given = [(project, source, out, piece, codec, asdict(how)) for out, piece in pieces]
    with contextlib.closing(done_in_any_order(_piece, given, max(jobs, 2), scheduler)) as results:
        for count, done in enumerate(results, 1):
            if done.answer:
                raise Trouble(done.answer)
            first, last = pieces[done.number][1]
            tell(Worked(f"frames {first} to {last}", done.by, done.seconds))
            progress.step(0.97 * count / len(pieces))
