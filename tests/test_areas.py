"""Areas: shapes, strokes, scissors, their handles, and how they join a mask."""

import math
import unittest

import numpy as np
from common import DEMO, FolderCase, demo_frame, terminal

from amber_sieve.core.areas.scissors import clinging_path
from amber_sieve.core.areas.shapes import combined, coverage
from amber_sieve.core.areas.strokes import stroke_coverage
from amber_sieve.core.frame import Frame
from amber_sieve.desk.canvas import area_shape as shape
from amber_sieve.media import stills
from amber_sieve.project.model import Area, Pick, Sieve, Stroke
from amber_sieve.render.context import RenderContext
from amber_sieve.render.mask import mask_of


def shoelace(points) -> float:
    """Area of a polygon (Gauss)."""
    x, y = np.array(points).T
    return abs(float(np.dot(x, np.roll(y, 1)) - np.dot(y, np.roll(x, 1)))) / 2


class ShapesTest(unittest.TestCase):
    def test_areas_are_the_analytic_ones(self):
        # Source: plane geometry.
        size = (200, 300)
        middle = (150.3, 97.6)
        box = (middle, (middle[0] + 61.2, middle[1] + 12.0), (middle[0] - 9.0, middle[1] + 45.9))
        cross = abs(61.2 * 45.9 + 12.0 * 9.0)
        self.assertAlmostEqual(coverage("rect", box, size).sum() / (4 * cross), 1, delta=0.003)
        self.assertAlmostEqual(
            coverage("ellipse", box, size).sum() / (math.pi * cross), 1, delta=0.003
        )
        triangle = ((20.0, 20.0), (220.5, 30.0), (90.0, 180.0))
        self.assertAlmostEqual(
            coverage("polygon", triangle, size).sum() / shoelace(triangle), 1, delta=0.005
        )

    def test_gradients(self):
        ramp = coverage("gradient", ((0.5, 0), (100.5, 0)), (4, 101))
        np.testing.assert_allclose(ramp[2], np.linspace(1, 0, 101), atol=1e-5)
        radial = coverage("radial", ((50, 50), (90, 50), (50, 70)), (100, 100))
        self.assertGreater(radial[50, 50], 0.99)
        self.assertEqual(radial[50, 5], 0)

    def test_feather_ways(self):
        hard = coverage("rect", ((50, 50), (80, 50), (50, 70)), (100, 100))
        inside, outside = (
            coverage("rect", ((50, 50), (80, 50), (50, 70)), (100, 100), 4, way)
            for way in ("inwards", "outwards")
        )
        self.assertTrue((inside <= hard + 1e-6).all() and (outside >= hard - 1e-6).all())

    def test_joining(self):
        mask, area = (
            np.array([[0.0, 0.5, 1.0]], np.float32),
            np.array([[1.0, 0.5, 0.5]], np.float32),
        )
        np.testing.assert_allclose(combined(mask, area, "add"), [[1, 0.5, 1]])
        np.testing.assert_allclose(combined(mask, area, "subtract"), [[0, 0.25, 0.5]])
        np.testing.assert_allclose(combined(mask, area, "intersect"), [[0, 0.25, 0.5]])
        with self.assertRaises(ValueError):
            combined(mask, area, "multiply")
        with self.assertRaises(ValueError):
            coverage("star", ((0, 0), (1, 0), (0, 1)), (3, 3))

    def test_degenerate_shapes_are_harmless(self):
        for kind, points in (
            ("rect", ((5, 5), (5, 5), (5, 5))),
            ("ellipse", ((5, 5), (6, 5), (7, 5))),
            ("polygon", ()),
            ("polygon", ((1, 1), (2, 2))),
            ("polygon", ((0, 0), (20, 20), (20, 0), (0, 20))),  # crosses itself
            ("gradient", ((3, 3), (3, 3))),
            ("radial", ((1e6, 5), (1e6 + 1, 5), (1e6, 6))),
        ):
            out = coverage(kind, points, (24, 24), 500 if kind == "rect" else 0)
            self.assertTrue(np.isfinite(out).all() and out.min() >= 0 and out.max() <= 1, kind)
        self.assertGreater(
            coverage("polygon", ((0, 0), (20, 20), (20, 0), (0, 20)), (24, 24))[10, 17], 0.9
        )

    def test_a_wide_feather_never_covers_more_than_all(self):
        everywhere = ((20, 20), (1e6, 20), (20, 1e6))
        for sigma in (0.3, 7, 50, 590.0055640149319):
            self.assertLessEqual(coverage("rect", everywhere, (36, 44), sigma).max(), 1)


