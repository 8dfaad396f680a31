"""One project over many pictures: in processes, resumable, with a report."""

from __future__ import annotations

import base64
import contextlib
import csv
import functools
import hashlib
import html
import io
import json
import os
import pathlib
import time
from collections.abc import Callable, Sequence
from dataclasses import asdict, dataclass, field, replace

import cv2
import numpy as np

from ..core.overlays import veil
from ..core.pick.light import Light
from ..errors import Trouble
from ..files import regular_file, write_text
from ..language import decimals, translator
from ..media import formats
from ..progress import Progress
from ..project import storage
from ..project.model import Project
from ..render.context import RenderContext
from ..render.evaluate import working
from ..render.light import is_sure, light_on
from ..render.shown import shown
from ..resolve.layers import layers_in
from ..resolve.sources import source_of
from .frame import Finished, finished
from .many import done_in_any_order
from .report_page import Worked, linked, page, table, who_worked
from .still_options import Export, name_from, possible_size, write_result
from .targets import inputs_of, spare_inputs

translate = translator("export")


#: Side of the pictures in the report, pixels.
THUMBNAIL = 160
#: Linear light of the colour laid over the masks of a preview.
VEIL_COLOUR = (0.9, 0.05, 0.3)
#: Coverage farther from the middle of all than this many times their middle distance is an outlier.
FAR = 4.0
#: Seconds between two notes of finished work: a killed batch loses no more.
KEEP_EVERY = 2.0
#: What is kept of a batch, so that it can go on.
STATE = "batch.json"
#: The page on which a person reads it.
PAGE = "batch.html"
#: The table for a spreadsheet.
TABLE = "batch.csv"


@dataclass
class Outcome:
    """The outcome of one picture: where it was written, or what is wrong; ``key`` is what it was
    made from. ``by`` is who did it, machine and process, where several worked, and ``seconds`` how
    long it took; ``reused`` says that an earlier run wrote it. ``light`` holds, by sieve, the gains
    of red, green and blue over the light picked in, and how sure they are.
    """

    picture: str
    out: str
    key: list[object]
    trouble: str = ""
    coverage: dict[str, float] = field(default_factory=dict)
    notes: list[str] = field(default_factory=list)
    thumbnail: str = ""
    by: str = ""
    seconds: float = 0.0
    reused: bool = False
    light: dict[str, tuple[float, float, float, float]] = field(default_factory=dict)


#: As each picture came.
AS_EACH = Export()


@dataclass(frozen=True)
class BatchHow:
    """As what a batch is written, and who works.

    Attributes
    ----------
    ending : of every file, "" for that of each picture; form : sample type, size and the rest of
        each; pattern : of their names, see `name_from`.
    jobs : processes that work at the same time; scheduler : address of a Dask cluster whose workers
        do, which must see the same files.
    preview : only the report is written, with each picture's mask.
    """

    ending: str = ""
    form: Export = AS_EACH
    pattern: str = "{name}"
    jobs: int = 1
    scheduler: str = ""
    preview: bool = False


AS_IT_CAME = BatchHow()


def _small(planes: np.ndarray, project: Project) -> str:
    """A picture as a small JPEG, base64, as it is seen."""
    factor = max(planes.shape[1:]) / THUMBNAIL
    size = (max(1, round(planes.shape[2] / factor)), max(1, round(planes.shape[1] / factor)))
    small = np.stack([cv2.resize(plane, size, interpolation=cv2.INTER_AREA) for plane in planes])
    pixels = shown(small, project, layers_in(RenderContext()))
    codes = pixels.view(np.uint8).reshape(*pixels.shape, 4)[
        ..., :3
    ]  # stored as blue, green, red, alpha
    done, data = cv2.imencode(".jpg", np.ascontiguousarray(codes), [cv2.IMWRITE_JPEG_QUALITY, 80])
    return base64.b64encode(data.tobytes()).decode() if done else ""


