"""Lists the kernels and the arguments they are compiled for, in
src/amber_sieve/core/signatures.json.

Every stage is run on a small picture, and what was compiled is written down: first what the
demo, a click and a drag need, then the rest. Run it after adding a kernel or changing its
arguments; with --check it only says whether the list is complete.

    .venv/bin/python tools/signatures.py [--check]
"""

from __future__ import annotations

import importlib
import itertools
import json
import multiprocessing
import os
import pathlib
import sys
import tempfile
import time
from concurrent.futures import ProcessPoolExecutor

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
sys.path[:0] = [str(pathlib.Path(__file__).parent.parent / folder) for folder in ("src", "tests")]
import numpy as np
import own_home  # noqa: F401  (the demo below keeps what it keeps elsewhere)
from numba import typeof, types

from amber_sieve.core.changed import changed_pixels, take_changed
from amber_sieve.core.colour import encodings
from amber_sieve.core.colour.lookup import looked_up, pixels_through, to_display_pixels
from amber_sieve.core.colour.luma_chroma import Samples, to_light, to_samples
from amber_sieve.core.edge.box import box_of
from amber_sieve.core.edge.follow_reach import follow_found
from amber_sieve.core.edge.morphology import without_holes, without_specks
from amber_sieve.core.frame import Frame
from amber_sieve.core.jit.parallel import Kernel, RowStep
from amber_sieve.core.pick.connected import connected_only
from amber_sieve.core.pick.growing import flood_thresholds
from amber_sieve.core.statistics import coverage_of, statistics_of
from amber_sieve.desk.app import application
from amber_sieve.desk.start.waiting import settle
from amber_sieve.desk.window.open_window import open_window
from amber_sieve.export.frame import finished, strips_of
from amber_sieve.live.sampling import sample_at, with_found_tolerance
from amber_sieve.live.scoping import scope_pixels
from amber_sieve.names import SCOPE_KINDS
from amber_sieve.media import stills
from amber_sieve.media.source import About
from amber_sieve.project.model import (
    Adjust,
    Area,
    Band,
    Bands,
    Edge,
    Pick,
    Project,
    Recolour,
    Sieve,
    Stroke,
)
from amber_sieve.ready import drag_steps, every_adjustment, first_clicks_and_drags
from amber_sieve.render.context import RenderContext
from amber_sieve.render.resolved import with_found
from amber_sieve.render.stages.edging import NO_EDGE
from amber_sieve.render.stages.every import example
from amber_sieve.render.views import VIEWS, Looking, view
from amber_sieve.warm import ALWAYS, GROUPS, LIST, Job, compile_one
from amber_sieve.workspace.workspace import Workspace

ROOT = pathlib.Path(__file__).parent.parent
CORE = "amber_sieve.core"


def run_all_stages() -> None:
    """Run every stage, view and scope on a small picture."""
    frame = Frame(np.random.default_rng(0).random((3, 48, 64), dtype=np.float32) * np.float32(1.3))
    compared = itertools.cycle(("surface", "colour", "levels", "hue"))
    samples = tuple(
        sample_at(frame, x, 20, compare=way, shape=shape)
        for x, way, shape in zip(range(8, 40, 8), compared, ("linear", "smooth"), strict=False)
    )
    with_found_tolerance(samples[0], frame, Pick())
    bands = Bands(
        hue=Band(on=True, corners=(10, 20, 200, 210)),
        luminance=Band(on=True, corners=(5, 10, 90, 95), shape="steep"),
    )
    area = Area(kind="brush", mode="add", strokes=(Stroke(points=((5, 5, 1), (20, 9, 1)), size=9),))
    outline = Area(kind="polygon", points=((2, 2), (60, 4), (30, 40)))
    sieve = example(
        Sieve(
            pick=Pick(samples=samples),
            bands=bands,
            edge=NO_EDGE,
            areas=(area, outline),
            blend="screen",
        )
    )
    sieve = with_found(sieve, primaries=(1.0, 0.1, 0, 0, 1.0, 0, 0, 0, 1.0))
    project = Project(stack=(sieve,))
    for name in VIEWS:
        view(name, frame, project, sieve.id, Looking(), RenderContext())
    disc = np.zeros((48, 64), np.float32)
    disc[10:38, 12:50] = 1
    follow_found(frame.planes, disc)
    connected_only(disc, [(30, 20)], 2)
    flood_thresholds(frame.planes[0], disc > 0, range(20, 25), range(20, 25), np.array([0.5, 1.0]))
    # A thing that stands out, with a strand beside it, on a whole picture and inside a larger one.
    disc[6, 12:50] = 1
    for mask in (disc, np.ascontiguousarray(disc[6:38, 12:50])):
        without_holes(without_specks(mask, 300, near=8), 30)
    thing = Frame((0.05 + 0.45 * disc) * np.ones((3, 1, 1), np.float32) + 0.02 * frame.planes)
    outlined = Sieve(
        pick=Pick(samples=(sample_at(thing, 30, 14),)),
        edge=Edge(follow=4, clean=1),
        adjust=Adjust(recolour=Recolour(hue=40)),
    )
    about = About(pathlib.Path("warm.png"), "still", (64, 48), "uint8")
    finished(stills.Still(about, thing), Project(stack=(outlined,)))
    drag_steps(stills.Still(about, thing), outlined)
    statistics_of(frame.reduced(1.5).planes)
    nodes = np.zeros((3, 3, 3, 3), np.float32)
    looked_up(frame.planes, nodes)
    encodings.decoded(np.zeros((4, 4, 3), np.uint16), 1, 9)
    shallow = Samples(1, 8, False, 2, 2)
    for kind in (Samples(1, 10, False, 2, 1), shallow):
        coded = to_samples(frame.planes, kind)
        to_light(*coded, 64, kind, 1, 1)
        for there in (coded[0].copy(), coded[0][:, 1:]):  # a whole plane, and a part of one
            take_changed(there, coded[0], changed_pixels(frame.planes, frame.planes))
    box_of(
        changed_pixels(frame.planes, frame.planes).view(np.uint8), 1, 0
    )  # of a mask it has been asked already
    pixels_through(to_display_pixels(frame.planes, nodes, 0.01, 64.0), nodes, nodes)
    coverage_of(frame.planes[0])
    for scope in SCOPE_KINDS:
        scope_pixels(scope, frame.planes, disc)
    with tempfile.TemporaryDirectory() as folder:
        made = finished(stills.Still(about, frame), project)
        stills.write(
            pathlib.Path(folder) / "warm.png", about, lambda: strips_of(made.result.planes)
        )