class StrokesTest(unittest.TestCase):
    def test_a_hard_brush_covers_a_disc_and_a_capsule(self):
        # Source: plane geometry.
        for radius in (6.0, 20.0, 47.5):
            disc = stroke_coverage(np.array([(100.3, 100.7, 1)]), 2 * radius, (200, 400)).sum()
            self.assertAlmostEqual(disc / (math.pi * radius**2), 1, delta=0.005)
            capsule = stroke_coverage(
                np.array([(80, 90, 1), (300, 110, 1)]), 2 * radius, (200, 400)
            ).sum()
            expected = math.pi * radius**2 + 2 * radius * math.hypot(220, 20)
            self.assertAlmostEqual(capsule / expected, 1, delta=0.005)

    def test_flow_builds_up_opacity_bounds_pressure_thins(self):
        line = np.array([(20, 20, 1), (80, 20, 1)])
        weak, strong = (stroke_coverage(line, 20, (40, 100), 0.5, flow) for flow in (0.05, 1.0))
        self.assertTrue(0 < weak[20, 50] < strong[20, 50])
        self.assertAlmostEqual(
            float(stroke_coverage(line, 20, (40, 100), opacity=0.3).max()), 0.3, places=5
        )
        thin = stroke_coverage(
            np.array([(20, 20, 0.2), (80, 20, 1)]), 20, (40, 100), pressure_size=True
        )
        self.assertLess(thin[:, 25].sum(), thin[:, 75].sum() / 2)
        faint = stroke_coverage(
            np.array([(20, 20, 0.2), (80, 20, 1)]), 20, (40, 100), 0.5, 0.2, pressure_flow=True
        )
        self.assertLess(faint[20, 25], faint[20, 75])

    def test_degenerate_strokes(self):
        self.assertEqual(stroke_coverage(np.zeros((0, 3)), 10, (8, 8)).max(), 0)
        self.assertGreater(stroke_coverage(np.array([(4, 4, 1), (4, 4, 1)]), 4, (8, 8)).max(), 0.9)
        self.assertEqual(stroke_coverage(np.array([(900, 900, 1)]), 40, (8, 8)).max(), 0)

    def test_strokes_render_the_same_at_any_scale(self):
        stroke = Stroke(points=((300, 400, 1), (900, 700, 1)), size=120)
        sieve = Sieve(areas=(Area(kind="brush", mode="add", strokes=(stroke,)),))
        frame = Frame(np.full((3, 1000, 1200), 0.3, np.float32))
        whole, small = (mask_of(f, sieve, RenderContext()) for f in (frame, frame.reduced(4)))
        self.assertLess(np.abs(whole.reshape(250, 4, 300, 4).mean((1, 3)) - small).mean(), 0.002)

    def test_a_brush_that_paints_only_the_like(self):
        frame = demo_frame("yard")
        like = tuple(float(v) for v in frame.planes[:, 330, 1230])
        points = ((1230, 330, 1), (1600, 330, 1))
        free, alike = (Stroke(points=points, size=80, like=colour) for colour in (None, like))
        plain, picky = (
            mask_of(
                frame, Sieve(areas=(Area(kind="brush", mode="add", strokes=(s,)),)), RenderContext()
            )
            for s in (free, alike)
        )
        self.assertGreater(picky[330, 1300], 0.9)
        self.assertEqual((plain[330, 1560], picky[330, 1560]), (1, 0))

    def test_erasing(self):
        strokes = (
            Stroke(points=((50, 50, 1),), size=60),
            Stroke(points=((50, 50, 1),), size=20, erase=True),
        )
        mask = mask_of(
            Frame(np.zeros((3, 100, 100), np.float32)),
            Sieve(areas=(Area(kind="brush", mode="add", strokes=strokes),)),
            RenderContext(),
        )
        self.assertEqual((mask[50, 50], mask[50, 70]), (0, 1))


