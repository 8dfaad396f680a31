"""Convert light to screen pixels: the one way, for changed and unchanged pictures alike."""

from __future__ import annotations

import numpy as np

from ..core.colour.gamut import lower_chroma
from ..core.colour.lookup import to_display_pixels
from ..core.colour.screen import codes_to_pixels, to_screen
from ..core.overlays import cut_out
from ..project.model import Project
from .layers import Layers, no_layers


def shown(
    planes: np.ndarray,
    project: Project,
    layers: Layers = no_layers,
    alpha: np.ndarray | None = None,
    box: tuple[slice, slice] | None = None,
    corner: tuple[int, int] = (0, 0),
    quick: bool = False,
) -> np.ndarray:
    """Return light (3, H, W) as screen pixels (H, W) uint32 0xFFRRGGBB, as the export looks.

    Parameters
    ----------
    project : says how colours are brought into gamut, and through which display they are seen.
    alpha : (H, W) float32; where it is below 1 a checkerboard shows through. box : of these rows
        and columns only.
    corner : row and column of the picture at which the light begins.
    quick : a display is looked up in a table, a few levels off, and more outside its gamut: for
        what moves.
    """
    display, lowers = project.display, project.gamut == "lower chroma"
    if not display and alpha is None:
        return to_screen(planes, lowers, box)
    rows, columns = box or (slice(0, None), slice(0, None))  # a box may reach beyond the picture
    light = np.ascontiguousarray(planes[:, rows, columns])
    light = lower_chroma(light) if lowers and not display else light
    if alpha is not None:
        light = cut_out(
            light,
            np.ascontiguousarray(alpha[rows, columns]),
            (corner[0] + rows.start, corner[1] + columns.start),
        )
    if not display:
        return to_screen(light)
    if quick:
        held = layers.display(display)
        return to_display_pixels(light, held.values, held.dark, held.bright)
    return codes_to_pixels(layers.through_display(light, display))
