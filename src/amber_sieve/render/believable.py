"""Realism check: figures that say whether what a sieve does can be told from a photograph, and
where it can.
"""

from __future__ import annotations

from dataclasses import dataclass

import cv2
import numpy as np

from ..core.adjust.detail import Weighted
from ..core.colour.difference import delta_e_2000, to_cielab
from ..core.colour.gamut import lower_chroma
from ..core.colour.oklab import to_oklab
from ..core.colour.transfer import to_levels
from ..core.frame import Frame
from ..language import translator
from ..project.model import Project
from .context import RenderContext
from .evaluate import after_sieves, arriving, made_by, sieve_masked, working
from .fringe import fringe_of
from .layers import Layers, no_layers
from .sure import sure_weights

translate = translator("render")


#: A pixel belongs to what is judged from this share of the mask on.
HELD = 0.5
#: Standard deviation of the Gaussian that local lightness is taken against, full-resolution pixels.
AROUND = 4.0
#: Smooth is what changes from pixel to pixel by more than nothing and less than this, 8-bit levels.
SMOOTH = (0.02, 1.0)
#: Bands are risked where a step of one level becomes this much larger, for then levels are left
#: out.
STRETCHED = 2.0
#: Beyond sRGB by more than this counts as out of gamut, linear light: a quarter of an 8-bit step in
#: mid greys.
SLACK = 1e-3
#: Share out of gamut from which on a warning is given.
MOST_OUTSIDE = 0.01
#: Share of the texture below which one is given.
LEAST_TEXTURE = 0.9
#: Share of smooth places with bands from which on one is given.
MOST_BANDED = 0.02
#: Rim from which on one is given.
MOST_RIM = 0.05
#: A rim can be mended when handling it would leave this much less of it: noise alone leaves some in
#: any case.
MENDED = 1.25


@dataclass(frozen=True)
class Warned:
    """Something that does not look right, and the control that mends it."""

    words: str
    control: str


@dataclass(frozen=True)
class Believable:
    """Findings about one sieve.

    Attributes
    ----------
    moved : ΔE2000 between the mean of the masked pixels before and after.
    outside : share of the masked pixels that the sieve takes out of gamut.
    texture : correlation of local lightness before and after, 1 where none is changed.
    banded : share of the smooth masked pixels where steps of 8 bit become visible.
    rim : share of the partial pixels that keep the old colour.
    marks : (H, W) uint8: 1 out of gamut, 2 banding, 3 rim.
    mendable : following the edge would leave less of a rim.
    """

    moved: float
    outside: float
    texture: float
    banded: float
    rim: float
    marks: np.ndarray
    gamut: str = "lower chroma"
    mendable: bool = False

    @property
    def line(self) -> str:
        """All figures as a line."""
        back = translate("with less chroma") if self.gamut == "lower chroma" else "clipped"
        return translate(
            "mean moved {moved:.1f} ΔE2000 · out of gamut {outside:.1f} %, brought back {back} · "
            "texture "
            "{texture:.0f} % · banding {banded:.1f} % · rim {rim:.0f} %",
            moved=self.moved,
            outside=100 * self.outside,
            back=back,
            texture=100 * self.texture,
            banded=100 * self.banded,
            rim=100 * self.rim,
        )

    @property
    def warnings(self) -> tuple[Warned, ...]:
        """Return what is out of bounds, each with the way to the control that mends it."""
        found = []
        if self.outside > MOST_OUTSIDE:
            found.append(
                Warned(
                    translate(
                        "{outside:.0f} % out of gamut: less saturation",
                        outside=100 * self.outside,
                    ),
                    "adjust.recolour.saturation",
                )
            )
        if self.texture < LEAST_TEXTURE:
            found.append(
                Warned(translate("Texture is lost: more contrast"), "adjust.light.contrast")
            )
        if self.banded > MOST_BANDED:
            found.append(
                Warned(translate("Smooth parts may band: add grain"), "adjust.detail.grain")
            )
        if self.rim > MOST_RIM and self.mendable:
            found.append(
                Warned(translate("A rim of the old colour: follow the edge"), "edge.follow")
            )
        return tuple(found)


