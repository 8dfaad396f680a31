"""What finds its own amount at the edge: Follow's reach, Fine beside Follow, cleaning; on true
outlines and real photographs.
"""

import functools
import importlib.util
import io
import pathlib
import unittest
import warnings
from unittest import mock

import cv2
import numpy as np
import robot
from common import FolderCase, demo_frame, truth
from PIL import Image
from scipy import sparse
from scipy.sparse.linalg import spsolve

from amber_sieve.core.colour.oklab import to_oklab
from amber_sieve.core.edge import chebyshev
from amber_sieve.core.edge import refine_alpha as refining
from amber_sieve.core.edge.clean import (
    LIMIT,
    NOISE_PER_PASS,
    blockiness_of,
    cleaned,
    fitting_amount,
)
from amber_sieve.core.edge.clicked_regions import restore_clicked_regions
from amber_sieve.core.edge.fine import closed_form_matte, prior_of
from amber_sieve.core.edge.follow import EdgeMatte, follow
from amber_sieve.core.edge.follow_reach import FOUND_SUPPORT, REACHES, follow_found
from amber_sieve.core.edge.grid import grid_over
from amber_sieve.core.edge.matting_parts import cf_laplacian
from amber_sieve.core.edge.morphology import longest_of, without_holes, without_specks
from amber_sieve.core.edge.refine_alpha import refine_alpha
from amber_sieve.core.frame import Frame
from amber_sieve.core.pick.pieces import deepest
from amber_sieve.core.pick.samples import SampleParams, membership
from amber_sieve.core.pick.tolerance import steady_tolerance
from amber_sieve.live.sampling import sample_at, with_found_tolerance
from amber_sieve.media.opening import open_source
from amber_sieve.project.model import Edge, Pick, Sieve
from amber_sieve.render.automatic import found_amounts
from amber_sieve.render.cache import Cache
from amber_sieve.render.context import RenderContext
from amber_sieve.render.mask import mask_of
from amber_sieve.render.stages.edging import NO_EDGE

FIXED = (2, 3, 5, 8, 12, 20, 30)


def edge_band(true: np.ndarray) -> np.ndarray:
    """Nine pixels along the outline, and all that is partial, (H, W) bool."""
    inside, disc = (
        (true > 0.5).astype(np.uint8),
        cv2.getStructuringElement(cv2.MORPH_ELLIPSE, (9, 9)),
    )
    return (cv2.dilate(inside, disc) - cv2.erode(inside, disc) > 0) | (
        (true > 0.02) & (true < 0.98)
    )


@functools.cache
def lab_of(picture: str) -> np.ndarray:
    return to_oklab(demo_frame(picture).planes)


def first_click(picture: str, true: np.ndarray) -> np.ndarray:
    """The mask of one click deepest inside an object, with no edge work."""
    x, y, _ = deepest(true > 0.99)
    planes = demo_frame(picture).planes
    probe = SampleParams(
        tuple(float(v) for v in planes[:, y - 2 : y + 3, x - 2 : x + 3].reshape(3, -1).mean(1))
    )
    return membership(
        lab_of(picture),
        [SampleParams(probe.colour, tolerance=steady_tolerance(lab_of(picture), probe))],
    )


class SaidTest(unittest.TestCase):
    """What was clicked stands, whatever the edge makes of the outline."""

    def test_a_piece_that_was_turned_round_comes_back_near_the_click(self):
        picked = np.zeros((60, 80), np.float32)
        picked[20:40, 10:40], picked[20:40, 40:70] = 1, 0.3
        worked = picked.copy()
        worked[20:40, 40:70], worked[:5, :5] = 0.9, 1
        out = restore_clicked_regions(worked, picked, (), ((50.5, 30.5),), 8)
        self.assertEqual(out[30, 50], np.float32(0.3))
        self.assertEqual((out[30, 41], out[30, 43]), (np.float32(0.9), np.float32(0.3)))
        self.assertEqual((out[30, 65], out[30, 20], out[2, 2]), (np.float32(0.9), 1, 1))
        self.assertIs(
            restore_clicked_regions(
                worked, picked, ((20.5, 30.5),), ((75.5, 50.5), (-3, 4), (900, 4)), 8
            ),
            worked,
        )
        lost = np.where(picked == 1, np.float32(0), picked)
        back = restore_clicked_regions(lost, picked, ((12.5, 22.5),), (), 500)
        np.testing.assert_array_equal(back, picked)

    def test_a_click_is_never_turned_round_on_the_demo(self):
        """Every clicked place of the robot that clicks the middle of the largest wrong region, four
        objects of the demo.
        """
        for picture, name in (
            ("yard", "terracotta"),
            ("yard", "marigolds"),
            ("close", "leaf"),
            ("close", "marigolds"),
        ):
            frame, cache = robot.half_frame(picture), RenderContext(Cache(400_000_000))
            for made in robot.clicks(frame, robot.half_truth(picture, name)):
                before = mask_of(
                    frame, found_amounts(made.sieve.but(edge=NO_EDGE), frame, cache), cache
                )[made.y, made.x]
                with self.subTest(picture=picture, name=name, at=(made.x, made.y)):
                    if (before >= 0.5) == (made.role == "keep"):
                        self.assertEqual(made.mask[made.y, made.x] >= 0.5, made.role == "keep")


