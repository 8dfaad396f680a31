"""Let clicked places stand: where an outline was moved over a clicked place, the picked mask comes
back round it.
"""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from ..components import labelled

#: Masked, or not.
HALF = 0.5


def restore_clicked_regions(
    mask: np.ndarray,
    picked: np.ndarray,
    kept: Sequence[tuple[float, float]],
    dropped: Sequence[tuple[float, float]],
    near: float,
) -> np.ndarray:
    """A mask (H, W) float32, worked on from the ``picked`` one, that holds what was kept and not
    what was dropped.

    Where the work took a kept place out, or a dropped one in, the piece that it turned round there
    is as it was picked, up to ``near`` pixels away. ``mask`` itself where there is no such place.
    """
    out = mask
    for places, was in ((kept, True), (dropped, False)):
        for x, y in places:
            column, row = int(x), int(y)
            if not (0 <= row < mask.shape[0] and 0 <= column < mask.shape[1]):
                continue
            top, left = max(0, int(y - near)), max(0, int(x - near))
            part = np.s_[top : int(y + near) + 1, left : int(x + near) + 1]
            turned = ((picked[part] >= HALF) == was) & ((mask[part] >= HALF) != was)
            if not turned[row - top, column - left]:
                continue
            labels = labelled(turned)
            out = mask.copy() if out is mask else out
            np.copyto(out[part], picked[part], where=labels == labels[row - top, column - left])
    return out
