"""The edge of the model, worked on a mask at the scale of a frame: its stages, one after
another.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ..core.edge.box import box_of, copied
from ..core.edge.colour_share import ColourShare
from ..core.edge.follow import EdgeMatte
from .stages.edging import LEAST, Working
from .stages.every import OUTLINE, UNMIXING

#: A box that holds more than this of it is not taken out.
NEARLY_ALL = 0.7


@dataclass(frozen=True)
class Edged:
    """A mask with its edge worked on, what its outline was unmixed into, and how much of the
    surface's colour is there.
    """

    mask: np.ndarray
    unmixed: EdgeMatte | None
    colour: ColourShare | None = None


def outline_worked(working: Working) -> np.ndarray:
    """The mask after the quick stages of its edge, worked where it has anything."""
    edge, shape, clicked = working.edge, working.mask.shape, working.clicked
    if edge.white == 0:  # nothing is too little: all is masked
        return np.ones(shape, np.float32)
    used = [stage for stage in OUTLINE if not stage.is_noop_for(edge)]
    if working.own and all(stage.writes_over for stage in used):
        for stage in used:
            stage.run(working)
        return working.mask
    box = box_of(working.mask, LEAST, sum(stage.spreads(edge) for stage in used) * working.scale)
    if box is None or not used:
        return working.mask
    # What came is let go of: of a large picture there is no room for masks that nobody needs any
    # more.
    held = working.mask[box]
    if (
        NEARLY_ALL * working.mask.size < held.size < working.mask.size
    ):  # put back afterwards it would be copied once more
        working.become(copied(working.mask, box))
    else:
        corner = (box[0].start, box[1].start)
        if held.size < working.mask.size:
            working.become(held.copy())  # rows of all its width would be a part of what came
        working.clicked, working.corner = clicked.seen_from(corner), corner
    del held
    for stage in used:
        stage.run(working)
    if working.mask.shape != shape:
        whole = np.zeros(shape, np.float32)
        whole[box] = working.mask
        working.become(whole)
    working.clicked, working.corner = clicked, (0, 0)
    return working.mask


def edge_of(working: Working) -> Edged:
    """A mask with its edge worked on. Lengths scale with the frame, so a preview shows what the
    export will be.
    """
    edge = working.edge
    if all(stage.is_noop_for(edge) for stage in (*OUTLINE, *UNMIXING)):
        return Edged(working.mask, None)
    working.mask = outline_worked(working)
    return unmixing_worked(working)


def unmixing_worked(working: Working) -> Edged:
    """A mask whose outline the quick stages have worked, after those that look at the picture
    again.
    """
    edge = working.edge
    for stage in UNMIXING:
        if not stage.is_noop_for(edge):
            stage.run(working)
    return Edged(working.mask, working.unmixed, working.colour)
