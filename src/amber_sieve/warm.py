"""Compiles every kernel once, by running each stage on a small picture, so that nobody waits for the compiler."""

from __future__ import annotations

import itertools
import pathlib
import tempfile

import numpy as np

from .core.frame import Frame
from .jobs.sampling import sample_at
from .jobs.still import finished, strips_of
from .media import stills
from .media.source import About
from .project.model import Adjust, Area, Band, Bands, Edge, Pick, Project, Sieve, Stroke
from .render.cache import Cache
from .render.views import VIEWS, Looking, view


def warm() -> None:
    """Run everything that is compiled."""
    frame = Frame(np.random.default_rng(0).random((3, 48, 64), dtype=np.float32) * np.float32(1.3))
    kinds = itertools.cycle(("surface", "colour", "levels", "hue"))
    samples = tuple(
        sample_at(frame, x, 20, compare=kind, shape=shape)
        for x, kind, shape in zip(range(8, 40, 8), kinds, ("linear", "smooth"), strict=False)
    )
    bands = Bands(hue=Band(on=True, corners=(10, 20, 200, 210)), luminance=Band(on=True, corners=(5, 10, 90, 95), shape="steep"))
    edge = Edge(follow=4, clean=1)
    area = Area(kind="brush", mode="add", strokes=(Stroke(points=((5, 5, 1), (20, 9, 1)), size=9),))
    outline = Area(kind="polygon", points=((2, 2), (60, 4), (30, 40)))
    sieve = Sieve(
        pick=Pick(samples=samples, connected=True, bridge=1), bands=bands, edge=edge, areas=(area, outline), adjust=Adjust(hue=40)
    )
    project = Project(stack=(sieve,))
    for name in VIEWS:
        view(name, frame, project, sieve.id, Looking(), Cache(0))
    with tempfile.TemporaryDirectory() as folder:
        about = About(pathlib.Path("warm.png"), "still", (64, 48), "uint8")
        stills.write(pathlib.Path(folder) / "warm.png", about, lambda: strips_of(finished(frame, project)))


if __name__ == "__main__":
    warm()