def near_outline(true: np.ndarray, room: int) -> tuple[slice, slice]:
    """Rows and columns of what lies within so many pixels of an outline."""
    left, top, width, height = cv2.boundingRect(edge_band(true).astype(np.uint8))
    return np.s_[
        max(0, top - room) : top + height + room, max(0, left - room) : left + width + room
    ]


@functools.cache
def outline_errors() -> dict[tuple[str, str], tuple[float, float, float, float]]:
    """Errors of each outline: with no edge work, with the best fixed reach, with the reach found,
    and with that settled.
    """
    rows = {}
    for picture, name in robot.objects():
        whole = truth(picture, name)
        near = near_outline(whole, 150)
        planes = demo_frame(picture).planes[:, *near].copy()
        mask, true = first_click(picture, whole)[near].copy(), whole[near]
        band = edge_band(true)
        error = lambda made: float(np.abs(made - true)[band].mean())  # noqa: B023, E731
        found, unmixed = follow_found(planes, mask)
        best = min(error(follow(planes, mask, reach)[0]) for reach in FIXED)
        row = error(mask), best, error(found), error(refine_alpha(planes, unmixed))
        print(
            "\n{:6}{:12} none {:.3f}  best fixed reach {:.3f}  found {:.3f}  settled {:.3f}".format(
                picture, name, *row
            ),
            end="",
            flush=True,
        )
        rows[picture, name] = row
    print(
        "\nmean              none {:.3f}  best fixed reach {:.3f}  "
        "found {:.3f}  settled {:.3f}".format(*np.mean(list(rows.values()), axis=0))
    )
    return rows


class OutlinesTest(unittest.TestCase):
    """All 18 outlines of the yard and the close-up; mean absolute error of the mask in the edge
    band.
    """

    def test_the_found_reach_is_near_the_best_and_never_worse_than_nothing(self):
        for outline, (none, _, found, _) in outline_errors().items():
            self.assertLessEqual(found, none, outline)
        _, best, found, _ = np.mean(list(outline_errors().values()), axis=0)
        self.assertLessEqual(found, 1.10 * best)

    def test_settled_along_the_lines_of_the_picture_it_is_nearer_the_truth(self):
        for outline, (_, _, found, lain) in outline_errors().items():
            self.assertLessEqual(lain, 1.04 * found, outline)
        _, _, found, lain = np.mean(list(outline_errors().values()), axis=0)
        self.assertLessEqual(lain, 0.94 * found)

    def test_fine_is_never_much_worse_than_follow(self):
        half = lambda plane: cv2.resize(plane, None, fx=0.5, fy=0.5, interpolation=cv2.INTER_AREA)  # noqa: E731
        rows = []
        for picture, name in robot.objects():
            true = half(truth(picture, name))
            near = near_outline(true, 60)
            planes = robot.half_frame(picture).planes[:, *near].copy()
            mask = half(first_click(picture, truth(picture, name)))[near].copy()
            true = true[near]
            band = edge_band(true)
            followed, unmixed = follow_found(planes, mask, 0.5)
            with warnings.catch_warnings():
                warnings.simplefilter("ignore")
                matted = closed_form_matte(
                    planes, followed, 10.0, prior=prior_of(unmixed, mask.shape)
                )
            rows.append([float(np.abs(made - true)[band].mean()) for made in (followed, matted)])
            print(
                f"\n{picture:6}{name:12} follow {rows[-1][0]:.3f}  fine {rows[-1][1]:.3f}",
                end="",
                flush=True,
            )
            self.assertLessEqual(rows[-1][1], 1.05 * rows[-1][0], f"{picture} {name}")
        print("\nmean              follow {:.3f}  fine {:.3f}".format(*np.mean(rows, axis=0)))


