"""A preview that is only shown until it is rendered again."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np

from .preview import Rendered

#: Most pixels of a picture that is only shown until it is rendered again.
GLIMPSE = 150_000


def glimpse_of(result: Rendered) -> Rendered:
    """A preview without its large arrays: enough to be shown, a little coarse, until it is rendered
    again.
    """
    largest = max((pixels.size for pixels in result.pictures.values()), default=0)
    step = max(1, math.ceil((largest / GLIMPSE) ** 0.5))
    pictures = {
        name: np.ascontiguousarray(pixels[::step, ::step])
        for name, pixels in result.pictures.items()
    }
    return replace(
        result,
        pictures=pictures,
        scale=result.scale / step,
        frame=result.frame.part(0, 0, 1, 1),
        whole=result.whole.part(0, 0, 1, 1),
        mask=result.mask[:1, :1].copy(),
        steps={},
        thumbnails={},
        within=None,
        density_within=None,
    )