class ScissorsTest(unittest.TestCase):
    def test_the_outline_clings_to_a_synthetic_edge(self):
        # Source: the edge is known; within a pixel of it everywhere between the ends.
        y, x = np.mgrid[0:160, 0:200]
        edge = 80 + 18 * np.sin(x / 22)
        planes = np.where(y < edge, 0.7, 0.08).astype(np.float32)[None].repeat(3, 0).copy()
        path = np.array(
            clinging_path(
                planes, (20, 80 + 18 * math.sin(20 / 22)), (180, 80 + 18 * math.sin(180 / 22))
            )
        )
        inner = path[(path[:, 0] > 26) & (path[:, 0] < 174)]
        # A pixel's middle is half a pixel beyond its number.
        away = np.abs(inner[:, 1] - (80.5 + 18 * np.sin((inner[:, 0] - 0.5) / 22)))
        slope = np.sqrt(1 + (18 / 22 * np.cos(inner[:, 0] / 22)) ** 2)
        self.assertLessEqual((away / slope).max(), 1.0)
        self.assertGreater(len(inner), 100)

    def test_points_too_near_or_far_give_a_line(self):
        planes = np.zeros((3, 20, 20), np.float32)
        self.assertEqual(clinging_path(planes, (3, 3), (3, 3)), [(3, 3), (3, 3)])
        self.assertEqual(
            clinging_path(np.zeros((3, 2, 2), np.float32), (0, 0), (1, 1)), [(0, 0), (1, 1)]
        )


class HandlesTest(unittest.TestCase):
    def setUp(self):
        self.box = shape.boxed("rect", (100, 100), (300, 200))

    def test_moving_scaling_turning_and_skewing(self):
        self.assertEqual(shape.dragged(self.box, "middle", (210, 160)).points[0], (210, 160))
        wide = shape.numbers_of(shape.dragged(self.box, "right", (400, 150)))
        self.assertAlmostEqual(wide["Width"], 300)
        self.assertAlmostEqual(wide["X"], 250)
        even = shape.numbers_of(shape.dragged(self.box, "right", (400, 150), about_middle=True))
        self.assertAlmostEqual(even["Width"], 400)
        self.assertAlmostEqual(even["X"], 200)
        corner = shape.numbers_of(shape.dragged(self.box, "top left", (0, 0)))
        self.assertAlmostEqual(corner["Width"], 300)
        self.assertAlmostEqual(corner["Height"], 200)
        turned = shape.numbers_of(shape.dragged(self.box, "turn", (200, 400)))
        self.assertAlmostEqual(turned["Angle"], 90)
        self.assertAlmostEqual(turned["Width"], 200)
        skewed = shape.dragged(self.box, "bottom", (250, 200), skew=True)
        self.assertEqual(skewed.points[2], (250, 200))

    def test_numbers_are_set(self):
        for name, value in (("X", 50), ("Y", 60), ("Width", 80), ("Height", 90), ("Angle", 30)):
            self.assertAlmostEqual(
                shape.numbers_of(shape.with_number(self.box, name, value))[name], value
            )

    def test_gradient_polygon_and_snapping(self):
        gradient = Area(kind="gradient", points=((0, 0), (10, 0)))
        self.assertEqual(shape.dragged(gradient, "empty", (20, 5)).points, ((0, 0), (20, 5)))
        polygon = Area(kind="polygon", points=((0, 0), (10, 0), (5, 8)))
        self.assertEqual(shape.dragged(polygon, "corner 2", (6, 9)).points[2], (6, 9))
        self.assertEqual(shape.snapped((3, 498), (1000, 1000), [], 5), (0, 500))
        self.assertEqual(shape.snapped((30, 480), (1000, 1000), [], 5), (30, 480))


