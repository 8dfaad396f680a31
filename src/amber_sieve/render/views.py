"""The views of the plan as words for the screen."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ..core.colour.gamut import lower_chroma
from ..core.colour.transfer import to_screen
from ..core.frame import Frame
from ..core.seeing import cut_out, far_colour, isolate, mask_to_screen, veil
from ..project.model import Project
from .cache import Cache
from .mask import mask_of
from .stack import render

VIEWS = ("Result", "Original", "Mask", "Veil", "Isolate", "Cut-out")


@dataclass(frozen=True)
class Looking:
    """How the views are drawn.

    Attributes
    ----------
    veil_colour : linear light, or None for a colour far from what is covered.
    veil_opacity : 0 to 1.
    veil_outside : lay the veil over the rest instead.
    """

    veil_colour: tuple[float, float, float] | None = None
    veil_opacity: float = 0.6
    veil_outside: bool = False


def view(name: str, frame: Frame, project: Project, sieve_id: str, looking: Looking, cache: Cache) -> np.ndarray:
    """One view of a frame, (H, W) uint32 words 0xFFRRGGBB.

    Parameters
    ----------
    name : one of ``VIEWS``.
    sieve_id : whose mask the mask views show.
    """
    if name == "Original":
        return to_screen(frame.planes)
    if name == "Mask":
        return mask_to_screen(mask_of(frame, project.sieve(sieve_id), cache))
    planes = render(frame, project, cache)
    if name == "Result":
        return to_screen(lower_chroma(planes) if project.gamut == "lower chroma" and planes is not frame.planes else planes)
    mask = mask_of(frame, project.sieve(sieve_id), cache)
    if name == "Veil":
        return to_screen(veil(planes, mask, looking.veil_colour or far_colour(planes, mask), looking.veil_opacity, looking.veil_outside))
    return to_screen(isolate(planes, mask) if name == "Isolate" else cut_out(planes, mask))
