"""Samples: distances, roles, falloffs, on made-up colours and on the yard's truth."""

import random
import unittest
from dataclasses import replace

import cv2
import numpy as np
from common import DEMO, demo_frame, overlap, solid, truth
from made import middle_tone

from amber_sieve.core.colour.oklab import one_from_oklab, to_oklab
from amber_sieve.core.falloff import FORMULAS, shape_table
from amber_sieve.core.frame import patch
from amber_sieve.core.pick.cached_distances import distances_to_each, membership_of_known
from amber_sieve.core.pick.samples import SampleParams, membership
from amber_sieve.core.pick.tolerance import steady_tolerance
from amber_sieve.live.sampling import sample_at, with_found_tolerance
from amber_sieve.names import COMPARISONS, SHAPES
from amber_sieve.project.model import Pick
from amber_sieve.render.mask import probe_of

#: Six differently coloured objects of each picture. Each is clicked once, at the wholly covered
#: pixel whose lightness and saturation lie nearest to the middle of the object's: nobody chose the
#: places.
OBJECTS = {
    "yard": ("sky", "cloth", "turquoise", "leaf", "terracotta", "figure"),
    "close": ("cloth", "turquoise", "leaf", "honey", "terracotta", "marigolds"),
}


class MembershipTest(unittest.TestCase):
    def mask_of(self, colours: list, *probes: SampleParams) -> np.ndarray:
        planes = np.ascontiguousarray(np.array(colours, np.float32).T[:, None, :])
        return membership(to_oklab(planes), probes)[0]

    def test_the_sample_itself_counts_fully(self):
        for compare in ("surface", "colour"):
            self.assertEqual(
                self.mask_of([(0.2, 0.4, 0.1)], SampleParams((0.2, 0.4, 0.1), compare=compare))[0],
                1,
            )

    def test_a_relit_surface_is_held_and_another_is_not(self):
        # Source: Shafer (1985), dichromatic reflection: body reflection scales all channels alike.
        base = np.array([0.30, 0.05, 0.04])
        mask = self.mask_of([base * 0.5, base * 1.6, (0.05, 0.30, 0.04)], SampleParams(tuple(base)))
        np.testing.assert_array_equal(mask, [1, 1, 0])

    def test_gloss_forgives_paler_but_not_richer(self):
        colours = [one_from_oklab((0.6, 0.09, 0)), one_from_oklab((0.6, 0.20, 0))]
        probe = SampleParams(tuple(one_from_oklab((0.6, 0.14, 0))), tolerance=3)
        plain = self.mask_of(colours, probe)
        forgiven = self.mask_of(colours, SampleParams(probe.colour, tolerance=3, gloss=1.0))
        self.assertEqual(forgiven[0], 1)
        self.assertLess(plain[0], 1)
        self.assertEqual(forgiven[1], plain[1])

    def test_shading_0_holds_less_than_100(self):
        colours = [(0.02, 0.01, 0.01), (0.4, 0.2, 0.2)]
        self.assertEqual(self.mask_of(colours, SampleParams((0.4, 0.2, 0.2), shading=0.0))[0], 0)
        self.assertEqual(self.mask_of(colours, SampleParams((0.4, 0.2, 0.2), shading=1.0))[0], 1)

    def test_colour_distance_is_delta_e_ok_times_100(self):
        near = one_from_oklab((0.5, 0.05, 0.09))
        probe = SampleParams(
            tuple(one_from_oklab((0.5, 0.05, 0.05))), compare="colour", tolerance=2, falloff=4
        )
        self.assertAlmostEqual(self.mask_of([near], probe)[0], 0.5, places=3)

    def test_keep_unites_and_drop_takes_out(self):
        red, green = (0.5, 0.05, 0.05), (0.05, 0.4, 0.05)
        both = self.mask_of([red, green], SampleParams(red), SampleParams(green))
        np.testing.assert_array_equal(both, [1, 1])
        np.testing.assert_array_equal(
            self.mask_of(
                [red, green],
                SampleParams(red),
                SampleParams(green),
                SampleParams(green, keep=False),
            ),
            [1, 0],
        )
        np.testing.assert_array_equal(self.mask_of([red], SampleParams(red, keep=False)), [0])

    def test_other_comparisons_need_their_planes(self):
        with self.assertRaises(ValueError):
            membership(to_oklab(solid((1, 0, 0))), [SampleParams((1, 0, 0), compare="levels")])
        with self.assertRaises(ValueError):
            membership(
                to_oklab(solid((1, 0, 0))),
                [SampleParams((1, 0, 0), compare="taste")],
                np.zeros((6, 8, 8), np.float32),
            )

    def test_falloff_shapes_fall_and_stay_within_bounds(self):
        for shape in SHAPES:
            table = shape_table(shape, 0.5)
            self.assertEqual((table[0], table[-1]), (0, 1))
            self.assertGreaterEqual(np.diff(table).min(), 0)
        with self.assertRaises(ValueError):
            shape_table("wavy")

    def test_black_and_huge_values_are_harmless(self):
        mask = self.mask_of(
            [(0, 0, 0), (6e4, 6e4, 6e4), (-0.1, 0.2, 0.1)],
            SampleParams((0.0, 0.0, 0.0)),
            SampleParams((0.5, 0.5, 0.5)),
        )
        self.assertTrue(np.isfinite(mask).all())
        self.assertEqual(mask[0], 1)

    def test_the_found_tolerance_lies_in_the_gap(self):
        # Two surfaces at distances 0 to 3 and 9 to 12 from the sample: the mask holds still between
        # them.
        base = np.array([0.5, 0.10, 0.0])
        near = [one_from_oklab(base + (0, 0, 0.001 * k)) for k in range(30)]
        far = [one_from_oklab(base + (0, 0, 0.09 + 0.001 * k)) for k in range(60)]
        lab = to_oklab(
            np.ascontiguousarray(np.array(near * 20 + far * 20, np.float32).T[:, None, :])
        )
        probe = SampleParams(tuple(one_from_oklab(base)))
        mask = membership(lab, [replace(probe, tolerance=steady_tolerance(lab, probe))])[0]
        self.assertEqual(mask[:600].min(), 1)
        self.assertEqual(mask[600:].max(), 0)

    def test_a_patch_outside_is_refused_and_one_at_the_rim_is_cut(self):
        planes = solid((0.1, 0.2, 0.3), 10, 12)
        self.assertEqual(patch(planes, 0, 0, 5).shape, (3, 9))
        with self.assertRaises(ValueError):
            patch(planes, 12, 3, 5)