def _local(lightness: np.ndarray, inside: np.ndarray, sigma: float) -> np.ndarray:
    """Lightness against its surroundings inside the mask."""
    out: np.ndarray = (lightness - Weighted(inside.astype(np.float32), sigma).mean(lightness))[
        inside
    ]
    return out


def _steps(levels: np.ndarray) -> np.ndarray:
    """Return how much levels (3, H, W) change from pixel to pixel, on the mean of 5 x 5 so that
    noise does not count.
    """
    smooth = cv2.blur(levels.mean(axis=0), (5, 5))
    return np.hypot(
        cv2.Sobel(smooth, cv2.CV_32F, 1, 0, scale=1 / 8),
        cv2.Sobel(smooth, cv2.CV_32F, 0, 1, scale=1 / 8),
    )


def believable_of(
    frame: Frame,
    project: Project,
    sieve_id: str,
    context: RenderContext,
    layers: Layers = no_layers,
) -> Believable:
    """Judge what a sieve of the stack does to a frame; nothing is found where it does nothing."""
    below = arriving(frame, project, sieve_id, context, layers)

    def make() -> Believable:
        mask = sieve_masked(frame, project, sieve_id, context, layers).mask
        marks = np.zeros(mask.shape, np.uint8)
        inside = mask > HELD
        at = [one.id for one in project.stack].index(sieve_id)
        upto = [
            one
            for one in working(project)
            if one.id in {other.id for other in project.stack[: at + 1]}
        ]
        if not any(one.id == sieve_id for one in upto) or not inside.any():
            return Believable(0, 0, 1, 0, 0, marks, project.gamut)
        before, after = below.planes, after_sieves(frame, project, upto, context, layers).planes
        seen_after = (
            lower_chroma(after) if project.gamut == "lower chroma" else np.clip(after, 0, 1)
        )
        weights = sure_weights(mask)
        light = (
            np.einsum("chw,hw->c", one, weights, dtype=np.float64) / weights.sum(dtype=np.float64)
            for one in (before, after)
        )
        means = [to_cielab(one[None]) for one in light]
        outside = [((one < -SLACK) | (one > 1 + SLACK)).any(axis=0) for one in (before, after)]
        newly = outside[1] & ~outside[0] & inside
        sigma = max(1.0, AROUND * frame.scale)
        one, other = (
            _local(to_oklab(np.clip(light, 0, 1))[0], inside, sigma)
            for light in (before, seen_after)
        )
        spread = float(one.std() * other.std())
        texture = (
            float((one * other).mean() - one.mean() * other.mean()) / spread
            if spread > 1e-9
            else 1.0
            if one.std() < 1e-5
            else 0.0
        )
        steps = [_steps(to_levels(light)) for light in (before, seen_after)]
        smooth = inside & (steps[0] > SMOOTH[0]) & (steps[0] < SMOOTH[1])
        bands = smooth & (steps[1] > STRETCHED * steps[0]) & (steps[1] > SMOOTH[0] * 5)
        fringe, partial = (
            fringe_of(frame, project, sieve_id, context, layers),
            (mask > 0.02) & (mask < 0.98),
        )
        marks[bands], marks[newly], marks[fringe.pixels] = 2, 1, 3
        return Believable(
            float(delta_e_2000(*means)[0]),
            float(newly.sum() / inside.sum()),
            texture,
            float(bands.sum() / max(smooth.sum(), 1)),
            float(fringe.pixels.sum() / max(partial.sum(), 1)),
            marks,
            project.gamut,
            fringe.pixels.sum() > MENDED * max(fringe.handled, 1),
        )

    return context.get(("believable", frame.key, made_by(project, sieve_id), project.gamut), make)
