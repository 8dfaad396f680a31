"""Fill: a colour, a gradient or another picture, inside the mask or behind what it holds."""

from __future__ import annotations

import cv2
import numpy as np

from ..frame import BRIGHTEST, Frame
from ..mix import Filling


def _layer(colour: tuple[float, float, float]) -> np.ndarray:
    """A colour as red, green, blue and alpha (4,), within the light that pictures hold."""
    return np.array([*np.clip(colour, -BRIGHTEST, BRIGHTEST), 1], np.float32)


def of_colour(colour: tuple[float, float, float], behind: bool = False) -> Filling:
    """One colour, linear light."""
    return Filling(_layer(colour)[:, None, None], behind)


def of_gradient(
    colour: tuple[float, float, float],
    to: tuple[float, float, float],
    angle: float,
    size: tuple[int, int],
    frame: Frame,
    behind: bool = False,
) -> Filling:
    """A straight gradient over a whole picture, mixed in linear light, as the part of it that a
    frame shows.

    Parameters
    ----------
    angle : degrees of the way from the first colour to the second: 0 to the right, 90 downwards.
        The way ends at the picture's corners.
    size : width and height of the whole picture, full-resolution pixels.
    """
    across, down = np.cos(np.radians(angle)), np.sin(np.radians(angle))
    length = abs(across) * size[0] + abs(down) * size[1]
    columns = (np.arange(frame.width) + 0.5) / frame.scale + frame.origin[0] - size[0] / 2
    rows = (np.arange(frame.height) + 0.5) / frame.scale + frame.origin[1] - size[1] / 2
    share = np.clip(
        0.5 + (columns[None] * across + rows[:, None] * down) / max(length, 1), 0, 1
    ).astype(np.float32)
    return Filling(
        np.stack([a + share * (b - a) for a, b in zip(_layer(colour), _layer(to), strict=True)]),
        behind,
    )


def of_picture(
    picture: Frame,
    across: float,
    down: float,
    scale: float,
    size: tuple[int, int],
    frame: Frame,
    behind: bool = False,
) -> Filling:
    """Another picture over a whole one, as the part of it that a frame shows: transparent where the
    other does not reach.

    Parameters
    ----------
    picture : the whole of it, at full resolution.
    across, down : how far its middle is moved, per cent of the whole picture's width and height.
    scale : per cent of the size at which it just covers the whole picture.
    size : width and height of the whole picture, full-resolution pixels.
    """
    cover = max(size[0] / picture.width, size[1] / picture.height) * scale / 100
    shrink = cover * frame.scale
    # Reduced by a mean first: the interpolation that follows looks at the nearest pixels only.
    picture = picture.reduced(max(1, int(1 / shrink)))
    step = shrink / picture.scale
    middle_x = (size[0] * (0.5 + across / 100) - frame.origin[0]) * frame.scale
    middle_y = (size[1] * (0.5 + down / 100) - frame.origin[1]) * frame.scale
    matrix = np.array(
        [
            [step, 0, middle_x - step * picture.width / 2 + step / 2 - 0.5],
            [0, step, middle_y - step * picture.height / 2 + step / 2 - 0.5],
        ]
    )
    wanted = (frame.width, frame.height)

    def placed(plane: np.ndarray, border: int) -> np.ndarray:
        return cv2.warpAffine(plane, matrix, wanted, flags=cv2.INTER_LINEAR, borderMode=border)

    own = (
        np.ones((picture.height, picture.width), np.float32)
        if picture.alpha is None
        else picture.alpha
    )
    alpha = np.clip(placed(own, cv2.BORDER_CONSTANT), 0, 1)
    return Filling(
        np.stack([*(placed(plane, cv2.BORDER_REPLICATE) for plane in picture.planes), alpha]),
        behind,
    )
