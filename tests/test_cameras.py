"""Clicks on pictures as cameras give them, and what is measured in place of the picture."""

import unittest
from unittest import mock

import numpy as np
import robot
from cameras import as_cameras_give
from common import DEMO, WindowCase, demo_frame
from PIL import Image
from skimage.restoration import denoise_nl_means
from sklearn.datasets import load_sample_image

from amber_sieve.core.colour.oklab import to_oklab
from amber_sieve.core.colour.transfer import decode, encode
from amber_sieve.core.frame import Frame
from amber_sieve.core.pick.flat import flat_range, redone, undone
from amber_sieve.core.pick.grain_at_half import SUPPORT_AT_HALF, without_grain_at_half
from amber_sieve.core.pick.measured import (
    AS_IT_IS,
    FROM_GRAIN,
    MOST_STOPS,
    Measuring,
    cleaning_for,
    measured,
    measuring_of,
    stops_for,
)
from amber_sieve.core.pick.non_local_means import LIGHTNESS_NOISE, SUPPORT, grain_of, without_grain
from amber_sieve.export.lookup import compared
from amber_sieve.live.clicking import clicked
from amber_sieve.live.sampling import as_sampled, sample_along, sample_at
from amber_sieve.project.edits import with_sample
from amber_sieve.project.model import (
    Adjust,
    Band,
    Bands,
    Edge,
    Pick,
    Project,
    Recolour,
    Sample,
    Sieve,
)
from amber_sieve.render.automatic import found_amounts
from amber_sieve.render.cache import Cache
from amber_sieve.render.context import RenderContext
from amber_sieve.render.mask import mask_of
from amber_sieve.render.measuring import measuring_for, oklab_of
from amber_sieve.render.stages.unmixing import Clean

#: Things that are clicked here; `bench/clicks.py --as KIND` clicks all.
THINGS = ("turquoise", "cloth", "figure")


def frame_as(picture: str, kind: str, smaller: int = 2) -> Frame:
    planes = demo_frame(picture).reduced(smaller).planes
    return Frame(np.ascontiguousarray(as_cameras_give(planes, kind), np.float32))


def grainy(deviation: float, size: int = 160) -> tuple[np.ndarray, np.ndarray]:
    """Four fields of colour, clean and with grain of a and b (Oklab) at L = 1."""
    clean = np.zeros((3, size, size), np.float32)
    clean[0], half = 0.6, size // 2
    clean[0, :, half:], clean[1, half:], clean[2, :half, half:] = 0.75, 0.1, -0.1
    grain = np.random.default_rng(3).normal(0, 1, clean.shape) / np.sqrt(clean[0])
    grain[0] *= LIGHTNESS_NOISE
    return clean, (clean + deviation * grain).astype(np.float32)


class GrainTest(unittest.TestCase):
    def test_its_deviation_is_found(self):
        for deviation in (0.003, 0.008, 0.012):
            found = grain_of(grainy(deviation)[1])
            self.assertAlmostEqual(found / deviation, 1, delta=0.12)
        self.assertEqual(grain_of(np.full((3, 40, 40), 0.5, np.float32)), 0)
        self.assertEqual(grain_of(np.zeros((3, 2, 2), np.float32)), 0)

    def test_it_goes_as_with_the_non_local_means_of_a_reference_library(self):
        """Source: scikit-image's non-local means, of the same patches and window."""
        clean, noisy = grainy(0.008)

        def error(lab: np.ndarray) -> float:
            return float(np.sqrt(np.mean((lab - clean) ** 2)))

        deviation = 0.008 * LIGHTNESS_NOISE / np.sqrt(0.67)
        theirs = denoise_nl_means(
            np.moveaxis(noisy, 0, -1),
            patch_size=5,
            patch_distance=5,
            h=0.8 * deviation,
            sigma=deviation,
            channel_axis=-1,
        )
        ours, whole = error(without_grain(noisy, 0.008)), error(noisy)
        library = error(np.moveaxis(theirs, -1, 0))
        print(f"\n    error {whole:.4f}; without grain {ours:.4f}, by the library {library:.4f}")
        self.assertLess(ours, 0.2 * whole)
        self.assertLess(ours, 1.25 * library)

    def test_strands_and_edges_stay(self):
        clean, noisy = grainy(0.006)
        noisy[1, 40] = clean[1, 40] = 0.25  # one row of another colour
        out = without_grain(noisy, 0.006)
        np.testing.assert_allclose(out[1, 40], 0.25, atol=0.02)
        self.assertLess(np.abs(out[1, 78:82, :70] - clean[1, 78:82, :70]).mean(), 0.006)

    def test_odd_sizes_and_values_at_the_ends(self):
        for shape in ((1, 1), (1, 40), (40, 1), (3, 5), (17, 33)):
            for value in (0.0, -0.3, 1.0, 40.0):
                lab = np.full((3, *shape), value, np.float32)
                out = without_grain(lab, 0.012)
                np.testing.assert_allclose(out, lab, rtol=1e-5, atol=1e-6)

    def test_a_part_gives_what_the_whole_gives(self):
        lab = grainy(0.008)[1]
        whole = without_grain(lab, 0.008)
        part = without_grain(np.ascontiguousarray(lab[:, 20:100, 30:120]), 0.008)
        inner = np.s_[:, SUPPORT:-SUPPORT, SUPPORT:-SUPPORT]
        np.testing.assert_allclose(part[inner], whole[:, 20:100, 30:120][inner], atol=2e-5)

    def test_bands_of_rows_meet_without_a_seam(self):
        lab = np.tile(grainy(0.008)[1], (1, 2, 1))
        whole = without_grain(lab, 0.008)
        with mock.patch("amber_sieve.core.pick.non_local_means.BAND", 37):
            np.testing.assert_allclose(without_grain(lab, 0.008), whole, atol=2e-5)


