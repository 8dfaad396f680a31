"""Adjustments: against references, the identity, and what lies outside the mask."""

import unittest
from unittest import mock

import colour
import numpy as np
import PyOpenColorIO as ocio
from common import demo_frame, truth
from scipy.interpolate import PchipInterpolator
from scipy.ndimage import convolve1d, gaussian_filter
from skimage import color

from amber_sieve.core.adjust import (
    balance,
    blending,
    body,
    cdl,
    curve,
    detail,
    dye,
    even,
    fill,
    hues,
    light,
    match,
    mono,
    recolour,
    white,
)
from amber_sieve.core.adjust.detail import Weighted, gaussian
from amber_sieve.core.adjust.surroundings import of_surroundings
from amber_sieve.core.colour.difference import RGB_TO_XYZ, delta_e_2000, to_cielab
from amber_sieve.core.colour.oklab import from_oklab, to_oklab
from amber_sieve.core.colour.transfer import decode, decode_integers, encode
from amber_sieve.core.frame import BRIGHTEST, Frame
from amber_sieve.core.mix import Filling, mixed
from amber_sieve.names import BLENDS
from amber_sieve.project import controls
from amber_sieve.project.fields import kind_of, numbers_of
from amber_sieve.project.model import (
    Adjust,
    Band,
    Bands,
    Detail,
    Fill,
    Light,
    Match,
    Project,
    Sieve,
)
from amber_sieve.render import automatic
from amber_sieve.render.adjust import adjusted
from amber_sieve.render.automatic import with_found_means
from amber_sieve.render.cache import Cache
from amber_sieve.render.context import RenderContext
from amber_sieve.render.masked import Masked
from amber_sieve.render.resolved import found_of
from amber_sieve.render.stages.every import BLOCKS, steps_of

WHOLE = np.ones((16, 40), np.float32)


def planes(seed: int = 1, low: float = -0.1, high: float = 1.6) -> np.ndarray:
    return np.random.default_rng(seed).uniform(low, high, (3, 16, 40)).astype(np.float32)


def random_points(
    rng: np.random.Generator, low: float, high: float, over: float
) -> tuple[tuple[float, float], ...]:
    """Up to five points that rise from left to right."""
    places = sorted({round(float(x), 4) for x in rng.uniform(0, over, rng.integers(1, 6))})
    return tuple((x, float(rng.uniform(low, high))) for x in places)


def random_adjust(rng: np.random.Generator, only: str = "") -> Adjust:
    """Every number and every other setting of every block, or of one, somewhere in its range."""
    blocks = {}
    for name, kind in controls.blocks():
        if only and name != only:
            continue
        given: dict[str, object] = {
            spec.name: float(rng.uniform(spec.low, spec.high)) for spec in numbers_of(kind)
        }
        for key, field in kind.model_fields.items():
            form = kind_of(field)
            if form == "words":
                given[key] = str(rng.choice(controls.words_of(field)))
            elif form:
                given[key] = {
                    "curve": random_points(rng, 0, 1, 0.999),
                    "hues": random_points(rng, -100, 100, 359),
                    "switch": bool(rng.integers(2)),
                    "colour": tuple(float(v) for v in rng.uniform(0, 1.5, 3)),
                    "path": "",
                }[form]
        if name == "match":
            given["target"] = tuple(float(v) for v in rng.uniform(0, 1.5, 3))
        blocks[name] = given
    return Adjust.model_validate(blocks)


def learnt(sieve: Sieve, picture: np.ndarray) -> Sieve:
    """The sieve with what its blocks ask for found on a picture, all of which is masked."""
    for block in BLOCKS:
        if block.wants_means(sieve):
            sieve = block.learn(sieve, picture.reshape(3, 1, -1), np.ones(picture[0].size))
    return sieve


class LightTest(unittest.TestCase):
    def test_exposure_is_an_exact_factor(self):
        # Source: a stop is a factor of two in light (ISO 2720 and common practice).
        for stops in (-3, -1, 0.5, 2):
            out = mixed(planes(), WHOLE, light.steps(exposure=stops))
            np.testing.assert_allclose(out, planes() * np.float32(2.0**stops), rtol=2e-7)

    def test_contrast_scales_distances_in_stops_from_its_pivot(self):
        at = 0.18 * 2.0 ** np.arange(-4, 5)
        pixels = np.broadcast_to(at.astype(np.float32), (3, 1, 9)).copy()
        for contrast, times in ((100, 2), (-100, 0.5), (50, 2**0.5)):
            out = mixed(pixels, np.ones((1, 9), np.float32), light.steps(contrast=contrast))
            np.testing.assert_allclose(
                np.log2(out[0, 0] / 0.18), times * np.arange(-4, 5), atol=1e-5
            )
        moved = mixed(pixels, np.ones((1, 9), np.float32), light.steps(contrast=100, pivot=2))
        self.assertAlmostEqual(float(moved[0, 0, 6]), float(at[6]), places=6)
        dark = mixed(
            np.full((3, 1, 1), -0.02, np.float32),
            np.ones((1, 1), np.float32),
            light.steps(contrast=80),
        )
        self.assertEqual(dark[0, 0, 0], np.float32(-0.02))


class CdlTest(unittest.TestCase):
    def test_it_is_what_opencolorio_does(self):
        # Source: ASC Color Decision List 1.2 as OpenColorIO applies it, without clamping.
        rng = np.random.default_rng(3)
        for _ in range(12):
            slope, offset, power = (
                rng.uniform(0.4, 2, 3),
                rng.uniform(-0.2, 0.2, 3),
                rng.uniform(0.5, 2, 3),
            )
            saturation = float(rng.uniform(0, 2))
            theirs = ocio.CDLTransform(
                slope=list(slope), offset=list(offset), power=list(power), sat=saturation
            )
            theirs.setStyle(ocio.CDL_NO_CLAMP)
            processor = (
                ocio.Config.CreateRaw()
                .getProcessor(theirs)
                .getOptimizedCPUProcessor(ocio.OPTIMIZATION_LOSSLESS)
            )
            pixels = np.ascontiguousarray(np.moveaxis(planes(), 0, -1))
            processor.applyRGB(pixels)
            ours = mixed(planes(), WHOLE, cdl.steps(*slope, *offset, *power, saturation))
            np.testing.assert_allclose(ours, np.moveaxis(pixels, -1, 0), atol=1e-5)