def _key(project: Project, picture: pathlib.Path, out: pathlib.Path, form: Export) -> list[object]:
    held = picture.stat() if picture.exists() else None
    # What it was made from, by its digest: three hundred copies of a long day's strokes would not
    # be read again in time.
    digest = hashlib.sha256(project.model_dump_json().encode()).hexdigest()
    return [
        digest,
        str(picture),
        held.st_mtime_ns if held else 0,
        held.st_size if held else 0,
        str(out),
        json.dumps(asdict(form)),
    ]


def _mask_over(made: Finished) -> np.ndarray:
    """The picture with a colour laid over all that is masked, (3, H, W) linear light."""
    mask = functools.reduce(np.maximum, made.masks.values())
    return veil(made.frame.planes, np.ascontiguousarray(mask), VEIL_COLOUR)


def one(
    project: Project,
    picture: pathlib.Path,
    out: pathlib.Path,
    form: Export = AS_EACH,
    preview: bool = False,
) -> Outcome:
    """Render one picture by a project and write it in some form, or for a
    ``preview`` its masks alone; what is wrong is told in the outcome, not raised.
    """
    found = Outcome(str(picture), "" if preview else str(out), _key(project, picture, out, form))
    try:
        source = source_of(project, regular_file(picture))
        try:
            found.notes = list(source.about.notes)
            spare_inputs([out], inputs_of(source, project))
            possible_size(form, source.about.size)
            # What the picture asks for anyway: another mask may need what is not there, and must
            # not stop it.
            on = [sieve for sieve in project.stack if sieve.on]
            sieves = on if preview else working(project)
            made = finished(source, project, result=not preview, masks=[s.id for s in sieves])
            if not preview:
                planes = (made.result.planes, made.result.alpha)
                write_result(out, source.about_frame(0), planes, made.frame, form, project)
            found.coverage = {
                project.sieve(one).name: float(mask.mean(dtype=np.float64))
                for one, mask in made.masks.items()
            }
            for sieve in sieves:
                light = light_on(sieve.pick, made.frame, RenderContext())
                if light is not None:
                    found.light[sieve.name] = (*light.gains, light.sure)
            seen = _mask_over(made) if preview and made.masks else made.result.planes
            found.thumbnail = _small(seen, made.stands)
        finally:
            source.close()
    except Trouble as trouble:
        found.trouble = str(trouble)
    except MemoryError:
        found.trouble = translate(
            "{picture} needs more memory than there is: use fewer jobs.", picture=picture
        )
    except Exception as error:  # one bad file does not stop the others
        found.trouble = translate(
            "{picture} could not be worked on ({name}: {error}): check the file.",
            picture=picture,
            name=type(error).__name__,
            error=error,
        )
    return found


def _from_text(project: str, picture: str, out: str, form: Export, preview: bool) -> Outcome:
    """The same, in another process."""
    held = Project.model_validate_json(project)
    return one(held, pathlib.Path(picture), pathlib.Path(out), form, preview)


def outputs_for(
    pictures: Sequence[pathlib.Path],
    folder: pathlib.Path,
    wanted: str = "",
    pattern: str = "{name}",
    sieves: Sequence[str] = (),
) -> list[pathlib.Path]:
    """A file in the folder for every picture, with an ending that is wanted or of its own kind
    where that can be written; names that come twice are numbered. ``sieves`` are the names that
    {sieve} stands for in the pattern.
    """
    taken: set[str] = set()
    found = []
    for at, picture in enumerate(pictures):
        ending = wanted or (
            picture.suffix if formats.is_picture(pathlib.Path("a" + picture.suffix)) else ".png"
        )
        base = name_from(pattern, picture, sieves[at] if sieves else "", at + 1)
        name, number = base, 1
        while f"{name}{ending}".lower() in taken:
            number += 1
            name = f"{base}-{number}"
        taken.add(f"{name}{ending}".lower())
        found.append(folder / f"{name}{ending}")
    return found


