"""Recolouring as if a thing had been dyed: only the colour of its body changes; light, shade,
bounces and gloss stay.

A pixel of a thing is c = s · rho^n · e + g · W: rho is the colour of the body (its largest channel
1), s how strongly it is lit, n how often light bounced from body to body before it left (1 on open
places, more in folds), e the colour of the light where the channels do not
agree, and g the gloss, which has the colour W of the light and nothing of the body. A dye puts
another colour in the place of rho. So a fold becomes deeper in the new colour, where adding a
colour would leave it a tinge of the old one, and gloss stays as it was.

What a channel tells is believed as far as the body sends light back there: a channel in which it
hardly does holds noise and stray light. What it does not explain is kept as it is, the less of it
the farther the colour of that channel moves; so a dye of the same colour changes nothing.
"""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any

import numpy as np

from ..colour.powers import exp2_of, log2_of
from ..frame import BRIGHTEST
from ..jit.parallel import carray, row_step
from .chain import Step, bounded

#: Of the light in a pixel's weakest channel, what gloss may be at most.
MOST_GLOSS = 0.98
#: How often light bounced is told only as far as the channels of the body differ: a ridge on the
#: variance of their natural logarithms.
BOUNCE = 1.0
#: Fewest bounces that are told: light that falls straight onto a flat thing bounces less than once.
FEWEST = 0.6
#: Most bounces that are told: deeper folds are too dark for more to be seen.
MOST = 2.0
#: A channel is believed wholly where the body sends back more than one over this of what it does in
#: its largest channel.
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
    """A thing's own colour, as it was learnt.

    Attributes
    ----------
    colour : rho, its largest channel 1.
    gloss : how much each channel says of the gloss: the gloss of a pixel is its light times this,
        summed.
    mean : linear light of the body where its gloss is taken off, on average.
    """

    colour: Colour = (1.0, 1.0, 1.0)
    gloss: Colour = (0.0, 0.0, 0.0)
    mean: Colour = (0.2, 0.2, 0.2)


@dataclass(frozen=True)
class Dye:
    """A body, and the colour that it gets: in units of the body's, so that (1, 1, 1) times its
    colour changes nothing.
    """

    body: Body = field(default_factory=Body)
    colour: Colour = (1.0, 1.0, 1.0)


@dataclass(frozen=True)
class _Terms:
    """A body's colour as the terms of the formula, each (3,): natural logarithms, shares that sum
    to 1, how n is told, and trust.
    """

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
    # The slope of the pixel's logarithms over the body's, drawn towards 1: n = open + sum of slopes
    # times logarithms.
    told = 1 / (variance + BOUNCE)
    return _Terms(
        logs,
        shares,
        shares * (logs - middle) * told,
        np.clip(colour * TRUST, 0, 1),
        middle,
        1 - variance * told,
    )


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


#: How many numbers a dye comes to, see `numbers_of`.
NUMBERS = 24


@row_step
def _dye(row: Any, width: int, numbers: Any) -> None:
    """The channels come in the order in which the body sends back light: the first is believed
    wholly, and explained but where it is dark.
    """
    planes, given = carray(row, (3, width)), carray(numbers, NUMBERS + 3)
    i, j, k = np.uintp(given[NUMBERS]), np.uintp(given[NUMBERS + 1]), np.uintp(given[NUMBERS + 2])
    first, second, third = planes[i], planes[j], planes[k]
    gloss, shares, slopes = given[:3], given[3:6], given[7:10]
    old, new, trust, kept = given[11:14], given[14:17], given[18:21], given[21:24]
    gloss_1, gloss_2, gloss_3, white = gloss[i], gloss[j], gloss[k], np.float32(WHITE[0])
    share_1, share_2, share_3, middle = shares[i], shares[j], shares[k], given[6]
    slope_1, slope_2, slope_3, straight = slopes[i], slopes[j], slopes[k], given[10]
    old_2, old_3, new_2, new_3, top = old[j], old[k], new[j], new[k], given[17]
    turned_1 = new[i] - old[i]  # by what the logarithm of the first changes with every bounce
    trust_2, trust_3, kept_1, kept_2, kept_3 = trust[j], trust[k], kept[i], kept[j], kept[k]
    zero, least, most_gloss = np.float32(0), np.float32(LEAST_LIGHT), np.float32(MOST_GLOSS)
    fewest, most = np.float32(FEWEST), np.float32(MOST)
    for x in range(width):
        one, two, three = first[x], second[x], third[x]
        weakest = max(min(one, min(two, three)), zero) * most_gloss
        shine = min(max(gloss_1 * one + gloss_2 * two + gloss_3 * three, zero) * white, weakest)
        one, two, three = one - shine, two - shine, three - shine
        log_1, log_2, log_3 = (
            log2_of(max(one, least)),
            log2_of(max(two, least)),
            log2_of(max(three, least)),
        )
        bounces = min(
            max(straight + slope_1 * log_1 + slope_2 * log_2 + slope_3 * log_3, fewest), most
        )
        strength = share_1 * log_1 + share_2 * log_2 + share_3 * log_3 - bounces * middle
        lit_2 = strength + trust_2 * (log_2 - strength - bounces * old_2)
        lit_3 = strength + trust_3 * (log_3 - strength - bounces * old_3)
        rest_1 = kept_1 * min(one - least, zero)
        rest_2 = kept_2 * (two - exp2_of(lit_2 + bounces * old_2))
        rest_3 = kept_3 * (three - exp2_of(lit_3 + bounces * old_3))
        first[x] = bounded(exp2_of(log_1 + top + bounces * turned_1) + rest_1 + shine)
        second[x] = bounded(exp2_of(lit_2 + top + bounces * new_2) + rest_2 + shine)
        third[x] = bounded(exp2_of(lit_3 + top + bounces * new_3) + rest_3 + shine)


def steps(dye: Dye | None) -> list[Step]:
    """A dye as a step of a chain; none while none has been found."""
    if dye is None:
        return []
    order = np.argsort(-np.array(dye.body.colour), kind="stable")
    return [Step(_dye.address, np.concatenate([numbers_of(dye), order.astype(np.float32)]))]


def numbers_of(dye: Dye) -> np.ndarray:
    """Return the numbers of a dye, (`NUMBERS`,) float32; logarithms are to base 2."""
    terms, colour = _terms(dye.body), np.array(dye.colour)
    top, to_base_2 = colour.max(), 1 / np.log(2)
    return np.concatenate(
        [
            dye.body.gloss,
            terms.shares,
            [terms.middle * to_base_2],
            terms.slopes / to_base_2,
            [terms.open],
            terms.logs * to_base_2,
            np.log2(colour / top),
            [np.log2(top)],
            terms.trust,
            _kept(dye.body, colour),
        ]
    ).astype(np.float32)
