"""What the views show, pixel by pixel, and the deciding sample."""

import math
import unittest

import cv2
import numpy as np
from common import demo_frame, truth

from amber_sieve.core import overlays
from amber_sieve.core.changed import RUN, no_runs
from amber_sieve.core.colour.oklab import one_to_oklab
from amber_sieve.core.colour.screen import to_screen
from amber_sieve.core.colour.transfer import decode
from amber_sieve.core.edge import fine
from amber_sieve.core.frame import Frame
from amber_sieve.core.pick.tolerance import thinned
from amber_sieve.core.scaling import scale_runs
from amber_sieve.core.statistics import statistics_of
from amber_sieve.desk.canvas.area_shape import boxed
from amber_sieve.live.sampling import sample_at, with_found_tolerance
from amber_sieve.project.model import (
    Adjust,
    Band,
    Bands,
    Edge,
    Mono,
    Pick,
    Project,
    Recolour,
    Sample,
    Sieve,
    Take,
)
from amber_sieve.render.cache import Cache
from amber_sieve.render.context import RenderContext
from amber_sieve.render.mask import bounds_of, mask_of
from amber_sieve.render.stages.every import mask_support_radius
from amber_sieve.render.views import VIEWS, Looking, shown_mask, solo_field, view
from amber_sieve.render.why import deciding_sample

MASK = np.array([[0, 0.05, 0.5, 0.95, 1]], np.float32)


def parts(words: np.ndarray) -> np.ndarray:
    """Red, green and blue of screen words, (3, H, W)."""
    return np.stack([(words >> shift) & 0xFF for shift in (16, 8, 0)])


