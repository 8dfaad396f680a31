"""Compiles every kernel once, by running each stage on a small picture, so that nobody waits for the compiler."""

from __future__ import annotations

import gc
import importlib
import itertools
import pathlib
import tempfile
from collections.abc import Callable

import numpy as np

from . import HAS_KERNELS
from .collecting import no_collecting
from .core.changed import changed_boxes, changed_pixels, no_runs, runs_of_boxes, take_changed
from .core.colour import encodings
from .core.colour.lookup import looked_up, pixels_through, to_display_pixels
from .core.colour.luma_chroma import Samples, to_light, to_samples
from .core.edge.box import box_of
from .core.edge.follow_reach import follow_found
from .core.edge.morphology import without_holes, without_specks
from .core.frame import Frame
from .core.mix import Mixture
from .core.pick.connected import connected_only
from .core.pick.growing import levels_from
from .core.scaling import scale_runs
from .core.statistics import coverage_of, statistics_of
from .export.frame import finished, strips_of
from .files import state_folder
from .live.clicking import clicked
from .live.parts import Shown
from .live.preview import Opened, Wanted, preview
from .live.sampling import sample_at, with_found_tolerance
from .live.scoping import SCOPE_KINDS, scope_pixels
from .media import stills
from .media.source import About
from .project.model import Adjust, Area, Band, Bands, Edge, Match, Pick, Project, Recolour, Sieve, Stroke
from .render.adjust import adjusted
from .render.cache import Cache
from .render.mask import Masked
from .render.resolved import with_found
from .render.stages.edging import NO_EDGE
from .render.stages.every import example
from .render.views import VIEWS, Looking, view


def _mark() -> pathlib.Path:
    """A file that is there once these sources have been compiled by this version of the compiler."""
    import numba  # a slow import, which nobody needs who only asks for help

    newest = max(path.stat().st_mtime_ns for path in (pathlib.Path(__file__).parent / "core").rglob("*.py"))
    place = str(pathlib.Path(__file__).parent).replace("/", "_")
    return state_folder() / "compiled" / f"{numba.__version__}-{newest}{place[-80:]}"


def is_warm() -> bool:
    """Whether all kernels have been compiled already, here or with the package."""
    if HAS_KERNELS:
        return True
    try:
        return _mark().exists()
    except OSError:
        return False


def warm(step: Callable[[float], None] | None = None) -> None:
    """Run everything that is compiled; ``step`` is told the share that is done."""
    frame = Frame(np.random.default_rng(0).random((3, 48, 64), dtype=np.float32) * np.float32(1.3))
    compared = itertools.cycle(("surface", "colour", "levels", "hue"))
    samples = tuple(
        sample_at(frame, x, 20, compare=way, shape=shape)
        for x, way, shape in zip(range(8, 40, 8), compared, ("linear", "smooth"), strict=False)
    )
    with_found_tolerance(samples[0], frame, Pick())
    bands = Bands(hue=Band(on=True, corners=(10, 20, 200, 210)), luminance=Band(on=True, corners=(5, 10, 90, 95), shape="steep"))
    area = Area(kind="brush", mode="add", strokes=(Stroke(points=((5, 5, 1), (20, 9, 1)), size=9),))
    outline = Area(kind="polygon", points=((2, 2), (60, 4), (30, 40)))
    sieve = example(Sieve(pick=Pick(samples=samples), bands=bands, edge=NO_EDGE, areas=(area, outline), blend="screen"))
    sieve = with_found(sieve, primaries=(1.0, 0.1, 0, 0, 1.0, 0, 0, 0, 1.0))
    project = Project(stack=(sieve,))
    for number, name in enumerate(VIEWS):
        view(name, frame, project, sieve.id, Looking(), Cache(0))
        if step:
            step((number + 1) / (len(VIEWS) + 2))
    disc = np.zeros((48, 64), np.float32)
    disc[10:38, 12:50] = 1
    follow_found(frame.planes, disc)
    connected_only(disc, [(30, 20)], 2)
    levels_from(frame.planes[0], disc > 0, range(20, 25), range(20, 25), np.array([0.5, 1.0]))
    # A thing that stands out, with a strand beside it, on a whole picture and inside a larger one.
    disc[6, 12:50] = 1
    for mask in (disc, np.ascontiguousarray(disc[6:38, 12:50])):
        without_holes(without_specks(mask, 300, near=8), 30)
    thing = Frame((0.05 + 0.45 * disc) * np.ones((3, 1, 1), np.float32) + 0.02 * frame.planes)
    outlined = Sieve(pick=Pick(samples=(sample_at(thing, 30, 14),)), edge=Edge(follow=4, clean=1), adjust=Adjust(recolour=Recolour(hue=40)))
    about = About(pathlib.Path("warm.png"), "still", (64, 48), "uint8")
    finished(stills.Still(about, thing), Project(stack=(outlined,)))
    _drag(stills.Still(about, thing), outlined)
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
    box_of(changed_pixels(frame.planes, frame.planes).view(np.uint8), 1, 0)  # of a mask it has been asked already
    pixels_through(to_display_pixels(frame.planes, nodes, 0.01, 64.0), nodes, nodes)
    coverage_of(frame.planes[0])
    for scope in SCOPE_KINDS:
        scope_pixels(scope, frame.planes, disc)
    with tempfile.TemporaryDirectory() as folder:
        made = finished(stills.Still(about, frame), project)
        stills.write(pathlib.Path(folder) / "warm.png", about, lambda: strips_of(made.result.planes))
    importlib.import_module(f"{__package__}.core.edge.matting_parts")  # compiles what it imports
    if step:
        step(1.0)
    try:
        mark = _mark()
        mark.parent.mkdir(parents=True, exist_ok=True)
        mark.touch()
    except OSError:  # compiled all the same; it will only be looked at again
        pass