class MonoTest(unittest.TestCase):
    def test_greys_stay_and_colours_become_grey(self):
        ramp = np.broadcast_to(np.linspace(0, 2, 40, dtype=np.float32), (3, 16, 40)).copy()
        for weights in ({}, {"mono_red": 120.0, "mono_blue": -30.0}):
            np.testing.assert_allclose(
                mixed(ramp, WHOLE, mono.steps(mono=100, **weights)), ramp, atol=1e-6
            )
            out = mixed(planes(), WHOLE, mono.steps(mono=100, **weights))
            np.testing.assert_allclose(out[0], out[2], atol=1e-6)

    def test_one_channel_alone(self):
        out = mixed(planes(), WHOLE, mono.steps(mono=100, mono_red=50, mono_green=0, mono_blue=0))
        np.testing.assert_allclose(out[1], planes()[0], atol=1e-6)
        half = mixed(planes(), WHOLE, mono.steps(mono=50, mono_red=50, mono_green=0, mono_blue=0))
        np.testing.assert_allclose(half[1], (planes()[0] + planes()[1]) / 2, atol=1e-6)
        self.assertTrue(
            np.isfinite(
                mixed(
                    planes(), WHOLE, mono.steps(mono=100, mono_red=50, mono_green=-50, mono_blue=0)
                )
            ).all()
        )


class WhiteTest(unittest.TestCase):
    def test_daylight_and_adaptation_are_those_of_colour_science(self):
        # Source: CIE 015 daylight, Krystek 1985 and the CAT16 von Kries transform as colour-science
        # has them.
        for kelvin in (4000, 5003, 6504, 7000, 9300, 20000):
            np.testing.assert_allclose(
                white.daylight(kelvin), colour.temperature.CCT_to_xy_CIE_D(kelvin), atol=1e-6
            )
        for kelvin in (2000, 2856, 3900):
            np.testing.assert_allclose(
                white.black_body(kelvin),
                colour.temperature.CCT_to_uv_Krystek1985(kelvin),
                atol=1e-7,
            )
        for shift, tint in ((60, 0), (-70, 0), (0, 12), (180, 0), (0, -25)):
            whites = [
                colour.xy_to_XYZ(one)
                for one in (white.white_of(0), white.white_of(abs(shift), abs(tint)))
            ]
            if shift + tint < 0:
                whites.reverse()
            theirs = colour.adaptation.matrix_chromatic_adaptation_VonKries(
                *whites, transform="CAT16"
            )
            ours = RGB_TO_XYZ @ white.adaptation(shift, tint) @ np.linalg.inv(RGB_TO_XYZ)
            np.testing.assert_allclose(ours, theirs, atol=2e-5)

    def test_a_grey_takes_the_chromaticity_of_the_light(self):
        for shift in (15, 40, 96):
            grey = np.full((3, 1, 1), 0.5, np.float32)
            out = mixed(grey, np.ones((1, 1), np.float32), white.steps(temperature=shift))[:, 0, 0]
            xyz = RGB_TO_XYZ @ out
            wanted = colour.temperature.CCT_to_xy_CIE_D(1e6 / (white.D65_MIRED + shift))
            np.testing.assert_allclose(
                xyz[:2] / xyz.sum(), wanted, atol=2e-4
            )  # white of Rec. 709 is 1e-4 from that of 6504 K
            self.assertAlmostEqual(float(xyz[1]), 0.5, places=4)
            self.assertGreater(out[0], out[2])
            back = mixed(
                out[:, None, None], np.ones((1, 1), np.float32), white.steps(temperature=-shift)
            )
            np.testing.assert_allclose(back, grey, atol=1e-5)

    def test_neutral_makes_a_cast_grey(self):
        rng = np.random.default_rng(4)
        for _ in range(12):
            seen = (
                0.4
                * white.adaptation(float(rng.uniform(-200, 200)), float(rng.uniform(-40, 40)))
                @ np.ones(3)
            )
            temperature, tint = white.neutral(seen)
            out = white.adaptation(temperature, tint) @ seen
            self.assertLess(float(np.ptp(out) / out.mean()), 0.01)
        with self.assertRaises(ValueError):
            white.neutral(np.array([0.0, 0.0, 0.4]))
        self.assertEqual(white.steps(), [])


class ToneTest(unittest.TestCase):
    def lit(self, **given: float) -> tuple[np.ndarray, np.ndarray]:
        """Greys from 10 stops under white to 1 above, and what becomes of them."""
        greys = np.broadcast_to(
            (2.0 ** np.linspace(-10, 1, 400)).astype(np.float32), (3, 1, 400)
        ).copy()
        return greys[0, 0], mixed(greys, np.ones((1, 400), np.float32), light.steps(**given))[1, 0]

    def test_highlights_and_shadows_keep_to_their_end_and_never_turn_round(self):
        for name in ("highlights", "shadows"):
            for amount in (-100, -40, 40, 100):
                before, after = self.lit(**{name: amount})
                self.assertTrue((np.diff(after) > 0).all())
                far = before < 0.18 * 2**-0.6 if name == "highlights" else before > 0.18 * 2**0.6
                np.testing.assert_allclose(after[far], before[far], rtol=1e-5)
                self.assertTrue((after[~far][20] > before[~far][20]) == (amount > 0))
        _, both = self.lit(highlights=-100, shadows=100, contrast=-50)
        self.assertTrue((np.diff(both) > 0).all())

    def test_points_and_gamma(self):
        before, after = self.lit(black_point=5, white_point=80)
        np.testing.assert_allclose(after, np.maximum(before - 0.05, 0) / 0.75, atol=2e-6)
        before, after = self.lit(gamma=2)
        inside = before > 2.0**-9
        np.testing.assert_allclose(after[inside], before[inside] ** 0.5, rtol=2e-5)

    def test_hue_and_saturation_of_the_light_stay(self):
        out = mixed(
            planes(low=0.02),
            WHOLE,
            light.steps(highlights=-70, shadows=60, gamma=1.4, white_point=90),
        )
        np.testing.assert_allclose(
            out[0] / out[1], planes(low=0.02)[0] / planes(low=0.02)[1], rtol=1e-4
        )