def pictures_in(paths: Sequence[pathlib.Path]) -> list[pathlib.Path]:
    """Pictures, and those of folders, by name; a path that is neither stays, so that it is told
    of.
    """
    found: list[pathlib.Path] = []
    for path in paths:
        try:
            inside = (
                sorted(p for p in path.iterdir() if p.suffix.lower() in formats.endings("still"))
                if path.is_dir()
                else [path]
            )
        except OSError as error:
            raise Trouble(
                translate(
                    "The folder {path} could not be read ({strerror}): check its permissions.",
                    path=path,
                    strerror=error.strerror,
                )
            ) from None
        found += inside
    return found


def run_batch(
    project: Project | Sequence[Project],
    pictures: Sequence[pathlib.Path],
    folder: pathlib.Path,
    how: BatchHow = AS_IT_CAME,
    progress: Progress | None = None,
    tell: Callable[[Outcome], None] = lambda outcome: None,
) -> list[Outcome]:
    """Render many pictures into a folder, by one project or each by its own, and write a report
    beside them.

    What an earlier run has finished, with the same project and picture, is not done again.

    Raises
    ------
    Trouble: the folder cannot be made or written to.
    Cancelled: the person stopped it; what is done stays, and the next run goes on from there.
    """
    progress = progress or Progress()
    works = [project] * len(pictures) if isinstance(project, Project) else list(project)
    try:
        folder.mkdir(parents=True, exist_ok=True)
    except OSError as error:
        raise Trouble(
            translate(
                "The folder {folder} could not be made ({strerror}): choose another one.",
                folder=folder,
                strerror=error.strerror,
            )
        ) from None
    sieves = [work.stack[0].name for work in works]
    outs = outputs_for(pictures, folder, how.ending, how.pattern, sieves)
    sources = {os.path.realpath(picture) for picture in pictures}
    if any(os.path.realpath(out) in sources for out in outs):
        raise Trouble(
            translate(
                "{folder} holds the pictures themselves: choose another folder, so that none is "
                "written over.",
                folder=folder,
            )
        )
    known = {
        tuple(outcome.key): outcome
        for outcome in _earlier(folder)
        if not outcome.trouble and pathlib.Path(outcome.out).is_file()
    }
    outcomes: dict[int, Outcome] = {}
    waiting = []
    for number, (picture, out) in enumerate(zip(pictures, outs, strict=True)):
        held = known.get(tuple(_key(works[number], picture, out, how.form)))
        if held is not None and not how.preview:
            outcomes[number] = replace(held, reused=True)
        else:
            waiting.append(number)

    kept = [time.monotonic()]

    def take(number: int, outcome: Outcome) -> None:
        outcomes[number] = outcome
        tell(outcome)
        if time.monotonic() - kept[0] > KEEP_EVERY and not how.preview:
            _keep(folder, list(outcomes.values()))
            kept[0] = time.monotonic()
        progress.step(len(outcomes) / len(pictures))

    texts = (
        {number: works[number].model_dump_json() for number in waiting}
        if how.jobs > 1 or how.scheduler
        else {}
    )
    given = [
        (texts[n], str(pictures[n]), str(outs[n]), how.form, how.preview)
        if texts
        else (works[n], pictures[n], outs[n], how.form, how.preview)
        for n in waiting
    ]
    # Listening ends in any case, so that what was not begun is not done.
    with contextlib.closing(
        done_in_any_order(_from_text if texts else one, given, how.jobs, how.scheduler)
    ) as results:
        for done in results:
            done.answer.by, done.answer.seconds = done.by, done.seconds
            take(waiting[done.number], done.answer)
    ordered = [outcomes[number] for number in sorted(outcomes)]
    if not how.preview:
        _keep(folder, ordered)
    _report(folder, works, ordered, how.preview)
    return ordered


def _earlier(folder: pathlib.Path) -> list[Outcome]:
    """Return the notes of an earlier run; nothing where that cannot be read."""
    try:
        held = json.loads((folder / STATE).read_text(encoding="utf-8"))
        return [Outcome(**row) for row in held]
    except (OSError, ValueError, TypeError):
        return []


def _keep(folder: pathlib.Path, outcomes: list[Outcome]) -> None:
    write_text(folder / STATE, json.dumps([asdict(outcome) for outcome in outcomes]))