class SettledTest(unittest.TestCase):
    def unmixed(self, planes: np.ndarray, mask: np.ndarray) -> EdgeMatte:
        """What Follow would have found, told apart everywhere."""
        grid = grid_over(mask.shape, 4, (0, 0))
        colours = [np.full((3, *grid.shape), light, np.float32) for light in (0.5, 0.1)]
        return EdgeMatte(*colours, grid, np.ones(mask.shape, bool), mask)

    def test_it_is_the_least_energy_of_a_published_matting(self):
        """Against pymatting's Laplacian (closed-form matting, Levin, Lischinski, Weiss 2008),
        solved to the end by SciPy.
        """
        chance = np.random.default_rng(5)
        true = np.clip(
            cv2.GaussianBlur(
                (np.arange(60)[None] + np.zeros((50, 1)) > 30).astype(np.float32), (0, 0), 1.5
            ),
            0,
            1,
        )
        planes = (true * 0.5 + (1 - true) * 0.1)[None].repeat(3, 0).astype(
            np.float32
        ) + chance.normal(0, 0.004, (3, 50, 60)).astype(np.float32)
        mask = np.clip(true + chance.normal(0, 0.12, true.shape), 0, 1).astype(np.float32) * (
            (true > 0.01) & (true < 0.99)
        ) + (true >= 0.99)
        mask = mask.astype(np.float32)
        with mock.patch.object(refining, "STEPS", 400):
            ours = refine_alpha(planes, self.unmixed(planes, mask))
        band = refining._band(mask, refining.WIDTH)
        laplacian = cf_laplacian(
            np.moveaxis(planes, 0, -1).astype(np.float64), chebyshev.EPSILON * 9, 1
        )
        free = band.ravel()
        fixed, weight = (mask >= 0.5).ravel().astype(float), chebyshev.WEIGHT
        left = laplacian[free][:, free] + weight * sparse.identity(int(free.sum()))
        right = weight * mask.ravel()[free] - laplacian[free][:, ~free] @ fixed[~free]
        theirs = np.clip(spsolve(left.tocsc(), right), 0, 1)
        self.assertLess(float(np.abs(ours.ravel()[free] - theirs).mean()), 0.004)
        self.assertLess(
            float(np.abs(ours - true)[band].mean()), 0.6 * float(np.abs(mask - true)[band].mean())
        )
        np.testing.assert_array_equal(ours.ravel()[~free], mask.ravel()[~free])

    def test_a_part_is_settled_as_the_whole_is(self):
        frame = demo_frame("yard")
        found, unmixed = follow_found(frame.planes, first_click("yard", truth("yard", "leaf")))
        whole = refine_alpha(frame.planes, unmixed)
        with mock.patch.object(refining, "TILE", 41):
            np.testing.assert_allclose(refine_alpha(frame.planes, unmixed), whole, atol=2e-6)
        self.assertTrue((found == whole).mean() > 0.9)

    def test_any_light_and_any_mask_give_a_mask(self):
        chance = np.random.default_rng(1)
        for lights in (
            (0, 4.0),
            (0, 65504.0),
            (65504.0, -65504.0, 1e-7),
            (1e-30, 0.0),
            (-3.0, 3.0),
            (8.0, 7.9),
            (0.2, 0.2),
        ):
            for channels in (1, 3):
                for height, width in ((36, 44), (1, 1), (2, 50), (50, 2), (3, 3)):
                    planes = np.repeat(
                        chance.choice(np.array(lights, np.float32), (channels, height, width)),
                        3 // channels,
                        axis=0,
                    )
                    mask = chance.choice(
                        np.array((0, 0.03, 0.5, 0.97, 1), np.float32), (height, width)
                    )
                    for scale in (0.01, 0.3, 1.0):
                        out = refine_alpha(planes, self.unmixed(planes, mask), scale)
                        self.assertTrue(
                            np.isfinite(out).all() and out.min() >= 0 and out.max() <= 1,
                            (lights, channels, height, width),
                        )