class CurveTest(unittest.TestCase):
    POINTS = ((0.1, 0.05), (0.35, 0.3), (0.6, 0.75), (0.9, 0.93))

    def test_channels_go_through_scipys_monotone_cubic(self):
        # Source: SciPy's PchipInterpolator on values coded by IEC 61966-2-1.
        theirs = PchipInterpolator(*np.array(((0, 0), *self.POINTS, (1, 1))).T)
        pixels = planes(low=0, high=1)
        out = mixed(pixels, WHOLE, curve.steps(curve_green=self.POINTS))
        np.testing.assert_allclose(encode(out[1]), theirs(encode(pixels[1])), atol=2e-4)
        np.testing.assert_allclose(out[0], pixels[0], atol=2e-6)

    def test_luminance_goes_through_it_and_hue_stays(self):
        pixels = planes(low=0.02, high=1)
        theirs = PchipInterpolator(*np.array(((0, 0), *self.POINTS, (1, 1))).T)
        out = mixed(pixels, WHOLE, curve.steps(curve=self.POINTS))
        weights = np.array([0.2126, 0.7152, 0.0722])
        before, after = (np.einsum("k,kyx->yx", weights, one) for one in (pixels, out))
        np.testing.assert_allclose(encode(after), theirs(encode(before)), atol=3e-4)
        np.testing.assert_allclose(out[0] / out[2], pixels[0] / pixels[2], rtol=1e-4)

    def test_levels(self):
        # Common practice, no source: in to out by a straight line, bent by a gamma.
        codes = np.broadcast_to(np.arange(256) / 255, (3, 1, 256))
        out = mixed(
            decode(codes),
            np.ones((1, 256), np.float32),
            curve.steps(in_black=20, in_white=220, middle=1.5, out_black=10, out_white=240),
        )
        wanted = 10 + np.clip((np.arange(256) - 20) / 200, 0, 1) ** (1 / 1.5) * 230
        found = 255 * encode(out[0, 0])
        np.testing.assert_allclose(found[22:], wanted[22:], atol=0.2)
        np.testing.assert_allclose(
            found[:22], wanted[:22], atol=2
        )  # beside the corner the gamma is infinitely steep

    def test_light_beyond_the_ends_is_not_cut_off(self):
        bright = np.array([-0.02, 1.0, 2.0, 8.0], np.float32) * np.ones((3, 1, 1), np.float32)
        out = mixed(
            bright,
            np.ones((1, 4), np.float32),
            curve.steps(curve_red=self.POINTS, curve_blue=((0.5, 0.6),)),
        )
        np.testing.assert_allclose(out[0, 0], bright[0, 0], atol=1e-5)


class BalanceTest(unittest.TestCase):
    def test_ranges_sum_to_one_wherever_they_are_moved(self):
        at = np.linspace(-0.2, 1.4, 300)
        for low, high in ((35, 70), (0, 100), (80, 20), (50, 50)):
            shares = balance.shares_of(at, low, high)
            np.testing.assert_allclose(shares.sum(axis=0), 1, atol=1e-12)
            self.assertTrue((shares >= -1e-12).all())

    def test_each_range_is_tinted_and_black_stays(self):
        greys = np.broadcast_to((np.linspace(0, 1, 41) ** 3).astype(np.float32), (3, 1, 41)).copy()
        for k, name in enumerate(balance.RANGES):
            lab = to_oklab(
                mixed(
                    greys,
                    np.ones((1, 41), np.float32),
                    balance.steps(**{f"{name}_hue": 250.0, f"{name}_colour": 50.0}),
                )
            )
            chroma = np.hypot(lab[1, 0], lab[2, 0])
            shares = balance.shares_of(np.linspace(0, 1, 41))[k]
            np.testing.assert_allclose(
                chroma, shares * 0.5 * balance.MOST_COLOUR * np.linspace(0, 1, 41), atol=2e-5
            )
            strong = chroma > 0.01
            np.testing.assert_allclose(
                np.degrees(np.arctan2(lab[2, 0], lab[1, 0]))[strong] % 360, 250, atol=0.5
            )


class HuesTest(unittest.TestCase):
    def ring(self) -> np.ndarray:
        angle = np.radians(np.arange(0, 360, 5.0))
        return from_oklab(
            np.stack([np.full_like(angle, 0.7), 0.1 * np.cos(angle), 0.1 * np.sin(angle)]).astype(
                np.float32
            )[:, None]
        )

    def test_one_hue_among_others(self):
        points = ((20.0, 0.0), (50.0, 30.0), (80.0, 0.0))
        out = to_oklab(
            mixed(self.ring(), np.ones((1, 72), np.float32), hues.steps(turn_by_hue=points))
        )
        turned = (
            np.degrees(np.arctan2(out[2, 0], out[1, 0])) - np.arange(0, 360, 5) + 180
        ) % 360 - 180
        np.testing.assert_allclose(
            turned, hues.closed_curve(points, np.arange(0, 360, 5.0)), atol=0.05
        )
        self.assertAlmostEqual(turned[10], 30, delta=0.05)
        self.assertLess(np.abs(turned[17:]).max(), 0.05)

    def test_the_curve_closes_and_greys_stay(self):
        points = ((10.0, 40.0), (350.0, -20.0))
        np.testing.assert_allclose(
            hues.closed_curve(points, np.array([0.0])), hues.closed_curve(points, np.array([360.0]))
        )
        grey = np.full((3, 16, 40), 0.4, np.float32)
        out = mixed(
            grey,
            WHOLE,
            hues.steps(turn_by_hue=points, saturation_by_hue=points, lightness_by_hue=points),
        )
        np.testing.assert_allclose(out, grey, atol=1e-5)


class RecolourTest(unittest.TestCase):
    def test_vibrance_spares_the_rich_and_skin(self):
        # Source: the light skin and the foliage of the colour chart as colour-science has them, and
        # pure red.
        chart = colour.CCS_COLOURCHECKERS["ColorChecker 2005"].data

        def light_of(name: str) -> list[float]:
            return list(
                np.clip(
                    colour.XYZ_to_RGB(colour.xyY_to_XYZ(chart[name]), "sRGB", [0.3457, 0.3585]),
                    0,
                    1,
                )
            )

        pixels = (
            np.array([light_of("light skin"), light_of("blue sky"), [1, 0, 0]], np.float32)
            .T[:, None]
            .copy()
        )
        before, after = (
            to_oklab(pixels),
            to_oklab(mixed(pixels, np.ones((1, 3), np.float32), recolour.steps(vibrance=80))),
        )
        grown = np.hypot(after[1], after[2])[0] / np.hypot(before[1], before[2])[0]
        self.assertLess(grown[0], 1.05)
        self.assertGreater(grown[1], 1.3)
        self.assertLess(grown[2], 1.01)

    def test_one_hue_for_all(self):
        lab = to_oklab(mixed(planes(low=0.1), WHOLE, recolour.steps(one_hue=100, one_hue_at=130)))
        strong = np.hypot(lab[1], lab[2]) > 0.02
        np.testing.assert_allclose(np.degrees(np.arctan2(lab[2], lab[1]))[strong], 130, atol=0.5)
        before = to_oklab(planes(low=0.1))
        np.testing.assert_allclose(
            np.hypot(lab[1], lab[2]), np.hypot(before[1], before[2]), atol=2e-5
        )


