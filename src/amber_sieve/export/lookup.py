"""Sieves that depend on colour alone, as a 3D lookup table over sRGB-coded values."""

from __future__ import annotations

import pathlib
from dataclasses import dataclass

import numpy as np

from ..core.colour.difference import delta_e_2000, to_cielab
from ..core.colour.gamut import lower_chroma
from ..core.colour.lookup import looked_up
from ..core.colour.transfer import decode, encode
from ..core.frame import Frame
from ..media.colour import lookup_files
from ..progress import Progress
from ..project.model import Project
from ..render.automatic import with_found_amounts
from ..render.cache import Cache
from ..render.context import RenderContext
from ..render.evaluate import working
from ..render.stack import render
from ..render.stages import every as stages
from ..resolve.layers import layers_in

#: Nodes on a side that are offered: 17 and 33 are read everywhere, 65 by most (common practice, no
#: source).
SIZES = (17, 33, 65)


def left_out(project: Project) -> list[str]:
    """Return what a table cannot carry, one line for each sieve that has something of that kind."""
    found = ((sieve.name, stages.left_out(sieve)) for sieve in working(project))
    return [f"{name}: {', '.join(stages_left)}" for name, stages_left in found if stages_left]


def _carried(project: Project) -> Project:
    return project.but(stack=tuple(stages.carried(sieve) for sieve in project.stack), takes=())


def table_of(project: Project, size: int) -> np.ndarray:
    """The table, (size, size, size, 3) float32 sRGB-coded values, by red, green and blue coded in.

    Means of masked colours must have been found (`render.automatic.with_found_means`).
    """
    steps = np.linspace(0, 1, size, dtype=np.float32)
    red, green, blue = np.meshgrid(steps, steps, steps, indexing="ij")
    frame = Frame(
        np.ascontiguousarray(decode(np.stack([red, green, blue]).reshape(3, size, size * size)))
    )
    planes = render(frame, _carried(project), RenderContext())
    planes = lower_chroma(planes) if project.gamut == "lower chroma" else np.clip(planes, 0, 1)
    return np.clip(encode(planes), 0, 1).reshape(3, size, size, size).transpose(1, 2, 3, 0)


def applied(table: np.ndarray, planes: np.ndarray) -> np.ndarray:
    """Linear light (3, H, W) through a table."""
    return decode(looked_up(np.ascontiguousarray(encode(np.clip(planes, 0, 1))), table))


@dataclass(frozen=True)
class Compared:
    """A table, what it leaves out, the picture through it beside its real render (light (3, H, W)),
    and ΔE2000 between them.

    ``mean`` and ``largest`` are against the render of what depends on colour alone,
    ``whole_largest`` against all of it.
    """

    table: np.ndarray
    left_out: list[str]
    through: np.ndarray
    real: np.ndarray
    mean: float
    largest: float
    whole_largest: float


def _in_gamut(project: Project, planes: np.ndarray) -> np.ndarray:
    return lower_chroma(planes) if project.gamut == "lower chroma" else np.clip(planes, 0, 1)


def compared(
    project: Project, whole: Frame, size: int = 33, progress: Progress | None = None
) -> Compared:
    """The table of a project, compared on a picture; raises `Trouble` when a file that the project
    names cannot be read.
    """
    progress = progress or Progress()
    context = RenderContext(Cache(500_000_000))
    layers = layers_in(context)
    found = with_found_amounts(_carried(project), whole, context, layers=layers)
    progress.step(0.2)
    table = table_of(found, size)
    progress.step(0.5)
    small = whole.reduced(max(1, round((whole.width * whole.height / 250_000) ** 0.5)))
    carried_only = _in_gamut(project, render(small, found, context, layers))
    progress.step(0.7)
    all_of_it = with_found_amounts(project.but(takes=()), whole, context, layers=layers)
    real = _in_gamut(project, render(small, all_of_it, context, layers))
    progress.step(0.9)
    through = applied(table, small.planes)
    seen, alone, wholly = (to_cielab(one.reshape(3, -1).T) for one in (through, carried_only, real))
    far = delta_e_2000(seen, alone)
    return Compared(
        table,
        left_out(project),
        through,
        real,
        float(far.mean()),
        float(far.max()),
        float(delta_e_2000(seen, wholly).max()),
    )


def write_lookup(
    project: Project,
    whole: Frame,
    path: pathlib.Path,
    size: int = 33,
    progress: Progress | None = None,
) -> Compared:
    """Write the table of a project as ``.cube`` or ``.clf``, and compare it on the picture it was
    made for.

    Raises
    ------
    Trouble: another ending, or the file could not be written.
    """
    progress = progress or Progress()
    found = compared(project, whole, size, progress)
    lookup_files.write(found.table, path, path.stem)
    progress.step(1.0)
    return found