class TerminalTest(FolderCase):
    def mask(self, *words) -> np.ndarray:
        out = self.folder / "mask.png"
        done = terminal("mask", DEMO / "yard.png", "-o", out, *words)
        self.assertEqual((done.returncode, done.stderr), (0, ""), words)
        return stills.read(out).picture.planes[0]

    def test_edge_areas_and_bands_from_the_terminal(self):
        plain = self.mask("--keep", "735,830")
        everything = [
            "--black",
            4,
            "--white",
            96,
            "--gamma",
            1.2,
            "--specks",
            30,
            "--holes",
            40,
            "--grow",
            2,
            "--feather",
            1.5,
            "--smooth",
            1,
            "--follow",
            8,
            "--clean",
            1,
            "--connected",
            2,
        ]
        worked = self.mask("--keep", "735,830", *everything)
        self.assertFalse(np.array_equal(plain, worked))
        self.assertTrue(
            set(np.unique(self.mask("--keep", "735,830", "--hard", "--shrink", 2))) <= {0.0, 1.0}
        )
        here = self.mask("--keep", "735,830", "--area", "intersect:rect:600,600,140,700")
        self.assertEqual(here[830, 745], 0)
        self.assertGreater(here[830, 700], 0)
        both = self.mask(
            "--area",
            "add:ellipse:100,100,200,100",
            "--area",
            "subtract:polygon:100,100,200,100,200,200,100,200",
        )
        self.assertEqual((both[150, 150], both[150, 250] > 0.9), (0, True))
        bands = self.mask("--hue", "255,262,278,284", "--sat", "20,28,90,100", "--lum", "0,5,55,60")
        self.assertGreater(bands[330, 1230], 0.9)
        self.assertGreater(self.mask("--ramp")[60, 200], self.mask("--ramp")[330, 1230])

    def test_wrong_areas_and_bands_are_said(self):
        for words in (
            ("--area", "intersect:blob:1,2"),
            ("--area", "over:rect:1,2,3,4"),
            ("--area", "add:rect:1,2"),
            ("--hue", "5,4,3,2"),
            ("--follow", "900"),
        ):
            done = terminal("mask", DEMO / "yard.png", "-o", self.folder / "m.png", *words)
            self.assertEqual(done.returncode, 2, words)
        self.assertEqual(
            terminal("mask", DEMO / "yard.png", "-o", self.folder / "m.png").returncode, 1
        )


class ModelTest(unittest.TestCase):
    def test_the_first_area_on_an_empty_sieve_starts_from_everything(self):
        frame = Frame(np.full((3, 50, 60), 0.3, np.float32))
        only = mask_of(
            frame,
            Sieve(areas=(shape.boxed("rect", (10, 10), (30, 30), mode="intersect"),)),
            RenderContext(),
        )
        self.assertEqual((only[20, 20], only[40, 50]), (1, 0))
        inverted = mask_of(
            frame,
            Sieve(areas=(shape.boxed("rect", (10, 10), (30, 30), inverted=True),)),
            RenderContext(),
        )
        self.assertEqual((inverted[20, 20], inverted[40, 50]), (0, 1))
        with self.assertRaises(ValueError):
            Area(kind="rect", points=((0, 0),))
        self.assertEqual(mask_of(frame, Sieve(pick=Pick(), areas=()), RenderContext()).max(), 0)