class EvenTest(unittest.TestCase):
    def test_lightness_is_drawn_together_in_l_star(self):
        # Source: CIE 1976 L* as scikit-image has it.
        pixels = planes(low=0.01, high=1)

        def lightness(light: np.ndarray) -> np.ndarray:
            return color.xyz2lab(
                np.moveaxis(np.einsum("ij,jyx->iyx", RGB_TO_XYZ, light), 0, -1), "D65"
            )[..., 0]

        mean, _ = even.found_means(pixels.reshape(3, 1, -1), np.ones(640))
        self.assertAlmostEqual(mean, float(lightness(pixels).mean()), delta=0.02)
        for amount in (30, 70, 100):
            after = lightness(
                mixed(pixels, WHOLE, even.steps(even_lightness=amount, mean=(mean, 0.0)))
            )
            np.testing.assert_allclose(
                after, lightness(pixels) + amount / 100 * (mean - lightness(pixels)), atol=0.03
            )
        self.assertEqual(even.steps(even_lightness=50), [])


class MatchTest(unittest.TestCase):
    TARGETS = {
        "oxblood": (0.05, 0.22, 0.30),
        "honey": (0.12, 0.30, 0.10),
        "turquoise": (0.45, 0.12, 0.08),
        "cloth": (0.33, 0.07, 0.06),
        "figure": (0.20, 0.26, 0.38),
    }

    def test_the_mean_lands_and_texture_stays(self):
        """Three pots, the cloth and the figure: every one that was asked for, with the truth as the
        mask.
        """
        planes = demo_frame("yard").planes
        for name, target in self.TARGETS.items():
            mask = truth("yard", name)
            held = mask > 0.5
            light_in = np.ascontiguousarray(planes[:, held])[:, None]
            weights = mask[held].astype(float)
            found = match.found_match(light_in, weights, target)
            out = mixed(planes, mask, match.steps(found))
            shares = weights / weights.sum()
            goal = to_cielab(np.array([target]))
            far = float(delta_e_2000(to_cielab((out[:, held] * shares).sum(1)[None]), goal)[0])
            seen = float(
                delta_e_2000((to_cielab(out[:, held].T) * shares[:, None]).sum(0)[None], goal)[0]
            )
            self.assertLess(far, 1.0, name)
            before, after = (to_oklab(one)[0] for one in (planes, out))
            around = Weighted((mask > 0.99).astype(np.float32), 4.0)
            local = [(one - around.mean(one))[mask > 0.99] for one in (before, after)]
            together = float(np.corrcoef(*local)[0, 1])
            print(
                f"    match {name}: mean light {far:.2f}, mean L*a*b* {seen:.2f} ΔE2000 from the "
                f"target, local lightness {together:.4f}"
            )
            # Gloss stays as it is under a dye, so it stands out more or less than before: rendered
            # again in four colours a glossy jar keeps 0.71 to 0.99 of its local lightness, measured
            # on scenes of our own (`demo/generator/dyed.py`).
            self.assertGreaterEqual(together, 0.75, name)

    def test_the_cloth_as_madder_against_the_yard_with_a_madder_cloth(self):
        planes, wanted = demo_frame("yard").planes, demo_frame("madder").planes
        mask = truth("yard", "cloth")
        held = mask > 0.9
        weights = mask[held].astype(float)
        target = tuple(float(v) for v in (wanted[:, held] * weights).sum(1) / weights.sum())
        for nearest in (False, True):
            found = match.found_match(
                np.ascontiguousarray(planes[:, held])[:, None], weights, target, nearest
            )
            out = mixed(planes, mask, match.steps(found))
            far, before = (
                float(delta_e_2000(to_cielab(one[:, held].T), to_cielab(wanted[:, held].T)).mean())
                for one in (out, planes)
            )
            print(
                f"    cloth as madder{', nearest believable' if nearest else ''}: mean ΔE2000 "
                f"{far:.2f}, without {before:.2f}"
            )
            # Two renders of the same differ by 1.42; adding to Oklab came to 1.9 with this mask and
            # 2.4 with one that was picked.
            self.assertLess(far, 1.4)

    def test_nearest_believable_stops_before_light_and_shade_are_crushed(self):
        planes = demo_frame("yard").planes
        mask = truth("yard", "cloth")
        held = mask > 0.5
        light_in, weights = np.ascontiguousarray(planes[:, held])[:, None], mask[held].astype(float)
        for target in ((0.001, 0.001, 0.001), (1.0, 0.0, 0.0), (0.9, 0.9, 0.9)):
            found = match.found_match(light_in, weights, target, believable=True)
            out = mixed(light_in, np.ones((1, held.sum()), np.float32), match.steps(found))
            scale = float(to_oklab(out)[0].mean() / to_oklab(light_in)[0].mean())
            self.assertTrue(match.SCALES[0] - 0.01 <= scale <= match.SCALES[1] + 0.01, scale)
            self.assertLess(float(((out < -1e-3) | (out > 1.001)).any(0).mean()), 0.02)


class LearntOnceTest(unittest.TestCase):
    def test_only_what_comes_before_makes_it_learn_again(self):
        frame = Frame(np.random.default_rng(3).random((3, 40, 60), np.float32))
        cache = RenderContext(Cache(10**8))

        def found(**blocks) -> object:
            adjust = Adjust(match=Match(target=(0.1, 0.2, 0.3)), **blocks)
            project = Project(
                stack=(
                    Sieve(
                        id="one",
                        bands=Bands(luminance=Band(on=True, corners=(20, 30, 100, 100))),
                        adjust=adjust,
                    ),
                )
            )
            return found_of(with_found_means(project, frame, cache).stack[0]).match

        with mock.patch.object(automatic, "_with_means", wraps=automatic._with_means) as learn:
            first = found()
            self.assertIsNotNone(first)
            # Neither detail nor a fill, which come after it, change what arrives there.
            self.assertEqual(
                found(detail=Detail(local_contrast=40, noise=10), fill=Fill(fill="colour")), first
            )
            self.assertEqual(learn.call_count, 1)
            self.assertNotEqual(found(light=Light(exposure=1)), first)
            self.assertEqual(learn.call_count, 2)


