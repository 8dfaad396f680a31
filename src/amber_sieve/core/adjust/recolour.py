"""Recolour: hue, saturation, vibrance and lightness in Oklab, and one hue for all."""

from __future__ import annotations

from typing import Any

import numpy as np

from ..jit.parallel import carray, row_step
from .chain import Step

#: Chroma by lightness that vibrance takes as rich: about what the weakest primary of sRGB has.
RICH = 0.35
#: Oklab hue of skin, degrees: skin of all tones lies between 35 and 65 (measured on the skin
#: patches of a colour chart).
SKIN_HUE = 50.0
#: Cosine of the distance from it at which vibrance begins to spare a hue.
SKIN_FROM = float(np.cos(np.radians(35)))
#: Cosine of the distance within which vibrance spares a hue wholly: the 15 degrees to either side
#: that skin takes.
SKIN_WHOLLY = float(np.cos(np.radians(15)))


@row_step
def _recolour(row: Any, width: int, numbers: Any) -> None:
    planes, given = carray(row, (3, width)), carray(numbers, 3)
    lightness, a, b = planes[0], planes[1], planes[2]
    one, zero = np.float32(1), np.float32(0)
    cos, sin, lift = np.float32(given[0]), np.float32(given[1]), np.float32(given[2])
    for x in range(width):
        light, green_red, blue_yellow = lightness[x], a[x], b[x]
        a[x], b[x] = green_red * cos - blue_yellow * sin, green_red * sin + blue_yellow * cos
        goal = max(light, one) if lift > zero else zero
        lightness[x] = light + (goal - light) * abs(lift)


@row_step
def _vibrance(row: Any, width: int, numbers: Any) -> None:
    planes, amount = carray(row, (3, width)), np.float32(carray(numbers, 1)[0])
    lightness, a, b = planes[0], planes[1], planes[2]
    zero, one, two, three, tiny = (
        np.float32(0),
        np.float32(1),
        np.float32(2),
        np.float32(3),
        np.float32(1e-6),
    )
    skin_a, skin_b = (
        np.float32(np.cos(np.radians(SKIN_HUE))),
        np.float32(np.sin(np.radians(SKIN_HUE))),
    )
    skin_from, skin_over, over = (
        np.float32(SKIN_FROM),
        np.float32(1 / (SKIN_WHOLLY - SKIN_FROM)),
        np.float32(1 / RICH),
    )
    for x in range(width):
        chroma = np.sqrt(a[x] * a[x] + b[x] * b[x])
        rich = min(chroma / max(abs(lightness[x]), tiny) * over, one)
        t = min(
            max(
                ((a[x] * skin_a + b[x] * skin_b) / max(chroma, tiny) - skin_from) * skin_over, zero
            ),
            one,
        )
        factor = one + amount * (one - rich) * (one - t * t * (three - two * t))
        a[x] *= factor
        b[x] *= factor


@row_step
def _drawn(row: Any, width: int, numbers: Any) -> None:
    planes, given = carray(row, (3, width)), carray(numbers, 3)
    a, b = planes[1], planes[2]
    cos, sin, share, tiny = (
        np.float32(given[0]),
        np.float32(given[1]),
        np.float32(given[2]),
        np.float32(1e-9),
    )
    rest = np.float32(1) - share
    for x in range(width):
        chroma = np.sqrt(a[x] * a[x] + b[x] * b[x])
        to_a, to_b = rest * a[x] + share * chroma * cos, rest * b[x] + share * chroma * sin
        scale = chroma / max(np.sqrt(to_a * to_a + to_b * to_b), tiny)
        a[x], b[x] = to_a * scale, to_b * scale


def drawn_to_hue(hue: float, amount: float) -> Step:
    """Hues drawn towards one (degrees) by an amount (per cent), on the shorter way; chroma and
    lightness stay.
    """
    angle = np.radians(hue)
    return Step(
        _drawn.address, (float(np.cos(angle)), float(np.sin(angle)), amount / 100), lab=True
    )


def steps(
    hue: float = 0.0,
    saturation: float = 0.0,
    vibrance: float = 0.0,
    lightness: float = 0.0,
    one_hue: float = 0.0,
    one_hue_at: float = 0.0,
) -> list[Step]:
    """Recolouring as steps of a chain; none when nothing is to be changed.

    Parameters
    ----------
    hue : degrees to turn the Oklab hue by.
    saturation : -100 (grey) to 100 (twice the chroma), per cent.
    vibrance : the same, less for colours that are rich already, and none for those of skin.
    lightness : -100 (black) to 100 (white), per cent of the way there, in Oklab; chroma goes the
        same way to nothing, so darkening keeps hue and saturation as less light would.
    one_hue : per cent of the way that all hues are drawn to ``one_hue_at`` (degrees).
    """
    made = [Step(_vibrance.address, (vibrance / 100,), lab=True)] if vibrance else []
    if one_hue:
        made.append(drawn_to_hue(one_hue_at, one_hue))
    if hue or saturation or lightness:
        lift = float(np.clip(lightness, -100, 100)) / 100
        chroma = max(0.0, 1 + saturation / 100) * (1 - abs(lift))
        angle = np.radians(hue)
        made.append(
            Step(
                _recolour.address,
                (float(np.cos(angle) * chroma), float(np.sin(angle) * chroma), lift),
                lab=True,
            )
        )
    return made
