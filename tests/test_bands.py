"""Bands, tonal starts, presets, connected only, fit, statistics."""

import colorsys
import unittest
import warnings
from unittest import mock

import cv2
import numpy as np
from common import FolderCase, demo_frame, overlap, truth

with warnings.catch_warnings():
    warnings.simplefilter("ignore")
    import colour
from scipy.sparse import coo_matrix
from scipy.sparse.csgraph import connected_components
from skimage import color as sk_color

from amber_sieve.core.bands.apply import band_curve, bands_mask
from amber_sieve.core.bands.interval import Interval, luminance_ramp, shares_by_corner, with_corner
from amber_sieve.core.bands.starts import tonal
from amber_sieve.core.colour.measures import hue_saturation_luminance
from amber_sieve.core.colour.oklab import to_oklab
from amber_sieve.core.colour.transfer import decode, to_levels
from amber_sieve.core.frame import Frame
from amber_sieve.core.pick.connected import connected_only
from amber_sieve.core.pick.samples import SampleParams, membership
from amber_sieve.core.pick.tones import tones_of
from amber_sieve.core.statistics import coverage_of, statistics_of
from amber_sieve.errors import Trouble
from amber_sieve.live.sampling import bands_from_samples, fitted, sample_along, sample_at
from amber_sieve.names import MEASURES
from amber_sieve.project import presets, store
from amber_sieve.project.model import Bands, Pick, Project, Ramp, Sample, Sieve
from amber_sieve.render.cache import Cache
from amber_sieve.render.clicked import seeds_of
from amber_sieve.render.context import RenderContext
from amber_sieve.render.evaluate import measured as frame_measured
from amber_sieve.render.mask import qualified
from amber_sieve.render.stack import render, sieve_mask