class DyeTest(unittest.TestCase):
    """Things made up from the model itself: a body, light, folds and gloss are known, so what a dye
    must come to is known too.
    """

    def thing(
        self, colour: tuple[float, float, float], noise: float = 0.0
    ) -> tuple[np.ndarray, np.ndarray, np.ndarray, np.ndarray]:
        rng = np.random.default_rng(6)
        lit, bounces = rng.uniform(0.05, 0.9, 4000), 1 + 0.6 * rng.random(4000) ** 4
        gloss = np.where(rng.random(4000) < 0.1, rng.uniform(0, 0.5, 4000), 0)
        return (
            lit,
            bounces,
            gloss,
            self.light(colour, lit, bounces, gloss) + noise * rng.normal(size=(3, 4000)),
        )

    def light(
        self,
        colour: tuple[float, float, float],
        lit: np.ndarray,
        bounces: np.ndarray,
        gloss: np.ndarray,
    ) -> np.ndarray:
        top = max(colour)
        out: np.ndarray = lit * top * (np.array(colour)[:, None] / top) ** bounces + gloss
        return out

    def test_folds_and_gloss_of_a_thing_in_another_colour(self):
        old, new = (0.55, 0.12, 0.03), (0.05, 0.22, 0.06)
        for noise in (0.0, 0.002):
            lit, bounces, gloss, light_in = self.thing(old, noise)
            wanted = self.light(new, lit, bounces, gloss)
            thing = body.Thing(light_in, np.ones(4000))
            out = thing.in_colour(thing.towards(wanted.mean(axis=1)))
            far = float(delta_e_2000(to_cielab(out.T), to_cielab(wanted.T)).mean())
            by_channel = light_in * (wanted.mean(axis=1) / light_in.mean(axis=1))[:, None]
            self.assertLess(
                far, 0.25 * float(delta_e_2000(to_cielab(by_channel.T), to_cielab(wanted.T)).mean())
            )
            np.testing.assert_allclose(out.mean(axis=1), wanted.mean(axis=1), atol=2e-4)

    def formula(self, light_in: np.ndarray, found: dye.Dye) -> np.ndarray:
        """A dye as docs/formulas.md has it, in double precision."""
        rho, new = np.array(found.body.colour), np.array(found.colour)
        gloss = np.minimum(
            np.clip(np.array(found.body.gloss) @ light_in, 0, None) / 3**0.5,
            np.clip(light_in.min(axis=0), 0, None) * dye.MOST_GLOSS,
        )
        logs = np.log(np.clip(light_in - gloss, dye.LEAST_LIGHT, None))
        shares = np.clip(rho * dye.TRUST, dye.LEAST_TRUST, 1)
        shares, trust = shares / shares.sum(), np.clip(rho * dye.TRUST, 0, 1)[:, None]
        middle = float((np.log(rho) * shares).sum())
        told = 1 / (float(((np.log(rho) - middle) ** 2 * shares).sum()) + dye.BOUNCE)
        slopes = shares * (np.log(rho) - middle) * told
        bounces = np.clip(
            1 - (slopes * (np.log(rho) - middle)).sum() + slopes @ logs, dye.FEWEST, dye.MOST
        )
        strength = shares @ logs - bounces * middle
        lit = np.exp(strength + (logs - strength - bounces * np.log(rho)[:, None]) * trust)
        rest = (light_in - gloss - lit * rho[:, None] ** bounces) * np.minimum(
            new / rho, rho / new
        )[:, None]
        out: np.ndarray = lit * new.max() * (new / new.max())[:, None] ** bounces + rest + gloss
        return out

    def test_the_kernels_are_the_formula(self):
        for own in ((0.5, 0.1, 0.02), (0.2, 0.2, 0.2), (0.02, 0.3, 0.7), (0.001, 0.001, 0.0005)):
            light_in = self.thing(own, 0.003)[3].astype(np.float32)
            thing = body.Thing(light_in, np.ones(4000))
            for target in ((0.3, 0.05, 0.02), (0.001, 0.001, 0.001), (0.9, 0.9, 0.2)):
                found = thing.towards(np.array(target))
                out = mixed(light_in[:, None], np.ones((1, 4000), np.float32), dye.steps(found))[
                    :, 0
                ]
                wanted = self.formula(light_in.astype(np.float64), found)
                np.testing.assert_allclose(out, wanted, rtol=1e-4, atol=1e-5)
                np.testing.assert_allclose(thing.in_colour(found), wanted, rtol=1e-4, atol=1e-5)

    def test_a_handful_of_pixels_has_a_body_too(self):
        rng = np.random.default_rng(6)
        for count in (1, 2, 3, 4, 5, 6, 9):  # between two quantiles of two or four there is none
            found = body.found_body(rng.random((3, count)).astype(np.float32), rng.random(count))
            self.assertTrue(np.isfinite([found.colour, found.gloss, found.mean]).all(), count)

    def test_a_dye_of_its_own_colour_changes_nothing(self):
        light_in = self.thing((0.4, 0.2, 0.05), 0.004)[3].astype(np.float32)
        found = body.found_body(light_in, np.ones(4000))
        out = mixed(
            light_in[:, None],
            np.ones((1, 4000), np.float32),
            dye.steps(dye.Dye(found, found.colour)),
        )[:, 0]
        np.testing.assert_allclose(out, light_in, rtol=1e-4, atol=1e-6)

    def test_grey_light_on_a_grey_body_is_multiplied(self):
        """A body with no hue gives nothing to tell bounces or gloss by: its light times the colour
        of the dye.
        """
        light_in = np.linspace(0.02, 0.8, 300, dtype=np.float32) * np.ones((3, 1), np.float32)
        thing = body.Thing(light_in, np.ones(300))
        out = thing.in_colour(thing.towards(np.array((0.3, 0.1, 0.05))))
        np.testing.assert_allclose(
            out / light_in, (out / light_in)[:, :1] * np.ones((1, 300)), rtol=1e-3
        )

    def test_recolour_as_if_dyed_turns_the_body_and_leaves_gloss(self):
        """Through the project: the hue of the body turns as it does by pixel, while gloss, which is
        white, stays white.
        """
        _, _, gloss, light_in = self.thing((0.5, 0.12, 0.03))
        picture = np.ascontiguousarray(light_in.reshape(3, 40, 100), np.float32)
        turned = {}
        for dyed in (False, True):
            sieve = learnt(Sieve(adjust=Adjust(recolour={"hue": 120, "dyed": dyed})), picture)
            turned[dyed] = adjusted(
                Frame(picture), Masked(np.ones((40, 100), np.float32), None), sieve
            )[0].reshape(3, -1)
        matt = gloss == 0
        hues = [
            np.degrees(
                np.arctan2(
                    *(
                        to_oklab(
                            np.ascontiguousarray(one[:, matt].mean(axis=1, keepdims=True)[:, None])
                        )[k, 0, 0]
                        for k in (2, 1)
                    )
                )
            )
            for one in turned.values()
        ]
        self.assertLess(abs(hues[0] - hues[1]), 6)
        bright = gloss > 0.35
        given, pixel, dyed_out = (
            np.ptp(one[:, bright], axis=0).mean() / one[:, bright].max(axis=0).mean()
            for one in (light_in, *turned.values())
        )
        self.assertLess(abs(dyed_out - given), 0.25)
        self.assertTrue(np.isfinite(turned[True]).all())


