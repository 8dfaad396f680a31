"""Learn about a thing that is to be dyed (`dye.py`): the colour of its body, and how it comes out
in others.
"""

from __future__ import annotations

import math

import numpy as np

from ..colour.measures import WEIGHT_B, WEIGHT_G, WEIGHT_R
from ..colour.powers import exp2_of, log2_of
from ..frame import BRIGHTEST
from ..jit.parallel import inner, serial_kernel
from .dye import (
    FEWEST,
    LEAST_BODY,
    LEAST_DYE,
    LEAST_LIGHT,
    MOST,
    MOST_GLOSS,
    WHITE,
    Body,
    Dye,
    numbers_of,
    three,
)

#: A ridge, for what is matt, on the squared sine of the angle between gloss and body: gloss is told
#: from the body only as far as their colours differ. A matt thing's paler places are lit otherwise;
#: told as gloss they would keep the old colour (docs/formulas.md).
MATT = 1.5
#: The same ridge for what is glossy.
GLOSSY = 0.02
#: A thing begins to be glossy when its brightest light holds more gloss than its middling light by
#: this share of the luminance.
SHINES = 0.08
#: And from this share on it is wholly glossy; both by trial on the generator's things of
#: docs/formulas.md.
SHINES_WHOLLY = 0.3
#: Ridge with which it is asked whether a thing is glossy: between those of the matt and of the
#: glossy.
ASKED = 0.05
#: Share of the pixels that counts as brightest: small gloss takes about this much of a jar.
BRIGHTEST_SHARE = 0.01
#: Quantiles of luminance between which light counts as middling.
MIDDLING = (0.4, 0.6)
#: Share of the pixels, the darkest ones, that the direction of the body's colour is taken from:
#: gloss is least there.
DARKER = 0.7


def _telling(toward: np.ndarray, ridge: float) -> np.ndarray:
    """Return how much each channel says of the gloss (3,) float32, for a body in some direction:
    least squares of body and white, with a ridge.
    """
    along = float(toward @ WHITE)
    out: np.ndarray = ((WHITE - along * toward) / (1 - along**2 + ridge)).astype(np.float32)
    return out


@inner
def _gloss_in(red: np.float32, green: np.float32, blue: np.float32, told: np.ndarray) -> np.float32:
    """Gloss of a pixel, the same in each channel."""
    weakest = max(min(red, min(green, blue)), np.float32(0)) * np.float32(MOST_GLOSS)
    return min(
        max(told[0] * red + told[1] * green + told[2] * blue, np.float32(0)) * np.float32(WHITE[0]),
        weakest,
    )


@serial_kernel
def _sum_darker(
    light: np.ndarray, share: np.ndarray, luminance: np.ndarray, darker: float, out: np.ndarray
) -> None:
    red = green = blue = 0.0
    for x in range(luminance.size):
        counts = share[x] if luminance[x] <= darker else 0.0
        red, green, blue = (
            red + counts * light[0, x],
            green + counts * light[1, x],
            blue + counts * light[2, x],
        )
    out[0], out[1], out[2] = red, green, blue


@serial_kernel
def _gloss_shares(
    light: np.ndarray,
    told: np.ndarray,
    luminance: np.ndarray,
    low: float,
    high: float,
    brightest: float,
    out: np.ndarray,
) -> None:
    """The mean share of gloss in the luminance of the brightest pixels, and of the middling
    ones.
    """
    bright = middling = bright_count = middling_count = 0.0
    for x in range(luminance.size):
        share = _gloss_in(light[0, x], light[1, x], light[2, x], told) / max(
            luminance[x], np.float32(LEAST_LIGHT)
        )
        is_bright, is_middling = (
            luminance[x] >= brightest,
            (luminance[x] >= low) & (luminance[x] <= high),
        )
        bright, bright_count = bright + (share if is_bright else 0.0), bright_count + is_bright
        middling, middling_count = (
            middling + (share if is_middling else 0.0),
            middling_count + is_middling,
        )
    out[0], out[1] = bright / bright_count, middling / middling_count


@serial_kernel
def _sum_body(light: np.ndarray, told: np.ndarray, share: np.ndarray, out: np.ndarray) -> None:
    red = green = blue = 0.0
    least = np.float32(LEAST_LIGHT)
    for x in range(share.size):
        r, g, b, counts = light[0, x], light[1, x], light[2, x], share[x]
        gloss = _gloss_in(r, g, b, told)
        red, green, blue = (
            red + counts * max(r - gloss, least),
            green + counts * max(g - gloss, least),
            blue + counts * max(b - gloss, least),
        )
    out[0], out[1], out[2] = red, green, blue