class KnownTest(unittest.TestCase):
    def test_the_mask_of_known_distances_is_that_of_the_picture(self):
        """Bit by bit, for samples of every kind, whatever they are dragged to."""
        chance = random.Random(8)
        for _ in range(40):
            height, width = chance.randrange(1, 20), chance.randrange(1, 300)
            planes = np.random.default_rng(chance.randrange(10**6)).random(
                (3, height, width), dtype=np.float32
            )
            lab = to_oklab(
                cv2.GaussianBlur(planes.transpose(1, 2, 0), (0, 0), 6).transpose(2, 0, 1).copy()
            )
            extra = np.ascontiguousarray(np.concatenate([lab * 50, lab * 100]))
            probes = [
                SampleParams(
                    tuple(chance.random() for _ in range(3)),
                    keep=number == 0 or chance.random() < 0.5,
                    compare=chance.choice(COMPARISONS),
                    shape=chance.choice(tuple(FORMULAS)),
                    bend=chance.uniform(-1, 1),
                    competes=chance.random() < 0.5,
                )
                for number in range(chance.randrange(1, 5))
            ]
            known = distances_to_each(lab, probes, extra)
            for reach, fades in (
                (0, 0),
                (5, 1),
                (chance.uniform(0, 60), chance.uniform(0, 60)),
                (180, 1),
            ):
                dragged = [replace(probe, tolerance=reach, falloff=fades) for probe in probes]
                np.testing.assert_array_equal(
                    membership_of_known(known, dragged), membership(lab, dragged, extra)
                )
        self.assertFalse(
            membership_of_known(known, [replace(probe, keep=False) for probe in probes]).any()
        )


class YardTest(unittest.TestCase):
    """One click on each of six objects of either picture, default settings, against the renderer's
    true coverage.
    """

    @staticmethod
    def one_click(frame, lab: np.ndarray, true: np.ndarray) -> float:
        """Intersection over union of one click at the object's most ordinary pixel, default
        settings.
        """
        sample = with_found_tolerance(sample_at(frame, *middle_tone(lab, true)), frame, Pick())
        return overlap(membership(lab, [probe_of(sample, Pick())]), true)

    def test_one_click_on_each_of_six_objects(self):
        for name, kinds in OBJECTS.items():
            frame = demo_frame(name)
            lab = to_oklab(frame.planes)
            rows = []
            for kind in kinds:
                true = truth(name, kind)
                x, y = middle_tone(lab, true)
                default = probe_of(
                    with_found_tolerance(sample_at(frame, x, y), frame, Pick()), Pick()
                )
                flat = probe_of(
                    with_found_tolerance(sample_at(frame, x, y), frame, Pick(shading=0.0)),
                    Pick(shading=0.0),
                )
                tuned = max(
                    overlap(
                        membership(
                            lab, [replace(default, compare="colour", tolerance=t, falloff=2)]
                        ),
                        true,
                    )
                    for t in (2, 3, 4, 5, 6, 8, 10, 12, 15, 20)
                )
                rows.append(
                    (
                        kind,
                        overlap(membership(lab, [default]), true),
                        tuned,
                        overlap(membership(lab, [flat]), true),
                    )
                )
            print(
                f"\n{name}: intersection over union     surface   colour, tuned on the truth   "
                "shading 0"
            )
            for kind, surface, tuned, unshaded in rows:
                print(f"  {kind:28}{surface:12.3f}{tuned:24.3f}{unshaded:16.3f}")
            means = np.mean([row[1:] for row in rows], axis=0)
            print(f"  {'mean':28}{means[0]:12.3f}{means[1]:24.3f}{means[2]:16.3f}")
            others = [
                path.stem
                for path in sorted((DEMO / f"{name}.truth").glob("*.png"))
                if path.stem not in kinds
            ]
            left = {kind: self.one_click(frame, lab, truth(name, kind)) for kind in others}
            print(
                "  not among the six: "
                + ", ".join(f"{kind} {found:.3f}" for kind, found in left.items())
            )
            self.assertEqual(len(rows), 6)
            self.assertGreaterEqual(means[0], 0.8, name)
            self.assertGreater(means[0], means[1], name)
            self.assertGreater(means[0], means[2], name)
