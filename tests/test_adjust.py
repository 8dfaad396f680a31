"""Adjustments: against references, the identity, and what lies outside the mask."""

import unittest

import numpy as np
import PyOpenColorIO as ocio
from common import demo_frame

from amber_sieve.core.adjust import cdl, light, mono
from amber_sieve.core.mix import mixed
from amber_sieve.project.fields import numbers_of
from amber_sieve.project.model import Adjust
from amber_sieve.render.adjust import steps_of

WHOLE = np.ones((16, 40), np.float32)


def planes(seed: int = 1, low: float = -0.1, high: float = 1.6) -> np.ndarray:
    return np.random.default_rng(seed).uniform(low, high, (3, 16, 40)).astype(np.float32)


def random_adjust(rng: np.random.Generator, only: str = "") -> Adjust:
    """Every number of every block, or of one, somewhere in its range."""
    blocks = {
        name: {spec.name: float(rng.uniform(spec.low, spec.high)) for spec in numbers_of(type(block))}
        for name, block in Adjust().blocks()
        if not only or name == only
    }
    return Adjust(**blocks)


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
            np.testing.assert_allclose(np.log2(out[0, 0] / 0.18), times * np.arange(-4, 5), atol=1e-5)
        moved = mixed(pixels, np.ones((1, 9), np.float32), light.steps(contrast=100, pivot=2))
        self.assertAlmostEqual(float(moved[0, 0, 6]), float(at[6]), places=6)
        dark = mixed(np.full((3, 1, 1), -0.02, np.float32), np.ones((1, 1), np.float32), light.steps(contrast=80))
        self.assertEqual(dark[0, 0, 0], np.float32(-0.02))


class CdlTest(unittest.TestCase):
    def test_it_is_what_opencolorio_does(self):
        # Source: ASC Color Decision List 1.2 as OpenColorIO applies it, without clamping.
        rng = np.random.default_rng(3)
        for _ in range(12):
            slope, offset, power = rng.uniform(0.4, 2, 3), rng.uniform(-0.2, 0.2, 3), rng.uniform(0.5, 2, 3)
            saturation = float(rng.uniform(0, 2))
            theirs = ocio.CDLTransform(slope=list(slope), offset=list(offset), power=list(power), sat=saturation)
            theirs.setStyle(ocio.CDL_NO_CLAMP)
            processor = ocio.Config.CreateRaw().getProcessor(theirs).getOptimizedCPUProcessor(ocio.OPTIMIZATION_LOSSLESS)
            pixels = np.ascontiguousarray(np.moveaxis(planes(), 0, -1))
            processor.applyRGB(pixels)
            ours = mixed(planes(), WHOLE, cdl.steps(*slope, *offset, *power, saturation))
            np.testing.assert_allclose(ours, np.moveaxis(pixels, -1, 0), atol=1e-5)


class MonoTest(unittest.TestCase):
    def test_greys_stay_and_colours_become_grey(self):
        ramp = np.broadcast_to(np.linspace(0, 2, 40, dtype=np.float32), (3, 16, 40)).copy()
        for weights in ({}, {"mono_red": 120.0, "mono_blue": -30.0}):
            np.testing.assert_allclose(mixed(ramp, WHOLE, mono.steps(mono=100, **weights)), ramp, atol=1e-6)
            out = mixed(planes(), WHOLE, mono.steps(mono=100, **weights))
            np.testing.assert_allclose(out[0], out[2], atol=1e-6)

    def test_one_channel_alone(self):
        out = mixed(planes(), WHOLE, mono.steps(mono=100, mono_red=50, mono_green=0, mono_blue=0))
        np.testing.assert_allclose(out[1], planes()[0], atol=1e-6)
        half = mixed(planes(), WHOLE, mono.steps(mono=50, mono_red=50, mono_green=0, mono_blue=0))
        np.testing.assert_allclose(half[1], (planes()[0] + planes()[1]) / 2, atol=1e-6)
        self.assertTrue(np.isfinite(mixed(planes(), WHOLE, mono.steps(mono=100, mono_red=50, mono_green=-50, mono_blue=0))).all())


class EveryBlockTest(unittest.TestCase):
    def test_outside_the_mask_each_pixel_is_bit_identical(self):
        rng = np.random.default_rng(5)
        frame = demo_frame("yard").planes[:, 300:340, 1000:1100]
        pictures = (planes(2, -4, 60), np.ascontiguousarray(frame), np.ascontiguousarray(frame * 0 + np.float32(1e-30)))
        for name, _ in Adjust().blocks():
            for picture in pictures:
                for _ in range(6):
                    mask = np.where(rng.random(picture.shape[1:]) < 0.5, 0, rng.random(picture.shape[1:])).astype(np.float32)
                    out = mixed(picture, mask, steps_of(random_adjust(rng, name)))
                    self.assertEqual(out[:, mask == 0].tobytes(), picture[:, mask == 0].tobytes(), name)
                    self.assertTrue(np.isfinite(out).all(), name)

    def test_neutral_settings_are_the_identity(self):
        self.assertTrue(Adjust().neutral)
        self.assertEqual(steps_of(Adjust()), [])
        for name, block in Adjust().blocks():
            self.assertTrue(block.neutral, name)
            self.assertEqual(mixed(planes(), WHOLE, steps_of(Adjust())).tobytes(), planes().tobytes())


if __name__ == "__main__":
    unittest.main()