def measured(planes: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """Oklab and the six measures."""
    lab = to_oklab(planes)
    return lab, np.concatenate([hue_saturation_luminance(planes, lab), to_levels(planes)])


def row_of_levels(levels) -> np.ndarray:
    """Planes (3, 1, N) of sRGB levels (N,) or (N, 3)."""
    values = np.asarray(levels, float)
    values = values if values.ndim == 2 else np.repeat(values[:, None], 3, 1)
    return np.ascontiguousarray(decode(values / 255).T[:, None])


class TradeFactsTest(unittest.TestCase):
    """Facts of the trade: common practice, no source."""

    def test_levels_on_a_ten_step_ramp(self):
        steps = np.linspace(0, 255, 10)
        lab, extra = measured(row_of_levels(steps))
        for share, taken in ((0.30, 4 - 1), (1 / 3, 4), (1.0, 10)):
            probe = SampleParams(
                (0, 0, 0), compare="levels", tolerance=255 * share, falloff=0, shape="hard"
            )
            self.assertEqual(int(membership(lab, [probe], extra).sum()), taken, share)

    def test_thirty_per_cent_of_a_ramp_stepped_by_tenths_takes_four(self):
        # Ten steps of a tenth each from black: 0, 10, 20 and 30 per cent lie within 30 per cent.
        steps = np.arange(10) * 25.5
        lab, extra = measured(row_of_levels(steps))
        probe = SampleParams((0, 0, 0), compare="levels", tolerance=76.5, falloff=0, shape="hard")
        np.testing.assert_array_equal(membership(lab, [probe], extra)[0], [1] * 4 + [0] * 6)
        everything = SampleParams(
            (0, 0, 0), compare="levels", tolerance=255, falloff=0, shape="hard"
        )
        self.assertEqual(membership(lab, [everything], extra).sum(), 10)

    def test_a_tolerance_of_n_levels_takes_n_either_way(self):
        lab, extra = measured(row_of_levels(np.arange(256)))
        sample = float(decode(np.array([100 / 255]))[0])
        for n in (0, 1, 7, 40):
            mask = membership(
                lab,
                [
                    SampleParams(
                        (sample,) * 3, compare="levels", tolerance=n, falloff=0, shape="hard"
                    )
                ],
                extra,
            )[0]
            self.assertEqual(np.flatnonzero(mask).tolist(), list(range(100 - n, 101 + n)))

    def test_two_samples_at_20_beat_one_at_60(self):
        yellows, others = [(250, 220, 60), (214, 190, 96)], [(246, 160, 50), (226, 208, 170)]
        lab, extra = measured(row_of_levels(np.array(yellows + others)))
        light = [tuple(map(float, decode(np.array(y) / 255))) for y in yellows]
        two = membership(
            lab, [SampleParams(c, compare="levels", tolerance=20, falloff=0) for c in light], extra
        )[0]
        one = membership(
            lab, [SampleParams(light[0], compare="levels", tolerance=60, falloff=0)], extra
        )[0]
        np.testing.assert_array_equal(two, [1, 1, 0, 0])
        self.assertTrue(one[2] == 1 or one[1] == 0)

    def test_what_is_bridged_is_what_a_graph_of_all_pixels_joins(self):
        """Against scipy.sparse.csgraph: neighbours are joined whose distances, as OpenCV measures
        them, come to no more than the bridge.
        """
        random = np.random.default_rng(7)
        for bridge in (0, 1, 2, 3, 4, 7):
            for share in (0.8, 0.9, 0.97):
                mask = random.random((40, 60), dtype=np.float32)
                mask[mask < share] = 0
                y, x = (int(places[len(places) // 2]) for places in np.nonzero(mask))
                away = cv2.distanceTransform(
                    (mask == 0).astype(np.uint8), cv2.DIST_L2, cv2.DIST_MASK_5
                )
                number, pairs = np.arange(mask.size).reshape(mask.shape), []
                for one, other, near in (
                    (np.s_[:, :-1], np.s_[:, 1:], bridge), (np.s_[:-1], np.s_[1:], bridge),
                    (np.s_[:-1, :-1], np.s_[1:, 1:], 0), (np.s_[:-1, 1:], np.s_[1:, :-1], 0),
                ):  # fmt: skip
                    joined = away[one] + away[other] <= near + (0.45 if near else 0)
                    pairs.append(np.stack([number[one][joined], number[other][joined]]))
                a, b = np.concatenate(pairs, axis=1)
                groups = connected_components(
                    coo_matrix((np.ones(a.size), (a, b)), shape=(mask.size, mask.size)),
                    directed=False,
                )[1]
                groups = groups.reshape(mask.shape)
                expected = np.where(groups == groups[y, x], mask, 0)
                self.assertTrue(
                    np.array_equal(connected_only(mask, [(x, y)], bridge), expected),
                    (bridge, share),
                )

    def test_a_bridge_crosses_a_line_of_its_width_and_not_before(self):
        for width in (1, 2, 3, 5):
            mask = np.ones((20, 40), np.float32)
            mask[:, 20 : 20 + width] = 0
            for bridge in range(width + 2):
                held = connected_only(mask, [(5, 5)], bridge)
                self.assertEqual(held[5, 35], float(bridge >= width), (width, bridge))
                self.assertEqual(held[5, 5], 1)

    def test_luminance_takes_yellow_most_and_blue_least(self):
        planes = row_of_levels(
            np.array(
                [(255, 0, 0), (0, 255, 0), (0, 0, 255), (255, 255, 0), (255, 0, 255), (0, 255, 255)]
            )
        )
        _, measures = measured(planes)
        weights = bands_mask(measures, [luminance_ramp(0, 100)])[0]
        self.assertEqual((int(weights.argmax()), int(weights.argmin())), (3, 2))


class IntervalTest(unittest.TestCase):
    def test_corners_and_slopes(self):
        interval = Interval("luminance", (20, 40, 60, 70))
        np.testing.assert_allclose(
            band_curve(interval, np.array([10, 20, 30, 40, 55, 60, 65, 70, 90])),
            [0, 0, 0.5, 1, 1, 1, 0.5, 0, 0],
            atol=1e-5,
        )
        np.testing.assert_allclose(
            band_curve(Interval("red", (10, 10, 20, 20)), np.array([9, 10, 20, 21])), [0, 1, 1, 0]
        )
        with self.assertRaises(ValueError):
            Interval("luminance", (20, 10, 60, 70))

    def test_hue_wraps_and_fades_towards_grey(self):
        around_zero = Interval("hue", (330, 350, 380, 400))
        np.testing.assert_allclose(
            band_curve(around_zero, np.array([340, 355, 5, 19, 30, 45, 180])),
            [0.5, 1, 1, 1, 0.5, 0, 0],
            atol=1e-4,
        )
        measures = np.zeros((3, 1, 3), np.float32)
        measures[0], measures[1, 0] = 10, (0, 3, 50)
        mask = bands_mask(measures, [around_zero])[0]
        self.assertEqual((mask[0], mask[2]), (0, 1))
        self.assertTrue(0 < mask[1] < 1)

    def test_full_range_and_inversion(self):
        measures = np.random.default_rng(1).random((6, 4, 5), dtype=np.float32) * 100
        self.assertTrue(
            (
                bands_mask(
                    measures,
                    [Interval("luminance", (0, 0, 100, 100)), Interval("hue", (0, 0, 360, 360))],
                )
                == 1
            ).all()
        )
        band = Interval("luminance", (20, 30, 60, 70))
        other = Interval("luminance", (20, 30, 60, 70), inverted=True)
        np.testing.assert_allclose(
            bands_mask(measures, [band]) + bands_mask(measures, [other]), 1, atol=1e-6
        )

    def test_the_ends_of_a_range_hold_what_lies_beyond(self):
        self.assertEqual(
            band_curve(Interval("luminance", (80, 90, 100, 100)), np.array([140.0]))[0], 1
        )

    def test_tonal_parts_sum_to_one(self):
        values = np.linspace(0, 100, 401)
        for softness in (0, 25, 50, 100):
            for shape in ("linear", "smooth"):
                total = sum(
                    band_curve(Interval("luminance", tonal(part, softness), shape=shape), values)
                    for part in ("shadows", "midtones", "highlights")
                )
                between = (
                    np.abs(values[:, None] - [100 / 3, 200 / 3]).min(1) > 1e-9
                )  # a hard step counts on both its sides
                np.testing.assert_allclose(total[between], 1, atol=1e-4)

    def test_a_ramp_is_the_luminance_itself(self):
        values = np.array([0, 20, 50, 80, 100.0])
        np.testing.assert_allclose(
            band_curve(luminance_ramp(20, 80), values), [0, 0, 0.5, 1, 1], atol=1e-5
        )
        np.testing.assert_allclose(
            band_curve(luminance_ramp(20, 80, inverse=True), values), [1, 1, 0.5, 0, 0], atol=1e-5
        )


class AgreementTest(unittest.TestCase):
    def test_value_and_luminance_agree_with_colorsys_and_skimage(self):
        # Sources: Python's colorsys, scikit-image. They define hue and saturation on coded RGB; we
        # define them on Oklab, so only value (the largest level) and L* coincide. The six pure hues
        # keep their order round the circle.
        colours = np.random.default_rng(2).integers(0, 256, (300, 3))
        planes = row_of_levels(colours)
        _, measures = measured(planes)
        value = [colorsys.rgb_to_hsv(*(c / 255))[2] * 255 for c in colours]
        np.testing.assert_allclose(measures[3:, 0].max(0), value, atol=0.02)
        grey = sk_color.rgb2lab(np.repeat(np.linspace(0, 1, 50)[:, None], 3, 1)[None])[0, :, 0]
        np.testing.assert_allclose(
            measured(row_of_levels(np.linspace(0, 255, 50)))[1][2, 0], grey, atol=0.02
        )
        pure = row_of_levels(
            np.array(
                [(255, 0, 0), (255, 255, 0), (0, 255, 0), (0, 255, 255), (0, 0, 255), (255, 0, 255)]
            )
        )
        self.assertTrue((np.diff(measured(pure)[1][0, 0]) > 0).all())
        self.assertEqual([round(colorsys.rgb_to_hsv(*c)[0] * 6) for c in np.eye(3)], [0, 2, 4])

    def test_single_channel_distances(self):
        lab, extra = measured(
            row_of_levels(np.array([(100, 50, 50), (100, 200, 9), (140, 50, 50)]))
        )
        sample = tuple(map(float, decode(np.array((100, 50, 50)) / 255)))
        for compare, expected in (("red", [1, 1, 0]), ("green", [1, 0, 1]), ("hue", [1, 0, 1])):
            mask = membership(
                lab, [SampleParams(sample, compare=compare, tolerance=12, falloff=0)], extra
            )[0]
            np.testing.assert_array_equal(mask, expected, compare)


class ColourCheckerTest(unittest.TestCase):
    """Source: the ColorChecker's published xyY (BabelColor averages, 2005) from colour-science."""

    @classmethod
    def setUpClass(cls):
        chart = colour.CCS_COLOURCHECKERS["ColorChecker 2005"]
        light = [
            colour.XYZ_to_RGB(
                colour.xyY_to_XYZ(v),
                "sRGB",
                chart.illuminant,
                "Bradford",
                apply_cctf_encoding=False,
            )
            for v in chart.data.values()
        ]
        cls.names = [name.split(" (")[0] for name in chart.data]
        cls.frame = Frame(np.ascontiguousarray(np.array(light, np.float32).T[:, None]))

    def taken(self, name: str) -> dict[str, float]:
        preset = next(p for p in presets.SHIPPED if p.name == name)
        return dict(
            zip(
                self.names,
                qualified(self.frame, preset.pick, preset.bands, RenderContext())[0].tolist(),
                strict=True,
            )
        )

    def check_preset(self, name: str, inside: tuple[str, ...], outside: tuple[str, ...]) -> None:
        taken = self.taken(name)
        for patch in inside:
            self.assertGreater(taken[patch], 0.9, (name, patch))
        for patch in outside:
            self.assertLess(taken[patch], 0.1, (name, patch))

    def test_presets(self):
        self.check_preset(
            "Skin tones", ("dark skin", "light skin"), ("orange", "moderate red", "orange yellow")
        )
        self.check_preset("Skies", ("blue sky",), ("blue", "purple"))
        self.check_preset("Foliage", ("foliage",), ("bluish green",))
        greys = ("white 9.5", "neutral 8", "neutral 6.5", "neutral 5", "neutral 3.5", "black 2")
        self.check_preset(
            "Neutrals", greys, tuple(name for name in self.names if name not in greys)
        )
        self.check_preset("Warm", ("orange", "red", "orange yellow"), ("blue", "cyan", "green"))
        self.check_preset("Cool", ("blue", "cyan", "blue sky"), ("orange", "red", "yellow"))


class ForetellingTest(unittest.TestCase):
    def test_shares_by_corner_are_those_of_the_mask(self):
        """Against the mask itself, band by band (a property, checked with plain NumPy on the
        yard).
        """
        frame = demo_frame("yard")
        small = np.ascontiguousarray(frame.planes[:, ::7, ::7])
        planes = hue_saturation_luminance(small, to_oklab(small))
        for measure, plane, corners in (
            ("luminance", planes[2], (20, 30, 60, 70)),
            ("hue", planes[0], (340, 350, 380, 390)),
            ("saturation", planes[1], (5, 10, 40, 50)),
        ):
            known = MEASURES[measure]
            counts, _ = np.histogram(
                np.clip(plane, known.low, known.high), 256, (known.low, known.high)
            )
            for inverted in (False, True):
                interval = Interval(measure, corners, inverted)
                for index in range(4):
                    places = np.linspace(corners[0] - 10, corners[3] + 10, 7)
                    found = shares_by_corner(counts, interval, index, places)
                    for place, share in zip(places, found, strict=True):
                        moved = Interval(
                            measure, with_corner(corners, index, float(place), measure), inverted
                        )
                        a, b, c, d = moved.corners
                        turns = (-360, 0, 360) if known.wraps else (0,)
                        plain = np.max(
                            [
                                np.interp(
                                    plane + turn, (a, b + 1e-6, c + 2e-6, d + 3e-6), (0, 1, 1, 0)
                                )
                                for turn in turns
                            ],
                            axis=0,
                        ).mean()
                        self.assertAlmostEqual(
                            share,
                            1 - plain if inverted else plain,
                            delta=0.012,
                            msg=(measure, index, place),
                        )


class LearningTest(unittest.TestCase):
    def test_bands_from_three_clicks_on_the_cloth(self):
        frame, true = demo_frame("yard"), truth("yard", "cloth")
        samples = [sample_at(frame, x, y) for x, y in ((1080, 250), (1235, 420), (1400, 180))]
        bands = bands_from_samples(Pick(samples=tuple(samples)), Bands(), frame)
        found = overlap(qualified(frame, Pick(), bands, RenderContext()), true)
        print(f"\nbands set from three clicks on the cloth: intersection over union {found:.3f}")
        self.assertGreaterEqual(found, 0.9)
        one = bands_from_samples(Pick(samples=tuple(samples[:1])), Bands(), frame)
        width = lambda b: b.saturation.corners[2] - b.saturation.corners[1]  # noqa: E731
        self.assertGreater(width(bands), width(one))
        with self.assertRaises(Trouble):
            bands_from_samples(Pick(), Bands(), frame)

    def test_bands_are_set_from_what_is_surely_kept(self):
        """A box over the cloth and the wall behind it, and a drop sample that takes the wall out:
        the wall is no part of the bands.
        """
        frame = demo_frame("yard")
        cloth, box = (
            sample_at(frame, 1235, 420),
            sample_along(frame, "box", [(1180, 300), (1480, 420)]),
        )
        wall = sample_at(frame, 1475, 360, role="drop", rule="tolerance", tolerance=12)
        brightest = [
            bands_from_samples(Pick(samples=samples), Bands(), frame).luminance.corners[2]
            for samples in ((cloth,), (box,), (box, wall))
        ]
        print(
            f"\nbrightest that counts fully: cloth {brightest[0]:.1f}, box {brightest[1]:.1f}, "
            f"box without the wall {brightest[2]:.1f}"
        )
        self.assertLess(brightest[2], brightest[1] - 5)

    def test_fit_parts_the_figure_from_the_terracotta(self):
        frame, figure, terracotta = (
            demo_frame("yard"),
            truth("yard", "figure"),
            truth("yard", "terracotta"),
        )
        keep = sample_along(
            frame, "stroke", [(1225, 790), (1265, 880), (1245, 940), (1290, 990), (1320, 985)], 14
        )
        drops = [
            sample_along(frame, "stroke", points, 16, role="drop")
            for points in ([(1390, 870), (1400, 900)], [(1330, 830), (1440, 860)])
        ]
        pick, found = fitted(Pick(samples=(keep, *drops)), frame)
        mask = qualified(frame, pick, Bands(), RenderContext())
        own = np.maximum(figure, terracotta) > 0.5
        parted = overlap(mask[own], figure[own])
        print(
            f"\nfit from one keep and two drop strokes: over figure and terracotta {parted:.3f}, "
            f"over the whole picture {overlap(mask, figure):.3f}; separation "
            f"{found.separation:.3f}"
        )
        self.assertGreaterEqual(parted, 0.9)
        self.assertGreater(found.separation, 0.9)
        self.assertIn(found.nearest, (0, 1))
        with self.assertRaises(Trouble):
            fitted(Pick(samples=tuple(drops)), frame)

    def test_tones_of_a_plain_and_a_mixed_place(self):
        plain = np.full((3, 50), 0.3, np.float32)
        self.assertEqual(tones_of(plain).shape, (1, 3))
        mixed = np.concatenate([plain, plain * np.array([[2], [0.2], [0.1]], np.float32)], axis=1)
        self.assertGreaterEqual(len(tones_of(mixed)), 2)

    def test_statistics_and_coverage(self):
        counted = statistics_of(demo_frame("yard").planes)
        # Counted over a part of the pixels, it must tell what all of them tell: share of the
        # picture that lies elsewhere.
        with mock.patch("amber_sieve.core.statistics.COUNTED_ON", 10**9):
            every = statistics_of(demo_frame("yard").planes)
        self.assertEqual(every.field.sum(), 1800 * 1200)
        for name, most in (("hue", 0.03), ("saturation", 0.03), ("luminance", 0.03)):
            one, other = (
                getattr(part, name) / getattr(part, name).sum() for part in (counted, every)
            )
            self.assertLess(np.abs(one - other).sum() / 2, most, name)
        self.assertEqual(counted.luminance.sum(), counted.field.sum())
        self.assertEqual(counted.levels.shape, (3, 256))
        cover = coverage_of(np.array([[0, 0.5], [1, 1]], np.float32))
        self.assertEqual((cover.whole, int(cover.histogram.sum())), (0.625, 4))


class StackTest(unittest.TestCase):
    def setUp(self):
        rng = np.random.default_rng(3)
        self.frame = Frame(
            rng.random((3, 40, 50), dtype=np.float32),
            (rng.random((40, 50)) > 0.3).astype(np.float32),
        )
        self.sample = sample_at(self.frame, 10, 10)

    def test_bands_and_samples_multiply(self):
        pick, bands = Pick(samples=(self.sample.but(tolerance=40),)), Bands(ramp=Ramp(on=True))
        both = qualified(self.frame, pick, bands, RenderContext())
        np.testing.assert_allclose(
            both,
            qualified(self.frame, pick, Bands(), RenderContext())
            * qualified(self.frame, Pick(), bands, RenderContext()),
            atol=1e-6,
        )

    def test_large_frames_in_strips_are_the_same(self):
        from amber_sieve.render import mask as module

        pick = Pick(samples=(self.sample.but(tolerance=30, compare="levels"),))
        whole = qualified(self.frame, pick, Bands(), RenderContext())
        held, module.LARGE, module.ROWS = (module.LARGE, module.ROWS), 10, 7
        try:
            self.assertTrue(
                np.array_equal(qualified(self.frame, pick, Bands(), RenderContext()), whole)
            )
        finally:
            module.LARGE, module.ROWS = held

    def test_transparent_pixels_are_left_out_on_demand(self):
        pick = Pick(samples=(self.sample.but(tolerance=100),), transparent=False)
        mask = qualified(self.frame, pick, Bands(), RenderContext())
        self.assertEqual(mask[self.frame.alpha == 0].max(), 0)
        self.assertGreater(mask.max(), 0)

    def test_an_earlier_sieve_moves_only_masks_that_measure_the_result(self):
        first = Sieve(
            pick=Pick(samples=(self.sample.but(tolerance=60),)), adjust={"recolour": {"hue": 120}}
        )
        for measure, moves in (("original", False), ("result", True)):
            second = Sieve(
                pick=Pick(samples=(self.sample,), measure=measure),
                adjust={"recolour": {"lightness": 20}},
            )
            alone, both = Project(stack=(second,)), Project(stack=(first, second))
            one, other = (
                sieve_mask(self.frame, p, second.id, RenderContext(Cache(10**8)))
                for p in (alone, both)
            )
            self.assertEqual(np.array_equal(one, other), not moves, measure)
            render(self.frame, both, RenderContext(Cache(10**8)))
            seen = frame_measured(self.frame, both, second.id, RenderContext(Cache(10**8)))
            self.assertEqual(np.array_equal(seen.planes, self.frame.planes), not moves)


class SeedsTest(unittest.TestCase):
    def test_connected_only_starts_from_the_middle_of_a_box(self):
        frame = Frame(np.zeros((3, 20, 20), np.float32))
        box = Sample(x=10, y=8, place="box", points=((2, 2), (18, 14)), colour=(0.1, 0.1, 0.1))
        self.assertEqual(seeds_of(Pick(samples=(box,)), frame), [(10, 8)])


class PresetFileTest(FolderCase):
    def test_own_presets_are_kept_listed_and_read(self):
        from unittest import mock

        with mock.patch.object(store, "folder_of_presets", lambda: self.folder / "presets"):
            preset = presets.Preset(
                name="My glaze", swatch=(0.1, 0.2, 0.3), bands=Bands(ramp=Ramp(on=True))
            )
            path = presets.STORE.keep(preset)
            self.assertEqual(presets.STORE.all(), [preset])
            (self.folder / "presets" / "broken.json").write_text("no")
            self.assertEqual(presets.STORE.all(), [preset])
            self.assertEqual(presets.read(path), preset)
        bad = self.folder / "bad.json"
        bad.write_text('{"name": ""}')
        with self.assertRaises(Trouble):
            presets.read(bad)