class FoundReachTest(unittest.TestCase):
    def strands(self) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
        """Dark threads of one to three pixels on a light ground: planes, true coverage, and a mask
        that misses their edges.
        """
        large = np.zeros((1280, 1920), np.float32)
        for number, x in enumerate(range(20, 220, 12)):
            cv2.line(large, (8 * x, 80), (8 * (x + 9), 1200), 1.0, 8 + 8 * (number % 3))
        true = cv2.resize(large, (240, 160), interpolation=cv2.INTER_AREA)
        colour = np.array((0.03, 0.05, 0.20), np.float32)[:, None, None]
        ground = np.array((0.6, 0.55, 0.5), np.float32)[:, None, None]
        noise = np.random.default_rng(3).normal(0, 0.004, (3, 160, 240)).astype(np.float32)
        return true * colour + (1 - true) * ground + noise, true, (true > 0.7).astype(np.float32)

    def test_thin_strands_are_found_and_fine_leaves_them(self):
        planes, true, mask = self.strands()
        found, unmixed = follow_found(planes, mask)
        error = lambda made: float(np.abs(made - true).mean())  # noqa: E731
        print(
            f"\nthin strands: none {error(mask):.4f}, follow 12 "
            f"{error(follow(planes, mask, 12)[0]):.4f}, found {error(found):.4f}",
            end="",
        )
        self.assertLess(error(found), 0.5 * error(mask))
        matted = closed_form_matte(planes, found, 8.0, prior=prior_of(unmixed, mask.shape))
        print(f", fine {error(matted):.4f}")
        self.assertLessEqual(error(matted), 1.05 * error(found))

    def test_a_part_gives_what_the_whole_gives(self):
        frame = demo_frame("yard")
        mask = first_click("yard", truth("yard", "turquoise"))
        whole, _ = follow_found(frame.planes, mask)
        room = int(FOUND_SUPPORT) + 2
        top, left = 760, 660
        part = np.s_[max(0, top - room) : top + 60 + room, max(0, left - room) : left + 80 + room]
        corner = (part[0].start, part[1].start)
        here, _ = follow_found(
            np.ascontiguousarray(frame.planes[:, part[0], part[1]]),
            np.ascontiguousarray(mask[part]),
            origin=corner,
        )
        inner = here[
            top - part[0].start : top - part[0].start + 60,
            left - part[1].start : left - part[1].start + 80,
        ]
        self.assertLess(float(np.abs(inner - whole[top : top + 60, left : left + 80]).max()), 1e-5)

    def test_nothing_to_do_and_no_sure_inside(self):
        planes = np.full((3, 40, 40), 0.3, np.float32)
        for mask in (np.zeros((40, 40), np.float32), np.ones((40, 40), np.float32)):
            out, unmixed = follow_found(planes, mask)
            np.testing.assert_array_equal(out, mask)
            self.assertIsNone(unmixed)
        self.assertEqual(sorted(REACHES), list(REACHES))


class SmallPiecesTest(unittest.TestCase):
    def test_strands_near_a_larger_piece_stay_for_follow(self):
        mask = np.zeros((100, 200), np.float32)
        mask[10:60, 20:120] = 1
        mask[62:80, 50] = mask[62:80, 180] = 1  # a strand below, and one far away
        mask[70:74, 90:94] = 1  # a round speck below
        near = without_specks(mask, 60, near=15)
        self.assertEqual((near[70, 50], near[70, 180], near[72, 92]), (1, 0, 0))
        self.assertEqual(without_specks(mask, 60)[70, 50], 0)

    def test_long_pieces_are_no_specks_and_no_holes(self):
        mask = np.zeros((60, 200), np.float32)
        mask[10, 10:190] = 1
        self.assertGreater(180, longest_of(200))
        np.testing.assert_array_equal(without_specks(mask, 200), mask)
        holed = 1 - mask
        np.testing.assert_array_equal(without_holes(holed, 200), holed)
        self.assertEqual(without_specks(mask, 1e5)[10, 50], 0)

    def test_clicked_pieces_stay(self):
        mask = np.zeros((50, 50), np.float32)
        mask[5:8, 5:8] = mask[20:40, 20:40] = 1
        mask[30:32, 30:32] = 0
        self.assertEqual(without_specks(mask, 20, [(6.5, 6.5)])[6, 6], 1)
        self.assertEqual(without_specks(mask, 20, [(-4, 900)])[6, 6], 0)
        self.assertEqual(without_holes(mask, 20, spared=[(30.5, 30.5)])[31, 31], 0)
        self.assertEqual(without_holes(mask, 20)[31, 31], 1)


def small_pieces_of(mask: np.ndarray) -> tuple[int, int]:
    """How many speckles (up to 16 pixels) and blocks (up to 300) a mask and its holes have."""
    speckles = blocks = 0
    for where in (mask > 0.5, mask <= 0.5):
        areas = cv2.connectedComponentsWithStats(where.astype(np.uint8), connectivity=4)[2][
            1:, cv2.CC_STAT_AREA
        ]
        speckles += int((areas <= 16).sum())
        blocks += int(((areas > 16) & (areas <= 300)).sum())
    return speckles, blocks


