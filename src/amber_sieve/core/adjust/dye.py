"""Recolouring as if a thing had been dyed: only the colour of its body changes; light, shade, bounces and gloss stay.

A pixel of a thing is c = s · rho^n · e + g · W: rho is the colour of the body (its largest channel 1), s how strongly it is lit, n how often
light bounced from body to body before it left (1 on open places, more in folds), e the colour of the light where the channels do not
agree, and g the gloss, which has the colour W of the light and nothing of the body. A dye puts another colour in the place of rho. So a
fold becomes deeper in the new colour, where adding a colour would leave it a tinge of the old one, and gloss stays as it was.

What a channel tells is believed as far as the body sends light back there: a channel in which it hardly does holds noise and stray light.
What it does not explain is kept as it is, the less of it the farther the colour of that channel moves; so a dye of the same colour changes nothing.
"""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any

import numpy as np

from ..colour.powers import exp2_of, log2_of
from ..frame import BRIGHTEST
from ..parallel import carray, row_step
from .chain import Step, bounded

#: Of the light in a pixel's weakest channel, what gloss may be at most.
MOST_GLOSS = 0.98
#: How often light bounced is told only as far as the channels of the body differ: a ridge on the variance of their natural logarithms.
BOUNCE = 1.0
#: Fewest bounces that are told: light that falls straight onto a flat thing bounces less than once.
FEWEST = 0.6
#: Most bounces that are told: deeper folds are too dark for more to be seen.
MOST = 2.0
#: A channel is believed wholly where the body sends back more than one over this of what it does in its largest channel.
TRUST = 2.0
#: Least that a channel counts in the strength of the light.
LEAST_TRUST = 0.05
#: Least light of a body: what is darker has no colour that could be told.
LEAST_LIGHT = 1e-5
#: Least colour of a body against its largest channel, so that none is divided by nothing.
LEAST_BODY = 0.01
#: Least colour of a dye, for the same reason.
LEAST_DYE = 1e-5
#: White light, as a direction.
WHITE = np.full(3, 3**-0.5)

Colour = tuple[float, float, float]


@dataclass(frozen=True)
class Body:
    """What is learnt of a thing's own colour.

    Attributes
    ----------
    colour : rho, its largest channel 1.
    gloss : how much each channel says of the gloss: the gloss of a pixel is its light times this, summed.
    mean : linear light of the body where its gloss is taken off, on average.
    """

    colour: Colour = (1.0, 1.0, 1.0)
    gloss: Colour = (0.0, 0.0, 0.0)
    mean: Colour = (0.2, 0.2, 0.2)


@dataclass(frozen=True)
class Dye:
    """A body, and the colour that it gets: in units of the body's, so that (1, 1, 1) times its colour changes nothing."""

    body: Body = field(default_factory=Body)
    colour: Colour = (1.0, 1.0, 1.0)


@dataclass(frozen=True)
class _Terms:
    """What a body's colour comes to in the formula, each (3,): natural logarithms, shares that sum to 1, how n is told, and trust."""

    logs: np.ndarray
    shares: np.ndarray
    slopes: np.ndarray
    trust: np.ndarray
    middle: float
    open: float


def _terms(body: Body) -> _Terms:
    colour = np.array(body.colour)
    trust = np.clip(colour * TRUST, LEAST_TRUST, 1)
    shares, logs = trust / trust.sum(), np.log(colour)
    middle = float((logs * shares).sum())
    variance = float(((logs - middle) ** 2 * shares).sum())
    # The slope of the pixel's logarithms over the body's, drawn towards 1: n = open + sum of slopes times logarithms.
    told = 1 / (variance + BOUNCE)
    return _Terms(logs, shares, shares * (logs - middle) * told, np.clip(colour * TRUST, 0, 1), middle, 1 - variance * told)


def _kept(body: Body, colour: np.ndarray) -> np.ndarray:
    """Of what is not explained, the share that stays in each channel (3,) under another colour."""
    ratio = colour / np.array(body.colour)
    kept: np.ndarray = np.minimum(ratio, 1 / ratio)
    return kept


