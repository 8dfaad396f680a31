"""Loads what the first picture in the window needs, its clicks and its first drags, while nobody
has opened one yet.
"""

from __future__ import annotations

import gc
import importlib
import pathlib

import numpy as np

from .core.changed import changed_boxes, no_runs, runs_of_boxes
from .core.frame import Frame
from .core.mix import Mixture
from .core.scaling import scale_runs
from .gc_pause import gc_pause
from .live.clicking import clicked
from .live.parts import Shown
from .live.preview import Opened, Wanted, preview
from .live.sampling import sample_at
from .media import stills
from .media.source import About
from .project.model import Adjust, Match, Pick, Project, Recolour, Sieve
from .render.adjust import adjusted
from .render.cache import Cache
from .render.context import RenderContext
from .render.masked import Masked
from .render.stages.edging import NO_EDGE
from .render.stages.every import example
from .warm import is_warm


def drag_steps(source: stills.Still, sieve: Sieve) -> None:
    """Make some steps of a drag of a tolerance, with what is learnt of the thing, and of an
    adjustment.
    """
    opened, context, shown = (
        Opened(source),
        RenderContext(Cache(10**7)),
        Shown(views=("result", "mask")),
    )
    for number, (tolerance, hue) in enumerate(
        ((3, 40), (4, 40), (6, 40), (8, 40), (10, 40), (10, 50), (10, 60))
    ):
        sample = sieve.pick.samples[0].but(tolerance=tolerance)
        adjust = Adjust(recolour=Recolour(hue=hue, dyed=True), match=Match(target=(0.3, 0.1, 0.1)))
        step = sieve.but(pick=Pick(samples=(sample,)), adjust=adjust, edge=NO_EDGE)
        # What is learnt in the first, which is none of the drag's, stays.
        pictures = preview(
            opened,
            Wanted(Project(stack=(step,)), sieve.id, shown=shown, hurried=number > 0),
            context,
        ).pictures
    for pixels in pictures.values():
        scale_runs(
            pixels, runs_of_boxes(changed_boxes(pixels, ~pixels), *pixels.shape), pixels.copy()
        )
    planes = source.picture.planes
    Mixture(planes, planes[0], ()).write_runs(~no_runs(*planes.shape[1:]), planes.copy(), planes)


def first_clicks_and_drags() -> None:
    """Show, click and drag on a small picture."""
    thing = np.zeros((48, 64), np.float32)
    thing[10:38, 12:50] = thing[4, 12:30] = 0.4
    frame = Frame(thing + 0.1 * np.random.default_rng(0).random((3, 48, 64), dtype=np.float32))
    sieve = Sieve(
        pick=Pick(samples=(sample_at(frame, 30, 20),)),
        adjust=Adjust(recolour=Recolour(hue=40, dyed=True)),
    )
    still = stills.Still(About(pathlib.Path("ready.png"), "still", (64, 48), "uint8"), frame)
    preview(Opened(still), Wanted(Project(stack=(sieve,)), sieve.id), RenderContext(Cache(10**6)))
    for role in ("keep", "drop"):
        clicked(sieve, sample_at(frame, 20, 6, role=role), frame, RenderContext(Cache(10**6)))
    drag_steps(still, sieve)
    frame.reduced(2)


def every_adjustment() -> None:
    """Do every adjustment to a small picture."""
    mask = np.full((48, 64), 0.5, np.float32)
    adjusted(Frame(np.stack([mask] * 3)), Masked(mask, None), example(Sieve()))


def make_ready() -> None:
    """Load all of it, which takes a second; adjustments that are still being compiled are left
    out.
    """
    with gc_pause():
        importlib.import_module(".media.stills.reader", __package__)  # with its libraries
        first_clicks_and_drags()
        if is_warm("rest"):
            every_adjustment()
        # These objects stay: collecting garbage among them would stop a drag for a tenth of a
        # second.
        gc.freeze()