#: Kernels that were called, and the arguments they are compiled for, in the order of their first
#: call.
called: dict[tuple[str, str, str], None] = {}
_call = Kernel.__call__


def call(self: Kernel, *given: object) -> object:
    """Note what a kernel is called with, and call it. Kernels that only other kernels call are
    compiled into those.
    """
    kinds = "".join(f"{written(typeof(one))}, " for one in given)
    called[self.__module__.removeprefix(f"{CORE}."), self.__name__, f"({kinds.rstrip()})"] = None
    return _call(self, *given)


def written(kind: types.Type) -> str:
    """Return an argument's type as the compiler reads it."""
    if isinstance(kind, types.Array):
        return f"Array({kind.dtype}, {kind.ndim}, '{kind.layout}', {not kind.mutable})"
    if isinstance(kind, types.UniTuple):
        return f"UniTuple({written(kind.dtype)}, {kind.count})"
    return str(kind)


def compiled() -> dict[tuple[str, str, str], None]:
    """Return the kernels that were called, and the steps that are compiled."""
    steps = {
        (made._function.__module__.removeprefix(f"{CORE}."), made._function.__name__, ALWAYS): None
        for name, module in sorted(sys.modules.items())
        if name.startswith(f"{CORE}.")
        for made in vars(module).values()
        if isinstance(made, RowStep) and made.made
    }
    matting = (
        {("edge.matting_parts", "", ALWAYS): None}
        if f"{CORE}.edge.matting_parts" in sys.modules
        else {}
    )
    return called | steps | matting


def show_demo() -> None:
    """Open the demo in a window, until nothing is left to do behind it either, and export it."""
    running = application()
    window = open_window(Workspace())
    window.show()
    workspace = window.workspace
    workspace.pictures.open(ROOT / "demo" / "yard.sieve", copy=True)
    settle(workspace)
    workers, end = workspace.workers, time.monotonic() + 60
    while (
        not all(one.idle for one in (workers.surfaces, workers.offers, workers.tolerance_hints))
        and time.monotonic() < end
    ):
        running.processEvents()
        time.sleep(0.01)
    with tempfile.TemporaryDirectory() as folder:
        for write in (workspace.exports.write, workspace.exports.write_mask):
            write(pathlib.Path(folder) / "out.png")
            settle(workspace)
    workspace.close()


def groups() -> dict[str, list[tuple[str, str, str]]]:
    """Run everything, and return what was compiled for it."""
    Kernel.__call__ = call
    show_demo()
    first_clicks_and_drags()
    first = compiled()
    every_adjustment()
    run_all_stages()
    importlib.import_module(f"{CORE}.edge.matting_parts")
    return {"first": list(first), "rest": [one for one in compiled() if one not in first]}


def time_one(job: Job) -> float:
    """Return the seconds that compiling a kernel takes."""
    began = time.monotonic()
    compile_one(job)
    return round(time.monotonic() - began, 2)


def timed(jobs: list[tuple[str, str, str]]) -> dict[tuple[str, str, str], float]:
    """Return the seconds that each kernel takes, compiled in a process that finds none on the
    disk.
    """
    with tempfile.TemporaryDirectory() as folder:
        os.environ["NUMBA_CACHE_DIR"] = folder
        with ProcessPoolExecutor(1, multiprocessing.get_context("spawn")) as pool:
            return dict(
                zip(jobs, pool.map(time_one, [Job(*one, 0.0) for one in jobs]), strict=True)
            )


def main() -> int:
    """Write the list, or check it."""
    before = json.loads(LIST.read_text()) if LIST.exists() else dict.fromkeys(GROUPS, ())
    seconds = {tuple(one[:3]): one[3] for one in itertools.chain(*before.values())}
    now = groups()
    if "--check" in sys.argv:
        wanted = {one for group in GROUPS for one in now[group]}
        print("\n".join(map(str, sorted(wanted ^ set(seconds)))) or "The list is complete.")
        return int(wanted != set(seconds))
    seconds = timed([one for group in GROUPS for one in now[group] if one not in seconds]) | seconds
    rows = {group: [(*one, seconds[one]) for one in now[group]] for group in GROUPS}
    LIST.write_text(json.dumps(rows, indent=0) + "\n")
    return 0


if __name__ == "__main__":
    sys.exit(main())
