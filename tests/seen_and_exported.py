"""What is seen against what is exported, for any project: `tools/ends.py` and `test_ends.py` ask
it.

A picture is exported as 8 bits of sRGB and shown at 1:1, whole and in part; the pixels may be one
level apart. Views that lay something over the light are worked out from the exported light.
"""

import pathlib
import tempfile

import ends
import numpy as np

from amber_sieve.core.overlays import cut_out, far_colour, isolate, veil
from amber_sieve.errors import Trouble
from amber_sieve.export.frame import finished, strips_of
from amber_sieve.live.parts import Shown
from amber_sieve.live.preview import Opened, Wanted, make_waiting_fine, preview
from amber_sieve.media import stills
from amber_sieve.project.model import Project
from amber_sieve.render.cache import Cache
from amber_sieve.render.context import RenderContext
from amber_sieve.render.evaluate import working

#: Views that show light, and levels by which they may be off.
VIEWS, MOST = ("result", "original", "other take", "veil", "isolate", "cut-out"), 1


def to_grey8(pixels: np.ndarray) -> np.ndarray:
    """Return screen pixels (H, W) as levels (3, H, W)."""
    return np.stack([pixels >> 16 & 255, pixels >> 8 & 255, pixels & 255]).astype(int)


def exported(light: np.ndarray, source: ends.Made, project: Project) -> np.ndarray:
    """Return the levels (3, H, W) of light that has been written into a file."""
    with tempfile.TemporaryDirectory() as folder:
        path = pathlib.Path(folder) / "a.png"
        form = stills.StillForm("uint8", gamut=project.gamut, display=project.display)
        stills.write(path, source.about, lambda: strips_of(light), form)
        import OpenImageIO as oiio

        held = oiio.ImageInput.open(str(path))
        codes = held.read_image("uint8")
        held.close()
    return np.moveaxis(codes.reshape(*light.shape[1:], -1)[..., :3].astype(int), -1, 0)


def finished_or_none(source: ends.Made, project: Project, number: int, **what):
    """Return what is finished, None where it says that something is missing."""
    try:
        return finished(source, project, number, **what)
    except Trouble:
        return None


def check(project: Project, planes: np.ndarray, frames: int, number: int) -> int:
    """Compare every view that shows light with what is exported; returns how many were. Raises
    AssertionError with the view that differs.
    """
    source, last = ends.Made(planes, frames), project.stack[-1].id
    other = project.takes[0] if project.takes else None
    made = finished(source, project, number, masks=[last])
    wanted = {
        "result": exported(made.result.planes, source, project),
        "original": exported(made.frame.planes, source, project),
    }
    if other is not None:
        wanted["other take"] = exported(
            finished(
                source, project.but(stack=other.stack, solo="", takes=()), number
            ).result.planes,
            source,
            project,
        )
    mask, light = made.masks[last], made.result.planes
    wanted["isolate"] = exported(isolate(light, mask), source, project)
    wanted["cut-out"] = exported(cut_out(light, mask), source, project)
    opaque = (
        np.ones(planes.shape[1:], bool) if made.result.alpha is None else made.result.alpha == 1
    )
    count = 0
    for box in ((0, 0, 0, 0), (8, 6, 36, 30)):
        opened, cache = Opened(source), RenderContext(Cache(200_000_000))
        request = Wanted(project, last, number, Shown(1, box, VIEWS))
        seen = preview(opened, request, cache)
        if seen.waiting:  # matting is made in the background
            make_waiting_fine(seen, cache, lambda share: None)
            seen = preview(opened, request, cache)
        left, top, right, bottom = box if any(box) else (0, 0, planes.shape[2], planes.shape[1])
        here = np.s_[top:bottom, left:right]
        colour = request.looking.veil_colour or far_colour(light, mask)
        if not any(box):  # the veil takes its colour from what is in view
            wanted["veil"] = exported(
                veil(light, mask, colour, request.looking.veil_opacity), source, project
            )
        for name in VIEWS:
            if name not in wanted or (name == "veil" and any(box)):
                continue
            far = np.abs(to_grey8(seen.pictures[name]) - wanted[name][:, *here])
            far = far[:, opaque[here]] if name in ("result", "veil", "isolate", "cut-out") else far
            if far.size and far.max() > MOST:
                raise AssertionError(f"{name} of {box} is {far.max()} levels from what is exported")
            count += 1
    assert (
        finished_or_none(source, project, number, masks=[sieve.id for sieve in working(project)])
        is not None
    ), "a batch asks for more"
    return count