class SurroundingsTest(unittest.TestCase):
    def test_a_spot_goes_and_texture_and_grain_stay(self):
        """A ramp with grain and a dark spot on it, whose rim is mixed: what is filled in is the
        ramp, with grain like that beside it.
        """
        rng = np.random.default_rng(8)
        clean = np.broadcast_to(np.linspace(0.2, 0.5, 160), (3, 120, 160)) + 0.0
        grain = 0.02 * rng.normal(size=clean.shape)
        down, across = np.mgrid[:120, :160]
        spot = np.clip(9.5 - np.hypot(down - 60, across - 80), 0, 1)
        picture = ((clean + grain) * (1 - spot) + 0.02 * spot).astype(np.float32)
        for mask in (spot, np.clip(10.5 - np.hypot(down - 60, across - 80), 0, 1)):
            sieve = Sieve(adjust=Adjust(fill=Fill(fill="surroundings", fill_where="behind")))
            out, alpha = adjusted(Frame(picture), Masked(mask.astype(np.float32), None), sieve)
            inside = spot > 0
            self.assertIsNone(alpha)
            self.assertLess(abs(float((out - clean)[:, inside].mean())), 0.01)
            self.assertAlmostEqual(float((out - clean)[:, inside].std()), 0.02, delta=0.008)
            self.assertEqual(out[:, mask == 0].tobytes(), picture[:, mask == 0].tobytes())

    def test_all_of_a_picture_and_nothing_of_it(self):
        picture = planes(2, -4, 60)
        for mask in (
            np.ones(picture.shape[1:], np.float32),
            np.full(picture.shape[1:], 1e-3, np.float32),
        ):
            self.assertTrue(np.isfinite(of_surroundings(picture, mask).layers).all())
        wild = np.where(
            np.random.default_rng(3).random((3, 40, 60)) < 0.5, BRIGHTEST, -BRIGHTEST
        ).astype(np.float32)
        mask = np.zeros((40, 60), np.float32)
        mask[10:20, 10:30] = 1
        self.assertTrue(np.isfinite(of_surroundings(wild, mask).layers).all())


def in_formula(mode: str, cb: np.ndarray, cs: np.ndarray) -> np.ndarray:
    """B(cb, cs) of one channel as W3C Compositing and Blending Level 1, section 9.1, has it (from
    memory of the text).
    """
    with np.errstate(divide="ignore", invalid="ignore"):
        soft = np.where(cb <= 0.25, ((16 * cb - 12) * cb + 4) * cb, np.sqrt(cb))
        hard = np.where(cs <= 0.5, cb * 2 * cs, cb + (2 * cs - 1) - cb * (2 * cs - 1))
        return {
            "multiply": cb * cs,
            "darken": np.minimum(cb, cs),
            "lighten": np.maximum(cb, cs),
            "screen": cb + cs - cb * cs,
            "hard-light": hard,
            "overlay": np.where(cb <= 0.5, cs * 2 * cb, cs + (2 * cb - 1) - cs * (2 * cb - 1)),
            "color-dodge": np.where(cb == 0, 0, np.where(cs == 1, 1, np.minimum(1, cb / (1 - cs)))),
            "color-burn": np.where(
                cb == 1, 1, np.where(cs == 0, 0, 1 - np.minimum(1, (1 - cb) / cs))
            ),
            "soft-light": np.where(
                cs <= 0.5, cb - (1 - 2 * cs) * cb * (1 - cb), cb + (2 * cs - 1) * (soft - cb)
            ),
            "difference": np.abs(cb - cs),
            "exclusion": cb + cs - 2 * cb * cs,
        }[mode]


def together_in_formula(mode: str, cb: np.ndarray, cs: np.ndarray) -> np.ndarray:
    """B(cb, cs) of one colour (3,), section 10.3 (from memory of the text)."""

    def lum(c):
        return 0.3 * c[0] + 0.59 * c[1] + 0.11 * c[2]

    def clipped(c):
        at, low, high = lum(c), c.min(), c.max()
        c = at + (c - at) * at / (at - low) if low < 0 else c
        return at + (c - at) * (1 - at) / (high - at) if high > 1 else c

    def with_lum(c, wanted):
        return clipped(c + (wanted - lum(c)))

    def with_sat(c, wanted):
        return (c - c.min()) * wanted / np.ptp(c) if np.ptp(c) > 0 else c * 0

    return {
        "hue": lambda: with_lum(with_sat(cs, np.ptp(cb)), lum(cb)),
        "saturation": lambda: with_lum(with_sat(cb, np.ptp(cs)), lum(cb)),
        "color": lambda: with_lum(cs, lum(cb)),
        "luminosity": lambda: with_lum(cb, lum(cs)),
    }[mode]()


class BlendTest(unittest.TestCase):
    def test_every_mode_follows_its_formula(self):
        # Source: W3C Compositing and Blending Level 1, on sRGB-coded values.
        rng = np.random.default_rng(6)
        back, front = rng.random((3, 4, 60)), rng.random((3, 4, 60))
        back[:, 0, :4], front[:, 0, 2:6] = [[0, 1, 0, 1]] * 3, [[0, 1, 1, 0]] * 3
        for mode in BLENDS[1:]:
            filling = Filling(np.concatenate([decode(front), np.ones((1, 4, 60), np.float32)]))
            out = encode(
                mixed(
                    decode(back),
                    np.ones((4, 60), np.float32),
                    [blending.filling(mode, 1.0)],
                    filling=filling,
                )
            )
            if mode in ("hue", "saturation", "color", "luminosity"):
                pairs = zip(back.reshape(3, -1).T, front.reshape(3, -1).T, strict=True)
                wanted = np.array([together_in_formula(mode, b, f) for b, f in pairs]).T.reshape(
                    back.shape
                )
            else:
                wanted = in_formula(mode, back, front)
            np.testing.assert_allclose(out, wanted, atol=2e-5, err_msg=mode)

    def test_a_sieve_blends_what_is_done_over_what_came(self):
        frame = Frame(planes(low=0.05, high=1))
        sieve = Sieve(adjust=Adjust(light=Light(exposure=-1)), blend="lighten")
        out, _ = adjusted(frame, Masked(WHOLE, None), sieve)
        np.testing.assert_allclose(out, frame.planes, rtol=1e-5)
        out, _ = adjusted(frame, Masked(WHOLE, None), sieve.but(blend="darken"))
        np.testing.assert_allclose(out, frame.planes / 2, rtol=1e-5)

    def test_opacity_is_mixed_in_light(self):
        filling = fill.of_colour((0.8, 0.2, 0.4))
        out = mixed(planes(), WHOLE, [blending.filling("normal", 0.25)], filling=filling)
        np.testing.assert_allclose(
            out,
            planes() + 0.25 * (np.float32([0.8, 0.2, 0.4])[:, None, None] - planes()),
            atol=1e-6,
        )