class HalfSizeTest(unittest.TestCase):
    def test_grain_goes_and_what_stands_out_of_it_stays(self):
        clean, noisy = grainy(0.006)
        noisy[1, 40] = clean[1, 40] = 0.25  # one row of another colour
        out = without_grain_at_half(noisy, 0.006)
        self.assertLess(np.abs(out[1:] - clean[1:]).mean(), 0.4 * np.abs(noisy - clean)[1:].mean())
        self.assertLess(np.abs(out[1, 40] - 0.25).mean(), 0.02)

    def test_a_part_gives_what_the_whole_gives_wherever_it_begins(self):
        lab, far = grainy(0.008)[1], SUPPORT_AT_HALF
        whole = without_grain_at_half(lab, 0.008)
        for top, left, bottom, right in (
            (20, 30, 120, 121),
            (21, 30, 121, 150),
            (33, 27, 110, 140),
        ):
            part = np.ascontiguousarray(lab[:, top:bottom, left:right])
            inner = np.s_[:, far:-far, far:-far]
            np.testing.assert_allclose(
                without_grain_at_half(part, 0.008, (top, left))[inner],
                whole[:, top:bottom, left:right][inner],
                atol=2e-5,
            )

    def test_odd_sizes_and_values_at_the_ends(self):
        for shape in ((1, 1), (1, 40), (40, 1), (3, 5), (17, 33)):
            for value in (0.0, -0.3, 1.0, 40.0):
                lab = np.full((3, *shape), value, np.float32)
                for corner in ((0, 0), (1, 0), (3, 5)):
                    out = without_grain_at_half(lab, 0.012, corner)
                    np.testing.assert_allclose(out, lab, rtol=1e-5, atol=1e-6)


class MeasuredTest(unittest.TestCase):
    def test_amounts_and_what_they_stand_for(self):
        self.assertEqual(measuring_of(0, 0), AS_IT_IS)
        self.assertEqual(measuring_of(2, 0, 0.25), Measuring())
        self.assertEqual(measuring_of(8, 3), Measuring(0, 0.008, 8.0))
        lab = grainy(0.004)[1]
        self.assertIs(measured(lab, AS_IT_IS), lab)
        # Ottosson 2020: light times k is Oklab times the cube root of k.
        np.testing.assert_allclose(measured(lab, Measuring(gain=8)), 2 * lab, rtol=1e-6)

    def test_dark_pictures_are_brightened_and_others_are_not(self):
        for kind, wanted in (("clean", 0), ("jpeg", 0), ("soft", 0), ("flat", 0), ("dark", 3.3)):
            stops = stops_for(frame_as("yard", kind, 4).planes)
            self.assertAlmostEqual(stops, wanted, delta=0.3, msg=kind)
        for planes in (np.zeros((3, 20, 20)), np.full((3, 20, 20), 1e-5), np.full((3, 1, 1), 0.1)):
            self.assertIn(stops_for(planes.astype(np.float32)), (0, MOST_STOPS))

    def test_grain_is_found_where_it_is(self):
        for kind, least, most in (("clean", 0, 2), ("jpeg", 0, 2), ("noise", 5, 12)):
            amount = cleaning_for(to_oklab(frame_as("yard", kind).planes))
            self.assertTrue(least <= amount <= most, f"{kind}: {amount}")

    def test_amounts_are_found_once_and_can_be_set(self):
        frame, context = frame_as("close", "dark", 4), RenderContext(Cache(10**8))
        edge = found_amounts(Sieve(), frame, context).edge
        self.assertGreaterEqual(edge.clean, FROM_GRAIN)
        self.assertGreater(edge.level, 3)
        self.assertEqual(measuring_for(frame, Sieve(edge=Edge(clean=0, level=0))), AS_IT_IS)
        lab = oklab_of(frame, context, measuring_for(frame, Sieve(edge=edge)))
        self.assertIs(oklab_of(frame, context, measuring_for(frame, Sieve(edge=edge))), lab)

    def test_the_grain_of_a_clip_is_found_on_its_first_frame(self):
        frame, context = frame_as("yard", "noise"), RenderContext()
        self.assertEqual(Clean().find_for_all(frame, context), Clean().find(frame, context))
        self.assertGreaterEqual(Clean().find_for_all(frame, context), FROM_GRAIN)


