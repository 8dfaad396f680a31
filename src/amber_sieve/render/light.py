"""Find the light of a picture over that of the one a sieve was picked on."""

from __future__ import annotations

import numpy as np

from ..core.frame import Frame
from ..core.pick.flat import Range, flat_range
from ..core.pick.light import Light, Signature, light_between, signature_from, signature_of
from ..project.model import Pick, Sieve
from .context import RenderContext

#: Signatures are made on pictures reduced to about this many pixels.
LIGHT_ON = 50_000
#: A correlation of less than this says that the two pictures show other things: those of
#: photographs of different things come to 0.82.
SURE = 0.88
#: Light that changes red or blue by more than this against green is not what two pictures differ
#: by.
PLAUSIBLE = 2.0
#: Light whose gains differ by less than this from 1 counts as the same.
SAME = 0.03
#: Gains go in steps of this many to a doubling, so that frames in nearly the same light share
#: their masks.
STEPS = 64
#: The largest gain; the least is 1 over it.
LARGEST = 32.0


def signature_on(whole: Frame, context: RenderContext) -> Signature:
    """Return the signature of a whole picture."""
    factor = max(1, round((whole.width * whole.height / LIGHT_ON) ** 0.5))
    return context.get(("signature", whole.key), lambda: signature_of(whole.reduced(factor).planes))


def light_on(pick: Pick, whole: Frame, context: RenderContext) -> Light | None:
    """Return the light of a whole picture over that of the one picked on; None where there is
    nothing to find it by.
    """
    if pick.light != "auto" or pick.measure != "original" or not (pick.samples and pick.picked_on):
        return None
    picked = signature_from(pick.picked_on)
    if picked is None:
        return None
    return context.get(
        ("light", whole.key, pick.picked_on),
        lambda: light_between(picked, signature_on(whole, context)),
    )


def is_sure(light: Light) -> bool:
    """Return whether light between two pictures is one they may well differ by."""
    red, green, blue = light.gains
    tints = red / green, blue / green
    return light.sure >= SURE and all(1 / PLAUSIBLE <= tint <= PLAUSIBLE for tint in tints)


def with_light(sieve: Sieve, whole: Frame, context: RenderContext) -> Sieve:
    """The sieve with the gains of the light found on a whole picture, where they differ from 1 and
    are sure.
    """
    light = light_on(sieve.pick, whole, context)
    if light is None or max(abs(gain - 1) for gain in light.gains) < SAME or not is_sure(light):
        return sieve
    stops = np.clip(np.log2(light.gains), -np.log2(LARGEST), np.log2(LARGEST))
    red, green, blue = (float(2.0 ** (round(STEPS * stop) / STEPS)) for stop in stops)
    return sieve.but(pick=sieve.pick.but(light=(red, green, blue)))


def range_on(whole: Frame, context: RenderContext) -> Range | None:
    """Return the range of codes of a whole picture that is flat; None for one that is not."""
    return context.get(("flat", whole.key), lambda: flat_range(whole.planes))


def with_flat(sieve: Sieve, codes: Range | None) -> Sieve:
    """The sieve with a range of codes in place of "auto", where what is measured is flat."""
    if codes is None or sieve.pick.flat != "auto" or sieve.pick.measure != "original":
        return sieve
    return sieve.but(pick=sieve.pick.but(flat=codes))