def _drag(source: stills.Still, sieve: Sieve) -> None:
    """Some steps of a drag of a tolerance, with what is learnt of the thing, and of an adjustment."""
    opened, cache, shown = Opened(source), Cache(10**7), Shown(views=("result", "mask"))
    for number, (tolerance, hue) in enumerate(((3, 40), (4, 40), (6, 40), (8, 40), (10, 40), (10, 50), (10, 60))):
        sample = sieve.pick.samples[0].but(tolerance=tolerance)
        adjust = Adjust(recolour=Recolour(hue=hue, dyed=True), match=Match(target=(0.3, 0.1, 0.1)))
        step = sieve.but(pick=Pick(samples=(sample,)), adjust=adjust, edge=NO_EDGE)
        # What is learnt in the first, which is none of the drag's, stays.
        pictures = preview(opened, Wanted(Project(stack=(step,)), sieve.id, shown=shown, hurried=number > 0), cache).pictures
    for pixels in pictures.values():
        scale_runs(pixels, runs_of_boxes(changed_boxes(pixels, ~pixels), *pixels.shape), pixels.copy())
    planes = source.picture.planes
    Mixture(planes, planes[0], ()).write_runs(~no_runs(*planes.shape[1:]), planes.copy(), planes)


def make_ready() -> None:
    """Load what the first picture in the window needs, its clicks, and the first drag of each adjustment, which takes a second: done beside while
    nobody has opened one yet."""
    with no_collecting():
        importlib.import_module(".media.stills.reader", __package__)  # with its libraries
        thing = np.zeros((48, 64), np.float32)
        thing[10:38, 12:50] = thing[4, 12:30] = 0.4
        frame = Frame(thing + 0.1 * np.random.default_rng(0).random((3, 48, 64), dtype=np.float32))
        sieve = Sieve(pick=Pick(samples=(sample_at(frame, 30, 20),)), adjust=Adjust(recolour=Recolour(hue=40, dyed=True)))
        still = stills.Still(About(pathlib.Path("ready.png"), "still", (64, 48), "uint8"), frame)
        preview(Opened(still), Wanted(Project(stack=(sieve,)), sieve.id), Cache(10**6))
        for role in ("keep", "drop"):
            clicked(sieve, sample_at(frame, 20, 6, role=role), frame, Cache(10**6))
        _drag(still, sieve)
        frame.reduced(2)
        adjusted(frame, Masked(thing, None), example(sieve))
        # It all stays: looked through for rubbish, it would hold up whatever moves for a tenth of a second now and then.
        gc.freeze()


if __name__ == "__main__":
    warm()