class FillTest(unittest.TestCase):
    def frame(self, width: int = 60, height: int = 40) -> Frame:
        return Frame(np.random.default_rng(7).random((3, height, width), dtype=np.float32))

    def test_a_gradient_and_a_picture_lie_the_same_in_every_part_and_scale(self):
        whole, picture = self.frame(120, 80), Frame(gaussian_of_noise(90, 90))
        part = whole.part(30, 20, 90, 60)
        for make in (
            lambda frame: fill.of_gradient((0, 0, 0), (1, 1, 1), 30, frame.whole_size, frame),
            lambda frame: fill.of_picture(picture, 10, -5, 130, frame.whole_size, frame),
        ):
            np.testing.assert_allclose(
                make(whole).layers[:, 20:60, 30:90], make(part).layers, atol=1e-5
            )
            small = Frame(make(whole).layers[:3].copy()).reduced(2)
            np.testing.assert_allclose(make(whole.reduced(2)).layers[:3], small.planes, atol=0.02)

    def test_a_picture_covers_and_is_moved(self):
        picture = Frame(
            np.broadcast_to(np.linspace(0, 1, 50, dtype=np.float32), (3, 25, 50)).copy()
        )
        frame = self.frame(100, 50)
        np.testing.assert_allclose(
            fill.of_picture(picture, 0, 0, 100, (100, 50), frame).layers[0, 10, 2:-2:2],
            picture.planes[0, 5, 1:-1],
            atol=0.011,
        )
        moved = fill.of_picture(picture, 50, 0, 100, (100, 50), frame).layers
        self.assertEqual(moved[3, 10, 10], 0)
        self.assertEqual(moved[3, 10, 90], 1)

    def test_nothing_makes_a_hole_and_behind_gives_a_cut_out(self):
        frame, mask = self.frame(), np.zeros((40, 60), np.float32)
        mask[10:30, 20:40] = 1
        mask[9, 20:40] = 0.5
        hole = Sieve(adjust=Adjust(fill=Fill(fill="nothing")))
        out, alpha = adjusted(frame, Masked(mask, None), hole)
        np.testing.assert_allclose(alpha, 1 - mask, atol=1e-6)
        cut = Sieve(
            adjust=Adjust(fill=Fill(fill="nothing", fill_where="behind"), light=Light(exposure=1))
        )
        out, alpha = adjusted(frame, Masked(mask, None), cut)
        np.testing.assert_allclose(alpha, mask, atol=1e-6)
        np.testing.assert_allclose(out[:, mask > 0], 2 * frame.planes[:, mask > 0], rtol=1e-6)
        sky = Sieve(
            adjust=Adjust(
                fill=Fill(fill="colour", fill_where="behind", fill_colour=(0.1, 0.2, 0.6))
            )
        )
        out, alpha = adjusted(frame, Masked(mask, None), sky)
        np.testing.assert_allclose(out[:, 0, 0], [0.1, 0.2, 0.6], rtol=1e-6)
        np.testing.assert_allclose(
            out[:, 9, 25], (frame.planes[:, 9, 25] + np.float32([0.1, 0.2, 0.6])) / 2, rtol=1e-5
        )
        self.assertEqual(out[:, mask == 1].tobytes(), frame.planes[:, mask == 1].tobytes())
        self.assertEqual(float(alpha.min()), 1.0)

    def test_colours_beyond_what_pictures_hold_are_brought_to_it(self):
        frame = Frame(planes())
        far = {"fill_colour": (1e6, -1e6, 0.2), "fill_to": (0.0, 1e6, 1e6)}
        for kind in ("colour", "gradient"):
            for where in ("inside", "behind"):
                sieve = Sieve(adjust=Adjust(fill=Fill(fill=kind, fill_where=where, **far)))
                for weights in (WHOLE, np.float32(0.5) * WHOLE):
                    out, _ = adjusted(frame, Masked(weights, None), sieve)
                    self.assertLessEqual(np.abs(out).max(), BRIGHTEST * (1 + 1e-6))


def gaussian_of_noise(height: int, width: int) -> np.ndarray:
    return np.stack(
        [
            gaussian(plane, 3.0)
            for plane in np.random.default_rng(8).random((3, height, width), dtype=np.float32)
        ]
    )


