"""Turning a picture and its mask into the view: grey mask, veil, isolate, cut-out."""

from __future__ import annotations

import numpy as np

from .changed import ALL_RUNS, next_stretch
from .colour.measures import WEIGHT_B, WEIGHT_G, WEIGHT_R
from .colour.oklab import one_from_oklab, one_to_oklab
from .colour.screen import to_screen
from .jit.parallel import kernel, prange

#: Side of the squares behind a cut-out, pixels.
SQUARE = 8
#: The paler grey of them, linear light.
PALE = np.float32(0.45)
#: The darker grey of them.
DARK = np.float32(0.30)


@kernel
def _levels(mask: np.ndarray, runs: np.ndarray, out: np.ndarray) -> None:
    for y in prange(mask.shape[0]):
        stop = 0
        while stop < mask.shape[1]:
            start, stop = (
                next_stretch(runs[y], stop, mask.shape[1]) if runs.size > 0 else (0, mask.shape[1])
            )
            source, row = mask[y, start:stop], out[y, start:stop]
            for x in range(row.size):
                row[x] = np.uint8(
                    np.int32(
                        min(max(source[x], np.float32(0)), np.float32(1)) * np.float32(255)
                        + np.float32(0.5)
                    )
                )


def runs_of_mask_to_levels(mask: np.ndarray, runs: np.ndarray, levels: np.ndarray) -> None:
    """Write some runs (H, R) of a mask (H, W), see `changed`, over levels of which the rest stands
    already; else as `mask_to_levels`.
    """
    _levels(mask, runs, levels)


def mask_to_levels(mask: np.ndarray) -> np.ndarray:
    """A mask (H, W) as levels of grey (H, W) uint8: half covered is level 128. One number is scaled
    and drawn in less than half of the time of the four of a screen pixel.
    """
    out = np.empty(mask.shape, np.uint8)
    _levels(mask, ALL_RUNS, out)
    return out


def grey_pixels(levels: np.ndarray) -> np.ndarray:
    """Levels of grey (H, W) uint8 as 0xFFRRGGBB pixels (H, W) uint32."""
    pixels: np.ndarray = levels * np.uint32(0x10101) | np.uint32(0xFF000000)
    return pixels


@kernel
def _veil(
    planes: np.ndarray,
    mask: np.ndarray,
    red: float,
    green: float,
    blue: float,
    inside: float,
    outside: float,
    out: np.ndarray,
) -> None:
    for channel in range(3):
        colour = np.float32(red if channel == 0 else green if channel == 1 else blue)
        base, slope = np.float32(outside), np.float32(inside - outside)
        for y in prange(planes.shape[1]):
            source, m, row = planes[channel, y], mask[y], out[channel, y]
            for x in range(planes.shape[2]):
                row[x] = source[x] + (base + slope * m[x]) * (colour - source[x])


def veil(
    planes: np.ndarray,
    mask: np.ndarray,
    colour: tuple[float, float, float],
    opacity: float = 0.6,
    outside: bool = False,
) -> np.ndarray:
    """A colour laid over what the mask holds (or over the rest).

    Parameters
    ----------
    planes : (3, H, W) float32 linear light; mask : (H, W) float32.
    colour : linear light; opacity : 0 to 1.
    """
    out = np.empty_like(planes)
    _veil(planes, mask, *colour, 0.0 if outside else opacity, opacity if outside else 0.0, out)
    return out


