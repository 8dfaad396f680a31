"""Fill what is masked from its surroundings: for small things, as spots that kept an old colour,
cables, marks.

Colours are brought in along lines of equal light (M. Bertalmio, A. L. Bertozzi, G. Sapiro,
"Navier-Stokes, fluid dynamics, and image and video inpainting", 2001, through OpenCV). That leaves
it smooth; texture and grain are what a place beside it, as like its surroundings as can be found,
has beside its own blurred self.
"""

from __future__ import annotations

import itertools

import cv2
import numpy as np

from ..components import components_of
from ..frame import BRIGHTEST
from ..mix import Filling

#: From this value on a pixel is filled in; below it nothing of the old colour is seen.
MASKED = 0.01
#: From this value on it is filled in wholly.
WHOLLY = 0.1
#: From this many full-resolution pixels round it no colour is taken: they may be mixed with what
#: goes.
ROUND = 2.0
#: How far colours are brought in, full-resolution pixels.
RADIUS = 4.0
#: Standard deviation that parts texture and grain from colour, pixels.
FINE = 2.0
#: Room round a piece in which what is like it is looked for, as a share of its size.
ROOM = 1.5
#: Least of that room, pixels.
LEAST_ROOM = 12
#: Places beside a piece that are tried for their texture: this many sizes of it away, in eight
#: directions.
AWAY = (1.1, 1.8)
#: More pieces than this are filled without texture: it would take too long.
MOST_PIECES = 400
#: So are pieces of more pixels than this.
LARGEST = 4_000_000
#: Values of light between which OpenCV's arithmetic is safe.
SAFE = 1e4


def _texture(
    light: np.ndarray, fine: np.ndarray, hole: np.ndarray, box: tuple[int, int, int, int]
) -> np.ndarray | None:
    """Return the texture of a place beside a box (top, left, bottom, right) has beside its blurred
    self, (3, h, w); None where there is none without a hole.

    ``light`` (3, H, W) is smooth and filled in; ``fine`` what was taken from it.
    """
    top, left, bottom, right = box
    height, width = bottom - top, right - left
    here, least, best = light[:, top:bottom, left:right], np.inf, None
    for down, across, away in itertools.product((-1, 0, 1), (-1, 0, 1), AWAY):
        y, x = top + round(down * away * height), left + round(across * away * width)
        if (
            (down, across) == (0, 0)
            or y < 0
            or x < 0
            or y + height > hole.shape[0]
            or x + width > hole.shape[1]
        ):
            continue
        part = np.s_[y : y + height, x : x + width]
        if not hole[part].any():
            unlike = float(np.abs(light[(slice(None), *part)] - here).mean())
            if unlike < least:
                least, best = unlike, fine[(slice(None), *part)]
    return best


def whole(mask: np.ndarray) -> np.ndarray:
    """A mask (H, W) with what is partly masked taken wholly: of a pixel that holds some of what
    goes nothing can stay.
    """
    out: np.ndarray = np.minimum(mask * np.float32(1 / WHOLLY), np.float32(1))
    return out


def of_surroundings(planes: np.ndarray, mask: np.ndarray, scale: float = 1.0) -> Filling:
    """A picture filled in where it is masked.

    Parameters
    ----------
    planes : (3, H, W) float32 linear light; mask : (H, W) float32, `whole`.
    scale : size of the planes relative to full resolution.
    """
    reach = max(1, round(ROUND * scale))
    hole = cv2.dilate(
        (mask > MASKED).astype(np.uint8),
        cv2.getStructuringElement(cv2.MORPH_ELLIPSE, (2 * reach + 1,) * 2),
    )
    out = np.concatenate([planes, np.ones((1, *mask.shape), np.float32)])
    if not hole.any() or hole.all():  # nothing to fill, or nothing to fill it from
        return Filling(out)
    pieces = components_of(hole)
    for label, box in enumerate(pieces.boxes, 1):
        left, top, width, height = (int(value) for value in box)
        room = int(max(LEAST_ROOM, ROOM * max(width, height)))
        y0, x0 = max(0, top - 3 * room), max(0, left - 3 * room)
        around = np.s_[y0 : top + height + 3 * room, x0 : left + width + 3 * room]
        near_box = np.s_[
            max(0, top - room) : top + height + room, max(0, left - room) : left + width + room
        ]
        small = hole[near_box]
        light = np.clip(planes[(slice(None), *near_box)], -SAFE, SAFE)
        filled = np.stack(
            [
                cv2.inpaint(np.ascontiguousarray(plane), small, RADIUS, cv2.INPAINT_NS)
                for plane in light
            ]
        )
        inside = pieces.labels[near_box] == label
        out[(slice(3), *near_box)] = np.where(
            inside, np.nan_to_num(filled), out[(slice(3), *near_box)]
        )
        if len(pieces.areas) >= MOST_PIECES or width * height > LARGEST:
            continue
        wide = np.clip(planes[(slice(None), *around)], -SAFE, SAFE)
        calm = np.stack(
            [
                cv2.GaussianBlur(plane, (0, 0), max(0.5, FINE * scale))
                for plane in np.ascontiguousarray(wide)
            ]
        )
        texture = _texture(
            calm,
            wide - calm,
            hole[around],
            (top - y0, left - x0, top - y0 + height, left - x0 + width),
        )
        if texture is not None:
            box = (slice(3), slice(top, top + height), slice(left, left + width))
            out[box] += np.where(
                pieces.labels[top : top + height, left : left + width] == label, texture, 0
            )
    np.clip(out[:3], -BRIGHTEST, BRIGHTEST, out=out[:3])
    return Filling(out)