class DetailTest(unittest.TestCase):
    EACH = (
        {"noise": 60},
        {"blur": 4},
        {"blur": 30},
        {"local_contrast": 70},
        {"local_contrast": -70},
        {"sharpen": 80},
        {"grain": 40},
    )

    def test_no_colour_is_drawn_in_from_outside(self):
        rng = np.random.default_rng(9)
        inside = gaussian_of_noise(90, 120)
        mask = np.zeros((90, 120), np.float32)
        mask[20:70, 30:100] = rng.random((50, 70)) * 0.5 + 0.5
        other = np.where(mask > 0, inside, rng.random((3, 90, 120)) * 50).astype(np.float32)
        for given in self.EACH:
            one, two = (
                detail.with_detail(inside, mask, **given),
                detail.with_detail(other, mask, **given),
            )
            np.testing.assert_allclose(
                one[:, mask > 0], two[:, mask > 0], atol=2e-4, err_msg=str(given)
            )

    def test_an_even_surface_stays(self):
        flat = np.full((3, 60, 80), 0.3, np.float32)
        mask = np.random.default_rng(1).random((60, 80)).astype(np.float32)
        for given in self.EACH[:-1]:
            np.testing.assert_allclose(
                detail.with_detail(flat, mask, **given), flat, atol=2e-5, err_msg=str(given)
            )

    def test_noise_goes_and_edges_stay(self):
        rng = np.random.default_rng(2)
        clean = np.full((3, 120, 160), 0.2, np.float32)
        clean[:, :, 80:] = 0.6
        lab = to_oklab(clean)
        lab += (
            rng.normal(0, 1, lab.shape).astype(np.float32)
            * np.float32([0.01, 0.02, 0.02])[:, None, None]
        )
        noisy = from_oklab(lab)
        out = detail.with_detail(noisy, np.ones((120, 160), np.float32), noise=60)
        for part in (np.s_[:, 10:-10, 10:70], np.s_[:, 10:-10, 90:150]):
            self.assertLess(
                out[part].std(axis=(1, 2)).max(), 0.35 * noisy[part].std(axis=(1, 2)).max()
            )
        self.assertGreater(float(out[1, :, 81].mean() - out[1, :, 78].mean()), 0.85 * 0.4)

    def test_noise_is_told_by_wavelets_as_scipy_makes_them(self):
        # Source: scipy.ndimage's convolution, with the formulas of Starck and Murtagh (1998), Gao
        # (1998), Knutsson and Westin (1993).
        planes = gaussian_of_noise(430, 61)  # more rows than one thread takes in one go
        weights = np.random.default_rng(4).random((430, 61)).astype(np.float32)
        weights[:, :25] = 0

        def spread(plane: np.ndarray, hole: int) -> np.ndarray:
            spline = np.zeros(4 * hole + 1)
            spline[::hole] = np.array([1, 4, 6, 4, 1]) / 16
            return convolve1d(
                convolve1d(plane.astype(np.float64), spline, 1, mode="nearest"),
                spline,
                0,
                mode="nearest",
            )

        lab, out = to_oklab(planes), []
        for left, most in zip(lab.astype(np.float64), (0.02, 0.05, 0.05), strict=True):
            kept = np.zeros_like(left)
            for hole, share in zip((1, 2, 4, 8), (0.89, 0.20, 0.086, 0.041), strict=True):
                below = spread(weights, hole)
                mean = np.where(
                    below > 1e-4, spread(left * weights, hole) / np.maximum(below, 1e-4), left
                )
                wavelet = left - mean
                kept += wavelet * np.maximum(
                    1 - (3 * 0.6 * most * share) ** 2 / np.maximum(wavelet**2, 1e-20), 0
                )
                left = mean
            out.append(kept + left)
        np.testing.assert_allclose(
            to_oklab(detail.with_detail(planes, weights, noise=60))[:, :, 25:],
            np.array(out)[:, :, 25:],
            atol=2e-4,
        )

    def test_blur_is_that_of_scipy_where_all_is_masked(self):
        # Source: scipy.ndimage's Gaussian.
        pixels = gaussian_of_noise(160, 200)
        for sigma, within in ((2.0, 1e-5), (9.0, 4e-3)):
            out = detail.with_detail(pixels, np.ones((160, 200), np.float32), blur=sigma)
            theirs = np.stack([gaussian_filter(plane, sigma, mode="nearest") for plane in pixels])
            far = int(
                4 * sigma
            )  # at the border the picture is repeated otherwise when it is reduced
            inside = np.s_[:, far:-far, far:-far]
            np.testing.assert_allclose(out[inside], theirs[inside], atol=within)

    def test_local_contrast_makes_no_halo_at_an_edge(self):
        step = np.full((3, 80, 120), 0.05, np.float32)
        step[:, :, 60:] = 0.6
        out = detail.with_detail(
            step, np.ones((80, 120), np.float32), local_contrast=100, contrast_radius=20
        )
        # Unsharp masking of the same strength changes light beside this edge by more than it is.
        self.assertLess(float(np.abs(out / step - 1).max()), 0.15)
        wavy = step * (1 + 0.05 * np.sin(np.arange(120) * 0.8)).astype(np.float32)
        grown = detail.with_detail(
            wavy, np.ones((80, 120), np.float32), local_contrast=100, contrast_radius=20
        )
        self.assertGreater(float(grown[0, 40, 80:].std()), 1.5 * float(wavy[0, 40, 80:].std()))

    def test_grain_lies_fast_on_the_picture_and_moves_from_frame_to_frame(self):
        flat, mask = np.full((3, 80, 100), 0.2, np.float32), np.ones((80, 100), np.float32)
        whole = detail.with_detail(flat, mask, grain=50)
        part = detail.with_detail(
            flat[:, 20:60, 30:90].copy(), mask[20:60, 30:90].copy(), grain=50, origin=(30, 20)
        )
        np.testing.assert_allclose(whole[:, 20:60, 30:90], part, rtol=1e-4)
        other = detail.with_detail(flat, mask, grain=50, frame=1)
        self.assertLess(abs(float(np.corrcoef(whole[0].ravel(), other[0].ravel())[0, 1])), 0.1)
        small = detail.with_detail(
            flat[:, :40, :50].copy(), mask[:40, :50].copy(), grain=50, scale=0.5
        )
        self.assertLess(float(small.std()), 0.8 * float(whole.std()))

    def test_what_is_lowered_of_the_brightest_light_stays_within_what_pictures_hold(self):
        loud = np.random.default_rng(4).choice(
            np.array([-BRIGHTEST, BRIGHTEST, 0], np.float32), (3, 40, 48)
        )
        for amount in (1.0, 100.0):
            self.assertLessEqual(
                np.abs(detail.with_detail(loud, np.ones((40, 48), np.float32), noise=amount)).max(),
                BRIGHTEST,
            )


class EveryBlockTest(unittest.TestCase):
    def test_outside_the_mask_each_pixel_is_bit_identical(self):
        """Every block over random settings, on 16-bit codes and on unbounded float, through the one
        door that renders use.
        """
        rng = np.random.default_rng(5)
        coded = np.ascontiguousarray(demo_frame("yard").planes[:, 300:340, 1000:1100])
        sixteen = decode_integers(rng.integers(0, 65536, (3, 40, 100)).astype(np.uint16))
        pictures = (
            planes(2, -4, 60),
            coded,
            sixteen,
            np.full((3, 16, 40), 1e-30, np.float32),
            np.zeros((3, 16, 40), np.float32),
        )
        for name, _ in Adjust().blocks():
            for picture in pictures:
                for _ in range(5):
                    mask = np.where(
                        rng.random(picture.shape[1:]) < 0.5, 0, rng.random(picture.shape[1:])
                    ).astype(np.float32)
                    adjust = random_adjust(rng, name)
                    if name == "fill":
                        adjust = adjust.but(fill=adjust.fill.but(fill_where="inside"))
                    sieve = learnt(Sieve(adjust=adjust, blend=str(rng.choice(BLENDS))), picture)
                    out, alpha = adjusted(Frame(picture), Masked(mask, None), sieve)
                    self.assertEqual(
                        out[:, mask == 0].tobytes(), picture[:, mask == 0].tobytes(), name
                    )
                    self.assertTrue(np.isfinite(out).all(), (name, adjust))
                    self.assertTrue(alpha is None or (alpha[mask == 0] == 1).all())

    def test_all_blocks_at_once_never_make_nan_of_what_was_finite(self):
        rng = np.random.default_rng(12)
        for _ in range(40):
            adjust = random_adjust(rng)
            for picture in (planes(3, -4, 60), planes(4, 0, 1)):
                out, _ = adjusted(
                    Frame(picture), Masked(WHOLE, None), learnt(Sieve(adjust=adjust), picture)
                )
                self.assertTrue(np.isfinite(out).all(), adjust)

    def test_a_block_that_is_off_changes_nothing(self):
        rng = np.random.default_rng(13)
        for name, _ in Adjust().blocks():
            adjust = random_adjust(rng, name)
            off = adjust.but(**{name: getattr(adjust, name).but(on=False)})
            self.assertTrue(off.neutral, name)
            self.assertIs(
                adjusted(Frame(planes()), Masked(WHOLE, None), Sieve(adjust=off))[0].base,
                planes().base,
            )

    def test_neutral_settings_are_the_identity(self):
        self.assertTrue(Adjust().neutral)
        self.assertEqual(steps_of(Sieve()), [])
        frame = Frame(planes())
        for name, block in Adjust().blocks():
            self.assertTrue(block.neutral, name)
        self.assertIs(adjusted(frame, Masked(WHOLE, None), Sieve(blend="screen"))[0], frame.planes)


if __name__ == "__main__":
    unittest.main()
