"""A loose outline round a thing turned into samples that a person can see and change.

All outside the outline is not the thing. What inside is unlike the outside is found by C. Rother,
V. Kolmogorov, A. Blake, "GrabCut" (2004), through OpenCV, on a small picture; then samples are
clicked towards it: the first deepest inside, each next one in the middle of the largest wrong
region, each proposing for itself what any click would.
"""

from __future__ import annotations

from collections.abc import Sequence

import cv2
import numpy as np

from ..core.colour.transfer import to_levels
from ..core.frame import Frame
from ..core.pick.pieces import HALF, deepest
from ..errors import Trouble
from ..language import translator
from ..progress import Progress
from ..project import edits
from ..project.model import Sample, Sieve
from ..render.automatic import found_amounts
from ..render.context import RenderContext
from ..render.mask import mask_of
from .clicking import clicked
from .sampling import sample_at

translate = translator("live")


Points = Sequence[tuple[float, float]]
#: Overlap that each further sample must bring: what is told from the outside is rough, and its
#: mistakes are not to be clicked.
EACH = 0.05
#: The thing is looked for on about this many pixels.
OUTLINED_ON = 160_000
#: In this many rounds.
ROUNDS = 5
#: At most this many samples come out.
MOST = 6
#: A wrong region less deep than this, as a share of the picture's side, needs none.
SHALLOW = 0.004


def _inside(outline: Points, frame: Frame) -> np.ndarray:
    """Return the inside of an outline of full-resolution points, (H, W) bool."""
    inside = np.zeros((frame.height, frame.width), np.uint8)
    points = (np.array(outline, float) - frame.origin) * frame.scale
    cv2.fillPoly(inside, [np.rint(points).astype(np.int32)], 1)
    return inside > 0


def thing_inside(outline: Points, frame: Frame) -> np.ndarray:
    """Return the pixels inside an outline that are unlike the outside, (H, W) bool, of the frame it
    is given.

    Raises
    ------
    Trouble: the outline holds nothing, or everything inside is like the outside.
    """
    small = frame.reduced(max(1, round((frame.width * frame.height / OUTLINED_ON) ** 0.5)))
    inside = _inside(outline, small)
    if len(outline) < 3 or inside.sum() < 50 or inside.all():
        raise Trouble(
            translate(
                "The outline holds nothing to tell from the rest: draw it round the whole thing, "
                "with some room.",
            )
        )
    levels = np.clip(np.rint(to_levels(small.planes)), 0, 255).astype(np.uint8)
    labels = np.where(inside, cv2.GC_PR_FGD, cv2.GC_BGD).astype(np.uint8)
    cv2.setRNGSeed(1)
    image = np.ascontiguousarray(np.moveaxis(levels, 0, -1))
    cv2.grabCut(
        image, labels, None, np.zeros((1, 65)), np.zeros((1, 65)), ROUNDS, cv2.GC_INIT_WITH_MASK
    )
    thing = (labels == cv2.GC_PR_FGD).astype(np.float32)
    if thing.sum() < 50:
        raise Trouble(
            translate(
                "What is inside the outline looks like what is outside: click the thing instead.",
            )
        )
    return cv2.resize(thing, (frame.width, frame.height), interpolation=cv2.INTER_LINEAR) > HALF


def outlined(
    sieve: Sieve,
    outline: Points,
    whole: Frame,
    frame: Frame,
    context: RenderContext,
    number: int,
    progress: Progress,
) -> list[Sample]:
    """Samples that make a mask of the thing inside a loose outline; of those clicked, the first
    ones that come nearest to it.

    Parameters
    ----------
    sieve : its samples are not looked at, all else is kept.
    whole : what it measures at full resolution, for the colours; frame : the whole of it reduced by
        about `clicking.looked_at`.
    number : of the frame, told to the samples; progress : told how far it is, may stop it.

    Raises
    ------
    Trouble: nothing inside can be told from the outside.
    """
    thing = thing_inside(outline, frame)
    progress.step(0.3)
    sieve = edits.with_samples(sieve, ())
    x, y, _ = deepest(thing)
    role, best = "keep", (0.0, sieve.pick.samples)
    for count in range(MOST):
        taken = sample_at(
            whole, (x + 0.5) / frame.scale, (y + 0.5) / frame.scale, number=number, role=role
        )
        stands = found_amounts(sieve, frame, context)
        sieve = edits.with_sample(sieve, clicked(stands, taken, frame, context).sample)
        progress.step(0.3 + 0.7 * (count + 1) / MOST)
        masked = mask_of(frame, found_amounts(sieve, frame, context), context) > HALF
        likeness = float((thing & masked).sum() / max(1, (thing | masked).sum()))
        best = max(best, (likeness - EACH * count, sieve.pick.samples), key=lambda one: one[0])
        miss, leak = deepest(thing & ~masked), deepest(masked & ~thing)
        role = "keep" if miss[2] >= leak[2] else "drop"
        x, y, depth = miss if role == "keep" else leak
        if depth < SHALLOW * min(frame.width, frame.height):
            break
    if not best[1]:
        raise Trouble(
            translate(
                "No samples make a mask of what is inside the outline: click the thing instead.",
            )
        )
    return list(best[1])