class KernelTest(unittest.TestCase):
    def setUp(self):
        self.planes = np.broadcast_to(
            np.array([0.5, 0.2, 0.1], np.float32)[:, None, None], (3, 1, 5)
        ).copy()

    def test_the_mask_is_grey_in_proportion(self):
        levels = overlays.mask_to_levels(MASK)
        self.assertEqual(levels[0].tolist(), [0, 13, 128, 242, 255])
        self.assertEqual(parts(overlays.grey_pixels(levels))[:, 0].tolist(), levels.tolist() * 3)
        self.assertTrue((overlays.grey_pixels(levels) >> 24 == 255).all())

    def test_pixels_are_scaled_as_a_library_scales_numbers(self):
        """Source: OpenCV's linear interpolation of floats; half a level for rounding at the end,
        and a tenth for the shares.
        """
        chance = np.random.default_rng(9)
        for height, width, down, across in (
            (1, 1, 5, 7),
            (3, 2, 1, 1),
            (2, 1, 9, 3),
            (50, 60, 71, 85),
            (70, 90, 33, 41),
            (10, 9, 10, 9),
        ):
            around = chance.integers(0, 2**32, (height + 3, width + 5), np.uint32)
            pixels, out = around[2 : 2 + height, 3 : 3 + width], np.zeros((down, across), np.uint32)
            scale_runs(pixels, ~no_runs(height, width), out)
            channels, bits = [pixels >> shift & 255 for shift in (0, 8, 16, 24)], (0, 8, 16, 24)
            for channel, shift in zip(channels, bits, strict=True):
                wanted, levels = (
                    cv2.resize(
                        channel.astype(float), (across, down), interpolation=cv2.INTER_LINEAR
                    ),
                    np.zeros_like(out, np.uint8),
                )
                np.testing.assert_allclose(
                    (out >> shift & 255).astype(float),
                    wanted,
                    atol=0.6,
                    err_msg=str((height, width, down, across)),
                )
                scale_runs(channel.astype(np.uint8), ~no_runs(height, width), levels)
                np.testing.assert_array_equal(levels, out >> shift & 255)

    def test_what_lies_in_some_runs_is_scaled_as_all_of_it(self):
        """Of a picture that differs from one that was scaled in some runs alone, as part of a wider
        one too.
        """
        chance = np.random.default_rng(4)
        for height, width, down, across, left in (
            (60, 300, 85, 424, 0),
            (61, 301, 40, 201, 7),
            (60, 300, 60, 300, 63),
            (3, 70, 9, 75, 5),
        ):
            wide = chance.integers(0, 2**32, (height, left + width), np.uint32)
            runs = chance.random((height, -(-wide.shape[1] // RUN))) < 0.1
            other = np.where(
                runs[:, np.arange(wide.shape[1]) // RUN],
                chance.integers(0, 2**32, wide.shape, np.uint32),
                wide,
            )
            for kind in (np.uint32, np.uint8):
                one, another = (
                    np.ascontiguousarray(pixels.astype(kind)) for pixels in (wide, other)
                )
                out, wanted = np.zeros((down, across), kind), np.zeros((down, across), kind)
                scale_runs(one[:, left:], np.ones_like(runs), out, left)
                scale_runs(another[:, left:], np.ones_like(runs), wanted, left)
                scale_runs(another[:, left:], runs, out, left)
                np.testing.assert_array_equal(
                    out, wanted, str((height, width, down, across, left, kind))
                )

    def test_weak_spots_mark_leaks_and_holes_only(self):
        words = overlays.weak_spots(np.array([[0, 0.005, 0.05, 0.5, 0.95, 0.995, 1]], np.float32))[
            0
        ]
        self.assertEqual((words[2], words[4]), (overlays.LEAK, overlays.HOLE))
        for grey in (0, 1, 3, 5, 6):
            red, green, blue = parts(words[None, grey : grey + 1])[:, 0, 0]
            self.assertTrue(red == green == blue)

    def test_a_veil_lies_over_the_inside_or_the_outside(self):
        colour = (0.0, 1.0, 0.0)
        inside, outside = (
            overlays.veil(self.planes, MASK, colour, 0.5, side) for side in (False, True)
        )
        np.testing.assert_allclose(inside[:, 0, 0], self.planes[:, 0, 0])
        np.testing.assert_allclose(inside[:, 0, 4], (0.25, 0.6, 0.05), atol=1e-6)
        np.testing.assert_allclose(outside[:, 0, 4], self.planes[:, 0, 4], atol=1e-6)
        np.testing.assert_allclose(outside[:, 0, 0], (0.25, 0.6, 0.05), atol=1e-6)

    def test_the_veil_chooses_a_colour_far_from_what_it_covers(self):
        frame = demo_frame("yard")
        for kind in ("cloth", "turquoise", "oxblood", "leaf", "marigolds", "wall"):
            true = truth("yard", kind)
            covered = [float((plane * true).sum() / true.sum()) for plane in frame.planes]
            away = np.linalg.norm(
                one_to_oklab(overlays.far_colour(frame.planes, true)) - one_to_oklab(covered)
            )
            self.assertGreater(away, 0.20, kind)  # ten just noticeable differences

    def test_isolate_greys_the_rest_and_keeps_the_inside(self):
        out = overlays.isolate(self.planes, MASK)
        np.testing.assert_allclose(out[:, 0, 4], self.planes[:, 0, 4])
        self.assertAlmostEqual(float(out[:, 0, 0].std()), 0, places=6)

    def test_a_cut_out_stands_before_a_checkerboard(self):
        planes, mask = np.full((3, 16, 32), 0.9, np.float32), np.zeros((16, 32), np.float32)
        mask[:, 16:] = 1
        out = overlays.cut_out(planes, mask)
        self.assertNotEqual(out[0, 2, 2], out[0, 2, 10])
        self.assertTrue((out[:, :, 16:] == planes[:, :, 16:]).all())

    def test_the_band_of_fine_is_tinted(self):
        words = overlays.grey_pixels(overlays.mask_to_levels(np.ones((2, 2), np.float32)))
        tinted = overlays.with_band(words, np.array([[True, False], [False, False]]))
        self.assertNotEqual(tinted[0, 0], words[0, 0])
        self.assertEqual(tinted[1, 1], words[1, 1])


class ViewsTest(unittest.TestCase):
    @classmethod
    def setUpClass(cls):
        cls.frame = demo_frame("yard").reduced(4)
        full = demo_frame("yard")
        pick = Pick(
            samples=tuple(
                with_found_tolerance(sample_at(full, *place), full, Pick())
                for place in ((1230, 330), (735, 830))
            )
        )
        cls.project = Project(
            stack=(
                Sieve(pick=pick, adjust=Adjust(recolour=Recolour(hue=100.0)), edge=Edge(follow=8)),
            )
        )
        cls.sieve = cls.project.stack[0]
        grey = cls.sieve.but(adjust=Adjust(mono=Mono(mono=100)))
        cls.project = cls.project.but(takes=(Take(name="Grey", stack=(grey,)),))
        cls.cache = RenderContext(Cache(10**9))

    def show(self, name: str, **looking) -> np.ndarray:
        return view(name, self.frame, self.project, self.sieve.id, Looking(**looking), self.cache)

    def test_every_view_has_the_frames_size_and_no_two_are_alike(self):
        shown = [self.show(name) for name in VIEWS]
        for number, words in enumerate(shown):
            self.assertEqual(words.shape, self.frame.planes.shape[1:])
            for other in shown[number + 1 :]:
                self.assertFalse(np.array_equal(words, other))

    def test_the_original_is_the_picture(self):
        self.assertTrue(np.array_equal(self.show("original"), to_screen(self.frame.planes)))

    def test_one_sample_alone_and_a_spot_of_the_field(self):
        whole = mask_of(self.frame, self.sieve, self.cache)
        solo = shown_mask(
            self.frame,
            self.project,
            self.sieve.id,
            Looking(solo=self.sieve.pick.samples[1].id),
            self.cache,
        )
        self.assertLess(solo.sum(), whole.sum())
        self.assertGreater(solo[830 // 4, 735 // 4], 0.9)
        spot = shown_mask(
            self.frame, self.project, self.sieve.id, Looking(spot=(270.0, 48.0)), self.cache
        )
        self.assertGreater(spot[330 // 4, 1230 // 4], 0.5)
        self.assertEqual(spot[830 // 4, 735 // 4], 0)

    def test_the_field_shows_what_a_sample_takes(self):
        counted = statistics_of(self.frame.planes)
        taken = solo_field(counted, self.sieve, Looking(solo=self.sieve.pick.samples[0].id))
        self.assertTrue(0 < (taken > 0.5).sum() < (counted.field > 0).sum() / 2)
        self.assertIsNone(solo_field(counted, self.sieve, Looking()))

    def test_the_deciding_sample(self):
        jar, cloth = demo_frame("yard").planes[:, 830, 735], demo_frame("yard").planes[:, 330, 1230]
        named = self.sieve.but(
            pick=self.sieve.pick.but(
                samples=(
                    self.sieve.pick.samples[0].but(name="Cloth"),
                    self.sieve.pick.samples[1].but(role="drop"),
                )
            )
        )
        self.assertEqual(deciding_sample(cloth, named), "Cloth")
        self.assertEqual(deciding_sample(jar, named), "drop 2")
        self.assertEqual(deciding_sample(np.array([0.9, 0.9, 0.9], np.float32), named), "")
        here = named.but(
            pick=named.pick.but(
                samples=(
                    named.pick.samples[0],
                    named.pick.samples[1].but(role="keep", reach="here"),
                )
            )
        )
        self.assertEqual(deciding_sample(jar, here, 1.0), "keep 2")
        self.assertEqual(deciding_sample(jar, here, 0.0), "")
        twice = named.but(
            pick=named.pick.but(
                samples=(
                    *named.pick.samples,
                    named.pick.samples[0].but(id="x", role="drop", reach="here"),
                )
            )
        )
        self.assertEqual(deciding_sample(cloth, twice, 1.0), "Cloth")
        self.assertEqual(
            deciding_sample(cloth, twice, 0.0), "Cloth"
        )  # it bears the name of the sample it was made from


class BoundsTest(unittest.TestCase):
    def test_areas_bound_what_colours_are_learnt_from(self):
        frame = demo_frame("yard").reduced(4)
        here = Sieve(areas=(boxed("rect", (1000, 130), (1450, 580), mode="intersect"),))
        within = bounds_of(frame, here, RenderContext())
        self.assertIsNone(bounds_of(frame, Sieve(), RenderContext()))
        counted = statistics_of(frame.planes, within)
        self.assertLess(counted.field.sum(), statistics_of(frame.planes).field.sum() / 4)
        self.assertLess(
            counted.hue[:40].sum(), counted.hue[180:200].sum()
        )  # cloth and sky there, no terracotta
        self.assertEqual(thinned(frame.planes, within).shape, (3, 1, int(within.sum())))
        self.assertEqual(
            thinned(frame.planes, np.zeros_like(within)).shape[1:], frame.planes.shape[1:]
        )

    def test_what_needs_the_whole_picture(self):
        near = Sieve(
            bands=Bands(hue=Band(on=True, corners=(0, 10, 20, 30))),
            edge=Edge(specks=100, holes=100, grow=3, follow=8),
        )
        self.assertFalse(math.isinf(mask_support_radius(near)))
        self.assertGreater(mask_support_radius(near), 3 + 8)
        for sieve in (
            Sieve(pick=Pick(connected=True, samples=(Sample(x=1, y=1, colour=(0.1, 0.1, 0.1)),))),
            Sieve(edge=Edge(all_holes=True)),
            Sieve(edge=Edge(islands_out=({"x": 1, "y": 2},))),
        ):
            self.assertTrue(math.isinf(mask_support_radius(sieve)))


class TilesTest(unittest.TestCase):
    def test_fine_in_tiles_has_no_seams(self):
        y, x = np.mgrid[0:220, 0:300].astype(np.float32)
        ratio = np.clip((150 - x + 9 * np.sin(y / 9)) / 6, 0, 1)
        noise = np.random.default_rng(1).normal(0, 0.004, (3, 220, 300))
        planes = (
            np.stack([0.1 + 0.6 * ratio, 0.5 - 0.3 * ratio, 0.2 + 0.1 * ratio]) + noise
        ).astype(np.float32)
        mask = (ratio > 0.5).astype(np.float32)
        whole = fine.closed_form_matte(planes, mask, 10)
        held, fine.TILE = fine.TILE, 96
        try:
            tiled = fine.closed_form_matte(planes, mask, 10)
        finally:
            fine.TILE = held
        self.assertLess(np.abs(tiled - whole).max(), 0.06)
        self.assertLess(np.abs(tiled - whole).mean(), 0.001)

    def test_fine_tells_how_far_it_is_and_can_be_stopped(self):
        planes = np.broadcast_to(
            decode(np.array([0.3, 0.5, 0.7]))[:, None, None], (3, 40, 40)
        ).copy()
        planes[:, :, :20] *= 0.3
        mask = np.zeros((40, 40), np.float32)
        mask[:, :20] = 1
        told = []
        fine.closed_form_matte(planes, mask, 4, told.append)
        self.assertEqual(told, [1.0])

        def stop(share: float) -> None:
            raise InterruptedError

        with self.assertRaises(InterruptedError):
            fine.closed_form_matte(planes, mask, 4, stop)


class FrameTest(unittest.TestCase):
    def test_reductions_and_parts_know_their_place(self):
        frame = Frame(np.arange(3 * 40 * 60, dtype=np.float32).reshape(3, 40, 60), key="k")
        small = frame.reduced(4)
        self.assertEqual((small.height, small.width, small.scale), (10, 15, 0.25))
        self.assertAlmostEqual(
            float(small.planes[0, 0, 0]), float(frame.planes[0, :4, :4].mean()), places=3
        )
        part = small.part(4, 2, 10, 8)
        self.assertEqual((part.origin, part.scale, part.width), ((16, 8), 0.25, 6))
        self.assertEqual(len({frame.key, small.key, part.key}), 3)
        self.assertIs(frame.reduced(1), frame)
        with self.assertRaises(ValueError):
            Frame(np.zeros((40, 60, 3), np.float64))

    def test_each_pixel_of_a_reduction_is_the_mean_of_those_it_covers(self):
        """Source: OpenCV's means over areas for whole factors; for others the integral of the
        picture, from cumulative sums.
        """
        chance = np.random.default_rng(6)
        for height, width, factor in (
            (40, 60, 2),
            (40, 60, 4),
            (41, 59, 1.7),
            (37, 64, 2.5),
            (5, 3, 1.2),
            (64, 9, 20),
            (1, 7, 3),
            (33, 50, 2**0.5),
        ):
            planes = chance.random((3, height, width), dtype=np.float32)
            small = Frame(planes, planes[0]).reduced(factor)
            rows, columns = small.planes.shape[1:]
            if (rows * factor, columns * factor) == (height, width):
                wanted = cv2.resize(planes[1], (columns, rows), interpolation=cv2.INTER_AREA)
                np.testing.assert_allclose(small.planes[1], wanted, atol=1e-6)
            sums = planes.astype(np.float64)
            for axis, count in ((1, rows), (2, columns)):
                size = sums.shape[axis]
                before = np.concatenate(
                    [np.zeros_like(np.take(sums, [0], axis)), np.cumsum(sums, axis)], axis
                )
                ends = np.arange(count + 1) * (size / count)
                first, share = (
                    np.minimum(ends.astype(int), size - 1),
                    ends - np.minimum(ends.astype(int), size - 1),
                )
                shape = [-1 if k == axis else 1 for k in range(3)]
                at = np.take(before, first, axis) + share.reshape(shape) * np.take(
                    sums, first, axis
                )
                sums = np.diff(at, axis=axis) / (size / count)
            np.testing.assert_allclose(
                small.planes, sums, atol=2e-6, err_msg=str((height, width, factor))
            )
            np.testing.assert_array_equal(small.alpha, small.planes[0])

    def test_a_part_is_reduced_as_if_it_stood_alone(self):
        planes = np.random.default_rng(7).random((3, 60, 80), dtype=np.float32)
        part, alone = (
            Frame(planes).part(11, 7, 70, 51, 1.4),
            Frame(planes[:, 7:51, 11:70].copy()).reduced(1.4),
        )
        np.testing.assert_array_equal(part.planes, alone.planes)
        self.assertEqual(
            (part.origin, part.whole_size, part.scale), ((11, 7), (80, 60), alone.scale)
        )