def far_colour(planes: np.ndarray, mask: np.ndarray) -> tuple[float, float, float]:
    """A veil colour far from what the mask covers: the opposite hue at full chroma, light over dark
    and dark over light.

    With nothing covered, or something grey, it is a strong amber.
    """
    step = max(1, planes.shape[1] // 200), max(1, planes.shape[2] // 200)
    weights = mask[:: step[0], :: step[1]]
    total = float(weights.sum())
    if total < 1e-3:
        return 1.0, 0.45, 0.02
    mean = [float((plane[:: step[0], :: step[1]] * weights).sum()) / total for plane in planes]
    light, a, b = one_to_oklab(np.clip(mean, 0, 1))
    chroma = float(np.hypot(a, b))
    if chroma < 0.02:
        return 1.0, 0.45, 0.02
    turned = np.array([0.75 if light < 0.6 else 0.45, -a / chroma * 0.22, -b / chroma * 0.22])
    r, g, b = (float(v) for v in np.clip(one_from_oklab(turned), 0, 1))
    return r, g, b


@kernel
def _isolate(planes: np.ndarray, mask: np.ndarray, out: np.ndarray) -> None:
    for y in prange(planes.shape[1]):
        r, g, b, m = planes[0, y], planes[1, y], planes[2, y], mask[y]
        to_r, to_g, to_b = out[0, y], out[1, y], out[2, y]
        for x in range(planes.shape[2]):
            grey = (WEIGHT_R * r[x] + WEIGHT_G * g[x] + WEIGHT_B * b[x]) * np.float32(0.5)
            to_r[x] = grey + m[x] * (r[x] - grey)
            to_g[x] = grey + m[x] * (g[x] - grey)
            to_b[x] = grey + m[x] * (b[x] - grey)


def isolate(planes: np.ndarray, mask: np.ndarray) -> np.ndarray:
    """The picture with all that is outside the mask grey and darkened."""
    out = np.empty_like(planes)
    _isolate(planes, mask, out)
    return out


@kernel
def _cut_out(planes: np.ndarray, mask: np.ndarray, top: int, left: int, out: np.ndarray) -> None:
    for channel in range(3):
        for y in prange(planes.shape[1]):
            source, m, row = planes[channel, y], mask[y], out[channel, y]
            for x in range(planes.shape[2]):
                ground = PALE if ((x + left) // SQUARE + (y + top) // SQUARE) % 2 == 0 else DARK
                row[x] = ground + m[x] * (source[x] - ground)


def cut_out(planes: np.ndarray, mask: np.ndarray, corner: tuple[int, int] = (0, 0)) -> np.ndarray:
    """The masked picture before a checkerboard; ``corner`` is the row and column of the picture
    where it begins.
    """
    out = np.empty_like(planes)
    _cut_out(planes, mask, *corner, out)
    return out


@kernel
def _weak(mask: np.ndarray, out: np.ndarray) -> None:
    low_from, low_to, high_from, high_to = (
        np.float32(0.01),
        np.float32(0.10),
        np.float32(0.90),
        np.float32(0.99),
    )
    for y in prange(mask.shape[0]):
        source, row = mask[y], out[y]
        for x in range(mask.shape[1]):
            value = source[x]
            level = np.uint32(
                np.int32(
                    min(max(value, np.float32(0)), np.float32(1)) * np.float32(150) + np.float32(40)
                )
            )
            grey = (
                np.uint32(0xFF000000) | (level << np.uint32(16)) | (level << np.uint32(8)) | level
            )
            leak, hole = (
                (value >= low_from) & (value <= low_to),
                (value >= high_from) & (value <= high_to),
            )
            row[x] = LEAK if leak else (HOLE if hole else grey)


#: Colour of nearly nothing (1 to 10 %): a leak.
LEAK = np.uint32(0xFFFF5A1E)
#: Colour of nearly everything (90 to 99 %): a hole.
HOLE = np.uint32(0xFF2FA8FF)


def weak_spots(mask: np.ndarray) -> np.ndarray:
    """A mask as grey pixels (H, W) uint32 with leaks (1 to 10 %) and holes (90 to 99 %) marked,
    where they hide in plain grey.
    """
    out = np.empty(mask.shape, np.uint32)
    _weak(mask, out)
    return out


#: Colour of a pixel that keeps a rim of the old colour.
FRINGED = np.uint32(0xFF2CFF6E)


def _dimmed(planes: np.ndarray) -> np.ndarray:
    """The picture (3, H, W) in dimmed greys, as screen pixels."""
    grey = (WEIGHT_R * planes[0] + WEIGHT_G * planes[1] + WEIGHT_B * planes[2]) * np.float32(0.4)
    return to_screen(np.stack([grey, grey, grey]))


def fringe_marks(planes: np.ndarray, marked: np.ndarray) -> np.ndarray:
    """The picture (3, H, W) in dimmed greys with some pixels (H, W) bool marked, as screen
    pixels.
    """
    pixels = _dimmed(planes)
    pixels[marked] = FRINGED
    return pixels


#: Colours of what is out of gamut, may band, and keeps a rim.
MARKS = np.array([0, 0xFFFF46D2, 0xFFFFC81E, FRINGED], np.uint32)


def believable_marks(planes: np.ndarray, marks: np.ndarray) -> np.ndarray:
    """The picture (3, H, W) in dimmed greys with marks (H, W) of 1 (out of gamut), 2 (banding) and
    3 (rim), as screen pixels.
    """
    return np.where(marks > 0, MARKS[marks], _dimmed(planes))


def with_band(pixels: np.ndarray, band: np.ndarray) -> np.ndarray:
    """Grey screen pixels (H, W) with a band (H, W) bool tinted green."""
    out = pixels.copy()
    out[band] = (out[band] & np.uint32(0xFF00FF00)) | np.uint32(0x00004000)
    return out