def outliers(outcomes: Sequence[Outcome]) -> dict[str, str]:
    """Why pictures stand out, by their paths: trouble, or a coverage far from that of the
    others.
    """
    found = {outcome.picture: outcome.trouble for outcome in outcomes if outcome.trouble}
    for name in {name for outcome in outcomes for name in outcome.coverage}:
        rows = [
            (outcome.picture, outcome.coverage[name])
            for outcome in outcomes
            if name in outcome.coverage
        ]
        values = np.array([value for _, value in rows])
        middle = float(np.median(values))
        spread = max(float(np.median(np.abs(values - middle))), 0.005)
        for picture, value in rows:
            if value < 1e-4:
                found.setdefault(picture, translate("{name} masks nothing", name=name))
            elif abs(value - middle) > FAR * spread:
                found.setdefault(
                    picture,
                    translate(
                        "{name} covers {share:.1f} %, the others about {middle:.1f} %",
                        name=name,
                        share=100 * value,
                        middle=100 * middle,
                    ),
                )
    for outcome in outcomes:
        for name, (red, green, blue, sure) in outcome.light.items():
            if not is_sure(Light((red, green, blue), sure)):
                found.setdefault(
                    outcome.picture,
                    translate("{name} was picked on a picture of other things", name=name),
                )
    return found


def _light_in_words(light: tuple[float, float, float, float] | None) -> str:
    if light is None:
        return ""
    red, green, blue, sure = light
    words = translate(
        "{red:.2f} {green:.2f} {blue:.2f}, {sure:.0f} % sure",
        red=red, green=green, blue=blue, sure=100 * sure,
    )  # fmt: skip
    return decimals(words)


def _report(
    folder: pathlib.Path, works: Sequence[Project], outcomes: list[Outcome], preview: bool
) -> None:
    """The page and the table, what stands out first."""
    odd = outliers(outcomes)
    rows = sorted(outcomes, key=lambda outcome: (outcome.picture not in odd, outcome.picture))
    names = list(dict.fromkeys(sieve.name for work in works for sieve in work.stack))
    lit = [name for name in names if any(name in row.light for row in rows)]
    lights = [translate("light of {name}", name=name) for name in lit]
    sheet = io.StringIO()
    writer = csv.writer(sheet)
    writer.writerow(
        [
            "picture",
            "written",
            "warning",
            *(translate("coverage of {name}", name=name) for name in names),
            *lights,
            "notes",
        ]
    )
    cells = []
    for row in rows:
        shares = [
            decimals(f"{100 * row.coverage[name]:.2f} %") if name in row.coverage else ""
            for name in names
        ]
        shares += [_light_in_words(row.light.get(name)) for name in lit]
        warning = odd.get(row.picture, "")
        writer.writerow(
            [row.picture, "" if row.trouble else row.out, warning, *shares, "; ".join(row.notes)]
        )
        picture = (
            f'<img src="data:image/jpeg;base64,{row.thumbnail}" alt="">' if row.thumbnail else ""
        )
        there = pathlib.Path(row.picture) if preview or row.trouble else pathlib.Path(row.out)
        name = html.escape(pathlib.Path(row.picture).name)
        words = [html.escape(word) for word in (*shares, warning)]
        cells.append((bool(warning), (linked(picture, there), linked(name, there), *words)))
    reused = sum(row.reused for row in rows)
    done = sum(not row.trouble for row in rows)
    worked = [
        Worked(pathlib.Path(row.picture).name, row.by, row.seconds) for row in outcomes if row.by
    ]
    found = page(
        "Batch",
        f"{done} of {len(rows)} pictures {'looked at; none is written' if preview else 'written'}"
        + (f", {reused} of them by an earlier run" if reused else ""),
        table(("", "picture", *names, *lights, "warning"), cells),
        who_worked(worked) if worked else "",
    )
    write_text(folder / PAGE, found)
    write_text(folder / TABLE, sheet.getvalue())


def load_for_batch(path: pathlib.Path) -> Project:
    """The project that is laid over many pictures; its own picture does not matter."""
    return storage.load(path).but(takes=())