def _ready(light: np.ndarray, weights: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """Light (3, N) float32 within bounds, and how much each pixel counts (N,), 1 in all."""
    return np.clip(light, -BRIGHTEST, BRIGHTEST).astype(np.float32), (
        weights / weights.sum()
    ).astype(np.float64)


def found_body(light: np.ndarray, weights: np.ndarray) -> Body:
    """Return a thing's own colour.

    Parameters
    ----------
    light : (3, N) linear light of its pixels.
    weights : (N,) how much each counts, not all 0.
    """
    return _body_of(*_ready(light, weights))


def _body_of(light: np.ndarray, share: np.ndarray) -> Body:
    luminance = np.array([WEIGHT_R, WEIGHT_G, WEIGHT_B], np.float32) @ light
    ordered, last, sums = np.sort(luminance), luminance.size - 1, np.empty(3)
    low, high = (
        ordered[int(MIDDLING[0] * last)],
        ordered[math.ceil(MIDDLING[1] * last)],
    )  # of two pixels some are middling too
    _sum_darker(light, share, luminance, float(ordered[int(DARKER * last)]), sums)
    length = float(np.linalg.norm(sums))
    toward = sums / length if length > LEAST_LIGHT else WHITE
    _gloss_shares(
        light,
        _telling(toward, ASKED),
        luminance,
        float(low),
        float(high),
        float(ordered[math.ceil((1 - BRIGHTEST_SHARE) * last)]),
        sums,
    )
    shine = float(np.clip((sums[0] - sums[1] - SHINES) / (SHINES_WHOLLY - SHINES), 0, 1))
    told = _telling(toward, MATT ** (1 - shine) * GLOSSY**shine)
    _sum_body(light, told, share, sums)
    colour = np.maximum(sums / sums.max(), LEAST_BODY)
    return Body(three(colour), three(told), three(sums))


@serial_kernel
def _take_apart(light: np.ndarray, given: np.ndarray, out: np.ndarray) -> None:
    """Gloss, logarithms of s · e, n, and what is not explained: 1, 3, 1 and 3 rows; see the step of
    `dye`.
    """
    least, fewest, most = np.float32(LEAST_LIGHT), np.float32(FEWEST), np.float32(MOST)
    for x in range(light.shape[1]):
        gloss = _gloss_in(light[0, x], light[1, x], light[2, x], given[:3])
        red, green, blue = light[0, x] - gloss, light[1, x] - gloss, light[2, x] - gloss
        log_r, log_g, log_b = (
            log2_of(max(red, least)),
            log2_of(max(green, least)),
            log2_of(max(blue, least)),
        )
        bounces = min(
            max(given[10] + given[7] * log_r + given[8] * log_g + given[9] * log_b, fewest), most
        )
        strength = given[3] * log_r + given[4] * log_g + given[5] * log_b - bounces * given[6]
        lit_r = strength + given[18] * (log_r - strength - bounces * given[11])
        lit_g = strength + given[19] * (log_g - strength - bounces * given[12])
        lit_b = strength + given[20] * (log_b - strength - bounces * given[13])
        out[0, x], out[1, x], out[2, x], out[3, x], out[4, x] = gloss, lit_r, lit_g, lit_b, bounces
        out[5, x] = red - exp2_of(lit_r + bounces * given[11])
        out[6, x] = green - exp2_of(lit_g + bounces * given[12])
        out[7, x] = blue - exp2_of(lit_b + bounces * given[13])


@serial_kernel
def _put_together(parts: np.ndarray, given: np.ndarray, out: np.ndarray) -> None:
    """Light (3, N) of a body in another colour, without its gloss."""
    for k in range(3):
        new, kept = given[14 + k], given[21 + k]
        for x in range(out.shape[1]):
            out[k, x] = (
                exp2_of(parts[1 + k, x] + given[17] + parts[4, x] * new) + parts[5 + k, x] * kept
            )


class Thing:
    """The pixels of a thing taken apart once, to be put together in one colour after another.

    Parameters
    ----------
    light : (3, N) linear light; weights : (N,), not all 0.
    """

    #: Rounds at most, in which the mean comes as near to what is wanted as `NEAR`, linear light;
    #: one round changes a channel by at most `FASTEST`.
    ROUNDS, NEAR, FASTEST = 60, 1e-5, (0.5, 2.0)

    def __init__(self, light: np.ndarray, weights: np.ndarray) -> None:
        light, self._share = _ready(light, weights)
        self.body = _body_of(light, self._share)
        self._parts = np.empty((8, light.shape[1]), np.float32)
        self._matt = np.empty_like(light)
        _take_apart(light, numbers_of(Dye(self.body, self.body.colour)), self._parts)

    def _in(self, colour: np.ndarray) -> np.ndarray:
        """Its light (3, N) in a colour, without its gloss; written over by the next."""
        _put_together(self._parts, numbers_of(Dye(self.body, three(colour))), self._matt)
        return self._matt

    def in_colour(self, dye: Dye) -> np.ndarray:
        """Its light (3, N) under a dye."""
        out: np.ndarray = np.clip(
            self._in(np.array(dye.colour)) + self._parts[0], -BRIGHTEST, BRIGHTEST
        )
        return out

    def towards(self, target: np.ndarray) -> Dye:
        """The dye that brings the mean light to a target (3,), or as near to it as the gloss lets
        it.
        """
        goal = np.maximum(
            np.clip(target, 0, BRIGHTEST) - float(self._parts[0] @ self._share), LEAST_LIGHT
        )
        lit = np.exp2(self._parts[1:4]) @ self._share
        colour = np.maximum(goal / np.maximum(lit, LEAST_LIGHT), LEAST_DYE)
        for _ in range(self.ROUNDS):
            got = self._in(colour) @ self._share
            if np.abs(got - goal).max() < self.NEAR * max(1.0, float(goal.max())):
                break
            colour = np.clip(
                colour * np.clip(goal / np.maximum(got, LEAST_LIGHT), *self.FASTEST),
                LEAST_DYE,
                BRIGHTEST,
            )
        return Dye(self.body, three(colour))