class FlatTest(unittest.TestCase):
    def test_only_flat_pictures_are_flat(self):
        for kind in ("clean", "jpeg", "noise", "soft", "dark", "mixed"):
            for picture in ("yard", "close"):
                self.assertIsNone(flat_range(frame_as(picture, kind, 3).planes), (picture, kind))
        for picture in ("yard", "close"):
            low, high = flat_range(frame_as(picture, "flat", 3).planes)
            self.assertLess(abs(low - 0.08) + abs(high - 0.55), 0.05)
        grey = np.repeat(frame_as("yard", "flat", 3).planes[1:2], 3, axis=0)
        for odd in (np.zeros((3, 4, 4)), np.full((3, 4, 4), 0.2), np.zeros((3, 0, 4)), grey):
            self.assertIsNone(flat_range(odd.astype(np.float32)))
        # Source: a photograph of scikit-learn.
        codes = np.ascontiguousarray(np.moveaxis(load_sample_image("china.jpg"), -1, 0))
        self.assertIsNone(flat_range(decode(codes / 255).astype(np.float32)))

    def test_the_curve_is_undone_and_redone(self):
        light = np.linspace(0.001, 0.6, 90, dtype=np.float32).reshape(3, 5, 6)
        codes = (0.09, 0.55)
        np.testing.assert_allclose(redone(undone(light, codes), codes), light, atol=2e-6)
        self.assertTrue((np.diff(undone(light, codes).ravel()) > 0).all())
        ends = undone(decode(np.array(codes)).astype(np.float32), codes)
        np.testing.assert_allclose(ends, (0, 0.9), atol=1e-4)
        wild = np.array([-60000, 0, 60000], np.float32)
        for odd in ((0.0, 0.0), (1.0, 1.0), (0.5, 0.2), (0.0, 1.0)):
            self.assertTrue(np.isfinite(redone(undone(wild, odd), odd)).all(), odd)
        self.assertTrue(np.isfinite(redone(np.clip(undone(wild, codes), -1e6, 1e6), codes)).all())

    def test_a_click_on_a_flat_picture_is_worth_more_and_bands_see_it_as_it_is(self):
        frame, true = frame_as("yard", "flat"), robot.half_truth("yard", "turquoise")
        found, plain = (
            [came.score for came in robot.clicks(frame, true, 3, Sieve(pick=Pick(flat=flat)))]
            for flat in ("auto", "off")
        )
        print(f"    turquoise, flat: {plain} as it is, {found} with its curve undone")
        self.assertGreater(found[-1], plain[-1] - 0.01)
        self.assertGreater(found[0], 0.8)
        bands = Bands(hue=Band(on=True, corners=(170, 185, 220, 235)))
        masks = []
        for flat in ("auto", "off"):
            context = RenderContext(Cache(10**8))
            sieve = found_amounts(Sieve(pick=Pick(flat=flat), bands=bands), frame, context)
            masks.append(mask_of(frame, sieve.but(edge=Edge(clean=0)), context))
        np.testing.assert_array_equal(*masks)