def shipped_with(package: str) -> pathlib.Path:
    """The folder of a package, without loading it."""
    found = importlib.util.find_spec(package)
    assert found is not None and found.origin is not None
    return pathlib.Path(found.origin).parent


class CleaningTest(FolderCase):
    PHOTOGRAPHS = (
        (shipped_with("sklearn") / "datasets" / "images" / "china.jpg", (500, 40)),
        (shipped_with("sklearn") / "datasets" / "images" / "flower.jpg", (60, 60)),
        (shipped_with("skimage") / "data" / "coffee.png", (60, 60)),
        (shipped_with("skimage") / "data" / "rocket.jpg", (60, 60)),
        (shipped_with("skimage") / "data" / "motorcycle_left.png", (650, 60)),
    )

    def test_speckles_and_blocks_of_real_photographs(self):
        # Source: photographs that scikit-learn and scikit-image ship, read as they are; each
        # clicked once.
        print()
        for path, (x, y) in self.PHOTOGRAPHS:
            frame = open_source(path).frame(0)
            pick = Pick(samples=(with_found_tolerance(sample_at(frame, x, y), frame, Pick()),))
            plain = Sieve(pick=pick, edge=Edge(specks=0, holes=0, follow=0, clean=0, level=0))
            auto = found_amounts(
                plain.but(edge=plain.edge.but(clean="auto")), frame, RenderContext()
            )
            whole = found_amounts(Sieve(pick=pick), frame, RenderContext())
            counts = [
                small_pieces_of(mask_of(frame, sieve, RenderContext()))
                for sieve in (plain, auto, whole)
            ]
            words = "  ".join(
                f"{name} {s} {b}"
                for name, (s, b) in zip(
                    ("as it is", "cleaned", "all automatic"), counts, strict=True
                )
            )
            print(f"{path.name:20} cleaning {auto.edge.clean:g}, speckles and blocks: {words}")
            if auto.edge.clean:
                self.assertLess(counts[1][0], counts[0][0], path.name)
            self.assertLess(sum(counts[2]), 0.7 * sum(counts[0]), path.name)

    def test_jpeg_blocks_are_found_and_a_clean_picture_costs_nothing(self):
        # Source: ITU-T T.81: JPEG works in blocks of 8 x 8 samples.
        y, x = np.mgrid[0:256, 0:384]
        noise = np.random.default_rng(1).normal(0, 3, (256, 384, 3))
        sky = np.clip(
            np.dstack([150 + x / 8 + y / 16, 180 + y / 8, 235 - x / 16]) + noise, 0, 255
        ).astype(np.uint8)
        held = io.BytesIO()
        Image.fromarray(sky).save(held, "JPEG", quality=60)
        (self.folder / "sky.jpg").write_bytes(held.getvalue())
        lab = to_oklab(open_source(self.folder / "sky.jpg").frame(0).planes)
        self.assertGreater(max(blockiness_of(lab[1]), blockiness_of(lab[2])), 1.1)
        self.assertGreaterEqual(fitting_amount(lab), 2)
        smooth = to_oklab(
            np.ascontiguousarray(
                (np.dstack([x, y, x + y]) / 800).astype(np.float32).transpose(2, 0, 1)
            )
        )
        self.assertEqual(fitting_amount(smooth), 0)
        self.assertEqual(blockiness_of(smooth[1][:20, :20]), 1.0)

    def test_cleaning_leaves_strands(self):
        lab = np.zeros((3, 40, 40), np.float32)
        lab[1] += np.random.default_rng(2).normal(0, 0.004, (40, 40)).astype(np.float32)
        lab[1, :, 20] = 0.2
        self.assertLess(LIMIT * NOISE_PER_PASS, 0.2)
        smoothed = cleaned(lab, 1)
        np.testing.assert_array_equal(smoothed[1, :, 20], lab[1, :, 20])
        self.assertLess(smoothed[1, :, :15].std(), 0.6 * lab[1, :, :15].std())

    def test_a_noisy_frame_finds_its_amount_once(self):
        cache = RenderContext(Cache(10**8))
        frame = Frame(demo_frame("yard").planes, key="held")
        self.assertEqual(found_amounts(Sieve(), frame, cache).edge.clean, 1)
        self.assertTrue(cache.holds(("noise", "held")))


if __name__ == "__main__":
    unittest.main()