def three(values: np.ndarray) -> Colour:
    """Three numbers of an array."""
    one, two, three = (float(value) for value in values)
    return one, two, three


def redyed(body: Body, mean: np.ndarray) -> Dye:
    """The dye that makes the mean colour of a body another (3,), linear light."""
    ratio = np.clip(mean, 0, BRIGHTEST) / np.array(body.mean)
    return Dye(body, three(np.clip(ratio * np.array(body.colour), LEAST_DYE, BRIGHTEST)))


#: How many numbers the step is given.
NUMBERS = 24


@row_step
def _dye(row: Any, width: int, numbers: Any) -> None:
    planes, given = carray(row, (3, width)), carray(numbers, NUMBERS)
    r, g, b = planes[0], planes[1], planes[2]
    gloss_r, gloss_g, gloss_b, white = given[0], given[1], given[2], np.float32(WHITE[0])
    share_r, share_g, share_b, middle = given[3], given[4], given[5], given[6]
    slope_r, slope_g, slope_b, straight = given[7], given[8], given[9], given[10]
    old_r, old_g, old_b = given[11], given[12], given[13]
    new_r, new_g, new_b, top = given[14], given[15], given[16], given[17]
    trust_r, trust_g, trust_b = given[18], given[19], given[20]
    kept_r, kept_g, kept_b = given[21], given[22], given[23]
    zero, least, most_gloss = np.float32(0), np.float32(LEAST_LIGHT), np.float32(MOST_GLOSS)
    fewest, most = np.float32(FEWEST), np.float32(MOST)
    for x in range(width):
        red, green, blue = r[x], g[x], b[x]
        weakest = max(min(red, min(green, blue)), zero) * most_gloss
        gloss = min(max(gloss_r * red + gloss_g * green + gloss_b * blue, zero) * white, weakest)
        red, green, blue = red - gloss, green - gloss, blue - gloss
        log_r, log_g, log_b = log2_of(max(red, least)), log2_of(max(green, least)), log2_of(max(blue, least))
        bounces = min(max(straight + slope_r * log_r + slope_g * log_g + slope_b * log_b, fewest), most)
        strength = share_r * log_r + share_g * log_g + share_b * log_b - bounces * middle
        lit_r = strength + trust_r * (log_r - strength - bounces * old_r)
        lit_g = strength + trust_g * (log_g - strength - bounces * old_g)
        lit_b = strength + trust_b * (log_b - strength - bounces * old_b)
        rest_r = kept_r * (red - exp2_of(lit_r + bounces * old_r))
        rest_g = kept_g * (green - exp2_of(lit_g + bounces * old_g))
        rest_b = kept_b * (blue - exp2_of(lit_b + bounces * old_b))
        r[x] = bounded(exp2_of(lit_r + top + bounces * new_r) + rest_r + gloss)
        g[x] = bounded(exp2_of(lit_g + top + bounces * new_g) + rest_g + gloss)
        b[x] = bounded(exp2_of(lit_b + top + bounces * new_b) + rest_b + gloss)


def steps(dye: Dye | None) -> list[Step]:
    """A dye as a step of a chain; none while none has been found."""
    if dye is None:
        return []
    return [Step(_dye.address, numbers_of(dye))]


def numbers_of(dye: Dye) -> np.ndarray:
    """What the step is given, (`NUMBERS`,) float32; logarithms are to base 2."""
    terms, colour = _terms(dye.body), np.array(dye.colour)
    top, to_base_2 = colour.max(), 1 / np.log(2)
    return np.concatenate([
        dye.body.gloss, terms.shares, [terms.middle * to_base_2], terms.slopes / to_base_2, [terms.open], terms.logs * to_base_2,
        np.log2(colour / top), [np.log2(top)], terms.trust, _kept(dye.body, colour),
    ]).astype(np.float32)  # fmt: skip