class FlatWindowTest(WindowCase):
    def test_a_flat_picture_is_said_once_with_what_helps(self):
        codes = np.rint(encode(frame_as("close", "flat").planes) * 255).astype(np.uint8)
        Image.fromarray(np.ascontiguousarray(np.moveaxis(codes, 0, -1))).save(
            self.folder / "flat.png"
        )
        self.open(DEMO / "close.png")
        notice = self.window.notices.opened
        self.assertFalse(notice.isVisible())
        self.open(self.folder / "flat.png")
        self.assertIn("looks flat", notice.words.text())
        self.assertTrue(notice.isVisible())
        notice.cross.click()
        self.click(280, 210)
        self.assertFalse(notice.isVisible())
        self.workspace.reading.change(space="Linear Rec.709 (sRGB)")
        self.settle()
        self.assertFalse(notice.isVisible())
        self.assertEqual(self.troubles, [])


class ClickTest(unittest.TestCase):
    def test_three_clicks_in_noise_and_in_the_dark_are_worth_what_they_are_on_clean_pictures(self):
        for kind, away in (("noise", 0.05), ("dark", 0.07)):
            frame, found, clean = frame_as("yard", kind), [], []
            for name in THINGS:
                true = robot.half_truth("yard", name)
                *_, last = robot.clicks(frame, true, 3)
                *_, best = robot.clicks(robot.half_frame("yard"), true, 3)
                found.append(last.score)
                clean.append(best.score)
            print(f"\n    {kind}: {np.round(found, 3)}, clean: {np.round(clean, 3)}")
            self.assertGreater(np.mean(found), np.mean(clean) - away, kind)

    def test_a_click_holds_its_place(self):
        rng, held, count = np.random.default_rng(11), 0, 0
        for kind in ("clean", "noise", "dark", "jpeg", "flat", "mixed"):
            frame, context = frame_as("close", kind, 4), RenderContext(Cache(10**8))
            for _ in range(12):
                sieve = Sieve()
                for role in ("keep", "drop", "keep"):
                    x, y = rng.random(2) * (frame.width, frame.height)
                    found = found_amounts(sieve, frame, context)
                    near = as_sampled(frame, [(x, y)], 5, measuring_for(frame, found))
                    sample = sample_at(near, x, y, role=role)
                    sieve = with_sample(sieve, clicked(found, sample, frame, context).sample)
                    mask = mask_of(frame, found_amounts(sieve, frame, context), context)
                    held += (mask[int(y), int(x)] >= 0.5) == (role == "keep")
                    count += 1
        print(f"\n    {held} of {count} random clicks hold their place")
        self.assertGreaterEqual(held, count - 1)

    def test_a_scribble_keeps_its_own_tolerance(self):
        """The middle of a bent stroke is no place that was clicked."""
        frame, context = frame_as("yard", "clean", 4), RenderContext(Cache(10**8))
        bent = ((160.0, 60.0), (165.0, 90.0), (195.0, 90.0))
        sample = sample_along(frame, "stroke", bent, 6)
        found = found_amounts(Sieve(), frame, context)
        with mock.patch("amber_sieve.live.clicking._held_to_its_place") as held:
            clicked(found, sample, frame, context)
        held.assert_not_called()

    def test_a_lookup_table_carries_how_a_picture_is_measured(self):
        for kind in ("dark", "flat"):
            frame = frame_as("yard", kind, 4)
            bare = Edge(specks=0, holes=0, follow=0, clean=0)
            sieve = Sieve(edge=bare, adjust=Adjust(recolour=Recolour(hue=90)))
            sieve = with_sample(sieve, sample_at(frame, 300, 100))
            found = compared(Project(stack=(sieve,)), frame, 33)
            print(f"\n    table of a {kind} picture: mean {found.mean:.2f} from the render")
            self.assertEqual(found.left_out, [])
            self.assertLess(found.mean, 0.5, kind)

    def test_samples_are_taken_from_what_is_measured(self):
        clean = np.full((3, 60, 60), 0.4, np.float32)
        noisy = clean + np.random.default_rng(2).normal(0, 0.05, clean.shape).astype(np.float32)
        frame = Frame(noisy)
        part = as_sampled(frame, [(30.0, 30.0)], 1, Measuring(grain=0.012))
        taken, raw = sample_at(part, 30, 30, size=1), sample_at(frame, 30, 30, size=1)
        off = [np.abs(np.array(one.colour) - 0.4).max() for one in (taken, raw)]
        self.assertLess(off[0], 0.5 * off[1])
        self.assertEqual((taken.x, taken.y), (30, 30))
        self.assertIs(as_sampled(frame, [(30.0, 30.0)], 1, AS_IT_IS), frame)
        self.assertIs(as_sampled(frame, [(900.0, 900.0)], 1, Measuring(grain=0.01)), frame)
        self.assertIsInstance(taken, Sample)


if __name__ == "__main__":
    unittest.main()
