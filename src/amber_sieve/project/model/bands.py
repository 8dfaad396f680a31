"""Bands: intervals of hue, saturation, luminance and single channels."""

from __future__ import annotations

from typing import Self

from pydantic import model_validator

from ...names import BANDS, Shape
from ..fields import number
from .values import Corner, Frozen


class Band(Frozen):
    """An interval of one measure: fade in from, full from, full to, fade out to."""

    on: bool = False
    inverted: bool = False
    corners: tuple[Corner, Corner, Corner, Corner]
    shape: Shape = "smooth"
    bend: float = number(
        0,
        -1,
        1,
        "Falloff curve",
        step=0.05,
        decimals=2,
        help="Below 0 the mask falls off steeply, above 0 gently.",
    )

    @model_validator(mode="after")
    def _corners_rise(self) -> Self:
        a, b, c, d = self.corners
        if not a <= b <= c <= d:
            raise ValueError("the corners of a band must rise")
        return self


class Ramp(Frozen):
    """The luminance itself in place of a luminance band."""

    on: bool = False
    inverse: bool = False
    black: float = number(
        0, 0, 100, "Black point", "L*", help="Up to this luminance nothing is masked."
    )
    white: float = number(
        100, 0, 100, "White point", "L*", help="From this luminance on everything is masked."
    )


class Bands(Frozen):
    """Intervals of hue (degrees), saturation (per cent), luminance (L*) and single channels
    (levels); the mask is their product.
    """

    hue: Band = Band(corners=(0, 0, 360, 360))
    saturation: Band = Band(corners=(0, 0, 125, 125))
    luminance: Band = Band(corners=(0, 0, 100, 100))
    red: Band = Band(corners=(0, 0, 255, 255))
    green: Band = Band(corners=(0, 0, 255, 255))
    blue: Band = Band(corners=(0, 0, 255, 255))
    ramp: Ramp = Ramp()

    @property
    def active(self) -> bool:
        """Return whether any of them is on."""
        return self.ramp.on or any(getattr(self, name).on for name in BANDS)
