"""Sieves that depend on colour alone, as a 3D lookup table over sRGB-coded values."""

from __future__ import annotations

import pathlib
from dataclasses import dataclass

import numpy as np

from ..core.colour.difference import delta_e_2000, to_cielab
from ..core.colour.gamut import lower_chroma
from ..core.colour.transfer import decode, encode
from ..core.frame import Frame
from ..media import lookup_files
from ..project.model import Edge, Project, Sieve
from ..render.automatic import with_found_means, with_table
from ..render.cache import Cache
from ..render.measured import working
from ..render.stack import render
from .layers import layers_in
from .progress import Progress

SIZES = (17, 33, 65)
#: Edge numbers that look at the mask's value alone.
POINTWISE_EDGE = ("black", "white", "gamma", "hard")


def carried(sieve: Sieve) -> Sieve:
    """The sieve with only what depends on colour."""
    edge = Edge(specks=0, holes=0, follow=0, clean=0).but(**{name: getattr(sieve.edge, name) for name in POINTWISE_EDGE})
    samples = tuple(sample for sample in sieve.pick.samples if sample.reach == "everywhere")
    pick = sieve.pick.but(samples=samples, connected=False, measure="original" if sieve.pick.measure == "layer" else sieve.pick.measure)
    fill, detail = sieve.adjust.fill, sieve.adjust.detail
    fill = fill.but(fill="off") if fill.fill != "colour" or fill.fill_where == "behind" else fill
    return sieve.but(areas=(), pick=pick, edge=edge, adjust=sieve.adjust.but(fill=fill, detail=detail.but(on=False)))


def left_out(project: Project) -> list[str]:
    """What a table cannot carry, one line for each sieve that has something of that kind."""
    lines = []
    for sieve in project.stack:
        edge, pick = sieve.edge, sieve.pick
        found = {
            "areas": any(area.on for area in sieve.areas),
            "connected only": pick.connected,
            "samples that reach only here": any(s.on and s.reach == "here" for s in pick.samples),
            "a layer that is measured": pick.measure == "layer",
            "specks, holes or islands": bool(edge.specks or edge.holes or edge.all_holes or edge.islands_out or edge.islands_only),
            "the work on its edge": bool(edge.grow or edge.feather or edge.smooth or edge.follow or edge.fine or edge.clean),
            "detail": not sieve.adjust.detail.neutral,
            "its filling": sieve.adjust.fill != carried(sieve).adjust.fill,
        }
        if sieve in working(project) and any(found.values()):
            lines.append(f"{sieve.name}: {', '.join(name for name, there in found.items() if there)}")
    return lines


def _carried(project: Project) -> Project:
    return project.but(stack=tuple(carried(sieve) for sieve in project.stack), takes=())


def table_of(project: Project, size: int) -> np.ndarray:
    """The table, (size, size, size, 3) float32 sRGB-coded values, by red, green and blue coded in.

    Means of masked colours must have been found (`render.automatic.with_found_means`).
    """
    steps = np.linspace(0, 1, size, dtype=np.float32)
    red, green, blue = np.meshgrid(steps, steps, steps, indexing="ij")
    frame = Frame(np.ascontiguousarray(decode(np.stack([red, green, blue]).reshape(3, size, size * size))))
    planes = render(frame, _carried(project), Cache(0))
    planes = lower_chroma(planes) if project.gamut == "lower chroma" else np.clip(planes, 0, 1)
    return np.clip(encode(planes), 0, 1).reshape(3, size, size, size).transpose(1, 2, 3, 0)


def applied(table: np.ndarray, planes: np.ndarray) -> np.ndarray:
    """Linear light (3, H, W) through a table, by straight lines between its eight nearest entries."""
    size = table.shape[0]
    place = np.clip(encode(np.clip(planes, 0, 1)), 0, 1) * (size - 1)
    low = np.minimum(place.astype(np.int32), size - 2)
    part = place - low
    out = np.zeros((*planes.shape[1:], 3), np.float32)
    for corner in np.ndindex(2, 2, 2):
        weight = np.prod([part[k] if corner[k] else 1 - part[k] for k in range(3)], axis=0, dtype=np.float32)
        out += weight[..., None] * table[tuple(low[k] + corner[k] for k in range(3))]
    return decode(out.transpose(2, 0, 1))


@dataclass(frozen=True)
class Written:
    """What has been written: what was left out, and ΔE2000 between a picture through the table and its real render."""

    left_out: list[str]
    mean: float
    largest: float


def write_lookup(project: Project, whole: Frame, path: pathlib.Path, size: int = 33, progress: Progress | None = None) -> Written:
    """Write the table of a project as ``.cube`` or ``.clf``, and compare it on the picture it was made for.

    Raises
    ------
    Trouble: another ending, or the file could not be written.
    """
    progress = progress or Progress()
    cache = Cache(500_000_000)
    layers = layers_in(cache)
    carries = _carried(project)
    carries = carries.but(stack=tuple(with_table(sieve, layers) for sieve in carries.stack))
    found = with_found_means(carries, whole, cache, layers)
    progress.step(0.2)
    table = table_of(found, size)
    progress.step(0.5)
    lookup_files.write(table, path, path.stem)
    small = whole.reduced(max(1, round((whole.width * whole.height / 250_000) ** 0.5)))
    real = render(small, found, cache, layers)
    real = lower_chroma(real) if project.gamut == "lower chroma" else np.clip(real, 0, 1)
    progress.step(0.8)
    far = delta_e_2000(*(to_cielab(one.reshape(3, -1).T) for one in (applied(table, small.planes), real)))
    progress.step(1.0)
    return Written(left_out(project), float(far.mean()), float(far.max()))
